import { cubicStretch } from '../curve';
import { PARAMETER_EPS } from '../num';
import type { CurvePlace } from './arc-length';
import { type Contour, pieceAt, pieceCount } from './contour';

/**
 * The stretch of a contour between two places, as cubics, by exact splitting: the outline does not change. `to` must not lie before
 * `from`; a closed contour is walked through its start when `to.piece` is at or past the piece count. Appends to `out` the
 * points after the first (the first is the caller's).
 */
export function appendStretch(contour: Contour, from: CurvePlace, to: CurvePlace, out: number[]): void {
  const n = pieceCount(contour);
  const buffer = new Float64Array(8);
  for (let piece = from.piece; piece <= to.piece; piece++) {
    const t0 = piece === from.piece ? from.t : 0;
    const t1 = piece === to.piece ? to.t : 1;
    if (!(t1 - t0 > PARAMETER_EPS)) continue;
    cubicStretch(contour.points, pieceAt(piece % n), t0, t1, buffer, 0);
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
  const n = pieceCount(contour);
  let next = 0;
  for (let piece = 0; piece < n; piece++) {
    ids.push(contour.anchorIds?.[piece] ?? '');
    origins.push(contour.originIds?.[piece]);
    let t = 0;
    for (; next < places.length && places[next].piece === piece; next++) {
      const cut = places[next].t;
      if (cut - t <= PARAMETER_EPS || 1 - cut <= PARAMETER_EPS) continue;
      appendStretch(contour, { piece, t }, { piece, t: cut }, points);
      ids.push(newId?.() ?? '');
      origins.push(undefined);
      t = cut;
    }
    appendStretch(contour, { piece, t }, { piece, t: 1 }, points);
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
