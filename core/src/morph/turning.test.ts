import { describe, expect, test } from '@jest/globals';
import { seededRandom } from '../num';
import { contourArea, contourLength, polygonContour } from '../outline';
import { evaluateTurning, planTurning } from './turning';

const turned = (points: Float64Array, angle: number, x = 0, y = 0): Float64Array =>
  points.map((_, i) => {
    const [px, py] = [points[i - (i % 2)], points[i - (i % 2) + 1]];
    return i % 2 === 0
      ? x + px * Math.cos(angle) - py * Math.sin(angle)
      : y + px * Math.sin(angle) + py * Math.cos(angle);
  });
const inBetweenAt = (from: Float64Array, to: Float64Array, closed: boolean, p: number): Float64Array =>
  evaluateTurning(planTurning(from, to, closed), p, new Float64Array(from.length));
const apart = (p: Float64Array, q: Float64Array): number => Math.max(...p.map((v, i) => Math.abs(v - q[i])));

const rectangle = (x: number, y: number, width: number, height: number) =>
  polygonContour([x, y, x + width, y, x + width, y + height, x, y + height]);

/** A star polygon with seeded radii. */
function blob(seed: number, n = 9): Float64Array {
  const random = seededRandom(seed);
  return polygonContour(
    Array.from({ length: 2 * n }, (_, k) => {
      const angle = (2 * Math.PI * (k >> 1)) / n;
      const radius = 40 + 25 * random();
      return k % 2 === 0 ? radius * Math.cos(angle) : radius * Math.sin(angle);
    }),
  ).points;
}

describe('the turning in-between (Sederberg, Gao, Wang & Mu, 1993)', () => {
  test('begins and ends at the ends', () => {
    const [from, to] = [blob(1), turned(blob(2), 0.8, 30, -20)];
    expect(apart(inBetweenAt(from, to, true, 0), from)).toBeLessThan(1e-6);
    expect(apart(inBetweenAt(from, to, true, 1), to)).toBeLessThan(1e-6);
  });

  test('a shape that was turned and moved is that shape on all the way', () => {
    const from = blob(3);
    for (const angle of [0.4, 1.5, -2.2]) {
      const to = turned(from, angle, 12, 7);
      for (const p of [0.25, 0.5, 0.8]) {
        const inBetween = inBetweenAt(from, to, true, p);
        expect(Math.abs(contourArea({ points: inBetween, closed: true }))).toBeCloseTo(
          Math.abs(contourArea({ points: from, closed: true })),
          3,
        );
        // The same shape: every distance between two of its numbers' points is kept.
        for (let i = 0; i < from.length; i += 14)
          for (let j = i + 2; j < from.length; j += 10)
            expect(Math.hypot(inBetween[i] - inBetween[j], inBetween[i + 1] - inBetween[j + 1])).toBeCloseTo(
              Math.hypot(from[i] - from[j], from[i + 1] - from[j + 1]),
              6,
            );
      }
    }
  });

  /** Root mean square distance of the anchors from their mean: how far a run is spread. */
  const spread = (points: Float64Array): number => {
    const at = (k: number): [number, number] => [points[6 * k], points[6 * k + 1]];
    const n = (points.length / 2 - 1) / 3 + 1;
    const all = Array.from({ length: n }, (_, k) => at(k));
    const [mx, my] = [0, 1].map((i) => all.reduce((sum, p) => sum + p[i], 0) / n);
    return Math.sqrt(all.reduce((sum, [x, y]) => sum + (x - mx) ** 2 + (y - my) ** 2, 0) / n);
  };
  /** A line of edges of 10 px that turns by so much (rad) at each, the other way after the middle where it is an S. */
  const bow = (turn: number, s: boolean): Float64Array => {
    const corners = [0, 0];
    let angle = 0;
    for (let k = 0; k < 40; k++) {
      corners.push(corners[2 * k] + 10 * Math.cos(angle), corners[2 * k + 1] + 10 * Math.sin(angle));
      angle += s && k >= 20 ? -turn : turn;
    }
    return polygonContour(corners, false).points;
  };

  test('a line that would straighten on its way is not spread much wider than its ends; what only bends keeps its length', () => {
    // A bow and an S of the same edges: half-way the second half is straight.
    const [from, to] = [bow(0.14, false), bow(0.14, true)];
    const widest = Math.max(spread(from), spread(to));
    const half = inBetweenAt(from, to, false, 0.5);
    expect(spread(half)).toBeLessThan(1.06 * widest);
    const length = contourLength({ points: half, closed: false });
    expect(length).toBeGreaterThan(0.79 * 400);
    expect(length).toBeLessThan(0.97 * 400);
    // Coils that open wide are not made smaller without end.
    const opened = inBetweenAt(bow(0.5, false), bow(0.5, true), false, 0.5);
    expect(contourLength({ points: opened, closed: false })).toBeGreaterThan(0.79 * 400);
    const bent = inBetweenAt(bow(0.02, false), bow(0.06, false), false, 0.5);
    expect(Math.abs(contourLength({ points: bent, closed: false }) / 400 - 1)).toBeLessThan(0.015);
  });

  test('area of closed runs, and length of open ones, go evenly from one end to the other', () => {
    const from = rectangle(0, 0, 80, 20).points;
    const to = turned(rectangle(0, 0, 40, 60).points, 1.2);
    const area = (points: Float64Array): number => Math.abs(contourArea({ points, closed: true }));
    for (const p of [0.2, 0.5, 0.7])
      expect(area(inBetweenAt(from, to, true, p))).toBeCloseTo((1 - p) * area(from) + p * area(to), 6);
    const line = (n: number, bend: number): Float64Array => {
      const points = new Float64Array(6 * n + 2);
      for (let k = 0; k <= 3 * n; k++) points.set([10 * k, bend * Math.sin(k / 2)], 2 * k);
      return points;
    };
    const [a, b] = [line(5, 20), turned(line(5, 20), 0.9).map((v) => 1.6 * v)];
    const length = (points: Float64Array): number => contourLength({ points, closed: false });
    for (const p of [0.3, 0.6])
      expect(length(inBetweenAt(a, b, false, p))).toBeCloseTo((1 - p) * length(a) + p * length(b), 6);
  });

  test('closed runs stay closed', () => {
    const [from, to] = [blob(5), turned(rectangle(-30, -30, 60, 60).points, 0.3)];
    const other = polygonContour(Array.from({ length: 18 }, (_, k) => (k * 37) % 90)).points;
    expect(to.length).toBeLessThan(from.length);
    for (const p of [0.1, 0.45, 0.9]) {
      const inBetween = inBetweenAt(from, other, true, p);
      expect(
        Math.hypot(inBetween[0] - inBetween[inBetween.length - 2], inBetween[1] - inBetween[inBetween.length - 1]),
      ).toBeLessThan(1e-6);
    }
  });

  test('segments that are a point on one side, and runs that are one altogether, give finite in-betweens', () => {
    const from = blob(6);
    const collapsed = from.slice();
    // The third and fourth anchor fall together with the second.
    for (const k of [2, 3, 4]) for (let i = 6 * k - 4; i <= 6 * k + 1; i++) collapsed[i] = collapsed[6 + (i % 2)];
    for (const to of [collapsed, new Float64Array(from.length)])
      for (const p of [0, 0.3, 0.7, 1]) expect(inBetweenAt(from, to, true, p).every(Number.isFinite)).toBe(true);
  });

  test('goes the shorter way round', () => {
    const from = blob(7);
    const to = turned(from, (170 * Math.PI) / 180);
    const inBetween = inBetweenAt(from, to, true, 0.5);
    const want = turned(from, (85 * Math.PI) / 180);
    const direction = (p: Float64Array): number => Math.atan2(p[7] - p[1], p[6] - p[0]);
    expect(Math.cos(direction(inBetween) - direction(want))).toBeCloseTo(1, 6);
  });
});
