import { cubicPoint } from './cubic';

const ROUNDS = 24;
/** Fitting stops when a round gains less than this share. */
const LEAST_GAIN = 1e-3;

/** A cubic fitted to points, and how far the worst of them is from it, px. */
export interface CubicFit {
  readonly points: Float64Array;
  readonly deviation: number;
}

/**
 * Fits one cubic to a run of points x0, y0, x1, y1, … with given end points and end tangents: least squares for the two handle lengths and
 * Newton's method for the parameters, in turn (Schneider: An Algorithm for Automatically Fitting Digitized Curves, Graphics Gems, 1990).
 * Tangents are unit vectors along the run; (0, 0) leaves the handle on its anchor. `guess` is where the points lie on the curve (0 to 1,
 * ascending) as far as that is known; without it they are spaced by chord length.
 */
export function fitCubic(
  points: ArrayLike<number>,
  startTangent: readonly [number, number],
  endTangent: readonly [number, number],
  guess?: Float64Array,
): CubicFit {
  const n = points.length / 2;
  const [x0, y0, x3, y3] = [points[0], points[1], points[2 * n - 2], points[2 * n - 1]];
  const chord = new Float64Array(n);
  for (let i = 1; i < n; i++)
    chord[i] = chord[i - 1] + Math.hypot(points[2 * i] - points[2 * i - 2], points[2 * i + 1] - points[2 * i - 1]);
  const total = chord[n - 1];
  const t = guess?.slice() ?? chord.map((length) => (total > 0 ? length / total : 0));
  const cubic = new Float64Array(8);
  let best: CubicFit = { points: cubic.slice(), deviation: Infinity };
  for (let round = 0; round < ROUNDS; round++) {
    solveHandles(points, t, startTangent, endTangent, total, cubic);
    const deviation = worst(points, t, cubic);
    const gained = deviation < best.deviation * (1 - LEAST_GAIN);
    if (deviation < best.deviation) best = { points: cubic.slice(), deviation };
    if (!gained && round > 3) break;
    for (let i = 1; i < n - 1; i++) t[i] = towards(cubic, points[2 * i], points[2 * i + 1], t[i]);
  }
  best.points.set([x0, y0], 0);
  best.points.set([x3, y3], 6);
  return best;
}

function solveHandles(
  points: ArrayLike<number>,
  t: Float64Array,
  [ax, ay]: readonly [number, number],
  [bx, by]: readonly [number, number],
  total: number,
  out: Float64Array,
): void {
  const n = t.length;
  const [x0, y0, x3, y3] = [points[0], points[1], points[2 * n - 2], points[2 * n - 1]];
  let c00 = 0;
  let c01 = 0;
  let c11 = 0;
  let r0 = 0;
  let r1 = 0;
  for (let i = 0; i < n; i++) {
    const s = 1 - t[i];
    const b1 = 3 * s * s * t[i];
    const b2 = 3 * s * t[i] * t[i];
    const near = s * s * s + b1;
    const far = b2 + t[i] * t[i] * t[i];
    const dx = points[2 * i] - near * x0 - far * x3;
    const dy = points[2 * i + 1] - near * y0 - far * y3;
    c00 += b1 * b1 * (ax * ax + ay * ay);
    c01 -= b1 * b2 * (ax * bx + ay * by);
    c11 += b2 * b2 * (bx * bx + by * by);
    r0 += b1 * (ax * dx + ay * dy);
    r1 -= b2 * (bx * dx + by * dy);
  }
  const det = c00 * c11 - c01 * c01;
  let a = det > 1e-12 * c00 * c11 ? (r0 * c11 - r1 * c01) / det : Number.NaN;
  let b = det > 1e-12 * c00 * c11 ? (c00 * r1 - c01 * r0) / det : Number.NaN;
  // Would a handle point backwards? Then a third of the length is the safe choice (Schneider's heuristic).
  if (!(a > 1e-6 * total)) a = c00 > 0 && !(c11 > 0) ? Math.max(0, r0 / c00) : total / 3;
  if (!(b > 1e-6 * total)) b = c11 > 0 && !(c00 > 0) ? Math.max(0, r1 / c11) : total / 3;
  out.set([x0, y0, x0 + ax * a, y0 + ay * a, x3 - bx * b, y3 - by * b, x3, y3]);
}

function worst(points: ArrayLike<number>, t: Float64Array, cubic: Float64Array): number {
  const at = new Float64Array(2);
  let most = 0;
  for (let i = 0; i < t.length; i++) {
    cubicPoint(cubic, 0, t[i], at);
    most = Math.max(most, Math.hypot(at[0] - points[2 * i], at[1] - points[2 * i + 1]));
  }
  return most;
}

/** One step of Newton's method towards the parameter nearest to (x, y). */
function towards(p: Float64Array, x: number, y: number, t: number): number {
  const s = 1 - t;
  const point = [0, 0];
  const first = [0, 0];
  const second = [0, 0];
  for (let k = 0; k < 2; k++) {
    const [p0, p1, p2, p3] = [p[k], p[2 + k], p[4 + k], p[6 + k]];
    point[k] = s * s * s * p0 + 3 * s * s * t * p1 + 3 * s * t * t * p2 + t * t * t * p3;
    first[k] = 3 * (s * s * (p1 - p0) + 2 * s * t * (p2 - p1) + t * t * (p3 - p2));
    second[k] = 6 * (s * (p2 - 2 * p1 + p0) + t * (p3 - 2 * p2 + p1));
  }
  const dx = point[0] - x;
  const dy = point[1] - y;
  const slope = first[0] ** 2 + first[1] ** 2 + dx * second[0] + dy * second[1];
  if (!(Math.abs(slope) > 0)) return t;
  return Math.min(1, Math.max(0, t - (dx * first[0] + dy * first[1]) / slope));
}
