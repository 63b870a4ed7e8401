export * from './blend';
export { clipLane } from './clip-lane';
export * from './lane';
export * from './paint-lanes';
export * from './progress-keys';
export * from './properties';
