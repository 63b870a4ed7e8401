import fs from 'node:fs';
import { expect, test } from '@jest/globals';
import type { PieceRepository } from './repository';
import { PieceService } from './service';

type Stored = { version: number; poses: Record<string, { placement: { rotation: number } }> };
/** A piece as the program of version 5 stored it. */
function versionFive(): Stored {
  const file = `${__dirname}/../../../../core/src/testing/old-pieces.json`;
  const all = JSON.parse(fs.readFileSync(file, 'utf8')) as { readonly piece: Stored }[];
  return all.map(({ piece }) => piece).find(({ version }) => version === 5) as Stored;
}

const serviceWith = (piece: Stored): PieceService => {
  const stored = { id: 'old', name: 'Old', revision: 3, createdAt: '', updatedAt: '', document: JSON.stringify(piece) };
  return new PieceService({ find: async () => stored } as unknown as PieceRepository, () => 'new');
};

test('what an older version stored is told to look different where it does, and only there', async () => {
  const piece = versionFive();
  expect(await serviceWith(piece).load('old')).not.toHaveProperty('notes');
  const [, second] = Object.values(piece.poses);
  second.placement.rotation = 90;
  expect((await serviceWith(piece).load('old')).notes).toEqual([expect.stringContaining('from pose to pose now')]);
});
