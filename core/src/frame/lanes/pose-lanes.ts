import { RampTime } from '../../lane';
import { stillPlan } from '../../morph';
import type { Id, Part, Piece, Placement, Pose, Shift } from '../../piece';
import type { PartPlan } from '../plan';
import { type PlacedPaint, paintOf, partPaint, placedParts } from '../plan';
import { type PartLanes, partLanes } from './part-lanes';

const STANDING = new RampTime(0, 0, { kind: 'linear' });

/** Parts standing still where a placement puts them, each contour's points in their record's order. */
export const stillLanes = (placement: Placement, parts: readonly Part[]): PartLanes[] =>
  parts.map((part) => stillLane(placement, part));

/** One of them. */
export function stillLane(placement: Placement, part: Part): PartLanes {
  const before = known.get(part);
  if (before?.placement === placement) return before.lanes;
  const placed = { part, placement };
  const [{ outline }] = placedParts({ placement, parts: [part] });
  const plan = { a: part.id, b: part.id, plan: stillPlan(outline) };
  const lanes = partLanes(plan, partPaint(placed, placed), STANDING, 'oklab');
  known.set(part, { placement, lanes });
  return lanes;
}

/** Parts as they stand, as long as they and their placement are the same records: edits elsewhere compile them again and again. */
const known = new WeakMap<Part, { readonly placement: Placement; readonly lanes: PartLanes }>();

/** A part of a shift in its paint. */
export function shiftLane(piece: Piece, { from, to, blend }: Shift, plan: PartPlan, time: RampTime): PartLanes {
  const side = (id: Id | undefined, pose: Pose): PlacedPaint | undefined =>
    id === undefined ? undefined : { part: piece.parts[id], placement: pose.placement };
  return partLanes(plan, paintOf(plan, side(plan.a, piece.poses[from]), side(plan.b, piece.poses[to])), time, blend);
}
