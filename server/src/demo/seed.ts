import { checkPiece } from '@core';
import type { PieceRepository } from '../features/pieces/repository';
import { DEMO_PIECES } from './pieces';

/** Adds the demo pieces that are not there yet; ones that the user changed or deleted are left alone. Returns the names of those added. */
export async function seedDemo(repository: PieceRepository): Promise<string[]> {
  const added: string[] = [];
  for (const make of DEMO_PIECES) {
    const piece = checkPiece(make());
    if (await repository.create(piece.id, piece.name, JSON.stringify(piece))) added.push(piece.name);
  }
  return added;
}
