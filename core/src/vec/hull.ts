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
  if (hull.length > MANY_CORNERS && insideHull(hull, x, y)) return 0;
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

/** With more numbers than this it is looked first whether a point is inside at all. */
const MANY_CORNERS = 32;

/** Is a point inside or on a hull? By halving the fan of triangles from its first corner (Preparata & Shamos: Computational geometry, 1985). */
function insideHull(hull: Float64Array, x: number, y: number): boolean {
  const corners = hull.length / 2;
  if (sideOf(hull, 0, 1, x, y) < 0 || sideOf(hull, 0, corners - 1, x, y) > 0) return false;
  let low = 1;
  let high = corners - 1;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (sideOf(hull, 0, middle, x, y) >= 0) low = middle;
    else high = middle;
  }
  return sideOf(hull, low, high, x, y) >= 0;
}

/** On which side of the line from corner i to corner j a point lies. */
const sideOf = (hull: Float64Array, i: number, j: number, x: number, y: number): number =>
  (hull[2 * j] - hull[2 * i]) * (y - hull[2 * i + 1]) - (hull[2 * j + 1] - hull[2 * i + 1]) * (x - hull[2 * i]);

/** The largest distance between two corners of a hull, px: by turning two parallel lines round it (Shamos: Computational geometry, 1978). */
export function hullDiameter(hull: Float64Array): number {
  const n = hull.length / 2;
  const apart = (i: number, j: number): number =>
    Math.hypot(hull[2 * i] - hull[2 * j], hull[2 * i + 1] - hull[2 * j + 1]);
  if (n < 2) return 0;
  if (n === 2) return apart(0, 1);
  /** How far corner k is from the line of the edge that leaves corner i, times its length. */
  const away = (i: number, k: number): number => {
    const j = (i + 1) % n;
    return Math.abs(
      (hull[2 * j] - hull[2 * i]) * (hull[2 * k + 1] - hull[2 * i + 1]) -
        (hull[2 * j + 1] - hull[2 * i + 1]) * (hull[2 * k] - hull[2 * i]),
    );
  };
  let most = 0;
  let far = 1;
  for (let i = 0; i < n; i++) {
    while (away(i, (far + 1) % n) > away(i, far)) far = (far + 1) % n;
    // Where an edge lies opposite, its other end may be farther.
    most = Math.max(
      most,
      apart(i, far),
      apart((i + 1) % n, far),
      apart(i, (far + 1) % n),
      apart((i + 1) % n, (far + 1) % n),
    );
  }
  return most;
}
