import { type Box, type Matrix, multiply, rotation, scaling, translation } from '@core';
import type { Pen, PointerInput } from './tool';

/** The handles of the box round what is chosen: corners and sides by where they lie, turning above it, and the pivot. */
export const BOX_HANDLES = ['nw', 'n', 'ne', 'e', 'se', 's', 'sw', 'w', 'turn', 'pivot'] as const;
export type BoxHandle = (typeof BOX_HANDLES)[number];

/** What they are called by those who cannot see them. */
export const HANDLE_NAMES: Readonly<Record<BoxHandle, string>> = {
  nw: 'Corner at the top left: scales',
  n: 'Top side: scales',
  ne: 'Corner at the top right: scales',
  e: 'Right side: scales',
  se: 'Corner at the bottom right: scales',
  s: 'Bottom side: scales',
  sw: 'Corner at the bottom left: scales',
  w: 'Left side: scales',
  turn: 'Handle above: turns',
  pivot: 'Pivot',
};

const TURN_REACH_PX = 22;
const HANDLE_PX = 7;
const LEAST_PX = 1;

/** Where a handle stands, canvas px. */
export function handlePlace(
  handle: BoxHandle,
  box: Box,
  pivot: readonly [number, number],
  zoom: number,
): [number, number] {
  const [cx, cy] = [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2];
  if (handle === 'pivot') return [pivot[0], pivot[1]];
  if (handle === 'turn') return [cx, box.minY - TURN_REACH_PX / zoom];
  const x = handle.includes('w') ? box.minX : handle.includes('e') ? box.maxX : cx;
  const y = handle.includes('n') ? box.minY : handle.includes('s') ? box.maxY : cy;
  return [x, y];
}

/** The handle under the pointer; the pivot only where `withPivot` lets it be taken. */
export function hitHandle(
  pointer: PointerInput,
  box: Box,
  pivot: readonly [number, number],
  withPivot: boolean,
): BoxHandle | undefined {
  const reach = (HANDLE_PX + 1) / pointer.zoom;
  const roomy = Math.min(box.maxX - box.minX, box.maxY - box.minY) * pointer.zoom > 44;
  return BOX_HANDLES.find((handle) => {
    if (handle === 'pivot' && !(withPivot && roomy)) return false;
    if (handle.length === 1 && !roomy) return false;
    const [x, y] = handlePlace(handle, box, pivot, pointer.zoom);
    return Math.hypot(pointer.x - x, pointer.y - y) <= reach;
  });
}

/**
 * The map of the canvas that dragging a handle to the pointer means: scaling about the opposite side (with Alt about the pivot), evenly with
 * ⇧ or where `even` asks for it. Turning about the pivot, with ⇧ by steps of 15°.
 */
export function handleMatrix(
  handle: BoxHandle,
  box: Box,
  pivot: readonly [number, number],
  pointer: PointerInput,
  start: PointerInput,
  even: boolean,
): Matrix {
  if (handle === 'turn') {
    let angle =
      Math.atan2(pointer.y - pivot[1], pointer.x - pivot[0]) - Math.atan2(start.y - pivot[1], start.x - pivot[0]);
    const step = Math.PI / 12;
    if (pointer.shift) angle = Math.round(angle / step) * step;
    return about(pivot[0], pivot[1], rotation(angle));
  }
  const [hx, hy] = handlePlace(handle, box, pivot, pointer.zoom);
  const fixedX = pointer.alt ? pivot[0] : handle.includes('w') ? box.maxX : box.minX;
  const fixedY = pointer.alt ? pivot[1] : handle.includes('n') ? box.maxY : box.minY;
  const alongX = handle.includes('w') || handle.includes('e');
  const alongY = handle.includes('n') || handle.includes('s');
  const dx = pointer.x - start.x;
  const dy = pointer.y - start.y;
  const ratio = (from: number, to: number, fixed: number): number =>
    Math.abs(from - fixed) > 1e-9 ? (to - fixed) / (from - fixed) : 1;
  let sx = alongX ? ratio(hx, hx + dx, fixedX) : 1;
  let sy = alongY ? ratio(hy, hy + dy, fixedY) : 1;
  if (pointer.shift || even) {
    const k = alongX && alongY ? (Math.abs(sx - 1) > Math.abs(sy - 1) ? sx : sy) : alongX ? sx : sy;
    sx = k;
    sy = k;
  }
  // Nothing gets smaller than a px by dragging: from nothing it would not come back.
  const [width, height] = [box.maxX - box.minX, box.maxY - box.minY];
  const keep = (v: number, extent: number): number => {
    const least = extent > LEAST_PX ? LEAST_PX / extent : 1;
    return Math.abs(v) < least ? least * (v < 0 ? -1 : 1) : v;
  };
  const together = sx === sy && (pointer.shift || even) ? Math.max(width, height) : undefined;
  return about(
    alongX || pointer.alt ? fixedX : (box.minX + box.maxX) / 2,
    alongY || pointer.alt ? fixedY : (box.minY + box.maxY) / 2,
    scaling(keep(sx, together ?? width), keep(sy, together ?? height)),
  );
}

const about = (x: number, y: number, matrix: Matrix): Matrix =>
  multiply(translation(x, y), multiply(matrix, translation(-x, -y)));

export const handleCursor = (handle: BoxHandle): string =>
  handle === 'turn' ? 'grab' : handle === 'pivot' ? 'move' : `${handle}-resize`;

/** Draws the box with its handles. */
export function paintBox(pen: Pen, box: Box, pivot: readonly [number, number], withPivot: boolean): void {
  const { context: c, colours, zoom } = pen;
  const [x0, y0] = pen.toScreen(box.minX, box.minY);
  const [x1, y1] = pen.toScreen(box.maxX, box.maxY);
  c.strokeStyle = colours.accent;
  c.lineWidth = 1;
  c.setLineDash([5, 3]);
  c.strokeRect(x0, y0, x1 - x0, y1 - y0);
  c.setLineDash([]);
  const roomy = Math.min(x1 - x0, y1 - y0) > 44;
  for (const handle of BOX_HANDLES) {
    if (handle === 'pivot' || (handle.length === 1 && !roomy)) continue;
    const [x, y] = pen.toScreen(...handlePlace(handle, box, pivot, zoom));
    c.beginPath();
    if (handle === 'turn') {
      c.moveTo(x, y + 5);
      c.lineTo(x, y0);
      c.stroke();
      c.beginPath();
      c.arc(x, y, 5, 0, 2 * Math.PI);
    } else c.rect(x - HANDLE_PX / 2, y - HANDLE_PX / 2, HANDLE_PX, HANDLE_PX);
    c.fillStyle = colours.paper;
    c.fill();
    c.stroke();
  }
  if (!withPivot || !roomy) return;
  const [px, py] = pen.toScreen(pivot[0], pivot[1]);
  c.beginPath();
  c.arc(px, py, 4.5, 0, 2 * Math.PI);
  c.moveTo(px - 8, py);
  c.lineTo(px + 8, py);
  c.moveTo(px, py - 8);
  c.lineTo(px, py + 8);
  c.stroke();
}
