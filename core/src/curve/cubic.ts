import { quadraticRoots } from '../num';
import { type Box, includePoint } from '../vec';

/**
 * One cubic Bezier segment is eight numbers x0 y0 x1 y1 x2 y2 x3 y3 inside a flat array; `at` is the index of x0.
 * Parameters are in [0, 1], coordinates in px, y down.
 */

/** Writes the point at parameter `t` to `out[outAt], out[outAt + 1]`. `out` may be `p`. */
export function cubicPoint(p: Float64Array, at: number, t: number, out: Float64Array, outAt = 0): Float64Array {
  const u = 1 - t;
  const a = u * u * u;
  const b = 3 * u * u * t;
  const c = 3 * u * t * t;
  const d = t * t * t;
  const x = a * p[at] + b * p[at + 2] + c * p[at + 4] + d * p[at + 6];
  const y = a * p[at + 1] + b * p[at + 3] + c * p[at + 5] + d * p[at + 7];
  out[outAt] = x;
  out[outAt + 1] = y;
  return out;
}

/** Speed |B'(t)| in px per unit of parameter. */
export function cubicSpeed(p: Float64Array, at: number, t: number): number {
  const u = 1 - t;
  const a = 3 * u * u;
  const b = 6 * u * t;
  const c = 3 * t * t;
  const dx = a * (p[at + 2] - p[at]) + b * (p[at + 4] - p[at + 2]) + c * (p[at + 6] - p[at + 4]);
  const dy = a * (p[at + 3] - p[at + 1]) + b * (p[at + 5] - p[at + 3]) + c * (p[at + 7] - p[at + 5]);
  return Math.sqrt(dx * dx + dy * dy);
}

/**
 * The direction of travel at parameter `t` as a unit vector, also where handles have length zero (then the limit of the
 * direction). Writes (0, 0) when the segment is a point.
 */
export function cubicTangent(p: Float64Array, at: number, t: number, out: Float64Array, outAt = 0): Float64Array {
  const span =
    Math.abs(p[at + 2] - p[at]) +
    Math.abs(p[at + 3] - p[at + 1]) +
    Math.abs(p[at + 4] - p[at]) +
    Math.abs(p[at + 5] - p[at + 1]) +
    Math.abs(p[at + 6] - p[at]) +
    Math.abs(p[at + 7] - p[at + 1]);
  const tiny = 1e-9 * span;
  const u = 1 - t;
  let dx = u * u * (p[at + 2] - p[at]) + 2 * u * t * (p[at + 4] - p[at + 2]) + t * t * (p[at + 6] - p[at + 4]);
  let dy = u * u * (p[at + 3] - p[at + 1]) + 2 * u * t * (p[at + 5] - p[at + 3]) + t * t * (p[at + 7] - p[at + 5]);
  let length = Math.hypot(dx, dy);
  // Does the curve stand still here? Then the second derivative, then the chord, gives the direction.
  if (!(length > tiny) && t < 0.5) {
    dx = p[at + 4] - p[at];
    dy = p[at + 5] - p[at + 1];
    length = Math.hypot(dx, dy);
  } else if (!(length > tiny)) {
    dx = p[at + 6] - p[at + 2];
    dy = p[at + 7] - p[at + 3];
    length = Math.hypot(dx, dy);
  }
  if (!(length > tiny)) {
    dx = p[at + 6] - p[at];
    dy = p[at + 7] - p[at + 1];
    length = Math.hypot(dx, dy);
  }
  out[outAt] = length > 0 ? dx / length : 0;
  out[outAt + 1] = length > 0 ? dy / length : 0;
  return out;
}

/**
 * Cuts out the stretch [t0, t1] of a segment by de Casteljau's algorithm, given in blossom form (Farin: Curves and Surfaces
 * for CAGD, 5th edition, 2002, section 4.6). Writes eight numbers; `out` must not overlap the segment. Ends at 0 and 1 are copied exactly.
 */
export function cubicStretch(
  p: Float64Array,
  at: number,
  t0: number,
  t1: number,
  out: Float64Array,
  outAt: number,
): Float64Array {
  for (let k = 0; k < 2; k++) {
    const p0 = p[at + k];
    const p1 = p[at + 2 + k];
    const p2 = p[at + 4 + k];
    const p3 = p[at + 6 + k];
    out[outAt + k] = t0 === 0 ? p0 : blossom(p0, p1, p2, p3, t0, t0, t0);
    out[outAt + 2 + k] = t0 === 0 && t1 === 1 ? p1 : blossom(p0, p1, p2, p3, t0, t0, t1);
    out[outAt + 4 + k] = t0 === 0 && t1 === 1 ? p2 : blossom(p0, p1, p2, p3, t0, t1, t1);
    out[outAt + 6 + k] = t1 === 1 ? p3 : blossom(p0, p1, p2, p3, t1, t1, t1);
  }
  return out;
}

function blossom(p0: number, p1: number, p2: number, p3: number, r: number, s: number, t: number): number {
  const a = p0 + (p1 - p0) * r;
  const b = p1 + (p2 - p1) * r;
  const c = p2 + (p3 - p2) * r;
  const d = a + (b - a) * s;
  const e = b + (c - b) * s;
  return d + (e - d) * t;
}

/** Grows `box` to the exact extent of the segment (roots of the derivative per axis). */
export function includeCubic(box: Box, p: Float64Array, at: number): Box {
  includePoint(box, p[at], p[at + 1]);
  includePoint(box, p[at + 6], p[at + 7]);
  // Do the handles lie inside the box already? Then the hull property says that the curve does.
  if (isInside(box, p[at + 2], p[at + 3]) && isInside(box, p[at + 4], p[at + 5])) return box;
  const point = new Float64Array(2);
  for (let k = 0; k < 2; k++) {
    const a = p[at + 2 + k] - p[at + k];
    const b = p[at + 4 + k] - p[at + 2 + k];
    const c = p[at + 6 + k] - p[at + 4 + k];
    for (const t of quadraticRoots(a - 2 * b + c, 2 * (b - a), a)) {
      if (t > 0 && t < 1) {
        cubicPoint(p, at, t, point);
        includePoint(box, point[0], point[1]);
      }
    }
  }
  return box;
}

const isInside = (box: Box, x: number, y: number): boolean =>
  x >= box.minX && x <= box.maxX && y >= box.minY && y <= box.maxY;

/**
 * The segment's share of the contour's signed area by Green's theorem, exact for cubics: ½∮(x dy − y dx).
 * Positive for runs that are clockwise on screen (y down).
 */
export function cubicArea(p: Float64Array, at: number): number {
  // Coordinates relative to the first point keep the products small.
  const x1 = p[at + 2] - p[at];
  const y1 = p[at + 3] - p[at + 1];
  const x2 = p[at + 4] - p[at];
  const y2 = p[at + 5] - p[at + 1];
  const x3 = p[at + 6] - p[at];
  const y3 = p[at + 7] - p[at + 1];
  const about = (3 * (x1 * y2 - x2 * y1) + 3 * (x1 * y3 - x3 * y1) + 6 * (x2 * y3 - x3 * y2)) / 20;
  // The part that depends on where the first point lies.
  return about + (p[at] * y3 - p[at + 1] * x3) / 2;
}

/** Is the segment a straight line whose handles lie on it, in order, within `epsilon` px? */
export function isStraight(p: Float64Array, at: number, epsilon: number): boolean {
  const dx = p[at + 6] - p[at];
  const dy = p[at + 7] - p[at + 1];
  const length = Math.hypot(dx, dy);
  if (!(length > epsilon)) return false;
  for (let k = 2; k <= 4; k += 2) {
    const hx = p[at + k] - p[at];
    const hy = p[at + k + 1] - p[at + 1];
    if (Math.abs(dx * hy - dy * hx) > epsilon * length) return false;
    const along = (dx * hx + dy * hy) / length;
    if (along < -epsilon || along > length + epsilon) return false;
  }
  return true;
}
