import { describe, expect, test } from '@jest/globals';
import svgpath from 'svgpath';
import { CoreError } from '../errors';
import { type Outline, outlineLength } from '../outline';
import { realIcons } from '../testing/icons';
import { readPathData, SEGMENT_LIMIT } from './path-data-reader';
import { writePathData } from './path-data-writer';

const written = (d: string): string => writePathData(readPathData(d));
const numbers = (outline: Outline): number[] => outline.contours.flatMap((contour) => [...contour.points]);

describe('grammar of SVG 2, chapter 9.3', () => {
  // Each pair says the same thing in two ways that the grammar allows.
  test.each([
    ['M 10 20 L 30 40', 'm10,20l20 20'],
    ['M10 20L30 40L50 60', 'M10 20 30 40 50 60'],
    ['M10 20l5 5l5 5', 'm10 20 5 5 5 5'],
    ['M1 2L3 2', 'M1 2H3'],
    ['M1 2L1 5', 'M1 2v3'],
    ['M0 0L10 0L10 10', 'M0 0H10V10'],
    ['M0 0L5 0L8 0', 'M0 0h5 3'],
    ['M0.6 0.5L1 1', 'M.6.5L1 1'],
    ['M0 0L10 -20', 'M0 0L10-20'],
    ['M100 200L300 400', 'M1e2 2E2L3.0e+2 4000e-1'],
    ['M0 0C1 2 3 4 5 6C7 8 9 10 11 12', 'M0 0C1 2 3 4 5 6 7 8 9 10 11 12'],
    ['M0 0C1 2 3 4 5 6C7 8 9 9 10 10', 'M0 0C1 2 3 4 5 6S9 9 10 10'],
    ['M0 0C0 0 3 4 5 6', 'M0 0S3 4 5 6'],
    ['M0 0Q1 2 3 4Q5 6 7 8', 'M0 0Q1 2 3 4T7 8'],
    ['M0 0Q0 0 7 8', 'M0 0T7 8'],
    ['M10 10L20 10L20 20ZM10 10L5 5', 'M10 10h10v10zL5 5'],
    ['M10 10L20 20Z', 'm10 10l10 10z'],
    ['M10 10L20 20ZM15 15L1 1', 'M10 10L20 20zm5 5L1 1'],
    ['M0 0A5 5 0 0 1 10 0', 'M0 0a5 5 0 01 10 0'],
    ['M0 0A5 5 0 1 0 10 0A5 5 0 1 0 20 0', 'M0 0a5,5 0 10 10,0 5 5 0 1010 0'],
  ])('%s is %s', (plain, other) => {
    expect(written(other)).toBe(written(plain));
  });

  test('a smooth curve after a curve of the other kind starts at the point itself', () => {
    expect(written('M0 0Q1 2 3 4S6 7 8 9')).toBe(written('M0 0Q1 2 3 4C3 4 6 7 8 9'));
    expect(written('M0 0C1 2 3 4 5 6T8 9')).toBe(written('M0 0C1 2 3 4 5 6Q5 6 8 9'));
  });

  test('a quadratic is raised without change: handles two thirds of the way to its own', () => {
    expect(numbers(readPathData('M0 0Q3 6 6 0'))).toEqual([0, 0, 2, 4, 4, 4, 6, 0]);
  });

  test('sub-paths without a segment are left out; closed ones of zero length stay', () => {
    expect(readPathData('M1 1M2 2L3 3M9 9').contours).toHaveLength(1);
    expect(readPathData('M1 1Z').contours).toHaveLength(1);
    expect(readPathData('').contours).toHaveLength(0);
    expect(readPathData('  none ').contours).toHaveLength(0);
  });

  test('arcs with a zero radius are lines, and arcs to the same point are left out (B.2.5)', () => {
    expect(written('M0 0A0 5 0 0 1 8 8')).toBe('M0 0L8 8');
    expect(readPathData('M3 3A5 5 0 0 1 3 3').contours).toHaveLength(0);
  });
});

describe('malformed data', () => {
  test.each([
    ['L1 2', 1, 'move command'],
    ['M1', 3, 'a number'],
    ['M1 2L3', 7, 'a number'],
    ['M1 2L3 x', 8, 'a number'],
    ['M1 2 X3', 6, 'path command'],
    ['M1 2A1 1 0 2 0 3 3', 12, 'arc flag'],
    ['M1 2,,3 4', 5, 'path command'],
    ['M,1 2', 2, 'a number'],
    ['M1 2L1 2,', 9, 'path command'],
    ['M1 2h', 6, 'a number'],
    ['M1 2L#', 6, 'a number'],
  ])('%s is refused at character %d', (d, character, expected) => {
    let caught: unknown;
    try {
      readPathData(d);
    } catch (error) {
      caught = error;
    }
    expect(caught).toBeInstanceOf(CoreError);
    expect((caught as CoreError).code).toBe('path-data');
    expect((caught as CoreError).where).toBe(`character ${character}`);
    expect((caught as CoreError).message).toContain(expected);
  });

  test.each(['M1e30 0L1 1', 'M0 0L1e999 5', 'M0 0h-99999999'])('huge numbers in %s are refused', (d) => {
    expect(() => readPathData(d)).toThrow(expect.objectContaining({ code: 'number-range' }));
  });

  test('NaN is not a number of the grammar', () => {
    expect(() => readPathData('M0 0L NaN 5')).toThrow(expect.objectContaining({ code: 'path-data' }));
  });

  test('a path with 100,000 segments is refused, one at the limit is read', () => {
    expect(() => readPathData(`M0 0${'h1v1'.repeat(50_000)}`)).toThrow(
      expect.objectContaining({ code: 'too-many-segments' }),
    );
    expect(readPathData(`M0 0${'h1'.repeat(SEGMENT_LIMIT)}`).contours).toHaveLength(1);
  });
});

describe('against svgpath, on real icons', () => {
  test('every point of 200 icons agrees to 1e-3 of a 24 px box', () => {
    // svgpath rounds arcs to its own cubics of at most a quarter turn, which are ours too up to its digits.
    let compared = 0;
    for (const { name, d } of realIcons(200)) {
      const theirs: number[] = [];
      let x = 0;
      let y = 0;
      let sx = 0;
      let sy = 0;
      svgpath(d)
        .abs()
        .unshort()
        .unarc()
        .iterate((segment) => {
          const command = segment[0];
          const n = segment.slice(1) as unknown as number[];
          if (command === 'H') [x] = n;
          else if (command === 'V') [y] = n;
          else if (command === 'Z') [x, y] = [sx, sy];
          else [x, y] = n.slice(-2);
          if (command === 'M') [sx, sy] = [x, y];
          theirs.push(x, y);
        });
      const ours = new Set(
        readPathData(d).contours.flatMap(({ points }) => [...points].map((v) => Math.round(v * 500))),
      );
      for (const v of theirs) {
        const key = Math.round(v * 500);
        expect([name, ours.has(key) || ours.has(key + 1) || ours.has(key - 1)]).toEqual([name, true]);
        compared++;
      }
    }
    expect(compared).toBeGreaterThan(5000);
  });

  test('writing and reading again keeps lengths', () => {
    for (const { d } of realIcons(50)) {
      const outline = readPathData(d);
      expect(outlineLength(readPathData(writePathData(outline, { digits: 6 })))).toBeCloseTo(outlineLength(outline), 3);
    }
  });
});
