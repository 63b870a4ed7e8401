/**
 * Real roots of a·t² + b·t + c in ascending order; the stable form that avoids cancellation
 * (Numerical Recipes, 3rd edition, 2007, section 5.6). A constant has no roots here, even when it is zero.
 */
export function quadraticRoots(a: number, b: number, c: number): number[] {
  const scale = Math.max(Math.abs(a), Math.abs(b), Math.abs(c));
  if (!(scale > 0)) return [];
  if (Math.abs(a) <= 1e-14 * scale) return Math.abs(b) <= 1e-14 * scale ? [] : [-c / b];
  const discriminant = b * b - 4 * a * c;
  if (discriminant < 0) return [];
  const q = -0.5 * (b + (b < 0 ? -1 : 1) * Math.sqrt(discriminant));
  const first = q / a;
  const second = q === 0 ? first : c / q;
  return first <= second ? [first, second] : [second, first];
}

/**
 * The root of an increasing function in [low, high] by Newton's method inside a shrinking bracket, with bisection where Newton
 * leaves it. `slope` may return 0. Stops when the step is below `epsilon` or after 60 steps; always returns a number in the bracket.
 */
export function increasingRoot(
  value: (x: number) => number,
  slope: (x: number) => number,
  low: number,
  high: number,
  guess: number,
  epsilon: number,
): number {
  let lo = low;
  let hi = high;
  let x = Math.min(hi, Math.max(lo, guess));
  for (let step = 0; step < 60; step++) {
    const v = value(x);
    if (v === 0) return x;
    if (v < 0) lo = x;
    else hi = x;
    const s = slope(x);
    let next = x - v / s;
    if (!(next > lo && next < hi)) next = (lo + hi) / 2;
    if (Math.abs(next - x) < epsilon) return next;
    x = next;
  }
  return x;
}

/**
 * Parameters in [0, 1] at which the cubic with Bernstein coefficients b0 … b3 changes its sign, in ascending order: between its extremes by
 * `increasingRoot`. A value of zero counts as positive, so that segments which share an end count a crossing there once.
 */
export function bezierSignChanges(b0: number, b1: number, b2: number, b3: number): number[] {
  const a = b3 - 3 * b2 + 3 * b1 - b0;
  const b = 3 * (b2 - 2 * b1 + b0);
  const c = 3 * (b1 - b0);
  const value = (t: number): number => (t === 1 ? b3 : ((a * t + b) * t + c) * t + b0);
  const slope = (t: number): number => (3 * a * t + 2 * b) * t + c;
  const stops = [0, ...quadraticRoots(3 * a, 2 * b, c).filter((t) => t > 0 && t < 1), 1];
  const out: number[] = [];
  for (let k = 0; k + 1 < stops.length; k++) {
    const up = value(stops[k + 1]) >= 0;
    if (value(stops[k]) >= 0 === up) continue;
    const sign = up ? 1 : -1;
    const middle = (stops[k] + stops[k + 1]) / 2;
    const root = increasingRoot(
      (t) => sign * value(t),
      (t) => sign * slope(t),
      stops[k],
      stops[k + 1],
      middle,
      1e-14,
    );
    out.push(root);
  }
  return out;
}
