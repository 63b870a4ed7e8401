import { parameterAtTime } from './cubic-bezier';
import type { EasingKind } from './kind';

/**
 * Cubic segments end to end: 3n + 1 points (time, progress), flat, from (0, 0) to (1, 1). Time never runs back: the two inner points of a segment lie in time
 * between its ends.
 */
export interface CurveEasing {
  readonly kind: 'curve';
  readonly points: readonly number[];
}

/** The index at which the segment that holds a time begins. */
function segmentAt({ points }: CurveEasing, time: number): number {
  let at = 0;
  while (at + 13 < points.length && time >= points[at + 6]) at += 6;
  return at;
}

/** The parameter of the segment at `at` where a time is passed; 1 where it has no length. */
function parameterIn({ points: p }: CurveEasing, at: number, time: number): number {
  const width = p[at + 6] - p[at];
  if (!(width > 0)) return 1;
  return parameterAtTime((p[at + 2] - p[at]) / width, (p[at + 4] - p[at]) / width, (time - p[at]) / width);
}

export const curve: EasingKind<CurveEasing> = {
  files: 'curves',
  value(easing, time) {
    const { points: p } = easing;
    const at = segmentAt(easing, time);
    const t = parameterIn(easing, at, time);
    const u = 1 - t;
    return u * u * u * p[at + 1] + 3 * u * u * t * p[at + 3] + 3 * u * t * t * p[at + 5] + t * t * t * p[at + 7];
  },
  slope(easing, time) {
    const { points: p } = easing;
    const at = segmentAt(easing, time);
    const t = parameterIn(easing, at, time);
    const u = 1 - t;
    const rate = (k: 0 | 1): number =>
      u * u * (p[at + 2 + k] - p[at + k]) +
      2 * u * t * (p[at + 4 + k] - p[at + 2 + k]) +
      t * t * (p[at + 6 + k] - p[at + 4 + k]);
    const along = rate(0);
    return along > 0 ? rate(1) / along : 0;
  },
  segments: ({ points }) => points,
  reversed({ kind, points }) {
    const out: number[] = [];
    for (let i = points.length - 2; i >= 0; i -= 2) out.push(1 - points[i], 1 - points[i + 1]);
    return { kind, points: out };
  },
};

/** What a curve's points break of what they have to be, in words; undefined where all is well. */
export function curveFinding(points: readonly number[]): string | undefined {
  if (points.length < 8 || points.length % 6 !== 2) return `have 3n + 1 points; found ${points.length / 2}`;
  const last = points.length - 2;
  if (points[0] !== 0 || points[1] !== 0 || points[last] !== 1 || points[last + 1] !== 1)
    return 'lead from 0, 0 to 1, 1';
  for (let at = 0; at + 7 < points.length; at += 6)
    if (
      ![at + 2, at + 4].every((i) => points[i] >= points[at] && points[i] <= points[at + 6]) ||
      points[at + 6] < points[at]
    )
      return `never run back in time; segment ${at / 6 + 1} does`;
  return undefined;
}
