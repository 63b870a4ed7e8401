export { assignOptimally, pairOptimally } from './assignment';
export * from './match';
export { matchOutlines } from './match-outlines';
export { pairByOrigin } from './origins';
export { mapShare } from './share-map';
