import {
  type Contour,
  measureArcLength,
  nearestOnContour,
  type Place,
  placeOfShare,
  shareOfCurvePlace,
} from '../../outline';
import type { IdSource, PlaceTie } from '../../piece';
import type { SvgShape } from '../../svg';
import { isPoint } from './plain-outline';

/** Places nearer to each other than this are one, px. */
const SAME_PX = 0.08;

/** What a file shows at both ends of a way, point by point, and the same as it stands in a piece, with names for its anchors. */
export interface WayEnds {
  readonly raw: readonly [readonly SvgShape[], readonly SvgShape[]];
  readonly own: readonly [readonly SvgShape[], readonly SvgShape[]];
}

/** The places that a file's points tie together, contour by contour. Null where the file builds its contours otherwise than they stand. */
export function fileTies({ raw, own }: WayEnds, newId: IdSource): PlaceTie[] | null {
  const [rawFrom, rawTo] = raw.map(contoursOf);
  const [from, to] = own.map(contoursOf);
  const [leftFrom, leftTo] = [rawFrom, rawTo].map((contours) =>
    contours.flatMap((each, i) => (isPoint(each) ? [] : [i])),
  );
  if (leftFrom.length !== from.length || leftTo.length !== to.length || rawFrom.length !== rawTo.length) return null;
  const ties: PlaceTie[] = [];
  for (const [k, i] of leftFrom.entries()) {
    const other = leftTo.indexOf(i);
    if (rawFrom[i].points.length !== rawTo[i].points.length) return null;
    if (other < 0) continue;
    const [placesA, placesB] = [placesOn(from[k], rawFrom[i]), placesOn(to[other], rawTo[i])];
    placesA.forEach((a, at) => {
      const b = placesB[at];
      // Where a file has two points on one, only the first of them ties.
      if (!a || !b || ties.some((tie) => isOne(tie.a, a) || isOne(tie.b, b))) return;
      ties.push({ id: newId('t'), a, b });
    });
  }
  return ties;
}

const contoursOf = (shapes: readonly SvgShape[]): Contour[] => shapes.flatMap(({ outline }) => outline.contours);

/** The places of a contour on which a file has its anchors, in the file's order; undefined for one that lies beside it. */
function placesOn(contour: Contour, raw: Contour): (Place | undefined)[] {
  const table = measureArcLength(contour);
  const count = (raw.points.length - 2) / 6 + (raw.closed ? 0 : 1);
  return Array.from({ length: count }, (_, i) => {
    const [x, y] = [raw.points[6 * i], raw.points[6 * i + 1]];
    const anchor = contour.anchorIds?.find(
      (__, k) => Math.hypot(contour.points[6 * k] - x, contour.points[6 * k + 1] - y) <= SAME_PX,
    );
    if (anchor !== undefined) return { anchor };
    const near = nearestOnContour(contour, x, y);
    return near && near.distance <= SAME_PX ? placeOfShare(table, shareOfCurvePlace(table, near)) : undefined;
  });
}

const isOne = (p: Place, q: Place): boolean => JSON.stringify(p) === JSON.stringify(q);
