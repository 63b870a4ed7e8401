import { CoreError } from '../../errors';
import { type Outline, outlineLength } from '../../outline';
import type { Cap, Join, Paint } from '../../paint';
import { determinant, type Matrix } from '../../vec';
import { readLength, type Viewport } from './basic-shapes';
import type { Style } from './style';
import type { SvgNode } from './tree';

/** A stroke as read: lengths in px after all transforms. */
export interface SvgStroke {
  readonly paint: Paint;
  readonly width: number;
  readonly cap: Cap;
  readonly join: Join;
  readonly miter: number;
  readonly dash: readonly number[];
  readonly dashOffset: number;
}

const DASH_LIMIT = 64;
/** A longer text holds more numbers than are taken. */
const DASH_TEXT_LIMIT = 4_000;

/** How far a stroke may reach beyond its outline, px. */
export const strokeReach = ({ width, join, miter }: SvgStroke): number =>
  (width / 2) * (join === 'miter' ? Math.max(miter, 1.5) : 1.5);

/**
 * The stroke of a shape (SVG 2, chapter 13.5), or null where it has no width. `matrix` takes user space to the document; what cannot be
 * taken is told to `note`.
 */
export function readStroke(
  paint: Paint,
  node: SvgNode,
  style: Style,
  drawn: Outline,
  own: Style,
  matrix: Matrix,
  viewport: Viewport,
  note: (text: string) => void,
): SvgStroke | null {
  const diagonal = Math.hypot(viewport.width, viewport.height) / Math.SQRT2;
  const width = readLength(style['stroke-width'], diagonal, 'stroke-width') ?? 1;
  if (!(width > 0)) return null;
  const [a, b, c, d] = matrix;
  const even =
    Math.abs(a * c + b * d) + Math.abs(a * a + b * b - c * c - d * d) <= 1e-3 * (a * a + b * b + c * c + d * d);
  if (!even) note('A stroke that a transform stretches unevenly was taken with its mean width');
  const scale = own['vector-effect'] === 'non-scaling-stroke' ? 1 : Math.sqrt(Math.abs(determinant(matrix)));
  const cap = style['stroke-linecap'];
  const join = style['stroke-linejoin'];
  const miter = Number(style['stroke-miterlimit'] ?? 4);
  const dash = readDashes(node, style, drawn, diagonal, note).map((v) => v * scale);
  const offset = dash.length > 0 ? (readLength(style['stroke-dashoffset'], diagonal, 'stroke-dashoffset') ?? 0) : 0;
  return {
    paint,
    width: width * scale,
    cap: cap === 'round' || cap === 'square' ? cap : 'butt',
    join: join === 'round' || join === 'bevel' ? join : 'miter',
    miter: miter >= 1 ? Math.min(miter, 10_000) : 4,
    dash,
    dashOffset: offset * lengthUnit(node, drawn) * scale,
  };
}

/** A path has no more units than a double can count: what is shorter divides by nothing. */
const LEAST_PATH_LENGTH = 1e-6;

/** How much user space one unit of `pathLength` is. */
function lengthUnit(node: SvgNode, drawn: Outline): number {
  const named = Number(node.attributes.pathLength);
  if (named > 0 && named < LEAST_PATH_LENGTH)
    throw new CoreError(
      'number-range',
      `Expected a pathLength of at least ${LEAST_PATH_LENGTH}; found ${named}.`,
      `line ${node.line}, pathLength`,
    );
  return named > 0 ? outlineLength(drawn) / named : 1;
}

/** Dashes and gaps in user space, evenly many; none for an unbroken stroke. */
function readDashes(
  node: SvgNode,
  style: Style,
  drawn: Outline,
  diagonal: number,
  note: (text: string) => void,
): number[] {
  const text = (style['stroke-dasharray'] ?? 'none').trim();
  if (text === 'none' || text === '') return [];
  if (text.length > DASH_TEXT_LIMIT) {
    note(
      `A dash pattern of ${text.length.toLocaleString('en')} characters was left out: at most ${DASH_LIMIT} lengths are taken`,
    );
    return [];
  }
  const unit = lengthUnit(node, drawn);
  const dash = text.split(/[\s,]+/).map((item) => (readLength(item, diagonal, 'stroke-dasharray') ?? 0) * unit);
  if (dash.some((v) => v < 0) || !dash.some((v) => v > 0)) return [];
  const even = dash.length % 2 === 1 ? [...dash, ...dash] : dash;
  if (even.length <= DASH_LIMIT) return even;
  note(`A dash pattern of ${even.length} lengths was left out: at most ${DASH_LIMIT} are taken`);
  return [];
}
