import { type Matrix, transformPoints } from '../vec';
import type { Contour, Outline } from './contour';

/** The contour run the other way; a closed one keeps its first anchor. */
export function reverseContour(contour: Contour): Contour {
  const p = contour.points;
  const points = new Float64Array(p.length);
  for (let i = 0; i < p.length; i += 2) {
    points[i] = p[p.length - 2 - i];
    points[i + 1] = p[p.length - 1 - i];
  }
  const flip = <T>(ids: readonly T[] | undefined): T[] | undefined =>
    ids && (contour.closed ? [ids[0], ...ids.slice(1).reverse()] : [...ids].reverse());
  return { points, closed: contour.closed, anchorIds: flip(contour.anchorIds), originIds: flip(contour.originIds) };
}

/** The outline mapped by `matrix`. Ids stay; the direction on screen turns round where the map mirrors. */
export function transformOutline(outline: Outline, matrix: Matrix): Outline {
  const contours = outline.contours.map((contour) => ({
    ...contour,
    points: transformPoints(matrix, contour.points, new Float64Array(contour.points.length)),
  }));
  return { ...outline, contours };
}
