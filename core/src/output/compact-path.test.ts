import { describe, expect, test } from '@jest/globals';
import { type Contour, polygonContour } from '../outline';
import { readPathData } from '../svg';
import { compactPaths } from './compact-path';

const texts = (states: readonly Contour[], digits = 2): string[] => {
  const [{ points, closed }] = states;
  const run = { at: 0, segments: (points.length / 2 - 1) / 3, closed };
  return compactPaths(
    [run],
    states.map((state) => Float64Array.from(state.points)),
    digits,
  );
};
const text = (d: string, digits?: number): string => texts(readPathData(d).contours, digits)[0];

describe('compact path data', () => {
  test('level and upright lines have one number; the last line of a closed contour is drawn by closing it', () => {
    expect(texts([polygonContour([10, 10, 30, 10, 30, 40, 10, 40])])).toEqual(['m10 10h20v30H10z']);
    expect(texts([polygonContour([10, 10, 30, 10, 35, 40])])).toEqual(['m10 10h20l5 30z']);
  });

  test('an open line is written to its end', () => {
    expect(text('M10 10H30V40H10V10')).toBe('m10 10h20v30H10V10');
  });

  test('whatever is shorter is written: relative near its start, absolute near the origin', () => {
    expect(text('M100 100C101 102 103 104 105 107')).toBe('m100 100c1 2 3 4 5 7');
    expect(text('M100 100C1 2 3 4 5 7')).toBe('m100 100C1 2 3 4 5 7');
  });

  test('a letter is not repeated, and a number parts from the one before only where it must', () => {
    expect(text('M0 0C1 5 3 5 4 7C5 3 6 2 8 7')).toBe('m0 0c1 5 3 5 4 7 1-4 2-5 4 0');
    expect(text('M0 0L.5 .25L.25 .75', 2)).toBe('m0 0l.5.25-.25.5');
    expect(text('M0 0L1.5 .25', 2)).toBe('m0 0l1.5.25');
    expect(text('M0 0L2 .25', 2)).toBe('m0 0l2 .25');
  });

  test('a handle that mirrors the one before is left out, unless a line is before it', () => {
    expect(text('M0 0C0 10 10 20 20 20C30 20 45 15 50 3')).toBe('m0 0c0 10 10 20 20 20s25-5 30-17');
    expect(text('M0 0L30 0C40 0 50 5 50 30')).toBe('m0 0h30c10 0 20 5 20 30');
    // Off by more than a unit of the last decimal it does not mirror.
    expect(text('M0 0C0 10 10 20 20 20C30 20.5 45 15 50 3')).toContain('c');
    expect(text('M0 0C0 10 10 20 20 20C30 20.5 45 15 50 3')).not.toContain('s');
  });

  test('a curve whose handles are off the thirds of its line is no line', () => {
    expect(text('M0 0C10 .01 20 0 30 0', 2)).toBe('m0 0h30');
    expect(text('M0 0C10 .02 20 0 30 0', 2)).toBe('m0 0c10 .02 20 0 30 0');
    expect(text('M0 0C10 0 20 .02 30 0', 2)).toBe('m0 0c10 0 20 .02 30 0');
    expect(text('M0 0C10 0 25 0 30 0', 2)).toBe('m0 0c10 0 25 0 30 0');
  });

  test('a segment without length says nothing, unless it is all there is', () => {
    expect(text('M0 0L10 5L10 5L20 0')).toBe('m0 0l10 5 10-5');
    expect(text('M5 5L5 5')).toMatch(/^m5 5[hvl]/);
  });

  test('the states of a run have the same commands: a line is one only where it is one in every state', () => {
    const square = polygonContour([0, 0, 30, 0, 30, 30, 0, 30]);
    const leaning = polygonContour([0, 0, 30, 0, 36, 30, 0, 36]);
    const [first, second] = texts([square, leaning]);
    expect(first.replace(/[^a-z]/gi, '')).toBe(second.replace(/[^a-z]/gi, ''));
    expect(first).toBe('m0 0h30l0 30-30 0z');
    expect(second).toBe('m0 0h30l6 30-36 6z');
  });

  test('errors do not add up: after 300 relative steps the end is still rounded once', () => {
    const steps = Array.from({ length: 300 }, (_, i) => `L${(i + 1) * 1.004} ${i % 2 ? 0.004 : 7.006}`).join('');
    const [contour] = readPathData(text(`M0 0${steps}`, 1)).contours;
    expect(contour.points[contour.points.length - 2]).toBeCloseTo(301.2, 9);
  });

  test('digits: fewer decimals, and none', () => {
    expect(text('M1.2345 6.789L20.5 3.25', 3)).toBe('m1.235 6.789L20.5 3.25');
    expect(text('M1.2345 6.789L20.5 3.25', 0)).toBe('m1 7l20-4');
    expect(text('M-.4 .4L9 9', 0)).toBe('m0 0l9 9');
  });

  test('read back, every state of several runs is where it was to half a unit of the last decimal', () => {
    let seed = 7;
    const next = (): number => {
      seed = (seed * 48271) % 2147483647;
      return (seed / 2147483647) * 200 - 60;
    };
    const states = Array.from({ length: 3 }, () => Float64Array.from({ length: 2 * (13 + 7) }, next));
    const runs = [
      { at: 0, segments: 4, closed: false },
      { at: 26, segments: 2, closed: false },
    ];
    compactPaths(runs, states, 2).forEach((written, k) => {
      const { contours } = readPathData(written);
      expect(contours.map(({ points }) => points.length)).toEqual([26, 14]);
      contours
        .flatMap(({ points }) => [...points])
        .forEach((v, i) => expect(Math.abs(v - states[k][i])).toBeLessThanOrEqual(0.005 + 1e-9));
    });
  });
});
