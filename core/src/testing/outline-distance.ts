import { flattenContour, type Outline } from '../outline';

/** How far two frames are from each other at most, px: points along each to the edges of the other, both flattened to `epsilon`. Slow and plain. */
export function outlineDistance(p: Outline, q: Outline, epsilon = 0.002): number {
  const lines = (outline: Outline): number[][] =>
    outline.contours.flatMap((contour) => {
      const f = flattenContour(contour, epsilon);
      const n = f.length / 2;
      return Array.from({ length: contour.closed ? n : n - 1 }, (_, i) => {
        const j = (i + 1) % n;
        return [f[2 * i], f[2 * i + 1], f[2 * j], f[2 * j + 1]];
      });
    });
  const [a, b] = [lines(p), lines(q)];
  const oneWay = (from: number[][], to: number[][]): number => {
    let most = 0;
    for (const [x0, y0, x1, y1] of from)
      for (const share of [0, 0.5]) {
        const x = x0 + (x1 - x0) * share;
        const y = y0 + (y1 - y0) * share;
        let least = Infinity;
        for (const [u0, v0, u1, v1] of to) {
          const [dx, dy] = [u1 - u0, v1 - v0];
          const length2 = dx * dx + dy * dy;
          const t = length2 > 0 ? Math.max(0, Math.min(1, ((x - u0) * dx + (y - v0) * dy) / length2)) : 0;
          least = Math.min(least, Math.hypot(u0 + t * dx - x, v0 + t * dy - y));
        }
        most = Math.max(most, least);
      }
    return most;
  };
  return Math.max(oneWay(a, b), oneWay(b, a));
}
