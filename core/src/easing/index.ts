export { backReach, overshootOf } from './back-reach';
export { readCssEasing, writeCssEasing } from './css-easing';
export { parameterAtTime } from './cubic-bezier';
export { curveFinding } from './curve';
export * from './eased-keys';
export * from './easing';
export { EASING_SIDES, type EasingSide } from './families';
export * from './presets';
export {
  physicsOf,
  type SpringEasing,
  type SpringPhysics,
  springBounce,
  springOvershoot,
  springSeconds,
} from './spring';
export { STEP_JUMPS } from './steps';
