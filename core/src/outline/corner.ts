import { cubicLength, cubicStretch, cubicTangent, parameterAtLength } from '../curve';
import { appendArc } from './arc-contour';
import { anchorCount, type Contour, ContourBuilder, segmentAt, segmentCount } from './contour';
import { isStraightSegment } from './reshape';

export const CORNER_SHAPES = ['round', 'chamfer'] as const;
export type CornerShape = (typeof CORNER_SHAPES)[number];

/**
 * Rounds or chamfers the corner at anchor `i`. Both segments are cut where a circle of `radius` px would touch them (for curves: that far
 * along them) and joined by an arc, or by a straight line. At most `share` of each neighbouring segment is used up, so that neighbours that
 * are rounded too find room. The anchor keeps its id at the first cut. Undefined where there is no corner.
 */
export function shapeCorner(
  contour: Contour,
  i: number,
  radius: number,
  shape: CornerShape,
  newId: () => string,
  share = 1,
): Contour | undefined {
  const n = segmentCount(contour);
  if (!contour.closed && (i === 0 || i === n)) return undefined;
  const p = contour.points;
  const before = segmentAt((i + n - 1) % n);
  const after = segmentAt(i % n);
  const tangent = (at: number, t: number): [number, number] => {
    const out = cubicTangent(p, at, t, new Float64Array(2));
    return [out[0], out[1]];
  };
  const turn = angleBetween(tangent(before, 1), tangent(after, 0));
  if (!(radius > 0) || Math.abs(turn) < 1e-6) return undefined;
  const lengthBefore = cubicLength(p, before);
  const lengthAfter = cubicLength(p, after);
  const wanted = shape === 'chamfer' ? radius : radius * Math.tan(Math.min(Math.abs(turn), Math.PI - 1e-6) / 2);
  const room = 0.9999;
  const cut = Math.min(wanted, room * share * lengthBefore, room * share * lengthAfter);
  if (!(cut > 0)) return undefined;
  const t0 = parameterAtLength(p, before, lengthBefore - cut, lengthBefore);
  const t1 = parameterAtLength(p, after, cut, lengthAfter);
  const head = cubicStretch(p, before, 0, t0, new Float64Array(8), 0);
  const tail = cubicStretch(p, after, t1, 1, new Float64Array(8), 0);
  const builder = new ContourBuilder(head[6], head[7]);
  const startTangent = tangent(before, t0);
  const endTangent = tangent(after, t1);
  const bend = angleBetween(startTangent, endTangent);
  const chord = Math.hypot(tail[0] - head[6], tail[1] - head[7]);
  if (shape === 'chamfer') builder.lineTo(tail[0], tail[1]);
  else if (isStraightSegment(contour, (i + n - 1) % n) && isStraightSegment(contour, i % n)) {
    const r = cut / Math.tan(Math.abs(turn) / 2);
    const side = Math.sign(turn);
    const cx = head[6] - startTangent[1] * r * side;
    const cy = head[7] + startTangent[0] * r * side;
    const from = Math.atan2(-startTangent[0] * side, startTangent[1] * side);
    appendArc(builder, cx, cy, r, from, from + turn);
  } else {
    const r = chord / (2 * Math.max(1e-9, Math.sin(Math.abs(bend) / 2)));
    const h = Math.abs(bend) > 1e-6 ? (4 / 3) * Math.tan(Math.abs(bend) / 4) * r : chord / 3;
    builder.cubicTo(
      head[6] + startTangent[0] * h,
      head[7] + startTangent[1] * h,
      tail[0] - endTangent[0] * h,
      tail[1] - endTangent[1] * h,
      tail[0],
      tail[1],
    );
  }
  return replaceCorner(contour, i, head, tail, builder.finish(false).points, newId);
}

/** The contour with the corner's end of the segment before, a run of cubics, and the rest of the segment after it. */
function replaceCorner(
  contour: Contour,
  i: number,
  head: Float64Array,
  tail: Float64Array,
  corner: Float64Array,
  newId: () => string,
): Contour {
  const n = segmentCount(contour);
  const p = contour.points;
  const added = (corner.length / 2 - 1) / 3;
  const points: number[] = [];
  const ids: string[] = [];
  const origins: (string | undefined)[] = [];
  const anchor = (k: number, fresh = false): void => {
    ids.push(fresh ? newId() : (contour.anchorIds?.[k] ?? ''));
    origins.push(fresh ? undefined : contour.originIds?.[k]);
  };
  const runs = (from: number, to: number): void => {
    for (let k = from; k < to; k++) {
      points.push(...p.subarray(segmentAt(k) + 2, segmentAt(k) + 8));
      anchor((k + 1) % anchorCount(contour));
    }
  };
  const put = (source: Float64Array): void => void points.push(...source.subarray(2, 8));
  const middle = (): void => {
    for (let k = 0; k < added; k++) {
      points.push(...corner.subarray(6 * k + 2, 6 * k + 8));
      anchor(0, true);
    }
  };
  if (contour.closed && i === 0) {
    // The start goes to the first cut.
    points.push(head[6], head[7]);
    anchor(0);
    middle();
    put(tail);
    anchor(1 % n);
    runs(1, n - 1);
    put(head);
    return { points: Float64Array.from(points), closed: true, ...idsOf(contour, ids, origins) };
  }
  points.push(p[0], p[1]);
  anchor(0);
  runs(0, i - 1);
  put(head);
  anchor(i);
  middle();
  put(tail);
  anchor((i + 1) % anchorCount(contour));
  runs(i + 1, n);
  if (contour.closed) {
    ids.pop();
    origins.pop();
  }
  return { points: Float64Array.from(points), closed: contour.closed, ...idsOf(contour, ids, origins) };
}

const idsOf = (contour: Contour, ids: string[], origins: (string | undefined)[]) => ({
  anchorIds: contour.anchorIds && ids,
  originIds: contour.originIds && origins,
});

const angleBetween = ([ax, ay]: [number, number], [bx, by]: [number, number]): number =>
  Math.atan2(ax * by - ay * bx, ax * bx + ay * by);
