import type { PieceDraft, ReadPiece } from '@core';
import { freeName } from '../actions/draw-actions';

/**
 * Puts the figures of a file that moves into a piece, on top of its own. A piece without figures takes size, rate and way of playing from the file; to others the
 * figures come as they are. What lay behind them stays away: the piece keeps its own background.
 */
export function putMoving(draft: PieceDraft, { piece }: ReadPiece): void {
  const read = piece as PieceDraft;
  const isFirst = draft.figureOrder.length === 0;
  if (isFirst) {
    // What lies behind was chosen for this piece, or was there when it was opened: it is not the file's to change.
    draft.canvas = { ...read.canvas, background: draft.canvas.background };
    draft.playback = read.playback;
    if (read.stretch) draft.stretch = read.stretch;
  }
  const names = Object.values(draft.figures).map(({ name }) => name);
  for (const id of read.figureOrder) {
    const name = freeName(names, read.figures[id].name);
    names.push(name);
    draft.figures[id] = { ...read.figures[id], name };
    draft.figureOrder.push(id);
  }
  Object.assign(draft.poses, read.poses);
  // Frozen at its door, a part is not walked through to be frozen all over.
  for (const part of Object.values(read.parts)) draft.parts[part.id] = Object.freeze(part);
  Object.assign(draft.shifts, read.shifts);
  for (const lane of Object.values(read.lanes)) if (lane.figure !== null) draft.lanes[lane.id] = lane;
}
