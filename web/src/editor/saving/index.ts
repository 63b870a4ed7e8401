export type { Autosave } from './autosave';
export type { PieceCopy } from './copies';
export { type LeftCopy, SavingDesk } from './desk';
export type { GivenWay } from './given-way';
export type { Steps } from './kept-steps';
