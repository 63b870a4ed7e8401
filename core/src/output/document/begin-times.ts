import { SAME_TIME_S } from '../../num';
/** When an animation begins: at a time, s, or with another one's beginning or end. */
export type BeginRule =
  | { readonly at: number }
  | { readonly of: string; readonly edge: 'begin' | 'end'; readonly after: number };

/** What of an animation says when it runs. */
export interface TimedAnimation {
  readonly id: string | undefined;
  readonly begins: readonly BeginRule[];
  /** Of all its rounds, s; Infinity without end. */
  readonly lasts: number;
}

/** When an animation runs: from `begin` on, s; every `period` anew, where it does. */
export interface Runs {
  readonly begin: number;
  readonly period: number | null;
  /** Does it begin again in no regular way? Then only its first time is known. */
  readonly irregular: boolean;
}

/** So many times an animation is followed, and so far, s. */
const MOST_TIMES = 4;
const FURTHEST = 600;
const MOST_EVENTS = 20_000;

/**
 * A list of begin values (SVG Animations 2, 2.4: offset and syncbase values): `0s; other.end+0.5s`. Events of people, and what cannot be read, are left out.
 */
export function readBegins(text: string | undefined, seconds: (text: string) => number | null): BeginRule[] {
  if (text === undefined) return [{ at: 0 }];
  return text.split(';').flatMap((part): BeginRule[] => {
    const own = part.trim();
    const found = /^([\w:.-]+?)\.(begin|end)\s*(?:([+-])\s*(.+))?$/.exec(own);
    if (found) {
      const [, of, edge, sign, offset] = found;
      const after = offset === undefined ? 0 : seconds(offset);
      return after === null ? [] : [{ of, edge: edge as 'begin' | 'end', after: sign === '-' ? -after : after }];
    }
    const at = seconds(own);
    return at === null ? [] : [{ at }];
  });
}

/** When animations run that begin with each other, in their order; null for one that never begins by itself. */
export function runsOfAnimations(animations: readonly TimedAnimation[]): (Runs | null)[] {
  const begins = animations.map((): number[] => []);
  /** What is still to begin, the next one last. */
  const waiting: { time: number; index: number }[] = [];
  const dependents = new Map<string, { index: number; edge: 'begin' | 'end'; after: number }[]>();
  animations.forEach(({ begins: rules }, index) => {
    const times: number[] = [];
    for (const rule of rules) {
      if ('at' in rule) times.push(rule.at);
      else {
        const known = dependents.get(rule.of);
        if (known) known.push({ index, ...rule });
        else dependents.set(rule.of, [{ index, ...rule }]);
      }
    }
    // No more of them are followed than tell whether they come regularly.
    for (const time of [...new Set(times)].sort((p, q) => p - q).slice(0, 2 * MOST_TIMES))
      waiting.push({ time, index });
  });
  waiting.sort((p, q) => q.time - p.time);
  const wait = (time: number, index: number): void => {
    let [low, high] = [0, waiting.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (waiting[middle].time > time) low = middle + 1;
      else high = middle;
    }
    waiting.splice(low, 0, { time, index });
  };
  for (let k = 0; k < MOST_EVENTS; k++) {
    const next = waiting.pop();
    if (!next) break;
    const { time, index } = next;
    const own = begins[index];
    if (own.length >= MOST_TIMES || time > FURTHEST || own.some((known) => Math.abs(known - time) < SAME_TIME_S))
      continue;
    own.push(time);
    const { id, lasts } = animations[index];
    for (const { index: other, edge, after } of id === undefined ? [] : (dependents.get(id) ?? [])) {
      const at = (edge === 'begin' ? time : time + lasts) + after;
      if (Number.isFinite(at)) wait(at, other);
    }
  }
  return begins.map((times) => {
    const sorted = [...times].sort((p, q) => p - q);
    if (sorted.length === 0) return null;
    const [begin, second] = sorted;
    if (second === undefined) return { begin, period: null, irregular: false };
    const period = second - begin;
    const regular =
      sorted.length === MOST_TIMES && sorted.every((time, i) => Math.abs(time - begin - i * period) < 1e-3);
    return { begin, period: regular ? period : null, irregular: !regular };
  });
}
