import { cubicLength, parameterAtLength } from '../curve';
import { type Contour, segmentAt, segmentCount } from './contour';

/** Arc length along a contour, measured once. */
export interface ArcLengthTable {
  readonly contour: Contour;
  /** Length from the contour's start to the start of segment i, px; the last entry is the whole length. */
  readonly cumulative: Float64Array;
}

/** A point of a contour as segment index and curve parameter in [0, 1]. */
export interface CurvePlace {
  readonly segment: number;
  readonly t: number;
}

export function measureArcLength(contour: Contour): ArcLengthTable {
  const n = segmentCount(contour);
  const cumulative = new Float64Array(n + 1);
  for (let i = 0; i < n; i++) cumulative[i + 1] = cumulative[i] + cubicLength(contour.points, segmentAt(i));
  return { contour, cumulative };
}

/** Length of the measured contour in px. */
export const totalLength = (table: ArcLengthTable): number => table.cumulative[table.cumulative.length - 1];

/** Share of the length in [0, 1] at which anchor `i` lies. */
export const shareOfAnchor = (table: ArcLengthTable, i: number): number =>
  totalLength(table) > 0 ? table.cumulative[i] / totalLength(table) : 0;

/** Where a share of the length in [0, 1] lies (clamped; segments of zero length are skipped). */
export function placeAtShare(table: ArcLengthTable, share: number): CurvePlace {
  const { cumulative, contour } = table;
  const n = cumulative.length - 1;
  const total = cumulative[n];
  // Is the contour a point?
  if (!(total > 0)) return { segment: 0, t: 0 };
  const length = Math.min(total, Math.max(0, share * total));
  let low = 0;
  let high = n - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (cumulative[middle] <= length) low = middle;
    else high = middle - 1;
  }
  const segment = cumulative[low + 1] - cumulative[low];
  return { segment: low, t: parameterAtLength(contour.points, segmentAt(low), length - cumulative[low], segment) };
}

/** Share of the length in [0, 1] at which a segment and curve parameter lie: the other way round than `placeAtShare`. */
export function shareOfCurvePlace(table: ArcLengthTable, { segment, t }: CurvePlace): number {
  const total = totalLength(table);
  if (!(total > 0)) return 0;
  return Math.min(1, (table.cumulative[segment] + cubicLength(table.contour.points, segmentAt(segment), 0, t)) / total);
}
