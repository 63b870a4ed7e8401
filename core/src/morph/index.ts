export { type Crossing, type Crossings, findCrossings } from './crossings';
export * from './evaluate';
export * from './health';
export * from './morph-paths';
export * from './plan';
export * from './plan-outline';
export * from './plan-shift';
