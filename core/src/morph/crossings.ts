import { flattenContour, type Outline } from '../outline';

/** A proper crossing of two edges of flattened contours. */
export interface Crossing {
  readonly x: number;
  readonly y: number;
  /** Length of the shorter part of the contour between the two visits of the point, px; 0 between different contours. */
  readonly loop: number;
}

export interface Crossings {
  /** A contour with itself. */
  readonly self: readonly Crossing[];
  /** Two contours with each other. */
  readonly between: readonly Crossing[];
}

/**
 * All proper crossings of an outline flattened to within `epsilon` px. A sweep over edges sorted by x, with half-open sign rules, so that a
 * crossing through a vertex counts once and touching along an edge not at all. No more than `most` are found.
 */
export function findCrossings(outline: Outline, epsilon: number, most = Infinity): Crossings {
  const edges: {
    c: number;
    i: number;
    x0: number;
    y0: number;
    x1: number;
    y1: number;
    low: number;
    high: number;
    along: number;
    length: number;
  }[] = [];
  const counts: number[] = [];
  const totals: number[] = [];
  outline.contours.forEach((contour, c) => {
    const p = flattenContour(contour, epsilon);
    const n = p.length / 2;
    const edgeCount = contour.closed && n > 2 ? n : n - 1;
    let along = 0;
    let kept = 0;
    for (let i = 0; i < edgeCount; i++) {
      const j = (i + 1) % n;
      const length = Math.hypot(p[2 * j] - p[2 * i], p[2 * j + 1] - p[2 * i + 1]);
      if (!(length > 0)) continue;
      edges.push({
        c,
        i: kept++,
        x0: p[2 * i],
        y0: p[2 * i + 1],
        x1: p[2 * j],
        y1: p[2 * j + 1],
        low: Math.min(p[2 * i], p[2 * j]),
        high: Math.max(p[2 * i], p[2 * j]),
        along,
        length,
      });
      along += length;
    }
    counts.push(kept);
    totals.push(along);
  });
  edges.sort((p, q) => p.low - q.low);
  const self: Crossing[] = [];
  const between: Crossing[] = [];
  for (let i = 0; i < edges.length; i++) {
    const e = edges[i];
    for (let j = i + 1; j < edges.length && edges[j].low <= e.high; j++) {
      if (self.length + between.length >= most) return { self, between };
      const f = edges[j];
      if (Math.max(f.y0, f.y1) < Math.min(e.y0, e.y1) || Math.min(f.y0, f.y1) > Math.max(e.y0, e.y1)) continue;
      const same = e.c === f.c;
      if (same) {
        const gap = Math.abs(e.i - f.i);
        if (gap <= 1 || (outline.contours[e.c].closed && gap === counts[e.c] - 1)) continue;
      }
      const s0 = side(e, f.x0, f.y0);
      const s1 = side(e, f.x1, f.y1);
      if (s0 >= 0 === s1 >= 0) continue;
      const r0 = side(f, e.x0, e.y0);
      const r1 = side(f, e.x1, e.y1);
      if (r0 >= 0 === r1 >= 0) continue;
      const t = r0 / (r0 - r1);
      const u = s0 / (s0 - s1);
      const x = e.x0 + (e.x1 - e.x0) * t;
      const y = e.y0 + (e.y1 - e.y0) * t;
      if (!same) {
        between.push({ x, y, loop: 0 });
        continue;
      }
      const distance = Math.abs(e.along + e.length * t - f.along - f.length * u);
      const loop = outline.contours[e.c].closed ? Math.min(distance, totals[e.c] - distance) : distance;
      self.push({ x, y, loop });
    }
  }
  return { self, between };
}

function side(e: { x0: number; y0: number; x1: number; y1: number; length: number }, x: number, y: number): number {
  const value = (e.x1 - e.x0) * (y - e.y0) - (e.y1 - e.y0) * (x - e.x0);
  // Nearer to the line than 1e-9 of the edge counts as on it.
  return Math.abs(value) <= 1e-9 * e.length * e.length ? 0 : value;
}
