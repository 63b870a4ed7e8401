import type { Piece } from '../../piece';
import { planPoseShift } from '../plan';
import { type CompiledPiece, compilePiece } from './compile';
import { shiftInput } from './input-of-shift';

/** A piece compiled with plans that are made on the spot: for whoever has the time, such as a worker, a test or a script. */
export const planAndCompile = (piece: Piece): CompiledPiece =>
  compilePiece(piece, (shift) => planPoseShift(shiftInput(piece, shift)));
