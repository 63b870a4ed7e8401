import { describe, expect, test } from '@jest/globals';
import { frameAt, motionMatrix } from '../../frame';
import { countedIds, drawnPose, pieceOf } from '../../testing/pieces';
import { mapPoint } from '../../vec';
import { laneOf } from '../records/lane-values';
import type { LaneProperty, Piece } from '../records/records';
import { checkPiece } from '../rules/check-piece';
import { railTimeline, stopsOf } from '../time/rail';
import { addFigure, insertPoses, type PieceDraft, setClosedRail } from './edit';
import { insertChain, joinFigures } from './edit-chain';
import { setLaneAtStop } from './edit-lanes';
import { fixMiddle } from './motion-path';
import { valuesAtStop } from './stop-values';

const fresh = countedIds();
const newId = (prefix: string): string => `new-${fresh(prefix)}`;
const SHAPES = ['M0 0H100V100H0Z', 'M0 0H300L0 300Z'];

/** Two figures of two poses; at its second stop the second one, `g`, is moved, turned, scaled, paler and red. */
function twoFigures(): PieceDraft {
  const draft = structuredClone(pieceOf(SHAPES)) as PieceDraft;
  addFigure(draft, 'g', 'Guest');
  insertPoses(draft, 'g', [drawnPose('M0 0H60V40H0Z', newId, 'C'), drawnPose('M0 0H50L20 70Z', newId, 'D')], newId);
  fixMiddle(draft, 'g');
  const values: [LaneProperty, number[]][] = [
    ['position', [40, -20]],
    ['turn', [90]],
    ['scale', [2, 0.5]],
    ['opacity', [0.5]],
    ['fill', [1, 0, 0, 1]],
  ];
  for (const [property, value] of values) setLaneAtStop(draft, 'g', property, 1, value, newId);
  return draft;
}
/** Where the points of the first part of a figure are seen while a stop stands. */
function seenAt(piece: Piece, figure: string, stop: number): number[] {
  const { start } = railTimeline(piece, piece.figures[figure]).stops[stop];
  const found = frameAt(piece, start).figures.find(({ id }) => id === figure);
  const [{ points }] = found?.parts ?? [];
  const matrix = found?.motion && motionMatrix(found.motion);
  const seen: number[] = [];
  for (let i = 0; i < 8; i += 6)
    seen.push(...(matrix ? mapPoint(matrix, points[i], points[i + 1]) : points.slice(i, i + 2)));
  return seen;
}
const valueAt = (piece: Piece, property: LaneProperty, stop: number) =>
  valuesAtStop(piece, 'f', stop).values.find((each) => each.property === property)?.value;

describe('what lanes say of a pose goes with it', () => {
  test('poses that join another figure are seen where they were, turned and scaled about that figure’s own middle', () => {
    const draft = twoFigures();
    draft.figures.f.pivot = [500, 40];
    const before = seenAt(draft as Piece, 'g', 1);
    joinFigures(draft, 'g', 'f', 1, newId);
    const piece = checkPiece(JSON.parse(JSON.stringify(draft)));
    expect(stopsOf(piece, piece.figures.f)).toHaveLength(4);
    const after = seenAt(piece, 'f', 3);
    after.forEach((v, i) => {
      expect(v).toBeCloseTo(before[i], 3);
    });
    expect([valueAt(piece, 'opacity', 3), valueAt(piece, 'fill', 3)]).toEqual([[0.5], [1, 0, 0, 1]]);
  });

  test('and what was there stays as it was', () => {
    const draft = twoFigures();
    joinFigures(draft, 'g', 'f', 1, newId);
    const piece = draft as Piece;
    for (const stop of [0, 1, 2]) {
      expect([valueAt(piece, 'turn', stop), valueAt(piece, 'opacity', stop)]).toEqual([[0], [1]]);
      expect(valueAt(piece, 'scale', stop)).toEqual([1, 1]);
    }
  });

  test('of several copies in a row each has the values of its own original', () => {
    const draft = twoFigures();
    setLaneAtStop(draft, 'f', 'position', 1, [70, 0], newId);
    const values = [0, 1].map((stop) => valuesAtStop(draft as Piece, 'f', stop));
    insertChain(draft, 'f', [drawnPose('M0 0H9V9H0Z', newId), drawnPose('M0 0H8V8H0Z', newId)], [], newId, 2, values);
    expect([0, 1, 2, 3].map((stop) => valueAt(draft as Piece, 'position', stop))).toEqual([
      [0, 0],
      [70, 0],
      [0, 0],
      [70, 0],
    ]);
  });

  test('a pose without motion that comes into a figure that moves stands still there', () => {
    const draft = twoFigures();
    setLaneAtStop(draft, 'f', 'turn', 1, [30], newId);
    addFigure(draft, 'still', 'Still');
    insertPoses(draft, 'still', [drawnPose('M0 0H9V9H0Z', newId)], newId);
    const still = valuesAtStop(draft as Piece, 'still', 0);
    expect(still.values).toEqual([]);
    insertChain(draft, 'f', [drawnPose('M0 0H9V9H0Z', newId)], [], newId, 2, [still]);
    expect(valueAt(draft as Piece, 'turn', 2)).toEqual([0]);
  });

  test('the return of a closed rail says what its beginning says', () => {
    const draft = twoFigures();
    setClosedRail(draft, 'g', true, newId);
    setLaneAtStop(draft, 'g', 'turn', 0, [15], newId);
    expect(valuesAtStop(draft as Piece, 'g', 2).values.find(({ property }) => property === 'turn')?.value).toEqual([
      15,
    ]);
    expect(laneOf(draft as Piece, 'g', 'turn')?.keys).toHaveLength(2);
  });
});

test('the way back to the first pose takes as long as the change before it, with its easing', () => {
  const draft = structuredClone(pieceOf(SHAPES)) as PieceDraft;
  Object.assign(draft.shifts[draft.figures.f.rail[0]], { duration: 1.75, easing: { kind: 'linear' } });
  setClosedRail(draft, 'f', true, newId);
  const [, back] = draft.figures.f.rail.map((id) => draft.shifts[id]);
  expect([back.duration, back.easing.kind]).toEqual([1.75, 'linear']);
});
