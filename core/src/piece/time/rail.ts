import type { Figure, Id, Piece, Shift } from '../records';

/** The poses that a figure's rail passes, in order. A figure with one pose has one stop; a closed rail ends at its first pose. */
export function stopsOf(piece: Piece, figure: Figure): Id[] {
  if (figure.rail.length === 0) return figure.poses.slice(0, 1);
  return [piece.shifts[figure.rail[0]].from, ...figure.rail.map((id) => piece.shifts[id].to)];
}

/** Does the rail come back to the pose where it began? */
export function isClosedRail(piece: Piece, figure: Figure): boolean {
  if (figure.rail.length < 2) return false;
  return piece.shifts[figure.rail[0]].from === piece.shifts[figure.rail[figure.rail.length - 1]].to;
}

/** A pose standing on the rail: from `start`, still for `hold` s. */
export interface RailStop {
  readonly poseId: Id;
  readonly start: number;
  readonly hold: number;
  /** False for the return of a closed rail that loops: the hold of the first stop follows at once. */
  readonly held: boolean;
}

/** A shift on the rail, in s. */
export interface RailSpan {
  readonly shift: Shift;
  readonly start: number;
  readonly end: number;
}

export interface RailTimeline {
  readonly stops: readonly RailStop[];
  readonly spans: readonly RailSpan[];
  /** s */
  readonly duration: number;
}

/** When a figure's poses stand still and when they change; `duration` is when the last of it is over. */
export function railTimeline(piece: Piece, figure: Figure): RailTimeline {
  const ids = stopsOf(piece, figure);
  const returns = piece.playback === 'loop' && isClosedRail(piece, figure);
  const stops: RailStop[] = [];
  const spans: RailSpan[] = [];
  let time = figure.start;
  ids.forEach((poseId, i) => {
    const held = !(returns && i === ids.length - 1);
    const hold = held ? piece.poses[poseId].hold : 0;
    stops.push({ poseId, start: time, hold, held });
    time += hold;
    const shift = piece.shifts[figure.rail[i]];
    if (shift) {
      spans.push({ shift, start: time, end: time + shift.duration });
      time += shift.duration;
    }
  });
  return { stops, spans, duration: time };
}

/** How long a piece plays, s: as long as its longest figure. */
export const pieceDuration = (piece: Piece): number =>
  Math.max(0, ...piece.figureOrder.map((id) => railTimeline(piece, piece.figures[id]).duration));

/** Seconds of a frame number, by the canvas's rate. */
export const secondsOfFrame = (piece: Piece, frame: number): number =>
  (frame * piece.canvas.rate.den) / piece.canvas.rate.num;

/** The frame shown at a time: the last one that began. */
export const frameOfSeconds = (piece: Piece, seconds: number): number =>
  Math.floor((seconds * piece.canvas.rate.num) / piece.canvas.rate.den + 1e-6);

/** Number of frames of one run: those that begin before its end. */
export const frameCount = (piece: Piece): number =>
  Math.max(1, Math.ceil((pieceDuration(piece) * piece.canvas.rate.num) / piece.canvas.rate.den - 1e-6));
