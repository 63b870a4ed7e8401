export * from './alternatives';
export { canGoByNumbers } from './by-numbers';
export { canGoByPoints } from './by-points';
export type { Context2D, MakeCanvas } from './canvas-target';
export { CanvasTarget } from './canvas-target';
export {
  type CompiledFigure,
  type CompiledPiece,
  compilePiece,
  compileShift,
} from './compile';
export * from './draw';
export type { FigureSpan } from './figure-span';
export * from './frame-at';
export { LaneBook } from './lane-book';
export { PlaceFinder } from './match-input';
export * from './motion';
export { OVER_PROPERTIES, type OverLanes, type OverSample } from './over-paint';
export type { PaintSample } from './paint-sample';
export { paintedBox } from './painted-box';
export type { PartLanes, StrokeLanes } from './part-lanes';
export * from './part-plans';
export { partsAsSeen } from './parts-as-seen';
export { type PlacedPart, placedParts } from './placed-parts';
export { planAndCompile } from './plan-and-compile';
export { type FollowedPoints, type PointPaths, pointPaths } from './point-paths';
export { stillLanes } from './pose-lanes';
export * from './sample';
export { goesByNumbers, hasShapeLanes, partAt, shapeLanesOf } from './shape-lanes';
export * from './shift-input';
export * from './stage';
export { stillPiece } from './still-piece';
