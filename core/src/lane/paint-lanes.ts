import type { BlendSpace, CommonPaint, Gradient, LinearGradient, RadialGradient } from '../paint';
import { type Blend, blendChoice, blendColours, blendColoursVia, blendNumbers } from './blend';
import { type Lane, type RampTime, rampLane } from './lane';
import { PROPERTIES } from './properties';

/** Lanes of a gradient's place: of its line, or of its ellipse and focus. */
export type GradientPlace =
  | { readonly kind: 'linear'; readonly line: Lane }
  | { readonly kind: 'radial'; readonly ellipse: Lane; readonly focus: Lane };

/** A gradient over time. */
export interface GradientLanes {
  readonly kind: 'gradient';
  /** One place, or one for each half where a linear gradient becomes a radial one, or the other way round. */
  readonly places: readonly [GradientPlace] | readonly [GradientPlace, GradientPlace];
  /** Which place it is at: an index. */
  readonly place: Lane;
  readonly offsets: readonly Lane[];
  readonly colours: readonly Lane[];
}

/** What an area or a stroke is painted with, over time. */
export type PaintLanes = { readonly kind: 'colour'; readonly colour: Lane } | GradientLanes;

/** A gradient at a moment; written anew by every sampling. */
export interface GradientSample {
  kind: Gradient['kind'];
  /** Which of the places of its lanes it is at. */
  readonly place: Float64Array;
  /** Linear: x1, y1, x2, y2. Radial: centre x and y, radii, rotation in degrees, focus x and y. */
  readonly geometry: Float64Array;
  /** Shares of the stops, ascending. */
  readonly at: Float64Array;
  /** r, g, b, alpha of each stop. */
  readonly colours: Float64Array;
}

/** Lanes of a paint that changes in a ramp. */
export function paintLanes(paint: CommonPaint, time: RampTime, space: BlendSpace): PaintLanes {
  const lane = (blend: Blend): Lane => rampLane(time, blend);
  if (paint.kind === 'colour') return { kind: 'colour', colour: lane(blendColours(...paint.colours, space)) };
  const middle = paint.kind === 'changing' ? paint.middle : undefined;
  const places =
    paint.kind === 'changing'
      ? ([placeOf(paint.ends[0], paint.ends[0], time), placeOf(paint.ends[1], paint.ends[1], time)] as const)
      : ([placeOf(...(paint.ends as readonly [Gradient, Gradient]), time)] as const);
  return {
    kind: 'gradient',
    places,
    place: lane(blendChoice(0, places.length - 1)),
    offsets: paint.stops.map(({ at: [p, q] }) => lane(blendNumbers([p], [q], PROPERTIES.stopOffset.range))),
    colours: paint.stops.map(({ colours: [p, q] }) =>
      lane(middle ? blendColoursVia(p, middle, q, space) : blendColours(p, q, space)),
    ),
  };
}

function placeOf(from: Gradient, to: Gradient, time: RampTime): GradientPlace {
  if (from.kind === 'linear') {
    const line = ({ from: p, to: q }: LinearGradient): number[] => [...p, ...q];
    const blend = blendNumbers(line(from), line(to as LinearGradient), PROPERTIES.line.range);
    return { kind: 'linear', line: rampLane(time, blend) };
  }
  const ellipse = ({ centre, radii, rotation }: RadialGradient): number[] => [...centre, ...radii, rotation];
  const other = to as RadialGradient;
  return {
    kind: 'radial',
    ellipse: rampLane(time, blendNumbers(ellipse(from), ellipse(other), PROPERTIES.ellipse.range)),
    focus: rampLane(time, blendNumbers(from.focus, other.focus, PROPERTIES.focus.range)),
  };
}

const GEOMETRY = 7;
/** Where the focus of a radial gradient lies in the geometry of a sample. */
const FOCUS_AT = 5;

/** Memory for sampling a gradient. */
export const prepareGradient = ({ places, offsets }: GradientLanes): GradientSample => ({
  kind: places[0].kind,
  place: new Float64Array(1),
  geometry: new Float64Array(GEOMETRY),
  at: new Float64Array(offsets.length),
  colours: new Float64Array(4 * offsets.length),
});

/** Writes the gradient at a time in s into `out`, which `prepareGradient` made. Allocates nothing. */
export function sampleGradient(lanes: GradientLanes, seconds: number, out: GradientSample): GradientSample {
  lanes.place.sample(seconds, out.place);
  const place = lanes.places[out.place[0]] as GradientPlace;
  out.kind = place.kind;
  out.geometry.fill(0);
  if (place.kind === 'linear') place.line.sample(seconds, out.geometry);
  else {
    place.ellipse.sample(seconds, out.geometry);
    place.focus.sample(seconds, out.geometry, FOCUS_AT);
  }
  for (let i = 0; i < out.at.length; i++) {
    lanes.offsets[i].sample(seconds, out.at, i);
    lanes.colours[i].sample(seconds, out.colours, 4 * i);
  }
  return out;
}
