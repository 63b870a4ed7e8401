import { describe, expect, test } from '@jest/globals';
import { Bezier } from 'bezier-js';
import fc from 'fast-check';
import { cubicTangent } from '../curve';
import { seededRandom } from '../num';
import { readPathData } from '../svg';
import { strayOf } from '../testing/distance';
import { realIcons } from '../testing/icons';
import {
  addAnchors,
  anchorCount,
  type Contour,
  circleOfPoints,
  closeContour,
  contourArea,
  contourBox,
  contourLength,
  cutAt,
  deleteAnchor,
  ellipseContour,
  joinContours,
  measureArcLength,
  nearestOnContour,
  openAt,
  outlineOfContours,
  outlineSize,
  placeAtShare,
  polygonContour,
  roundedPolygon,
  segmentAt,
  segmentCount,
  shapeCorner,
  simplifyContour,
  startAt,
} from './index';

const SQUARE = polygonContour([0, 0, 100, 0, 100, 100, 0, 100]);
let ids = 0;
const newId = (): string => `n${++ids}`;
const named = (contour: Contour): Contour => ({
  ...contour,
  anchorIds: Array.from({ length: anchorCount(contour) }, (_, i) => `a${i}`),
});
const curve = readPathData('M0 50C20 -30 60 140 100 50C120 10 90 -40 60 -20C40 -8 10 10 0 50Z').contours[0];

describe('adding points', () => {
  test('1 to 50 of them, anywhere, never move the outline by more than 1e-9 of its size', () => {
    const icons = realIcons(40, 60).flatMap(({ d }) => readPathData(d).contours);
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: icons.length - 1 }),
        fc.integer({ min: 1, max: 50 }),
        fc.integer(),
        (which, count, seed) => {
          const contour = icons[which];
          const random = seededRandom(seed);
          const places = Array.from({ length: count }, () => ({
            segment: Math.floor(random() * segmentCount(contour)),
            t: random(),
          })).sort((p, q) => p.segment - q.segment || p.t - q.t);
          const more = addAnchors(contour, places);
          const size = outlineSize(outlineOfContours([contour]));
          expect(segmentCount(more)).toBeGreaterThanOrEqual(segmentCount(contour));
          // Each new segment is a stretch of an old one: its points, met at even parameters, lie on the old curve at known places.
          let segment = 0;
          let at = 0;
          const cuts = [
            ...places.filter(({ t }) => t > 1e-12 && t < 1 - 1e-12),
            { segment: segmentCount(contour), t: 0 },
          ];
          let next = 0;
          for (let i = 0; i < segmentCount(more); i++) {
            const cut = cuts[next];
            const end = cut && cut.segment === segment ? cut.t : 1;
            const old = Array.from({ length: 8 }, (_, k) => contour.points[segmentAt(segment) + k]);
            const fresh = Array.from({ length: 8 }, (_, k) => more.points[segmentAt(i) + k]);
            const [b, m] = [new Bezier(old), new Bezier(fresh)];
            for (const u of [0.25, 0.5, 0.75]) {
              const p = b.get(at + (end - at) * u);
              const q = m.get(u);
              expect(Math.hypot(p.x - q.x, p.y - q.y) / size).toBeLessThan(1e-9);
            }
            if (end === 1) {
              segment++;
              at = 0;
            } else {
              at = end;
              next++;
              while (cuts[next] && cuts[next].segment === segment && cuts[next].t - at <= 1e-12) next++;
            }
          }
        },
      ),
      { seed: 11, numRuns: 150 },
    );
  });
});

describe('against a general-purpose Bezier library and the handbook', () => {
  test('lengths, boxes and points at length of random cubics agree with bezier-js', () => {
    const random = seededRandom(3);
    for (let n = 0; n < 60; n++) {
      const numbers = Array.from({ length: 8 }, () => random() * 100);
      const contour: Contour = { points: Float64Array.from(numbers), closed: false };
      const theirs = new Bezier(numbers);
      // Their quadrature has a fixed number of nodes, ours an error bound.
      expect(Math.abs(contourLength(contour) / theirs.length() - 1)).toBeLessThan(3e-3);
      const box = contourBox(contour);
      const { x, y } = theirs.bbox();
      [box.minX - x.min, box.maxX - x.max, box.minY - y.min, box.maxY - y.max].forEach((d) => {
        expect(Math.abs(d)).toBeLessThan(1e-6);
      });
      const { t } = placeAtShare(measureArcLength(contour), 0.37);
      expect(theirs.split(0, t).length() / theirs.length()).toBeCloseTo(0.37, 2);
      const found = nearestOnContour(contour, 50, 50);
      // Their own distance is that of the first guess; the point they give is the right one.
      const projected = theirs.project({ x: 50, y: 50 });
      expect(found?.distance).toBeCloseTo(Math.hypot(projected.x - 50, projected.y - 50), 2);
    }
  });

  // E(m), complete elliptic integral of the second kind: Abramowitz & Stegun, Handbook of Mathematical Functions, 1964, table 17.1
  // (values from memory, checked here against the arithmetic-geometric mean, 17.6).
  test.each([
    [0, 1.5707963268],
    [0.1, 1.530757637],
    [0.25, 1.4674622093],
    [0.5, 1.350643881],
    [0.75, 1.2110560276],
    [0.9, 1.1047747327],
  ])('the perimeter of an ellipse is 4 a E(m), m = %d', (m, e) => {
    let [a, b, c, sum, power] = [1, Math.sqrt(1 - m), Math.sqrt(m), m / 2, 1];
    while (c > 1e-15) {
      [a, b, c] = [(a + b) / 2, Math.sqrt(a * b), (a - b) / 2];
      sum += power * c * c;
      power *= 2;
    }
    expect((Math.PI / (2 * a)) * (1 - sum)).toBeCloseTo(e, 9);
    const perimeter = contourLength(ellipseContour(0, 0, 100, 100 * Math.sqrt(1 - m)));
    expect(Math.abs(perimeter / (400 * e) - 1)).toBeLessThan(3e-4);
  });

  test('the four-cubic circle strays by 2.7e-4 of its radius (common practice), never inwards', () => {
    const circle = ellipseContour(0, 0, 1, 1);
    let most = 0;
    for (let k = 0; k <= 1000; k++) {
      const { x, y } = new Bezier(Array.from(circle.points.subarray(0, 8))).get(k / 1000);
      most = Math.max(most, Math.hypot(x, y) - 1);
      expect(Math.hypot(x, y)).toBeGreaterThanOrEqual(1 - 1e-12);
    }
    expect(most).toBeGreaterThan(2.7e-4);
    expect(most).toBeLessThan(2.75e-4);
  });

  test('the smallest circle around points agrees with trying all pairs and triples', () => {
    const random = seededRandom(4);
    for (let n = 0; n < 40; n++) {
      const points = Array.from(
        { length: 3 + Math.floor(random() * 8) },
        () => [random() * 10, random() * 10] as const,
      );
      const { x, y, r } = circleOfPoints(points);
      for (const [px, py] of points) expect(Math.hypot(px - x, py - y)).toBeLessThanOrEqual(r + 1e-9);
      // No circle through two or three of them that holds all is smaller.
      let least = Infinity;
      const holds = (c: { x: number; y: number; r: number }): boolean =>
        points.every(([px, py]) => Math.hypot(px - c.x, py - c.y) <= c.r + 1e-9);
      for (const p of points)
        for (const q of points) {
          const two = { x: (p[0] + q[0]) / 2, y: (p[1] + q[1]) / 2, r: Math.hypot(p[0] - q[0], p[1] - q[1]) / 2 };
          if (holds(two)) least = Math.min(least, two.r);
          for (const s of points) {
            const three = circleOfPoints([p, q, s]);
            if (holds(three)) least = Math.min(least, three.r);
          }
        }
      expect(r).toBeCloseTo(least, 6);
    }
  });
});

describe('taking points away', () => {
  test('a point that was added without need goes without a trace', () => {
    const more = addAnchors(named(curve), [{ segment: 1, t: 0.4 }], newId);
    const less = deleteAnchor(more, 2);
    expect(less?.contour.anchorIds).toEqual(['a0', 'a1', 'a2']);
    expect(less?.deviation).toBeLessThan(1e-6);
    expect(strayOf(outlineOfContours([curve]), outlineOfContours([less?.contour as Contour]))).toBeLessThan(0.01);
  });

  test('straight runs stay straight, ends of open contours go with their segment, the first of a closed one too', () => {
    const line = polygonContour([0, 0, 30, 0, 100, 0], false);
    const fewer = deleteAnchor(line, 1)?.contour as Contour;
    expect([segmentCount(fewer), fewer.points[3]]).toEqual([1, 0]);
    expect(deleteAnchor(line, 2)?.contour.points.at(-2)).toBe(30);
    const square = deleteAnchor(named(SQUARE), 0)?.contour as Contour;
    expect(square.anchorIds).toEqual(['a1', 'a2', 'a3']);
    expect([square.points[0], square.points.at(-2), square.closed]).toEqual([100, 100, true]);
    expect(deleteAnchor(polygonContour([0, 0, 1, 1], false), 0)).toBeUndefined();
  });

  test('simplifying keeps to the stated deviation, keeps corners, and takes most points of an oversampled outline', () => {
    const icons = realIcons(12, 140).flatMap(({ d }) => readPathData(d).contours);
    for (const contour of icons) {
      const size = outlineSize(outlineOfContours([contour]));
      const dense = addAnchors(
        contour,
        Array.from({ length: segmentCount(contour) }, (_, segment) =>
          [0.25, 0.5, 0.75].map((t) => ({ segment, t })),
        ).flat(),
      );
      const tolerance = 0.002 * size;
      const { contour: simple, deviation } = simplifyContour(dense, tolerance);
      expect(deviation).toBeLessThanOrEqual(tolerance);
      expect(anchorCount(simple)).toBeLessThanOrEqual(anchorCount(contour) + 1);
      expect(strayOf(outlineOfContours([contour]), outlineOfContours([simple]))).toBeLessThan(2.5 * tolerance);
    }
  });
});

describe('corners', () => {
  test('a rounded corner takes (1 − π/4) r² off a square, a chamfered one d²/2', () => {
    const round = shapeCorner(named(SQUARE), 1, 20, 'round', newId) as Contour;
    expect(10_000 - contourArea(round)).toBeCloseTo((1 - Math.PI / 4) * 400, 0);
    expect(round.anchorIds?.slice(0, 2)).toEqual(['a0', 'a1']);
    const chamfered = shapeCorner(named(SQUARE), 2, 20, 'chamfer', newId) as Contour;
    expect(10_000 - contourArea(chamfered)).toBeCloseTo(200, 9);
    expect(anchorCount(chamfered)).toBe(5);
  });

  test.each([0, 1, 2, 3])('every corner of a square can be rounded, the first too: %i', (i) => {
    const round = shapeCorner(named(SQUARE), i, 20, 'round', newId) as Contour;
    expect(contourArea(round)).toBeCloseTo(10_000 - (1 - Math.PI / 4) * 400, 0);
    expect(round.anchorIds).toHaveLength(anchorCount(round));
    expect(round.points.at(-2)).toBe(round.points[0]);
  });

  test('the arc leaves both sides in their own direction, on curves too', () => {
    const leaf = readPathData('M0 0C40 -40 80 -40 120 0C80 40 40 40 0 0Z').contours[0];
    const round = shapeCorner(leaf, 1, 10, 'round', newId) as Contour;
    const tangent = (segment: number, t: number): Float64Array =>
      cubicTangent(round.points, segmentAt(segment), t, new Float64Array(2));
    for (let i = 0; i + 1 < segmentCount(round); i++) {
      const [a, b] = [tangent(i, 1), tangent(i + 1, 0)];
      expect(a[0] * b[0] + a[1] * b[1]).toBeGreaterThan(0.9999);
    }
  });

  test('a radius beyond the sides is cut to them, smooth points have no corner', () => {
    const huge = shapeCorner(SQUARE, 1, 1e6, 'round', newId) as Contour;
    expect(contourBox(huge).maxX).toBeLessThanOrEqual(100.0001);
    expect(shapeCorner(ellipseContour(0, 0, 9, 9), 1, 2, 'round', newId)).toBeUndefined();
    expect(shapeCorner(polygonContour([0, 0, 9, 0], false), 0, 2, 'round', newId)).toBeUndefined();
  });

  test('a polygon rounded all round: all arcs have the radius that was asked for', () => {
    const contour = roundedPolygon([0, 0, 100, 0, 100, 100, 0, 100], [10, 20, 30, 5]);
    const expected = 10_000 - (1 - Math.PI / 4) * (100 + 400 + 900 + 25);
    expect(contourArea(contour)).toBeCloseTo(expected, 0);
  });
});

describe('ends, starts and joints', () => {
  test('another start is the same outline', () => {
    const moved = startAt(named(curve), 2);
    expect(moved.anchorIds).toEqual(['a2', 'a0', 'a1']);
    expect(contourArea(moved)).toBeCloseTo(contourArea(curve), 9);
    expect([moved.points[0], moved.points.at(-2)]).toEqual([curve.points[12], curve.points[12]]);
  });

  test('opened, cut, joined and closed again, it is what it was', () => {
    const open = openAt(named(SQUARE), 1, newId);
    expect([open.closed, anchorCount(open)]).toEqual([false, 5]);
    const [a, b] = cutAt(open, 2, newId) as [Contour, Contour];
    expect(segmentCount(a) + segmentCount(b)).toBe(4);
    const joined = joinContours(a, 'end', b, 'start', 1);
    expect(anchorCount(joined)).toBe(5);
    const closed = closeContour(joined, 1);
    expect(closed.closed).toBe(true);
    expect(contourArea(closed)).toBeCloseTo(10_000, 9);
    expect(cutAt(open, 0, newId)).toBeUndefined();
  });

  test('any two ends can be joined; far ends by a straight line', () => {
    const a = named(polygonContour([0, 0, 10, 0], false));
    const b = { ...polygonContour([20, 0, 30, 0], false), anchorIds: ['b0', 'b1'] };
    expect(joinContours(a, 'end', b, 'start', 1).anchorIds).toEqual(['a0', 'a1', 'b0', 'b1']);
    expect(joinContours(a, 'start', b, 'end', 1).anchorIds).toEqual(['a1', 'a0', 'b1', 'b0']);
    const open = polygonContour([0, 0, 10, 0, 10, 10], false);
    expect(segmentCount(closeContour(open, 1))).toBe(3);
    expect(segmentCount(closeContour(polygonContour([0, 0, 10, 0, 0, 0.2], false), 1))).toBe(2);
  });
});
