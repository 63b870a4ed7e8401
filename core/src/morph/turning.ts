import { contourArea, contourLength } from '../outline';

const LEAST_EDGE = 1e-9;
/**
 * An in-between may be spread wider than its ends are in the mean, as where a bow straightens on its way. It is then made smaller than its area or length would
 * have it, so that it stays near the room of the ends: down to this share of that size.
 */
const LEAST_OF_SIZE = 0.8;

/** What the turning in-between of two runs of n segments needs, computed once. */
export interface TurningPlan {
  readonly from: Float64Array;
  readonly to: Float64Array;
  readonly closed: boolean;
  /** For each segment: length of its chord in A and in B, px. */
  readonly lengthA: Float64Array;
  readonly lengthB: Float64Array;
  /** Direction of its chord in A, rad, and how far it turns on the way to B. */
  readonly angle: Float64Array;
  readonly rotation: Float64Array;
  /** Handles in the in-between of their chord (divided by it): four numbers a segment, for A and for B. */
  readonly handlesA: Float64Array;
  readonly handlesB: Float64Array;
  readonly sizeA: number;
  readonly sizeB: number;
  /** How far the middles of the chords lie from their mean, root mean square, px. */
  readonly spreadA: number;
  readonly spreadB: number;
}

/**
 * Prepares the in-between that turns: chord lengths and turning angles of the segment polygon are interpolated (Sederberg, Gao, Wang, Mu: 2-D
 * shape blending: an intrinsic solution to the vertex path problem, 1993). Handles ride in the turn and scale of their chord.
 *
 * @param from, to 3n + 1 points each, px
 */
export function planTurning(from: Float64Array, to: Float64Array, closed: boolean): TurningPlan {
  const n = (from.length / 2 - 1) / 3;
  const lengthA = new Float64Array(n);
  const lengthB = new Float64Array(n);
  const angle = new Float64Array(n);
  const rotation = new Float64Array(n);
  const handlesA = new Float64Array(4 * n);
  const handlesB = new Float64Array(4 * n);
  let total = 0;
  let mean = 0;
  let lastA = 0;
  let lastB = 0;
  for (let i = 0; i < n; i++) {
    const at = 6 * i;
    lengthA[i] = Math.hypot(from[at + 6] - from[at], from[at + 7] - from[at + 1]);
    lengthB[i] = Math.hypot(to[at + 6] - to[at], to[at + 7] - to[at + 1]);
    let angleA = Math.atan2(from[at + 7] - from[at + 1], from[at + 6] - from[at]);
    let angleB = Math.atan2(to[at + 7] - to[at + 1], to[at + 6] - to[at]);
    // A chord that is a point on one side takes the direction of the other.
    if (!(lengthA[i] > LEAST_EDGE)) angleA = lengthB[i] > LEAST_EDGE ? angleB - (i > 0 ? rotation[i - 1] : 0) : lastA;
    if (!(lengthB[i] > LEAST_EDGE)) angleB = lengthA[i] > LEAST_EDGE ? angleA + (i > 0 ? rotation[i - 1] : 0) : lastB;
    angle[i] = angleA;
    rotation[i] =
      i === 0 ? wrapAngle(angleB - angleA) : rotation[i - 1] + wrapAngle(angleB - lastB) - wrapAngle(angleA - lastA);
    lastA = angleA;
    lastB = angleB;
    const weight = lengthA[i] + lengthB[i];
    total += weight;
    mean += weight * rotation[i];
    handlesOnEdge(from, at, lengthA[i], handlesA, 4 * i);
    handlesOnEdge(to, at, lengthB[i], handlesB, 4 * i);
  }
  // As a whole it goes the shorter way round.
  const turns = total > 0 ? Math.round(mean / total / (2 * Math.PI)) : 0;
  for (let i = 0; i < n; i++) rotation[i] -= turns * 2 * Math.PI;
  const measure = closed ? contourArea : contourLength;
  return {
    from,
    to,
    closed,
    lengthA,
    lengthB,
    angle,
    rotation,
    handlesA,
    handlesB,
    sizeA: measure({ points: from, closed }),
    sizeB: measure({ points: to, closed }),
    spreadA: spreadOf(from, lengthA),
    spreadB: spreadOf(to, lengthB),
  };
}

/**
 * Writes the turning in-between at `progress`. Chords are turned and scaled, the closing error is spread by chord length. The result is brought by the best
 * rotation and translation onto the straight in-between, and scaled so that the area (open: the length) is the mean of the ends'.
 */
export function evaluateTurning(plan: TurningPlan, progress: number, out: Float64Array): Float64Array {
  const { from, to, closed, lengthA, lengthB, angle, rotation, handlesA, handlesB } = plan;
  const n = lengthA.length;
  const q = 1 - progress;
  let closeX = 0;
  let closeY = 0;
  let total = 0;
  for (let i = 0; i < n; i++) {
    const length = q * lengthA[i] + progress * lengthB[i];
    const direction = angle[i] + progress * rotation[i];
    const x = length * Math.cos(direction);
    const y = length * Math.sin(direction);
    out[6 * i + 6] = x;
    out[6 * i + 7] = y;
    closeX += x;
    closeY += y;
    total += length;
  }
  if (!(total > 0)) return straightInto(from, to, progress, out);
  const spreadX = closed ? closeX / total : 0;
  const spreadY = closed ? closeY / total : 0;
  out[0] = 0;
  out[1] = 0;
  for (let i = 0; i < n; i++) {
    const at = 6 * i;
    const length = q * lengthA[i] + progress * lengthB[i];
    const x = out[at + 6] - spreadX * length;
    const y = out[at + 7] - spreadY * length;
    for (let k = 0; k < 2; k++) {
      const hx = q * handlesA[4 * i + 2 * k] + progress * handlesB[4 * i + 2 * k];
      const hy = q * handlesA[4 * i + 2 * k + 1] + progress * handlesB[4 * i + 2 * k + 1];
      out[at + 2 + 2 * k] = out[at] + x * hx - y * hy;
      out[at + 3 + 2 * k] = out[at + 1] + x * hy + y * hx;
    }
    out[at + 6] = out[at] + x;
    out[at + 7] = out[at + 1] + y;
  }
  return ontoStraight(plan, progress, out);
}

/** Rotates and moves an in-between onto the straight in-between (least squares over the chords' middles), and scales it to the mean size. */
function ontoStraight(plan: TurningPlan, progress: number, out: Float64Array): Float64Array {
  const { from, to, closed, lengthA, lengthB, sizeA, sizeB } = plan;
  const n = lengthA.length;
  const q = 1 - progress;
  let weights = 0;
  let square = 0;
  let mx = 0;
  let my = 0;
  let sx = 0;
  let sy = 0;
  let dot = 0;
  let cross = 0;
  for (let i = 0; i < n; i++) {
    const at = 6 * i;
    const w = q * lengthA[i] + progress * lengthB[i];
    const x = (out[at] + out[at + 6]) / 2;
    const y = (out[at + 1] + out[at + 7]) / 2;
    const u = (q * (from[at] + from[at + 6]) + progress * (to[at] + to[at + 6])) / 2;
    const v = (q * (from[at + 1] + from[at + 7]) + progress * (to[at + 1] + to[at + 7])) / 2;
    weights += w;
    square += w * (x * x + y * y);
    mx += w * x;
    my += w * y;
    sx += w * u;
    sy += w * v;
    dot += w * (x * u + y * v);
    cross += w * (x * v - y * u);
  }
  mx /= weights;
  my /= weights;
  sx /= weights;
  sy /= weights;
  dot -= weights * (mx * sx + my * sy);
  cross -= weights * (mx * sy - my * sx);
  const norm = Math.hypot(dot, cross);
  let cos = norm > 0 ? dot / norm : 1;
  let sin = norm > 0 ? cross / norm : 0;
  const measured = closed ? contourArea({ points: out, closed }) : contourLength({ points: out, closed });
  const wanted = q * sizeA + progress * sizeB;
  const ratio = wanted / measured;
  if (ratio > 0 && Number.isFinite(ratio)) {
    const wished = Math.min(2, Math.max(0.5, closed ? Math.sqrt(ratio) : ratio));
    const spread = Math.sqrt(Math.max(0, square / weights - mx * mx - my * my));
    const { spreadA, spreadB } = plan;
    const room = closed
      ? Math.hypot(Math.sqrt(q) * spreadA, Math.sqrt(progress) * spreadB)
      : q * spreadA + progress * spreadB;
    const scale = spread > 0 ? Math.min(wished, Math.max(LEAST_OF_SIZE * wished, room / spread)) : wished;
    cos *= scale;
    sin *= scale;
  }
  for (let i = 0; i < out.length; i += 2) {
    const x = out[i] - mx;
    const y = out[i + 1] - my;
    out[i] = sx + cos * x - sin * y;
    out[i + 1] = sy + sin * x + cos * y;
  }
  return out;
}

/** Root mean square distance of the middles of chords from their mean, the chords weighed by their length. */
function spreadOf(points: Float64Array, lengths: Float64Array): number {
  let weights = 0;
  let square = 0;
  let mx = 0;
  let my = 0;
  for (let i = 0; i < lengths.length; i++) {
    const x = (points[6 * i] + points[6 * i + 6]) / 2;
    const y = (points[6 * i + 1] + points[6 * i + 7]) / 2;
    weights += lengths[i];
    square += lengths[i] * (x * x + y * y);
    mx += lengths[i] * x;
    my += lengths[i] * y;
  }
  if (!(weights > 0)) return 0;
  return Math.sqrt(Math.max(0, square / weights - (mx / weights) ** 2 - (my / weights) ** 2));
}

function straightInto(from: Float64Array, to: Float64Array, progress: number, out: Float64Array): Float64Array {
  for (let i = 0; i < out.length; i++) out[i] = from[i] + (to[i] - from[i]) * progress;
  return out;
}

/** Both handles of a segment divided by its chord, as complex numbers from its start. */
function handlesOnEdge(p: Float64Array, at: number, length: number, out: Float64Array, outAt: number): void {
  const square = length * length;
  for (let k = 0; k < 2; k++) {
    // Has the chord no length? Then the handles follow it evenly.
    if (!(length > LEAST_EDGE)) {
      out[outAt + 2 * k] = (k + 1) / 3;
      out[outAt + 2 * k + 1] = 0;
      continue;
    }
    const cx = p[at + 6] - p[at];
    const cy = p[at + 7] - p[at + 1];
    const hx = p[at + 2 + 2 * k] - p[at];
    const hy = p[at + 3 + 2 * k] - p[at + 1];
    out[outAt + 2 * k] = (hx * cx + hy * cy) / square;
    out[outAt + 2 * k + 1] = (hy * cx - hx * cy) / square;
  }
}

const wrapAngle = (angle: number): number => angle - 2 * Math.PI * Math.round(angle / (2 * Math.PI));
