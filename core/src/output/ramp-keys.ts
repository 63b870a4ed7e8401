import { EVEN_THIRDS, easedKeys, easingSegments, type KeySpline, progressRange } from '../easing';
import { type Property, progressKeys, type Ramp } from '../lane';

/** Keys of a value over one ramp, which starts and ends at times in s. */
export interface RampKeys {
  readonly start: number;
  readonly end: number;
  /** Shares of the ramp's duration, from 0 to 1. */
  readonly times: readonly number[];
  readonly values: readonly Float64Array[];
  /** How the value runs to each key from the one before; the first says nothing. Empty where it jumps from key to key. */
  readonly splines: readonly KeySpline[];
}

type Keys = Omit<RampKeys, 'start' | 'end'>;

/**
 * The keys that a ramp's value needs to stay within an error, in formats that interpolate linearly and may have a key spline between two keys
 * (SMIL, CSS). They are set in progress, where the picture bends, and the easing is split exactly there, so that easing costs no keys. Where that
 * would take more keys than the ramp has frames at `rate`, they stand at its frames, and between these where the value strays there. A value that
 * stands still has one, a cut two.
 */
export function rampKeys({ time, blend }: Ramp, { type, error }: Property, rate: number): RampKeys {
  const { start, end } = time;
  const duration = end - start;
  const valueAt = (progress: number): Float64Array => {
    const out = new Float64Array(blend.size);
    blend.write(progress, out, 0);
    return out;
  };
  if (blend.still) return { start, end, times: [0], values: [valueAt(0)], splines: blend.jumps ? [] : [EVEN_THIRDS] };
  if (!(duration > 0))
    return { start, end, times: [0, 1], values: [valueAt(0), valueAt(1)], splines: [EVEN_THIRDS, EVEN_THIRDS] };
  const segments = easingSegments(time.easing);
  if (blend.jumps) return { start, end, ...jumpKeys(blend, segments) };
  const [low, high] = progressRange(segments);
  const { progress, values } = progressKeys(blend, { low, high, error, together: type === 'outline' ? 2 : 1 });
  const keys = easedKeys(segments, progress);
  const frames = frameShares(start, end, rate);
  if (keys.length > frames.length) {
    // A colour between two frames is not missed; an outline that is elsewhere is.
    const moments = type === 'outline' ? closerMoments({ time, blend }, frames, error) : frames;
    if (moments.length <= keys.length) return { start, end, ...frameKeys({ time, blend }, moments) };
  }
  return {
    start,
    end,
    times: keys.map((key) => key.time),
    values: keys.map((key) => between(progress, values, key.progress)),
    splines: keys.map(({ spline }) => spline),
  };
}

/** The value on the straight lines between keys of progress. */
function between(progress: readonly number[], values: readonly Float64Array[], at: number): Float64Array {
  let k = 0;
  while (k + 2 < progress.length && at > progress[k + 1]) k++;
  const [p, q] = [progress[k], progress[k + 1]];
  const share = q > p ? (at - p) / (q - p) : 0;
  return values[k].map((v, i) => v + (values[k + 1][i] - v) * share);
}

/** Where the frames of the piece lie in a stretch of time, as shares of it, and both its ends. */
function frameShares(start: number, end: number, rate: number): number[] {
  const shares = [0];
  const near = 1e-6;
  for (let k = Math.floor(start * rate + near) + 1; k < end * rate - near; k++)
    shares.push((k / rate - start) / (end - start));
  return [...shares, 1];
}

/** How often the time between two frames is halved at most. */
const MOST_HALVES = 3;

/** Shares of a ramp with more of them where the value strays by more than `error` from straight lines between them. */
function closerMoments(
  { time, blend }: Pick<Ramp, 'time' | 'blend'>,
  shares: readonly number[],
  error: number,
): number[] {
  const valueAt = (share: number): Float64Array => {
    const out = new Float64Array(blend.size);
    blend.write(time.progressAt(time.start + (time.end - time.start) * share), out, 0);
    return out;
  };
  const strays = (p: Float64Array, v: Float64Array, q: Float64Array): boolean => {
    for (let i = 0; i < v.length; i += 2)
      if (Math.hypot(v[i] - (p[i] + q[i]) / 2, v[i + 1] - (p[i + 1] + q[i + 1]) / 2) > error) return true;
    return false;
  };
  const found = [shares[0]];
  const between = (a: number, p: Float64Array, b: number, q: Float64Array, halves: number): void => {
    const [middle, v] = [(a + b) / 2, valueAt((a + b) / 2)];
    if (halves > 0 && strays(p, v, q)) {
      between(a, p, middle, v, halves - 1);
      between(middle, v, b, q, halves - 1);
    } else found.push(b);
  };
  let last = valueAt(shares[0]);
  for (let k = 0; k + 1 < shares.length; k++) {
    const next = valueAt(shares[k + 1]);
    between(shares[k], last, shares[k + 1], next, MOST_HALVES);
    last = next;
  }
  return found;
}

/** A key for each moment, with straight lines between them. */
function frameKeys({ time, blend }: Ramp, times: readonly number[]): Keys {
  const values = times.map((share) => {
    const out = new Float64Array(blend.size);
    blend.write(time.progressAt(time.start + (time.end - time.start) * share), out, 0);
    return out;
  });
  return { times, values, splines: times.map(() => EVEN_THIRDS) };
}

/** A key wherever the value jumps: it stands from there on. */
function jumpKeys(blend: Ramp['blend'], segments: Float64Array): Keys {
  const keys = easedKeys(segments, blend.breaks);
  const times: number[] = [];
  const values: Float64Array[] = [];
  for (let k = 0; k + 1 < keys.length; k++) {
    const value = new Float64Array(blend.size);
    // Between two keys progress does not pass a break: anywhere inside tells the value.
    blend.write((keys[k].progress + keys[k + 1].progress) / 2, value, 0);
    if (values[values.length - 1]?.every((v, i) => v === value[i])) continue;
    times.push(keys[k].time);
    values.push(value);
  }
  return { times, values, splines: [] };
}
