import { cubicLength } from '../curve';
import {
  type ArcLengthTable,
  type Contour,
  measureArcLength,
  placeAtShare,
  segmentAt,
  shareOfAnchor,
  totalLength,
} from '../outline';
import { SampleAligner, WEIGHTS, type Weights } from './alignment';
import type { ContourFit } from './contour-pair';
import type { FixedPair } from './match';
import { type ContourSamples, type ShareRow, samplesAt } from './samples';
import { smoothShareMap } from './share-map';

const FINE = 96;
/** Fixed pairs nearer than this share on either side are one. */
const LEAST_STRETCH = 1e-7;
/** Knots inside a stretch whose segments belong together whole. */
const WHOLE_KNOTS = 12;

/**
 * The match of two contours that must pass through pairs of places (shares of the lengths, in the directions given). A closed contour starts
 * at the first pair. Between neighbouring pairs the cheapest way is found as always; `whole` says which stretches are one segment on both
 * sides and run in step with the curve parameter.
 *
 * @returns undefined when the pairs do not follow each other in the same order on both contours
 */
export function fitThrough(
  a: Contour,
  b: Contour,
  pairs: readonly FixedPair[],
  byOrigin: boolean,
  weights: Weights = WEIGHTS,
): ContourFit | undefined {
  const open = !a.closed || !b.closed;
  const tableA = measureArcLength(a);
  const tableB = measureArcLength(b);
  const starts = startsOf(a, b, pairs);
  if (!starts) return undefined;
  const { startA, startB } = starts;
  const ahead = (share: number, start: number): number => {
    const gap = share - start;
    return gap < -1e-12 ? gap + 1 : Math.max(0, gap);
  };
  const inner = pairs
    .map((pair) => ({ a: ahead(pair.a, startA), b: ahead(pair.b, startB) }))
    .filter((pair) => pair.a > LEAST_STRETCH && pair.a < 1 - LEAST_STRETCH)
    .sort((p, q) => p.a - q.a);
  const nodes = [{ a: 0, b: 0 }, ...inner, { a: 1, b: 1 }];
  for (let k = 1; k < nodes.length; k++) {
    const wide = nodes[k].a - nodes[k - 1].a > LEAST_STRETCH && nodes[k].b - nodes[k - 1].b > LEAST_STRETCH;
    if (!wide) return undefined;
  }
  const rowA: Row = { shares: [], leaving: [], at: [] };
  const rowB: Row = { shares: [], leaving: [], at: [] };
  for (let k = 0; k + 1 < nodes.length; k++) {
    const wanted = Math.max(2, Math.round((FINE * (nodes[k + 1].a - nodes[k].a + nodes[k + 1].b - nodes[k].b)) / 2));
    addStretch(rowA, tableA, startA, nodes[k].a, nodes[k + 1].a, wanted);
    addStretch(rowB, tableB, startB, nodes[k].b, nodes[k + 1].b, wanted);
  }
  const samplesA = finishRow(rowA, tableA, startA);
  const samplesB = finishRow(rowB, tableB, startB);
  const aligner = new SampleAligner(samplesA.samples, samplesB.samples, weights);
  const mapA: number[] = [0];
  const mapB: number[] = [0];
  let cost = 0;
  for (let k = 0; k + 1 < nodes.length; k++) {
    const width = { a: nodes[k + 1].a - nodes[k].a, b: nodes[k + 1].b - nodes[k].b };
    if (
      byOrigin &&
      inOneSegment(tableA, startA, nodes[k].a, nodes[k + 1].a) &&
      inOneSegment(tableB, startB, nodes[k].b, nodes[k + 1].b)
    ) {
      addWhole(mapA, mapB, tableA, tableB, startA, startB, nodes[k], nodes[k + 1]);
      continue;
    }
    const countA = rowA.at[k + 1] - rowA.at[k];
    const countB = rowB.at[k + 1] - rowB.at[k];
    const from = (rowA.at[k] + samplesA.first) % rowA.shares.length;
    const to = (rowB.at[k] + samplesB.first) % rowB.shares.length;
    const path = aligner.align(from, to, { countA, countB });
    if (path) {
      cost += path.cost;
      const s = samplesA.samples;
      const t = samplesB.samples;
      const unrolledA = path.i.map((i) => Math.min(1, aheadOf(s, from, i, nodes[k].a, nodes[k + 1].a, countA)));
      const unrolledB = path.j.map((j) => Math.min(1, aheadOf(t, to, j, nodes[k].b, nodes[k + 1].b, countB)));
      const pinned = path.i.map(
        (i, at) => s.turn[(from + i) % s.share.length] !== 0 && t.turn[(to + path.j[at]) % t.share.length] !== 0,
      );
      const smooth = smoothShareMap({ a: unrolledA, b: unrolledB, pinned });
      for (let i = 1; i < smooth.a.length; i++) {
        mapA.push(smooth.a[i]);
        mapB.push(smooth.b[i]);
      }
    } else {
      cost += width.a + width.b;
      mapA.push(nodes[k + 1].a);
      mapB.push(nodes[k + 1].b);
    }
  }
  mapA[mapA.length - 1] = 1;
  mapB[mapB.length - 1] = 1;
  return {
    startA: open && !a.closed ? 0 : startA,
    startB: open && !b.closed ? 0 : startB,
    map: { a: Float64Array.from(mapA), b: Float64Array.from(mapB) },
    fixed: inner,
    cost,
  };
}

/** Where the contours start: an open one at its start, a closed one at the first pair or where the open one's start belongs. */
function startsOf(a: Contour, b: Contour, pairs: readonly FixedPair[]): { startA: number; startB: number } | undefined {
  if (!a.closed && !b.closed) return { startA: 0, startB: 0 };
  if (pairs.length === 0) return undefined;
  if (a.closed && b.closed) return { startA: pairs[0].a, startB: pairs[0].b };
  // The closed one is cut so far before the first pair as the open one has length before it.
  const wrap = (share: number): number => share - Math.floor(share);
  const [first] = pairs;
  return a.closed ? { startA: wrap(first.a - first.b), startB: 0 } : { startA: 0, startB: wrap(first.b - first.a) };
}

interface Row {
  /** Shares from the start place on. */
  readonly shares: number[];
  readonly leaving: number[];
  /** Index of the sample at which each stretch begins, and of the end. */
  readonly at: number[];
}

/** Samples of one stretch: its start, the anchors inside, and evenly between them. */
function addStretch(row: Row, table: ArcLengthTable, start: number, from: number, to: number, wanted: number): void {
  const segments = table.cumulative.length - 1;
  row.at.push(row.shares.length);
  const stops: { share: number; segment: number }[] = [{ share: from, segment: -1 }];
  for (let i = 0; i < segments; i++) {
    let share = shareOfAnchor(table, i) - start;
    if (share < -1e-12) share += 1;
    if (share > from + 1e-9 && share < to - 1e-9) stops.push({ share, segment: i });
    else if (Math.abs(share - from) <= 1e-9) stops[0] = { share: from, segment: i };
  }
  stops.sort((p, q) => p.share - q.share);
  for (let k = 0; k < stops.length; k++) {
    const width = (stops[k + 1]?.share ?? to) - stops[k].share;
    if (!(width > 1e-9)) continue;
    const steps = Math.max(1, Math.round((wanted * width) / (to - from) + 1e-6));
    for (let s = 0; s < steps; s++) {
      row.shares.push(stops[k].share + (width * s) / steps);
      row.leaving.push(s === 0 ? stops[k].segment : -1);
    }
  }
}

/** The samples in the order of the contour itself; `first` is the index of the one at the start place. */
function finishRow(row: Row, table: ArcLengthTable, start: number): { samples: ContourSamples; first: number } {
  row.at.push(row.shares.length);
  const closed = table.contour.closed;
  const absolute = row.shares.map((share) => {
    const at = share + start;
    return closed && at >= 1 - 1e-12 ? Math.max(0, at - 1) : at;
  });
  const order = absolute.map((_, i) => i).sort((p, q) => absolute[p] - absolute[q] || p - q);
  const sorted: ShareRow & { shares: number[]; leaving: number[] } = {
    shares: order.map((i) => absolute[i]),
    leaving: order.map((i) => row.leaving[i]),
  };
  if (!closed) {
    sorted.shares.push(1);
    sorted.leaving.push(-1);
  }
  return { samples: samplesAt(table, sorted), first: closed ? order.indexOf(0) : 0 };
}

function aheadOf(s: ContourSamples, from: number, k: number, low: number, high: number, count: number): number {
  if (k === 0) return low;
  if (k === count) return high;
  const gap = s.share[(from + k) % s.share.length] - s.share[from];
  return low + (gap < 0 ? gap + 1 : gap);
}

const EDGE = 1e-7;

/** Does the stretch lie in just one segment of the contour? */
function inOneSegment(table: ArcLengthTable, start: number, from: number, to: number): boolean {
  const segment = segmentBehind(table, start, from, to);
  const wrap = (share: number): number => (table.contour.closed && share >= 1 ? share - 1 : share);
  const low = wrap(start + from);
  const high = low + (to - from);
  return low > shareOfAnchor(table, segment) - EDGE && high < shareOfAnchor(table, segment + 1) + EDGE;
}

const segmentBehind = (table: ArcLengthTable, start: number, from: number, to: number): number => {
  const middle = start + (from + to) / 2;
  return placeAtShare(table, table.contour.closed && middle >= 1 ? middle - 1 : middle).segment;
};

/** Knots at equal parameters of the stretches of two segments. */
function addWhole(
  mapA: number[],
  mapB: number[],
  tableA: ArcLengthTable,
  tableB: ArcLengthTable,
  startA: number,
  startB: number,
  from: FixedPair,
  to: FixedPair,
): void {
  const alongA = stretchOf(tableA, startA, from.a, to.a);
  const alongB = stretchOf(tableB, startB, from.b, to.b);
  for (let k = 1; k <= WHOLE_KNOTS; k++) {
    const t = k / WHOLE_KNOTS;
    mapA.push(k === WHOLE_KNOTS ? to.a : from.a + alongA(t));
    mapB.push(k === WHOLE_KNOTS ? to.b : from.b + alongB(t));
  }
}

/** Share of the whole length from the start of a stretch within a segment to a parameter (0 to 1) of the stretch. */
function stretchOf(table: ArcLengthTable, start: number, from: number, to: number): (t: number) => number {
  const segment = segmentBehind(table, start, from, to);
  const { points, closed } = table.contour;
  const parameter = (share: number): number => {
    const absolute = start + share;
    const place = placeAtShare(table, closed && absolute >= 1 ? absolute - 1 : absolute);
    return place.segment === segment ? place.t : share === from ? 0 : 1;
  };
  const t0 = parameter(from);
  const t1 = parameter(to);
  const total = totalLength(table);
  return (t) => cubicLength(points, segmentAt(segment), t0, t0 + (t1 - t0) * t) / total;
}
