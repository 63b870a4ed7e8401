import { isStraight } from '../curve';
import { type Contour, type Outline, pieceAt, pieceCount } from '../outline';

export interface PathDataOptions {
  /** Decimals kept, 0 to 12. Default 3. */
  readonly digits?: number;
  /** Write straight pieces as lines? Off where the commands must not change from frame to frame. Default true. */
  readonly lines?: boolean;
}

/** Path data of an outline: absolute M, L, C and Z, rounded to `digits` decimals. */
export function writePathData(outline: Outline, options: PathDataOptions = {}): string {
  return outline.contours.map((contour) => writeContour(contour, options)).join('');
}

function writeContour(contour: Contour, { digits = 3, lines = true }: PathDataOptions): string {
  const p = contour.points;
  const n = pieceCount(contour);
  const epsilon = 10 ** -digits / 4;
  let d = `M${numberText(p[0], digits)} ${numberText(p[1], digits)}`;
  for (let i = 0; i < n; i++) {
    const at = pieceAt(i);
    if (lines && isStraight(p, at, epsilon)) {
      // Does closing draw this line anyway?
      if (contour.closed && i === n - 1) continue;
      d += `L${numberText(p[at + 6], digits)} ${numberText(p[at + 7], digits)}`;
    } else {
      d += cubicText(p, at, digits);
    }
  }
  return contour.closed ? `${d}Z` : d;
}

/** One 'C' command from the piece at index `at` of a flat array of points. */
export function cubicText(p: ArrayLike<number>, at: number, digits: number): string {
  return `C${numberText(p[at + 2], digits)} ${numberText(p[at + 3], digits)} ${numberText(p[at + 4], digits)} ${numberText(p[at + 5], digits)} ${numberText(p[at + 6], digits)} ${numberText(p[at + 7], digits)}`;
}

/** A number with at most `digits` decimals, without trailing zeros and without a negative zero. */
export function numberText(value: number, digits: number): string {
  const factor = 10 ** digits;
  const rounded = Math.round(value * factor) / factor;
  return rounded === 0 ? '0' : String(rounded);
}
