import { cubicPoint, cubicTangent } from '../curve';
import { CORNER_RAD } from '../num';
import {
  type ArcLengthTable,
  type Contour,
  measureArcLength,
  placeAtShare,
  segmentAt,
  shareOfAnchor,
  totalLength,
} from '../outline';

/** Distance, as a share of the length, of the chords whose turning is the *bend*. */
const BEND_CHORD = 0.02;
/** A curve parameter this near to an end is at the anchor. */
const ON_ANCHOR = 1e-7;
/** Above this many anchors, samples are even instead of at the anchors. */
const ANCHOR_SAMPLE_LIMIT = 200;

/** Features of a contour at a row of samples, for matching only. A closed contour has `count` samples, an open one `count + 1`. */
export interface ContourSamples {
  readonly contour: Contour;
  readonly table: ArcLengthTable;
  readonly closed: boolean;
  readonly count: number;
  /** Share of the length; for a closed contour counted from its own start. */
  readonly share: Float64Array;
  /** Position minus centroid, over the RMS radius. */
  readonly x: Float64Array;
  readonly y: Float64Array;
  /** Bisector tangent, unit length. */
  readonly tx: Float64Array;
  readonly ty: Float64Array;
  /** Turning at an anchor in rad where it is a corner, else 0. */
  readonly turn: Float64Array;
  /** Turning between chords of 2 % of the length, rad. */
  readonly bend: Float64Array;
}

/**
 * Samples at every anchor and evenly between them, about `wanted` in all. `anchors` false: evenly only, one of them at the share `origin`
 * where the contour is closed.
 */
export function sampleContour(contour: Contour, wanted: number, anchors = true, origin = 0): ContourSamples {
  const table = measureArcLength(contour);
  return samplesAt(table, sampleShares(table, wanted, anchors, contour.closed ? (origin * wanted) % 1 : 0));
}

/** Takes samples as `sampleContour` does. */
export type Sampler = typeof sampleContour;

/** A sampler that keeps what it has sampled, for contours that meet many others and do not change meanwhile. */
export function keepingSampler(): Sampler {
  const kept = new Map<Contour, Map<string, ContourSamples>>();
  return (contour, wanted, anchors = true, origin = 0) => {
    let own = kept.get(contour);
    if (!own) {
      own = new Map();
      kept.set(contour, own);
    }
    const key = `${wanted} ${anchors} ${origin}`;
    let samples = own.get(key);
    if (!samples) {
      samples = sampleContour(contour, wanted, anchors, origin);
      own.set(key, samples);
    }
    return samples;
  };
}

/** Shares of the length in ascending order, and for those at an anchor the segment that leaves it (else −1). */
export interface ShareRow {
  readonly shares: readonly number[];
  readonly leaving: readonly number[];
}

/** Features at given shares. */
export function samplesAt(table: ArcLengthTable, { shares, leaving }: ShareRow): ContourSamples {
  const contour = table.contour;
  const total = shares.length;
  const out = {
    contour,
    table,
    closed: contour.closed,
    count: contour.closed ? total : total - 1,
    share: Float64Array.from(shares),
    x: new Float64Array(total),
    y: new Float64Array(total),
    tx: new Float64Array(total),
    ty: new Float64Array(total),
    turn: new Float64Array(total),
    bend: new Float64Array(total),
  };
  for (let i = 0; i < total; i++) writeFeatures(out, i, leaving[i] >= 0 ? leaving[i] : anchorAt(table, shares[i]));
  normalise(out.x, out.y);
  return out;
}

/** Shares to sample at, and for those at an anchor the segment that leaves it (else −1): rounding must not put a corner on its neighbour. */
function sampleShares(table: ArcLengthTable, wanted: number, anchors: boolean, shift: number): ShareRow {
  const segments = table.cumulative.length - 1;
  const shares: number[] = [];
  const leaving: number[] = [];
  const add = (share: number, segment: number): void => {
    shares.push(share);
    leaving.push(segment);
  };
  if (!anchors || segments > ANCHOR_SAMPLE_LIMIT) {
    for (let i = 0; i < wanted; i++) add((i + shift) / wanted, -1);
  } else {
    for (let i = 0; i < segments; i++) {
      const from = shareOfAnchor(table, i);
      const width = shareOfAnchor(table, i + 1) - from;
      if (!(width > 1e-9)) continue;
      // The margin keeps the count the same when rounding moves a half.
      const steps = Math.max(1, Math.round(wanted * width + 1e-6));
      for (let k = 0; k < steps; k++) add(k === 0 ? from : from + (width * k) / steps, k === 0 ? i : -1);
    }
  }
  if (shares.length === 0) add(0, -1);
  if (!table.contour.closed) add(1, -1);
  return { shares, leaving };
}

/** The segment that leaves the anchor at a share, or −1: a sample that falls on a corner must not see one side of it by rounding. */
function anchorAt(table: ArcLengthTable, share: number): number {
  const { segment, t } = placeAtShare(table, share);
  const segments = table.cumulative.length - 1;
  if (t < ON_ANCHOR) return segment;
  if (t > 1 - ON_ANCHOR && (table.contour.closed || segment + 1 < segments)) return (segment + 1) % segments;
  return -1;
}

interface Writable extends ContourSamples {
  readonly table: ArcLengthTable;
}

const point = (table: ArcLengthTable, share: number, out: Float64Array): Float64Array => {
  const place = placeAtShare(table, share);
  return cubicPoint(table.contour.points, segmentAt(place.segment), place.t, out);
};

function writeFeatures(s: Writable, i: number, leavingSegment: number): void {
  const { table, closed } = s;
  const share = s.share[i];
  const here = point(table, share, new Float64Array(2));
  s.x[i] = here[0];
  s.y[i] = here[1];
  const wrap = (v: number): number => (closed ? v - Math.floor(v) : Math.min(1, Math.max(0, v)));
  const before = point(table, wrap(share - BEND_CHORD), new Float64Array(2));
  const after = point(table, wrap(share + BEND_CHORD), new Float64Array(2));
  s.bend[i] = angleBetween(here[0] - before[0], here[1] - before[1], after[0] - here[0], after[1] - here[1]);

  const isAnchor = leavingSegment >= 0;
  const place = isAnchor ? { segment: leavingSegment, t: 0 } : placeAtShare(table, share);
  const p = table.contour.points;
  const leave = cubicTangent(p, segmentAt(place.segment), place.t, new Float64Array(2));
  let tx = leave[0];
  let ty = leave[1];
  if (isAnchor && (closed || (share > 0 && share < 1))) {
    const arrive = arrivingTangent(table, place.segment);
    const turn = angleBetween(arrive[0], arrive[1], leave[0], leave[1]);
    s.turn[i] = Math.abs(turn) > CORNER_RAD ? turn : 0;
    const length = Math.hypot(arrive[0] + leave[0], arrive[1] + leave[1]);
    if (length > 1e-6) {
      tx = (arrive[0] + leave[0]) / length;
      ty = (arrive[1] + leave[1]) / length;
    }
  }
  s.tx[i] = tx;
  s.ty[i] = ty;
}

/** Direction in which the contour arrives at the start of a segment, skipping segments of zero length. */
function arrivingTangent(table: ArcLengthTable, segment: number): Float64Array {
  const segments = table.cumulative.length - 1;
  let k = (segment - 1 + segments) % segments;
  for (
    let tries = 0;
    tries < segments && !(table.cumulative[k + 1] - table.cumulative[k] > 1e-9 * totalLength(table));
    tries++
  )
    k = (k - 1 + segments) % segments;
  return cubicTangent(table.contour.points, segmentAt(k), 1, new Float64Array(2));
}

function angleBetween(ax: number, ay: number, bx: number, by: number): number {
  const cross = ax * by - ay * bx;
  const dot = ax * bx + ay * by;
  return cross === 0 && dot === 0 ? 0 : Math.atan2(cross, dot);
}

function normalise(x: Float64Array, y: Float64Array): void {
  const n = x.length;
  let cx = 0;
  let cy = 0;
  for (let i = 0; i < n; i++) {
    cx += x[i] / n;
    cy += y[i] / n;
  }
  let square = 0;
  for (let i = 0; i < n; i++) square += ((x[i] - cx) ** 2 + (y[i] - cy) ** 2) / n;
  const k = square > 0 ? 1 / Math.sqrt(square) : 0;
  for (let i = 0; i < n; i++) {
    x[i] = (x[i] - cx) * k;
    y[i] = (y[i] - cy) * k;
  }
}

/** Is there anything to match along? */
export const isPoint = (samples: ContourSamples): boolean => !(totalLength(samples.table) > 0);
