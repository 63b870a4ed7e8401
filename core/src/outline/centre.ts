import { cubicPoint } from '../curve';
import { gaussLegendre } from '../num';
import { boxSize } from '../vec';
import { type Outline, segmentAt, segmentCount } from './contour';
import { contourArea, outlineBox } from './measure';
import { nestingOf } from './nesting';

const RULE = gaussLegendre(5);

/**
 * Centroid of the filled area in px, exact for cubics: ∬x = ½∮x² dy and ∬y = −½∮y² dx (Green's theorem; the integrands have degree 8,
 * which five nodes integrate exactly). Falls back to the centre of the box where nothing is filled.
 */
export function areaCentre(outline: Outline): { x: number; y: number; area: number } {
  const box = outlineBox(outline);
  const ox = (box.minX + box.maxX) / 2;
  const oy = (box.minY + box.maxY) / 2;
  let area = 0;
  let mx = 0;
  let my = 0;
  const point = new Float64Array(2);
  // What runs against the way it is filled counts the other way round: no contour has to be turned.
  const nesting = outline.contours.length > 1 ? nestingOf(outline) : undefined;
  outline.contours.forEach((contour, c) => {
    if (!contour.closed) return;
    const p = contour.points;
    const hole = nesting?.[c].hole ?? false;
    const sign = contourArea(contour) > 0 === hole ? -1 : 1;
    for (let i = 0; i < segmentCount(contour); i++) {
      const at = segmentAt(i);
      for (let k = 0; k < RULE.nodes.length; k++) {
        const t = RULE.nodes[k];
        const w = sign * RULE.weights[k];
        cubicPoint(p, at, t, point);
        const x = point[0] - ox;
        const y = point[1] - oy;
        const u = 1 - t;
        const a = 3 * u * u;
        const b = 6 * u * t;
        const c = 3 * t * t;
        const dx = a * (p[at + 2] - p[at]) + b * (p[at + 4] - p[at + 2]) + c * (p[at + 6] - p[at + 4]);
        const dy = a * (p[at + 3] - p[at + 1]) + b * (p[at + 5] - p[at + 3]) + c * (p[at + 7] - p[at + 5]);
        area += (w * (x * dy - y * dx)) / 2;
        mx += (w * x * x * dy) / 2;
        my -= (w * y * y * dx) / 2;
      }
    }
  });
  const size = boxSize(box);
  // Is nothing filled (an open line, a point)?
  if (!(Math.abs(area) > 1e-6 * size * size)) return { x: ox, y: oy, area: 0 };
  return { x: ox + mx / area, y: oy + my / area, area };
}
