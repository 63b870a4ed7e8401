import type { Method } from '../morph';
import type { BlendSpace } from '../paint';
import type { MatchChoices, Part, Piece, Placement, Pose, Shift } from '../piece';
import { shiftsInStep } from './in-step';

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
  /** Shifts of other figures that run in step with this one and touch it at both ends, in painting order; left out where there are none. */
  readonly inStep?: readonly InStepInput[];
}

export interface InStepInput {
  /** Does its figure lie under this one's? */
  readonly below: boolean;
  readonly shift: Omit<ShiftInput, 'inStep'>;
}

export const poseInput = (piece: Piece, pose: Pose): PoseInput => ({
  placement: pose.placement,
  parts: pose.parts.map((id) => piece.parts[id]),
});

export function shiftInput(piece: Piece, shift: Shift): ShiftInput {
  const inStep = shiftsInStep(piece, shift).map(({ below, shift: other }) => ({
    below,
    shift: ownInput(piece, other),
  }));
  return inStep.length > 0 ? { ...ownInput(piece, shift), inStep } : ownInput(piece, shift);
}

function ownInput(piece: Piece, { from, to, method, blend, match }: Shift): Omit<ShiftInput, 'inStep'> {
  return { from: poseInput(piece, piece.poses[from]), to: poseInput(piece, piece.poses[to]), method, blend, match };
}

/** Do both describe the same shift? Compares records by identity, so an edit elsewhere in the piece changes nothing. */
export function sameShiftInput(p: ShiftInput, q: ShiftInput): boolean {
  const [inStepP, inStepQ] = [p.inStep ?? [], q.inStep ?? []];
  return (
    p.method === q.method &&
    p.blend === q.blend &&
    sameMatch(p.match, q.match) &&
    samePose(p.from, q.from) &&
    samePose(p.to, q.to) &&
    inStepP.length === inStepQ.length &&
    inStepP.every(({ below, shift }, i) => below === inStepQ[i].below && sameShiftInput(shift, inStepQ[i].shift))
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
