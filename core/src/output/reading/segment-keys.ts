import type { Easing } from '../../easing';
import { SAME_TIME_S, toMillionths } from '../../num';
import { isSame, type Sample } from './sample';
import type { Segment } from './segment';

/** A value of a lane at a time, s, and how it goes on from there. */
export interface TimedValue {
  readonly time: number;
  readonly value: readonly number[];
  readonly easing: Easing;
}
interface WritableKey extends TimedValue {
  easing: Easing;
}

/** Without what computing left behind. */

/** The keys of a lane whose value runs in segments: level where it stands, two at one time where it jumps. */
export function keysOfSegments(segments: readonly Segment<Sample>[]): TimedValue[] {
  const keys: WritableKey[] = [];
  const add = (time: number, sample: Sample, easing: Easing): void =>
    void keys.push({ time, value: [...sample.numbers, ...sample.colours].map(toMillionths), easing });
  let before: Sample | undefined;
  for (const { from, until, first, last, still, easing } of segments) {
    const jumps = before !== undefined && !isSame(before, first);
    if (jumps && keys[keys.length - 1].time < from) keys[keys.length - 1].easing = { kind: 'hold', until: 'end' };
    const there = keys[keys.length - 1];
    const known = there !== undefined && !jumps && Math.abs(there.time - from) < SAME_TIME_S;
    if (!known && (jumps || there === undefined || !still)) add(from, first, { kind: 'linear' });
    if (!still) {
      keys[keys.length - 1].easing = easing;
      add(until, last, { kind: 'linear' });
    }
    before = last;
  }
  return keys;
}
