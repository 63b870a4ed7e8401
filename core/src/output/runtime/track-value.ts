/** An attribute over time: values as text, by their keys. */
export interface TimedTexts {
  /** When its run begins, s. */
  readonly begin: number;
  /** Of one run, s. */
  readonly duration: number;
  readonly repeats: boolean;
  /** Does the value stand from key to key? */
  readonly jumps: boolean;
  /** Shares of the run, ascending. */
  readonly times: readonly number[];
  readonly values: readonly string[];
  /** From each key to the next: x1, y1, x2, y2 of its curve; empty where it goes evenly. */
  readonly splines: readonly (readonly number[])[];
}

/** Texts taken apart: what stands between the numbers is the same in all of them. */
export interface ReadyTrack extends TimedTexts {
  readonly literals: readonly string[];
  readonly numbers: readonly (readonly number[])[];
  readonly colour: boolean;
  /** Numbers are rounded to one part of so many. */
  readonly unit?: number;
}

const NUMBER = /-?(?:\d+\.?\d*|\.\d+)(?:e-?\d+)?/g;

/** Takes the texts of a track apart, once, so that its values can be mixed. Colours are #rgb or #rrggbb. */
export function readyTrack(track: TimedTexts): ReadyTrack {
  const colour = track.values.every((value) => value[0] === '#');
  const numbers = track.values.map(colour ? colourNumbers : (value) => (value.match(NUMBER) ?? []).map(Number));
  const literals = colour ? ['rgb(', ',', ',', ')'] : track.values[0].split(NUMBER);
  return { ...track, colour, literals, numbers };
}

function colourNumbers(text: string): number[] {
  const wide = text.length < 7 ? text.slice(1).replace(/./g, '$&$&') : text.slice(1);
  return [0, 2, 4].map((i) => Number.parseInt(wide.slice(i, i + 2), 16));
}

/** The value at a time in s, as SVG Animations 2 defines it; undefined before it begins. */
export function trackValue(track: ReadyTrack, seconds: number): string | undefined {
  const place = placeOf(track, seconds);
  if (!place) return undefined;
  const [k, way] = place;
  return way === 0 || track.jumps ? track.values[k] : textOf(track, mixed(track.numbers[k], track.numbers[k + 1], way));
}

/** The numbers of the value at a time in s, as `trackValue` puts them into its text; undefined before it begins. */
export function trackNumbers(track: ReadyTrack, seconds: number): readonly number[] | undefined {
  const place = placeOf(track, seconds);
  if (!place) return undefined;
  const [k, way] = place;
  return way === 0 || track.jumps ? track.numbers[k] : mixed(track.numbers[k], track.numbers[k + 1], way);
}

/** The key that a value comes from, and how far it is on its way to the next. */
function placeOf(
  { begin, duration, repeats, jumps, times, splines }: ReadyTrack,
  seconds: number,
): [number, number] | undefined {
  let share = (seconds - begin) / duration;
  if (share < 0) return undefined;
  share = repeats ? share - Math.floor(share) : Math.min(1, share);
  const last = times.length - 1;
  let k = 0;
  while (k < last && times[k + 1] <= share) k++;
  if (jumps || k === last) return [k, 0];
  const way = (share - times[k]) / (times[k + 1] - times[k]);
  return [k, splines[k] ? splineValue(splines[k], way) : way];
}

const mixed = (from: readonly number[], to: readonly number[], way: number): number[] =>
  from.map((value, i) => value + (to[i] - value) * way);

function textOf({ literals, colour, unit = 1e4 }: ReadyTrack, numbers: readonly number[]): string {
  let text = literals[0];
  numbers.forEach((value, i) => {
    const number = colour ? Math.round(Math.min(255, Math.max(0, value))) : Math.round(value * unit) / unit;
    // In path data two numbers may touch where the second has a sign.
    text += (literals[i] === '' && i > 0 && number >= 0 ? ' ' : '') + number + (literals[i + 1] ?? '');
  });
  return text;
}

/** Progress on a curve from 0, 0 to 1, 1 at a time within 0 and 1: Newton's method inside a bracket. */
export function splineValue([x1, y1, x2, y2]: readonly number[], x: number): number {
  const at = (a: number, b: number, t: number): number =>
    3 * a * t * (1 - t) * (1 - t) + 3 * b * t * t * (1 - t) + t * t * t;
  let [low, high, t] = [0, 1, x];
  for (let step = 0; step < 40; step++) {
    const off = at(x1, x2, t) - x;
    if (Math.abs(off) < 1e-9) break;
    if (off > 0) high = t;
    else low = t;
    const slope = 3 * (1 - t) * (1 - t) * x1 + 6 * t * (1 - t) * (x2 - x1) + 3 * t * t * (1 - x2);
    const next = t - off / slope;
    t = next > low && next < high ? next : (low + high) / 2;
  }
  return at(y1, y2, t);
}
