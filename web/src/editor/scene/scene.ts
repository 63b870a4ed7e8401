import {
  type Box,
  type Figure,
  hasShapeLanes,
  IDENTITY,
  type Id,
  invert,
  lanesOf,
  type Matrix,
  type MotionSample,
  motionAt,
  motionMatrix,
  multiply,
  type Part,
  type Piece,
  type Pose,
  partAt,
  partsAsSeen,
  placementMatrix,
  poseBox,
  railTimeline,
  type Shift,
  shapeLanesOf,
  stopsOf,
} from '@core';
import type { RootState, Selection } from '../../state';

/** The pose of a figure that can be edited now, as it is seen on the canvas. */
export interface ShownPose {
  readonly figure: Figure;
  readonly pose: Pose;
  readonly stop: number;
  readonly parts: readonly Part[];
  /** How its figure's motion has moved it at this stop; null if it has not. */
  readonly motion: MotionSample | null;
  /** From the pose's own coordinates to its base placement. */
  readonly base: Matrix;
  /** From the pose's own coordinates to the canvas, motion included, and back. */
  readonly matrix: Matrix;
  readonly inverse: Matrix;
}

/** Motion at stops, by figure and stop; kept until the piece changes. */
const motions = new WeakMap<Piece, Map<string, MotionSample | null>>();

/** How a figure's motion has moved its pose at a stop; null if it has not. */
export function motionAtStop(piece: Piece, figure: Figure, stop: number): MotionSample | null {
  if (lanesOf(piece, figure.id).length === 0) return null;
  let known = motions.get(piece);
  if (!known) motions.set(piece, (known = new Map()));
  const key = `${figure.id} ${stop}`;
  let motion = known.get(key);
  if (motion === undefined) {
    motion = motionAt(piece, figure.id, railTimeline(piece, figure).stops[stop]?.start ?? 0);
    known.set(key, motion);
  }
  return motion;
}

/** The parts of a pose at a stop, with the values of any lanes on the numbers of their shapes. */
export function partsAtStop(piece: Piece, figure: Figure, stop: number, { parts }: Pose): readonly Part[] {
  const own = parts.map((id) => piece.parts[id]);
  if (!hasShapeLanes(piece, figure.id)) return own;
  const lanes = shapeLanesOf(piece, figure.id);
  const { start } = railTimeline(piece, figure).stops[stop];
  return own.map((part) => partAt(part, lanes, start));
}

/** What the picture of a pose at a stop is made from: its parts and its figure's motion there. */
export interface PoseSeen {
  readonly parts: readonly Part[];
  readonly motion: MotionSample | null;
}

/** Poses as seen at stops, by figure and stop; kept until the piece changes. */
const seen = new WeakMap<Piece, Map<string, PoseSeen>>();

/** A figure's pose as seen when its stop begins, with everything that the figure's lanes do to it. */
export function poseSeen(piece: Piece, figure: Figure, stop: number): PoseSeen {
  let known = seen.get(piece);
  if (!known) seen.set(piece, (known = new Map()));
  const key = `${figure.id} ${stop}`;
  let found = known.get(key);
  if (!found) {
    const pose = piece.poses[stopsOf(piece, figure)[stop]];
    const seconds = railTimeline(piece, figure).stops[stop]?.start ?? 0;
    found = { parts: partsAsSeen(piece, figure.id, pose, seconds), motion: motionAtStop(piece, figure, stop) };
    known.set(key, found);
  }
  return found;
}

/** Both poses of a shift, as seen at its stops. */
export function shiftSeen(piece: Piece, { from, to }: Shift): { readonly from?: PoseSeen; readonly to?: PoseSeen } {
  const figure = Object.values(piece.figures).find(({ poses }) => poses.includes(from));
  if (!figure) return {};
  const stop = figure.poses.indexOf(from);
  const next = stopsOf(piece, figure)[stop + 1] === to;
  return { from: poseSeen(piece, figure, stop), to: next ? poseSeen(piece, figure, stop + 1) : undefined };
}

/** The visible bounding box of a pose, or of some of its parts, canvas px. */
export const shownBox = ({ pose, parts, matrix }: ShownPose, some: readonly Part[] = parts): Box =>
  poseBox(
    { parts: Object.fromEntries(some.map((part) => [part.id, part])) },
    pose,
    some.map(({ id }) => id),
    matrix,
  );

/** The stop of a figure that is edited: the selected one, or the one nearest to a time. */
export function workedStop(piece: Piece, figure: Figure, selection: Selection | null, seconds: number): number {
  const stops = stopsOf(piece, figure);
  if (selection?.kind === 'stop' && selection.figureId === figure.id && selection.stop < stops.length)
    return selection.stop;
  let best = 0;
  let least = Infinity;
  railTimeline(piece, figure).stops.forEach(({ start, hold }, i) => {
    const away = Math.max(start - seconds, seconds - start - hold, 0);
    if (away < least) {
      least = away;
      best = i;
    }
  });
  return best;
}

export function shownPose(
  piece: Piece,
  figure: Figure,
  selection: Selection | null,
  seconds: number,
): ShownPose | undefined {
  const stop = workedStop(piece, figure, selection, seconds);
  const poseId = stopsOf(piece, figure)[stop];
  if (!poseId) return undefined;
  const pose = piece.poses[poseId];
  const base = placementMatrix(pose.placement);
  const motion = motionAtStop(piece, figure, stop);
  const matrix = motion ? multiply(motionMatrix(motion), base) : base;
  return {
    figure,
    pose,
    stop,
    parts: partsAtStop(piece, figure, stop, pose),
    motion,
    base,
    matrix,
    inverse: invert(matrix) ?? IDENTITY,
  };
}

/** All poses on the canvas, bottom first. */
export const shownPoses = (piece: Piece, selection: Selection | null, seconds: number): ShownPose[] =>
  piece.figureOrder.flatMap((id) => shownPose(piece, piece.figures[id], selection, seconds) ?? []);

/** The selected figures, the one on the rail first, with the other members of their groups. */
export function chosenFigures(state: RootState): Id[] {
  const { piece } = state.document;
  const { selection } = state.session;
  if (!piece) return [];
  const first = selection?.kind === 'stop' ? [selection.figureId] : [];
  return [...new Set([...first, ...state.drawing.also])].filter((id) => piece.figures[id]);
}

/** What is edited: the selected figures with their shown poses, and in each the selected parts, or all. */
export interface EditTarget extends ShownPose {
  readonly targets: readonly Part[];
}

export function editTargets(state: RootState, seconds: number): EditTarget[] {
  const { piece } = state.document;
  if (!piece) return [];
  const wanted = new Set(state.drawing.parts);
  const shown = chosenFigures(state).flatMap(
    (id) => shownPose(piece, piece.figures[id], state.session.selection, seconds) ?? [],
  );
  const some = shown.some(({ parts }) => parts.some(({ id }) => wanted.has(id)));
  return shown.map((pose) => ({ ...pose, targets: some ? pose.parts.filter(({ id }) => wanted.has(id)) : pose.parts }));
}
