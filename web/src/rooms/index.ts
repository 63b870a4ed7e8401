export { MatchRoom } from './match/MatchRoom';
export { OutputRoom } from './output/OutputRoom';
export { PiecePage } from './piece/PiecePage';
export { ShapesRoom } from './shapes/ShapesRoom';
export { TimingRoom } from './timing/TimingRoom';
