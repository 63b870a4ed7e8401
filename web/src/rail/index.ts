export { easingCurve } from './layout';
export { Rail } from './Rail';
