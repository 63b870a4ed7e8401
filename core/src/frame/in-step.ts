import { type Id, type Piece, type Pose, placementMatrix, railTimeline, type Shift } from '../piece';
import { boxSize, emptyBox, includePoint } from '../vec';

/** Anchors of two poses that are nearer than this to each other, px, are at one place. */
const SAME_PLACE_PX = 0.05;
/** Times nearer than this are one, s. */
const SAME_TIME = 1e-6;

/**
 * The shifts of other figures that run in step with a shift (same start, duration and easing) and have places of anchors in common with it at
 * both ends, in painting order: their edges may lie on each other.
 */
export function shiftsInStep(piece: Piece, shift: Shift): { readonly below: boolean; readonly shift: Shift }[] {
  const own = piece.figureOrder.findIndex((id) => piece.figures[id].rail.includes(shift.id));
  if (own < 0 || piece.figureOrder.length < 2) return [];
  const spansOf = (id: Id) => railTimeline(piece, piece.figures[id]).spans;
  const start = spansOf(piece.figureOrder[own]).find((span) => span.shift.id === shift.id)?.start ?? 0;
  return piece.figureOrder.flatMap((id, order) => {
    if (order === own || piece.figures[id].hidden) return [];
    return spansOf(id)
      .filter(
        (span) =>
          Math.abs(span.start - start) < SAME_TIME &&
          Math.abs(span.shift.duration - shift.duration) < SAME_TIME &&
          sameEasing(span.shift, shift) &&
          touch(piece, span.shift.from, shift.from) &&
          touch(piece, span.shift.to, shift.to),
      )
      .map((span) => ({ below: order < own, shift: span.shift }));
  });
}

const sameEasing = (p: Shift, q: Shift): boolean =>
  p.easing === q.easing || JSON.stringify(p.easing) === JSON.stringify(q.easing);

/** Have two poses anchors at two common places at least? */
function touch(piece: Piece, p: Id, q: Id): boolean {
  const [a, b] = [placesOf(piece, piece.poses[p]), placesOf(piece, piece.poses[q])];
  const common = emptyBox();
  for (const [key, [x, y]] of a) if (b.has(key)) includePoint(common, x, y);
  return boxSize(common) > 0;
}

interface KnownPlaces {
  readonly parts: readonly unknown[];
  readonly places: ReadonlyMap<string, readonly [number, number]>;
}
/** Places of a pose's anchors, canvas px, kept as long as the pose and its parts are the same records. */
const known = new WeakMap<Pose, KnownPlaces>();

function placesOf(piece: Piece, pose: Pose): KnownPlaces['places'] {
  const parts = pose.parts.map((id) => piece.parts[id]);
  const before = known.get(pose);
  if (before && parts.every((part, i) => part === before.parts[i])) return before.places;
  const [a, b, c, d, e, f] = placementMatrix(pose.placement);
  const places = new Map<string, readonly [number, number]>();
  for (const { contours } of parts)
    for (const { anchors } of contours)
      for (const { at } of anchors) {
        const x = a * at[0] + c * at[1] + e;
        const y = b * at[0] + d * at[1] + f;
        places.set(`${Math.round(x / SAME_PLACE_PX)} ${Math.round(y / SAME_PLACE_PX)}`, [x, y]);
      }
  known.set(pose, { parts, places });
  return places;
}
