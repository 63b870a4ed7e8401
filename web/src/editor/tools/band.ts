import type { Pen } from './tool';

/** A rectangle that is dragged to choose what lies in it, canvas px. */
export interface Band {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
}

/** The same rectangle from its left top to its right bottom corner. */
export const orderedBand = ({ x0, y0, x1, y1 }: Band): Band => ({
  x0: Math.min(x0, x1),
  y0: Math.min(y0, y1),
  x1: Math.max(x0, x1),
  y1: Math.max(y0, y1),
});

export function paintBand({ context, colours, toScreen }: Pen, band: Band): void {
  const [x0, y0] = toScreen(band.x0, band.y0);
  const [x1, y1] = toScreen(band.x1, band.y1);
  context.strokeStyle = colours.accent;
  context.setLineDash([4, 3]);
  context.strokeRect(x0, y0, x1 - x0, y1 - y0);
  context.setLineDash([]);
}
