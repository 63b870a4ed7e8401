import { type Contour, type Outline, outlineSize } from '../outline';
import type { PlanKeys, ShiftPlan } from './plan';
import { assemble, type PlannedRun } from './planned-run';
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
  if (!frames.every((frame) => areAlike(frame, first)) || first.length === 0) return undefined;
  const keysOf = (c: number): PlanKeys | undefined =>
    splineKeys(
      times,
      frames.map((frame) => frame[c].points),
    );
  return planBetween(first, frames[frames.length - 1], fillRule, keysOf);
}

/**
 * A plan in which each point goes straight to the point that has its number, contour by contour, as shape keys of other formats do.
 * @returns undefined where the two outlines are not built alike
 */
export function planPointByPoint(a: Outline, b: Outline): ShiftPlan | undefined {
  if (a.contours.length === 0 || !areAlike(a.contours, b.contours)) return undefined;
  const plan = planBetween(a.contours, b.contours, a.fillRule, () => undefined);
  // Beyond its ends too every point stays on its line, as far as the easing says.
  return { ...plan, overshoot: { below: Number.POSITIVE_INFINITY, above: Number.POSITIVE_INFINITY } };
}

/** Have two outlines as many contours, of as many points, open and closed alike? */
export const areAlike = (a: readonly Contour[], b: readonly Contour[]): boolean =>
  a.length === b.length &&
  a.every(({ points, closed }, c) => points.length === b[c].points.length && closed === b[c].closed);

function planBetween(
  a: readonly Contour[],
  b: readonly Contour[],
  fillRule: Outline['fillRule'],
  keysOf: (contour: number) => PlanKeys | undefined,
): ShiftPlan {
  const size = Math.max(...[a, b].map((contours) => outlineSize({ contours, fillRule })));
  const runs = a.map(({ points, closed }, c): PlannedRun => {
    const keys = keysOf(c);
    return {
      from: points.map(onGrid),
      to: b[c].points.map(onGrid),
      segments: (points.length / 2 - 1) / 3,
      closed,
      role: 'pair',
      a: c,
      b: c,
      ...(keys && { keys }),
      begin: 0,
      end: 1,
      joints: new Int32Array(0),
      turns: new Float64Array(0),
      bridgesA: [],
      bridgesB: [],
      method: 'straight',
      smoothing: 0,
    };
  });
  return assemble(runs, fillRule, size);
}
