export { easingCurve, RAIL_PADDING } from './layout';
export { Rail } from './Rail';
