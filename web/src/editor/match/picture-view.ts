import { type Box, boxSize, emptyBox, includeBox, isEmptyBox, type PlannedParts, planBox } from '@core';

/** How canvas px lie on one of the three pictures; all three share it, so that sizes compare. */
export interface PictureView {
  readonly scale: number;
  readonly dx: number;
  readonly dy: number;
}

const MARGIN_PX = 30;
const MARGIN_SHARE = 0.15;

/** The box of both ends of all parts, canvas px; empty without parts. */
export const shiftBox = (plan: PlannedParts): Box =>
  plan.parts.reduce((box, { plan: part }) => includeBox(box, planBox(part)), emptyBox());

/** A square view of both ends with a margin, as SVG's viewBox has it. */
export function squareViewBox(plan: PlannedParts, marginShare: number): string {
  const box = shiftBox(plan);
  if (isEmptyBox(box)) return '0 0 100 100';
  const size = Math.max(boxSize(box), 1e-6) * (1 + 2 * marginShare);
  return `${(box.minX + box.maxX - size) / 2} ${(box.minY + box.maxY - size) / 2} ${size} ${size}`;
}

/** Fits both ends of a plan into a picture of `width` × `height` px, with a margin. */
export function fitPicture(plan: PlannedParts, width: number, height: number, margin = MARGIN_PX): PictureView {
  const { minX, minY, maxX, maxY } = shiftBox(plan);
  if (!(maxX >= minX)) return { scale: 1, dx: width / 2, dy: height / 2 };
  // In a small picture the margin is small too.
  const kept = Math.min(margin, MARGIN_SHARE * Math.min(width, height));
  const room = (space: number, extent: number): number =>
    extent > 0 ? Math.max(10, space - 2 * kept) / extent : Infinity;
  const scale = Math.min(room(width, maxX - minX), room(height, maxY - minY));
  const used = Number.isFinite(scale) ? scale : 1;
  return { scale: used, dx: width / 2 - (used * (minX + maxX)) / 2, dy: height / 2 - (used * (minY + maxY)) / 2 };
}

export const toPicture = ({ scale, dx, dy }: PictureView, x: number, y: number): [number, number] => [
  x * scale + dx,
  y * scale + dy,
];
export const fromPicture = ({ scale, dx, dy }: PictureView, x: number, y: number): [number, number] => [
  (x - dx) / scale,
  (y - dy) / scale,
];
