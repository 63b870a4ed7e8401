import { describe, expect, test } from '@jest/globals';
import {
  type Contour,
  contourArea,
  ellipseContour,
  measureArcLength,
  nearestOnContour,
  type Outline,
  outlineOfContours,
  polygonContour,
  reverseContour,
  shareOfCurvePlace,
} from '../outline';
import { readPathData } from '../svg';
import { outlineDistance } from '../testing/outline-distance';
import type { Alternative } from './alternative';
import { endOutline } from './end-outline';
import { evaluate } from './evaluate';
import { measureHealth } from './health';
import { inBetweenOutline } from './plan-outline';
import { type RankOptions, rankAlternatives } from './rank';

const best = (a: Outline, b: Outline, options?: RankOptions): Alternative => rankAlternatives(a, b, options)[0];
const at = ({ plan }: Alternative, progress: number): Outline => inBetweenOutline(plan, evaluate(plan, progress));
const ring = (x: number, y: number, outer: number, inner: number): Contour[] => [
  ellipseContour(x, y, outer, outer),
  reverseContour(ellipseContour(x, y, inner, inner)),
];
const withIds = (contour: Contour, prefix: string, origins?: string): Contour => {
  const count = (contour.points.length / 2 - 1) / 3 + (contour.closed ? 0 : 1);
  const ids = (p: string): string[] => Array.from({ length: count }, (_, i) => `${p}${i}`);
  return { ...contour, anchorIds: ids(prefix), originIds: origins === undefined ? undefined : ids(origins) };
};

describe('known answers of the whole engine', () => {
  test('identical outlines stay still at every moment', () => {
    const a = readPathData('M10 10C40 0 90 20 90 60S40 100 20 80ZM120 20H160V60H120Z');
    for (const p of [0.1, 0.5, 0.9]) expect(outlineDistance(at(best(a, a), p), a)).toBeLessThan(0.01);
  });

  test('a pentagon against a ring sector drawn the other way round: every start folds until one is reversed (common practice)', () => {
    const pentagon = outlineOfContours([polygonContour([50, 0, 98, 35, 79, 90, 21, 90, 2, 35])]);
    const sector = readPathData('M90 50A40 40 0 1 0 50 90L50 70A20 20 0 1 1 70 50Z');
    for (let k = 0; k < 8; k++) {
      const starts = [{ contourA: 0, shareA: 0, contourB: 0, shareB: k / 8 }];
      const health = (direction: 'same' | 'reversed') =>
        measureHealth(best(pentagon, sector, { direction, starts, method: 'straight', smoothing: 0 }).plan);
      expect(health('same').verdict).toBe('broken');
    }
    expect(measureHealth(best(pentagon, sector, { direction: 'reversed' }).plan).folds).toBe(0);
  });

  test('O opens into C by a slit, whose edges are no part of the ends', () => {
    const o = outlineOfContours(ring(50, 50, 45, 25));
    const c = readPathData('M85 25A43 43 0 1 0 85 75L70 62A23 23 0 1 1 70 38Z');
    const found = best(o, c);
    const [pair] = found.match.pairs;
    expect(pair.joiningA?.slits).toHaveLength(1);
    expect(found.plan.contours).toHaveLength(1);
    expect(outlineDistance(endOutline(found.plan, 'first'), o)).toBeLessThan(0.01);
    expect(outlineDistance(endOutline(found.plan, 'second'), c)).toBeLessThan(0.01);
    const health = measureHealth(found.plan);
    expect(health.verdict).toBe('good');
    // The counter opens: the letter does not go bold.
    expect(health.swell).toBeLessThan(1.1);
    expect(found.match.reasons.map(({ code }) => code)).toContain('slit');
  });

  test('B against 8 keeps both counters; i against o has no folds', () => {
    const b = outlineOfContours([
      polygonContour([10, 5, 60, 5, 85, 20, 85, 40, 70, 50, 90, 62, 90, 82, 62, 95, 10, 95]),
      polygonContour([30, 22, 30, 40, 62, 40, 62, 22]),
      polygonContour([30, 60, 30, 78, 65, 78, 65, 60]),
    ]);
    const eight = outlineOfContours([
      ellipseContour(50, 50, 38, 46),
      reverseContour(ellipseContour(50, 29, 14, 11)),
      reverseContour(ellipseContour(50, 71, 16, 13)),
    ]);
    const found = best(b, eight);
    expect(found.match.pairs.map((pair) => [pair.a, pair.b]).sort()).toEqual([
      [0, 0],
      [1, 1],
      [2, 2],
    ]);
    expect(measureHealth(found.plan).verdict).toBe('good');
    const i = outlineOfContours([ellipseContour(50, 15, 12, 12), polygonContour([38, 36, 62, 36, 62, 96, 38, 96])]);
    const o = outlineOfContours(ring(50, 62, 34, 18));
    expect(measureHealth(best(i, o).plan).folds).toBe(0);
  });

  test('a line opens from a closed shape at its start point', () => {
    const square = outlineOfContours([polygonContour([10, 10, 90, 10, 90, 90, 10, 90])]);
    const line = readPathData('M0 50C30 20 60 80 100 50');
    const found = best(square, line);
    expect(found.plan.contours[0].closed).toBe(false);
    expect(found.match.reasons.map(({ code }) => code)).toContain('opened');
    const [end] = inBetweenOutline(found.plan, found.plan.to).contours;
    expect(outlineDistance({ contours: [end], fillRule: 'nonzero' }, line)).toBeLessThan(0.01);
    // The gap opens where the outline was cut: at first both ends lie on each other.
    const { from } = found.plan;
    expect(Math.hypot(from[0] - from[from.length - 2], from[1] - from[from.length - 1])).toBeLessThan(0.01);
  });

  test('a chart line and the area under it: points moved up and down in a copy keep every x, and both stay on each other', () => {
    const xs = [0, 20, 40, 60, 80, 100];
    const heights = [
      [50, 40, 45, 30, 52, 20],
      [50, 80, 15, 60, 22, 70],
    ];
    const line = (k: number): number[] => xs.flatMap((x, i) => [x, heights[k][i]]);
    const lineA = withIds(polygonContour(line(0), false), 'l');
    const lineB = withIds(polygonContour(line(1), false), 'm', 'l');
    const areaA = withIds(polygonContour([...line(0), 100, 100, 0, 100]), 'p');
    const areaB = withIds(polygonContour([...line(1), 100, 100, 0, 100]), 'q', 'p');
    const lines = best(outlineOfContours([lineA]), outlineOfContours([lineB]));
    const areas = best(outlineOfContours([areaA]), outlineOfContours([areaB]));
    expect(lines.match.pairs[0].byOrigin && areas.match.pairs[0].byOrigin).toBe(true);
    for (let k = 0; k <= 20; k++) {
      const drawn = at(lines, k / 20).contours[0].points;
      xs.forEach((x, i) => expect(drawn[6 * i]).toBeCloseTo(x, 2));
      const edge: number[] = [];
      const filled = at(areas, k / 20).contours[0].points;
      for (let i = 0; i < filled.length - 2; i += 6) edge.push(filled[i], filled[i + 1]);
      // Every anchor of the line is an anchor of the area's upper edge.
      for (let i = 0; i < drawn.length; i += 6) {
        let least = Infinity;
        for (let j = 0; j < edge.length; j += 2)
          least = Math.min(least, Math.hypot(edge[j] - drawn[i], edge[j + 1] - drawn[i + 1]));
        expect(least).toBeLessThan(0.05);
      }
    }
  });

  test('one round sign becomes two bars by a cut, and the halves cover the sign', () => {
    const sign = outlineOfContours([ellipseContour(50, 50, 45, 45)]);
    const bars = outlineOfContours([
      polygonContour([0, 10, 18, 10, 18, 90, 0, 90]),
      polygonContour([82, 10, 100, 10, 100, 90, 82, 90]),
    ]);
    const found = best(sign, bars);
    expect(found.match.pairs.every((pair) => pair.joiningA?.cut)).toBe(true);
    expect(found.match.unpairedB).toHaveLength(0);
    const halves = inBetweenOutline(found.plan, found.plan.from).contours.map(contourArea);
    expect(halves).toHaveLength(2);
    expect(halves[0] + halves[1]).toBeCloseTo(contourArea(sign.contours[0]), 2);
    expect(outlineDistance(endOutline(found.plan, 'first'), sign)).toBeLessThan(0.01);
    expect(measureHealth(found.plan).crossings).toBe(0);
    // A line drawn by hand is where it is cut.
    const drawn = best(sign, bars, { cuts: { a: [[40, 0, 40, 100]] } });
    const points = drawn.plan.from;
    const onLine = Array.from({ length: points.length / 2 }, (_, i) => points[2 * i]).filter(
      (x) => Math.abs(x - 40) < 0.01,
    );
    expect(onLine.length).toBeGreaterThanOrEqual(4);
  });

  test('Zero is a value: a hole whose partner is missing shrinks to a point inside its solid', () => {
    const found = best(outlineOfContours(ring(50, 50, 40, 12)), outlineOfContours([ellipseContour(60, 50, 40, 40)]), {
      pairs: [[1, -1]],
    });
    const hole = found.plan.contours.find(({ role }) => role === 'vanishes');
    expect(hole?.a).toBe(1);
    const [x, y] = found.plan.to.subarray(hole?.at ?? 0);
    expect(Math.hypot(x - 60, y - 50)).toBeLessThan(40);
  });
});

describe('what is decided by hand', () => {
  const star = readPathData('M50 2L61 38L98 38L68 59L79 95L50 73L21 95L32 59L2 38L39 38Z');
  const arrow = readPathData('M10 40L60 40L60 15L95 50L60 85L60 60L10 60Z');

  test('ties are met exactly, at both ends, on 40 random pairs of places', () => {
    let seed = 7;
    const random = (): number => {
      seed = (seed * 16807) % 2147483647;
      return seed / 2147483647;
    };
    for (let round = 0; round < 40; round++) {
      const tie = { contourA: 0, shareA: random(), contourB: 0, shareB: random() };
      const { plan, match } = best(arrow, star, { ties: [tie] });
      const placed = (outline: Outline, share: number): [number, number] => pointAtShare(outline.contours[0], share);
      const [ax, ay] = placed(arrow, tie.shareA);
      const [bx, by] = placed(star, tie.shareB);
      let least = Infinity;
      for (let i = 0; i < plan.from.length; i += 6)
        least = Math.min(
          least,
          Math.hypot(plan.from[i] - ax, plan.from[i + 1] - ay) + Math.hypot(plan.to[i] - bx, plan.to[i + 1] - by),
        );
      expect(least).toBeLessThan(0.01);
      expect(match.reasons.map(({ code }) => code)).toContain('ties-own');
    }
  });

  test('ties that contradict each other are not forced: the shift is made without them', () => {
    const ties = [
      { contourA: 0, shareA: 0.1, contourB: 0, shareB: 0.1 },
      { contourA: 0, shareA: 0.4, contourB: 0, shareB: 0.8 },
      { contourA: 0, shareA: 0.7, contourB: 0, shareB: 0.3 },
      { contourA: 0, shareA: 0.8, contourB: 0, shareB: 0.9 },
    ];
    const { plan, match } = best(arrow, star, { ties });
    expect(evaluate(plan, 0.5)).toEqual(evaluate(best(arrow, star).plan, 0.5));
    const codes = match.reasons.map(({ code }) => code);
    expect(codes).toContain('choice-lost');
    expect(codes).not.toContain('ties-own');
  });

  test('a touch-up is met exactly at its moment and leaves the ends as they are; two of them do not disturb each other', () => {
    const moves = [{ contourA: 0, shareA: 0, by: [6, -9] as const, before: [0, 0] as const, after: [0, 0] as const }];
    const plain = best(arrow, star, { points: [{ contourA: 0, shareA: 0 }] });
    const touched = best(arrow, star, {
      touchUps: [
        { progress: 0.3, moves },
        { progress: 0.7, moves: [{ ...moves[0], by: [-4, 5] }] },
      ],
    });
    const where = (alternative: Alternative, p: number): [number, number] => {
      const { from } = alternative.plan;
      const inBetween = evaluate(alternative.plan, p);
      for (let i = 0; i < from.length; i += 6)
        if (Math.hypot(from[i] - 10, from[i + 1] - 40) < 0.01) return [inBetween[i], inBetween[i + 1]];
      throw new Error('The point is gone.');
    };
    for (const [p, dx, dy] of [
      [0.3, 6, -9],
      [0.7, -4, 5],
    ]) {
      const [x, y] = where(touched, p);
      const [u, v] = where(plain, p);
      expect(x - u).toBeCloseTo(dx, 1);
      expect(y - v).toBeCloseTo(dy, 1);
    }
    expect(outlineDistance(endOutline(touched.plan, 'first'), arrow)).toBeLessThan(0.01);
    expect(outlineDistance(endOutline(touched.plan, 'second'), star)).toBeLessThan(0.01);
    expect(touched.match.reasons.map(({ code }) => code)).toContain('touched-up');
  });

  test('even points: as many as asked for, and how far they stray is told', () => {
    const few = best(arrow, star, { even: 12 }).plan;
    const many = best(arrow, star, { even: 120 }).plan;
    expect(few.contours[0].segments).toBe(12);
    expect(many.contours[0].segments).toBe(120);
    expect(few.endError).toBeGreaterThan(many.endError);
    expect(many.endError).toBeGreaterThan(0.01);
    // What is told is what can be seen: how far the drawn outline is from the real one.
    for (const plan of [few, many])
      for (const [points, outline] of [
        [plan.from, arrow],
        [plan.to, star],
      ] as const)
        expect(outlineDistance(inBetweenOutline(plan, points), outline)).toBeLessThan(1.02 * plan.endError + 0.02);
    const seen = Math.max(
      outlineDistance(inBetweenOutline(few, few.from), arrow),
      outlineDistance(inBetweenOutline(few, few.to), star),
    );
    expect(seen).toBeGreaterThan(0.9 * few.endError);
    expect(measureHealth(few).sentence).toContain('leaves the outline');
  });

  test('even points lie evenly on both outlines; tied places have points, and it is even between them', () => {
    /** Lengths along the outline between neighbouring points, as shares of the whole. */
    const steps = (outline: Outline, points: Float64Array, start: number, count: number): number[] => {
      const [contour] = outline.contours;
      const { cumulative } = measureArcLength(contour);
      const total = cumulative[cumulative.length - 1];
      const at = Array.from({ length: count }, (_, k) => {
        const place = nearestOnContour(contour, points[start + 6 * k], points[start + 6 * k + 1]);
        return shareOfCurvePlace(measureArcLength(contour), place as NonNullable<typeof place>);
      });
      expect(total).toBeGreaterThan(0);
      return at.map((share, k) => {
        const next = at[(k + 1) % count];
        const forward = (((next - share) % 1) + 1) % 1;
        return Math.min(forward, 1 - forward);
      });
    };
    const count = 40;
    const { plan } = best(arrow, star, { even: count });
    for (const [points, outline] of [
      [plan.from, arrow],
      [plan.to, star],
    ] as const)
      for (const step of steps(outline, points, 0, count)) expect(step).toBeCloseTo(1 / count, 3);
    const ties = [{ contourA: 0, shareA: 0.3, contourB: 0, shareB: 0.4 }];
    const tied = best(arrow, star, { even: count, starts: [{ contourA: 0, shareA: 0, contourB: 0, shareB: 0 }], ties });
    const sizes = (values: number[]): number => new Set(values.map((v) => v.toFixed(3))).size;
    expect(tied.plan.contours[0].segments).toBe(count);
    expect(sizes(steps(arrow, tied.plan.from, 0, count))).toBe(2);
    expect(sizes(steps(star, tied.plan.to, 0, count))).toBe(2);
  });

  test('a softened middle is rounder than the straight one and has the same ends', () => {
    const straight = best(arrow, star, { method: 'straight', smoothing: 0 });
    const soft = best(arrow, star, { method: 'straight', smoothing: 14 });
    const middle = (alternative: Alternative): number => {
      const moment = measureHealth(alternative.plan).moments[10];
      return moment.length ** 2 / moment.area;
    };
    expect(middle(soft)).toBeLessThan(0.8 * middle(straight));
    expect(outlineDistance(endOutline(soft.plan, 'first'), arrow)).toBeLessThan(0.01);
  });

  test('options that name what is not there are refused by name', () => {
    expect(() => best(arrow, star, { ties: [{ contourA: 3, shareA: 0, contourB: 0, shareB: 2 }] })).toThrow(
      /options\.ties\[0\]/,
    );
  });
});

/** The point at a share of a contour of straight segments. */
function pointAtShare(contour: Contour, share: number): [number, number] {
  const p = contour.points;
  const lengths: number[] = [];
  for (let i = 0; i + 6 < p.length; i += 6) lengths.push(Math.hypot(p[i + 6] - p[i], p[i + 7] - p[i + 1]));
  let left = share * lengths.reduce((sum, v) => sum + v, 0);
  for (let k = 0; k < lengths.length; k++) {
    if (left <= lengths[k] || k === lengths.length - 1) {
      const t = left / lengths[k];
      const i = 6 * k;
      return [p[i] + (p[i + 6] - p[i]) * t, p[i + 1] + (p[i + 7] - p[i + 1]) * t];
    }
    left -= lengths[k];
  }
  return [p[0], p[1]];
}
