import type { PoseShiftPlan } from '@core';

/** How canvas px lie on one of the three pictures; all three share it, so that sizes compare. */
export interface PictureView {
  readonly scale: number;
  readonly dx: number;
  readonly dy: number;
}

const MARGIN_PX = 30;

/** Fits both ends of a plan into a picture of `width` × `height` px. */
export function fitPicture(plan: PoseShiftPlan, width: number, height: number): PictureView {
  let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const { plan: shift } of plan.parts) {
    for (const end of [shift.from, shift.to]) {
      for (let i = 0; i < end.length; i += 2) {
        minX = Math.min(minX, end[i]);
        maxX = Math.max(maxX, end[i]);
        minY = Math.min(minY, end[i + 1]);
        maxY = Math.max(maxY, end[i + 1]);
      }
    }
  }
  if (!(maxX >= minX)) return { scale: 1, dx: width / 2, dy: height / 2 };
  const room = (space: number, extent: number): number =>
    extent > 0 ? Math.max(10, space - 2 * MARGIN_PX) / extent : Infinity;
  const scale = Math.min(room(width, maxX - minX), room(height, maxY - minY));
  const kept = Number.isFinite(scale) ? scale : 1;
  return { scale: kept, dx: width / 2 - (kept * (minX + maxX)) / 2, dy: height / 2 - (kept * (minY + maxY)) / 2 };
}

export const toPicture = ({ scale, dx, dy }: PictureView, x: number, y: number): [number, number] => [
  x * scale + dx,
  y * scale + dy,
];
export const fromPicture = ({ scale, dx, dy }: PictureView, x: number, y: number): [number, number] => [
  (x - dx) / scale,
  (y - dy) / scale,
];
