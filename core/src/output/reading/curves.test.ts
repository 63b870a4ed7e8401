import { describe, expect, test } from '@jest/globals';
import { ease, type KeySpline } from '../../easing';
import type { Track } from '../tree/drawn-element';
import { curveBetween, keyTimes, mergedTimes, partOfSpline } from './curves';

const TRACK: Track = {
  attribute: 'r',
  begin: 0.5,
  duration: 2,
  repeats: true,
  jumps: false,
  times: [0, 0.25, 1],
  values: ['0', '1', '2'],
  splines: [
    [0.4, 0, 0.6, 1],
    [0.2, 0, 0, 1],
  ],
};
const at = ([x1, y1, x2, y2]: KeySpline, time: number): number => ease({ kind: 'cubic-bezier', x1, y1, x2, y2 }, time);

describe('curves of tracks', () => {
  test('a part of a spline runs as the whole does there', () => {
    const whole: KeySpline = [0.3, -0.2, 0.4, 1.3];
    const part = partOfSpline(whole, 0.2, 0.7) as KeySpline;
    const [from, until] = [at(whole, 0.2), at(whole, 0.7)];
    for (const share of [0.1, 0.35, 0.5, 0.8])
      expect(from + (until - from) * at(part, share)).toBeCloseTo(at(whole, 0.2 + 0.5 * share), 6);
    expect(partOfSpline(whole, 0, 1)).toEqual(whole);
  });

  test('a part that comes back to where it began has none', () => {
    // Symmetric about its middle: up and back again.
    expect(partOfSpline([0.5, 2, 0.5, -1], 0.5, 0.5)).toBeUndefined();
  });

  test('keys of each round, also of those that began before; active runs end where they do', () => {
    expect(mergedTimes(keyTimes(TRACK, 0, 5))).toEqual([0.5, 1, 2.5, 3, 4.5, 5]);
    expect(mergedTimes(keyTimes({ ...TRACK, begin: -1.5 }, 0, 2))).toEqual([0.5, 1]);
    expect(mergedTimes(keyTimes({ ...TRACK, active: 1.5 }, 0, 2.5))).toEqual([0.5, 1, 2, 2.5]);
    expect(mergedTimes(keyTimes({ ...TRACK, repeats: false }, 0, 9))).toEqual([0.5, 1, 2.5]);
  });

  test('between two times the curve of the key between which they lie, in any round', () => {
    expect(curveBetween(TRACK, 0.5, 1)).toEqual([0.4, 0, 0.6, 1]);
    expect(curveBetween(TRACK, 3, 4.5)).toEqual([0.2, 0, 0, 1]);
    const half = curveBetween(TRACK, 2.5, 2.75) as KeySpline;
    expect(0.5 * at(half, 0.5)).toBeCloseTo(at([0.4, 0, 0.6, 1], 0.25), 6);
    expect(curveBetween({ ...TRACK, splines: [] }, 0.5, 1)).toBeUndefined();
    expect(curveBetween(TRACK, 0, 0.4)).toBeUndefined();
  });
});
