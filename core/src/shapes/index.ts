export { shapeBetween } from './between';
export type { ShapeHandle, ShapeParameter } from './shape-kind';
export {
  numbersOfShape,
  SHAPE_NUMBERS,
  type ShapeNumber,
  type ShapeNumberId,
  shapeNumber,
  withShapeNumber,
} from './shape-numbers';
export * from './shapes';
