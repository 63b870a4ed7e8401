import { describe, expect, test } from '@jest/globals';
import {
  AS_DRAWN,
  addFigure,
  emptyPiece,
  insertPoses,
  type NewPose,
  newPose,
  type Part,
  type Piece,
  type PieceDraft,
} from '../../piece';
import { countedIds, drawnPose, pieceOf } from '../../testing/pieces';
import { shiftInput } from '../lanes/input-of-shift';
import { pairedPartsOf, pairParts } from './part-pairs';
import { type ShiftInput, sameShiftInput, withPairs } from './shift-input';

const newId = countedIds();
const square = (x: number, y: number, size = 10, fill = '#204060'): Part =>
  ({ ...drawnPose(`M${x} ${y}h${size}v${size}h${-size}Z`, newId).parts[0], fill }) as Part;
const pairs = (a: readonly Part[], b: readonly Part[], chosen: Parameters<typeof pairParts>[2] = []) =>
  pairParts({ placement: AS_DRAWN, parts: a }, { placement: AS_DRAWN, parts: b }, chosen);
const CROSSED = [
  [0, 1],
  [1, 0],
];
const STRAIGHT = [
  [0, 0],
  [1, 1],
];
/** A part whose first anchors are copies of another's. */
const copyOf = (part: Part, target: Part, count: number, by: 'origin' | 'third' = 'origin'): Part => {
  const copy = structuredClone(target) as PieceDraft['parts'][string];
  copy.contours[0].anchors.slice(0, count).forEach((anchor, i) => {
    const original = part.contours[0].anchors[i];
    anchor.origin = by === 'origin' ? original.id : original.origin;
  });
  return copy as Part;
};

describe('which parts become each other', () => {
  test('the near ones, across and up and down', () => {
    expect(pairs([square(0, 0), square(100, 0)], [square(98, 0), square(2, 0)])).toEqual(CROSSED);
    expect(pairs([square(0, 0), square(0, 100)], [square(0, 98), square(0, 2)])).toEqual(CROSSED);
    expect(pairs([square(0, 0), square(0, 100)], [square(0, 2), square(0, 98)])).toEqual(STRAIGHT);
  });

  test('those of like size and colour where they lie alike', () => {
    expect(pairs([square(0, 0, 40), square(15, 15, 10)], [square(15, 15, 10), square(0, 0, 40)])).toEqual(CROSSED);
    const [red, blue] = ['#ff0000', '#0000ff'];
    expect(
      pairs([square(0, 0, 10, red), square(3, 0, 10, blue)], [square(0, 0, 10, blue), square(3, 0, 10, red)]),
    ).toEqual(CROSSED);
  });

  test('those of which at least half of the anchors are copies, though others are nearer', () => {
    const [near, far] = [square(0, 0), square(9, 0)];
    const other = (part: Part, count: number) => pairs([near, far], [copyOf(part, square(0, 0), count), square(9, 0)]);
    expect(other(far, 0)).toEqual(STRAIGHT);
    expect(other(far, 1)).toEqual(STRAIGHT);
    expect(other(far, 2)).toEqual(CROSSED);
    expect(other(far, 4)).toEqual(CROSSED);
    expect(other(near, 4)).toEqual(STRAIGHT);
  });

  test('also copies of the same third', () => {
    const first = square(50, 50);
    const [near, far] = [square(0, 0), copyOf(first, square(9, 0), 4)];
    expect(pairs([near, far], [copyOf(far, square(0, 0), 4, 'third'), square(9, 0)])).toEqual(CROSSED);
    // That both have no origin is nothing in common.
    expect(pairs([near, square(9, 0)], [square(0, 0), square(9, 0)])).toEqual(STRAIGHT);
  });

  test('before all that, those whose contours were paired by hand', () => {
    const [a, b, c, d] = [square(0, 0), square(9, 0), square(0, 0), square(9, 0)];
    expect(pairs([a, b], [c, d], [{ a: a.contours[0].id, b: d.contours[0].id }])).toEqual(CROSSED);
    expect(pairs([a, b], [c, d], [{ a: a.contours[0].id, b: null }])).toEqual(STRAIGHT);
  });

  test('of a piece: found once for the same parts, anew for others', () => {
    const draft = structuredClone(pieceOf(['M0 0H10V10Z', 'M0 0H10V10Z'])) as PieceDraft;
    const [from, to] = draft.figures.f.poses.map((id) => draft.poses[id]);
    for (const pose of [from, to]) {
      const more = square(50, 50) as PieceDraft['parts'][string];
      draft.parts[more.id] = more;
      pose.parts.push(more.id);
    }
    const match = Object.values(draft.shifts)[0].match;
    const found = pairedPartsOf(draft as Piece, from as never, to as never, match as never);
    expect(found).toEqual(STRAIGHT);
    expect(pairedPartsOf({ ...draft } as Piece, from as never, to as never, match as never)).toBe(found);
    const [first] = to.parts;
    const moved = { ...draft, parts: { ...draft.parts, [first]: square(50, 50), [to.parts[1]]: square(0, 0) } };
    expect(pairedPartsOf(moved as Piece, from as never, to as never, match as never)).toEqual(CROSSED);
    expect(pairedPartsOf(draft as Piece, from as never, to as never, match as never)).toEqual(STRAIGHT);
  });
});

describe('where hundreds of parts meet', () => {
  const grid = (name: string, fills: readonly string[], at: number): Part[] =>
    Array.from({ length: 225 }, (_, i) => ({
      ...square((i % 15) / 2 + at, Math.floor(i / 15) / 2, 10, fills[i % fills.length]),
      id: `${name}${i}`,
    }));
  const pieceWith = (fills: readonly string[]): Piece => {
    const draft = structuredClone(emptyPiece('test', 'Test')) as PieceDraft;
    addFigure(draft, 'f', 'Figure');
    const pose = (name: string, parts: readonly Part[]): NewPose => ({
      pose: {
        ...newPose(
          name,
          name,
          parts.map(({ id }) => id),
        ),
        placement: AS_DRAWN,
      },
      parts,
    });
    insertPoses(draft, 'f', [pose('p', grid('a', ['#204060', '#a03020'], 0)), pose('q', grid('b', fills, 0.1))], newId);
    return draft as Piece;
  };
  const inputOf = (piece: Piece): ShiftInput => shiftInput(piece, Object.values(piece.shifts)[0]);

  test('they are paired by whoever plans the shift, each with its like next to it', () => {
    const input = inputOf(pieceWith(['#204060', '#a03020']));
    expect(input.pairs).toBeUndefined();
    expect(withPairs(input).pairs).toEqual(Array.from({ length: 225 }, (_, i) => [i, i]));
    expect(withPairs(input).colours).toBeUndefined();
    // What lies beside in the same colour is nearer than what lies there in another.
    const crossed = withPairs(inputOf(pieceWith(['#a03020', '#204060']))).pairs ?? [];
    expect(crossed.filter(([i, j]) => i !== j).length).toBeGreaterThan(100);
  });

  test('another colour is another input, but the same plan as long as the same parts belong together', () => {
    const before = inputOf(pieceWith(['#204060', '#a03020']));
    const after = inputOf(pieceWith(['#214161', '#a03020']));
    expect(sameShiftInput(before, { ...before, colours: after.colours })).toBe(false);
    expect(sameShiftInput(before, { ...before, colours: structuredClone(before.colours) })).toBe(true);
    expect(withPairs(after).pairs).toEqual(withPairs(before).pairs);
  });
});
