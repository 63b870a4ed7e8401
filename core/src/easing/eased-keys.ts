import { cubicPoint, cubicStretch } from '../curve';
import { increasingRoot, quadraticRoots } from '../num';

/** Control values of the timing between two keys, in the unit square: x1, y1, x2, y2 as in a key spline of SMIL. */
export type KeySpline = readonly [x1: number, y1: number, x2: number, y2: number];
/** Even, as it is written most shortly. */
export const EVEN_SPLINE: KeySpline = [0, 0, 1, 1];
/** Even too, with handles at thirds: a cubic of an even pace along both axes, which can be divided and joined as others. */
export const EVEN_THIRDS: KeySpline = [1 / 3, 1 / 3, 2 / 3, 2 / 3];

/** A moment of an easing at which a keyed format gets a key. */
export interface EasedKey {
  /** Share of the duration. */
  readonly time: number;
  readonly progress: number;
  /** How progress runs from the key before to this one; a straight line for the first. */
  readonly spline: KeySpline;
}

/** Control values this far outside the unit square are those of a stretch that has to be divided. */
const INSIDE = 1e-9;
const DEPTH = 8;
/** Stretches shorter than this have no length. */
const NOTHING = 1e-9;

/** The lowest and highest progress of an easing given as cubics (3n + 1 points of time and progress). */
export function progressRange(segments: Float64Array): readonly [low: number, high: number] {
  let low = 0;
  let high = 1;
  const point = new Float64Array(2);
  for (let at = 0; at + 7 < segments.length; at += 6)
    for (const t of [...turns(segments, at), 1]) {
      cubicPoint(segments, at, t, point);
      low = Math.min(low, point[1]);
      high = Math.max(high, point[1]);
    }
  return [low, high];
}

/** Where progress turns back within a cubic: curve parameters inside (0, 1). */
function turns(p: Float64Array, at: number): number[] {
  const [y0, y1, y2, y3] = [p[at + 1], p[at + 3], p[at + 5], p[at + 7]];
  return quadraticRoots(y3 - 3 * y2 + 3 * y1 - y0, 2 * (y2 - 2 * y1 + y0), y1 - y0).filter((t) => t > 0 && t < 1);
}

/**
 * Keys for something that is to have keys at certain `cuts` of progress. Each cubic of the easing (3n + 1 points of time and progress) is split
 * exactly where it passes a cut, and where it turns back, by de Casteljau's algorithm. What lies between two keys is then a key spline in the
 * unit square, without any error. The first key is at time 0, the last at 1.
 */
export function easedKeys(segments: Float64Array, cuts: readonly number[]): EasedKey[] {
  const keys: EasedKey[] = [{ time: 0, progress: segments[1], spline: EVEN_THIRDS }];
  const add = (p: Float64Array, depth: number): void => {
    const [width, height] = [p[6] - p[0], p[7] - p[1]];
    if (!(width > NOTHING)) {
      // A jump: the key before stands for both ends.
      if (Math.abs(height) > NOTHING) keys.push({ time: p[6], progress: p[7], spline: EVEN_THIRDS });
      return;
    }
    const level = !(Math.abs(height) > NOTHING);
    const values = [2, 3, 4, 5].map((i) =>
      i % 2 === 0 ? (p[i] - p[0]) / width : level ? (i === 3 ? 1 / 3 : 2 / 3) : (p[i] - p[1]) / height,
    );
    if (values.some((v) => v < -INSIDE || v > 1 + INSIDE) && depth < DEPTH) {
      for (const half of [0, 0.5]) add(cubicStretch(p, 0, half, half + 0.5, new Float64Array(8), 0), depth + 1);
      return;
    }
    const [x1, y1, x2, y2] = values.map((v) => Math.min(1, Math.max(0, v)));
    keys.push({ time: p[6], progress: p[7], spline: [x1, y1, x2, y2] });
  };
  for (let at = 0; at + 7 < segments.length; at += 6) {
    const ends = [0, ...turns(segments, at), 1];
    for (let k = 0; k + 1 < ends.length; k++) {
      const branch = cubicStretch(segments, at, ends[k], ends[k + 1], new Float64Array(8), 0);
      const stops = parametersOf(branch, cuts);
      for (let i = 0; i + 1 < stops.length; i++)
        add(cubicStretch(branch, 0, stops[i], stops[i + 1], new Float64Array(8), 0), 0);
    }
  }
  keys[keys.length - 1] = { ...keys[keys.length - 1], time: 1 };
  return keys;
}

/** Ascending parameters of a cubic without turns at which its progress is one of the cuts, with both ends. */
function parametersOf(branch: Float64Array, cuts: readonly number[]): number[] {
  const [low, high] = [branch[1], branch[7]];
  const sign = high >= low ? 1 : -1;
  const point = new Float64Array(2);
  const value = (t: number): number => cubicPoint(branch, 0, t, point)[1];
  const inner = cuts
    .filter((cut) => (cut - low) * sign > NOTHING && (high - cut) * sign > NOTHING)
    .map((cut) =>
      increasingRoot(
        (t) => sign * (value(t) - cut),
        () => 0,
        0,
        1,
        (cut - low) / (high - low),
        1e-13,
      ),
    )
    .sort((p, q) => p - q);
  return [0, ...inner, 1];
}
