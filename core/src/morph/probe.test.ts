import { describe, expect, test } from '@jest/globals';
import { seededRandom } from '../num';
import { type Contour, ellipseContour, polygonContour, reverseContour } from '../outline';
import { FillMeter } from './fill-area';
import type { ShiftPlan } from './plan';
import { assemble, planRun } from './planned-run';
import { InBetweenProbe } from './probe';
import { RunTravel } from './travel';

/** A plan that stands still on some contours. */
function still(contours: readonly Contour[], bridges: readonly number[] = []): ShiftPlan {
  return assemble(
    contours.map(({ points, closed }) =>
      planRun(
        {
          travel: new RunTravel(points, points, closed, 100),
          closed,
          role: 'pair',
          a: 0,
          b: 0,
          bridgesA: bridges,
          bridgesB: [],
          deviation: 0,
        },
        { method: 'straight', smoothing: 0 },
      ),
    ),
    'nonzero',
    100,
  );
}
function probeOf(contours: readonly Contour[], bridges?: readonly number[]): InBetweenProbe {
  const plan = still(contours, bridges);
  const probe = new InBetweenProbe(plan, 0.01);
  probe.take(plan.from);
  return probe;
}
const polygon = (...xy: number[]): Contour => polygonContour(xy);
const square = (x: number, y: number, size: number): Contour =>
  polygon(x, y, x + size, y, x + size, y + size, x, y + size);

/** Proper crossings of all edges, each with each; the signs are exact, for all numbers are small integers. */
function slowCrossings(xy: readonly number[]): number {
  const n = xy.length / 2;
  const p = (k: number): [number, number] => [xy[2 * (k % n)], xy[2 * (k % n) + 1]];
  const side = (a: [number, number], b: [number, number], c: [number, number]): boolean =>
    (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]) >= 0;
  let count = 0;
  for (let i = 0; i < n; i++)
    for (let j = i + 2; j < n; j++) {
      if (i === 0 && j === n - 1) continue;
      const [a, b, c, d] = [p(i), p(i + 1), p(j), p(j + 1)];
      if (side(a, b, c) !== side(a, b, d) && side(c, d, a) !== side(c, d, b)) count++;
    }
  return count;
}

describe('looking at an in-between', () => {
  test('lengths, areas and turning are those of the handbook: square and circle', () => {
    const box = probeOf([square(10, 10, 40)]);
    expect(box.length()).toBeCloseTo(160, 9);
    expect(box.signedArea()).toBeCloseTo(1600, 9);
    expect(box.turning(0.1)).toBeCloseTo(2 * Math.PI, 9);
    expect(box.turningAlong(0.7)).toBeCloseTo(2 * Math.PI, 1);
    const circle = probeOf([ellipseContour(50, 50, 30, 30)]);
    expect(circle.length() / (2 * Math.PI * 30)).toBeCloseTo(1, 3);
    expect(circle.signedArea() / (Math.PI * 900)).toBeCloseTo(1, 3);
    expect(circle.turning(0.1)).toBeCloseTo(2 * Math.PI, 6);
    expect(circle.turningAlong(0.7)).toBeCloseTo(2 * Math.PI, 1);
    expect(probeOf([reverseContour(square(0, 0, 10))]).signedArea()).toBeCloseTo(-100, 9);
  });

  test('turning between points along it sees tight hooks that edges of a least length pass over', () => {
    // A line that turns back within a tenth of a unit, and comes forth again.
    const hook = polygon(0, 0, 50, 0, 50.1, 0.1, 50, 0.2, 20, 0.2, 19.9, 0.3, 20, 0.4, 90, 0.4, 90, 40, 0, 40);
    const probe = probeOf([hook]);
    expect(probe.turningAlong(0.7) / Math.PI).toBeGreaterThan(3.5);
    expect(probe.turningAlong(0.7) / Math.PI).toBeLessThan(4.5);
  });

  test('crossings are those of the slow way, each edge with each', () => {
    const random = seededRandom(11);
    let crossed = 0;
    for (let round = 0; round < 60; round++) {
      const xy = Array.from({ length: 2 * (4 + (round % 12)) }, () => Math.round(100 * random()));
      const slow = slowCrossings(xy);
      crossed += slow;
      expect(probeOf([polygonContour(xy)]).countCrossings(0, 'between', Infinity).folds).toBe(slow);
    }
    expect(crossed).toBeGreaterThan(200);
  });

  test('so do thousands of edges, which are swept strip by strip: a tangle of long edges, steep, level and through common points', () => {
    const random = seededRandom(47);
    const xy = Array.from({ length: 2 * 1_600 }, (_, k) => {
      // Columns of steep edges, rows of level ones, and all over the place by turns.
      const turn = Math.floor(k / 200) % 3;
      const near = turn === (k % 2) + 1 ? 500 * (turn - 1) : 0;
      return near + Math.floor((near ? 4 : 1_000) * random());
    });
    const slow = slowCrossings(xy);
    expect(slow).toBeGreaterThan(100_000);
    expect(probeOf([polygonContour(xy)]).countCrossings(0, 'between', Infinity).folds).toBe(slow);
    // A little more than flat: all in few strips.
    const flat = xy.map((value, k) => (k % 2 ? value % 7 : value));
    expect(probeOf([polygonContour(flat)]).countCrossings(0, 'between', Infinity).folds).toBe(slowCrossings(flat));
  });

  test('a figure of eight folds once, in its middle, by half its length', () => {
    const probe = probeOf([polygon(0, 0, 40, 40, 40, 0, 0, 40)]);
    const [fold] = probe.listCrossings(0).folds;
    expect([fold.x, fold.y]).toEqual([20, 20]);
    expect(fold.loop).toBeCloseTo(probe.length() / 2, 6);
    expect(probe.countCrossings(probe.length() / 2 + 1).folds).toBe(0);
  });

  test('touching is no crossing; two squares over each other cross twice', () => {
    expect(probeOf([square(0, 0, 20), square(20, 0, 20)]).countCrossings(0)).toEqual({ folds: 0, between: 0 });
    expect(probeOf([square(0, 0, 20), square(10, 10, 20)]).countCrossings(0)).toEqual({ folds: 0, between: 2 });
  });

  test('bridges of an end are no edges of it', () => {
    const shape = polygon(0, 0, 40, 40, 40, 0, 0, 40);
    // The first segment is the slit: its crossing does not count at the first end, but does in between.
    const probe = probeOf([shape], [0]);
    expect(probe.countCrossings(0, 'first').folds).toBe(0);
    expect(probe.countCrossings(0, 'between').folds).toBe(1);
    expect(probe.length('first')).toBeCloseTo(probe.length() - Math.hypot(40, 40), 9);
  });

  test('how far it reaches beyond a box', () => {
    const probe = probeOf([square(-5, 10, 30)]);
    expect(probe.beyond(Float64Array.of(0, 0, 100, 100))).toBe(5);
    expect(probe.beyond(Float64Array.of(-10, 0, 100, 100))).toBe(0);
    expect(Array.from(probe.growBox(Float64Array.of(0, 0, 10, 10)))).toEqual([-5, 0, 25, 40]);
  });

  test('an open contour has an end of its own', () => {
    const line: Contour = { points: Float64Array.of(0, 0, 10, 0, 20, 0, 30, 0, 30, 10, 30, 20, 30, 30), closed: false };
    const probe = probeOf([line]);
    expect(probe.length()).toBeCloseTo(60, 9);
    expect(probe.signedArea()).toBe(0);
  });
});

describe('filled areas', () => {
  const areaOf = (contours: readonly Contour[], rows = 400) => {
    const plan = still(contours);
    const probe = new InBetweenProbe(plan, 0.01);
    probe.take(plan.from);
    return new FillMeter(plan, probe, -20, 120, rows).measure(1);
  };

  test('a ring is the disc without its hole; nothing is turned inside out', () => {
    const ring = [ellipseContour(50, 50, 40, 40), reverseContour(ellipseContour(50, 50, 20, 20))];
    const { filled, inverted } = areaOf(ring);
    expect(filled / (Math.PI * (1600 - 400))).toBeCloseTo(1, 3);
    expect(inverted).toBe(0);
  });

  test('what lies over each other counts once', () => {
    expect(areaOf([square(0, 0, 50), square(25, 0, 50)]).filled / (75 * 50)).toBeCloseTo(1, 2);
  });

  test('a hole outside its solid, and a lobe run the other way, are inside out', () => {
    const outside = areaOf([square(0, 0, 40), reverseContour(square(60, 0, 20))]);
    expect(outside.inverted / 400).toBeCloseTo(1, 2);
    const eight = areaOf([polygon(0, 0, 40, 40, 40, 0, 0, 40)]);
    expect(eight.filled / 800).toBeCloseTo(1, 2);
    expect(eight.inverted / 400).toBeCloseTo(1, 2);
  });
});
