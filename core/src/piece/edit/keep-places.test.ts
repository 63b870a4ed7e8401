import { describe, expect, test } from '@jest/globals';
import type { Place } from '../../outline';
import { pieceOf } from '../../testing/pieces';
import { AUTOMATIC_MATCH } from '../records/decisions';
import type { Anchor, MatchChoices, Part, Piece } from '../records/records';
import { keepPlaces } from './keep-places';

const SQUARE = 'M0 0H100V100H0Z';
const DIAMOND = 'M50 0L100 50L50 100L0 50Z';
const base = pieceOf([SQUARE, DIAMOND]);
const [shiftId] = base.figures.f.rail;
const partOf = (piece: Piece, side: 'from' | 'to'): Part =>
  piece.parts[piece.poses[piece.shifts[shiftId][side]].parts[0]];
const anchors = (side: 'from' | 'to'): readonly Anchor[] => partOf(base, side).contours[0].anchors;
const [a0, a1] = anchors('from');
const [b0] = anchors('to');
const between: Place = { after: a0.id, before: a1.id, share: 0.25 };

/** The piece with choices on its first shift. */
const chosen = (match: Partial<MatchChoices>): Piece => ({
  ...base,
  shifts: { ...base.shifts, [shiftId]: { ...base.shifts[shiftId], match: { ...AUTOMATIC_MATCH, ...match } } },
});
/** The piece with the anchors of the first outline changed. */
function changed(piece: Piece, change: (anchors: readonly Anchor[]) => readonly Anchor[]): Piece {
  const part = partOf(piece, 'from');
  const [contour] = part.contours;
  return {
    ...piece,
    parts: { ...piece.parts, [part.id]: { ...part, contours: [{ ...contour, anchors: change(contour.anchors) }] } },
  };
}
const at = (x: number, y: number, id: string): Anchor => ({ id, at: [x, y] });

describe('chosen places over a change of the outlines', () => {
  const tie = { id: 't', a: between, b: { anchor: b0.id } };

  test('nothing is touched where nothing was chosen, or the anchors are still there', () => {
    expect(
      keepPlaces(
        base,
        changed(base, ([first, ...rest]) => [at(5, 5, first.id), ...rest]),
      ).matches.size,
    ).toBe(0);
    const piece = chosen({ ties: [tie] });
    // Moved, but the same two anchors are neighbours: the place goes with them.
    const { matches, lost } = keepPlaces(
      piece,
      changed(piece, ([first, ...rest]) => [at(-20, -20, first.id), ...rest]),
    );
    expect(matches.size).toBe(0);
    expect(lost).toEqual([]);
  });

  test('a point added beside it: the place is told by its new neighbours and does not move', () => {
    const piece = chosen({ ties: [tie] });
    const { matches, lost } = keepPlaces(
      piece,
      changed(piece, ([first, ...rest]) => [first, at(50, 0, 'new'), ...rest]),
    );
    expect(lost).toEqual([]);
    expect(matches.get(shiftId)?.ties[0]).toEqual({
      ...tie,
      a: { after: a0.id, before: 'new', share: expect.closeTo(0.5, 6) },
    });
  });

  test('its anchor deleted: the nearest place takes over; far away it is named as lost', () => {
    const piece = chosen({ starts: [{ id: 's', a: { anchor: a1.id }, b: { anchor: b0.id } }] });
    const near = keepPlaces(
      piece,
      changed(piece, ([first, , ...rest]) => [first, at(99, 1, 'new'), ...rest]),
    );
    expect(near.matches.get(shiftId)?.starts[0].a).toEqual({ anchor: 'new' });
    const far = keepPlaces(
      piece,
      changed(piece, () => [at(400, 400, 'p'), at(500, 400, 'q'), at(450, 500, 'r')]),
    );
    expect(far.matches.get(shiftId)?.starts).toEqual([]);
    expect(far.lost).toEqual([expect.stringMatching(/^A start point of .* could not be kept/)]);
  });

  test('touch-ups keep the points whose place is left, and their moves', () => {
    const point = (place: Place) => ({ place, by: [3, 4] as const, before: [0, 0] as const, after: [0, 0] as const });
    const piece = chosen({
      touchUps: [{ id: 'u', progress: 0.4, points: [point({ anchor: a0.id }), point(between)] }],
    });
    const { matches } = keepPlaces(
      piece,
      changed(piece, ([first, ...rest]) => [first, at(25, 0, 'here'), ...rest]),
    );
    expect(matches.get(shiftId)?.touchUps).toEqual([
      { id: 'u', progress: 0.4, points: [point({ anchor: a0.id }), point({ anchor: 'here' })] },
    ]);
  });

  test('a pair, or a direction, whose contour is gone is dropped and named; else both stay', () => {
    const contour = partOf(base, 'from').contours[0].id;
    const other = partOf(base, 'to').contours[0].id;
    const piece = chosen({ pairs: [{ a: contour, b: other }], directions: [{ contour, direction: 'reversed' }] });
    const part = partOf(piece, 'from');
    const exchanged: Piece = {
      ...piece,
      parts: { ...piece.parts, [part.id]: { ...part, contours: [{ ...part.contours[0], id: 'fresh' }] } },
    };
    expect(keepPlaces(piece, exchanged).lost).toEqual([
      expect.stringMatching(/^The direction of a contour of/),
      expect.stringMatching(/^A pair of contours of/),
    ]);
    expect(
      keepPlaces(
        piece,
        changed(piece, (list) => [...list]),
      ).lost,
    ).toEqual([]);
  });

  test('a shift that is no more takes its choices with it, and that is said', () => {
    const piece = chosen({ ties: [tie] });
    const { [shiftId]: _gone, ...shifts } = piece.shifts;
    const figures = { f: { ...piece.figures.f, rail: [] } };
    expect(keepPlaces(piece, { ...piece, figures, shifts }).lost).toEqual([
      expect.stringContaining('does not follow the other any more'),
    ]);
    // A pose that was taken away explains itself.
    const { [piece.shifts[shiftId].to]: _pose, ...poses } = piece.poses;
    expect(keepPlaces(piece, { ...piece, figures, shifts, poses }).lost).toEqual([]);
  });
});
