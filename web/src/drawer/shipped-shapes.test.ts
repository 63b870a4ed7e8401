import { areaCentre, outlineBox, readSvg } from '@core';
import { describe, expect, test } from '@jest/globals';
import { SHIPPED_SHAPES, shippedSvg } from './shipped-shapes';

describe('the shapes that come with the drawer', () => {
  test('have names of their own and words to be found by', () => {
    expect(new Set(SHIPPED_SHAPES.map(({ name }) => name)).size).toBe(SHIPPED_SHAPES.length);
    expect(SHIPPED_SHAPES.filter(({ words }) => words.trim() === '')).toEqual([]);
  });
  test.each(SHIPPED_SHAPES.map((shape) => [shape.name, shape] as const))(
    '%s is read without a remark, has an area, and lies in the middle of its box',
    (_, shape) => {
      const { shapes, notes, width, height } = readSvg(shippedSvg(shape));
      expect([shapes.length, notes.length, width, height]).toEqual([1, 0, 100, 100]);
      const { minX, minY, maxX, maxY } = outlineBox(shapes[0].outline);
      expect((minX + maxX) / 2).toBeCloseTo(50, 2);
      expect((minY + maxY) / 2).toBeCloseTo(50, 2);
      expect(Math.min(minX, minY)).toBeGreaterThanOrEqual(0);
      expect(Math.max(maxX, maxY)).toBeLessThanOrEqual(100);
      expect(areaCentre(shapes[0].outline).area).toBeGreaterThan(500);
    },
  );
});
