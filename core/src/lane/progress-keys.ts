import type { Blend } from './blend';

/** Keys of a value over progress: between two of them it goes straight. */
export interface ProgressKeys {
  /** Ascending. */
  readonly progress: readonly number[];
  /** The value at each, `size` numbers. */
  readonly values: readonly Float64Array[];
}

export interface KeyOptions {
  /** Keys stand at both, and at 0, 1 and the value's breaks where they lie between. */
  readonly low: number;
  readonly high: number;
  /** The value strays from the straight lines by at most this. */
  readonly error: number;
  /** Numbers that are measured together: 2 for points, 1 for all else. */
  readonly together: 1 | 2;
}

/** Places of a stretch at which the bend is measured before keys are set. */
const SAMPLES = 32;
/** Places between two keys at which the value is compared with the line. */
const PROBES = [0.125, 0.25, 0.375, 0.5, 0.625, 0.75, 0.875] as const;
const MOST_STRETCHES = 256;

/**
 * Few keys between which straight lines stay within an error of a value. They stand where the value bends most: as far from each other as the
 * square root of the second derivative asks (de Boor: A Practical Guide to Splines, 2001, chapter XII: the error of a chord is h²|f″|/8).
 * Inner keys lie beside the curve by half of what the chords next to them are off. So the line runs on both sides of it and keys can be
 * 1.4 times as far apart. At 0, at 1, at both bounds and at breaks the value is exact.
 */
export function progressKeys(blend: Blend, { low, high, error, together }: KeyOptions): ProgressKeys {
  const fixed = [...new Set([low, 0, ...blend.breaks, 1, high])]
    .filter((p) => p >= low && p <= high)
    .sort((p, q) => p - q);
  const valueAt = (p: number): Float64Array => {
    const out = new Float64Array(blend.size);
    blend.write(p, out, 0);
    return out;
  };
  const progress = [fixed[0]];
  const values = [valueAt(fixed[0])];
  for (let i = 0; i + 1 < fixed.length; i++) {
    const stretch = keysBetween(valueAt, fixed[i], fixed[i + 1], error, together);
    progress.push(...stretch.progress.slice(1));
    values.push(...stretch.values.slice(1));
  }
  return { progress, values };
}

type ValueAt = (progress: number) => Float64Array;

function keysBetween(valueAt: ValueAt, a: number, b: number, error: number, together: 1 | 2): ProgressKeys {
  const spread = bendOf(valueAt, a, b, together);
  let found = placed(valueAt, [a, b]);
  for (let n = 1; n < MOST_STRETCHES; n = Math.max(n + 1, Math.floor(n * 1.1))) {
    found = placed(valueAt, spread(n));
    if (strayOf(valueAt, found, together) <= error) break;
  }
  return found;
}

/** Places of n + 1 keys from `a` to `b`, so that each stretch bends as much as any other. */
function bendOf(valueAt: ValueAt, a: number, b: number, together: 1 | 2): (n: number) => number[] {
  const rows = Array.from({ length: SAMPLES + 1 }, (_, k) => valueAt(a + ((b - a) * k) / SAMPLES));
  const sums = [0];
  const roots = rows.map((row, k) => {
    const at = Math.min(SAMPLES - 1, Math.max(1, k));
    return Math.sqrt(largest(row.length, together, (i) => rows[at - 1][i] - 2 * rows[at][i] + rows[at + 1][i]));
  });
  // What does not bend at all is divided evenly.
  const least = 1e-3 * Math.max(...roots, 1e-9);
  for (let k = 0; k < SAMPLES; k++) sums.push(sums[k] + (roots[k] + roots[k + 1]) / 2 + least);
  return (n) => {
    const places = [a];
    let k = 0;
    for (let i = 1; i < n; i++) {
      const wanted = (sums[SAMPLES] * i) / n;
      while (sums[k + 1] < wanted) k++;
      places.push(a + ((b - a) * (k + (wanted - sums[k]) / (sums[k + 1] - sums[k]))) / SAMPLES);
    }
    return [...places, b];
  };
}

/** Keys at these places, inner ones put beside the value by half of what the chords next to them are off. */
function placed(valueAt: ValueAt, progress: readonly number[]): ProgressKeys {
  const exact = progress.map(valueAt);
  const offs = progress.slice(1).map((p, k) => {
    const middle = valueAt((progress[k] + p) / 2);
    return middle.map((v, i) => v - (exact[k][i] + exact[k + 1][i]) / 2);
  });
  const values = exact.map((row, k) =>
    k === 0 || k === exact.length - 1 ? row : row.map((v, i) => v + (offs[k - 1][i] + offs[k][i]) / 4),
  );
  return { progress, values };
}

/** How far the value strays from straight lines between the keys at most. */
function strayOf(valueAt: ValueAt, { progress, values }: ProgressKeys, together: 1 | 2): number {
  let worst = 0;
  for (let k = 0; k + 1 < progress.length; k++) {
    const [p, q] = [values[k], values[k + 1]];
    for (const share of k > 0 ? [0, ...PROBES] : PROBES) {
      const v = valueAt(progress[k] + (progress[k + 1] - progress[k]) * share);
      worst = Math.max(
        worst,
        largest(v.length, together, (i) => v[i] - p[i] - (q[i] - p[i]) * share),
      );
    }
  }
  return worst;
}

/** The largest of `size` numbers, or of as many points. */
function largest(size: number, together: 1 | 2, at: (i: number) => number): number {
  let worst = 0;
  for (let i = 0; i < size; i += together)
    worst = Math.max(worst, together === 2 ? Math.hypot(at(i), at(i + 1)) : Math.abs(at(i)));
  return worst;
}
