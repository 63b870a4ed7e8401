import { type Figure, type Id, type Piece, type Pose, type Shift, stopsOf } from '@core';
import type { Selection } from './session';
import type { RootState } from './store';

export const selectPiece = (state: RootState): Piece | null => state.document.piece;
export const selectSelection = (state: RootState): Selection | null => state.session.selection;

/** The figure on the rail: the selected one, else the first. */
export function chosenFigure(piece: Piece, selection: Selection | null): Figure | undefined {
  return (selection && piece.figures[selection.figureId]) ?? piece.figures[piece.figureOrder[0]];
}

/** The selection as records, or undefined when what was selected is gone. */
export function selectedShift(piece: Piece, selection: Selection | null): Shift | undefined {
  return selection?.kind === 'shift' ? piece.shifts[selection.shiftId] : undefined;
}

export function selectedPose(
  piece: Piece,
  selection: Selection | null,
): { pose: Pose; figure: Figure; stop: number } | undefined {
  if (selection?.kind !== 'stop') return undefined;
  const figure = piece.figures[selection.figureId];
  const poseId: Id | undefined = figure && stopsOf(piece, figure)[selection.stop];
  return poseId ? { pose: piece.poses[poseId], figure, stop: selection.stop } : undefined;
}
