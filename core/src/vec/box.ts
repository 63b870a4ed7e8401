/** An axis-parallel box in px. Empty when minX > maxX. */
export interface Box {
  minX: number;
  minY: number;
  maxX: number;
  maxY: number;
}

/** A box that holds nothing. */
export const emptyBox = (): Box => ({ minX: Infinity, minY: Infinity, maxX: -Infinity, maxY: -Infinity });

/** Grows `box` to hold (x, y); returns it. */
export function includePoint(box: Box, x: number, y: number): Box {
  if (x < box.minX) box.minX = x;
  if (x > box.maxX) box.maxX = x;
  if (y < box.minY) box.minY = y;
  if (y > box.maxY) box.maxY = y;
  return box;
}

/** Grows `box` to hold `other`; returns it. */
export function includeBox(box: Box, other: Box): Box {
  if (isEmptyBox(other)) return box;
  includePoint(box, other.minX, other.minY);
  return includePoint(box, other.maxX, other.maxY);
}

export const isEmptyBox = (box: Box): boolean => !(box.minX <= box.maxX && box.minY <= box.maxY);

/** The longer side in px; 0 for an empty box. */
export const boxSize = (box: Box): number => (isEmptyBox(box) ? 0 : Math.max(box.maxX - box.minX, box.maxY - box.minY));
