/**
 * Curve-shortening flow of a closed polygon x0, y0, x1, y1, … in place, with the area kept: every point moves along the curvature vector
 * (Gage & Hamilton: The heat equation shrinking convex plane curves, 1986), then the polygon is scaled about its centroid. Semi-implicit
 * (Deckelnick & Dziuk: On the approximation of the curve shortening flow, 1995): with edge lengths of the last step the new points solve
 * a cyclic tridiagonal system, so that large steps stay stable.
 */
export class CurveFlow {
  private readonly n: number;
  private readonly diagonal: Float64Array;
  private readonly off: Float64Array;
  private readonly scratch: Float64Array;
  private readonly first: Float64Array;
  private readonly right: Float64Array;
  private readonly edge: Float64Array;
  private readonly kept: Float64Array;

  constructor(points: number) {
    this.n = points;
    this.diagonal = new Float64Array(points);
    this.off = new Float64Array(points);
    this.scratch = new Float64Array(points);
    this.first = new Float64Array(points);
    this.right = new Float64Array(points);
    this.edge = new Float64Array(points);
    this.kept = new Float64Array(2 * points);
  }

  /** One step of length `time` in px², without keeping the area. A circle of radius r gets √(r² − 2·time). */
  step(p: Float64Array, time: number): void {
    const { n, edge, diagonal, off } = this;
    let mean = 0;
    for (let i = 0; i < n; i++) {
      const j = (i + 1) % n;
      edge[i] = Math.hypot(p[2 * j] - p[2 * i], p[2 * j + 1] - p[2 * i + 1]);
      mean += edge[i] / n;
    }
    if (!(mean > 0)) return;
    // Coinciding neighbours would stop the flow.
    for (let i = 0; i < n; i++) edge[i] = Math.max(edge[i], 1e-3 * mean);
    // (w_i + τ/l_i + τ/l_{i−1}) x_i − τ/l_i x_{i+1} − τ/l_{i−1} x_{i−1} = w_i x_i^old, with w_i half of both edges.
    for (let i = 0; i < n; i++) {
      const before = edge[(i - 1 + n) % n];
      diagonal[i] = (edge[i] + before) / 2 + time / edge[i] + time / before;
      off[i] = -time / edge[i];
    }
    for (let axis = 0; axis < 2; axis++) {
      for (let i = 0; i < n; i++) this.right[i] = (p[2 * i + axis] * (edge[i] + edge[(i - 1 + n) % n])) / 2;
      this.solve();
      for (let i = 0; i < n; i++) p[2 * i + axis] = this.right[i];
    }
  }

  /** `time` in equal steps, the area kept after each; stops early where the area has shrunk to a sixth before it was restored. */
  flow(p: Float64Array, time: number, steps: number): void {
    for (let k = 0; k < steps; k++) {
      const before = polygonArea(p);
      this.kept.set(p);
      this.step(p, time / steps);
      const after = polygonArea(p);
      // Edges of a millionth beside others leave nothing of the numbers: then it is as round as it gets.
      if (!Number.isFinite(after)) {
        p.set(this.kept);
        return;
      }
      if (!(after / before > 1 / 6)) return;
      scaleAboutCentroid(p, Math.sqrt(before / after));
    }
  }

  /** Solves the symmetric cyclic tridiagonal system into `right` by one Sherman–Morrison correction (Numerical Recipes, 3rd edition, 2007, section 2.7.2). */
  private solve(): void {
    const { n, diagonal, off, right, first, scratch } = this;
    const corner = off[n - 1];
    const gamma = -diagonal[0];
    first.fill(0);
    first[0] = gamma;
    first[n - 1] = corner;
    const d0 = diagonal[0] - gamma;
    const dLast = diagonal[n - 1] - (corner * corner) / gamma;
    // Thomas' algorithm for both right sides at once.
    let beta = d0;
    right[0] /= beta;
    first[0] /= beta;
    for (let i = 1; i < n; i++) {
      scratch[i] = off[i - 1] / beta;
      beta = (i === n - 1 ? dLast : diagonal[i]) - off[i - 1] * scratch[i];
      right[i] = (right[i] - off[i - 1] * right[i - 1]) / beta;
      first[i] = (first[i] - off[i - 1] * first[i - 1]) / beta;
    }
    for (let i = n - 2; i >= 0; i--) {
      right[i] -= scratch[i + 1] * right[i + 1];
      first[i] -= scratch[i + 1] * first[i + 1];
    }
    const factor = (right[0] + (corner / gamma) * right[n - 1]) / (1 + first[0] + (corner / gamma) * first[n - 1]);
    for (let i = 0; i < n; i++) right[i] -= factor * first[i];
  }
}

/** Signed area in px² of a closed polygon; positive for clockwise on screen. */
export function polygonArea(p: Float64Array): number {
  let sum = 0;
  for (let i = 0, j = p.length - 2; i < p.length; j = i, i += 2) sum += p[j] * p[i + 1] - p[i] * p[j + 1];
  return sum / 2;
}

function scaleAboutCentroid(p: Float64Array, scale: number): void {
  const n = p.length / 2;
  let cx = 0;
  let cy = 0;
  for (let i = 0; i < n; i++) {
    cx += p[2 * i] / n;
    cy += p[2 * i + 1] / n;
  }
  for (let i = 0; i < n; i++) {
    p[2 * i] = cx + (p[2 * i] - cx) * scale;
    p[2 * i + 1] = cy + (p[2 * i + 1] - cy) * scale;
  }
}
