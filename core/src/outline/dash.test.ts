import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { readPathData } from '../svg';
import { strayOf } from '../testing/distance';
import { contourLength, dashContour, ellipseContour, outlineOfContours, polygonContour } from './index';

const LINE = readPathData('M0 0H100').contours[0];
const CURVE = readPathData('M0 0C30 60 60 -60 100 0S150 80 180 10').contours[0];
const SQUARE = polygonContour([0, 0, 100, 0, 100, 100, 0, 100]);
/** Where dashes of a straight line from 0 begin and end. */
const spans = (lengths: number[], offset = 0, least = 0) =>
  dashContour(LINE, lengths, offset, least).map(({ points }) => [points[0], points[points.length - 2]].map(Math.round));

describe('dashes (SVG 2, 13.5.6)', () => {
  test('of an even and of an odd list, which counts twice', () => {
    expect(spans([30, 10])).toEqual([
      [0, 30],
      [40, 70],
      [80, 100],
    ]);
    expect(spans([20, 10, 5])).toEqual([
      [0, 20],
      [30, 35],
      [55, 65],
      [70, 90],
    ]);
  });
  test('an offset starts inside the pattern, a negative one before it', () => {
    expect(spans([30, 10], 35)).toEqual([
      [5, 35],
      [45, 75],
      [85, 100],
    ]);
    expect(spans([30, 10], -5)).toEqual(spans([30, 10], 35));
    expect(spans([30, 10], 20)[0]).toEqual([0, 10]);
  });
  test('dots are left out, or drawn with the length that keeps their direction', () => {
    expect(spans([0, 25])).toEqual([]);
    expect(dashContour(LINE, [0, 25], 0, 0.01).map(contourLength)).toEqual(
      [0, 25, 50, 75].map(() => expect.closeTo(0.01, 9)),
    );
  });
  test('without any length the line stays whole; a line shorter than its dash too', () => {
    expect(dashContour(CURVE, [], 3)).toEqual([CURVE]);
    expect(dashContour(CURVE, [0, 0], 3)).toEqual([CURVE]);
    expect(dashContour(SQUARE, [500, 10], 0)).toEqual([SQUARE]);
  });
  test('over the start of a closed contour a dash stays one, corner and all', () => {
    const dashes = dashContour(SQUARE, [60, 40], 30);
    expect(dashes.map(contourLength).map(Math.round)).toEqual([60, 60, 60, 60]);
    expect([...dashes[3].points.subarray(0, 2)].map(Math.round)).toEqual([0, 30]);
    expect([...dashes[3].points.slice(-2)].map(Math.round)).toEqual([30, 0]);
  });
  test('too fine ones are refused before they are made', () => {
    expect(() => dashContour(SQUARE, [1e-4, 1e-4], 0)).toThrow('at most 5000');
  });
  test('lie on the outline, and are as long together as the pattern says', () => {
    const ring = ellipseContour(0, 0, 70, 40);
    fc.assert(
      fc.property(
        fc.constantFrom(CURVE, ring, SQUARE),
        fc.integer({ min: 3, max: 40 }),
        fc.integer({ min: 3, max: 40 }),
        fc.integer({ min: -100, max: 100 }),
        (contour, on, off, offset) => {
          const dashes = dashContour(contour, [on, off], offset);
          const total = contourLength(contour);
          let expected = 0;
          const from = -(((offset % (on + off)) + on + off) % (on + off));
          for (let at = from; at < total; at += on + off)
            expected += Math.max(0, Math.min(total, at + on) - Math.max(0, at));
          const sum = dashes.reduce((length, dash) => length + contourLength(dash), 0);
          expect(Math.abs(sum - expected)).toBeLessThan(1e-6 * total);
          expect(strayOf(outlineOfContours(dashes), outlineOfContours([contour]))).toBeLessThan(0.005);
        },
      ),
      { numRuns: 60, seed: 3 },
    );
  });
});
