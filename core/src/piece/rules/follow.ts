import type { Follow, Id, LaneProperty, Piece } from '../records';
import { isColourLane, laneOf, neutralOf } from '../records';

/** A lane by what it belongs to. */
export interface LaneName {
  readonly figure: Id | null;
  readonly property: LaneProperty;
}

/**
 * The lanes through which a lane would follow itself, from it on and back to it; undefined where it would not. `to` is what it is to follow.
 */
export function followCycle(
  piece: Pick<Piece, 'lanes'>,
  lane: LaneName,
  to: LaneName,
): readonly LaneName[] | undefined {
  const chain: LaneName[] = [lane];
  const same = (p: LaneName, q: LaneName): boolean => p.figure === q.figure && p.property === q.property;
  for (let next: LaneName | undefined = to; next; next = laneOf(piece, next.figure, next.property)?.follow) {
    chain.push({ figure: next.figure, property: next.property });
    if (same(next, lane)) return chain;
    // A cycle that does not lead through this lane is another lane's.
    if (chain.slice(0, -1).some((known) => same(known, next as LaneName))) return undefined;
  }
  return undefined;
}

/** A chain of lanes in words. */
export const chainText = ({ figures }: Pick<Piece, 'figures'>, chain: readonly LaneName[]): string =>
  chain
    .map(
      ({ figure, property }) => `${property} of ${figure === null ? 'the canvas' : (figures[figure]?.name ?? figure)}`,
    )
    .join(' → ');

/** Can a lane take its value from another one? Colours from colours; numbers from as many, or from a single one. */
export function canFollow(
  property: LaneProperty,
  { property: source, axis }: Pick<Follow, 'property' | 'axis'>,
): boolean {
  if (isColourLane(property) !== isColourLane(source)) return false;
  if (isColourLane(property)) return axis === null;
  if (axis !== null) return axis < neutralOf(source).length;
  return neutralOf(source).length === neutralOf(property).length || neutralOf(source).length === 1;
}
