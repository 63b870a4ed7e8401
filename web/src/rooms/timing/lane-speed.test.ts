import { addFreeKey, addLane, type Piece, type PieceDraft } from '@core';
import { describe, expect, test } from '@jest/globals';
import { pieceOf } from '../../testing/pieces';
import { laneSpeed, MOMENTS } from './lane-speed';

let n = 0;
const newId = (prefix: string): string => `${prefix}-${++n}`;
/** Two poses, 2.2 s in all; a position that goes by (30, 40) from 1 to 1.5 s. */
function moved(to: readonly number[]): Piece {
  const draft = structuredClone(pieceOf(['M0 0H10V10H0Z', 'M0 0H9V9Z'])) as PieceDraft;
  const lane = addLane(draft, 'f', 'position', newId) ?? '';
  draft.lanes[lane].keys = [];
  addFreeKey(draft, lane, 1, [0, 0], newId);
  addFreeKey(draft, lane, 1.5, to, newId);
  for (const key of draft.lanes[lane].keys) key.easing = { kind: 'linear' };
  return draft as Piece;
}
const speedOf = (piece: Piece) => laneSpeed(piece, Object.values(piece.lanes)[0]);

describe('how fast a lane goes', () => {
  test('is its way per second, both numbers together, and nothing where it rests', () => {
    const found = speedOf(moved([30, 40]));
    expect(found?.fastest).toBeCloseTo(100, 6);
    expect(found && found.at > 0.98 && found.at < 1.52).toBe(true);
    const rest = found?.speeds.filter((_, k) => (2.2 * k) / MOMENTS < 0.98 || (2.2 * k) / MOMENTS > 1.52) ?? [];
    expect(rest.every((v) => v === 0)).toBe(true);
    expect(found?.values.map((own) => [own[0], own[MOMENTS]])).toEqual([
      [0, 1],
      [0, 1],
    ]);
  });
  test('of what never changes is nothing, and it lies in the middle', () => {
    const found = speedOf(moved([0, 0]));
    expect([found?.fastest, found?.values[0][7], found?.speeds[7]]).toEqual([0, 0.5, 0]);
  });
});
