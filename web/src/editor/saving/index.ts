export type { Autosave } from './autosave';
export type { PieceCopy } from './copies';
export { type LeftCopy, SavingDesk } from './desk';
