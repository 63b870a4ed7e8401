import type { Method } from '../morph';
import type { BlendSpace } from '../paint';
import type { MatchChoices, Part, Piece, Placement, Pose, Shift } from '../piece';

/** A pose with what is needed to draw it. */
export interface PoseInput {
  readonly placement: Placement;
  readonly parts: readonly Part[];
}

/** Everything that a shift's plan depends on, and nothing else: plain data that can be sent to a worker. */
export interface ShiftInput {
  readonly from: PoseInput;
  readonly to: PoseInput;
  readonly method: Method | 'auto';
  readonly blend: BlendSpace;
  readonly match: MatchChoices;
}

export const poseInput = (piece: Piece, pose: Pose): PoseInput => ({
  placement: pose.placement,
  parts: pose.parts.map((id) => piece.parts[id]),
});

export function shiftInput(piece: Piece, shift: Shift): ShiftInput {
  const { method, blend, match } = shift;
  return {
    from: poseInput(piece, piece.poses[shift.from]),
    to: poseInput(piece, piece.poses[shift.to]),
    method,
    blend,
    match,
  };
}

/** Do both describe the same shift? Compares records by identity, so an edit elsewhere in the piece changes nothing. */
export function sameShiftInput(p: ShiftInput, q: ShiftInput): boolean {
  return (
    p.method === q.method &&
    p.blend === q.blend &&
    sameMatch(p.match, q.match) &&
    samePose(p.from, q.from) &&
    samePose(p.to, q.to)
  );
}

export function samePose(p: PoseInput, q: PoseInput): boolean {
  const a = p.placement;
  const b = q.placement;
  if (a.x !== b.x || a.y !== b.y || a.scaleX !== b.scaleX || a.scaleY !== b.scaleY) return false;
  if (a.rotation !== b.rotation || p.parts.length !== q.parts.length) return false;
  return p.parts.every((part, i) => part === q.parts[i]);
}

/** Compares the choices list by list: immer keeps lists that did not change. */
function sameMatch(p: MatchChoices, q: MatchChoices): boolean {
  return p === q || (Object.keys(p) as (keyof MatchChoices)[]).every((key) => p[key] === q[key]);
}
