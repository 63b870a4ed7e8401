import { planThrough, type ShiftPlan } from '../../morph';
import { transformOutline } from '../../outline';
import { type PartShape, type Piece, type Placement, placementMatrix, type Shift } from '../../piece';
import { adjustableContours, type ShapeSource, shapeBetween } from '../../shapes';

/** In-betweens that are built of the shape itself; between them it is within a hundredth of a px of it for shapes of a canvas's size. */
const KEYS = 24;
/** At its very ends a shape may lose points: a corner without a radius is one and not two. So near to them it has them all. */
const INSIDE = 1e-7;

/** A share of the way that is at neither end. */
export const nearShare = (share: number): number =>
  share >= 0 && share <= 1 ? Math.min(1 - INSIDE, Math.max(INSIDE, share)) : share;

/** The shape that a part still is; undefined for points and letters. */
export const shapeOf = ({ source }: Pick<PartShape, 'source'>): ShapeSource | undefined =>
  source && source.kind !== 'glyph' ? source : undefined;

/** Where a shape stands between two placements. */
export const mixedPlacement = (a: Placement, b: Placement, share: number): Placement => {
  const mixed = (p: number, q: number): number => p + (q - p) * share;
  return {
    x: mixed(a.x, b.x),
    y: mixed(a.y, b.y),
    scaleX: mixed(a.scaleX, b.scaleX),
    scaleY: mixed(a.scaleY, b.scaleY),
    rotation: mixed(a.rotation, b.rotation),
    rule: null,
  };
};

/** The way of a part that goes by the numbers of its shape; undefined where it cannot. */
export function planByNumbers(
  a: Pick<PartShape, 'source' | 'fillRule'>,
  b: Pick<PartShape, 'source' | 'fillRule'>,
  from: Placement,
  to: Placement,
): ShiftPlan | undefined {
  const [shapeA, shapeB] = [shapeOf(a), shapeOf(b)];
  if (!shapeA || !shapeB) return undefined;
  const times = Array.from({ length: KEYS + 1 }, (_, k) => k / KEYS);
  const frames = times.map((time) => {
    const share = nearShare(time);
    const shape = shapeBetween(shapeA, shapeB, share);
    const matrix = placementMatrix(mixedPlacement(from, to, share));
    const contours = shape && adjustableContours(shape);
    return contours && transformOutline({ contours, fillRule: a.fillRule }, matrix).contours;
  });
  const known = frames.flatMap((frame) => (frame ? [frame] : []));
  return known.length === frames.length ? planThrough(times, known, a.fillRule) : undefined;
}

/** Can some part of a shift go by the numbers of its shape? */
export function canGoByNumbers({ poses, parts }: Pick<Piece, 'poses' | 'parts'>, { from, to }: Shift): boolean {
  const shapes = (pose: string): ShapeSource[] => poses[pose].parts.flatMap((id) => shapeOf(parts[id]) ?? []);
  const others = shapes(to);
  return shapes(from).some((a) => others.some((b) => shapeBetween(a, b, 0.5) !== undefined));
}
