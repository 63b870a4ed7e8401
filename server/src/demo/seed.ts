import { checkPiece } from '@core';
import type { PieceRepository } from '../features/pieces/repository';
import { boardingButton } from './boarding-button';
import { gate } from './gate';
import { pierLetters } from './pier-letters';
import { quayMark } from './quay-mark';
import { tideGauge } from './tide-gauge';

/** Adds the demo pieces that are not there yet; ones that the user changed or deleted are left alone. Returns the names of those added. */
export async function seedDemo(repository: PieceRepository): Promise<string[]> {
  const added: string[] = [];
  for (const make of [gate, tideGauge, pierLetters, boardingButton, quayMark]) {
    const piece = checkPiece(make());
    if (await repository.create(piece.id, piece.name, JSON.stringify(piece))) added.push(piece.name);
  }
  return added;
}
