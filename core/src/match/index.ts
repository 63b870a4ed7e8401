export { type Nearness, pairOptimally } from './assignment';
export * from './match';
export { matchOutlines, prepareMatcher, wipesOf } from './match-outlines';
export { Matcher, type PairSpec, withWantedPoints } from './matcher';
export { type Pairing, pairingsOf } from './pairings';
export { reasonsFor } from './reasons';
export { type Run, runContour, runsBackwards, shareOnRun, writtenShare } from './run-contour';
export { mapShare } from './share-map';
export { type UnpairedOrder, unpairedTiming } from './unpaired-order';
