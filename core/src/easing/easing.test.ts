import { describe, expect, test } from '@jest/globals';
import { seededRandom } from '../num';
import { progressRange } from './eased-keys';
import { type Easing, ease, easeSlope, easingSegments } from './easing';
import { EASING_PRESETS } from './presets';

const curve = (x1: number, y1: number, x2: number, y2: number): Easing => ({ kind: 'cubic-bezier', x1, y1, x2, y2 });

/** CSS Easing 1, section 2.3, by its definition: the t with x(t) = time found by plain bisection, then y(t). */
function byDefinition([x1, y1, x2, y2]: readonly number[], time: number): number {
  const at = (a: number, b: number, t: number): number => 3 * (1 - t) ** 2 * t * a + 3 * (1 - t) * t ** 2 * b + t ** 3;
  let low = 0;
  let high = 1;
  for (let i = 0; i < 100; i++) {
    const middle = (low + high) / 2;
    if (at(x1, x2, middle) < time) low = middle;
    else high = middle;
  }
  return at(y1, y2, low);
}

describe('cubic-bezier easing', () => {
  test('agrees with the definition solved by bisection, to 1e-7, on 400 random curves; 1e-5 on the extreme ones, where x stands still', () => {
    const random = seededRandom(21);
    const curves = Array.from({ length: 400 }, () => [random(), random() * 4 - 1.5, random(), random() * 4 - 1.5]);
    curves.push([0, 1, 0, 1], [1, 0, 1, 0], [0, 0, 1, 1], [1, 0, 0, 1], [0, 1, 1, 0], [0.25, 0.1, 0.25, 1]);
    for (const [i, c] of curves.entries()) {
      for (const time of [0.001, 0.1, 0.31, 0.5, 0.77, 0.95, 0.999]) {
        expect(Math.abs(ease(curve(c[0], c[1], c[2], c[3]), time) - byDefinition(c, time))).toBeLessThan(
          i < 400 ? 1e-7 : 1e-5,
        );
      }
    }
  });

  test('ends are exact and times outside are clamped', () => {
    for (const { easing } of EASING_PRESETS) {
      expect([ease(easing, 0), ease(easing, 1), ease(easing, -3), ease(easing, 7), ease(easing, Number.NaN)]).toEqual([
        0, 1, 0, 1, 0,
      ]);
    }
  });

  test('linear by handles on the diagonal is linear', () => {
    expect(ease(curve(0.2, 0.2, 0.9, 0.9), 0.333)).toBe(0.333);
  });

  test('which presets leave 0..1', () => {
    const outside = EASING_PRESETS.filter(({ easing }) => progressRange(easingSegments(easing)).join() !== '0,1');
    expect(outside.map(({ id }) => id)).toEqual(['wind-up', 'overshoot', 'spring']);
  });
});

describe('every kind', () => {
  const kinds: readonly Easing[] = [
    { kind: 'linear' },
    curve(0.42, 0, 0.58, 1),
    curve(0.3, 0.1, 0.25, 1.35),
    curve(0.2, 0.2, 0.9, 0.9),
  ];

  test('has a slope that is the change of its value', () => {
    for (const easing of kinds)
      for (const t of [0.1, 0.35, 0.5, 0.8]) {
        const change = (ease(easing, t + 1e-5) - ease(easing, t - 1e-5)) / 2e-5;
        expect(easeSlope(easing, t)).toBeCloseTo(change, 3);
      }
    expect(ease({ kind: 'linear' }, 0.37)).toBe(0.37);
    // Half of the handles on the diagonal is not enough to be straight.
    expect(ease(curve(0.2, 0.2, 0.9, 0.1), 0.5)).not.toBeCloseTo(0.5, 2);
    expect(ease(curve(0.2, 0.7, 0.9, 0.9), 0.5)).not.toBeCloseTo(0.5, 2);
  });

  test('is compiled to cubics that are its curve', () => {
    for (const easing of kinds) {
      const segments = easingSegments(easing);
      expect([segments[0], segments[1], segments[segments.length - 2], segments[segments.length - 1]]).toEqual([
        0, 0, 1, 1,
      ]);
      for (let t = 0.05; t < 1; t += 0.1) {
        const at = (k: 0 | 1): number =>
          (1 - t) ** 3 * segments[k] +
          3 * (1 - t) ** 2 * t * segments[2 + k] +
          3 * (1 - t) * t * t * segments[4 + k] +
          t ** 3 * segments[6 + k];
        expect(ease(easing, at(0))).toBeCloseTo(at(1), 9);
      }
    }
  });
});
