import { type Contour, type Outline, outlineSize } from '../outline';
import type { ShiftPlan } from './plan';
import { assemble } from './planned-run';
import { onGrid, splineKeys } from './spline-keys';

/**
 * A plan that passes given in-betweens, joined by cubic splines. `frames` belong to ascending `times` from 0 to 1 and have one structure.
 * @returns undefined where they have not: another number of contours or points, or some open and some closed
 */
export function planThrough(
  times: readonly number[],
  frames: readonly (readonly Contour[])[],
  fillRule: Outline['fillRule'],
): ShiftPlan | undefined {
  const [first] = frames;
  const alike = frames.every(
    (frame) =>
      frame.length === first.length &&
      frame.every(({ points, closed }, c) => points.length === first[c].points.length && closed === first[c].closed),
  );
  if (!alike || first.length === 0) return undefined;
  const ends = [frames[0], frames[frames.length - 1]];
  const size = Math.max(...ends.map((contours) => outlineSize({ contours, fillRule })));
  const runs = first.map(({ points, closed }, c) => ({
    from: ends[0][c].points.map(onGrid),
    to: ends[1][c].points.map(onGrid),
    segments: (points.length / 2 - 1) / 3,
    closed,
    role: 'pair' as const,
    a: c,
    b: c,
    keys: splineKeys(
      times,
      frames.map((frame) => frame[c].points),
    ),
    begin: 0,
    end: 1,
    joints: new Int32Array(0),
    turns: new Float64Array(0),
    bridgesA: [],
    bridgesB: [],
    method: 'straight' as const,
    softness: 0,
  }));
  return assemble(runs, fillRule, size);
}
