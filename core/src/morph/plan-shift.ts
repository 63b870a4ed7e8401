import { CoreError } from '../errors';
import type { Match } from '../match';
import { PLAN_GRID_PX } from '../num';
import { type Contour, innerPoint, type Outline, outlineSize, pieceCount, reverseContour } from '../outline';
import { splitPair } from './break-points';
import { ENGINE_VERSION, METHODS, type Method, type PlanContour, type ShiftPlan } from './plan';

/** Progress is followed this far outside 0..1. */
const OVERSHOOT = 0.3;

interface Run {
  readonly from: Float64Array;
  readonly to: Float64Array;
  readonly closed: boolean;
  readonly role: PlanContour['role'];
  readonly a?: number;
  readonly b?: number;
}

/**
 * Computes a shift from outline `a` to outline `b` (px, y down) by `match`. Points are added by exact splitting only, so the frames at
 * progress 0 and 1 are the outlines themselves. Contours without a partner shrink to, or grow from, a point inside them.
 *
 * @throws CoreError 'option' for an unknown method
 */
export function planShift(a: Outline, b: Outline, match: Match, method: Method = 'straight'): ShiftPlan {
  if (!METHODS.includes(method))
    throw new CoreError(
      'option',
      `Expected method to be one of ${METHODS.join(', ')}; found ${String(method)}.`,
      'method',
    );
  const size = Math.max(outlineSize(a), outlineSize(b));
  const runs: Run[] = [];
  for (const pair of match.pairs) {
    const ca = a.contours[pair.a];
    const cb = b.contours[pair.b];
    const split = splitPair(
      pair,
      pair.reversedA ? reverseContour(ca) : ca,
      pair.reversedB ? reverseContour(cb) : cb,
      size,
    );
    runs.push({ ...split, closed: ca.closed && cb.closed, role: 'pair', a: pair.a, b: pair.b });
  }
  for (const i of match.deaths) runs.push({ ...withPoint(a.contours[i], 'from'), role: 'death', a: i });
  for (const i of match.births) runs.push({ ...withPoint(b.contours[i], 'to'), role: 'birth', b: i });
  return assemble(runs, method, a.fillRule === 'evenodd' && b.fillRule === 'evenodd' ? 'evenodd' : 'nonzero', size);
}

/** A contour against a point inside it. */
function withPoint(contour: Contour, end: 'from' | 'to'): Pick<Run, 'from' | 'to' | 'closed'> {
  const { x, y } = innerPoint(contour);
  const point = new Float64Array(contour.points.length);
  for (let i = 0; i < point.length; i += 2) {
    point[i] = x;
    point[i + 1] = y;
  }
  const full = contour.points;
  return { from: end === 'from' ? full : point, to: end === 'to' ? full : point, closed: contour.closed };
}

function assemble(runs: readonly Run[], method: Method, fillRule: Outline['fillRule'], size: number): ShiftPlan {
  const total = runs.reduce((sum, run) => sum + run.from.length, 0);
  const from = new Float64Array(total);
  const to = new Float64Array(total);
  const contours: PlanContour[] = [];
  let at = 0;
  for (const run of runs) {
    roundInto(run.from, from, at);
    roundInto(run.to, to, at);
    contours.push({
      at,
      pieces: pieceCount({ points: run.from, closed: run.closed }),
      closed: run.closed,
      role: run.role,
      a: run.a,
      b: run.b,
    });
    at += run.from.length;
  }
  return { engine: ENGINE_VERSION, method, fillRule, contours, from, to, overshoot: OVERSHOOT, size };
}

function roundInto(values: Float64Array, out: Float64Array, at: number): void {
  for (let i = 0; i < values.length; i++) out[at + i] = Math.round(values[i] / PLAN_GRID_PX) * PLAN_GRID_PX;
}
