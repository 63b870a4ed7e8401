import { describe, expect, test } from '@jest/globals';
import { emptyPiece } from '../records/defaults';
import { addFigure, type PieceDraft } from './edit';
import { SET_OFF_ORDERS, type SetOffOrder, setOff } from './set-off';

const FIGURES = [
  { id: 'a', x: 30, y: 0 },
  { id: 'b', x: 10, y: 20 },
  { id: 'c', x: 20, y: 10 },
];
function starts(order: SetOffOrder, seed = 1): Record<string, number> {
  const draft = structuredClone(emptyPiece('p', 'P')) as PieceDraft;
  for (const { id } of FIGURES) addFigure(draft, id, id);
  draft.figures.a.start = 0.9;
  draft.figures.b.start = 0.5;
  draft.figures.c.start = 3;
  setOff(draft, FIGURES, order, 0.1, seed);
  return Object.fromEntries(FIGURES.map(({ id }) => [id, draft.figures[id].start]));
}

describe('figures set off one after another', () => {
  test('begin where the earliest began, in painting order or by place', () => {
    expect(starts('painting')).toEqual({ a: 0.5, b: 0.6, c: 0.7 });
    expect(starts('across')).toEqual({ b: 0.5, c: 0.6, a: 0.7 });
    expect(starts('down')).toEqual({ a: 0.5, c: 0.6, b: 0.7 });
  });
  test('are shuffled in the same way each time, in another way with another seed', () => {
    expect(starts('seeded', 4)).toEqual(starts('seeded', 4));
    const all = Array.from({ length: 12 }, (_, seed) => JSON.stringify(starts('seeded', seed)));
    expect(new Set(all).size).toBeGreaterThan(2);
    for (const order of SET_OFF_ORDERS) expect(Object.values(starts(order)).sort()).toEqual([0.5, 0.6, 0.7]);
  });
});
