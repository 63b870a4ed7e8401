import { cubicPoint } from '../curve';
import {
  addAnchors,
  type Contour,
  type CurvePlace,
  contourArea,
  cutAt,
  nestingOf,
  type Outline,
  outlineSize,
  polygonContour,
  segmentAt,
  segmentCount,
} from '../outline';
import { combineOutlines } from './combine';
import type { PathEngine } from './engine';

/** The outline without its holes, and without what lay in them. */
export function fillHoles(outline: Outline): Outline {
  const nesting = nestingOf(outline);
  return { fillRule: 'nonzero', contours: outline.contours.filter((_, i) => nesting[i].depth === 0) };
}

/** The outline without closed contours that cover less than `share` of its size squared. */
export function removeSpecks(outline: Outline, share = 1e-4): Outline {
  const least = share * outlineSize(outline) ** 2;
  return {
    ...outline,
    contours: outline.contours.filter((contour) => !contour.closed || Math.abs(contourArea(contour)) >= least),
  };
}

/** Each solid with its holes as an outline of its own; open contours likewise. */
export function separateSolids(outline: Outline): Outline[] {
  const nesting = nestingOf(outline);
  return outline.contours.flatMap((contour, i) => {
    if (nesting[i].hole) return [];
    const holes = outline.contours.filter((_, j) => nesting[j].hole && nesting[j].parent === i);
    return [{ fillRule: outline.fillRule, contours: [contour, ...holes] }];
  });
}

/**
 * Cuts an outline along the endless line through (x0, y0) and (x1, y1): what lies left of it, looking along, and what lies right. Closed
 * contours become closed halves, open ones are divided where they cross. Either side may be without contours.
 *
 * @throws CoreError 'path-operation'
 */
export function cutAlongLine(
  engine: PathEngine,
  outline: Outline,
  x0: number,
  y0: number,
  x1: number,
  y1: number,
): { left: Outline; right: Outline } {
  const length = Math.hypot(x1 - x0, y1 - y0);
  if (!(length > 0)) return { left: outline, right: { contours: [], fillRule: outline.fillRule } };
  const ux = (x1 - x0) / length;
  const uy = (y1 - y0) / length;
  const side = (x: number, y: number): number => ux * (y - y0) - uy * (x - x0);
  const closed = { ...outline, contours: outline.contours.filter((contour) => contour.closed) };
  const left: Contour[] = [];
  const right: Contour[] = [];
  if (closed.contours.length > 0) {
    const reach = 2 * outlineSize(outline) + Math.abs(side(closed.contours[0].points[0], closed.contours[0].points[1]));
    const along = ux * (closed.contours[0].points[0] - x0) + uy * (closed.contours[0].points[1] - y0);
    const at = (a: number, b: number): [number, number] => [x0 + ux * a - uy * b, y0 + uy * a + ux * b];
    // The half plane on the right, as far as the outline reaches. Positive sides lie right of the line (y down).
    const half: Outline = {
      fillRule: 'nonzero',
      contours: [
        polygonContour([
          ...at(along - reach, 0),
          ...at(along + reach, 0),
          ...at(along + reach, reach),
          ...at(along - reach, reach),
        ]),
      ],
    };
    right.push(...combineOutlines(engine, 'intersect', [closed, half]).outline.contours);
    left.push(...combineOutlines(engine, 'subtract', [closed, half]).outline.contours);
  }
  for (const contour of outline.contours) {
    if (contour.closed) continue;
    for (const run of splitOpen(contour, side)) {
      const middle = new Float64Array(2);
      cubicPoint(run.points, segmentAt(Math.floor(segmentCount(run) / 2)), 0.5, middle);
      (side(middle[0], middle[1]) > 0 ? right : left).push(run);
    }
  }
  return { left: { contours: left, fillRule: 'nonzero' }, right: { contours: right, fillRule: 'nonzero' } };
}

const PROBES = 24;

/** An open contour in runs that each lie on one side. */
function splitOpen(contour: Contour, side: (x: number, y: number) => number): Contour[] {
  const places: CurvePlace[] = [];
  const point = new Float64Array(2);
  for (let segment = 0; segment < segmentCount(contour); segment++) {
    const at = (t: number): number => {
      cubicPoint(contour.points, segmentAt(segment), t, point);
      return side(point[0], point[1]);
    };
    for (let k = 0; k < PROBES; k++) {
      let [low, high] = [k / PROBES, (k + 1) / PROBES];
      const start = at(low);
      if (start > 0 === at(high) > 0) continue;
      for (let i = 0; i < 50; i++) {
        const middle = (low + high) / 2;
        if (at(middle) > 0 === start > 0) low = middle;
        else high = middle;
      }
      places.push({ segment, t: (low + high) / 2 });
    }
  }
  let ids = 0;
  const marked = addAnchors({ points: contour.points, closed: false }, places);
  const runs: Contour[] = [];
  let rest = marked;
  let done = 0;
  places.forEach((place, i) => {
    const cut = cutAt(rest, place.segment + i + 1 - done, () => `cut${ids++}`);
    if (!cut) return;
    done += segmentCount(cut[0]);
    runs.push(cut[0]);
    rest = cut[1];
  });
  return [...runs, rest];
}
