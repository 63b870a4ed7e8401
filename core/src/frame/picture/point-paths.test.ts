import { describe, expect, test } from '@jest/globals';
import type { PieceDraft } from '../../piece';
import { pieceOf } from '../../testing/pieces';
import { planAndCompile } from '../lanes/plan-and-compile';
import { pointPaths } from './point-paths';

/** A square that goes 60 px to the right in 0.6 s, evenly, from 0.8 s on; point by point. */
function moved(turn = 0) {
  const draft = structuredClone(pieceOf(['M0 0H40V40H0Z', 'M60 0H100V40H60Z'])) as PieceDraft;
  for (const pose of Object.values(draft.poses))
    pose.placement = { x: 0, y: 0, scaleX: 1, scaleY: 1, rotation: 0, rule: null };
  const [shift] = Object.values(draft.shifts);
  Object.assign(shift, { method: 'points', easing: { kind: 'linear' } });
  if (turn)
    draft.lanes.l = {
      id: 'l',
      figure: 'f',
      property: 'turn',
      keys: [{ id: 'k', stop: { pose: draft.figures.f.poses[0], shift: null }, after: 0, value: [turn], easing: null }],
    };
  return planAndCompile(draft as never);
}

describe('the ways of points', () => {
  test('a place at the beginning, at each frame of the piece, and at the end', () => {
    const { times, points } = pointPaths(moved(), 'f', [0.8, 1.4], { most: 99 });
    // 0.6 s at 60 frames a second: both ends and 35 frames between them.
    expect([times.length, points.length]).toEqual([37, 4]);
    const [first] = points;
    expect([first[0], first[1], first[72], first[73]].map(Math.round)).toEqual([0, 0, 60, 0]);
    for (let k = 1; k < 37; k++) expect(first[2 * k] - first[2 * (k - 1)]).toBeCloseTo(60 / 36, 2);
  });
  test('the points that are nearest to places at either end', () => {
    const { points } = pointPaths(moved(), 'f', [0.8, 1.4], { most: 9, near: { at: 'until', places: [[98, 38]] } });
    expect(points.map((each) => [each[0], each[1]].map(Math.round))).toEqual([[40, 40]]);
  });
  test('no more than are wanted, and where the figure is carried', () => {
    const { points } = pointPaths(moved(90), 'f', [0.8, 1.4], { most: 2 });
    expect(points.length).toBe(2);
    // Turned by 90° about the corner of the canvas, what goes right goes down.
    expect([points[0][72] - points[0][0], points[0][73] - points[0][1]].map(Math.round)).toEqual([0, 60]);
  });
  test('nothing where there is no time, or no such figure', () => {
    expect(pointPaths(moved(), 'f', [1, 1], { most: 9 }).points).toEqual([]);
    expect(pointPaths(moved(), 'x', [0, 1], { most: 9 }).points).toEqual([]);
  });
});
