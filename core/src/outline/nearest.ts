import { cubicPoint, nearestOnCubic } from '../curve';
import type { CurvePlace } from './arc-length';
import { type Contour, segmentAt, segmentCount } from './contour';

export interface NearestOnContour extends CurvePlace {
  readonly x: number;
  readonly y: number;
  /** px */
  readonly distance: number;
}

/** The place of a contour nearest to (x, y); segments whose control points are all further away than the best are passed over. */
export function nearestOnContour(
  contour: Contour,
  x: number,
  y: number,
  within = Infinity,
): NearestOnContour | undefined {
  const p = contour.points;
  let best: NearestOnContour | undefined;
  let least = within;
  const out = new Float64Array(2);
  for (let i = 0; i < segmentCount(contour); i++) {
    const at = segmentAt(i);
    const dx = Math.max(
      Math.min(p[at], p[at + 2], p[at + 4], p[at + 6]) - x,
      x - Math.max(p[at], p[at + 2], p[at + 4], p[at + 6]),
      0,
    );
    const dy = Math.max(
      Math.min(p[at + 1], p[at + 3], p[at + 5], p[at + 7]) - y,
      y - Math.max(p[at + 1], p[at + 3], p[at + 5], p[at + 7]),
      0,
    );
    if (dx * dx + dy * dy > least * least) continue;
    const { t, distance } = nearestOnCubic(p, at, x, y);
    if (distance > least || (best && distance === least)) continue;
    least = distance;
    cubicPoint(p, at, t, out);
    best = { segment: i, t, x: out[0], y: out[1], distance };
  }
  return best;
}
