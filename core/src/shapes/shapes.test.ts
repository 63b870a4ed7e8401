import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { contourArea, contourLength, enclosingCircle, outlineBox, outlineOfContours, segmentCount } from '../outline';
import { mapPoint, multiply, rotation, scaling, translation } from '../vec';
import {
  adjustableContours,
  dragShapeHandle,
  SHAPE_KINDS,
  type ShapeSource,
  shapeHandles,
  shapeInBox,
  shapeParameter,
  shapeParameters,
  transformShape,
  withShapeParameter,
} from './index';

const area = (source: ShapeSource): number => adjustableContours(source).reduce((sum, c) => sum + contourArea(c), 0);
const at = { x: 30, y: -20, rotation: 25 };
describe('areas by the formulas of the handbook (Bronshtein & Semendyayev, Handbook of Mathematics: plane figures)', () => {
  test.each<[string, ShapeSource, number]>([
    ['rectangle', { kind: 'rectangle', ...at, width: 40, height: 20, radii: [0, 0, 0, 0] }, 800],
    [
      'rectangle with round corners',
      { kind: 'rectangle', ...at, width: 40, height: 20, radii: [4, 4, 4, 4] },
      800 - (4 - Math.PI) * 16,
    ],
    ['ellipse', { kind: 'ellipse', ...at, width: 40, height: 20 }, Math.PI * 200],
    ['hexagon', { kind: 'polygon', ...at, radius: 10, sides: 6, rounding: 0 }, 1.5 * Math.sqrt(3) * 100],
    ['triangle', { kind: 'polygon', ...at, radius: 10, sides: 3, rounding: 0 }, 0.75 * Math.sqrt(3) * 100],
    [
      'star of five points',
      { kind: 'star', ...at, radius: 10, points: 5, inner: 0.5, rounding: 0 },
      5 * 10 * 5 * Math.sin(Math.PI / 5),
    ],
    ['ring sector', { kind: 'ring', ...at, outer: 10, inner: 6, from: 10, to: 130 }, ((100 - 36) * Math.PI) / 3],
    ['slice', { kind: 'ring', ...at, outer: 10, inner: 0, from: 0, to: 90 }, 25 * Math.PI],
    ['whole ring', { kind: 'ring', ...at, outer: 10, inner: 6, from: 0, to: 360 }, (100 - 36) * Math.PI],
    ['capsule', { kind: 'capsule', ...at, length: 40, thickness: 10 }, 300 + 25 * Math.PI],
    ['even blob', { kind: 'blob', ...at, radius: 10, lobes: 8, wobble: 0, seed: 1 }, 100 * Math.PI],
  ])('%s', (_name, source, expected) => {
    expect(Math.abs(area(source) - expected) / expected).toBeLessThan(1e-3);
  });

  test('the check above is not blind: a four-cubic disc differs from the circle by less than 3e-4, and not by nothing', () => {
    const disc = area({ kind: 'ellipse', ...at, width: 2, height: 2 });
    expect(Math.abs(disc - Math.PI) / Math.PI).toBeLessThan(3e-4);
    expect(disc).not.toBe(Math.PI);
  });
});

describe('adjustable shapes', () => {
  const any: fc.Arbitrary<ShapeSource> = fc
    .tuple(
      fc.constantFrom(...SHAPE_KINDS),
      fc.integer({ min: 20, max: 300 }),
      fc.integer({ min: 20, max: 300 }),
      fc.integer({ min: -90, max: 90 }),
    )
    .map(([kind, w, h, turn]) => ({ ...shapeInBox(kind, 5, 7, 5 + w, 7 + h, 3), rotation: turn }) as ShapeSource);

  test('a handle dragged to where it stands changes nothing but rounding', () => {
    fc.assert(
      fc.property(any, (source) => {
        for (const { id, x, y } of shapeHandles(source)) {
          // Handles of sharp corners stand a little inside the shape, where a radius begins.
          if (id.startsWith('radius') && source.kind === 'rectangle') continue;
          const after = dragShapeHandle(source, id, x, y);
          for (const { key } of shapeParameters(source.kind))
            expect(shapeParameter(after, key)).toBeCloseTo(shapeParameter(source, key), 6);
        }
      }),
      { seed: 5, numRuns: 120 },
    );
  });

  test('mapped shapes are the shapes of mapped parameters, for moves, turns and even scaling', () => {
    fc.assert(
      fc.property(
        any,
        fc.double({ min: 0.2, max: 4, noNaN: true }),
        fc.double({ min: -3, max: 3, noNaN: true }),
        (source, k, turn) => {
          const matrix = multiply(translation(3, -8), multiply(rotation(turn), scaling(k)));
          const mapped = transformShape(source, matrix);
          expect(mapped).toBeDefined();
          const [first] = adjustableContours(source);
          const [second] = adjustableContours(mapped as ShapeSource);
          expect(second.points).toHaveLength(first.points.length);
          for (let i = 0; i < first.points.length; i += 2) {
            const [x, y] = mapPoint(matrix, first.points[i], first.points[i + 1]);
            expect(Math.hypot(second.points[i] - x, second.points[i + 1] - y)).toBeLessThan(1e-6 * (1 + k * 400));
          }
        },
      ),
      { seed: 6, numRuns: 80 },
    );
  });

  test('what cannot stay adjustable says so: a slanted rectangle stretched', () => {
    const rectangle = { ...shapeInBox('rectangle', 0, 0, 10, 20), rotation: 30 };
    expect(transformShape(rectangle, scaling(2, 1))).toBeUndefined();
    expect(transformShape({ ...rectangle, rotation: 0 }, scaling(2, 1))).toMatchObject({ width: 20, height: 20 });
    expect(transformShape(shapeInBox('star', 0, 0, 10, 10), scaling(-1, 1))).toBeUndefined();
  });

  test('size handles keep the opposite corner', () => {
    const before = { ...shapeInBox('rectangle', 10, 10, 50, 40), rotation: 20 } as ShapeSource;
    const corner = (source: ShapeSource): number[] => {
      const { points } = adjustableContours(source)[0];
      return [points[0], points[1]];
    };
    const after = dragShapeHandle(before, 'size', 90, 95);
    corner(after).forEach((v, i) => {
      expect(v).toBeCloseTo(corner(before)[i], 9);
    });
    expect(shapeHandles(after).find(({ id }) => id === 'size')).toMatchObject({
      x: expect.closeTo(90, 6),
      y: expect.closeTo(95, 6),
    });
  });

  test('parameters are kept within their ranges, whole ones whole', () => {
    const star = shapeInBox('star', 0, 0, 10, 10);
    expect(withShapeParameter(star, 'points', 4.6)).toMatchObject({ points: 5 });
    expect(withShapeParameter(star, 'inner', 7)).toMatchObject({ inner: 1 });
    expect(withShapeParameter(star, 'points', Number.NaN)).toBe(star);
    expect(withShapeParameter(shapeInBox('rectangle', 0, 0, 9, 9), 'radii.2', 3)).toMatchObject({
      radii: [0, 0, 3, 0],
    });
  });

  test('rounding never exceeds what edges allow; a rounded polygon stays inside the sharp one', () => {
    for (const rounding of [0, 3, 10, 1e4]) {
      const source: ShapeSource = { kind: 'polygon', ...at, radius: 20, sides: 5, rounding };
      const [contour] = adjustableContours(source);
      expect(contourArea(contour)).toBeLessThanOrEqual(area({ ...source, rounding: 0 }) + 1e-9);
      expect(contour.points.every(Number.isFinite)).toBe(true);
    }
    // As round as can be, a regular polygon is its inscribed circle.
    const whole = adjustableContours({ kind: 'polygon', x: 0, y: 0, rotation: 0, radius: 20, sides: 6, rounding: 1e4 });
    expect(enclosingCircle(outlineOfContours(whole)).r).toBeCloseTo(20 * Math.cos(Math.PI / 6), 2);
  });

  test('arcs and sectors have few segments and the right length', () => {
    const [arc] = adjustableContours({ kind: 'arc', x: 0, y: 0, rotation: 0, radius: 10, from: -90, to: 90 });
    expect([arc.closed, segmentCount(arc)]).toEqual([false, 2]);
    expect(contourLength(arc) / (Math.PI * 10)).toBeCloseTo(1, 3);
  });

  test('shapes without extent have no contours; the same seed is the same blob', () => {
    expect(adjustableContours({ kind: 'ellipse', ...at, width: 0, height: 4 })).toEqual([]);
    expect(adjustableContours({ kind: 'ring', ...at, outer: 4, inner: 4, from: 0, to: 90 })).toEqual([]);
    const blob: ShapeSource = { kind: 'blob', ...at, radius: 9, lobes: 6, wobble: 0.3, seed: 9 };
    expect(adjustableContours(blob)).toEqual(adjustableContours({ ...blob }));
    expect(adjustableContours({ ...blob, seed: 10 })).not.toEqual(adjustableContours(blob));
  });

  test('what is drawn in a box fills it', () => {
    for (const kind of ['rectangle', 'ellipse', 'capsule'] as const) {
      const box = outlineBox(outlineOfContours(adjustableContours(shapeInBox(kind, 40, 30, 10, 20))));
      expect([box.minX, box.maxX, box.minY, box.maxY].map((v) => +v.toFixed(6))).toEqual([10, 40, 20, 30]);
    }
  });
});
