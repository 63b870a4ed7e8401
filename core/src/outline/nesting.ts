import { FLATTEN_EPS_REL } from '../num';
import { boxSize } from '../vec';
import { reverseContour } from './change';
import type { Contour, Outline } from './contour';
import { flattenContour, polylineWinding } from './flatten';
import { contourArea, contourBox, outlineSize } from './measure';

/** How a contour lies among the others of its outline. */
export interface Nesting {
  /** Number of contours around it. */
  readonly depth: number;
  /** Index of the nearest contour around it, or −1. */
  readonly parent: number;
  /** Does it take away from the picture (true) or add to it (false)? */
  readonly hole: boolean;
}

/**
 * Containment of contours that do not cross each other: contour i lies in j when one of its points does. Whether it is a hole
 * follows from the fill rule: even-odd by depth, nonzero by the winding numbers on both sides of it. Open contours are never holes.
 */
export function nestingOf(outline: Outline): Nesting[] {
  const { contours, fillRule } = outline;
  const size = outlineSize(outline);
  const lines = contours.map((contour) => flattenContour(contour, FLATTEN_EPS_REL * size || 1));
  const boxes = contours.map((contour) => contourBox(contour));
  const areas = contours.map((contour) => contourArea(contour));
  return contours.map((contour, i) => {
    if (!contour.closed) return { depth: 0, parent: -1, hole: false };
    const around: number[] = [];
    for (let j = 0; j < contours.length; j++) {
      if (j === i || !contours[j].closed) continue;
      // Can j hold i at all?
      if (Math.abs(areas[j]) < Math.abs(areas[i]) || boxSize(boxes[j]) === 0) continue;
      if (Math.abs(areas[j]) === Math.abs(areas[i]) && j > i) continue;
      if (boxes[i].minX > boxes[j].maxX || boxes[i].maxX < boxes[j].minX) continue;
      if (boxes[i].minY > boxes[j].maxY || boxes[i].maxY < boxes[j].minY) continue;
      if (mostlyInside(lines[i], lines[j])) around.push(j);
    }
    const parent = around.reduce((best, j) => (best < 0 || Math.abs(areas[j]) < Math.abs(areas[best]) ? j : best), -1);
    const outside = around.reduce((sum, j) => sum + Math.sign(areas[j]), 0);
    const filledOutside = fillRule === 'evenodd' ? around.length % 2 === 1 : outside !== 0;
    const inside = outside + Math.sign(areas[i]);
    const filledInside = fillRule === 'evenodd' ? around.length % 2 === 0 : inside !== 0;
    return { depth: around.length, parent, hole: filledOutside && !filledInside };
  });
}

/** Do most of a few points of `inner` lie inside `outer`? Several, because one may lie exactly on it. */
function mostlyInside(inner: Float64Array, outer: Float64Array): boolean {
  const n = inner.length / 2;
  const probes = Math.min(5, n);
  let hits = 0;
  for (let k = 0; k < probes; k++) {
    const i = 2 * Math.floor((k * n) / probes);
    if (polylineWinding(outer, inner[i], inner[i + 1]) !== 0) hits++;
  }
  return 2 * hits > probes;
}

/**
 * The same picture with solids run clockwise on screen, holes the other way, and fill rule nonzero. Needs contours that do not cross.
 * `reversed[i]` says whether contour i was turned round.
 */
export function orientOutline(outline: Outline): { outline: Outline; nesting: Nesting[]; reversed: boolean[] } {
  const nesting = nestingOf(outline);
  const reversed = outline.contours.map(
    (contour, i) => contour.closed && contourArea(contour) > 0 === nesting[i].hole && contourArea(contour) !== 0,
  );
  const contours: Contour[] = outline.contours.map((contour, i) => (reversed[i] ? reverseContour(contour) : contour));
  return { outline: { contours, fillRule: 'nonzero' }, nesting, reversed };
}
