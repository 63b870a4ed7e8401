export { assignOptimally, pairOptimally } from './assignment';
export { cutContour } from './cut-contour';
export * from './match';
export { matchOutlines, prepareMatcher } from './match-outlines';
export { Matcher, type PairSpec } from './matcher';
export { type Pairing, pairingsOf } from './pairings';
export { reasonsFor } from './reasons';
export { type Run, runContour, runShare, runsBackwards, writtenShare } from './run-contour';
export { mapShare } from './share-map';
