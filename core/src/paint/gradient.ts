import { type Matrix, multiply, rotation, scaling } from '../vec';
import { type Rgba, readColour } from './colour';

/** A colour (CSS Color 4) at a share 0..1 of the way along a gradient. */
/** Stops that one gradient may have. */
export const GRADIENT_STOP_LIMIT = 100;

export interface GradientStop {
  readonly at: number;
  readonly colour: string;
}

/** Colours along a line; beyond its ends the end colours go on. Coordinates in px of whatever the paint belongs to. */
export interface LinearGradient {
  readonly kind: 'linear';
  readonly from: readonly [x: number, y: number];
  readonly to: readonly [x: number, y: number];
  readonly stops: readonly GradientStop[];
}

/**
 * Colours from a focus to an ellipse. `rotation` turns the ellipse, degrees clockwise; `focus` is in the ellipse's own unit circle,
 * [0, 0] for its centre.
 */
export interface RadialGradient {
  readonly kind: 'radial';
  readonly centre: readonly [x: number, y: number];
  readonly radii: readonly [x: number, y: number];
  readonly rotation: number;
  readonly focus: readonly [x: number, y: number];
  readonly stops: readonly GradientStop[];
}

export type Gradient = LinearGradient | RadialGradient;

/** What an area or a stroke is painted with: a CSS colour or a gradient. */
export type Paint = string | Gradient;

export const isGradient = (paint: Paint | null | undefined): paint is Gradient =>
  typeof paint === 'object' && paint !== null;

/** All colours of a paint as CSS text. */
export const coloursOf = (paint: Paint | null): readonly string[] =>
  paint === null ? [] : isGradient(paint) ? paint.stops.map(({ colour }) => colour) : [paint];

const DEGREES = 180 / Math.PI;

/**
 * The paint after its area was mapped by `matrix`. A colour stays; a linear gradient keeps its lines of equal colour, so its vector turns
 * with the inverse transpose; an ellipse goes to the ellipse that the singular values of the map give (Golub & Van Loan: Matrix
 * Computations, 4th edition, 2013, section 2.4, for the decomposition). A map without area leaves the paint as it is.
 */
export function transformPaint(paint: Paint, matrix: Matrix): Paint;
export function transformPaint(paint: Paint | null, matrix: Matrix): Paint | null;
export function transformPaint(paint: Paint | null, matrix: Matrix): Paint | null {
  if (!isGradient(paint)) return paint;
  const [a, b, c, d, e, f] = matrix;
  const det = a * d - b * c;
  if (!(Math.abs(det) > 0)) return paint;
  const point = ([x, y]: readonly [number, number]): [number, number] => [a * x + c * y + e, b * x + d * y + f];
  if (paint.kind === 'linear') {
    const dx = paint.to[0] - paint.from[0];
    const dy = paint.to[1] - paint.from[1];
    const length2 = dx * dx + dy * dy;
    const from = point(paint.from);
    if (!(length2 > 0)) return { ...paint, from, to: point(paint.to) };
    const gx = (d * dx - b * dy) / det / length2;
    const gy = (a * dy - c * dx) / det / length2;
    const g2 = gx * gx + gy * gy;
    return { ...paint, from, to: [from[0] + gx / g2, from[1] + gy / g2] };
  }
  const ellipse = multiply([a, b, c, d, 0, 0], multiply(rotation(paint.rotation / DEGREES), scaling(...paint.radii)));
  const { angle, radii, turn } = singularValues(ellipse);
  const [fx, fy] = paint.focus;
  const focus: [number, number] = [turn[0] * fx + turn[2] * fy, turn[1] * fx + turn[3] * fy];
  return { ...paint, centre: point(paint.centre), radii, rotation: angle * DEGREES, focus };
}

/** M = rotation(angle) · diag(radii) · turn, with `turn` orthogonal; radii not negative. */
function singularValues([a, b, c, d]: Matrix): { angle: number; radii: [number, number]; turn: Matrix } {
  const e = (a + d) / 2;
  const f = (a - d) / 2;
  const g = (b + c) / 2;
  const h = (b - c) / 2;
  const q = Math.hypot(e, h);
  const r = Math.hypot(f, g);
  const sum = Math.atan2(h, e);
  const difference = Math.atan2(g, f);
  const angle = (difference + sum) / 2;
  const inner = (sum - difference) / 2;
  const small = q - r;
  const turn = rotation(inner);
  // A mirroring map has a negative second value; the mirror goes into the inner turn.
  const sign = small < 0 ? -1 : 1;
  return {
    angle,
    radii: [q + r, Math.abs(small)],
    turn: [turn[0], sign * turn[1], turn[2], sign * turn[3], 0, 0],
  };
}

/** The same paint with all alphas multiplied by `opacity` in [0, 1]; null where nothing would show. */
export function fadePaint(
  paint: Paint | null,
  opacity: number,
  text: (r: number, g: number, b: number, alpha: number) => string,
): Paint | null {
  if (paint === null || opacity >= 1) return paint;
  if (!(opacity > 0)) return null;
  const fade = (colour: string): string => {
    const c = readColour(colour);
    return c ? text(c.r, c.g, c.b, c.alpha * opacity) : colour;
  };
  return isGradient(paint)
    ? { ...paint, stops: paint.stops.map(({ at, colour }) => ({ at, colour: fade(colour) })) }
    : fade(paint);
}

const BLACK: Rgba = { r: 0, g: 0, b: 0, alpha: 1 };

/** The colour of a gradient at a share of its way, blended in sRGB between its stops as SVG and the canvas do. */
export function colourAt(stops: readonly { readonly at: number; readonly colour: Rgba }[], at: number): Rgba {
  const after = stops.findIndex((stop) => stop.at >= at);
  if (after < 0) return stops[stops.length - 1]?.colour ?? BLACK;
  if (after === 0 || stops[after].at === at) return stops[after].colour;
  const p = stops[after - 1];
  const q = stops[after];
  const share = (at - p.at) / (q.at - p.at);
  const mix = (u: number, v: number): number => u + (v - u) * share;
  return {
    r: mix(p.colour.r, q.colour.r),
    g: mix(p.colour.g, q.colour.g),
    b: mix(p.colour.b, q.colour.b),
    alpha: mix(p.colour.alpha, q.colour.alpha),
  };
}

/** The stops of a gradient with read colours, in order; unreadable colours are black. */
export const readStops = (gradient: Gradient): { at: number; colour: Rgba }[] =>
  gradient.stops.map(({ at, colour }) => ({ at, colour: readColour(colour) ?? BLACK }));
