import { cubicPoint, cubicStretch, fitCubic, isStraight, nearestOnCubic } from '../curve';
import { mapShare, type PairMatch, type Run } from '../match';
import { BREAK_MERGE_SHARE, PLAN_DEVIATION_REL } from '../num';
import {
  type ArcLengthTable,
  type Contour,
  type CurvePlace,
  measureArcLength,
  placeAtShare,
  segmentAt,
} from '../outline';

/** A contour walked once, from its start place on. Segment indices may pass the segment count of a closed contour: they count on. */
export interface Walk {
  readonly table: ArcLengthTable;
  readonly start: number;
}

/** A place of both contours at which both are split. */
interface BreakPoint {
  readonly a: number;
  readonly b: number;
  readonly placeA: CurvePlace;
  readonly placeB: CurvePlace;
}

export const walkOf = (contour: Contour, start: number): Walk => ({ table: measureArcLength(contour), start });

const SNAP = 1e-9;
const MAX_FILLER_DEPTH = 3;
/** Shares nearer than this are one place. */
const MET = 1e-7;
/** A wanted point this near to another, as a share of the length, is that one. */
const SAME_POINT = 5e-4;
/** Chords of a cubic when the distance to it is measured. */
const CHORDS = 16;
/** Handles nearer to the chord than this share of the size make a straight segment. */
const STRAIGHT_REL = 1e-5;

/** Where the walk is after `share` of the length. */
function placeOnWalk(walk: Walk, share: number): CurvePlace {
  const { table, start } = walk;
  const segments = table.cumulative.length - 1;
  const absolute = start + share;
  const wrapped = table.contour.closed && absolute >= 1;
  const place = placeAtShare(table, wrapped ? absolute - 1 : absolute);
  const segment = place.segment + (wrapped ? segments : 0);
  if (place.t > 1 - SNAP) return { segment: segment + 1, t: 0 };
  return { segment, t: place.t < SNAP ? 0 : place.t };
}

/** Anchors met on the walk after its start and before its end, with their shares. Anchors on one spot count once. */
function anchorsOnWalk(walk: Walk): { share: number; place: CurvePlace }[] {
  const { table, start } = walk;
  const segments = table.cumulative.length - 1;
  const total = table.cumulative[segments];
  const out: { share: number; place: CurvePlace }[] = [];
  if (!(total > 0)) return out;
  const first = table.contour.closed ? 0 : 1;
  for (let k = first; k < segments; k++) {
    const share = table.cumulative[k] / total - start;
    const wrapped = table.contour.closed && share < 0;
    out.push({ share: wrapped ? share + 1 : share, place: { segment: wrapped ? k + segments : k, t: 0 } });
  }
  out.sort((p, q) => p.share - q.share || p.place.segment - q.place.segment);
  return out.filter(({ share }, i) => share > SNAP && share < 1 - SNAP && (i === 0 || share - out[i - 1].share > SNAP));
}

/** Where both contours are split, in order: their starts, all anchors of both (merged when near each other), filler, their ends. */
function breakPoints(pair: PairMatch, walkA: Walk, walkB: Walk, size: number): BreakPoint[] {
  const { map } = pair;
  const at = (a: number, b: number, placeA?: CurvePlace, placeB?: CurvePlace): BreakPoint => ({
    a,
    b,
    placeA: placeA ?? placeOnWalk(walkA, a),
    placeB: placeB ?? placeOnWalk(walkB, b),
  });
  const fromA = anchorsOnWalk(walkA).map(({ share, place }) => ({
    side: 'a' as const,
    share,
    place,
    other: mapShare(map.a, map.b, share),
  }));
  const fromB = anchorsOnWalk(walkB).map(({ share, place }) => ({
    side: 'b' as const,
    share,
    place,
    other: mapShare(map.b, map.a, share),
  }));
  // Places that were fixed are met exactly: each is a point of both, unless an anchor lies there.
  const fixed = pair.fixed.filter(
    (tie) =>
      !fromA.some((p) => Math.abs(p.share - tie.a) < MET && Math.abs(p.other - tie.b) < MET) &&
      !fromB.some((p) => Math.abs(p.share - tie.b) < MET && Math.abs(p.other - tie.a) < MET),
  );
  const tied = fixed.map((tie) => ({
    side: 'a' as const,
    share: tie.a,
    place: placeOnWalk(walkA, tie.a),
    other: tie.b,
  }));
  // A point that is wanted where the shift has one already is that point.
  const wanted = pair.points
    .filter((share) => share > SNAP && share < 1 - SNAP)
    .filter((share) => !fromA.some((p) => Math.abs(p.share - share) < SAME_POINT))
    .filter((share) => !fromB.some((p) => Math.abs(p.other - share) < SAME_POINT))
    .map((share) => ({
      side: 'a' as const,
      share,
      place: placeOnWalk(walkA, share),
      other: mapShare(map.a, map.b, share),
    }));
  const sum = (p: { share: number; other: number }): number => p.share + p.other;
  const all = [...fromA, ...fromB, ...tied, ...wanted].sort((p, q) => sum(p) - sum(q));
  const points: BreakPoint[] = [at(0, 0)];
  for (let i = 0; i < all.length; i++) {
    const p = all[i];
    const q = all[i + 1];
    const a = p.side === 'a' ? p.share : p.other;
    const b = p.side === 'a' ? p.other : p.share;
    if (q && q.side !== p.side) {
      const qa = q.side === 'a' ? q.share : q.other;
      const qb = q.side === 'a' ? q.other : q.share;
      if (qa - a <= BREAK_MERGE_SHARE && qb - b <= BREAK_MERGE_SHARE) {
        points.push(p.side === 'a' ? at(p.share, q.share, p.place, q.place) : at(q.share, p.share, q.place, p.place));
        i++;
        continue;
      }
    }
    points.push(p.side === 'a' ? at(a, b, p.place) : at(a, b, undefined, p.place));
  }
  points.push(at(1, 1));
  return withFiller(points, pair, walkA, walkB, size);
}

/** Splits stretches whose in-between would stray from the map, at the middle of the map, until it does not. */
function withFiller(points: BreakPoint[], pair: PairMatch, walkA: Walk, walkB: Walk, size: number): BreakPoint[] {
  const out: BreakPoint[] = [points[0]];
  const cubic = new Float64Array(16);
  const fill = (p: BreakPoint, q: BreakPoint, depth: number): void => {
    if (depth < MAX_FILLER_DEPTH && q.a - p.a > 2 * BREAK_MERGE_SHARE && q.b - p.b > 2 * BREAK_MERGE_SHARE) {
      if (deviation(p, q) > PLAN_DEVIATION_REL * size) {
        const a = (p.a + q.a) / 2;
        const b = mapShare(pair.map.a, pair.map.b, a);
        const middle = { a, b, placeA: placeOnWalk(walkA, a), placeB: placeOnWalk(walkB, b) };
        if (b > p.b && b < q.b) {
          fill(p, middle, depth + 1);
          fill(middle, q, depth + 1);
          return;
        }
      }
    }
    out.push(q);
  };
  const here = new Float64Array(2);
  const there = new Float64Array(2);
  const deviation = (p: BreakPoint, q: BreakPoint): number => {
    stretchOfWalk(walkA, p.placeA, q.placeA, cubic, 0);
    stretchOfWalk(walkB, p.placeB, q.placeB, cubic, 8);
    // What is straight on both sides stays straight, however it is walked along.
    if (isStraight(cubic, 0, STRAIGHT_REL * size) && isStraight(cubic, 8, STRAIGHT_REL * size)) return 0;
    for (let k = 0; k < 8; k++) cubic[k] = (cubic[k] + cubic[k + 8]) / 2;
    let worst = 0;
    for (let k = 1; k <= 3; k++) {
      const a = p.a + ((q.a - p.a) * k) / 4;
      const b = mapShare(pair.map.a, pair.map.b, a);
      if (!(b > p.b && b < q.b)) continue;
      pointOnWalk(walkA, a, here);
      pointOnWalk(walkB, b, there);
      const x = (here[0] + there[0]) / 2;
      const y = (here[1] + there[1]) / 2;
      worst = Math.max(worst, distanceToCubic(cubic, x, y));
    }
    return worst;
  };
  for (let i = 1; i < points.length; i++) fill(points[i - 1], points[i], 0);
  return out;
}

/** Distance in px of a point from a cubic, taken as a run of chords. */
function distanceToCubic(cubic: Float64Array, x: number, y: number): number {
  const end = new Float64Array(2);
  let [x0, y0] = [cubic[0], cubic[1]];
  let least = Infinity;
  for (let k = 1; k <= CHORDS; k++) {
    cubicPoint(cubic, 0, k / CHORDS, end);
    const dx = end[0] - x0;
    const dy = end[1] - y0;
    const length2 = dx * dx + dy * dy;
    const t = length2 > 0 ? Math.min(1, Math.max(0, ((x - x0) * dx + (y - y0) * dy) / length2)) : 0;
    least = Math.min(least, Math.hypot(x0 + t * dx - x, y0 + t * dy - y));
    [x0, y0] = [end[0], end[1]];
  }
  return least;
}

function pointOnWalk(walk: Walk, share: number, out: Float64Array): void {
  const place = placeOnWalk(walk, share);
  const segments = walk.table.cumulative.length - 1;
  const atEnd = !walk.table.contour.closed && place.segment >= segments;
  cubicPoint(
    walk.table.contour.points,
    segmentAt(atEnd ? segments - 1 : place.segment % segments),
    atEnd ? 1 : place.t,
    out,
  );
}

/** The one cubic between two neighbouring break points; a point where they coincide on this contour. */
function stretchOfWalk(walk: Walk, from: CurvePlace, to: CurvePlace, out: Float64Array, outAt: number): void {
  const { contour, cumulative } = walk.table;
  const segments = cumulative.length - 1;
  let { segment, t } = from;
  const lengthOf = (k: number): number => cumulative[(k % segments) + 1] - cumulative[k % segments];
  // Segments of zero length are stepped over.
  while (segment < to.segment && (t >= 1 || !(lengthOf(segment) > 0)) && !(segment === to.segment - 1 && to.t === 0)) {
    segment++;
    t = 0;
  }
  const end = to.segment > segment ? 1 : to.t;
  const closedIndex = contour.closed ? segment % segments : Math.min(segment, segments - 1);
  const t0 = !contour.closed && segment >= segments ? 1 : t;
  cubicStretch(contour.points, segmentAt(closedIndex), t0, Math.max(t0, end), out, outAt);
}

/** Two runs split at the same places. */
export interface SplitPair {
  /** 3n + 1 points each; the outlines are unchanged. */
  readonly from: Float64Array;
  readonly to: Float64Array;
  /** For each split place its share of the first run's length, from the start of the pair; the last is 1. */
  readonly shares: Float64Array;
  /** Segments that lie on a bridge of the first, and of the second run. */
  readonly bridgesA: readonly number[];
  readonly bridgesB: readonly number[];
}

/** Splits both runs of a pair at their starts, at the anchors of both, at fixed places and where the in-between would stray from the map. */
export function splitPair(pair: PairMatch, a: Run, b: Run, size: number): SplitPair {
  const walkA = walkOf(a.contour, pair.startA);
  const walkB = walkOf(b.contour, pair.startB);
  const points = breakPoints(pair, walkA, walkB, size);
  const n = points.length - 1;
  const from = new Float64Array(6 * n + 2);
  const to = new Float64Array(6 * n + 2);
  const bridgesA: number[] = [];
  const bridgesB: number[] = [];
  const buffer = new Float64Array(8);
  for (let i = 0; i < n; i++) {
    stretchOfWalk(walkA, points[i].placeA, points[i + 1].placeA, buffer, 0);
    if (i === 0) from.set(buffer.subarray(0, 2), 0);
    from.set(buffer.subarray(2), 6 * i + 2);
    stretchOfWalk(walkB, points[i].placeB, points[i + 1].placeB, buffer, 0);
    if (i === 0) to.set(buffer.subarray(0, 2), 0);
    to.set(buffer.subarray(2), 6 * i + 2);
    if (a.bridges.length > 0 && onBridge(a, pair.startA, points[i].a, points[i + 1].a, walkA)) bridgesA.push(i);
    if (b.bridges.length > 0 && onBridge(b, pair.startB, points[i].b, points[i + 1].b, walkB)) bridgesB.push(i);
  }
  return { from, to, shares: Float64Array.from(points, ({ a: share }) => share), bridgesA, bridgesB };
}

/** Does the middle of a stretch lie on a bridge? */
function onBridge(run: Run, start: number, from: number, to: number, walk: Walk): boolean {
  const middle = start + (from + to) / 2;
  const share = run.contour.closed && middle >= 1 ? middle - 1 : middle;
  return run.bridges.includes(placeAtShare(walk.table, share).segment);
}

/** Most points that the stretch between two even places is fitted to. */
const FITTED = 24;

/**
 * Both runs of a pair with `count` points at even places of both, each stretch one cubic fitted to the outline. Where places are tied, each of them has a
 * point, and the points are even between one and the next.
 *
 * @returns the segments, and how far they stray from the outlines at most, px
 */
export function splitEvenly(
  pair: PairMatch,
  a: Run,
  b: Run,
  count: number,
): SplitPair & { readonly deviation: number } {
  const walkA = walkOf(a.contour, pair.startA);
  const walkB = walkOf(b.contour, pair.startB);
  const [shares, mapped] = evenShares(pair.fixed, count);
  const from = fittedRun(walkA, shares);
  const to = fittedRun(walkB, mapped);
  const deviation = Math.max(from.deviation, to.deviation);
  return { from: from.points, to: to.points, shares, bridgesA: [], bridgesB: [], deviation };
}

/** Shares of both lengths at which `count` points stand: even, between tied places too; each stretch between those has at least one segment. */
function evenShares(fixed: PairMatch['fixed'], count: number): [Float64Array, Float64Array] {
  const ties = fixed.filter(({ a, b }) => a > 0 && a < 1 && b > 0 && b < 1).sort((p, q) => p.a - q.a);
  const knots = [{ a: 0, b: 0 }, ...ties, { a: 1, b: 1 }];
  // As many segments as the stretch has of the mean length, the rest where most is left over (Hare's method).
  const wanted = knots.slice(1).map(({ a, b }, i) => ((a - knots[i].a + b - knots[i].b) / 2) * count);
  const segments = wanted.map((share) => Math.max(1, Math.floor(share)));
  const order = wanted.map((share, i) => ({ i, left: share - segments[i] })).sort((p, q) => q.left - p.left);
  for (let k = 0, missing = count - segments.reduce((sum, n) => sum + n, 0); k < missing; k++)
    segments[order[k % order.length].i]++;
  const [shares, mapped]: [number[], number[]] = [[0], [0]];
  segments.forEach((n, i) => {
    const [p, q] = [knots[i], knots[i + 1]];
    for (let k = 1; k <= n; k++) {
      shares.push(k === n ? q.a : p.a + ((q.a - p.a) * k) / n);
      mapped.push(k === n ? q.b : p.b + ((q.b - p.b) * k) / n);
    }
  });
  return [Float64Array.from(shares), Float64Array.from(mapped)];
}

function fittedRun(walk: Walk, shares: Float64Array): { points: Float64Array; deviation: number } {
  const n = shares.length - 1;
  const points = new Float64Array(6 * n + 2);
  const corners = new AnchorsOfWalk(walk);
  let deviation = 0;
  const at = new Float64Array(2);
  const tangent = (share: number, side: 1 | -1): [number, number] => {
    const near = share + side * 1e-4;
    const from = new Float64Array(2);
    pointOnWalk(walk, Math.min(1, Math.max(0, share)), from);
    pointOnWalk(walk, Math.min(1, Math.max(0, near)), at);
    const dx = (at[0] - from[0]) * side;
    const dy = (at[1] - from[1]) * side;
    const length = Math.hypot(dx, dy);
    return length > 0 ? [dx / length, dy / length] : [0, 0];
  };
  for (let k = 0; k < n; k++) {
    const stretch: number[] = [];
    for (let s = 0; s <= FITTED; s++) {
      pointOnWalk(walk, shares[k] + ((shares[k + 1] - shares[k]) * s) / FITTED, at);
      stretch.push(at[0], at[1]);
    }
    const fit = fitCubic(stretch, tangent(shares[k], 1), tangent(shares[k + 1], -1));
    points.set(fit.points, 6 * k);
    deviation = Math.max(deviation, fit.deviation, corners.worst(fit.points, shares[k], shares[k + 1]));
  }
  if (walk.table.contour.closed) {
    points[6 * n] = points[0];
    points[6 * n + 1] = points[1];
  }
  return { points, deviation };
}

/** The anchors of a walked contour: what is seen first where a cubic leaves the outline is a corner that it cuts off. */
class AnchorsOfWalk {
  /** Ascending, in [0, 1). */
  private readonly anchors: readonly { readonly share: number; readonly x: number; readonly y: number }[];

  constructor({ table, start }: Walk) {
    const { cumulative, contour } = table;
    const total = cumulative[cumulative.length - 1];
    this.anchors = Array.from(cumulative, (length, i) => {
      const along = (total > 0 ? length / total : 0) - start;
      return { share: along - Math.floor(along), x: contour.points[6 * i], y: contour.points[6 * i + 1] };
    }).sort((p, q) => p.share - q.share);
  }

  /** How far the anchors between two shares are from a cubic at most, px. */
  worst(cubic: Float64Array, from: number, to: number): number {
    let low = 0;
    let high = this.anchors.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.anchors[middle].share <= from) low = middle + 1;
      else high = middle;
    }
    let worst = 0;
    for (; low < this.anchors.length && this.anchors[low].share < to; low++) {
      const { x, y } = this.anchors[low];
      worst = Math.max(worst, nearestOnCubic(cubic, 0, x, y).distance);
    }
    return worst;
  }
}
