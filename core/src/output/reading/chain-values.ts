import type { KeySpline } from '../../easing';
import { attributesAt, goesBySteps } from '../document/attributes-at';
import { READING_COST, type ReadingBudget } from '../document/budget';
import type { DrawnElement, Track } from '../tree/drawn-element';
import { curveBetween, jumpTimes, keyTimes, mergedTimes } from './curves';
import type { Sample } from './sample';
import type { Moving } from './segment';
import type { Chain } from './still-tree';

/** A value over time by what it is at each moment; what has been looked at is kept. */
export function movingOf<S extends Sample>(
  tracks: readonly Track[],
  duration: number,
  at: (seconds: number) => S,
  budget: ReadingBudget,
): Moving<S> {
  const known = new Map<number, S>();
  let jumps: readonly number[] | undefined;
  return {
    isSteady(seconds) {
      jumps ??= mergedTimes([
        0,
        duration,
        ...tracks.flatMap((track) => jumpTimes(track, 0, duration, goesBySteps(track))),
      ]);
      return !isAmong(jumps, seconds);
    },
    breaks: mergedTimes(tracks.flatMap((track) => keyTimes(track, 0, duration))),
    at(seconds) {
      let value = known.get(seconds);
      budget.spend(READING_COST.value);
      if (value === undefined) {
        budget.spend(READING_COST.newValue);
        value = at(seconds);
        known.set(seconds, value);
      }
      return value;
    },
    curves(from, until) {
      const found = new Map<string, KeySpline>();
      for (const track of tracks) {
        const curve = curveBetween(track, from, until);
        if (curve) found.set(curve.map((v) => v.toFixed(4)).join(), curve);
      }
      return [...found.values()];
    },
  };
}

/** Is one of ascending times as good as this one? */
function isAmong(times: readonly number[], seconds: number): boolean {
  let [low, high] = [0, times.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (times[middle] < seconds - AS_GOOD_AS) low = middle + 1;
    else high = middle;
  }
  return low < times.length && times[low] <= seconds + AS_GOOD_AS;
}
const AS_GOOD_AS = 4e-6;

/** Numbers, and perhaps a colour, as a sample. */
export const numbersSample = (numbers: readonly number[], error: number, colour: readonly number[] = []): Sample => ({
  kind: '',
  numbers: Float64Array.from(numbers),
  errors: new Float64Array(numbers.length).fill(error),
  colours: Float64Array.from(colour),
});

/** The tracks of some attributes of a chain's elements. */
export const tracksOf = (chain: Chain, wanted: (attribute: string) => boolean): Track[] =>
  chain.flatMap(({ tracks }) => tracks.filter(({ attribute }) => wanted(attribute)));

/** A stretch of time, s. */
export type Span = readonly [from: number, until: number];

const VISIBILITY = new Set(['display', 'visibility']);

/** When a chain is shown at all: stretches of time, s. */
export function shownSpans(chain: Chain, duration: number): Span[] {
  const breaks = mergedTimes([
    0,
    duration,
    ...tracksOf(chain, (attribute) => VISIBILITY.has(attribute)).flatMap((track) => keyTimes(track, 0, duration)),
  ]);
  return spansWhere(breaks, (seconds) => isShown(chain, seconds));
}

/** Stretches between times in which something holds, those that touch put together. */
export function spansWhere(breaks: readonly number[], holds: (seconds: number) => boolean): Span[] {
  const spans: [number, number][] = [];
  for (let i = 0; i + 1 < breaks.length; i++) {
    if (!holds((breaks[i] + breaks[i + 1]) / 2)) continue;
    const last = spans[spans.length - 1];
    if (last?.[1] === breaks[i]) last[1] = breaks[i + 1];
    else spans.push([breaks[i], breaks[i + 1]]);
  }
  return spans;
}

function isShown(chain: Chain, seconds: number): boolean {
  let visible = true;
  for (const element of chain) {
    const own = attributesAt(element, seconds);
    if (own.display === 'none') return false;
    if (own.visibility !== undefined && own.visibility !== 'inherit') visible = own.visibility === 'visible';
  }
  return visible;
}

/** The opacity of groups and shapes of a chain, multiplied. */
export function opacityAt(chain: Chain, seconds: number): number {
  return chain.reduce((product, element) => product * ownOpacity(element, seconds), 1);
}

function ownOpacity(element: DrawnElement, seconds: number): number {
  const text = attributesAt(element, seconds).opacity;
  if (text === undefined) return 1;
  const value = text.endsWith('%') ? Number.parseFloat(text) / 100 : Number(text);
  return Number.isFinite(value) ? Math.min(1, Math.max(0, value)) : 1;
}

/** Says only that something may happen at a time, s. */
export const momentTrack = (time: number): Track => ({
  attribute: 'display',
  begin: time,
  duration: 1,
  repeats: false,
  jumps: true,
  times: [0],
  values: [''],
  splines: [],
});
