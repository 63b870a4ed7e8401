import {
  cubicPoint,
  type Id,
  measureArcLength,
  nearestOnContour,
  type Place,
  type PlacedPart,
  PlaceFinder,
  placeAtShare,
  placeOfShare,
  segmentAt,
  shareOfAnchor,
  shareOfCurvePlace,
} from '@core';

/** A place on one of the outlines, with all that is needed to store and to show it. Canvas px. */
export interface OutlinePlace {
  readonly place: Place;
  readonly partId: Id;
  readonly contourId: Id;
  readonly contour: number;
  readonly anchorIds: readonly string[];
  /** Share of the contour's length as it is written. */
  readonly share: number;
  readonly x: number;
  readonly y: number;
}

/** The place of the outlines nearest to a point within `reach` px; an anchor within `snap` px goes first. `only` keeps to one contour. */
export function placeNear(
  parts: readonly PlacedPart[],
  x: number,
  y: number,
  reach: number,
  snap: number,
  only?: Id,
): OutlinePlace | undefined {
  let best: { part: PlacedPart; k: number; segment: number; t: number; distance: number } | undefined;
  for (const part of parts) {
    part.outline.contours.forEach((contour, k) => {
      if (only && part.part.contours[k].id !== only) return;
      const nearest = nearestOnContour(contour, x, y, best ? best.distance : only ? Infinity : reach);
      if (nearest) best = { part, k, ...nearest };
    });
  }
  if (!best) return undefined;
  const contour = best.part.outline.contours[best.k];
  const table = measureArcLength(contour);
  const segments = table.cumulative.length - 1;
  let share = shareOfCurvePlace(table, best);
  // An anchor that is near counts as what was meant.
  let closest = snap;
  for (let i = 0; i <= (contour.closed ? segments - 1 : segments); i++) {
    const away = Math.hypot(contour.points[6 * i] - x, contour.points[6 * i + 1] - y);
    if (away > closest) continue;
    closest = away;
    share = shareOfAnchor(table, i);
  }
  return placeAtOutline(best.part, best.k, share);
}

/** The place at a share of a contour, wrapped where the contour is closed. */
export function placeAtOutline(part: PlacedPart, k: number, share: number): OutlinePlace | undefined {
  const contour = part.outline.contours[k];
  const table = measureArcLength(contour);
  const kept = contour.closed ? share - Math.floor(share) : Math.min(1, Math.max(0, share));
  const place = placeOfShare(table, kept);
  if (!place) return undefined;
  const at = placeAtShare(table, kept);
  const point = cubicPoint(contour.points, segmentAt(at.segment), at.t, new Float64Array(2));
  return {
    place,
    partId: part.part.id,
    contourId: part.part.contours[k].id,
    contour: k,
    anchorIds: contour.anchorIds ?? [],
    share: kept,
    x: point[0],
    y: point[1],
  };
}

/** Where a stored place is now. */
export function locate(parts: readonly PlacedPart[], place: Place): OutlinePlace | undefined {
  for (const part of parts) {
    const found = new PlaceFinder(part.outline).find(place);
    if (found) return placeAtOutline(part, found.contour, found.share);
  }
  return undefined;
}

/** The next place for the arrow keys: an anchor further along, or a hundredth of the length. */
export function stepAlong(
  parts: readonly PlacedPart[],
  from: OutlinePlace,
  direction: 1 | -1,
  fine: boolean,
): OutlinePlace | undefined {
  const part = parts.find(({ part: { id } }) => id === from.partId);
  const contour = part?.outline.contours[from.contour];
  if (!part || !contour) return undefined;
  if (fine) return placeAtOutline(part, from.contour, from.share + 0.01 * direction);
  const table = measureArcLength(contour);
  const count = table.cumulative.length - 1;
  const shares = Array.from({ length: contour.closed ? count : count + 1 }, (_, i) => shareOfAnchor(table, i));
  const ahead = shares.filter((share) => (direction > 0 ? share > from.share + 1e-6 : share < from.share - 1e-6));
  const next = direction > 0 ? (ahead[0] ?? shares[0]) : (ahead[ahead.length - 1] ?? shares[shares.length - 1]);
  return placeAtOutline(part, from.contour, next);
}

/** The contour whose inside or edge is nearest to a point: the smallest that holds it, else the nearest within `reach` px. */
export function contourNear(
  parts: readonly PlacedPart[],
  x: number,
  y: number,
  reach: number,
): { partId: Id; contourId: Id } | undefined {
  const edge = placeNear(parts, x, y, reach, 0);
  return edge && { partId: edge.partId, contourId: edge.contourId };
}
