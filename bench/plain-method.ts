import {
  type Contour,
  contourArea,
  cubicPoint,
  ENGINE_VERSION,
  innerPoint,
  measureArcLength,
  nearestOnContour,
  type Outline,
  outlineSize,
  type PlanContour,
  placeAtShare,
  reverseContour,
  type ShiftPlan,
  segmentAt,
} from '../core/src/index';

/** What is compared with: so many even points on each contour, the best rotation of them, straight ways. */
const POINTS = 128;

/**
 * The plain method as many programs have it (common practice): both contours resampled evenly, in the same direction, the second rotated so
 * that squared distances are least, everything straight. Contours paired in the order of their size, the rest grows from a point.
 */
export function plainPlan(a: Outline, b: Outline): ShiftPlan {
  const largest = (outline: Outline): Contour[] =>
    [...outline.contours].sort((p, q) => Math.abs(contourArea(q)) - Math.abs(contourArea(p)));
  const first = largest(a);
  const second = largest(b);
  const runs: { from: Float64Array; to: Float64Array; closed: boolean; role: PlanContour['role'] }[] = [];
  let endError = 0;
  const sampled = (contour: Contour): Float64Array => {
    const points = evenPoints(contour);
    endError = Math.max(endError, strayOf(contour, points));
    return points;
  };
  for (let i = 0; i < Math.max(first.length, second.length); i++) {
    const p = first[i];
    const q = second[i];
    if (p && q) {
      const closed = p.closed && q.closed;
      const from = sampled(p);
      runs.push({ from, to: bestRotation(from, sampled(sameWay(q, p)), closed), closed, role: 'pair' });
    } else {
      const points = sampled(p ?? q);
      const { x, y } = innerPoint(p ?? q);
      const point = points.map((_, k) => (k % 2 === 0 ? x : y));
      runs.push({ from: p ? points : point, to: p ? point : points, closed: true, role: p ? 'vanishes' : 'appears' });
    }
  }
  const from: number[] = [];
  const to: number[] = [];
  const contours = runs.map((run): PlanContour => {
    const at = from.length;
    from.push(...asLines(run.from, run.closed));
    to.push(...asLines(run.to, run.closed));
    return {
      at,
      segments: ((from.length - at) / 2 - 1) / 3,
      closed: run.closed,
      role: run.role,
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
  return {
    engine: ENGINE_VERSION,
    fillRule: 'nonzero',
    contours,
    from: Float64Array.from(from),
    to: Float64Array.from(to),
    overshoot: { below: 0, above: 0 },
    size: Math.max(outlineSize(a), outlineSize(b)),
    endError,
  };
}

const sameWay = (contour: Contour, like: Contour): Contour =>
  contour.closed && like.closed && contourArea(contour) > 0 !== contourArea(like) > 0
    ? reverseContour(contour)
    : contour;

function evenPoints(contour: Contour): Float64Array {
  const table = measureArcLength(contour);
  const out = new Float64Array(2 * POINTS);
  for (let i = 0; i < POINTS; i++) {
    const place = placeAtShare(table, i / (contour.closed ? POINTS : POINTS - 1));
    cubicPoint(contour.points, segmentAt(place.segment), place.t, out, 2 * i);
  }
  return out;
}

/** How far the polygon's corners leave the anchors of the outline behind, px. */
function strayOf(contour: Contour, points: Float64Array): number {
  const polygon: Contour = { points: Float64Array.from(asLines(points, contour.closed)), closed: contour.closed };
  let most = 0;
  for (let i = 0; i < contour.points.length; i += 6)
    most = Math.max(most, nearestOnContour(polygon, contour.points[i], contour.points[i + 1])?.distance ?? 0);
  return most;
}

function bestRotation(from: Float64Array, to: Float64Array, closed: boolean): Float64Array {
  if (!closed) return to;
  let best = 0;
  let least = Infinity;
  for (let turn = 0; turn < POINTS; turn++) {
    let sum = 0;
    for (let i = 0; i < POINTS; i++) {
      const j = (i + turn) % POINTS;
      sum += (from[2 * i] - to[2 * j]) ** 2 + (from[2 * i + 1] - to[2 * j + 1]) ** 2;
    }
    if (sum < least) [least, best] = [sum, turn];
  }
  return Float64Array.from({ length: 2 * POINTS }, (_, k) => to[(k + 2 * best) % (2 * POINTS)]);
}

function asLines(points: Float64Array, closed: boolean): number[] {
  const out = [points[0], points[1]];
  const count = points.length / 2;
  for (let i = 1; i < (closed ? count + 1 : count); i++) {
    const [x0, y0] = [points[2 * i - 2], points[2 * i - 1]];
    const [x1, y1] = [points[2 * (i % count)], points[2 * (i % count) + 1]];
    out.push(x0 + (x1 - x0) / 3, y0 + (y1 - y0) / 3, x0 + ((x1 - x0) * 2) / 3, y0 + ((y1 - y0) * 2) / 3, x1, y1);
  }
  return out;
}
