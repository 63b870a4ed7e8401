import { describe, expect, test } from '@jest/globals';
import { matchOutlines } from '../match';
import {
  contourArea,
  ellipseContour,
  flattenContour,
  type Outline,
  polygonContour,
  reverseContour,
  transformOutline,
} from '../outline';
import { readPathData } from '../svg';
import { strayOf } from '../testing/distance';
import { realIcons } from '../testing/icons';
import { scaling } from '../vec';
import { findCrossings } from './crossings';
import { evaluate, followProgress } from './evaluate';
import { measureHealth } from './health';
import { morphPaths } from './morph-paths';
import { inBetweenOutline } from './plan-outline';
import { planShift } from './plan-shift';

const outline = (...contours: Outline['contours']): Outline => ({ contours, fillRule: 'nonzero' });
const square = (x: number, y: number, size: number) =>
  polygonContour([x, y, x + size, y, x + size, y + size, x, y + size]);
const planOf = (a: Outline, b: Outline, direction: 'auto' | 'same' | 'reversed' = 'auto') =>
  planShift(a, b, matchOutlines(a, b, { direction }));
const middle = (a: Outline, b: Outline): Outline => {
  const plan = planOf(a, b);
  return inBetweenOutline(plan, evaluate(plan, 0.5));
};

describe('60 real icons, each to the next, at 1000 px', () => {
  const icons = realIcons(61).map(({ name, d }) => ({
    name,
    outline: transformOutline(readPathData(d), scaling(1000 / 24)),
  }));

  test('21 in-betweens are finite; the first and last are the icons to 0.01 px', () => {
    expect(icons.length).toBe(61);
    let worst = 0;
    for (let i = 0; i + 1 < icons.length; i++) {
      const a = icons[i].outline;
      const b = icons[i + 1].outline;
      const plan = planOf(a, b);
      const out = new Float64Array(plan.from.length);
      for (let k = 0; k <= 20; k++) {
        evaluate(plan, k / 20, out);
        if (!out.every(Number.isFinite)) throw new Error(`${icons[i].name}: inBetween ${k} is not finite`);
      }
      const visible = (inBetween: Outline): Outline => ({
        ...inBetween,
        contours: inBetween.contours.filter(({ points }) => points.some((v, n) => Math.abs(v - points[n % 2]) > 1e-6)),
      });
      const ends: [Outline, Outline][] = [
        [visible(inBetweenOutline(plan, evaluate(plan, 0, out))), a],
        [visible(inBetweenOutline(plan, evaluate(plan, 1, out))), b],
      ];
      for (const [inBetween, icon] of ends) {
        expect(inBetween.contours).toHaveLength(icon.contours.length);
        // Exact splitting keeps signed areas; a slow distance check follows on every tenth pair.
        const area = (o: Outline): number =>
          o.contours.reduce((sum, contour) => sum + Math.abs(contourArea(contour)), 0);
        expect(Math.abs(area(inBetween) - area(icon)) / area(icon)).toBeLessThan(1e-4);
        if (i % 10 === 0) worst = Math.max(worst, strayOf(inBetween, icon), strayOf(icon, inBetween));
      }
    }
    expect(worst).toBeLessThan(0.01);
  }, 120_000);
});

describe('known answers', () => {
  test('identical outlines stand still', () => {
    const a = readPathData('M10 10C40 0 90 20 90 60S40 100 20 80Z');
    expect(strayOf(middle(a, a), a)).toBeLessThan(0.01);
  });

  test('a square against itself from another start, the other way round, does not move', () => {
    const a = outline(square(0, 0, 100));
    const b = outline(reverseContour(polygonContour([100, 100, 0, 100, 0, 0, 100, 0])));
    expect(strayOf(middle(a, b), a)).toBeLessThan(0.01);
  });

  test('a circle with points at its sides against a square with points at its corners does not turn (common practice)', () => {
    const half = middle(outline(ellipseContour(50, 50, 50, 50)), outline(square(0, 0, 100)));
    // Unturned, the half-way shape is farthest out along the diagonals, by the mean of circle and corner.
    const point = (angle: number): number => {
      let reach = 0;
      const p = flattenContour(half.contours[0], 0.001);
      for (let i = 0; i < p.length; i += 2) {
        const away = Math.atan2(p[i + 1] - 50, p[i] - 50) - angle;
        if (Math.abs(Math.atan2(Math.sin(away), Math.cos(away))) < 0.05)
          reach = Math.max(reach, Math.hypot(p[i] - 50, p[i + 1] - 50));
      }
      return reach;
    };
    for (const k of [1, 3, 5, 7]) expect(point((k * Math.PI) / 4)).toBeCloseTo((50 + 50 * Math.SQRT2) / 2, 0);
    for (const k of [0, 2, 4, 6]) expect(point((k * Math.PI) / 4)).toBeCloseTo(50, 0);
  });

  test('outlines run opposite ways fold unless one is reversed, and do not once it is (common practice)', () => {
    const pentagon = outline(polygonContour([50, 0, 98, 35, 79, 90, 21, 90, 2, 35]));
    const sector = readPathData('M90 50A40 40 0 1 0 50 90L50 70A20 20 0 1 1 70 50Z');
    const health = (direction: 'auto' | 'same' | 'reversed') => measureHealth(planOf(pentagon, sector, direction));
    expect(health('same').verdict).toBe('broken');
    expect(health('same').sentence).toContain('direction');
    expect(health('reversed').folds).toBe(0);
    expect(health('auto').folds).toBe(0);
  });

  test('four anchors against eight: neither end changes and nothing is added by hand', () => {
    const octagon = outline(polygonContour([30, 0, 70, 0, 100, 30, 100, 70, 70, 100, 30, 100, 0, 70, 0, 30]));
    const plan = planOf(outline(square(0, 0, 100)), octagon);
    expect(strayOf(inBetweenOutline(plan, plan.from), outline(square(0, 0, 100)))).toBeLessThan(0.01);
    expect(strayOf(inBetweenOutline(plan, plan.to), octagon)).toBeLessThan(0.01);
    expect(plan.contours[0].segments).toBeLessThanOrEqual(12);
  });

  test('an unpaired contour grows from a point inside it and stays in the structure', () => {
    const plan = planOf(outline(square(0, 0, 40)), outline(square(0, 0, 40), square(41, 10, 20)));
    const born = plan.contours.find(({ role }) => role === 'appears');
    expect(born).toBeDefined();
    const at = born?.at ?? 0;
    for (let i = at; i < at + 26; i += 2) expect([plan.from[i], plan.from[i + 1]]).toEqual([51, 20]);
    expect(evaluate(plan, 1.2).slice(at, at + 26)).toEqual(plan.to.slice(at, at + 26));
  });
});

describe('evaluating', () => {
  const plan = planOf(outline(square(0, 0, 100)), outline(ellipseContour(50, 50, 50, 50)));

  test('writes into the buffer it is given, the same numbers whatever came before', () => {
    const out = new Float64Array(plan.from.length);
    expect(evaluate(plan, 0.3, out)).toBe(out);
    const once = out.slice();
    evaluate(plan, 0.9, out);
    expect(evaluate(plan, 0.3, out)).toEqual(once);
    expect(evaluate(plan, 1)).toEqual(plan.to);
  });

  const SAFE = { below: 0.3, above: 0.3 };
  test('progress beyond the ends goes on smoothly and never past the overshoot', () => {
    expect(followProgress(0.4, SAFE)).toBe(0.4);
    let before = 1;
    for (let p = 1.01; p < 50; p *= 1.1) {
      const followed = followProgress(p, SAFE);
      expect(followed).toBeGreaterThan(before);
      expect(followed).toBeLessThan(1.3);
      expect(followProgress(1 - p, SAFE)).toBeCloseTo(1 - followed, 12);
      before = followed;
    }
    expect(followProgress(1.001, SAFE)).toBeCloseTo(1.001, 4);
  });

  test('plans are rounded to 1/4096 px', () => {
    for (const v of [...plan.from, ...plan.to]) expect(Number.isInteger(v * 4096)).toBe(true);
  });

  test('an unknown method is refused by name', () => {
    const a = outline(square(0, 0, 1));
    expect(() => planShift(a, a, matchOutlines(a, a), 'magic' as never)).toThrow(/magic/);
  });
});

describe('crossings', () => {
  const count = (d: string) => {
    const { self, between } = findCrossings(readPathData(d), 0.01);
    return [self.length, between.length];
  };

  test.each([
    ['M0 0L10 10L10 0L0 10Z', [1, 0], 'a bow tie'],
    ['M0 0H10V10H0Z', [0, 0], 'a square'],
    ['M0 0H10V10H0ZM5 5H15V15H5Z', [0, 2], 'two squares that overlap'],
    ['M0 0H10V10H0ZM10 0H20V10H10Z', [0, 0], 'two squares that share an edge'],
    ['M50 5L79 95L3 39L97 39L21 95Z', [5, 0], 'a pentagram'],
  ])('%s: %j (%s)', (d, expected) => {
    expect(count(d)).toEqual(expected);
  });
});

describe('morphPaths', () => {
  test('gives path data with the same commands at every progress', () => {
    const inBetween = morphPaths('M0 0H100V100H0Z', 'M50 0A50 50 0 1 1 50 100A50 50 0 1 1 50 0Z');
    const commands = (p: number): string => inBetween(p).replace(/[^A-Z]/g, '');
    expect(new Set([0, 0.2, 0.5, 0.99, 1].map(commands)).size).toBe(1);
    expect(() => morphPaths('M0 0L', 'M0 0L1 1')).toThrow(/character/);
  });
});
