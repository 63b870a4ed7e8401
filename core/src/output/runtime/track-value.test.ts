import { describe, expect, test } from '@jest/globals';
import { ease } from '../../easing';
import { seededRandom } from '../../num';
import { playSmil } from '../../testing/play-smil';
import { readyTrack, splineValue, type TimedTexts, trackValue } from './track-value';

const track = (fields: Partial<TimedTexts>): TimedTexts => ({
  begin: 0,
  duration: 2,
  repeats: false,
  jumps: false,
  times: [0, 1],
  values: ['0', '10'],
  splines: [],
  ...fields,
});
const numbers = (text: string | undefined): number[] => (text?.match(/-?(?:\d+\.?\d*|\.\d+)/g) ?? []).map(Number);

describe('values of a file over time', () => {
  test('are what SMIL plays, at 100 moments of 30 seeded tracks', () => {
    const random = seededRandom(5);
    for (let n = 0; n < 30; n++) {
      const count = 2 + Math.floor(random() * 4);
      const times = Array.from({ length: count }, (_, k) => (k === 0 ? 0 : k === count - 1 ? 1 : random())).sort(
        (p, q) => p - q,
      );
      const values = times.map(
        () =>
          `M${(random() * 90).toFixed(2)} ${(random() * -90).toFixed(2)}l${(random() * 9).toFixed(1)}-${(random() * 9).toFixed(1)}`,
      );
      const splines = times
        .slice(1)
        .map(() => [random(), random(), random(), random()].map((v) => Number(v.toFixed(3))));
      const fields = { begin: n % 3 === 0 ? -0.7 : 0, repeats: n % 2 === 0, times, values, splines, duration: 1.6 };
      const tag = `<animate values="${values.join(';')}" keyTimes="${times.join(';')}" keySplines="${splines.map((s) => s.join(' ')).join(';')}" begin="${fields.begin}s" dur="1.6s"${fields.repeats ? ' repeatCount="indefinite"' : ''}/>`;
      const ready = readyTrack(track(fields));
      for (let k = 0; k < 100; k++) {
        const seconds = (k * 3.1) / 100;
        const [mine, other] = [numbers(trackValue(ready, seconds)), numbers(playSmil(tag, seconds))];
        expect(mine).toHaveLength(4);
        mine.forEach((v, i) => expect(Math.abs(v - other[i])).toBeLessThan(1e-3));
      }
    }
  });

  test('before it begins there is none; after its end the last stands; what jumps stands from key to key', () => {
    expect(trackValue(readyTrack(track({ begin: 1 })), 0.5)).toBeUndefined();
    expect(trackValue(readyTrack(track({})), 9)).toBe('10');
    const steps = readyTrack(track({ jumps: true, times: [0, 0.5], values: ['none', 'inline'] }));
    expect([0, 0.9, 1, 5].map((t) => trackValue(steps, t))).toEqual(['none', 'none', 'inline', 'inline']);
  });

  test('colours are mixed as red, green and blue, short ones too', () => {
    const ready = readyTrack(track({ values: ['#f00', '#000080'] }));
    expect(trackValue(ready, 1)).toBe('rgb(128,0,64)');
  });

  test('numbers of path data that touch stay apart when a sign goes', () => {
    expect(trackValue(readyTrack(track({ values: ['M5-5', 'M5-15'] })), 1)).toBe('M5-10');
    expect(trackValue(readyTrack(track({ values: ['l.5.5', 'l1.5 1.5'] })), 1)).toBe('l1 1');
  });

  test('a curve is that of the easing of the same handles', () => {
    for (const [x1, y1, x2, y2] of [
      [0.42, 0, 0.58, 1],
      [0, 0.9, 0.1, 1],
      [1, 0, 0, 1],
      [0.3, -0.5, 0.4, 1.6],
    ])
      for (let x = 0; x <= 1; x += 0.05)
        expect(splineValue([x1, y1, x2, y2], x)).toBeCloseTo(ease({ kind: 'cubic-bezier', x1, y1, x2, y2 }, x), 5);
  });
});
