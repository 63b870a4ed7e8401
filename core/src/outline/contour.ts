import { LENGTH_EPS_REL } from '../num';

/**
 * A run of cubic Beziers. `points` holds 3n + 1 (x, y) pairs in px, y down: anchor, handle, handle, anchor, … The last anchor of
 * a closed contour repeats the first. Straight segments are cubics with handles at the thirds. Immutable once made.
 */
export interface Contour {
  readonly points: Float64Array;
  readonly closed: boolean;
  /** Ids of the anchors, in order, without the repeated one of a closed contour; absent in passing geometry. */
  readonly anchorIds?: readonly string[];
  /** For each anchor the id of the one it was copied from, where there is one. */
  readonly originIds?: readonly (string | undefined)[];
}

export const FILL_RULES = ['nonzero', 'evenodd'] as const;
export type FillRule = (typeof FILL_RULES)[number];

/** A set of contours that are filled together. */
export interface Outline {
  readonly contours: readonly Contour[];
  readonly fillRule: FillRule;
}

/** Number of cubics of a contour. */
export const segmentCount = (contour: Contour): number => (contour.points.length / 2 - 1) / 3;

/** Number of anchors: segments when closed, segments + 1 when open. */
export const anchorCount = (contour: Contour): number =>
  contour.closed ? segmentCount(contour) : segmentCount(contour) + 1;

/** Index in `points` of the first number of segment `i`. */
export const segmentAt = (i: number): number => 6 * i;

/** Collects cubics into a contour; lines get their handles at the thirds. */
export class ContourBuilder {
  private numbers: number[] = [];

  constructor(x: number, y: number) {
    this.numbers.push(x, y);
  }

  get segments(): number {
    return (this.numbers.length / 2 - 1) / 3;
  }

  lineTo(x: number, y: number): void {
    const x0 = this.numbers[this.numbers.length - 2];
    const y0 = this.numbers[this.numbers.length - 1];
    this.numbers.push(x0 + (x - x0) / 3, y0 + (y - y0) / 3, x0 + ((x - x0) * 2) / 3, y0 + ((y - y0) * 2) / 3, x, y);
  }

  cubicTo(x1: number, y1: number, x2: number, y2: number, x: number, y: number): void {
    this.numbers.push(x1, y1, x2, y2, x, y);
  }

  /** The contour so far. Closing adds a line where the last point is not the first to `LENGTH_EPS_REL` of the coordinates; 'snap' moves it there. */
  finish(closed: boolean, end?: 'snap'): Contour {
    const n = this.numbers;
    if (closed) {
      const dx = n[n.length - 2] - n[0];
      const dy = n[n.length - 1] - n[1];
      const scale = Math.max(1, Math.abs(n[0]), Math.abs(n[1]));
      if (n.length === 2 || (end !== 'snap' && Math.abs(dx) + Math.abs(dy) > LENGTH_EPS_REL * scale))
        this.lineTo(n[0], n[1]);
      else {
        n[n.length - 2] = n[0];
        n[n.length - 1] = n[1];
      }
    }
    return { points: Float64Array.from(n), closed };
  }
}

/** A closed contour through the given corners, for tests and simple shapes. `corners` is x0, y0, x1, y1, … */
export function polygonContour(corners: readonly number[], closed = true): Contour {
  const builder = new ContourBuilder(corners[0], corners[1]);
  for (let i = 2; i + 1 < corners.length; i += 2) builder.lineTo(corners[i], corners[i + 1]);
  return builder.finish(closed);
}

/** Handle length of the quarter circle of radius 1: 4/3 (√2 − 1); radial error 2.7e-4 (common practice). */
export const QUARTER_ARC_HANDLE = (4 / 3) * (Math.SQRT2 - 1);

/** An ellipse of four cubics, clockwise on screen from its right-most point. */
export function ellipseContour(cx: number, cy: number, rx: number, ry: number): Contour {
  const kx = rx * QUARTER_ARC_HANDLE;
  const ky = ry * QUARTER_ARC_HANDLE;
  const builder = new ContourBuilder(cx + rx, cy);
  builder.cubicTo(cx + rx, cy + ky, cx + kx, cy + ry, cx, cy + ry);
  builder.cubicTo(cx - kx, cy + ry, cx - rx, cy + ky, cx - rx, cy);
  builder.cubicTo(cx - rx, cy - ky, cx - kx, cy - ry, cx, cy - ry);
  builder.cubicTo(cx + kx, cy - ry, cx + rx, cy - ky, cx + rx, cy);
  return builder.finish(true);
}

/** Contours as one outline, fill rule nonzero. */
export const outlineOfContours = (contours: readonly Contour[]): Outline => ({ contours, fillRule: 'nonzero' });
