import { describe, expect, test } from '@jest/globals';
import { type Easing, ease } from '../easing';
import { blendChoice, blendColours, blendNumbers, PROPERTIES, RampTime } from '../lane';
import { type Rgba, readColour } from '../paint';
import { type RampKeys, rampKeys } from './ramp-keys';

const GLIDE: Easing = { kind: 'cubic-bezier', x1: 0.5, y1: 0, x2: 0.15, y2: 1 };
const BACK: Easing = { kind: 'cubic-bezier', x1: 0.35, y1: -0.5, x2: 0.4, y2: 1.6 };
const HELD = { beyond: 'held', least: -Infinity } as const;
const read = (css: string): Rgba => readColour(css) as Rgba;

/** The value of keys at a share of the ramp: straight from key to key, by their splines, or standing from key to key. */
function played({ times, values, splines }: RampKeys, share: number): number[] {
  let k = 0;
  while (k + 1 < times.length && times[k + 1] <= share) k++;
  if (splines.length === 0 || k === times.length - 1) return [...values[k]];
  const [x1, y1, x2, y2] = splines[k + 1];
  const way = ease({ kind: 'cubic-bezier', x1, y1, x2, y2 }, (share - times[k]) / (times[k + 1] - times[k]));
  return [...values[k]].map((v, i) => v + (values[k + 1][i] - v) * way);
}

describe('the keys of a ramp', () => {
  test.each([
    ['gliding', GLIDE],
    ['going too far both ways', BACK],
    ['even', { kind: 'linear' } as const],
  ])(
    'colours, numbers and numbers that go on: %s, they are the value within its error all the way',
    (_name, easing) => {
      const time = new RampTime(2, 3.5, easing);
      const cases = [
        [PROPERTIES.fill, blendColours(read('#ff2000'), read('#0040ff'), 'oklab')],
        [PROPERTIES.dashOffset, blendNumbers([3], [90], HELD)],
        [PROPERTIES.strokeWidth, blendNumbers([12], [1], { beyond: 'on', least: 0 })],
      ] as const;
      for (const [property, blend] of cases) {
        const keys = rampKeys({ time, blend }, property, 60);
        const wanted = new Float64Array(blend.size);
        for (let k = 0; k <= 200; k++) {
          blend.write(time.progressAt(2 + (1.5 * k) / 200), wanted, 0);
          played(keys, k / 200).forEach((v, i) =>
            expect(Math.abs(v - wanted[i])).toBeLessThanOrEqual(1.2 * property.error),
          );
        }
      }
    },
  );

  test('a choice changes where the eased progress passes the middle, each time it does', () => {
    const once = rampKeys({ time: new RampTime(0, 1, GLIDE), blend: blendChoice(0, 2) }, PROPERTIES.join, 60);
    expect(once.values.map(([v]) => v)).toEqual([0, 2]);
    expect(ease(GLIDE, once.times[1])).toBeCloseTo(0.5, 6);
    expect(once.splines).toEqual([]);
  });

  test('what stands still has one key, a cut two', () => {
    const still = rampKeys(
      { time: new RampTime(0, 1, GLIDE), blend: blendNumbers([4], [4], HELD) },
      PROPERTIES.miter,
      60,
    );
    expect([still.times, still.values.map(([v]) => v)]).toEqual([[0], [4]]);
    const cut = rampKeys(
      { time: new RampTime(1, 1, GLIDE), blend: blendNumbers([4], [8], HELD) },
      PROPERTIES.miter,
      60,
    );
    expect([cut.times, cut.values.map(([v]) => v)]).toEqual([
      [0, 1],
      [4, 8],
    ]);
  });

  test('there are never more keys than frames; then each frame has its own value', () => {
    const blend = blendColours(read('#ff2000'), read('#0040ff'), 'oklab');
    const time = new RampTime(0, 0.1, BACK);
    const keys = rampKeys({ time, blend }, PROPERTIES.fill, 60);
    expect(keys.times).toHaveLength(7);
    keys.times.forEach((time, k) => expect(time).toBeCloseTo(k / 6, 9));
    const wanted = new Float64Array(4);
    keys.times.forEach((share, k) => {
      blend.write(time.progressAt(0.1 * share), wanted, 0);
      expect([...keys.values[k]]).toEqual([...wanted]);
    });
  });

  test('where an outline has a key at each frame, it is within its error between them too', () => {
    // A point that runs round a circle four times in a tenth of a second.
    const blend = {
      size: 2,
      breaks: [],
      jumps: false,
      still: false,
      write(progress: number, out: Float64Array, at: number) {
        out[at] = 50 * Math.cos(8 * Math.PI * progress);
        out[at + 1] = 50 * Math.sin(8 * Math.PI * progress);
      },
    };
    const time = new RampTime(0, 0.4, { kind: 'linear' });
    const keys = rampKeys({ time, blend }, PROPERTIES.outline, 60);
    expect(keys.times.length).toBeGreaterThan(25);
    const wanted = new Float64Array(2);
    for (let k = 0; k <= 1000; k++) {
      blend.write(k / 1000, wanted, 0);
      const [x, y] = played(keys, k / 1000);
      expect(Math.hypot(x - wanted[0], y - wanted[1])).toBeLessThan(0.12);
    }
  });
});
