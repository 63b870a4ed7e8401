import { describe, expect, test } from '@jest/globals';
import { seededRandom } from '../num';
import { contourArea, ellipseContour, type Nesting, nestingOf, type Outline, reverseContour } from './index';

interface Disc {
  readonly x: number;
  readonly y: number;
  readonly r: number;
}

/** Circles that do not cross: each random one is kept if it lies wholly inside or wholly outside of every other. */
function discs(count: number, seed: number): Disc[] {
  const random = seededRandom(seed);
  const kept: Disc[] = [];
  for (let tries = 0; kept.length < count && tries < 60_000; tries++) {
    const disc = { x: random() * 1_000, y: random() * 1_000, r: 2 + 300 * random() ** 4 };
    const clear = kept.every((other) => {
      const d = Math.hypot(disc.x - other.x, disc.y - other.y);
      return d > disc.r + other.r + 1 || d < Math.abs(disc.r - other.r) - 1;
    });
    if (clear) kept.push(disc);
  }
  return kept;
}

/** Nesting of circles by their distances, without any outline. */
function known(all: readonly Disc[], clockwise: readonly boolean[], fillRule: Outline['fillRule']): Nesting[] {
  return all.map((disc, i) => {
    const around = all
      .map((_, j) => j)
      .filter((j) => all[j].r > disc.r && Math.hypot(disc.x - all[j].x, disc.y - all[j].y) < all[j].r);
    const parent = around.reduce((best, j) => (best < 0 || all[j].r < all[best].r ? j : best), -1);
    const winding = around.reduce((sum, j) => sum + (clockwise[j] ? 1 : -1), 0);
    const inner = winding + (clockwise[i] ? 1 : -1);
    const hole = fillRule === 'evenodd' ? around.length % 2 === 1 : winding !== 0 && inner === 0;
    return { depth: around.length, parent, hole };
  });
}

describe('nesting of many contours', () => {
  test.each([
    [30, 'nonzero', 1],
    [200, 'nonzero', 2],
    [400, 'evenodd', 3],
  ] as const)('%i circles, %s: depth, nearest around and holes as their distances say', (count, fillRule, seed) => {
    const all = discs(count, seed);
    const random = seededRandom(seed + 100);
    const contours = all.map(({ x, y, r }) => {
      const circle = ellipseContour(x, y, r, r);
      return random() < 0.5 ? circle : reverseContour(circle);
    });
    const clockwise = contours.map((contour) => contourArea(contour) > 0);
    expect(all).toHaveLength(count);
    const nesting = nestingOf({ contours, fillRule });
    expect(nesting).toEqual(known(all, clockwise, fillRule));
    expect(Math.max(...nesting.map(({ depth }) => depth))).toBeGreaterThanOrEqual(count > 100 ? 2 : 1);
  });

  test('a pile of equal circles among others: each has the same around it, whether few or many', () => {
    const pile = (count: number): Nesting[] =>
      nestingOf({
        contours: [
          ellipseContour(50, 50, 40, 40),
          ...Array.from({ length: count }, () => ellipseContour(50, 50, 5, 5)),
        ],
        fillRule: 'nonzero',
      });
    const few = pile(20);
    expect(pile(200).slice(0, 21)).toEqual(few);
    expect(few[1]).toMatchObject({ parent: 0, hole: false });
  });

  test('rings in each other, deeper than one is held against', () => {
    const rings = Array.from({ length: 300 }, (_, i) => ellipseContour(0, 0, 1 + i, 1 + i));
    const nesting = nestingOf({ contours: rings, fillRule: 'evenodd' });
    expect(nesting.map(({ depth }) => depth)).toEqual(rings.map((_, i) => 299 - i));
    expect(nesting.map(({ parent }) => parent)).toEqual(rings.map((_, i) => (i === 299 ? -1 : i + 1)));
    expect(nesting.filter(({ hole }) => hole)).toHaveLength(150);
  });
});
