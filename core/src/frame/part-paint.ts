import type { ShiftPlan } from '../morph';
import {
  type BlendSpace,
  cssText,
  isGradient,
  type Paint,
  type PaintBlend,
  planPaintBlend,
  readColour,
  transformPaint,
} from '../paint';
import type { Part } from '../piece';
import type { PlacedPart } from './match-input';

/** How a part is stroked along a shift; widths in canvas px. */
export interface StrokePlan {
  readonly paint: PaintBlend;
  readonly widths: readonly [from: number, to: number];
  readonly miters: readonly [from: number, to: number];
  /** Dashes and gaps of both ends, equally many; none for an unbroken stroke. */
  readonly dashes: readonly [from: readonly number[], to: readonly number[]];
  readonly dashOffsets: readonly [from: number, to: number];
  readonly caps: readonly [from: CanvasLineCap, to: CanvasLineCap];
  readonly joins: readonly [from: CanvasLineJoin, to: CanvasLineJoin];
}
type CanvasLineCap = 'butt' | 'round' | 'square';
type CanvasLineJoin = 'miter' | 'round' | 'bevel';

/** One drawn part of a shift. */
export interface PartPlan {
  /** Ids of the parts that become each other; one of them is absent for a part on its own. */
  readonly a?: string;
  readonly b?: string;
  readonly plan: ShiftPlan;
  readonly fill: PaintBlend | null;
  readonly stroke: StrokePlan | null;
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

/** A plan with the paint of its parts blended. */
export function paintedPlan(
  plan: ShiftPlan,
  a: PlacedPart | undefined,
  b: PlacedPart | undefined,
  space: BlendSpace,
): PartPlan {
  const paints = (pick: (part: Part) => Paint | null | undefined): PaintBlend | null => {
    const placed = (side: PlacedPart | undefined): Paint | null => {
      const paint = side && pick(side.part);
      return side && paint ? transformPaint(paint, side.matrix) : null;
    };
    const first = placed(a);
    const second = placed(b);
    // A paint that one side lacks fades in its own colours; a part on its own keeps its paint.
    const from = first ?? (second && (a ? clearPaint(second) : second));
    const to = second ?? (first && (b ? clearPaint(first) : first));
    if (from === null || to === null) return null;
    return planPaintBlend(from, to, space) ?? null;
  };
  const fill = paints((part) => part.fill);
  const stroke = paints((part) => part.stroke?.paint);
  const strokeA = a?.part.stroke ?? b?.part.stroke;
  const strokeB = b?.part.stroke ?? a?.part.stroke;
  const ids = { ...(a && { a: a.part.id }), ...(b && { b: b.part.id }) };
  if (!stroke || !strokeA || !strokeB) return { ...ids, plan, fill, stroke: null };
  const scaleA = a?.scale ?? b?.scale ?? 1;
  const scaleB = b?.scale ?? a?.scale ?? 1;
  // A stroke that one side lacks grows from nothing.
  const widthA = a && !a.part.stroke ? 0 : strokeA.width * scaleA;
  const widthB = b && !b.part.stroke ? 0 : strokeB.width * scaleB;
  return {
    ...ids,
    plan,
    fill,
    stroke: {
      paint: stroke,
      widths: [widthA, widthB],
      caps: [strokeA.cap, strokeB.cap],
      joins: [strokeA.join, strokeB.join],
      miters: [strokeA.miter, strokeB.miter],
      dashes: commonDashes(
        strokeA.dash.map((v) => v * scaleA),
        strokeB.dash.map((v) => v * scaleB),
      ),
      dashOffsets: [strokeA.dashOffset * scaleA, strokeB.dashOffset * scaleB],
    },
  };
}

/** Both dash patterns with equally many lengths: repeated, or with gaps of nothing where one side is unbroken. */
function commonDashes(a: readonly number[], b: readonly number[]): [readonly number[], readonly number[]] {
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
