import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { matchOutlines } from '../match';
import {
  type Contour,
  ContourBuilder,
  contourArea,
  contourLength,
  type Outline,
  outlineBox,
  reverseContour,
  transformOutline,
} from '../outline';
import { readPathData } from '../svg';
import { strayOf } from '../testing/distance';
import { realIcons } from '../testing/icons';
import { rotation, scaling } from '../vec';
import { evaluate } from './evaluate';
import { measureHealth } from './health';
import { inBetweenOutline } from './plan-outline';
import { planShift } from './plan-shift';

/** Coordinates that repeat often, so that points coincide, lines double back and segments have no length. */
const coordinate = fc.oneof(
  fc.integer({ min: 0, max: 4 }).map((v) => v * 25),
  fc.double({ min: -200, max: 200, noNaN: true }),
);
const segment = fc.oneof(
  fc.tuple(coordinate, coordinate),
  fc.tuple(coordinate, coordinate, coordinate, coordinate, coordinate, coordinate),
);
const contour: fc.Arbitrary<Contour> = fc
  .tuple(coordinate, coordinate, fc.array(segment, { minLength: 1, maxLength: 8 }), fc.boolean())
  .map(([x, y, segments, closed]) => {
    const builder = new ContourBuilder(x, y);
    for (const s of segments) {
      if (s.length === 2) builder.lineTo(s[0], s[1]);
      else builder.cubicTo(s[0], s[1], s[2], s[3], s[4], s[5]);
    }
    return builder.finish(closed);
  });
const outline: fc.Arbitrary<Outline> = fc.record({
  contours: fc.array(contour, { minLength: 0, maxLength: 4 }),
  fillRule: fc.constantFrom('nonzero' as const, 'evenodd' as const),
});

const planOf = (a: Outline, b: Outline) => planShift(a, b, matchOutlines(a, b));
const sorted = (values: readonly number[]): number[] => [...values].sort((p, q) => p - q);

describe('any two outlines, however degenerate', () => {
  test('have a plan of one structure with finite in-betweens, whose ends are the outlines', () => {
    fc.assert(
      fc.property(outline, outline, (a, b) => {
        const plan = planOf(a, b);
        const out = new Float64Array(plan.from.length);
        for (const progress of [-0.5, 0, 0.13, 0.5, 0.99, 1, 1.7]) {
          expect(evaluate(plan, progress, out).every(Number.isFinite)).toBe(true);
        }
        const roles = plan.contours.map(({ role }) => role);
        expect(roles.filter((role) => role !== 'appears')).toHaveLength(a.contours.length);
        expect(roles.filter((role) => role !== 'vanishes')).toHaveLength(b.contours.length);
        // Lengths are kept by exact splitting, up to the grid of the plan.
        const lengths = (inBetween: Float64Array, leftOut: string): number[] =>
          sorted(
            inBetweenOutline(plan, inBetween)
              .contours.filter((_, i) => plan.contours[i].role !== leftOut)
              .map(contourLength),
          );
        const check = (found: number[], wanted: number[]): void =>
          found.forEach((length, i) => expect(Math.abs(length - wanted[i])).toBeLessThan(0.05 + wanted[i] * 1e-4));
        check(lengths(plan.from, 'appears'), sorted(a.contours.map(contourLength)));
        check(lengths(plan.to, 'vanishes'), sorted(b.contours.map(contourLength)));
      }),
      { numRuns: 40, seed: 2026 },
    );
  });

  test('have a health whose figures are numbers and whose verdict has a sentence', () => {
    fc.assert(
      fc.property(outline, outline, (a, b) => {
        const health = measureHealth(planOf(a, b));
        expect(['good', 'look', 'broken']).toContain(health.verdict);
        expect(health.sentence.length).toBeGreaterThan(10);
        for (const v of [health.folds, health.crossings, health.areaDip, health.swell, health.perimeter]) {
          expect(Number.isFinite(v)).toBe(true);
          expect(v).toBeGreaterThanOrEqual(0);
        }
      }),
      { numRuns: 25, seed: 7 },
    );
  });

  test('the first in-between covers the box of the first outline, the last that of the second', () => {
    fc.assert(
      fc.property(contour, contour, (ca, cb) => {
        const a: Outline = { contours: [ca], fillRule: 'nonzero' };
        const b: Outline = { contours: [cb], fillRule: 'nonzero' };
        const plan = planOf(a, b);
        for (const [inBetween, end] of [
          [plan.from, a],
          [plan.to, b],
        ] as const) {
          const found = outlineBox(inBetweenOutline(plan, inBetween));
          const wanted = outlineBox(end);
          for (const side of ['minX', 'maxX', 'minY', 'maxY'] as const) {
            expect(Math.abs(found[side] - wanted[side])).toBeLessThan(0.01);
          }
        }
      }),
      { numRuns: 25, seed: 5 },
    );
  });
});

describe('real icons, however they are written', () => {
  const pairs = realIcons(48, 41)
    .map(({ d }) => transformOutline(readPathData(d), scaling(100 / 24)))
    .filter(({ contours }) => contours.length === 1);
  const half = (a: Outline, b: Outline): Outline => {
    const plan = planOf(a, b);
    return inBetweenOutline(plan, evaluate(plan, 0.5));
  };
  const each = (work: (a: Outline, b: Outline) => boolean): number => {
    let good = 0;
    let all = 0;
    for (let i = 0; i + 1 < pairs.length; i++) {
      all++;
      if (work(pairs[i], pairs[i + 1])) good++;
    }
    expect(all).toBeGreaterThan(4);
    return good / all;
  };

  test('run the other way, nothing changes: direction is found by the shape', () => {
    const turned = (o: Outline): Outline => ({ ...o, contours: o.contours.map(reverseContour) });
    const share = each((a, b) => {
      const plain = half(a, b);
      const other = half(a, turned(b));
      return Math.max(strayOf(plain, other, 0.02), strayOf(other, plain, 0.02)) < 0.5;
    });
    expect(share).toBeGreaterThanOrEqual(0.8);
  });

  test('an outline against itself turned a little stays an outline of the same area', () => {
    for (const a of pairs) {
      const b = transformOutline(a, rotation(0.1));
      const area = (o: Outline): number => Math.abs(contourArea(o.contours[0]));
      expect(area(half(a, b)) / area(a)).toBeGreaterThan(0.97);
    }
  });
});
