import { describe, expect, test } from '@jest/globals';
import { outlineBox } from '../../outline';
import {
  addLane,
  checkPiece,
  type LaneProperty,
  outlineOfPart,
  type Part,
  type Piece,
  type PieceDraft,
  setLaneAtStop,
  shapePart,
} from '../../piece';
import type { ShapeSource } from '../../shapes';
import { countedIds, pieceBetween } from '../../testing/pieces';
import { partsAsSeen } from './parts-as-seen';

const newId = countedIds();
const BOX: ShapeSource = {
  kind: 'rectangle',
  x: 100,
  y: 100,
  rotation: 0,
  width: 100,
  height: 60,
  radii: [0, 0, 0, 0],
};
const LINE = { width: 4, cap: 'butt', join: 'miter', miter: 4, dash: [], dashOffset: 0 } as const;
const box = (change: Partial<Part>): Part => ({
  ...shapePart(BOX, 'Box', { fill: '#204060', stroke: null }, newId),
  ...change,
});

/** Two poses of these parts, of which the second is twice as large, and lanes that go from one value to another between them. */
function piece(parts: () => Part[], lanes: Partial<Record<LaneProperty, [number[], number[]]>>): Piece {
  const draft = structuredClone(pieceBetween(parts(), parts(), { shift: { method: 'numbers' } })) as PieceDraft;
  Object.assign(draft.poses.B.placement, { scaleX: 2, scaleY: 2 });
  for (const [property, values] of Object.entries(lanes)) {
    addLane(draft, 'f', property as LaneProperty, newId);
    values?.forEach((value, stop) => {
      setLaneAtStop(draft, 'f', property as LaneProperty, stop, value, newId);
    });
  }
  return checkPiece(JSON.parse(JSON.stringify(draft)));
}
const seen = (made: Piece, pose: 'A' | 'B', seconds: number): readonly Part[] =>
  partsAsSeen(made, 'f', made.poses[pose], seconds);

describe('parts as a figure shows them', () => {
  test('a figure without lanes, or with lanes of other things, shows the parts themselves', () => {
    for (const lanes of [{}, { turn: [[0], [90]], opacity: [[0], [1]] } as const]) {
      const made = piece(() => [box({})], lanes as never);
      expect(seen(made, 'B', 9)[0]).toBe(made.parts[made.poses.B.parts[0]]);
    }
  });

  test('shapes have the numbers of their lanes, areas and lines the colours', () => {
    const made = piece(() => [box({ stroke: { ...LINE, paint: '#000000' } })], {
      'rectangle.width': [[100], [240]],
      fill: [
        [1, 0, 0, 1],
        [0, 0, 1, 0.5],
      ],
      stroke: [
        [0, 1, 0, 1],
        [1, 1, 1, 1],
      ],
    });
    const [first] = seen(made, 'A', 0);
    expect([first.fill, first.stroke?.paint]).toEqual(['#ff0000', '#00ff00']);
    const [last] = seen(made, 'B', 9);
    expect([last.fill, last.stroke?.paint]).toEqual(['rgb(0 0 255 / 0.5)', '#ffffff']);
    expect(last.source).toMatchObject({ width: 240, height: 60 });
    const { minX, maxX } = outlineBox(outlineOfPart(last));
    expect(maxX - minX).toBeCloseTo(240, 9);
  });

  test('a width of line is of the canvas, in the pose’s own px; what has no line or no area gets none', () => {
    const lanes = { strokeWidth: [[4], [12]], fill: Array(2).fill([1, 0, 0, 1]) } as never;
    const line = piece(() => [box({ fill: null, stroke: { ...LINE, paint: '#000000' } }), box({})], lanes);
    const [open, area] = seen(line, 'B', 9);
    expect(open.stroke?.width).toBeCloseTo(6, 9);
    expect(open.fill).toBeNull();
    expect([area.fill, area.stroke]).toEqual(['#ff0000', null]);
  });

  test('the same values give the same records, also in a piece that was changed elsewhere', () => {
    const made = piece(() => [box({})], {
      'rectangle.width': [[100], [240]],
      fill: [
        [1, 0, 0, 1],
        [0, 0, 1, 1],
      ],
    });
    const again = seen(made, 'B', 9);
    expect(seen({ ...made, name: 'Other' }, 'B', 9)).toEqual(again);
    expect(seen({ ...made, name: 'Other' }, 'B', 9)[0]).toBe(again[0]);
    expect(seen(made, 'B', 0)[0]).not.toBe(again[0]);
  });
});
