import { describe, expect, test } from '@jest/globals';
import { PLAN_GRID_PX, seededRandom } from '../num';
import { onGrid, splineKeys } from './spline-keys';

/** Value, slope and second derivative of number `i` of keys at a time, by Hermite's basis. */
function at(keys: ReturnType<typeof splineKeys>, n: number, i: number, time: number): [number, number, number] {
  const { times, values, slopes } = keys;
  let k = 0;
  while (k + 2 < times.length && time > times[k + 1]) k++;
  const h = times[k + 1] - times[k];
  const u = (time - times[k]) / h;
  const [p0, p1] = [values[k * n + i], values[(k + 1) * n + i]];
  const [m0, m1] = [h * slopes[k * n + i], h * slopes[(k + 1) * n + i]];
  const c2 = -3 * p0 + 3 * p1 - 2 * m0 - m1;
  const c3 = 2 * p0 - 2 * p1 + m0 + m1;
  return [
    p0 + m0 * u + c2 * u * u + c3 * u * u * u,
    (m0 + 2 * c2 * u + 3 * c3 * u * u) / h,
    (2 * c2 + 6 * c3 * u) / (h * h),
  ];
}

const EVEN = Array.from({ length: 9 }, (_, k) => k / 8);
const UNEVEN = [0, 0.1, 0.18, 0.4, 0.55, 0.81, 1];

describe('keys joined by cubics', () => {
  test('a cubic polynomial is reproduced, as splines with such ends do (de Boor, 2001, chapter IV)', () => {
    const f = (t: number): number => 40 - 110 * t + 260 * t * t - 170 * t * t * t;
    for (const times of [EVEN, UNEVEN]) {
      const keys = splineKeys(
        times,
        times.map((t) => Float64Array.of(f(t), 2 * f(t))),
      );
      for (let k = 0; k <= 50; k++) {
        expect(Math.abs(at(keys, 2, 0, k / 50)[0] - f(k / 50))).toBeLessThan(4 * PLAN_GRID_PX);
        expect(Math.abs(at(keys, 2, 1, k / 50)[0] - 2 * f(k / 50))).toBeLessThan(4 * PLAN_GRID_PX);
      }
    }
  });

  test('pass through their keys, with slope and second derivative continuous there', () => {
    const random = seededRandom(4);
    for (const times of [EVEN, UNEVEN]) {
      const frames = times.map(() => Float64Array.from({ length: 5 }, () => 200 * random()));
      const keys = splineKeys(times, frames);
      times.forEach((time, k) => {
        for (let i = 0; i < 5; i++) expect(keys.values[5 * k + i]).toBe(onGrid(frames[k][i]));
        if (k === 0 || k === times.length - 1) return;
        for (let i = 0; i < 5; i++) {
          const [, slopeBefore, bendBefore] = at(keys, 5, i, time);
          const [, slopeAfter, bendAfter] = at(keys, 5, i, time + 1e-12);
          expect(slopeAfter).toBeCloseTo(slopeBefore, 4);
          // Slopes are rounded to the grid, which the second derivative sees many times enlarged.
          expect(Math.abs(bendAfter - bendBefore)).toBeLessThan((40 * PLAN_GRID_PX) / 0.08);
        }
      });
    }
  });

  test('come nearer to a smooth way by the fourth power when there are twice as many', () => {
    const f = (t: number): number => 100 * Math.sin(3 * t);
    const worst = (count: number): number => {
      const times = Array.from({ length: count + 1 }, (_, k) => k / count);
      const keys = splineKeys(
        times,
        times.map((t) => Float64Array.of(f(t))),
      );
      let most = 0;
      for (let k = 0; k <= 200; k++) most = Math.max(most, Math.abs(at(keys, 1, 0, k / 200)[0] - f(k / 200)));
      return most;
    };
    expect(worst(4) / worst(8)).toBeGreaterThan(8);
  });

  test('two keys are a straight way, three a parabola', () => {
    const two = splineKeys([0, 1], [Float64Array.of(10), Float64Array.of(30)]);
    expect(Array.from(two.slopes)).toEqual([20, 20]);
    const three = splineKeys([0, 0.5, 1], [Float64Array.of(0), Float64Array.of(1), Float64Array.of(4)]);
    expect(at(three, 1, 0, 0.25)[0]).toBeCloseTo(0.25, 3);
    expect(at(three, 1, 0, 0.75)[0]).toBeCloseTo(2.25, 3);
  });

  test('everything lies on the grid of plans', () => {
    const random = seededRandom(9);
    const { values, slopes } = splineKeys(
      UNEVEN,
      UNEVEN.map(() => Float64Array.from({ length: 6 }, () => 100 * random())),
    );
    for (const v of [...values, ...slopes]) expect(Number.isInteger(v / PLAN_GRID_PX)).toBe(true);
  });
});
