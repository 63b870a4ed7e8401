import { cubicLength, cubicStretch, isStraight } from '../curve';
import { type Contour, segmentAt, segmentCount } from './contour';
import { contourLength } from './measure';

/** Two cubics are taken for halves of one when their points agree with it to this share of their extent: what three decimals leave. */
const SAME_CURVE_REL = 5e-6;

/** A contour, and the share of another's length at which it starts there. */
export interface RestartedContour {
  readonly contour: Contour;
  readonly start: number;
}

/**
 * The same run of curves without anchors that do not bend it: those on a straight line, and those at which one cubic was split in two.
 * The shape changes by less than 5e-6 of the segments at hand, or by `strays` px where the outline was rounded as much. Ids are not kept. Where a closed
 * contour's first anchor is idle, the result starts at the last one before it.
 *
 * @returns the contour itself when there is nothing to leave out
 */
export function withoutIdleAnchors(contour: Contour, strays = 0): RestartedContour {
  const n = segmentCount(contour);
  if (n < 2) return { contour, start: 0 };
  const segments: Float64Array[] = [];
  for (let i = 0; i < n; i++) {
    const segment = contour.points.slice(segmentAt(i), segmentAt(i) + 8);
    // Is it a point? Nothing is to be matched along it.
    if (extent(segment) > strays) segments.push(segment);
  }
  if (segments.length === 0) return { contour, start: 0 };
  const kept: Float64Array[] = [segments[0]];
  for (let i = 1; i < segments.length; i++) {
    const joined = joinSegments(kept[kept.length - 1], segments[i], strays);
    if (joined) kept[kept.length - 1] = joined;
    else kept.push(segments[i]);
  }
  // The file may start in the middle of a line: then its first anchor is as idle as the others.
  let start = 0;
  if (contour.closed && kept.length > 2) {
    const last = kept[kept.length - 1];
    const joined = joinSegments(last, kept[0], strays);
    if (joined) {
      start = 1 - cubicLength(last, 0) / contourLength(contour);
      kept.pop();
      kept[0] = joined;
    }
  }
  if (kept.length === n) return { contour, start: 0 };
  const points = new Float64Array(6 * kept.length + 2);
  points.set(kept[0].subarray(0, 2));
  for (const [i, segment] of kept.entries()) points.set(segment.subarray(2), 6 * i + 2);
  return { contour: { points, closed: contour.closed }, start };
}

const extent = (p: Float64Array): number =>
  Math.max(Math.abs(p[2] - p[0]), Math.abs(p[3] - p[1]), Math.abs(p[4] - p[0]), Math.abs(p[5] - p[1])) +
  Math.max(Math.abs(p[6] - p[0]), Math.abs(p[7] - p[1]));

/** Both segments as one cubic, if they are parts of one. */
function joinSegments(p: Float64Array, q: Float64Array, strays: number): Float64Array | undefined {
  const inX = p[6] - p[4];
  const inY = p[7] - p[5];
  const outX = q[2] - q[0];
  const outY = q[3] - q[1];
  const inLength = Math.hypot(inX, inY);
  const outLength = Math.hypot(outX, outY);
  const epsilon = Math.max(strays, SAME_CURVE_REL * Math.max(extent(p), extent(q)));
  if (!(inLength > epsilon) || !(outLength > epsilon)) return undefined;
  // Handles in one line, or there is a bend.
  const bent = Math.abs(inX * outY - inY * outX);
  if (inX * outX + inY * outY <= 0 || bent > 1e-3 * inLength * outLength + strays * (inLength + outLength))
    return undefined;
  if (isStraight(p, 0, epsilon) && isStraight(q, 0, epsilon)) {
    const dx = q[6] - p[0];
    const dy = q[7] - p[1];
    const length = Math.hypot(dx, dy);
    if (!(Math.abs(dx * (p[7] - p[1]) - dy * (p[6] - p[0])) <= epsilon * length)) return undefined;
    return Float64Array.of(
      p[0],
      p[1],
      p[0] + dx / 3,
      p[1] + dy / 3,
      p[0] + (dx * 2) / 3,
      p[1] + (dy * 2) / 3,
      q[6],
      q[7],
    );
  }
  const t = inLength / (inLength + outLength);
  const joined = strays > 0 ? nearestWhole(p, q, t) : exactWhole(p, q, t);
  const half = new Float64Array(8);
  for (const [segment, from, to] of [
    [p, 0, t],
    [q, t, 1],
  ] as const) {
    cubicStretch(joined, 0, from, to, half, 0);
    for (let k = 0; k < 8; k++) if (!(Math.abs(half[k] - segment[k]) <= epsilon)) return undefined;
  }
  return joined;
}

/** The cubic of which p and q are the parts up to t and from t on, by the handles at its ends. */
const exactWhole = (p: Float64Array, q: Float64Array, t: number): Float64Array =>
  Float64Array.of(
    p[0],
    p[1],
    p[0] + (p[2] - p[0]) / t,
    p[1] + (p[3] - p[1]) / t,
    q[6] + (q[4] - q[6]) / (1 - t),
    q[7] + (q[5] - q[7]) / (1 - t),
    q[6],
    q[7],
  );

/** As `exactWhole`, by all points of both, which are rounded: least squares for the two handles, of which each point is a mean (de Casteljau). */
function nearestWhole(p: Float64Array, q: Float64Array, t: number): Float64Array {
  const u = 1 - t;
  // Shares of both ends and both handles in p's second to last point and q's two in the middle.
  const shares = [
    [u, t, 0, 0],
    [u * u, 2 * t * u, t * t, 0],
    [u * u * u, 3 * t * u * u, 3 * t * t * u, t * t * t],
    [0, u * u, 2 * t * u, t * t],
    [0, 0, u, t],
  ];
  const whole = Float64Array.of(p[0], p[1], 0, 0, 0, 0, q[6], q[7]);
  for (const axis of [0, 1]) {
    const seen = [p[2 + axis], p[4 + axis], p[6 + axis], q[2 + axis], q[4 + axis]];
    let [aa, ab, bb, ar, br] = [0, 0, 0, 0, 0];
    shares.forEach(([first, a, b, last], i) => {
      const right = seen[i] - first * p[axis] - last * q[6 + axis];
      aa += a * a;
      ab += a * b;
      bb += b * b;
      ar += a * right;
      br += b * right;
    });
    const det = aa * bb - ab * ab;
    whole[2 + axis] = (ar * bb - br * ab) / det;
    whole[4 + axis] = (br * aa - ar * ab) / det;
  }
  return whole;
}
