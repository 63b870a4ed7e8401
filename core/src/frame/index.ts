export * from './alternatives';
export * from './compile';
export * from './draw';
export * from './frame-at';
export { type PlacedPart, PlaceFinder } from './match-input';
export * from './part-plans';
export * from './sample';
export * from './shift-input';
