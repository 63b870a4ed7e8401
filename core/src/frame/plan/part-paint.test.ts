import { describe, expect, test } from '@jest/globals';
import { CAPS, JOINS, type Paint } from '../../paint';
import { AS_DRAWN, type Part, type Placement, plainStroke, type Stroke } from '../../piece';
import { countedIds, drawnPose } from '../../testing/pieces';
import { type PlacedPaint, paintOf, partPaint } from './part-paint';
import type { PartPlan } from './part-plans';

const newId = countedIds();
const [PART] = drawnPose('M0 0H10V10H0Z', newId).parts;
const placed = (
  fill: Paint | null,
  stroke: Partial<Stroke> | null = null,
  more: Partial<Placement> = {},
): PlacedPaint => ({
  part: { ...PART, fill, stroke: stroke && { ...plainStroke('#00ff00', 2), ...stroke } } as Part,
  placement: { ...AS_DRAWN, ...more },
});
const twice = { scaleX: 2, scaleY: 2 };
const dashes = (a: number[], b: number[], scaleB = 1) =>
  partPaint(placed(null, { dash: a }), placed(null, { dash: b }, { scaleX: scaleB, scaleY: scaleB })).stroke?.dash;

describe('the paint of two ends', () => {
  test('what neither side has is not painted', () => {
    expect(partPaint(placed(null), placed(null))).toEqual({ fill: null, stroke: null });
    expect(partPaint(undefined, undefined)).toEqual({ fill: null, stroke: null });
  });

  test('a fill that one side lacks is its own colour, see-through; an unpaired part keeps it', () => {
    const alphas = (a: PlacedPaint | undefined, b: PlacedPaint | undefined): number[] => {
      const { fill } = partPaint(a, b);
      if (fill?.kind !== 'colour') throw new Error('Expected a colour.');
      expect(fill.colours.map(({ r, g, b: blue }) => [r, g, blue])).toEqual([
        [1, 0, 0],
        [1, 0, 0],
      ]);
      return fill.colours.map(({ alpha }) => alpha);
    };
    expect(alphas(placed('#ff0000'), placed(null))).toEqual([1, 0]);
    expect(alphas(placed(null), placed('#ff0000'))).toEqual([0, 1]);
    expect(alphas(placed('#ff0000'), undefined)).toEqual([1, 1]);
    expect(alphas(undefined, placed('#ff0000'))).toEqual([1, 1]);
  });

  test('a stroke that one side lacks grows from nothing in the place where it is; an unpaired one keeps its width', () => {
    const widths = (a: PlacedPaint | undefined, b: PlacedPaint | undefined) => partPaint(a, b).stroke?.strokeWidth;
    expect(widths(placed(null, {}), placed(null, { width: 5 }, twice))).toEqual([[2], [10]]);
    expect(widths(placed(null, {}), placed('#ff0000'))).toEqual([[2], [0]]);
    expect(widths(placed('#ff0000'), placed(null, {}, twice))).toEqual([[0], [4]]);
    expect(widths(undefined, placed(null, {}, twice))).toEqual([[4], [4]]);
    expect(widths(placed(null, {}, twice), undefined)).toEqual([[4], [4]]);
  });

  test('ends, joins and mitres are those of each side, or of the only one', () => {
    const from = placed(null, { cap: 'round', join: 'bevel', miter: 3 });
    const to = placed(null, { cap: 'square', join: 'round', miter: 7, dashOffset: 5 }, twice);
    expect(partPaint(from, to).stroke).toMatchObject({
      cap: [[CAPS.indexOf('round')], [CAPS.indexOf('square')]],
      join: [[JOINS.indexOf('bevel')], [JOINS.indexOf('round')]],
      miter: [[3], [7]],
      dashOffset: [[0], [10]],
    });
    expect(partPaint(placed(null), to).stroke).toMatchObject({ miter: [[7], [7]], dashOffset: [[5], [10]] });
  });

  test('dash patterns of other lengths are repeated until both have as many; lengths are those of the canvas', () => {
    expect(dashes([4, 2], [1, 1], 3)).toEqual([
      [4, 2],
      [3, 3],
    ]);
    expect(dashes([4, 2], [1, 2, 3, 4])).toEqual([
      [4, 2, 4, 2],
      [1, 2, 3, 4],
    ]);
    expect(dashes([1, 2, 3, 4], [1, 2, 3, 4, 5, 6])).toEqual([
      [1, 2, 3, 4, 1, 2, 3, 4, 1, 2, 3, 4],
      [1, 2, 3, 4, 5, 6, 1, 2, 3, 4, 5, 6],
    ]);
  });

  test('an unbroken line opens its gaps: each dash has the length of the gap after it as well', () => {
    expect(dashes([], [4, 2, 1, 3])).toEqual([
      [6, 0, 4, 0],
      [4, 2, 1, 3],
    ]);
    expect(dashes([4, 2], [])).toEqual([
      [4, 2],
      [6, 0],
    ]);
    expect(dashes([], [])).toEqual([[], []]);
  });

  test('patterns that have no common length soon are cut at sixteen', () => {
    const long = Array.from({ length: 14 }, (_, i) => i + 1);
    const found = dashes([1, 2, 3, 4, 5, 6], long);
    expect(found?.map((list) => list.length)).toEqual([16, 16]);
    expect(found?.[1].slice(12)).toEqual([13, 14, 1, 2]);
  });

  test('is found once for the same records, and anew when one of them is another', () => {
    const plan = {} as PartPlan;
    const [a, b] = [placed('#ff0000'), placed('#0000ff')];
    const first = paintOf(plan, a, b);
    expect(paintOf(plan, { ...a }, { ...b })).toBe(first);
    expect(paintOf(plan, a, { ...b, part: { ...b.part } })).not.toBe(first);
    const again = paintOf(plan, a, b);
    expect(paintOf(plan, a, { ...b, placement: { ...AS_DRAWN } })).not.toBe(again);
    expect(paintOf(plan, { ...a, placement: { ...AS_DRAWN } }, b)).not.toBe(again);
  });
});
