import {
  type Figure,
  IDENTITY,
  type Id,
  invert,
  type Matrix,
  type Part,
  type Piece,
  type Pose,
  placementMatrix,
  railTimeline,
  stopsOf,
} from '@core';
import type { RootState, Selection } from '../../state';

/** The pose of a figure that can be worked on now, as it stands on the canvas. */
export interface ShownPose {
  readonly figure: Figure;
  readonly pose: Pose;
  readonly stop: number;
  readonly parts: readonly Part[];
  /** From the pose's own coordinates to the canvas, and back. */
  readonly matrix: Matrix;
  readonly inverse: Matrix;
}

/** The stop of a figure that is worked on: the selected one, or the one that stands at a time or nearest to it. */
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
  const matrix = placementMatrix(pose.placement);
  return {
    figure,
    pose,
    stop,
    parts: pose.parts.map((id) => piece.parts[id]),
    matrix,
    inverse: invert(matrix) ?? IDENTITY,
  };
}

/** All poses on the canvas, the lowest first. */
export const shownPoses = (piece: Piece, selection: Selection | null, seconds: number): ShownPose[] =>
  piece.figureOrder.flatMap((id) => shownPose(piece, piece.figures[id], selection, seconds) ?? []);

/** The chosen figures, the one on the rail first; members of the same groups come along. */
export function chosenFigures(state: RootState): Id[] {
  const { piece } = state.document;
  const { selection } = state.session;
  if (!piece) return [];
  const first = selection?.kind === 'stop' ? [selection.figureId] : [];
  return [...new Set([...first, ...state.drawing.also])].filter((id) => piece.figures[id]);
}

/** What is worked on: chosen figures with their shown poses, and in each the chosen parts, or all. */
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
