import { FLATTEN_EPS_REL } from '../num';
import { boxSize } from '../vec';
import { areaCentre } from './centre';
import type { Contour } from './contour';
import { flattenContour, polylineWinding } from './flatten';
import { contourBox } from './measure';

/**
 * A point well inside a closed contour: its centroid where that lies inside, else the middle of the widest stretch inside at the
 * centroid's height. For open contours the centre of the box.
 */
export function innerPoint(contour: Contour): { x: number; y: number } {
  const centre = areaCentre({ contours: [contour], fillRule: 'nonzero' });
  const size = boxSize(contourBox(contour));
  if (!contour.closed || !(size > 0)) return { x: centre.x, y: centre.y };
  const line = flattenContour(contour, FLATTEN_EPS_REL * size);
  if (polylineWinding(line, centre.x, centre.y) !== 0) return { x: centre.x, y: centre.y };
  const hits: number[] = [];
  for (let i = 0, j = line.length - 2; i < line.length; j = i, i += 2) {
    if (line[j + 1] <= centre.y === line[i + 1] <= centre.y) continue;
    hits.push(line[j] + ((line[i] - line[j]) * (centre.y - line[j + 1])) / (line[i + 1] - line[j + 1]));
  }
  hits.sort((p, q) => p - q);
  let best = centre.x;
  let width = 0;
  for (let k = 0; k + 1 < hits.length; k++) {
    const middle = (hits[k] + hits[k + 1]) / 2;
    if (hits[k + 1] - hits[k] > width && polylineWinding(line, middle, centre.y) !== 0) {
      width = hits[k + 1] - hits[k];
      best = middle;
    }
  }
  return { x: best, y: centre.y };
}
