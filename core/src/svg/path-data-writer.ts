import { isStraight } from '../curve';
import { type Contour, type Outline, segmentAt, segmentCount } from '../outline';

export interface PathDataOptions {
  /** Decimals kept, 0 to 12. Default 3. */
  readonly digits?: number;
  /** Write straight segments as lines? Off where the commands must not change from frame to frame. Default true. */
  readonly lines?: boolean;
  /** Write segments that stand for circular arcs as arcs? Default false. */
  readonly arcs?: boolean;
}

/** How far handles may be from those of an arc's cubic, as a share of its radius. */
const ARC_EPS_REL = 2e-5;

/**
 * The radius and sense of the circular arc of at most a quarter turn that a cubic stands for (handles 4/3·tan(φ/4), as the reader writes
 * them), or undefined.
 */
function arcOf(p: ArrayLike<number>, at: number): { radius: number; clockwise: boolean } | undefined {
  const dx = p[at + 6] - p[at];
  const dy = p[at + 7] - p[at + 1];
  const chord = Math.hypot(dx, dy);
  const hx = p[at + 2] - p[at];
  const hy = p[at + 3] - p[at + 1];
  const handle = Math.hypot(hx, hy);
  if (!(chord > 0) || !(handle > 0)) return undefined;
  const half = Math.atan2(hx * dy - hy * dx, hx * dx + hy * dy);
  const turn = 2 * Math.abs(half);
  if (!(turn > 0.02) || turn > Math.PI / 2 + 1e-6) return undefined;
  const radius = chord / (2 * Math.sin(turn / 2));
  const wanted = (4 / 3) * Math.tan(turn / 4) * radius;
  // The second handle is the first one mirrored at the chord's middle.
  const [ux, uy] = [dx / chord, dy / chord];
  const along = hx * ux + hy * uy;
  const across = -hx * uy + hy * ux;
  const [mx, my] = [p[at + 6] - along * ux - across * uy, p[at + 7] - along * uy + across * ux];
  const off = Math.max(Math.abs(handle - wanted), Math.hypot(p[at + 4] - mx, p[at + 5] - my));
  return off <= ARC_EPS_REL * radius ? { radius, clockwise: half > 0 } : undefined;
}

/** Path data of an outline: absolute M, L, C and Z, rounded to `digits` decimals. */
export function writePathData(outline: Outline, options: PathDataOptions = {}): string {
  return outline.contours.map((contour) => writeContour(contour, options)).join('');
}

function writeContour(contour: Contour, { digits = 3, lines = true, arcs = false }: PathDataOptions): string {
  const p = contour.points;
  const n = segmentCount(contour);
  const epsilon = 10 ** -digits / 4;
  let d = `M${numberText(p[0], digits)} ${numberText(p[1], digits)}`;
  for (let i = 0; i < n; i++) {
    const at = segmentAt(i);
    if (lines && isStraight(p, at, epsilon)) {
      // Does closing draw this line anyway?
      if (contour.closed && i === n - 1) continue;
      d += `L${numberText(p[at + 6], digits)} ${numberText(p[at + 7], digits)}`;
      continue;
    }
    const arc = arcs ? arcOf(p, at) : undefined;
    d += arc
      ? `A${numberText(arc.radius, digits + 2)} ${numberText(arc.radius, digits + 2)} 0 0 ${arc.clockwise ? 1 : 0} ${numberText(p[at + 6], digits)} ${numberText(p[at + 7], digits)}`
      : cubicText(p, at, digits);
  }
  return contour.closed ? `${d}Z` : d;
}

/** One 'C' command from the segment at index `at` of a flat array of points. */
export function cubicText(p: ArrayLike<number>, at: number, digits: number): string {
  return `C${numberText(p[at + 2], digits)} ${numberText(p[at + 3], digits)} ${numberText(p[at + 4], digits)} ${numberText(p[at + 5], digits)} ${numberText(p[at + 6], digits)} ${numberText(p[at + 7], digits)}`;
}

/** A number with at most `digits` decimals, without trailing zeros and without a negative zero. */
export function numberText(value: number, digits: number): string {
  const factor = 10 ** digits;
  const rounded = Math.round(value * factor) / factor;
  return rounded === 0 ? '0' : String(rounded);
}
