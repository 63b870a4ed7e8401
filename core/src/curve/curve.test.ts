import { describe, expect, test } from '@jest/globals';
import { Bezier } from 'bezier-js';
import { seededRandom } from '../num';
import { emptyBox } from '../vec';
import { cubicArea, cubicPoint, cubicStretch, cubicTangent, includeCubic, isStraight } from './cubic';
import { cubicLength, parameterAtLength } from './length';

const random = seededRandom(3);
const cubics = Array.from({ length: 100 }, () => Float64Array.from({ length: 8 }, () => random() * 100));
const reference = (p: Float64Array): Bezier => new Bezier([...p]);

describe('against bezier-js', () => {
  test('points and directions', () => {
    const out = new Float64Array(2);
    for (const p of cubics) {
      for (const t of [0, 0.1, 0.37, 0.5, 0.9, 1]) {
        const theirs = reference(p).get(t);
        cubicPoint(p, 0, t, out);
        expect(Math.hypot(out[0] - theirs.x, out[1] - theirs.y)).toBeLessThan(1e-9);
        const d = reference(p).derivative(t);
        const length = Math.hypot(d.x, d.y);
        cubicTangent(p, 0, t, out);
        expect(Math.hypot(out[0] - d.x / length, out[1] - d.y / length)).toBeLessThan(1e-9);
      }
    }
  });

  test('lengths to 0.5 % (theirs is one fixed rule, also at sharp bends), bounds to 1e-6', () => {
    for (const p of cubics) {
      const theirs = reference(p).length();
      expect(Math.abs(cubicLength(p, 0) - theirs) / theirs).toBeLessThan(5e-3);
      const box = includeCubic(emptyBox(), p, 0);
      const { x, y } = reference(p).bbox();
      for (const [ours, other] of [
        [box.minX, x.min],
        [box.maxX, x.max],
        [box.minY, y.min],
        [box.maxY, y.max],
      ])
        expect(Math.abs(ours - other)).toBeLessThan(1e-6);
    }
  });

  test('a stretch is the same curve', () => {
    const out = new Float64Array(8);
    const here = new Float64Array(2);
    for (const p of cubics) {
      cubicStretch(p, 0, 0.2, 0.7, out, 0);
      const theirs = reference(p)
        .split(0.2, 0.7)
        .points.flatMap(({ x, y }) => [x, y]);
      theirs.forEach((v, i) => expect(Math.abs(v - out[i])).toBeLessThan(1e-9));
      cubicPoint(out, 0, 0.5, here);
      const same = reference(p).get(0.45);
      expect(Math.hypot(here[0] - same.x, here[1] - same.y)).toBeLessThan(1e-9);
    }
  });
});

describe('known answers', () => {
  test('length against a chord sum of 200,000 segments', () => {
    const here = new Float64Array(2);
    for (const p of cubics.slice(0, 12)) {
      let sum = 0;
      let [x, y] = p;
      for (let i = 1; i <= 200_000; i++) {
        cubicPoint(p, 0, i / 200_000, here);
        sum += Math.hypot(here[0] - x, here[1] - y);
        [x, y] = here;
      }
      expect(Math.abs(cubicLength(p, 0) - sum) / sum).toBeLessThan(1e-6);
    }
  });

  test('a cusp and a doubled-back line have their full length', () => {
    expect(cubicLength(Float64Array.of(0, 0, 10, 0, -7, 0, 3, 0), 0)).toBeGreaterThan(3);
    // x(t) = 9t(1 − t)(1 − 2t)·… of handles 1 and −1 about 0: out to ±x and back; the extent by the roots of its derivative.
    const line = Float64Array.of(0, 0, 3, 0, -3, 0, 0, 0);
    const reach = 9 * ((3 - Math.sqrt(3)) / 6) * ((3 + Math.sqrt(3)) / 6) * (Math.sqrt(3) / 3);
    expect(cubicLength(line, 0)).toBeCloseTo(4 * reach, 6);
  });

  test('the parameter at a length is the inverse of the length', () => {
    for (const p of cubics) {
      const total = cubicLength(p, 0);
      for (const share of [0.001, 0.25, 0.5, 0.99]) {
        expect(cubicLength(p, 0, 0, parameterAtLength(p, 0, share * total, total)) / total).toBeCloseTo(share, 5);
      }
    }
  });

  test("area by Green's theorem against a fine polygon", () => {
    const here = new Float64Array(2);
    for (const p of cubics) {
      let sum = 0;
      let [x, y] = p;
      for (let i = 1; i <= 4000; i++) {
        cubicPoint(p, 0, i / 4000, here);
        sum += (x * here[1] - y * here[0]) / 2;
        [x, y] = here;
      }
      expect(Math.abs(cubicArea(p, 0) - sum)).toBeLessThan(2e-3);
    }
  });

  test('a point has no direction and no length; handles on the line make it straight', () => {
    const dot = new Float64Array(8).fill(4);
    expect([...cubicTangent(dot, 0, 0.5, new Float64Array(2))]).toEqual([0, 0]);
    expect(cubicLength(dot, 0)).toBe(0);
    expect(isStraight(dot, 0, 1e-9)).toBe(false);
    expect(isStraight(Float64Array.of(0, 0, 1, 1, 2, 2, 3, 3), 0, 1e-9)).toBe(true);
    expect(isStraight(Float64Array.of(0, 0, 1, 2, 2, 2, 3, 3), 0, 1e-9)).toBe(false);
  });

  test('directions where handles have length zero', () => {
    const p = Float64Array.of(0, 0, 0, 0, 5, 5, 5, 5);
    const out = new Float64Array(2);
    for (const t of [0, 1]) {
      cubicTangent(p, 0, t, out);
      expect(out[0]).toBeCloseTo(Math.SQRT1_2, 12);
      expect(out[1]).toBeCloseTo(Math.SQRT1_2, 12);
    }
  });
});
