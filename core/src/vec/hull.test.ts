import { describe, expect, test } from '@jest/globals';
import { seededRandom } from '../num';
import { convexHull, hullDiameter, outsideHull } from './hull';

const random = seededRandom(8);
const clouds = Array.from({ length: 60 }, (_, k) => Float64Array.from({ length: 2 * (3 + k) }, () => random() * 100));

/** By the definition: a corner of the hull is what no half-plane through it and another point leaves on both sides. */
function cornersSlowly(points: Float64Array): Set<number> {
  const corners = new Set<number>();
  const n = points.length / 2;
  for (let a = 0; a < n; a++)
    for (let b = 0; b < n; b++) {
      if (a === b) continue;
      const side = (c: number): number =>
        (points[2 * b] - points[2 * a]) * (points[2 * c + 1] - points[2 * a + 1]) -
        (points[2 * b + 1] - points[2 * a + 1]) * (points[2 * c] - points[2 * a]);
      if (Array.from({ length: n }, (_, c) => c).every((c) => c === a || c === b || side(c) > 0)) {
        corners.add(a);
        corners.add(b);
      }
    }
  return corners;
}

describe('convex hull', () => {
  test('has the corners that the definition gives, on 60 random clouds', () => {
    for (const cloud of clouds) {
      const hull = convexHull(cloud);
      const key = (points: Float64Array, i: number): string => `${points[2 * i]} ${points[2 * i + 1]}`;
      const found = Array.from({ length: hull.length / 2 }, (_, i) => key(hull, i)).sort();
      expect(found).toEqual([...cornersSlowly(cloud)].map((i) => key(cloud, i)).sort());
    }
  });

  test('how far outside a point is: nothing inside, else as far as from the line of the worst edge', () => {
    const square = convexHull(Float64Array.of(0, 0, 10, 0, 10, 10, 0, 10, 5, 5));
    for (const [x, y, out] of [
      [5, 5, 0],
      [10, 5, 0],
      [13, 5, 3],
      [-2, 16, 6],
      [5, -0.25, 0.25],
    ])
      expect(outsideHull(square, x, y)).toBeCloseTo(out, 12);
    for (const cloud of clouds) {
      const hull = convexHull(cloud);
      for (let i = 0; i < cloud.length; i += 2) expect(outsideHull(hull, cloud[i], cloud[i + 1])).toBeLessThan(1e-9);
    }
  });

  test('of a hull of many corners: nothing within the circle round which they lie less its bulge, else the distance from it', () => {
    const corners = Array.from({ length: 400 }, (_, k) => (k * 2 * Math.PI) / 400);
    const hull = convexHull(
      Float64Array.from(corners.flatMap((angle) => [50 * Math.cos(angle), 50 * Math.sin(angle)])),
    );
    expect(hull).toHaveLength(800);
    const bulge = 50 * (1 - Math.cos(Math.PI / 400));
    for (let k = 0; k < 500; k++) {
      const [angle, r] = [2 * Math.PI * random(), 100 * random()];
      const out = outsideHull(hull, r * Math.cos(angle), r * Math.sin(angle));
      if (r <= 50 - bulge) expect(out).toBe(0);
      else expect(Math.abs(out - (r - 50))).toBeLessThan(2 * bulge);
    }
  });

  test('its diameter is the largest distance of any two points', () => {
    for (const cloud of clouds) {
      let most = 0;
      for (let i = 0; i < cloud.length; i += 2)
        for (let j = 0; j < i; j += 2)
          most = Math.max(most, Math.hypot(cloud[i] - cloud[j], cloud[i + 1] - cloud[j + 1]));
      expect(hullDiameter(convexHull(cloud))).toBeCloseTo(most, 9);
    }
  });
});
