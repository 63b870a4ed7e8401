export { shapeBetween } from './between';
export type { ShapeHandle, ShapeParameter } from './shape-kind';
export * from './shapes';
