import {
  CAPS,
  type CommonPaint,
  commonPaint,
  cssText,
  isGradient,
  JOINS,
  type Paint,
  readColour,
  transformPaint,
} from '../../paint';
import { type Part, type Placement, placementMatrix, placementScale } from '../../piece';
import type { PartPlan } from './part-plans';

/** Both ends of something. */
export type Ends<T> = readonly [from: T, to: T];

/** How a part is stroked at both ends of a shift; lengths in canvas px, equally many dashes and gaps on both sides. */
export interface StrokeEnds {
  readonly paint: CommonPaint;
  readonly strokeWidth: Ends<readonly number[]>;
  readonly cap: Ends<readonly number[]>;
  readonly join: Ends<readonly number[]>;
  readonly miter: Ends<readonly number[]>;
  readonly dash: Ends<readonly number[]>;
  readonly dashOffset: Ends<readonly number[]>;
}

/** The paint of a part at both ends of a shift, brought to one structure. */
export interface PartPaint {
  readonly fill: CommonPaint | null;
  readonly stroke: StrokeEnds | null;
}

/** A part with the placement of its pose. */
export interface PlacedPaint {
  readonly part: Part;
  readonly placement: Placement;
}

interface Known {
  readonly a: PlacedPaint | undefined;
  readonly b: PlacedPaint | undefined;
  readonly paint: PartPaint;
}
const known = new WeakMap<PartPlan, Known>();

const sameSide = (p: PlacedPaint | undefined, q: PlacedPaint | undefined): boolean =>
  p?.part === q?.part && p?.placement === q?.placement;

/** The paint of two parts that become each other along a plan; found once for the same records. One of them may be absent. */
export function paintOf(plan: PartPlan, a: PlacedPaint | undefined, b: PlacedPaint | undefined): PartPaint {
  const before = known.get(plan);
  if (before && sameSide(before.a, a) && sameSide(before.b, b)) return before.paint;
  const paint = partPaint(a, b);
  known.set(plan, { a, b, paint });
  return paint;
}

/** The paint of two parts at both ends; one of them may be absent. */
export function partPaint(a: PlacedPaint | undefined, b: PlacedPaint | undefined): PartPaint {
  const ends = (pick: (part: Part) => Paint | null | undefined): CommonPaint | null => {
    const placed = (side: PlacedPaint | undefined): Paint | null => {
      const paint = side && pick(side.part);
      return side && paint ? transformPaint(paint, placementMatrix(side.placement)) : null;
    };
    const first = placed(a);
    const second = placed(b);
    // A paint that one side lacks fades in its own colours; an unpaired part keeps its paint.
    const from = first ?? (second && (a ? clearPaint(second) : second));
    const to = second ?? (first && (b ? clearPaint(first) : first));
    if (from === null || to === null) return null;
    return commonPaint(from, to) ?? null;
  };
  return { fill: ends(({ fill }) => fill), stroke: strokeEnds(a, b, ends) };
}

function strokeEnds(
  a: PlacedPaint | undefined,
  b: PlacedPaint | undefined,
  ends: (pick: (part: Part) => Paint | null | undefined) => CommonPaint | null,
): StrokeEnds | null {
  const paint = ends(({ stroke }) => stroke?.paint);
  const strokeA = a?.part.stroke ?? b?.part.stroke;
  const strokeB = b?.part.stroke ?? a?.part.stroke;
  if (!paint || !strokeA || !strokeB) return null;
  const scaleOf = (side: PlacedPaint | undefined): number | undefined => side && placementScale(side.placement);
  const scaleA = scaleOf(a) ?? scaleOf(b) ?? 1;
  const scaleB = scaleOf(b) ?? scaleOf(a) ?? 1;
  // A stroke that one side lacks grows from nothing.
  const widthA = a && !a.part.stroke ? 0 : strokeA.width * scaleA;
  const widthB = b && !b.part.stroke ? 0 : strokeB.width * scaleB;
  return {
    paint,
    strokeWidth: [[widthA], [widthB]],
    cap: [[CAPS.indexOf(strokeA.cap)], [CAPS.indexOf(strokeB.cap)]],
    join: [[JOINS.indexOf(strokeA.join)], [JOINS.indexOf(strokeB.join)]],
    miter: [[strokeA.miter], [strokeB.miter]],
    dash: commonDashes(
      strokeA.dash.map((v) => v * scaleA),
      strokeB.dash.map((v) => v * scaleB),
    ),
    dashOffset: [[strokeA.dashOffset * scaleA], [strokeB.dashOffset * scaleB]],
  };
}

const MOST_DASHES = 16;
const clear = (colour: string): string => {
  const c = readColour(colour);
  return c ? cssText(c.r, c.g, c.b, 0) : 'rgb(0 0 0 / 0)';
};
/** The same paint, wholly see-through. */
const clearPaint = (paint: Paint): Paint =>
  isGradient(paint)
    ? { ...paint, stops: paint.stops.map(({ at, colour }) => ({ at, colour: clear(colour) })) }
    : clear(paint);

/** Both dash patterns with equally many lengths: repeated, or with gaps of nothing where one side is unbroken. */
function commonDashes(a: readonly number[], b: readonly number[]): Ends<readonly number[]> {
  const unbroken = (like: readonly number[]): number[] => {
    // The dashes of the other side grow together: each takes the place of its gap.
    return like.map((v, i) => (i % 2 === 0 ? v + (like[i + 1] ?? 0) : 0));
  };
  if (a.length === b.length) return [a, b];
  if (a.length === 0) return [unbroken(b), b];
  if (b.length === 0) return [a, unbroken(a)];
  let count = Math.max(a.length, b.length);
  while (count < MOST_DASHES && (count % a.length !== 0 || count % b.length !== 0)) count += 2;
  const repeat = (list: readonly number[]): number[] => Array.from({ length: count }, (_, i) => list[i % list.length]);
  return [repeat(a), repeat(b)];
}
