export { readCssEasing, writeCssEasing } from './css-easing';
export { parameterAtTime } from './cubic-bezier';
export { curveFinding } from './curve';
export * from './eased-keys';
export * from './easing';
export { EASING_SIDES, type EasingSide } from './families';
export * from './presets';
export {
  LEAST_DAMPING,
  type SpringEasing,
  type SpringPhysics,
  springBounce,
  springOvershoot,
  springSeconds,
} from './spring';
export { STEP_JUMPS } from './steps';
