import {
  type ArcLengthTable,
  appendStretch,
  type Contour,
  type CurvePlace,
  measureArcLength,
  placeAtShare,
} from '../outline';
import type { Slit } from './match';

/** A curve parameter this near to an anchor is at it. */
const NEAR_ANCHOR = 1e-6;

/** A contour made for matching, and which of its segments are bridges: edges that no source contour has. */
export interface RunContour {
  readonly contour: Contour;
  /** Indices of segments; empty for a contour as it is. */
  readonly bridges: readonly number[];
}

/**
 * A solid with holes joined to it by zero-width slits, as one contour: round the solid, and at each slit over to the hole, once round it
 * and back. `contours` are those of an outline, run so that solids and holes go opposite ways; shares count along them as given.
 * It starts at the first slit.
 */
export function joinBySlits(contours: readonly Contour[], solid: number, slits: readonly Slit[]): RunContour {
  const outer = contours[solid];
  const table = measureArcLength(outer);
  const order = [...slits].sort((p, q) => p.at - q.at || p.hole - q.hole);
  const points: number[] = [];
  const bridges: number[] = [];
  const segments = (): number => (points.length / 2 - 1) / 3;
  const lineTo = (x: number, y: number): void => {
    const [x0, y0] = points.slice(-2);
    bridges.push(segments());
    points.push(x0 + (x - x0) / 3, y0 + (y - y0) / 3, x0 + ((x - x0) * 2) / 3, y0 + ((y - y0) * 2) / 3, x, y);
  };
  for (const [k, slit] of order.entries()) {
    const next = order[k + 1]?.at ?? order[0].at + 1;
    const around = walk(table, slit.at, next);
    if (k === 0) points.push(around[0], around[1]);
    const [x, y] = points.slice(-2);
    // Over to the hole, once round, and back.
    const hole = walk(measureArcLength(contours[slit.hole]), slit.holeAt, slit.holeAt + 1);
    lineTo(hole[0], hole[1]);
    points.push(...hole.slice(2));
    lineTo(x, y);
    points.push(...around.slice(2));
  }
  // The last point repeats the first exactly.
  points[points.length - 2] = points[0];
  points[points.length - 1] = points[1];
  return { contour: { points: Float64Array.from(points), closed: true }, bridges };
}

/** The cubics from one share to another; `to` may pass 1. */
function walk(table: ArcLengthTable, from: number, to: number): number[] {
  const { contour } = table;
  const segments = table.cumulative.length - 1;
  const start = placeNear(table, from >= 1 ? from - 1 : from);
  const past = to >= 1;
  const end = placeNear(table, past ? to - 1 : to);
  const stop = { segment: end.segment + (past ? segments : 0), t: end.t };
  const out: number[] = [];
  appendStretch(contour, start, stop, out);
  // The first point, by cutting the first stretch's start again.
  const first: number[] = [];
  appendStretch(contour, { segment: start.segment, t: 0 }, start, first);
  const origin =
    first.length > 0 ? first.slice(-2) : [...contour.points.subarray(6 * start.segment, 6 * start.segment + 2)];
  return [...origin, ...out];
}

/** The place at a share, at the anchor where it is nearer to one than rounding tells. */
function placeNear(table: ArcLengthTable, share: number): CurvePlace {
  const { segment, t } = placeAtShare(table, share);
  if (t < NEAR_ANCHOR) return { segment, t: 0 };
  if (t < 1 - NEAR_ANCHOR) return { segment, t };
  return { segment: (segment + 1) % (table.cumulative.length - 1), t: 0 };
}
