import { describe, expect, test } from '@jest/globals';
import { countedIds, pieceOf } from '../../testing/pieces';
import type { Piece } from '../records/records';
import { checkPiece } from '../rules/check-piece';
import { duplicateFigures } from './duplicate-figures';
import { addFigure, insertPoses, type PieceDraft } from './edit';

describe('duplicated figures', () => {
  const original = (): PieceDraft => {
    const draft = structuredClone(pieceOf(['M0 0H10V10H0Z', 'M0 0H20V10H0Z'])) as PieceDraft;
    const newId = countedIds();
    addFigure(draft, 'mask', 'Mask');
    insertPoses(draft, 'mask', [], newId);
    draft.figures.f.clip = 'mask';
    const [shift] = Object.values(draft.shifts);
    const anchorOf = (pose: string) => draft.parts[draft.poses[pose].parts[0]].contours[0].anchors[0].id;
    const place = (pose: string) => ({ anchor: anchorOf(pose) });
    shift.match.ties.push({ id: 'tie', a: place(shift.from), b: place(shift.to) } as never);
    return draft;
  };
  let n = 0;
  const newId = (prefix: string): string => `${prefix}-copy-${n++}`;

  test('are pieces of their own: nothing of the copy belongs to the original, and all of it holds together', () => {
    const draft = original();
    const before = structuredClone(draft);
    const copies = duplicateFigures(draft, ['f', 'mask'], newId);
    expect(draft.figureOrder).toEqual([...before.figureOrder, ...copies]);
    expect(() => checkPiece(JSON.parse(JSON.stringify({ ...draft, figures: { ...draft.figures } })))).not.toThrow();
    for (const [table, records] of Object.entries({ poses: before.poses, parts: before.parts, shifts: before.shifts }))
      for (const [id, record] of Object.entries(records)) {
        expect((draft as never as Record<string, Record<string, unknown>>)[table][id]).toEqual(record);
      }
    const [f, mask] = before.figureOrder[0] === 'f' ? copies : [...copies].reverse();
    const copy = draft.figures[f];
    expect(copy.clip).toBe(mask);
    expect(copy.poses).toHaveLength(2);
    const shift = draft.shifts[copy.rail[0]];
    expect([shift.from, shift.to]).toEqual(copy.poses);
    // The tie holds on the copy's own anchors, which remember the original's.
    const anchors = draft.parts[draft.poses[shift.from].parts[0]].contours[0].anchors;
    expect(shift.match.ties[0].a).toEqual({ anchor: anchors[0].id });
    const source = before.parts[before.poses[before.figures.f.poses[0]].parts[0]].contours[0].anchors;
    expect(anchors.map(({ origin }) => origin)).toEqual(source.map(({ id }) => id));
  });

  test('what is not copied is still referred to', () => {
    const draft = original();
    const [f] = duplicateFigures(draft, ['f'], newId);
    expect((draft as Piece).figures[f].clip).toBe('mask');
  });
});
