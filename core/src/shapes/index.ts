export type { ShapeHandle, ShapeParameter } from './shape-kind';
export * from './shapes';
