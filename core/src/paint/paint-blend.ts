import { type BlendSpace, blendColour, type ColourBlend, planColourBlend } from './blend';
import { type Rgba, readColour } from './colour';
import { colourAt, type Gradient, isGradient, type Paint, readStops } from './gradient';

/** Numbers of a gradient's geometry. Linear: x1, y1, x2, y2. Radial: cx, cy, rx, ry, rotation in degrees, fx, fy. */
const GEOMETRY = 7;

/** A gradient at a moment; written anew by every sampling. */
export interface GradientSample {
  kind: Gradient['kind'];
  readonly geometry: Float64Array;
  /** Shares of the stops, ascending. */
  readonly at: Float64Array;
  /** r, g, b, alpha of each stop. */
  readonly colours: Float64Array;
}

/** Two paints of which at least one is a gradient, made ready for blending stop by stop. */
export interface GradientBlend {
  readonly kinds: readonly [from: Gradient['kind'], to: Gradient['kind']];
  readonly geometry: readonly [from: Float64Array, to: Float64Array];
  readonly at: readonly [from: Float64Array, to: Float64Array];
  /** One blend for each stop; where the kinds differ, two: to the common middle colour, and from it. */
  readonly first: readonly ColourBlend[];
  readonly second: readonly ColourBlend[] | null;
}

export type PaintBlend = ColourBlend | GradientBlend;

export const isGradientBlend = (blend: PaintBlend): blend is GradientBlend => 'kinds' in blend;

type Side = { readonly gradient?: Gradient; readonly stops: { at: number; colour: Rgba }[] };

/**
 * Makes a blend of two paints. Two gradients of one kind blend stop by stop, geometry included; a colour joins in as a gradient of that one
 * colour; a linear one becomes a radial one over their common middle colour, half-way. Undefined where neither can be read.
 */
export function planPaintBlend(from: Paint, to: Paint, space: BlendSpace): PaintBlend | undefined {
  if (!isGradient(from) && !isGradient(to)) {
    const a = readColour(from);
    const b = readColour(to);
    return a && b && planColourBlend(a, b, space);
  }
  const a = sideOf(from, to);
  const b = sideOf(to, from);
  const kinds = [a.gradient?.kind ?? b.gradient?.kind, b.gradient?.kind ?? a.gradient?.kind] as [
    Gradient['kind'],
    Gradient['kind'],
  ];
  const geometryA = geometryOf((a.gradient ?? b.gradient) as Gradient);
  const geometryB = geometryOf((b.gradient ?? a.gradient) as Gradient);
  const shares = a.stops.length === b.stops.length ? null : mergedShares(a, b);
  const stopsA = shares ? shares.map((at) => ({ at, colour: colourAt(a.stops, at) })) : a.stops;
  const stopsB = shares ? shares.map((at) => ({ at, colour: colourAt(b.stops, at) })) : b.stops;
  const middle = kinds[0] === kinds[1] ? null : meanOf([...stopsA, ...stopsB].map(({ colour }) => colour));
  return {
    kinds,
    geometry: [geometryA, geometryB],
    at: [Float64Array.from(stopsA, ({ at }) => at), Float64Array.from(stopsB, ({ at }) => at)],
    first: stopsA.map(({ colour }, i) => planColourBlend(colour, middle ?? stopsB[i].colour, space)),
    second: middle && stopsB.map(({ colour }) => planColourBlend(middle, colour, space)),
  };
}

function sideOf(paint: Paint, other: Paint): Side {
  if (isGradient(paint)) return { gradient: paint, stops: readStops(paint) };
  const colour = readColour(paint) ?? { r: 0, g: 0, b: 0, alpha: 0 };
  return { stops: isGradient(other) ? readStops(other).map(({ at }) => ({ at, colour })) : [] };
}

const mergedShares = (a: Side, b: Side): number[] =>
  [...new Set([...a.stops, ...b.stops].map(({ at }) => at))].sort((p, q) => p - q);

function meanOf(colours: readonly Rgba[]): Rgba {
  const sum = (pick: (c: Rgba) => number): number => colours.reduce((s, c) => s + pick(c), 0) / (colours.length || 1);
  return { r: sum((c) => c.r), g: sum((c) => c.g), b: sum((c) => c.b), alpha: sum((c) => c.alpha) };
}

function geometryOf(gradient: Gradient): Float64Array {
  const out = new Float64Array(GEOMETRY);
  if (gradient.kind === 'linear') out.set([...gradient.from, ...gradient.to]);
  else out.set([...gradient.centre, ...gradient.radii, gradient.rotation, ...gradient.focus]);
  return out;
}

/** Memory for sampling a gradient blend. */
export const prepareGradient = (blend: GradientBlend): GradientSample => ({
  kind: blend.kinds[0],
  geometry: new Float64Array(GEOMETRY),
  at: new Float64Array(blend.first.length),
  colours: new Float64Array(4 * blend.first.length),
});

/** Writes the gradient at `progress` (held at the ends outside 0..1) into `out`, which `prepareGradient` made. Allocates nothing. */
export function sampleGradient(blend: GradientBlend, progress: number, out: GradientSample): GradientSample {
  const p = progress > 0 ? (progress < 1 ? progress : 1) : 0;
  const switched = blend.second !== null;
  const late = switched && p >= 0.5;
  out.kind = blend.kinds[switched ? (late ? 1 : 0) : 0];
  const [ga, gb] = blend.geometry;
  const [sa, sb] = blend.at;
  // Where the kinds differ, each half keeps the geometry of its own end.
  const way = switched ? (late ? 1 : 0) : p;
  for (let i = 0; i < GEOMETRY; i++) out.geometry[i] = ga[i] + (gb[i] - ga[i]) * way;
  for (let i = 0; i < sa.length; i++) out.at[i] = sa[i] + (sb[i] - sa[i]) * way;
  const colours = late ? (blend.second as readonly ColourBlend[]) : blend.first;
  const share = switched ? (late ? 2 * p - 1 : 2 * p) : p;
  for (let i = 0; i < colours.length; i++) blendColour(colours[i], share, out.colours, 4 * i);
  return out;
}
