import { describe, expect, test } from '@jest/globals';
import { seededRandom } from '../num';
import { beatAt, shareOfPeriod } from './beat';
import { noiseAt } from './drift';
import { FormulaLane } from './formula-lane';
import { blendAlong } from './path-blend';

describe('drift', () => {
  test('is the same each time, nought at whole numbers, within −1 and 1, and other for another seed', () => {
    const random = seededRandom(3);
    let reach = 0;
    for (let i = 0; i < 4000; i++) {
      const place = random() * 500 - 250;
      const value = noiseAt(place, 7);
      expect(noiseAt(place, 7)).toBe(value);
      reach = Math.max(reach, Math.abs(value));
    }
    expect(reach).toBeLessThanOrEqual(1);
    expect(reach).toBeGreaterThan(0.5);
    expect([-3, 0, 8].map((n) => noiseAt(n, 7) === 0)).toEqual([true, true, true]);
    expect(noiseAt(0.5, 7)).not.toBe(noiseAt(0.5, 8));
  });
  test('is smooth: neither value nor slope jumps, at whole numbers least of all', () => {
    const h = 1e-4;
    for (let n = -20; n < 20; n++) {
      expect(Math.abs(noiseAt(n + h, 1) - noiseAt(n - h, 1))).toBeLessThan(5 * h);
      const [before, after] = [noiseAt(n, 1) - noiseAt(n - h, 1), noiseAt(n + h, 1) - noiseAt(n, 1)];
      expect(Math.abs(after - before) / h).toBeLessThan(0.01);
    }
  });
  test('comes again after a round, so that a loop closes', () => {
    for (const place of [0.2, 1.7, 3.9]) expect(noiseAt(place + 5, 2, 5)).toBeCloseTo(noiseAt(place, 2, 5), 12);
    expect(noiseAt(4.8, 2, 5)).not.toBeCloseTo(noiseAt(9.8, 2), 3);
  });
});

describe('pulse', () => {
  test('a period runs from its beginning on; the last that begins before the end is finished', () => {
    const share = (t: number): number => +shareOfPeriod(t, 0.5, 1, 1.9).toFixed(6);
    expect([0.99, 1, 1.25, 1.5, 1.75, 1.99, 2].map(share)).toEqual([-1, 0, 0.5, 0, 0.5, 0.98, -1]);
    // Sums of frames are no exact multiples: 45 frames of 1/30 s are three periods of half a second.
    const third = Array.from({ length: 45 }, () => 1 / 30).reduce((sum, v) => sum + v, 0);
    expect(shareOfPeriod(third, 0.5, 0, null)).toBeLessThan(1e-6);
  });
  test('shapes: out and back evenly, out evenly and back at once, one beat and rest, out for half of it', () => {
    const at = (shape: Parameters<typeof beatAt>[0]) =>
      [0, 0.15, 0.25, 0.5, 0.75, 0.999].map((share) => +beatAt(shape, share).toFixed(3));
    expect(at('sine')).toEqual([0, 0.206, 0.5, 1, 0.5, 0]);
    expect(at('saw')).toEqual([0, 0.15, 0.25, 0.5, 0.75, 0.999]);
    expect(at('beat')).toEqual([0, 1, 0.874, 0.126, 0, 0]);
    expect(at('square')).toEqual([1, 1, 1, 0, 0, 0]);
  });
});

describe('a way along a cubic', () => {
  /** Wanted is 0.005; what Newton's method leaves is less. */
  const SPEED = 0.0012;
  const place = (blend: ReturnType<typeof blendAlong>, progress: number): [number, number] => {
    const out = new Float64Array(2);
    blend.write(progress, out, 0);
    return [out[0], out[1]];
  };
  test('runs at constant speed: equal progress is equal length, to 0.5 %, cusps and handles of nothing included', () => {
    const random = seededRandom(11);
    const point = (): [number, number] => [random() * 200 - 100, random() * 200 - 100];
    for (let i = 0; i < 40; i++) {
      const blend = blendAlong(point(), i % 7 === 0 ? [0, 0] : point(), i % 5 === 0 ? [0, 0] : point(), point());
      // Each step as many short chords: their lengths are those of the curve.
      const steps = Array.from({ length: 20 }, (_, k) => {
        let length = 0;
        let before = place(blend, k / 20);
        for (let j = 1; j <= 500; j++) {
          const at = place(blend, (k + j / 500) / 20);
          length += Math.hypot(at[0] - before[0], at[1] - before[1]);
          before = at;
        }
        return length;
      });
      const mean = steps.reduce((sum, v) => sum + v, 0) / 20;
      for (const step of steps) expect(Math.abs(step / mean - 1)).toBeLessThan(SPEED);
    }
  });
  test('reaches its ends exactly and goes straight on beyond them, in its direction', () => {
    const blend = blendAlong([10, 20], [0, -30], [-40, 0], [100, 80]);
    expect(place(blend, 0)).toEqual([10, 20]);
    expect(place(blend, 1)).toEqual([100, 80]);
    const [x, y] = place(blend, 1.1);
    expect([x > 100, y]).toEqual([true, expect.closeTo(80, 9)]);
    expect(blend.angle(0)).toBeCloseTo(-Math.PI / 2, 9);
    expect(blend.angle(1)).toBeCloseTo(0, 9);
  });
  test('its direction never jumps by a whole turn, round a loop either', () => {
    const blend = blendAlong([0, 0], [150, 60], [-150, 60], [10, 0]);
    let before = blend.angle(0);
    for (let k = 1; k <= 500; k++) {
      const angle = blend.angle(k / 500);
      expect(Math.abs(angle - before)).toBeLessThan(0.6);
      before = angle;
    }
  });
});

describe('a lane that is a formula', () => {
  test('is sampled at its time, and as ramps gives the same within each of them, up to a jump but not beyond it', () => {
    const lane = new FormulaLane(1, [0, 1, 2], (seconds, out, at) => {
      out[at] = seconds < 1 ? seconds : 10;
    });
    const out = new Float64Array(1);
    lane.sample(0.5, out);
    expect(out[0]).toBe(0.5);
    const [first, second] = lane.ramps;
    first.blend.write(1, out, 0);
    expect(out[0]).toBeCloseTo(1, 5);
    second.blend.write(0, out, 0);
    expect([out[0], first.blend.still, second.blend.still]).toEqual([10, false, true]);
  });
});
