import { cubicPoint, cubicTangent, fitCubic, isStraight } from '../curve';
import { CORNER_RAD } from '../num';
import { anchorCount, type Contour, segmentAt, segmentCount } from './contour';
import { addAnchors } from './split';

const SAMPLES_A_SEGMENT = 12;
const STRAIGHT_EPS_REL = 1e-9;

/** A changed contour and how far it strays from the one before, px. */
export interface Reshaped {
  readonly contour: Contour;
  readonly deviation: number;
}

/** Points along segments `from` to `to` (inclusive; past the count they go on at the start), each segment evenly by parameter. */
function sampleSegments(contour: Contour, from: number, to: number): number[] {
  const n = segmentCount(contour);
  const out: number[] = [contour.points[segmentAt(from % n)], contour.points[segmentAt(from % n) + 1]];
  const point = new Float64Array(2);
  for (let i = from; i <= to; i++) {
    for (let k = 1; k <= SAMPLES_A_SEGMENT; k++) {
      cubicPoint(contour.points, segmentAt(i % n), k / SAMPLES_A_SEGMENT, point);
      out.push(point[0], point[1]);
    }
  }
  return out;
}

function tangentAt(contour: Contour, segment: number, t: number): [number, number] {
  const out = cubicTangent(contour.points, segmentAt(segment % segmentCount(contour)), t, new Float64Array(2));
  return [out[0], out[1]];
}

/** One cubic in place of segments `from` to `to`; a straight run stays straight. */
function fitSegments(contour: Contour, from: number, to: number): { points: Float64Array; deviation: number } {
  const points = sampleSegments(contour, from, to);
  const n = points.length;
  const [x0, y0, x3, y3] = [points[0], points[1], points[n - 2], points[n - 1]];
  const length = Math.hypot(x3 - x0, y3 - y0);
  let off = 0;
  let back = false;
  let before = 0;
  for (let i = 2; i < n; i += 2) {
    const along = ((points[i] - x0) * (x3 - x0) + (points[i + 1] - y0) * (y3 - y0)) / (length || 1);
    off = Math.max(off, Math.abs((points[i] - x0) * (y3 - y0) - (points[i + 1] - y0) * (x3 - x0)) / (length || 1));
    if (along < before - STRAIGHT_EPS_REL * length) back = true;
    before = along;
  }
  if (length > 0 && !back && off <= STRAIGHT_EPS_REL * length) {
    const line = new Float64Array(8);
    for (let k = 0; k < 4; k++) line.set([x0 + ((x3 - x0) * k) / 3, y0 + ((y3 - y0) * k) / 3], 2 * k);
    return { points: line, deviation: off };
  }
  const start = tangentAt(contour, from, 0);
  const end = tangentAt(contour, to, 1);
  const byChord = fitCubic(points, start, end);
  const guess = splitParameters(contour, from, to);
  const bySplit = guess ? fitCubic(points, start, end, guess) : byChord;
  return bySplit.deviation < byChord.deviation ? bySplit : byChord;
}

/**
 * Where the samples would lie if the segments had come from one cubic by de Casteljau's splitting: at each joint the handles on both sides
 * are to each other as the segments' parameter widths. Undefined where a handle has no length.
 */
function splitParameters(contour: Contour, from: number, to: number): Float64Array | undefined {
  const n = segmentCount(contour);
  const p = contour.points;
  const widths = [1];
  for (let i = from; i < to; i++) {
    const a = segmentAt(i % n);
    const b = segmentAt((i + 1) % n);
    const into = Math.hypot(p[a + 6] - p[a + 4], p[a + 7] - p[a + 5]);
    const out = Math.hypot(p[b + 2] - p[b], p[b + 3] - p[b + 1]);
    const width = (widths[widths.length - 1] * out) / into;
    if (!(width > 0) || !Number.isFinite(width)) return undefined;
    widths.push(width);
  }
  const total = widths.reduce((sum, width) => sum + width, 0);
  const t = new Float64Array(widths.length * SAMPLES_A_SEGMENT + 1);
  let start = 0;
  widths.forEach((width, i) => {
    for (let k = 1; k <= SAMPLES_A_SEGMENT; k++)
      t[i * SAMPLES_A_SEGMENT + k] = (start + (width * k) / SAMPLES_A_SEGMENT) / total;
    start += width;
  });
  return t;
}

/** The contour with segments replaced by single cubics: `runs` are ranges of segments in ascending order, covering all of them. */
function assembleRuns(
  contour: Contour,
  runs: readonly { readonly from: number; readonly to: number; readonly points?: Float64Array }[],
): Contour {
  const n = segmentCount(contour);
  const at = segmentAt(runs[0].from % n);
  const points: number[] = [contour.points[at], contour.points[at + 1]];
  const keep: number[] = [];
  for (const { from, to, points: fitted } of runs) {
    keep.push(from % anchorCount(contour));
    const source = fitted ?? contour.points.subarray(segmentAt(from % n), segmentAt(from % n) + 8);
    if (!fitted && to !== from) throw new Error('Invariant broken: a run of several segments needs a fit');
    for (let k = 2; k < 8; k++) points.push(source[k]);
  }
  if (!contour.closed) keep.push(n);
  return {
    points: Float64Array.from(points),
    closed: contour.closed,
    anchorIds: contour.anchorIds && keep.map((i) => contour.anchorIds?.[i] ?? ''),
    originIds: contour.originIds && keep.map((i) => contour.originIds?.[i]),
  };
}

/**
 * Takes anchor `i` away; the segments on both sides become the one cubic that fits them best. An end of an open contour goes with its segment.
 * Undefined where nothing would be left.
 */
export function deleteAnchor(contour: Contour, i: number): Reshaped | undefined {
  const n = segmentCount(contour);
  if (anchorCount(contour) <= 2) return undefined;
  if (!contour.closed && (i === 0 || i === n)) {
    const from = i === 0 ? 1 : 0;
    const runs = Array.from({ length: n - 1 }, (_, k) => ({ from: from + k, to: from + k }));
    return { contour: assembleRuns(contour, runs), deviation: 0 };
  }
  const before = i === 0 ? n - 1 : i - 1;
  const fit = fitSegments(contour, before, before + 1);
  const runs: { from: number; to: number; points?: Float64Array }[] = [];
  // Where the first anchor goes, the contour starts at the next one.
  const start = i === 0 ? 1 : 0;
  for (let k = 0; k < n - (i === 0 ? 2 : 0); k++) {
    const segment = start + k;
    if (segment === before) runs.push({ from: segment, to: segment + 1, points: fit.points });
    else if (segment !== before + 1) runs.push({ from: segment, to: segment });
  }
  if (i === 0) runs.push({ from: before, to: before + 1, points: fit.points });
  return { contour: assembleRuns(contour, runs), deviation: fit.deviation };
}

/** The turning of the outline at anchor `i`, rad. */
function turnAt(contour: Contour, i: number): number {
  const n = segmentCount(contour);
  const a = tangentAt(contour, (i + n - 1) % n, 1);
  const b = tangentAt(contour, i, 0);
  return Math.abs(Math.atan2(a[0] * b[1] - a[1] * b[0], a[0] * b[0] + a[1] * b[1]));
}

/**
 * The contour with as few anchors as stay within `tolerance` px of it: corners stay, and each smooth run between them is taken by the
 * longest stretches that one cubic fits. Anchors that stay keep their ids.
 */
export function simplifyContour(contour: Contour, tolerance: number): Reshaped {
  const n = segmentCount(contour);
  if (n < 2) return { contour, deviation: 0 };
  const corners: number[] = [];
  for (let i = contour.closed ? 0 : 1; i < n; i++) if (turnAt(contour, i) > CORNER_RAD) corners.push(i);
  // A smooth ring keeps its start; a ring with corners is walked from the first of them, and starts there.
  const start = contour.closed ? (corners[0] ?? 0) : 0;
  const stops = [...corners.filter((i) => i > start), start + n];
  const runs: { from: number; to: number; points?: Float64Array }[] = [];
  let deviation = 0;
  let from = start;
  for (const stop of stops) {
    // A ring must keep two anchors.
    const whole = contour.closed && stop - from === n;
    while (from < stop) {
      const most = whole && from === start ? stop - 2 : stop - 1;
      const { to, fit } = longestFit(contour, from, Math.max(from, most), tolerance);
      runs.push({ from, to, points: fit?.points });
      deviation = Math.max(deviation, fit?.deviation ?? 0);
      from = to + 1;
    }
  }
  return { contour: assembleRuns(contour, runs), deviation };
}

/** The longest run of segments from `from` that one cubic fits: doubled while it fits, then halved to the last that does. */
function longestFit(
  contour: Contour,
  from: number,
  most: number,
  tolerance: number,
): { to: number; fit?: { points: Float64Array; deviation: number } } {
  let good = from;
  let fit: { points: Float64Array; deviation: number } | undefined;
  const attempt = (to: number): boolean => {
    const result = fitSegments(contour, from, to);
    if (!(result.deviation <= tolerance)) return false;
    good = to;
    fit = result;
    return true;
  };
  let bad = most + 1;
  for (let reach = 1; good < most; reach *= 2) {
    const to = Math.min(most, from + reach);
    if (!attempt(to)) {
      bad = to;
      break;
    }
  }
  while (bad - good > 1) {
    const middle = (good + bad) >> 1;
    if (!attempt(middle)) bad = middle;
  }
  return { to: good, fit };
}

/** The contour with every segment divided into `parts` equal parameters; the outline does not change. */
export function subdivide(contour: Contour, parts: number, newId?: () => string): Contour {
  const places = Array.from({ length: segmentCount(contour) }, (_, segment) =>
    Array.from({ length: parts - 1 }, (_unused, k) => ({ segment, t: (k + 1) / parts })),
  ).flat();
  return addAnchors(contour, places, newId);
}

/** Is segment `i` a straight line, to a share of its own length? */
export function isStraightSegment(contour: Contour, i: number): boolean {
  const p = contour.points;
  const at = segmentAt(i);
  const size = Math.hypot(p[at + 6] - p[at], p[at + 7] - p[at + 1]);
  return isStraight(p, at, 1e-6 * size);
}
