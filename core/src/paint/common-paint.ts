import { type Rgba, readColour } from './colour';
import {
  colourAt,
  type Gradient,
  isGradient,
  type LinearGradient,
  type Paint,
  type RadialGradient,
  readStops,
} from './gradient';

/** A stop of two gradients with equally many. */
interface CommonStop {
  readonly at: readonly [from: number, to: number];
  readonly colours: readonly [from: Rgba, to: Rgba];
}

/** Two paints brought to one structure, so that each of their numbers has a partner. */
export type CommonPaint =
  | { readonly kind: 'colour'; readonly colours: readonly [from: Rgba, to: Rgba] }
  | {
      readonly kind: 'linear';
      readonly ends: readonly [from: LinearGradient, to: LinearGradient];
      readonly stops: readonly CommonStop[];
    }
  | {
      readonly kind: 'radial';
      readonly ends: readonly [from: RadialGradient, to: RadialGradient];
      readonly stops: readonly CommonStop[];
    }
  /** A linear gradient and a radial one: they change over where both show nothing but `middle`. */
  | {
      readonly kind: 'changing';
      readonly ends: readonly [from: Gradient, to: Gradient];
      readonly stops: readonly CommonStop[];
      readonly middle: Rgba;
    };

type Side = { readonly gradient?: Gradient; readonly stops: { at: number; colour: Rgba }[] };

/**
 * Brings two paints to one structure. A colour joins a gradient in as the same gradient of that one colour; gradients with different numbers of
 * stops get the stops of both. Undefined where neither can be read.
 */
export function commonPaint(from: Paint, to: Paint): CommonPaint | undefined {
  if (!isGradient(from) && !isGradient(to)) {
    const a = readColour(from);
    const b = readColour(to);
    return a && b && { kind: 'colour', colours: [a, b] };
  }
  const a = sideOf(from, to);
  const b = sideOf(to, from);
  const ends = [a.gradient ?? b.gradient, b.gradient ?? a.gradient] as [Gradient, Gradient];
  const shares = a.stops.length === b.stops.length ? null : mergedShares(a, b);
  const stopsA = shares ? shares.map((at) => ({ at, colour: colourAt(a.stops, at) })) : a.stops;
  const stopsB = shares ? shares.map((at) => ({ at, colour: colourAt(b.stops, at) })) : b.stops;
  const stops = stopsA.map(
    (stop, i): CommonStop => ({ at: [stop.at, stopsB[i].at], colours: [stop.colour, stopsB[i].colour] }),
  );
  const [first, second] = ends;
  if (first.kind === 'linear' && second.kind === 'linear') return { kind: 'linear', ends: [first, second], stops };
  if (first.kind === 'radial' && second.kind === 'radial') return { kind: 'radial', ends: [first, second], stops };
  return { kind: 'changing', ends, stops, middle: meanOf([...stopsA, ...stopsB].map(({ colour }) => colour)) };
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
