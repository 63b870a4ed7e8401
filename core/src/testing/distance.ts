import { flattenContour, type Outline } from '../outline';

/** Largest distance from points of `a` to the nearest place of `b`, px; both flattened to 1e-3 of a px. A slow, plain check. */
export function strayOf(a: Outline, b: Outline, epsilon = 1e-3): number {
  const segments: [number, number, number, number][] = [];
  for (const contour of b.contours) {
    const p = flattenContour(contour, epsilon);
    const n = p.length;
    for (let i = 0; i + 1 < n; i += 2) {
      const j = i + 2 < n ? i + 2 : contour.closed ? 0 : i;
      segments.push([p[i], p[i + 1], p[j], p[j + 1]]);
    }
  }
  let worst = 0;
  for (const contour of a.contours) {
    const p = flattenContour(contour, epsilon * 50);
    for (let i = 0; i < p.length; i += 2) {
      let nearest = Infinity;
      for (const [x0, y0, x1, y1] of segments) {
        const dx = x1 - x0;
        const dy = y1 - y0;
        const length2 = dx * dx + dy * dy;
        const t = length2 > 0 ? Math.min(1, Math.max(0, ((p[i] - x0) * dx + (p[i + 1] - y0) * dy) / length2)) : 0;
        nearest = Math.min(nearest, Math.hypot(x0 + dx * t - p[i], y0 + dy * t - p[i + 1]));
      }
      worst = Math.max(worst, nearest);
    }
  }
  return worst;
}
