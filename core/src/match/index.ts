export { assignOptimally, pairOptimally } from './assignment';
export * from './match';
export { matchOutlines } from './match-outlines';
export { mapShare } from './share-map';
