import { EVEN_SPLINE, type KeySpline } from '../../easing';
import type { Track } from '../tree/drawn-element';
import { READING_COST, type ReadingBudget } from './budget';
import { type Json, number, objects } from './json';
import { arrivalOf, isCurved, isKeyed, onwardOf, valueAt } from './lottie-value';

/** How frames of a composition lie in the whole file: at `offset` + frame · `stretch` of its `frames`. */
export interface FrameClock {
  readonly offset: number;
  readonly stretch: number;
  readonly rate: number;
  /** Of the whole file. */
  readonly frames: number;
  /** Counts the work. */
  readonly budget: ReadingBudget;
}

/** Properties said as one text, which changes over time where there is a track. */
export interface Combined {
  readonly text: string;
  readonly track?: Omit<Track, 'attribute'>;
  /** Are the keys those of the file? Else they were set frame by frame. */
  readonly exact: boolean;
}

/** Values without common keys are looked at so often a frame. */
const A_FRAME = 2;
const MOST_SAMPLES = 4_000;

/** A text that depends on some properties. Where they have their keys at the same times, with the same curves, those are the keys of the text. */
export function combinedOf(
  properties: readonly unknown[],
  say: (values: readonly unknown[]) => string,
  clock: FrameClock,
): Combined {
  const at = (frame: number): string => {
    const said = say(properties.map((property) => valueAt(property, frame)));
    clock.budget.spend(READING_COST.made * said.length + READING_COST.curve * curved);
    return said;
  };
  const keyed = properties.filter(isKeyed) as Json[];
  const curved = keyed.filter((property) => objects(property.k).some(isCurved)).length;
  const text = at(-clock.offset / clock.stretch);
  if (keyed.length === 0) return { text, exact: true };
  const base = { begin: 0, duration: clock.frames / clock.rate, repeats: true, jumps: false };
  const share = (frame: number): number => (clock.offset + frame * clock.stretch) / clock.frames;
  const lists = keyed.map((property) => objects(property.k));
  const timings = lists.map((keys) => timingOf(keys));
  const common = timings[0] !== null && timings.every((timing) => timing === timings[0]);
  if (!common) {
    const times = lists.flat().map((key) => number(key.t));
    // What lies outside of the file is not seen.
    const [opens, ends] = [0, clock.frames].map((frame) => (frame - clock.offset) / clock.stretch);
    const within = (frame: number): number => Math.min(Math.max(opens, ends), Math.max(Math.min(opens, ends), frame));
    const [first, last] = [within(Math.min(...times)), within(Math.max(...times))];
    const count = Math.min(MOST_SAMPLES, Math.max(1, Math.ceil((last - first) * A_FRAME)));
    const frames = Array.from({ length: count + 1 }, (_, i) => first + ((last - first) * i) / count);
    const track = { ...base, times: frames.map(share), values: frames.map(at), splines: [] };
    return { text, exact: false, track: fromTheStart(track) };
  }
  const times: number[] = [];
  const values: string[] = [];
  const splines: KeySpline[] = [];
  const [keys] = lists;
  const said = (pick: (own: readonly Json[]) => unknown): string =>
    say(properties.map((property) => (isKeyed(property) ? pick(objects((property as Json).k)) : valueAt(property, 0))));
  const add = (time: number, value: string, spline: KeySpline): void => {
    if (times.length > 0) splines.push(spline);
    times.push(time);
    values.push(value);
  };
  keys.forEach((key, i) => {
    const own = said((list) => list[i].s ?? (i > 0 ? arrivalOf(list[i - 1], list[i]) : undefined));
    if (i === 0 || values[values.length - 1] !== own || times[times.length - 1] < share(number(key.t)))
      add(share(number(key.t)), own, EVEN_SPLINE);
    const next = keys[i + 1];
    if (!next) return;
    const onward = onwardOf(key);
    const time = share(number(next.t));
    // It stands, and jumps at the next key: two keys of one time.
    if (!onward) add(time, own, EVEN_SPLINE);
    else
      add(
        time,
        said((list) => arrivalOf(list[i], list[i + 1])),
        onward[0] as KeySpline,
      );
  });
  return { text, exact: true, track: fromTheStart({ ...base, times, values, splines }) };
}

/** When keys stand and how values run between them, as a text; null where one number runs otherwise than another, or along a curve. */
function timingOf(keys: readonly Json[]): string | null {
  const parts: string[] = [];
  for (const [i, key] of keys.entries()) {
    const onward = i + 1 < keys.length ? onwardOf(key) : null;
    if (onward?.some((spline) => spline.some((v, k) => v !== onward[0][k]))) return null;
    if (i + 1 < keys.length && onward && isCurved(key)) return null;
    parts.push(`${number(key.t)} ${onward ? onward[0].join(' ') : 'stands'}`);
  }
  return parts.join(';');
}

/** With a key at the very beginning: before its first key a value stands. */
function fromTheStart<T extends Pick<Track, 'times' | 'values' | 'splines'>>(track: T): T {
  const { times, values, splines } = track;
  if (times[0] <= 0) return track;
  return {
    ...track,
    times: [0, ...times],
    values: [values[0], ...values],
    splines: splines.length > 0 ? [EVEN_SPLINE, ...splines] : splines,
  };
}
