import { addFreeKey, type LaneProperty, type Piece, type PieceDraft, setClosedRail, setLaneAtStop } from '@core';
import { describe, expect, test } from '@jest/globals';
import { pieceOf } from '../../testing/pieces';
import { isEven, LANE, laneGraph } from './lane-graph';
import { valueText } from './lane-words';

let n = 0;
const newId = (prefix: string): string => `${prefix}-${++n}`;
/** Two poses held for 0.8 s with an even shift of 0.6 s; a lane that goes from one value to another. */
function withLane(property: LaneProperty, from: readonly number[], to: readonly number[], closed = false): Piece {
  const draft = structuredClone(pieceOf(['M0 0H10V10H0Z', 'M0 0H9V9Z'])) as PieceDraft;
  if (closed) setClosedRail(draft, 'f', true, newId);
  for (const shift of Object.values(draft.shifts)) shift.easing = { kind: 'linear' };
  setLaneAtStop(draft, 'f', property, 0, from, newId);
  setLaneAtStop(draft, 'f', property, 1, to, newId);
  return draft as Piece;
}
const x = (seconds: number): number => 100 * seconds;
const graphOf = (piece: Piece, end = 2.2) => laneGraph(piece, Object.values(piece.lanes)[0], x, end);
/** Points of an edge. */
const points = (d: string): number[][] =>
  d
    .slice(1)
    .split('L')
    .map((pair) => pair.split(' ').map(Number));
const [TOP, FLOOR] = [LANE.top, LANE.height - LANE.bottom];

describe('the graph of a lane', () => {
  test('is level while a pose stands, and a ramp between: the highest value at the top, the lowest at the bottom', () => {
    const curves = graphOf(withLane('turn', [90], [-30]));
    expect(curves).toHaveLength(1);
    const edge = points(curves[0].edge);
    expect(edge.filter(([at]) => at <= 80).every(([, y]) => y === TOP)).toBe(true);
    expect(edge.filter(([at]) => at >= 140).every(([, y]) => y === FLOOR)).toBe(true);
    const middle = edge.find(([at]) => at === 110) ?? [];
    expect(middle[1]).toBeCloseTo((TOP + FLOOR) / 2, 1);
    expect(curves[0].perPx).toBeCloseTo(120 / (FLOOR - TOP), 9);
    expect(curves[0].blocks.map(({ from, until, y }) => [from, +until.toFixed(6), y])).toEqual([
      [0, 0.8, TOP],
      [1.4, 2.2, FLOOR],
    ]);
  });
  test('has a curve for each number, unless both are equal everywhere', () => {
    const [across, down] = graphOf(withLane('position', [0, 0], [10, -5]));
    expect([across.blocks[1].y, down.blocks[1].y]).toEqual([TOP, FLOOR + LANE.height]);
    const even = withLane('scale', [1, 1], [2, 2]);
    expect([graphOf(even).length, isEven(Object.values(even.lanes)[0])]).toEqual([1, true]);
    expect(graphOf(withLane('scale', [1, 1], [2, 0.5]))).toHaveLength(2);
  });
  test('shows the return of a closed rail as the same key again', () => {
    const [curve] = graphOf(withLane('turn', [10], [50], true), 3.4);
    expect(curve.blocks.map(({ again, y }) => [again, y])).toEqual([
      [false, FLOOR],
      [false, TOP],
      [true, FLOOR],
    ]);
  });
  test('a free key bends it where it stands', () => {
    const draft = structuredClone(withLane('opacity', [1], [1])) as PieceDraft;
    setLaneAtStop(draft, 'f', 'opacity', 1, [0.8], newId);
    addFreeKey(draft, Object.keys(draft.lanes)[0], 1.1, [0], newId);
    const edge = points(graphOf(draft as Piece)[0].edge);
    expect(edge.filter(([, y]) => y === FLOOR).map(([at]) => at)).toContain(110);
  });
  test('a colour is a strip in what it is at each moment, and one that follows has no blocks', () => {
    const draft = structuredClone(withLane('fill', [1, 0, 0, 1], [0, 0, 1, 1])) as PieceDraft;
    const [curve] = graphOf(draft as Piece);
    expect([curve.edge, curve.blocks.length]).toEqual(['', 2]);
    expect([curve.colours[0], curve.colours.at(-1)]).toEqual([
      { share: 0, css: '#ff0000' },
      { share: 1, css: '#0000ff' },
    ]);
    draft.lanes[Object.keys(draft.lanes)[0]].follow = {
      figure: 'f',
      property: 'stroke',
      axis: null,
      factor: 1,
      offset: 0,
      delay: 0,
      colour: 'same',
    };
    expect(graphOf(draft as Piece)[0].blocks).toEqual([]);
  });
  test('values are written with their unit', () => {
    expect([valueText('scale', [1.5, 1.5]), valueText('scale', [1, 0.5]), valueText('turn', [-300])]).toEqual([
      '150 %',
      '100, 50 %',
      '−300°',
    ]);
  });
});
