/**
 * Mean-value coordinates of a point in a closed polygon x0, y0, x1, y1, … (Floater: Mean value coordinates, 2003): weights of the vertices
 * that sum to one and reproduce linear functions. A point on a vertex has weight one there, on an edge its two ends share it.
 */
export function meanValueCoordinates(polygon: Float64Array, x: number, y: number): Float64Array {
  const n = polygon.length / 2;
  const weights = new Float64Array(n);
  const distance = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    distance[i] = Math.hypot(polygon[2 * i] - x, polygon[2 * i + 1] - y);
    if (!(distance[i] > 0)) {
      weights[i] = 1;
      return weights;
    }
  }
  let sum = 0;
  for (let i = 0; i < n; i++) {
    const j = (i + 1) % n;
    const ax = polygon[2 * i] - x;
    const ay = polygon[2 * i + 1] - y;
    const bx = polygon[2 * j] - x;
    const by = polygon[2 * j + 1] - y;
    const cross = ax * by - ay * bx;
    const dot = ax * bx + ay * by;
    const product = distance[i] * distance[j];
    // Between the two on their edge?
    if (Math.abs(cross) <= 1e-12 * product && dot < 0) {
      weights.fill(0);
      weights[i] = distance[j] / (distance[i] + distance[j]);
      weights[j] = 1 - weights[i];
      return weights;
    }
    // tan(α/2) of the angle under which the edge is seen.
    const half = cross / (product + dot);
    weights[i] += half / distance[i];
    weights[j] += half / distance[j];
    sum += half / distance[i] + half / distance[j];
  }
  if (!(Math.abs(sum) > 0)) return weights.fill(1 / n);
  for (let i = 0; i < n; i++) weights[i] /= sum;
  return weights;
}

/** The anchors of a run of segments as a closed polygon, without the repeated last one. */
export function anchorPolygon(run: Float64Array): Float64Array {
  const n = (run.length / 2 - 1) / 3;
  const out = new Float64Array(2 * n);
  for (let i = 0; i < n; i++) {
    out[2 * i] = run[6 * i];
    out[2 * i + 1] = run[6 * i + 1];
  }
  return out;
}
