import { cubicStretch } from '../curve';
import { quadraticRoots } from '../num';
import { type Contour, measureArcLength } from '../outline';
import type { PlanContour, PlanWipe } from './plan';
import { onGrid } from './spline-keys';

/** Halvings of a bracket: below the plan's grid on any segment. */
const HALVINGS = 40;

/** A contour made ready to be wiped: its whole outline, and how it is uncovered. */
export interface WipedContour {
  /** 3n + 1 points, px. */
  readonly full: Float64Array;
  readonly wipe: PlanWipe;
  /** Segments that lie on the wiping edge while it passes; they have no length when the contour is whole. */
  readonly edges: readonly number[];
}

/**
 * Prepares a contour that comes or goes by wiping. A closed one is uncovered (or covered) by a straight edge that moves in the direction
 * `angle` (rad, 0 to the right, clockwise on screen). Each segment is split where it turns back in that direction, so that the edge meets it
 * once, and has a second segment for the edge. The area shown is exactly the part of the contour on one side of the edge. An open one is drawn
 * (or taken back) along its length from its start; its angle does not matter.
 */
export function wipedContour(contour: Contour, angle: number, role: 'appears' | 'vanishes'): WipedContour {
  const { points, closed } = contour;
  const count = (points.length / 2 - 1) / 3;
  if (!closed) {
    const { cumulative } = measureArcLength(contour);
    const total = cumulative[count];
    const shares = cumulative.map((length) => (total > 0 ? length / total : 1));
    return { full: points.map(onGrid), wipe: { kind: 'length', shares, erases: role === 'vanishes' }, edges: [] };
  }
  const sign = role === 'appears' ? 1 : -1;
  const x = sign * Math.cos(angle);
  const y = sign * Math.sin(angle);
  const along = (i: number): number => points[i] * x + points[i + 1] * y;
  const buffer = new Float64Array(8);
  const numbers: number[] = [onGrid(points[0]), onGrid(points[1])];
  const rising: number[] = [];
  let low = Infinity;
  let high = -Infinity;
  for (let k = 0; k < count; k++) {
    const at = 6 * k;
    const [s0, s1, s2, s3] = [along(at), along(at + 2), along(at + 4), along(at + 6)];
    const turns = quadraticRoots(3 * (s3 - 3 * s2 + 3 * s1 - s0), 6 * (s2 - 2 * s1 + s0), 3 * (s1 - s0));
    const stops = [0, ...turns.filter((t) => t > 1e-9 && t < 1 - 1e-9), 1];
    for (let i = 0; i + 1 < stops.length; i++) {
      cubicStretch(points, at, stops[i], stops[i + 1], buffer, 0);
      const curve = Array.from(buffer.subarray(2), onGrid);
      const end = curve.slice(4);
      const a = buffer[0] * x + buffer[1] * y;
      const b = buffer[6] * x + buffer[7] * y;
      low = Math.min(low, a, b);
      high = Math.max(high, a, b);
      const up = b >= a;
      rising.push(up ? 1 : 0);
      // What the edge uncovers first stands first: the curve where the segment runs ahead of it, else the stretch of the edge.
      if (up) numbers.push(...curve, ...end, ...end, ...end);
      else numbers.push(...numbers.slice(-2), ...numbers.slice(-2), ...numbers.slice(-2), ...curve);
    }
  }
  const [first, last] = role === 'appears' ? [low, high] : [high, low];
  return {
    full: Float64Array.from(numbers),
    wipe: { kind: 'edge', x, y, first, last, rising: Uint8Array.from(rising) },
    edges: rising.map((up, i) => 2 * i + up),
  };
}

/** Writes a wiped contour at its own progress (0 to 1). `full` is the plan's array of the end at which it is whole. Allocates nothing. */
export function writeWipe(
  contour: PlanContour,
  wipe: PlanWipe,
  full: Float64Array,
  p: number,
  out: Float64Array,
): void {
  if (wipe.kind === 'length') writeLength(contour, wipe.shares, full, wipe.erases ? 1 - p : p, out);
  else writeEdge(contour, wipe, full, wipe.first + (wipe.last - wipe.first) * p, out);
}

function writeLength(
  { at, segments }: PlanContour,
  shares: Float64Array,
  full: Float64Array,
  shown: number,
  out: Float64Array,
): void {
  for (let k = 0; k < segments; k++) {
    const i = at + 6 * k;
    const width = shares[k + 1] - shares[k];
    const t = shown >= shares[k + 1] ? 1 : shown > shares[k] && width > 0 ? (shown - shares[k]) / width : 0;
    if (t > 0) cubicStretch(full, i, 0, t, out, i);
    // Beyond the end of what is shown everything waits there.
    else if (k === 0) writePoint(full[i], full[i + 1], i, out);
    else writePoint(out[i], out[i + 1], i, out);
  }
}

function writePoint(x: number, y: number, i: number, out: Float64Array): void {
  for (let k = 0; k < 8; k += 2) {
    out[i + k] = x;
    out[i + k + 1] = y;
  }
}

function writeEdge(
  { at, segments }: PlanContour,
  { x, y, rising }: Extract<PlanWipe, { kind: 'edge' }>,
  full: Float64Array,
  level: number,
  out: Float64Array,
): void {
  for (let k = 0; k + 1 < segments; k += 2) {
    const up = rising[k >> 1] === 1;
    const i = at + 6 * k;
    const curve = up ? i : i + 6;
    const edge = up ? i + 6 : i;
    // The end that is uncovered first, and the other.
    const near = up ? curve : curve + 6;
    const far = up ? curve + 6 : curve;
    const sNear = full[near] * x + full[near + 1] * y;
    const sFar = full[far] * x + full[far + 1] * y;
    if (sFar <= level) {
      cubicStretch(full, curve, 0, 1, out, curve);
      writePoint(full[far], full[far + 1], edge, out);
      continue;
    }
    const farX = full[far] - (sFar - level) * x;
    const farY = full[far + 1] - (sFar - level) * y;
    if (sNear >= level) {
      const nearX = full[near] - (sNear - level) * x;
      const nearY = full[near + 1] - (sNear - level) * y;
      writePoint(nearX, nearY, curve, out);
      if (up) writeLine(nearX, nearY, farX, farY, edge, out);
      else writeLine(farX, farY, nearX, nearY, edge, out);
      continue;
    }
    let shown = up ? 0 : 1;
    let hidden = up ? 1 : 0;
    for (let step = 0; step < HALVINGS; step++) {
      const middle = (shown + hidden) / 2;
      if (alongCubic(full, curve, middle, x, y) <= level) shown = middle;
      else hidden = middle;
    }
    if (up) {
      cubicStretch(full, curve, 0, shown, out, curve);
      writeLine(out[curve + 6], out[curve + 7], farX, farY, edge, out);
    } else {
      cubicStretch(full, curve, shown, 1, out, curve);
      writeLine(farX, farY, out[curve], out[curve + 1], edge, out);
    }
  }
}

function alongCubic(p: Float64Array, at: number, t: number, x: number, y: number): number {
  const u = 1 - t;
  const b0 = u * u * u;
  const b1 = 3 * u * u * t;
  const b2 = 3 * u * t * t;
  const b3 = t * t * t;
  return (
    (b0 * p[at] + b1 * p[at + 2] + b2 * p[at + 4] + b3 * p[at + 6]) * x +
    (b0 * p[at + 1] + b1 * p[at + 3] + b2 * p[at + 5] + b3 * p[at + 7]) * y
  );
}

function writeLine(x0: number, y0: number, x1: number, y1: number, i: number, out: Float64Array): void {
  for (let k = 0; k < 4; k++) {
    out[i + 2 * k] = x0 + ((x1 - x0) * k) / 3;
    out[i + 2 * k + 1] = y0 + ((y1 - y0) * k) / 3;
  }
}
