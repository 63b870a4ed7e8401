import { cubicPoint } from '../curve';
import { type Contour, segmentAt, segmentCount } from './contour';

const MAX_STEPS = 256;

/**
 * A polyline x0, y0, x1, y1, … within `epsilon` px of the contour; a closed one does not repeat its first point. The number of
 * steps per cubic follows from the bound √(3·d / 4ε) on the second difference (Wang, 1984; common practice).
 */
export function flattenContour(contour: Contour, epsilon: number): Float64Array {
  const p = contour.points;
  const out: number[] = [p[0], p[1]];
  const point = new Float64Array(2);
  for (let i = 0; i < segmentCount(contour); i++) {
    const at = segmentAt(i);
    const d = Math.max(
      Math.hypot(p[at] - 2 * p[at + 2] + p[at + 4], p[at + 1] - 2 * p[at + 3] + p[at + 5]),
      Math.hypot(p[at + 2] - 2 * p[at + 4] + p[at + 6], p[at + 3] - 2 * p[at + 5] + p[at + 7]),
    );
    const steps = Math.min(MAX_STEPS, Math.max(1, Math.ceil(Math.sqrt((0.75 * d) / epsilon))));
    for (let k = 1; k <= steps; k++) {
      cubicPoint(p, at, k / steps, point);
      out.push(point[0], point[1]);
    }
  }
  if (contour.closed && out.length > 2) out.length -= 2;
  return Float64Array.from(out);
}

/** Winding number of the closed polyline about (x, y); positive for clockwise runs on screen. Half-open in y (common practice). */
export function polylineWinding(polyline: Float64Array, x: number, y: number): number {
  let winding = 0;
  const n = polyline.length;
  for (let i = 0, j = n - 2; i < n; j = i, i += 2) {
    const y0 = polyline[j + 1];
    const y1 = polyline[i + 1];
    if (y0 <= y === y1 <= y) continue;
    const cross = (polyline[i] - polyline[j]) * (y - y0) - (x - polyline[j]) * (y1 - y0);
    if (y1 > y0 && cross > 0) winding++;
    else if (y1 < y0 && cross < 0) winding--;
  }
  return winding;
}
