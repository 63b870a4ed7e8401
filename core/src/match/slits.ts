import { cubicLength, cubicPoint } from '../curve';
import { bezierSignChanges } from '../num';
import {
  type Contour,
  measureArcLength,
  nearestOnContour,
  type Outline,
  placeAtShare,
  segmentAt,
  segmentCount,
  totalLength,
} from '../outline';
import type { Slit } from './match';

/** How many places round a hole are tried. */
const PLACES = 8;
/** A curve parameter this near to an anchor is at it. */
const NEAR_ANCHOR = 1e-3;

/**
 * Ways to join holes to their solid by slits: for each of eight places round the first hole the shortest bridge to the solid, further holes by
 * their shortest free bridge. Bridges that cross a contour of the outline are left out.
 *
 * @param holes indices of contours inside contour `solid`, one to three
 */
export function slitChoices(outline: Outline, solid: number, holes: readonly number[]): Slit[][] {
  const [first, ...others] = holes;
  const bridges = bridgesOf(outline, solid, first);
  const rest = others.map((hole) => bridgesOf(outline, solid, hole));
  if (rest.some((list) => list.length === 0)) return [];
  return bridges.map(({ slit }) => {
    const chosen = [slit];
    for (const list of rest) {
      // Bridges that start at one place of the solid would cross each other's ends.
      const free = list.find((bridge) => chosen.every(({ at }) => Math.abs(at - bridge.slit.at) > 1e-3)) ?? list[0];
      chosen.push(free.slit);
    }
    return chosen;
  });
}

/** Bridges from places round a hole to the solid, the shortest first. */
function bridgesOf(outline: Outline, solid: number, hole: number): { slit: Slit; length: number }[] {
  const outer = outline.contours[solid];
  const inner = outline.contours[hole];
  const tableOuter = measureArcLength(outer);
  const tableInner = measureArcLength(inner);
  const total = totalLength(tableOuter);
  const point = new Float64Array(2);
  const out: { slit: Slit; length: number }[] = [];
  for (let k = 0; k < PLACES; k++) {
    const holeAt = k / PLACES;
    const place = placeAtShare(tableInner, holeAt);
    cubicPoint(inner.points, segmentAt(place.segment), place.t, point);
    const [x, y] = point;
    const nearest = nearestOnContour(outer, x, y);
    if (!nearest || !(nearest.distance > 0)) continue;
    if (outline.contours.some((contour) => crossesBetween(contour, x, y, nearest.x, nearest.y))) continue;
    // A bridge from an anchor starts exactly there: no sliver of an edge may be left beside it.
    const t = nearest.t < NEAR_ANCHOR ? 0 : nearest.t > 1 - NEAR_ANCHOR ? 1 : nearest.t;
    const at =
      (tableOuter.cumulative[nearest.segment] + cubicLength(outer.points, segmentAt(nearest.segment), 0, t)) / total;
    out.push({ slit: { hole, at: at >= 1 ? 0 : at, holeAt }, length: nearest.distance });
  }
  return out.sort((p, q) => p.length - q.length);
}

/** Does a contour cross the straight line between two points, apart from its ends? */
function crossesBetween(contour: Contour, x0: number, y0: number, x1: number, y1: number): boolean {
  const dx = x1 - x0;
  const dy = y1 - y0;
  const length2 = dx * dx + dy * dy;
  const p = contour.points;
  const side = (i: number): number => dx * (p[i + 1] - y0) - dy * (p[i] - x0);
  const point = new Float64Array(2);
  for (let i = 0; i < segmentCount(contour); i++) {
    const at = segmentAt(i);
    for (const t of bezierSignChanges(side(at), side(at + 2), side(at + 4), side(at + 6))) {
      cubicPoint(p, at, t, point);
      const along = ((point[0] - x0) * dx + (point[1] - y0) * dy) / length2;
      if (along > 1e-3 && along < 1 - 1e-3) return true;
    }
  }
  return false;
}
