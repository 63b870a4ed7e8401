import { describe, expect, test } from '@jest/globals';
import { seededRandom } from '../num';
import { easedKeys, progressRange } from './eased-keys';
import { type Easing, ease, easingSegments } from './easing';
import { fitSegments } from './fit-segments';

const curve = (x1: number, y1: number, x2: number, y2: number): Easing => ({ kind: 'cubic-bezier', x1, y1, x2, y2 });

/** Progress at a time of keys with splines, played as SMIL says: each spline is the timing function of CSS between its two keys. */
function played(keys: ReturnType<typeof easedKeys>, time: number): number {
  const k = Math.max(
    1,
    keys.findIndex((key) => key.time >= time),
  );
  const [p, q] = [keys[k - 1], keys[k]];
  const [x1, y1, x2, y2] = q.spline;
  return p.progress + (q.progress - p.progress) * ease(curve(x1, y1, x2, y2), (time - p.time) / (q.time - p.time));
}

describe('an easing split where progress passes cuts', () => {
  test('plays as the easing itself, to 1e-7, on 150 random curves, overshooting ones included, with splines inside the unit square', () => {
    const random = seededRandom(5);
    for (let i = 0; i < 150; i++) {
      const easing = curve(random(), random() * 3 - 1, random(), random() * 3 - 1);
      const cuts = Array.from({ length: Math.floor(random() * 6) }, () => random() * 1.4 - 0.2).sort((p, q) => p - q);
      const keys = easedKeys(easingSegments(easing), cuts);
      expect([keys[0].time, keys[keys.length - 1].time]).toEqual([0, 1]);
      for (const { spline } of keys) for (const v of spline) expect(v >= 0 && v <= 1).toBe(true);
      for (let t = 0.013; t < 1; t += 0.037) expect(Math.abs(played(keys, t) - ease(easing, t))).toBeLessThan(1e-7);
    }
  });

  test('there is a key wherever a cut is passed, on the way out and on the way back', () => {
    const back = curve(0.3, 0.1, 0.25, 1.6);
    const [, high] = progressRange(easingSegments(back));
    expect(high).toBeGreaterThan(1.02);
    const passed = easedKeys(easingSegments(back), [0.5, 1.01]).filter(
      ({ progress }) => Math.abs(progress - 1.01) < 1e-9,
    );
    expect(passed).toHaveLength(2);
    for (const { time } of passed) expect(ease(back, time)).toBeCloseTo(1.01, 7);
    expect(easedKeys(easingSegments({ kind: 'linear' }), [0.25, 0.5]).map(({ time }) => +time.toFixed(12))).toEqual([
      0, 0.25, 0.5, 1,
    ]);
  });

  test('a spring without cubics of its own is fitted within its error by few', () => {
    // A damped oscillation: the textbook solution of x″ + 2ζω x′ + ω² x = ω² (common practice).
    const [damping, omega] = [6, 14];
    const wave = (t: number): number => 1 - Math.exp(-damping * t) * Math.cos(omega * t);
    const slope = (t: number): number =>
      Math.exp(-damping * t) * (damping * Math.cos(omega * t) + omega * Math.sin(omega * t));
    const segments = Float64Array.from(fitSegments(wave, slope, 1e-3));
    expect((segments.length / 2 - 1) / 3).toBeLessThanOrEqual(16);
    const keys = easedKeys(segments, []);
    for (let t = 0.02; t < 0.98; t += 0.013) expect(Math.abs(played(keys, t) - wave(t))).toBeLessThan(1.5e-3);
  });

  test('a level stretch has a straight spline, a jump a key on either side of it', () => {
    const level = Float64Array.from([0, 0.5, 0.3, 0.5, 0.7, 0.5, 1, 0.5]);
    expect(easedKeys(level, [0.2]).map(({ time, progress, spline }) => [time, progress, ...spline])).toEqual([
      [0, 0.5, 1 / 3, 1 / 3, 2 / 3, 2 / 3],
      [1, 0.5, expect.closeTo(0.3, 9), 1 / 3, expect.closeTo(0.7, 9), 2 / 3],
    ]);
    const jump = Float64Array.from([0, 0, 0, 0, 0.5, 0, 0.5, 0, 0.5, 0, 0.5, 1, 0.5, 1, 0.5, 1, 1, 1, 1, 1]);
    expect(easedKeys(jump, []).map(({ time, progress }) => [time, progress])).toEqual([
      [0, 0],
      [0.5, 0],
      [0.5, 1],
      [1, 1],
    ]);
  });

  test('no key stands where nothing is cut: an easing within 0..1 has two, one that overshoots one more', () => {
    expect(easedKeys(easingSegments(curve(0.5, 0, 0.15, 1)), [])).toHaveLength(2);
    expect(easedKeys(easingSegments(curve(0.3, 0.1, 0.25, 1.35)), [])).toHaveLength(3);
    // Cuts at the very ends, and outside, are none.
    expect(easedKeys(easingSegments(curve(0.5, 0, 0.15, 1)), [-1, 0, 1, 3])).toHaveLength(2);
  });

  test('a curve that cannot be fitted is cut no more than a thousand times', () => {
    const jagged = (t: number): number => Math.abs((Math.sin(t * 129_898) * 43_758.5453) % 1);
    const segments = fitSegments(jagged, () => 0, 1e-6);
    expect((segments.length / 2 - 1) / 3).toBe(1024);
    expect([...segments.slice(0, 2), ...segments.slice(-2)]).toEqual([0, 0, 1, 1]);
  });
});
