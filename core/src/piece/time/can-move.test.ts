import { expect, test } from '@jest/globals';
import { pieceOf } from '../../testing/pieces';
import type { PieceDraft } from '../edit/edit';
import type { Piece } from '../records';
import { canMove } from './can-move';

const SQUARE = 'M0 0H100V100H0Z';
const CIRCLE = 'M50 0L100 50L50 100L0 50Z';
const still = pieceOf([SQUARE]);
const changed = (change: (draft: PieceDraft) => void): Piece => {
  const draft = structuredClone(still) as PieceDraft;
  change(draft);
  return draft as Piece;
};
const lane = (rest: object) =>
  changed((draft) => {
    draft.lanes.l = { id: 'l', figure: 'f', property: 'opacity', keys: [], ...rest } as never;
  });
const key = (id: string, value: number) => ({ id, stop: null, after: 0, value: [value] });

test('a single pose moves nothing; a second pose does', () => {
  expect([canMove(still), canMove(pieceOf([SQUARE, CIRCLE]))]).toEqual([false, true]);
});

test('a lane moves something when two of its keys differ, or when it needs none', () => {
  expect(canMove(lane({ keys: [key('a', 1)] }))).toBe(false);
  expect(canMove(lane({ keys: [key('a', 1), key('b', 1)] }))).toBe(false);
  expect(canMove(lane({ keys: [key('a', 1), key('b', 0.5)] }))).toBe(true);
  expect(canMove(lane({ drift: { amount: [0.2], speed: 1, seed: 1 } }))).toBe(true);
  expect(canMove(lane({ pulse: { shape: 'sine', period: 1, from: 0, until: null, amount: [0.2] } }))).toBe(true);
});

test('a figure that comes after the beginning changes the picture', () => {
  const comes = (start: number): Piece =>
    changed((draft) => {
      Object.assign(draft.figures.f, { start, before: 'hidden' });
    });
  expect([canMove(comes(0)), canMove(comes(0.5))]).toEqual([false, true]);
});
