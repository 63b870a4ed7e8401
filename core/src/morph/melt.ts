import { LIMITS } from '../num';
import { CurveFlow } from './flow';

/** Feature sizes as shares of the size: from 1 % on, each 1.3 times the one before. */
const LEVELS = LIMITS.smoothing.max;
const FIRST_SIZE = 0.01;
const RATIO = 1.3;
const TIME_PER_SIZE = 0.15;
const STEPS_PER_LEVEL = 8;
/** When an end has become as round as it gets on the way. */
const ROUNDED_BY = 0.4;
/** Level at which handles have left their edges and follow the rounded polygon. */
const HANDLES_FREE = 4;

/** An end of a shift at rising levels of roundness; level 0 is the end itself. 3n + 1 points each. */
export type Rounded = readonly Float64Array[];

/**
 * A closed run rounded more and more by curve-shortening flow of its segment polygon. Handles follow the edges of the polygon, and as it
 * gets rounder the polygon's own tangents.
 *
 * @param size px to which the feature sizes relate
 */
export function roundedLevels(run: Float64Array, size: number): Rounded {
  const n = (run.length / 2 - 1) / 3;
  const polygon = new Float64Array(2 * n);
  for (let i = 0; i < n; i++) {
    polygon[2 * i] = run[6 * i];
    polygon[2 * i + 1] = run[6 * i + 1];
  }
  const flow = new CurveFlow(n);
  const out: Float64Array[] = [run];
  let passed = 0;
  for (let level = 1; level <= LEVELS; level++) {
    const feature = FIRST_SIZE * size * RATIO ** (level - 1);
    const time = TIME_PER_SIZE * feature * feature;
    flow.flow(polygon, time - passed, STEPS_PER_LEVEL);
    passed = time;
    out.push(dressPolygon(polygon, run, Math.min(1, level / HANDLES_FREE)));
  }
  return out;
}

/** Cubics along a polygon: handles of `run` in the in-betweens of its edges, blended with a third of the edge along the polygon's tangents. */
function dressPolygon(polygon: Float64Array, run: Float64Array, free: number): Float64Array {
  const n = polygon.length / 2;
  const out = new Float64Array(run.length);
  const tangent = (i: number): [number, number] => {
    const before = (i - 1 + n) % n;
    const after = (i + 1) % n;
    const dx = polygon[2 * after] - polygon[2 * before];
    const dy = polygon[2 * after + 1] - polygon[2 * before + 1];
    const length = Math.hypot(dx, dy);
    return length > 0 ? [dx / length, dy / length] : [0, 0];
  };
  for (let i = 0; i < n; i++) {
    const j = (i + 1) % n;
    const at = 6 * i;
    const [x0, y0, x1, y1] = [polygon[2 * i], polygon[2 * i + 1], polygon[2 * j], polygon[2 * j + 1]];
    const [ex, ey] = [x1 - x0, y1 - y0];
    const length = Math.hypot(ex, ey);
    const [cx, cy] = [run[at + 6] - run[at], run[at + 7] - run[at + 1]];
    const square = cx * cx + cy * cy;
    const start = tangent(i);
    const end = tangent(j);
    out[at] = x0;
    out[at + 1] = y0;
    for (let k = 0; k < 2; k++) {
      const hx = run[at + 2 + 2 * k] - run[at];
      const hy = run[at + 3 + 2 * k] - run[at + 1];
      // The handle divided by its chord, as a complex number.
      const re = square > 0 ? (hx * cx + hy * cy) / square : (k + 1) / 3;
      const im = square > 0 ? (hy * cx - hx * cy) / square : 0;
      const rideX = x0 + ex * re - ey * im;
      const rideY = y0 + ex * im + ey * re;
      const freeX = k === 0 ? x0 + (start[0] * length) / 3 : x1 - (end[0] * length) / 3;
      const freeY = k === 0 ? y0 + (start[1] * length) / 3 : y1 - (end[1] * length) / 3;
      out[at + 2 + 2 * k] = rideX + (freeX - rideX) * free;
      out[at + 3 + 2 * k] = rideY + (freeY - rideY) * free;
    }
  }
  out[6 * n] = out[0];
  out[6 * n + 1] = out[1];
  return out;
}

/** Writes an end at a level between two of its kept ones. */
export function atLevel(rounded: Rounded, level: number, out: Float64Array): Float64Array {
  const low = Math.min(LEVELS, Math.floor(level));
  const high = Math.min(LEVELS, low + 1);
  const share = level - low;
  const p = rounded[low];
  const q = rounded[high];
  for (let i = 0; i < out.length; i++) out[i] = p[i] + (q[i] - p[i]) * share;
  return out;
}

/** How round the leaving end is at `progress` when it is to reach `most`; the arriving end is as round at 1 − progress. */
export function smoothingAt(progress: number, most: number): number {
  const u = Math.min(1, Math.max(0, progress / ROUNDED_BY));
  return most * u * u * (3 - 2 * u);
}
