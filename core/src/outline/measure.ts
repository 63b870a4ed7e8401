import { cubicArea, cubicLength, includeCubic } from '../curve';
import { type Box, boxSize, emptyBox } from '../vec';
import { type Contour, type Outline, segmentAt, segmentCount } from './contour';

/**
 * Signed area in px², exact; positive for contours that run clockwise on screen (y down). An open contour is closed by its chord.
 */
export function contourArea(contour: Contour): number {
  const p = contour.points;
  let sum = 0;
  for (let i = 0; i < segmentCount(contour); i++) sum += cubicArea(p, segmentAt(i));
  const last = p.length - 2;
  return sum + (p[last] * p[1] - p[0] * p[last + 1]) / 2;
}

/** Length in px, to 1e-7 of itself. */
export function contourLength(contour: Contour): number {
  let sum = 0;
  for (let i = 0; i < segmentCount(contour); i++) sum += cubicLength(contour.points, segmentAt(i));
  return sum;
}

/** Exact extent of a contour. */
export function contourBox(contour: Contour, box: Box = emptyBox()): Box {
  for (let i = 0; i < segmentCount(contour); i++) includeCubic(box, contour.points, segmentAt(i));
  return box;
}

/** Exact extent of all contours together; empty for an outline without contours. */
export function outlineBox(outline: Outline): Box {
  const box = emptyBox();
  for (const contour of outline.contours) contourBox(contour, box);
  return box;
}

/** The longer side of the box in px: the yardstick of relative tolerances. */
export const outlineSize = (outline: Outline): number => boxSize(outlineBox(outline));

/** Length of all contours together in px. */
export const outlineLength = (outline: Outline): number =>
  outline.contours.reduce((sum, contour) => sum + contourLength(contour), 0);
