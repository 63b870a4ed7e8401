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
