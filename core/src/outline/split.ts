import { cubicStretch } from '../curve';
import { PARAMETER_EPS } from '../num';
import type { CurvePlace } from './arc-length';
import { type Contour, segmentAt, segmentCount } from './contour';

/**
 * The stretch of a contour between two places, as cubics, by exact splitting: the outline does not change. `to` must not lie before
 * `from`; a closed contour is walked through its start when `to.segment` is at or past the segment count. Appends to `out` the
 * points after the first (the first is the caller's).
 */
export function appendStretch(contour: Contour, from: CurvePlace, to: CurvePlace, out: number[]): void {
  const n = segmentCount(contour);
  const buffer = new Float64Array(8);
  for (let segment = from.segment; segment <= to.segment; segment++) {
    const t0 = segment === from.segment ? from.t : 0;
    const t1 = segment === to.segment ? to.t : 1;
    if (!(t1 - t0 > PARAMETER_EPS)) continue;
    cubicStretch(contour.points, segmentAt(segment % n), t0, t1, buffer, 0);
    for (let k = 2; k < 8; k++) out.push(buffer[k]);
  }
}

/**
 * Adds an anchor at each of the given places (in ascending order) without changing the shape. Places at existing anchors add nothing.
 * New anchors get an id from `newId` where the contour has ids.
 */
export function addAnchors(contour: Contour, places: readonly CurvePlace[], newId?: () => string): Contour {
  const points: number[] = [contour.points[0], contour.points[1]];
  const ids: string[] = [];
  const origins: (string | undefined)[] = [];
  const n = segmentCount(contour);
  let next = 0;
  for (let segment = 0; segment < n; segment++) {
    ids.push(contour.anchorIds?.[segment] ?? '');
    origins.push(contour.originIds?.[segment]);
    let t = 0;
    for (; next < places.length && places[next].segment === segment; next++) {
      const cut = places[next].t;
      if (cut - t <= PARAMETER_EPS || 1 - cut <= PARAMETER_EPS) continue;
      appendStretch(contour, { segment, t }, { segment, t: cut }, points);
      ids.push(newId?.() ?? '');
      origins.push(undefined);
      t = cut;
    }
    appendStretch(contour, { segment, t }, { segment, t: 1 }, points);
  }
  if (!contour.closed) {
    ids.push(contour.anchorIds?.[n] ?? '');
    origins.push(contour.originIds?.[n]);
  }
  return {
    points: Float64Array.from(points),
    closed: contour.closed,
    anchorIds: contour.anchorIds && newId ? ids : undefined,
    originIds: contour.originIds && newId ? origins : undefined,
  };
}
