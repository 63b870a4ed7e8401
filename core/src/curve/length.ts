import { ARC_LENGTH_EPS_REL, gaussLegendre, increasingRoot, PARAMETER_EPS } from '../num';
import { cubicSpeed } from './cubic';

const COARSE = gaussLegendre(8);
const FINE = gaussLegendre(16);
const MAX_DEPTH = 16;

/**
 * Arc length of a cubic over [t0, t1] in px: Gauss–Legendre quadrature of the speed, halved until the rules with 8 and 16 nodes
 * agree to 1e-8 of the hull's length (Gravesen: Adaptive subdivision and the length and energy of Bezier curves, 1997, for the
 * hull as scale). Error below 1e-7 of the hull's length, also at cusps.
 */
export function cubicLength(p: Float64Array, at: number, t0 = 0, t1 = 1): number {
  const hull =
    Math.hypot(p[at + 2] - p[at], p[at + 3] - p[at + 1]) +
    Math.hypot(p[at + 4] - p[at + 2], p[at + 5] - p[at + 3]) +
    Math.hypot(p[at + 6] - p[at + 4], p[at + 7] - p[at + 5]);
  // Is the segment a point?
  if (!(hull > 0) || !(t1 > t0)) return 0;
  return adaptive(p, at, t0, t1, ARC_LENGTH_EPS_REL * hull, 0);
}

function adaptive(p: Float64Array, at: number, t0: number, t1: number, epsilon: number, depth: number): number {
  const fine = integrate(FINE, p, at, t0, t1);
  if (depth === MAX_DEPTH || Math.abs(fine - integrate(COARSE, p, at, t0, t1)) <= epsilon) return fine;
  const middle = (t0 + t1) / 2;
  return adaptive(p, at, t0, middle, epsilon / 2, depth + 1) + adaptive(p, at, middle, t1, epsilon / 2, depth + 1);
}

function integrate(rule: typeof FINE, p: Float64Array, at: number, t0: number, t1: number): number {
  const width = t1 - t0;
  let sum = 0;
  for (let i = 0; i < rule.nodes.length; i++) sum += rule.weights[i] * cubicSpeed(p, at, t0 + width * rule.nodes[i]);
  return sum * width;
}

/**
 * The parameter at which the stretch from the segment's start is `length` px long; `total` is the segment's length.
 * Newton's method inside a bracket, so cusps and zero handles are safe. Clamps to [0, 1].
 */
export function parameterAtLength(p: Float64Array, at: number, length: number, total: number): number {
  // Is there nothing to walk along?
  if (!(total > 0) || !(length > 0)) return 0;
  if (length >= total) return 1;
  return increasingRoot(
    (t) => cubicLength(p, at, 0, t) - length,
    (t) => cubicSpeed(p, at, t),
    0,
    1,
    length / total,
    PARAMETER_EPS,
  );
}
