import type { Piece } from '../../piece';
import type { CompiledPiece } from '../lanes';
import { planAndCompile } from '../lanes';
import { type Frame, prepareFrame, sampleFrame } from './sample';

const compiledPieces = new WeakMap<Piece, CompiledPiece>();

/**
 * The picture of a piece at a time in s: what the canvas shows and every output must show. Plans are computed on the first call for a piece
 * and kept with it; for playback use `compilePiece`, `prepareFrame` and `sampleFrame`, which allocate once.
 */
export function frameAt(piece: Piece, seconds: number): Frame {
  let compiled = compiledPieces.get(piece);
  if (!compiled) {
    compiled = planAndCompile(piece);
    compiledPieces.set(piece, compiled);
  }
  return sampleFrame(compiled, seconds, prepareFrame(compiled));
}
