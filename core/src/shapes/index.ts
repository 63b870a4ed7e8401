export { shapeContours as adjustableContours } from './build';
export * from './handles';
export * from './source';
