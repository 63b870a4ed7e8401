import { outsideHull } from '../vec';
import { EdgeStrips } from './edge-strips';
import { contourNumberCount, type PlanContour, type ShiftPlan } from './plan';

/** A proper crossing of two edges; `loop` is the length of the shorter part of the contour between its two visits, 0 between contours. */
export interface ProbeCrossing {
  readonly x: number;
  readonly y: number;
  readonly loop: number;
  readonly contour: number;
  /** Index of the segment of the plan's contour, counted from its start, of either edge. */
  readonly segment: number;
}

/** Which in-between is looked at: one of the ends, or one in between. */
export type ProbedEnd = 'first' | 'second' | 'between';
/** With more edges than this crossings are looked for strip by strip. */
const MANY_EDGES = 1_500;
/** No more crossings of one in-between are counted. */
export const MOST_CROSSINGS = 400;
/** What is counted where nothing needs to be. */
export const NO_CROSSINGS = { folds: 0, between: 0 } as const;
/** Were so many crossings counted that no more would have been? */
export const isTangle = (folds: number, between: number): boolean => folds + between >= MOST_CROSSINGS;
/** Chords shorter than this share of their gap have no direction. */
const LEAST_CHORD = 0.07;
const END_MASK: Readonly<Record<ProbedEnd, number>> = { first: 1, second: 2, between: 0 };

/**
 * Looks at in-betweens of one plan as polylines: crossings, lengths, areas, extents. All memory is made once; the same subdivision serves every
 * in-between, so that in-betweens compare.
 */
export class InBetweenProbe {
  /** Polyline points x, y of all contours one after the other, of the in-between last taken. */
  readonly points: Float64Array;
  /** For each contour the index of its first point, and past the last contour the number of points. */
  readonly starts: Int32Array;
  /** Points of a contour that count: a closed one does not repeat its first. */
  readonly counts: Int32Array;
  private readonly steps: Uint8Array;
  private readonly edgeContour: Int32Array;
  private readonly edgeFirst: Int32Array;
  private readonly edgeNext: Int32Array;
  private readonly edgeSegment: Int32Array;
  private readonly low: Float64Array;
  private readonly high: Float64Array;
  private readonly along: Float64Array;
  private readonly order: Int32Array;
  private readonly totals: Float64Array;
  /** 1: edge of a bridge of the first end, 2: of the second, 3: of both. */
  private readonly bridge: Uint8Array;
  private strips?: EdgeStrips;

  /** @param epsilon how far a polyline may stray from the ends' curves, px */
  constructor(
    private readonly plan: ShiftPlan,
    epsilon: number,
  ) {
    const { contours, from, to } = plan;
    const steps: number[] = [];
    this.starts = new Int32Array(contours.length + 1);
    this.counts = new Int32Array(contours.length);
    this.totals = new Float64Array(contours.length);
    let points = 0;
    let edges = 0;
    contours.forEach((contour, c) => {
      this.starts[c] = points;
      for (let k = 0; k < contour.segments; k++) {
        const at = contour.at + 6 * k;
        const d = Math.max(bulge(from, at), bulge(to, at));
        const count = Math.min(48, Math.max(1, Math.ceil(Math.sqrt((0.75 * d) / epsilon))));
        steps.push(count);
        points += count;
      }
      if (!contour.closed) points++;
      this.counts[c] = points - this.starts[c];
      edges += contour.closed ? this.counts[c] : this.counts[c] - 1;
    });
    this.starts[contours.length] = points;
    this.steps = Uint8Array.from(steps);
    this.points = new Float64Array(2 * points);
    this.edgeContour = new Int32Array(edges);
    this.edgeFirst = new Int32Array(edges);
    this.edgeNext = new Int32Array(edges);
    this.edgeSegment = new Int32Array(edges);
    this.bridge = new Uint8Array(edges);
    this.low = new Float64Array(edges);
    this.high = new Float64Array(edges);
    this.along = new Float64Array(edges + contours.length);
    this.order = Int32Array.from({ length: edges }, (_, i) => i);
    let e = 0;
    let segment = 0;
    contours.forEach((contour, c) => {
      const start = this.starts[c];
      const last = start + this.counts[c] - 1;
      for (let k = 0, p = start; k < contour.segments; k++, segment++) {
        for (let s = 0; s < this.steps[segment]; s++, e++, p++) {
          this.edgeContour[e] = c;
          this.edgeFirst[e] = p;
          this.edgeNext[e] = contour.closed && p === last ? start : p + 1;
          this.edgeSegment[e] = k;
          this.bridge[e] = (contour.bridgesA.includes(k) ? 1 : 0) + (contour.bridgesB.includes(k) ? 2 : 0);
        }
      }
    });
  }

  /** Takes an in-between of the plan (its flat numbers). */
  take(inBetween: Float64Array): void {
    const { points, steps } = this;
    const { contours } = this.plan;
    let p = 0;
    let segment = 0;
    for (let c = 0; c < contours.length; c++) {
      const contour = contours[c];
      let at = contour.at;
      // Is the contour a mere point? Rounding would make a little scribble of it, which crosses those of others at that place.
      if (contour.role !== 'pair' && isPoint(inBetween, contour)) {
        const end = 2 * this.starts[c + 1];
        while (p < end) {
          points[p++] = inBetween[at];
          points[p++] = inBetween[at + 1];
        }
        segment += contour.segments;
        continue;
      }
      for (let k = 0; k < contour.segments; k++, segment++, at += 6) {
        const count = steps[segment];
        points[p++] = inBetween[at];
        points[p++] = inBetween[at + 1];
        for (let s = 1; s < count; s++) {
          const t = s / count;
          const u = 1 - t;
          const a = u * u * u;
          const b = 3 * u * u * t;
          const c = 3 * u * t * t;
          const d = t * t * t;
          points[p++] = a * inBetween[at] + b * inBetween[at + 2] + c * inBetween[at + 4] + d * inBetween[at + 6];
          points[p++] = a * inBetween[at + 1] + b * inBetween[at + 3] + c * inBetween[at + 5] + d * inBetween[at + 7];
        }
      }
      if (!contour.closed) {
        points[p++] = inBetween[contour.at + contourNumberCount(contour) - 2];
        points[p++] = inBetween[contour.at + contourNumberCount(contour) - 1];
      }
    }
  }

  /** Length of all contours, px; `end` leaves out the bridges of that end, which its outline does not have. */
  length(end: ProbedEnd = 'between'): number {
    const mask = END_MASK[end];
    let sum = 0;
    for (let e = 0; e < this.edgeFirst.length; e++) if (!(this.bridge[e] & mask)) sum += this.edgeLength(e);
    return sum;
  }

  /** Total turning along all contours, rad, between edges of at least `leastEdge` px; `end` as in `length`. */
  turning(leastEdge: number, end: ProbedEnd = 'between'): number {
    const { points, edgeFirst, edgeNext, edgeContour, bridge } = this;
    const mask = END_MASK[end];
    let sum = 0;
    let e = 0;
    const count = edgeFirst.length;
    while (e < count) {
      const contour = edgeContour[e];
      let firstX = 0;
      let firstY = 0;
      let lastX = 0;
      let lastY = 0;
      for (; e < count && edgeContour[e] === contour; e++) {
        if (bridge[e] & mask) continue;
        const x = points[2 * edgeNext[e]] - points[2 * edgeFirst[e]];
        const y = points[2 * edgeNext[e] + 1] - points[2 * edgeFirst[e] + 1];
        if (x * x + y * y < leastEdge * leastEdge) continue;
        if (lastX === 0 && lastY === 0) [firstX, firstY] = [x, y];
        else sum += Math.abs(Math.atan2(lastX * y - lastY * x, lastX * x + lastY * y));
        lastX = x;
        lastY = y;
      }
      if (this.plan.contours[contour].closed)
        sum += Math.abs(Math.atan2(lastX * firstY - lastY * firstX, lastX * firstX + lastY * firstY));
    }
    return sum;
  }

  /**
   * Total turning along all contours, rad, between points `gap` px apart along them, so that tight hooks count and noise does not; `end` as in
   * `length`.
   */
  turningAlong(gap: number, end: ProbedEnd = 'between'): number {
    const { points, edgeFirst, edgeNext, edgeContour, bridge } = this;
    const mask = END_MASK[end];
    const least = LEAST_CHORD * gap;
    const count = edgeFirst.length;
    let sum = 0;
    for (let e = 0; e < count; ) {
      const contour = edgeContour[e];
      let along = 0;
      let reached = 0;
      let [firstX, firstY] = [0, 0];
      // The point before and the chord before it, and the first chord of the contour.
      let [lastX, lastY, dx, dy, startX, startY] = [0, 0, 0, 0, 0, 0];
      const take = (x: number, y: number): void => {
        if (reached > 0) {
          const [nx, ny] = [x - lastX, y - lastY];
          const wide = nx * nx + ny * ny > least * least;
          if (reached > 1 && wide && dx * dx + dy * dy > least * least)
            sum += Math.abs(Math.atan2(dx * ny - dy * nx, dx * nx + dy * ny));
          if (reached === 1) [startX, startY] = [nx, ny];
          [dx, dy] = [nx, ny];
        } else [firstX, firstY] = [x, y];
        [lastX, lastY] = [x, y];
        reached++;
      };
      for (; e < count && edgeContour[e] === contour; e++) {
        if (bridge[e] & mask) continue;
        const [i, j] = [2 * edgeFirst[e], 2 * edgeNext[e]];
        const length = this.edgeLength(e);
        for (; length > 0 && along <= length; along += gap) {
          const t = along / length;
          take(points[i] + (points[j] - points[i]) * t, points[i + 1] + (points[j + 1] - points[i + 1]) * t);
        }
        along -= length;
      }
      if (!this.plan.contours[contour].closed || reached < 3) continue;
      // Round the start.
      take(firstX, firstY);
      take(firstX + startX, firstY + startY);
    }
    return sum;
  }

  /** Signed area of the closed contours together, px². */
  signedArea(): number {
    const { points, edgeFirst, edgeNext, edgeContour } = this;
    let sum = 0;
    for (let e = 0; e < edgeFirst.length; e++) {
      if (!this.plan.contours[edgeContour[e]].closed) continue;
      const i = 2 * edgeFirst[e];
      const j = 2 * edgeNext[e];
      sum += points[i] * points[j + 1] - points[j] * points[i + 1];
    }
    return sum / 2;
  }

  /** How far the in-between reaches beyond a box given as minX, minY, maxX, maxY, px. */
  beyond(box: Float64Array): number {
    let out = 0;
    for (let i = 0; i < this.points.length; i += 2) {
      const x = this.points[i];
      const y = this.points[i + 1];
      out = Math.max(out, box[0] - x, x - box[2], box[1] - y, y - box[3]);
    }
    return out;
  }

  /** How far the in-between reaches beyond a convex hull, px. */
  outside(hull: Float64Array): number {
    let out = 0;
    for (let i = 0; i < this.points.length; i += 2)
      out = Math.max(out, outsideHull(hull, this.points[i], this.points[i + 1]));
    return out;
  }

  /** Grows a box minX, minY, maxX, maxY to the in-between. */
  growBox(box: Float64Array): Float64Array {
    for (let i = 0; i < this.points.length; i += 2) {
      box[0] = Math.min(box[0], this.points[i]);
      box[1] = Math.min(box[1], this.points[i + 1]);
      box[2] = Math.max(box[2], this.points[i]);
      box[3] = Math.max(box[3], this.points[i + 1]);
    }
    return box;
  }

  /**
   * Numbers of crossings of contours with themselves (loops of at least `leastLoop` px) and with each other; `end` as in `length`. Of a tangle no more than
   * `most` are counted: beyond, one is as bad as the other.
   */
  countCrossings(
    leastLoop: number,
    end: ProbedEnd = 'between',
    most = MOST_CROSSINGS,
  ): { folds: number; between: number } {
    let folds = 0;
    let between = 0;
    const mask = END_MASK[end];
    this.sweep((e, f, loop) => {
      if ((this.bridge[e] | this.bridge[f]) & mask) return true;
      if (this.edgeContour[e] !== this.edgeContour[f]) between++;
      else if (loop >= leastLoop) folds++;
      return folds + between < most;
    });
    return { folds, between };
  }

  /** All crossings with their places. */
  listCrossings(leastLoop: number): { folds: ProbeCrossing[]; between: ProbeCrossing[] } {
    const folds: ProbeCrossing[] = [];
    const between: ProbeCrossing[] = [];
    this.sweep((e, f, loop, x, y) => {
      const crossing = { x, y, loop, contour: this.edgeContour[e], segment: this.edgeSegment[e] };
      if (this.edgeContour[e] !== this.edgeContour[f]) between.push(crossing);
      else if (loop >= leastLoop) folds.push(crossing);
      return folds.length + between.length < MOST_CROSSINGS;
    });
    return { folds, between };
  }

  /** Which contours cross each other: two indices with a blank between them, the smaller first. */
  crossingContours(): ReadonlySet<string> {
    const found = new Set<string>();
    this.sweep((e, f) => {
      const [c, d] = [this.edgeContour[e], this.edgeContour[f]];
      if (c !== d) found.add(c < d ? `${c} ${d}` : `${d} ${c}`);
      return true;
    });
    return found;
  }

  private edgeLength(e: number): number {
    const i = 2 * this.edgeFirst[e];
    const j = 2 * this.edgeNext[e];
    const dx = this.points[j] - this.points[i];
    const dy = this.points[j + 1] - this.points[i + 1];
    // Several times as quick as hypot, and the same in every engine.
    return Math.sqrt(dx * dx + dy * dy);
  }

  /** A sweep over edges in the order of x, with half-open sign rules: a crossing through a vertex counts once, touching not at all. */
  private sweep(found: Found): void {
    const { points, edgeFirst, edgeNext, edgeContour, low, high, order, along, totals } = this;
    const count = edgeFirst.length;
    let sum = 0;
    for (let e = 0; e < count; e++) {
      if (e > 0 && edgeContour[e] !== edgeContour[e - 1]) {
        totals[edgeContour[e - 1]] = sum;
        sum = 0;
      }
      const x0 = points[2 * edgeFirst[e]];
      const x1 = points[2 * edgeNext[e]];
      low[e] = x0 < x1 ? x0 : x1;
      high[e] = x0 < x1 ? x1 : x0;
      along[e] = sum;
      sum += this.edgeLength(e);
    }
    if (count > 0) totals[edgeContour[count - 1]] = sum;
    if (count > MANY_EDGES) {
      this.strips ??= new EdgeStrips(edgeFirst, edgeNext);
      const { strips } = this;
      strips.eachPair(points, (e, f, strip) => {
        const t = this.meet(e, f);
        if (t < 0) return true;
        const y = points[2 * edgeFirst[e] + 1] + (points[2 * edgeNext[e] + 1] - points[2 * edgeFirst[e] + 1]) * t;
        return strips.stripOf(y) !== strip || this.tell(e, f, t, found);
      });
      return;
    }
    // The order of the in-between before is nearly right.
    for (let i = 1; i < count; i++) {
      const e = order[i];
      const key = low[e];
      let j = i - 1;
      for (; j >= 0 && low[order[j]] > key; j--) order[j + 1] = order[j];
      order[j + 1] = e;
    }
    for (let i = 0; i < count; i++) {
      const e = order[i];
      const reach = high[e];
      if (low[e] === reach && this.isPoint(e)) continue;
      for (let j = i + 1; j < count; j++) {
        const f = order[j];
        if (low[f] > reach) break;
        const t = this.meet(e, f);
        if (t >= 0 && !this.tell(e, f, t, found)) return;
      }
    }
  }

  /** Has an edge no length, so that it crosses nothing? */
  private isPoint(e: number): boolean {
    const [i, j] = [2 * this.edgeFirst[e], 2 * this.edgeNext[e]];
    return this.points[i] === this.points[j] && this.points[i + 1] === this.points[j + 1];
  }

  /** Where along edge `e` (0 to 1) it properly crosses `f`; −1 where it does not. */
  private meet(e: number, f: number): number {
    const { points, edgeFirst, edgeNext } = this;
    const e0 = 2 * edgeFirst[e];
    const e1 = 2 * edgeNext[e];
    const f0 = 2 * edgeFirst[f];
    const f1 = 2 * edgeNext[f];
    const ey0 = points[e0 + 1];
    const ey1 = points[e1 + 1];
    const fy0 = points[f0 + 1];
    const fy1 = points[f1 + 1];
    const top = ey0 < ey1 ? ey0 : ey1;
    const bottom = ey0 < ey1 ? ey1 : ey0;
    if ((fy0 > bottom && fy1 > bottom) || (fy0 < top && fy1 < top)) return -1;
    if (e1 === f0 || f1 === e0) return -1;
    const ex0 = points[e0];
    const ex1 = points[e1];
    const fx0 = points[f0];
    const fx1 = points[f1];
    const s0 = side(ex0, ey0, ex1, ey1, fx0, fy0);
    const s1 = side(ex0, ey0, ex1, ey1, fx1, fy1);
    if (s0 >= 0 === s1 >= 0) return -1;
    const r0 = side(fx0, fy0, fx1, fy1, ex0, ey0);
    const r1 = side(fx0, fy0, fx1, fy1, ex1, ey1);
    if (r0 >= 0 === r1 >= 0) return -1;
    return r0 / (r0 - r1);
  }

  /** Tells of a crossing at `t` of edge `e`. @returns are more to be told? */
  private tell(e: number, f: number, t: number, found: Found): boolean {
    const { points, edgeFirst, edgeNext, edgeContour, along, totals } = this;
    const [e0, e1, f0, f1] = [2 * edgeFirst[e], 2 * edgeNext[e], 2 * edgeFirst[f], 2 * edgeNext[f]];
    let loop = 0;
    const c = edgeContour[e];
    if (c === edgeContour[f]) {
      const [x0, y0, x1, y1] = [points[e0], points[e0 + 1], points[e1], points[e1 + 1]];
      const s0 = side(x0, y0, x1, y1, points[f0], points[f0 + 1]);
      const u = s0 / (s0 - side(x0, y0, x1, y1, points[f1], points[f1 + 1]));
      const gap = Math.abs(along[e] + this.edgeLength(e) * t - along[f] - this.edgeLength(f) * u);
      loop = this.plan.contours[c].closed ? Math.min(gap, totals[c] - gap) : gap;
    }
    return found(
      e,
      f,
      loop,
      points[e0] + (points[e1] - points[e0]) * t,
      points[e0 + 1] + (points[e1 + 1] - points[e0 + 1]) * t,
    );
  }
}

/** Is told of two edges that cross, the loop between (px, 0 between contours) and the place; says whether it wants more. */
type Found = (e: number, f: number, loop: number, x: number, y: number) => boolean;

/** Which side of an edge a point is on; nearer to its line than 1e-9 of the products counts as on it. */
function side(x0: number, y0: number, x1: number, y1: number, x: number, y: number): number {
  const dx = x1 - x0;
  const dy = y1 - y0;
  const value = dx * (y - y0) - dy * (x - x0);
  return Math.abs(value) <= 1e-9 * (dx * dx + dy * dy) ? 0 : value;
}

function isPoint(inBetween: Float64Array, contour: PlanContour): boolean {
  const { at } = contour;
  const end = at + contourNumberCount(contour);
  for (let i = at + 2; i < end; i++) if (inBetween[i] !== inBetween[i - 2]) return false;
  return true;
}

function bulge(p: Float64Array, at: number): number {
  return Math.max(
    Math.hypot(p[at] - 2 * p[at + 2] + p[at + 4], p[at + 1] - 2 * p[at + 3] + p[at + 5]),
    Math.hypot(p[at + 2] - 2 * p[at + 4] + p[at + 6], p[at + 3] - 2 * p[at + 5] + p[at + 7]),
  );
}
