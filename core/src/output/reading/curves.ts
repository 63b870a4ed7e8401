import { cubicStretch } from '../../curve';
import { type KeySpline, parameterAtTime } from '../../easing';
import { SAME_TIME_S } from '../../num';
import type { Track } from '../tree/drawn-element';

/** A track that is played more often than this within a stretch has no keys there. */
const MOST_ROUNDS = 2_000;

/** When a track has its keys within a stretch of time, s, ascending: where it begins and ends, and at each key of each of its rounds. */
export function keyTimes(track: Track, from: number, until: number): number[] {
  const { begin, duration, repeats, times, values, active = duration } = track;
  // What says the same all the time has a beginning, and perhaps an end.
  const same = values.every((value) => value === values[0]);
  const own = [...(same ? [] : times), ...(same && track.active === undefined ? [0] : [0, active / duration, 1])];
  const found: number[] = [];
  // What repeats so often is a blur: nobody sets keys for it.
  if (repeats && (until - from) / duration > MOST_ROUNDS) return [from, until];
  const first = repeats ? Math.max(0, Math.floor((from - begin) / duration)) : 0;
  const last = repeats ? Math.max(0, Math.ceil((until - begin) / duration)) : 0;
  for (let round = first; round <= last; round++)
    for (const time of own) {
      const seconds = begin + (round + time) * duration;
      if (seconds >= from && seconds <= until) found.push(seconds);
    }
  return found;
}

/** When a track may jump within a stretch of time, s. Where a run of it begins or ends, where two of its keys stand at one time, and at all keys of what goes by steps. */
export function jumpTimes(track: Track, from: number, until: number, byStep: boolean): number[] {
  const { times } = track;
  if (byStep) return keyTimes(track, from, until);
  const same = times.filter((time, i) => i > 0 && time - times[i - 1] < SAME_SHARE);
  return keyTimes({ ...track, times: [0, ...same, 1], values: ['from', 'to'] }, from, until);
}
const SAME_SHARE = 1e-9;

/** Ascending times of which none are the same. */
export function mergedTimes(times: readonly number[]): number[] {
  const sorted = [...times].sort((p, q) => p - q);
  return sorted.filter((time, i) => i === 0 || time - sorted[i - 1] > SAME_TIME_S);
}

/** How a track runs between two times, s, that lie between two of its keys; undefined where it runs evenly, or not at all. */
export function curveBetween(track: Track, from: number, until: number): KeySpline | undefined {
  const { begin, duration, repeats, times, splines } = track;
  if (splines.length === 0) return undefined;
  const middle = ((from + until) / 2 - begin) / duration;
  if (middle < 0 || (!repeats && middle > 1)) return undefined;
  const round = repeats ? Math.floor(middle) : 0;
  const share = middle - round;
  const k = times.findIndex((time, i) => i + 1 < times.length && share >= time && share < times[i + 1]);
  if (k < 0 || !splines[k]) return undefined;
  const width = times[k + 1] - times[k];
  const at = (seconds: number): number => ((seconds - begin) / duration - round - times[k]) / width;
  return partOfSpline(splines[k], at(from), at(until));
}

/** What of a key spline lies between two shares of its time, as a spline of its own; undefined where it comes back to where it began. */
export function partOfSpline([x1, y1, x2, y2]: KeySpline, from: number, until: number): KeySpline | undefined {
  const [a, b] = [Math.max(0, from), Math.min(1, until)];
  if (a < 1e-5 && b > 1 - 1e-5) return [x1, y1, x2, y2];
  if (!(b > a)) return undefined;
  const whole = Float64Array.of(0, 0, x1, y1, x2, y2, 1, 1);
  const parameter = (x: number): number => (x <= 0 ? 0 : x >= 1 ? 1 : parameterAtTime(x1, x2, x));
  const p = cubicStretch(whole, 0, parameter(a), parameter(b), new Float64Array(8), 0);
  const [width, height] = [p[6] - p[0], p[7] - p[1]];
  if (!(Math.abs(height) > 1e-6) || !(width > 0)) return undefined;
  const within = (v: number): number => Math.min(1, Math.max(0, v));
  return [within((p[2] - p[0]) / width), (p[3] - p[1]) / height, within((p[4] - p[0]) / width), (p[5] - p[1]) / height];
}
