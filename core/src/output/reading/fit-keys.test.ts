import { describe, expect, test } from '@jest/globals';
import { ease, type KeySpline } from '../../easing';
import { blendColour, planColourBlend } from '../../paint';
import { numbersSample } from './chain-values';
import { fitKeys } from './fit-keys';
import type { Sample } from './sample';
import type { Moving } from './segment';

const moving = (
  at: (seconds: number) => Sample,
  breaks: readonly number[],
  curves: readonly KeySpline[] = [],
): Moving<Sample> => ({ at, breaks, curves: () => curves, isSteady: () => false });
const number = (value: number): Sample => numbersSample([value], 0.01);

describe('keys for a value that is looked at from outside', () => {
  test('what stands, goes and stands again is told by three segments, with the curve of the file', () => {
    const curve: KeySpline = [0.6, 0, 0.2, 1];
    const [x1, y1, x2, y2] = curve;
    const value = (t: number): Sample =>
      number(100 * ease({ kind: 'cubic-bezier', x1, y1, x2, y2 }, Math.min(1, Math.max(0, t - 1))));
    const { segments, halved } = fitKeys(moving(value, [0, 1, 2, 3], [curve]), 0, 3, [1, 2]);
    expect(halved).toBe(0);
    expect(segments.map(({ from, until, still }) => [from, until, still])).toEqual([
      [0, 1, true],
      [1, 2, false],
      [2, 3, true],
    ]);
    expect(segments[1].easing).toEqual({ kind: 'cubic-bezier', x1, y1, x2, y2 });
    expect([segments[1].first.numbers[0], segments[1].last.numbers[0]]).toEqual([0, 100]);
  });

  test('without a curve that fits it is halved until straight ways are near enough', () => {
    const wave = (t: number): Sample => number(10 * Math.sin(3 * t));
    const { segments, halved } = fitKeys(moving(wave, []), 0, 1, []);
    expect(halved).toBeGreaterThan(3);
    for (const { from, until, first, last, easing } of segments)
      for (const share of [0.3, 0.6]) {
        const said = first.numbers[0] + (last.numbers[0] - first.numbers[0]) * ease(easing, share);
        expect(Math.abs(said - 10 * Math.sin(3 * (from + share * (until - from))))).toBeLessThan(0.02);
      }
  });

  test('a key a frame along a straight way is one way again; a corner stays a corner', () => {
    const breaks = Array.from({ length: 61 }, (_, k) => k / 60);
    const corner = (t: number): Sample => number(t < 0.5 ? 10 * t : 5 - 1.2 * (t - 0.5));
    const { segments } = fitKeys(moving(corner, breaks), 0, 1, breaks);
    expect(segments).toHaveLength(1);
    // On one line, there and a part of the way back: one way with an easing that says so.
    const [{ easing, first, last }] = segments;
    for (const t of [0.2, 0.5, 0.8])
      expect(first.numbers[0] + (last.numbers[0] - first.numbers[0]) * ease(easing, t)).toBeCloseTo(
        corner(t).numbers[0],
        3,
      );
    const bent = (t: number): Sample => numbersSample([10 * t, t < 0.5 ? 0 : 8 * (t - 0.5)], 0.01);
    expect(fitKeys(moving(bent, breaks), 0, 1, breaks).segments.map(({ until }) => until)).toEqual([0.5, 1]);
  });

  test('outlines are followed no further than three tenths beyond their ends: then there is one more', () => {
    const breaks = [0, 0.5, 1];
    const far = (t: number): Sample => number(t < 0.5 ? 40 * t : 20 - 30 * (t - 0.5));
    const { segments } = fitKeys(moving(far, breaks), 0, 1, breaks);
    expect(segments).toHaveLength(2);
  });

  test('a jump is two segments with nothing between them', () => {
    const value = (t: number): Sample => number(t < 1 ? 3 : 7);
    const { segments } = fitKeys(moving(value, [0, 1, 2]), 0, 2, [1]);
    expect(segments.map(({ first, last, still }) => [first.numbers[0], last.numbers[0], still])).toEqual([
      [3, 3, true],
      [7, 7, true],
    ]);
  });

  test('a colour goes through the space in which the file has it', () => {
    const [red, blue] = [
      { r: 1, g: 0, b: 0, alpha: 1 },
      { r: 0, g: 0, b: 1, alpha: 1 },
    ];
    for (const space of ['srgb', 'oklab'] as const) {
      const blend = planColourBlend(red, blue, space);
      const value = (t: number): Sample => numbersSample([], 1, [...blendColour(blend, t, new Float64Array(4))]);
      const { segments } = fitKeys(moving(value, []), 0, 1, []);
      expect(segments.map((segment) => segment.space)).toEqual([space]);
    }
  });
});
