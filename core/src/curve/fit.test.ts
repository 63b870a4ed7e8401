import { describe, expect, test } from '@jest/globals';
import { seededRandom } from '../num';
import { cubicPoint, cubicTangent } from './cubic';
import { fitCubic } from './fit';
import { nearestOnCubic } from './nearest';

const samples = (p: Float64Array, n = 40): number[] => {
  const out = new Float64Array(2);
  return Array.from({ length: n + 1 }, (_, k) => [...cubicPoint(p, 0, k / n, out)]).flat();
};
const tangent = (p: Float64Array, t: number): [number, number] => {
  const v = cubicTangent(p, 0, t, new Float64Array(2));
  return [v[0], v[1]];
};

describe('fitting one cubic to points', () => {
  test('samples of a cubic give a curve that passes within a hundredth of it', () => {
    const random = seededRandom(12);
    for (let n = 0; n < 30; n++) {
      // Curves without loops: handles ahead of their anchors.
      const p = Float64Array.of(
        0,
        0,
        20 + 20 * random(),
        30 * random(),
        60 + 20 * random(),
        30 * random(),
        100,
        10 * random(),
      );
      const { deviation, points } = fitCubic(samples(p), tangent(p, 0), tangent(p, 1));
      expect(deviation).toBeLessThan(1);
      expect([...points.subarray(0, 2), ...points.subarray(6)]).toEqual([p[0], p[1], p[6], p[7]]);
    }
  });

  test('with the parameters known it is the cubic itself', () => {
    const p = Float64Array.of(0, 0, 10, 40, 80, -30, 100, 20);
    const guess = Float64Array.from({ length: 41 }, (_, k) => k / 40);
    const { deviation, points } = fitCubic(samples(p), tangent(p, 0), tangent(p, 1), guess);
    expect(deviation).toBeLessThan(1e-9);
    points.forEach((v, i) => expect(v).toBeCloseTo(p[i], 6));
  });

  test('tangents are kept; handles never point backwards', () => {
    const noisy = Array.from({ length: 20 }, (_, k) => [k * 5, 20 * Math.sin(k)]).flat();
    const { points } = fitCubic(noisy, [1, 0], [1, 0]);
    expect([points[3], points[5] - points[7]]).toEqual([0, 0]);
    expect(points[2]).toBeGreaterThanOrEqual(points[0]);
    expect(points[4]).toBeLessThanOrEqual(points[6]);
  });

  test('two points, one point, and ends without direction are no trouble', () => {
    expect(fitCubic([0, 0, 9, 0], [1, 0], [1, 0]).deviation).toBeCloseTo(0, 9);
    expect(fitCubic([3, 3, 3, 3], [0, 0], [0, 0]).points.every(Number.isFinite)).toBe(true);
    expect(fitCubic([0, 0, 5, 5, 10, 0], [0, 0], [0, 0]).points.every(Number.isFinite)).toBe(true);
  });
});

describe('the nearest place of a cubic', () => {
  test('agrees with trying ten thousand places, also where the curve comes near twice', () => {
    const random = seededRandom(5);
    const out = new Float64Array(2);
    for (let n = 0; n < 40; n++) {
      const p = Float64Array.from({ length: 8 }, () => random() * 100);
      const [x, y] = [random() * 100, random() * 100];
      let least = Infinity;
      for (let k = 0; k <= 10_000; k++) {
        cubicPoint(p, 0, k / 10_000, out);
        least = Math.min(least, Math.hypot(out[0] - x, out[1] - y));
      }
      const found = nearestOnCubic(p, 0, x, y);
      expect(found.distance).toBeLessThanOrEqual(least + 1e-6);
      cubicPoint(p, 0, found.t, out);
      expect(Math.hypot(out[0] - x, out[1] - y)).toBeCloseTo(found.distance, 6);
    }
  });

  test('at the ends, and on a point', () => {
    const line = Float64Array.of(0, 0, 3, 0, 6, 0, 9, 0);
    expect(nearestOnCubic(line, 0, -5, 0)).toMatchObject({ t: 0, distance: 5 });
    expect(nearestOnCubic(line, 0, 12, 4)).toMatchObject({ t: 1, distance: 5 });
    expect(nearestOnCubic(new Float64Array(8), 0, 3, 4).distance).toBe(5);
  });
});
