import { describe, expect, test } from '@jest/globals';
import * as jsts from 'jsts/dist/jsts.min.js';
import { seededRandom } from '../num';
import { ellipseContour, outlineOfContours, reverseContour } from '../outline';
import { readPathData } from '../svg';
import { realIcons } from '../testing/icons';
import { meanValueCoordinates } from './carried';
import { evaluate } from './evaluate';
import { CurveFlow, polygonArea } from './flow';
import { assemble, planRun } from './planned-run';
import { InBetweenProbe } from './probe';
import { rankAlternatives } from './rank';
import { RunTravel } from './travel';

/** The parts of the geometry library (JSTS, a port of the JTS Topology Suite) that are used here. */
interface GeometryLibrary {
  readonly geom: {
    Coordinate: new (x: number, y: number) => object;
    GeometryFactory: new () => {
      createLinearRing(points: object[]): object;
      createPolygon(ring: object): { getArea(): number };
      createLineString(points: object[]): { isSimple(): boolean };
    };
  };
}
const { geom } = jsts as unknown as GeometryLibrary;
const factory = new geom.GeometryFactory();

describe('against a general-purpose geometry library', () => {
  test('areas and freedom from crossings of 200 in-betweens of real icons', () => {
    const icons = realIcons(400, 9)
      .map(({ d }) => readPathData(d))
      .filter(({ contours }) => contours.length === 1);
    let inBetweens = 0;
    let folded = 0;
    for (let i = 0; inBetweens < 200; i++) {
      // Straight ways from the place where the file starts: some of them fold.
      const [a, b] = [icons[i % icons.length], icons[(i * 7 + 3) % icons.length]];
      const { plan } = rankAlternatives(a, b, {
        method: 'straight',
        smoothing: 0,
        starts: [{ contourA: 0, shareA: 0, contourB: 0, shareB: (i % 5) / 5 }],
      })[0];
      const probe = new InBetweenProbe(plan, 0.02 * plan.size);
      for (const p of [0.2, 0.4, 0.6, 0.8]) {
        probe.take(evaluate(plan, p));
        const points = Array.from(
          { length: probe.counts[0] },
          (_, k) => new geom.Coordinate(probe.points[2 * k], probe.points[2 * k + 1]),
        );
        const ring = [...points, new geom.Coordinate(probe.points[0], probe.points[1])];
        const simple = factory.createLineString(ring).isSimple();
        const { folds } = probe.countCrossings(0);
        expect({ pair: i, p, simple: folds === 0 }).toEqual({ pair: i, p, simple });
        if (simple) {
          const area = factory.createPolygon(factory.createLinearRing(ring)).getArea();
          expect(Math.abs(probe.signedArea())).toBeCloseTo(area, 6);
        } else folded++;
        inBetweens++;
      }
    }
    expect(inBetweens).toBe(200);
    expect(folded).toBeGreaterThan(10);
  });
});

describe('mean-value coordinates (Floater, 2003)', () => {
  const random = seededRandom(5);
  const polygon = Float64Array.from({ length: 14 }, (_, k) => {
    const angle = (2 * Math.PI * (k >> 1)) / 7;
    const radius = 30 + 20 * random();
    return 50 + radius * (k % 2 === 0 ? Math.cos(angle) : Math.sin(angle));
  });

  test('sum to one and reproduce linear functions, on vertices and edges too', () => {
    const places: [number, number][] = Array.from({ length: 60 }, () => [40 + 20 * random(), 40 + 20 * random()]);
    places.push([polygon[4], polygon[5]], [(polygon[0] + polygon[2]) / 2, (polygon[1] + polygon[3]) / 2]);
    for (const [x, y] of places) {
      const weights = meanValueCoordinates(polygon, x, y);
      const sum = (of: (k: number) => number): number => weights.reduce((total, w, k) => total + w * of(k), 0);
      expect(sum(() => 1)).toBeCloseTo(1, 9);
      expect(sum((k) => 3 * polygon[2 * k] - 2 * polygon[2 * k + 1] + 7)).toBeCloseTo(3 * x - 2 * y + 7, 6);
    }
  });
});

describe('the curve-shortening flow (Gage & Hamilton, 1986)', () => {
  const circle = (r: number, n: number): Float64Array =>
    Float64Array.from({ length: 2 * n }, (_, k) =>
      k % 2 === 0 ? r * Math.cos((Math.PI * k) / n) : r * Math.sin((Math.PI * (k - 1)) / n),
    );

  test('shrinks a circle to √(r² − 2t), and keeps its area when asked to', () => {
    const p = circle(40, 120);
    const flow = new CurveFlow(120);
    let time = 0;
    for (let k = 0; k < 400; k++) {
      flow.step(p, 1);
      time += 1;
    }
    const radius = Math.hypot(p[0], p[1]);
    expect(radius).toBeCloseTo(Math.sqrt(40 ** 2 - 2 * time), 0);
    expect(Math.abs(radius - Math.sqrt(40 ** 2 - 2 * time))).toBeLessThan(0.1);
    const q = circle(40, 120);
    const area = polygonArea(q);
    flow.flow(q, 400, 60);
    expect(polygonArea(q)).toBeCloseTo(area, 6);
  });

  test('a corner a thousand times as far away as all others leaves numbers that are finite, however long it flows', () => {
    for (const points of [4, 12, 60])
      for (const time of [1e9, 1e12, 1e15]) {
        const p = circle(140, points);
        p[3] = -1e5;
        const flow = new CurveFlow(points);
        for (let k = 0; k < 20; k++) flow.flow(p, time, 1);
        expect(p.every(Number.isFinite)).toBe(true);
      }
  });

  test('rounds a star: its length falls, its area stays', () => {
    const star = Float64Array.from({ length: 40 }, (_, k) => {
      const r = (k >> 1) % 2 === 0 ? 50 : 20;
      const angle = (Math.PI * (k >> 1)) / 10;
      return k % 2 === 0 ? r * Math.cos(angle) : r * Math.sin(angle);
    });
    const length = (p: Float64Array): number =>
      Array.from({ length: 20 }, (_, i) => {
        const j = (i + 1) % 20;
        return Math.hypot(p[2 * j] - p[2 * i], p[2 * j + 1] - p[2 * i + 1]);
      }).reduce((sum, v) => sum + v, 0);
    const [before, area] = [length(star), polygonArea(star)];
    new CurveFlow(20).flow(star, 200, 40);
    expect(length(star)).toBeLessThan(0.7 * before);
    expect(polygonArea(star)).toBeCloseTo(area, 6);
  });
});

describe('the turning in-between', () => {
  test('turns a rectangle by 80° without shrinking it: every edge keeps its length', () => {
    const [c, s] = [Math.cos(1.4), Math.sin(1.4)];
    const corners = [-40, -15, 40, -15, 40, 15, -40, 15];
    const run = (turn: boolean): Float64Array => {
      const at = (k: number): [number, number] => {
        const [x, y] = [corners[(2 * k) % 8], corners[(2 * k + 1) % 8]];
        return turn ? [c * x - s * y, s * x + c * y] : [x, y];
      };
      const out: number[] = [...at(0)];
      for (let k = 0; k < 4; k++) {
        const [p, q] = [at(k), at(k + 1)];
        for (const t of [1 / 3, 2 / 3, 1]) out.push(p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t);
      }
      return Float64Array.from(out);
    };
    const travel = new RunTravel(run(false), run(true), true, 100);
    const source = { travel, closed: true, role: 'pair' as const, bridgesA: [], bridgesB: [], deviation: 0 };
    const plan = assemble([planRun(source, { method: 'turning', smoothing: 0 })], 'nonzero', 100);
    for (let k = 1; k < 20; k++) {
      const inBetween = evaluate(plan, k / 20);
      const edge = (i: number): number =>
        Math.hypot(inBetween[6 * i + 6] - inBetween[6 * i], inBetween[6 * i + 7] - inBetween[6 * i + 1]);
      expect(edge(0)).toBeCloseTo(80, 1);
      expect(edge(1)).toBeCloseTo(30, 1);
    }
  });
});

describe('holes', () => {
  test('go with their solid when it turns away from the straight way', () => {
    const plate = (x: number, y: number) => [
      ellipseContour(x, y, 44, 20),
      reverseContour(ellipseContour(x + 20, y, 8, 8)),
    ];
    const { plan, match } = rankAlternatives(outlineOfContours(plate(50, 50)), outlineOfContours(plate(80, 70)))[0];
    expect(match.pairs).toHaveLength(2);
    const probe = new InBetweenProbe(plan, 0.05);
    for (let k = 0; k <= 20; k++) {
      probe.take(evaluate(plan, k / 20));
      expect(probe.countCrossings(0.3).between).toBe(0);
    }
  });
});
