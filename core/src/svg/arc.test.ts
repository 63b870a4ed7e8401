import { describe, expect, test } from '@jest/globals';
import { cubicPoint } from '../curve';
import { seededRandom } from '../num';
import { arcToCubics } from './arc';

/**
 * The endpoint-to-centre conversion of SVG 2, appendix B.2.4, equations by number, written out a second time without regard to speed, as the
 * check of the fast one.
 */
function centreOf(
  x1: number,
  y1: number,
  rxIn: number,
  ryIn: number,
  phi: number,
  fa: boolean,
  fs: boolean,
  x2: number,
  y2: number,
) {
  const rot = (x: number, y: number, a: number): [number, number] => [
    Math.cos(a) * x - Math.sin(a) * y,
    Math.sin(a) * x + Math.cos(a) * y,
  ];
  const [xp, yp] = rot((x1 - x2) / 2, (y1 - y2) / 2, -phi); // B.2.4, eq. 5.1
  const lambda = xp ** 2 / rxIn ** 2 + yp ** 2 / ryIn ** 2; // B.2.5, eq. 6.2
  const k = lambda > 1 ? Math.sqrt(lambda) : 1; // eq. 6.3
  const rx = k * Math.abs(rxIn);
  const ry = k * Math.abs(ryIn);
  const f = Math.sqrt(
    Math.max(0, (rx ** 2 * ry ** 2 - rx ** 2 * yp ** 2 - ry ** 2 * xp ** 2) / (rx ** 2 * yp ** 2 + ry ** 2 * xp ** 2)),
  );
  const sign = fa !== fs ? 1 : -1; // eq. 5.2
  const cxp = sign * f * ((rx * yp) / ry);
  const cyp = sign * f * (-(ry * xp) / rx);
  const [mx, my] = rot(cxp, cyp, phi); // eq. 5.3
  return { cx: mx + (x1 + x2) / 2, cy: my + (y1 + y2) / 2, rx, ry };
}

describe('elliptical arcs', () => {
  test('every point lies on the ellipse of the implementation notes, within the known error of the four-cubic circle', () => {
    const random = seededRandom(7);
    const point = new Float64Array(2);
    for (let round = 0; round < 300; round++) {
      const [x1, y1, x2, y2] = [random() * 100, random() * 100, random() * 100, random() * 100];
      const [rx, ry, phi] = [1 + random() * 80, 1 + random() * 80, random() * 2 * Math.PI];
      const [large, sweep] = [random() < 0.5, random() < 0.5];
      const cubics = arcToCubics(x1, y1, rx, ry, phi, large, sweep, x2, y2);
      if (cubics === 'line') throw new Error('expected cubics');
      const e = centreOf(x1, y1, rx, ry, phi, large, sweep, x2, y2);
      const all = Float64Array.of(x1, y1, ...cubics);
      expect([all[all.length - 2], all[all.length - 1]]).toEqual([x2, y2]);
      let turned = 0;
      let before: number | undefined;
      for (let at = 0; at + 8 <= all.length; at += 6) {
        for (let t = 0; t <= 1; t += 1 / 16) {
          cubicPoint(all, at, t, point);
          const dx = point[0] - e.cx;
          const dy = point[1] - e.cy;
          const u = (Math.cos(phi) * dx + Math.sin(phi) * dy) / e.rx;
          const v = (-Math.sin(phi) * dx + Math.cos(phi) * dy) / e.ry;
          expect(Math.abs(Math.hypot(u, v) - 1)).toBeLessThan(2.75e-4);
          const angle = Math.atan2(v, u);
          if (before !== undefined) {
            const d = angle - before;
            turned += d > Math.PI ? d - 2 * Math.PI : d < -Math.PI ? d + 2 * Math.PI : d;
          }
          before = angle;
        }
      }
      // The flags: which way round, and the longer or shorter of the two.
      expect(turned > 0).toBe(sweep);
      expect(Math.abs(turned) > Math.PI - 1e-6 === large || Math.abs(Math.abs(turned) - Math.PI) < 1e-3).toBe(true);
    }
  });

  test('radii too small are scaled up until the ends can be joined (B.2.5, step 3)', () => {
    const cubics = arcToCubics(0, 0, 1, 1, 0, false, true, 10, 0);
    if (cubics === 'line') throw new Error('expected cubics');
    const point = cubicPoint(Float64Array.of(0, 0, ...cubics.slice(0, 6)), 0, 1, new Float64Array(2));
    expect(point[0]).toBeCloseTo(5, 9);
    expect(point[1]).toBeCloseTo(-5, 9);
  });
});
