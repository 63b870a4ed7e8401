/**
 * Convex hull of points x0, y0, x1, y1, … by Andrew's monotone chain (Another efficient algorithm for convex hulls in two dimensions, 1979).
 * Corners run clockwise on screen (y down); fewer than three points come back as they are.
 */
export function convexHull(points: Float64Array): Float64Array {
  const n = points.length / 2;
  const order = Array.from({ length: n }, (_, i) => i).sort(
    (p, q) => points[2 * p] - points[2 * q] || points[2 * p + 1] - points[2 * q + 1],
  );
  if (n < 3) return points.slice();
  const chain = (sequence: readonly number[]): number[] => {
    const out: number[] = [];
    for (const i of sequence) {
      while (out.length > 1 && turn(points, out[out.length - 2], out[out.length - 1], i) <= 0) out.pop();
      out.push(i);
    }
    out.pop();
    return out;
  };
  const corners = [...chain(order), ...chain(order.reverse())];
  return Float64Array.from(corners.flatMap((i) => [points[2 * i], points[2 * i + 1]]));
}

const turn = (p: Float64Array, a: number, b: number, c: number): number =>
  (p[2 * b] - p[2 * a]) * (p[2 * c + 1] - p[2 * a + 1]) - (p[2 * b + 1] - p[2 * a + 1]) * (p[2 * c] - p[2 * a]);

/** How far a point lies outside a hull as `convexHull` gives it, measured across its edges, px; 0 inside. */
export function outsideHull(hull: Float64Array, x: number, y: number): number {
  let out = 0;
  for (let i = 0, j = hull.length - 2; i < hull.length; j = i, i += 2) {
    const dx = hull[i] - hull[j];
    const dy = hull[i + 1] - hull[j + 1];
    const cross = dy * (x - hull[j]) - dx * (y - hull[j + 1]);
    // Most points are inside: only for the others is the edge's length needed.
    if (!(cross > 0)) continue;
    const away = cross / Math.sqrt(dx * dx + dy * dy);
    if (away > out) out = away;
  }
  return out;
}

/** The largest distance between two corners of a hull, px. */
export function hullDiameter(hull: Float64Array): number {
  let most = 0;
  for (let i = 0; i < hull.length; i += 2)
    for (let j = 0; j < i; j += 2) most = Math.max(most, Math.hypot(hull[i] - hull[j], hull[i + 1] - hull[j + 1]));
  return most;
}
