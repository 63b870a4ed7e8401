import { current, type Draft, isDraft } from 'immer';
import { reverseEasing } from '../../easing';
import type { Figure, Id, IdSource, Piece, Shift } from '../records';
import { reversedMatch } from '../records';
import { isClosedRail, stopsOf } from '../time';
import { insertPoses, type NewPose, type PieceDraft, rebuildRail, removeFigure, removeStop } from './edit';
import { putValuesAtStop, type StopValues, valuesAtStop } from './stop-values';

// Changes to several poses of a rail at once. Stops are counted from the rail's start.

/** Takes stops off the rail, and the figure with the last of them. */
export function removeStops(draft: PieceDraft, figureId: Id, stops: readonly number[], newId: IdSource): void {
  const figure = draft.figures[figureId] as Figure;
  const all = stopsOf(draft as Piece, figure);
  // The return of a closed rail is its first stop.
  const closed = isClosedRail(draft as Piece, figure);
  const gone = [...new Set(stops.map((stop) => (closed && stop === all.length - 1 ? 0 : stop)))].sort((p, q) => q - p);
  if (gone.length >= new Set(all).size) {
    removeFigure(draft, figureId);
    return;
  }
  for (const stop of gone) removeStop(draft, figureId, stop, newId);
}

/** What of a shift does not depend on its two poses. */
type ShiftTiming = Pick<Shift, 'duration' | 'easing' | 'blend' | 'method'>;

/**
 * Puts poses on the rail in a row; `timings[i]` is how the shift after the i-th goes, `values[i]` what lanes said of it where it comes from, where that is known.
 */
export function insertChain(
  draft: PieceDraft,
  figureId: Id,
  added: readonly NewPose[],
  timings: readonly (ShiftTiming | undefined)[],
  newId: IdSource,
  at?: number,
  values: readonly StopValues[] = [],
): void {
  insertPoses(draft, figureId, added, newId, at);
  const stops = stopsOf(draft as Piece, draft.figures[figureId] as Figure);
  values.forEach((each, i) => {
    putValuesAtStop(draft, figureId, stops.indexOf(added[i].pose.id), each, newId);
  });
  added.slice(0, -1).forEach(({ pose }, i) => {
    const timing = timings[i];
    const id = draft.figures[figureId].rail.find(
      (shift) => draft.shifts[shift].from === pose.id && draft.shifts[shift].to === added[i + 1].pose.id,
    );
    if (!timing || !id) return;
    const { duration, easing, blend, method } = timing;
    Object.assign(draft.shifts[id], { duration, easing: { ...easing }, blend, method });
  });
}

/** Makes the poses of one figure the next poses of another, after a stop of it; the figure itself goes. What it clipped is seen whole again. */
export function joinFigures(draft: PieceDraft, from: Id, into: Id, afterStop: number, newId: IdSource): void {
  const piece = (isDraft(draft) ? current(draft) : draft) as Piece;
  const figure = piece.figures[from];
  const stops = [...new Set(stopsOf(piece, figure))];
  const added = stops.map((id) => ({
    pose: piece.poses[id],
    parts: piece.poses[id].parts.map((part) => piece.parts[part]),
  }));
  const timings = stops.map((_, i): Shift | undefined => piece.shifts[figure.rail[i]]);
  const values = stops.map((_, i) => valuesAtStop(piece, from, i));
  const texts = { ...draft.texts };
  removeFigure(draft, from);
  // Its letters are still those of their texts.
  for (const { parts } of added)
    for (const { source } of parts) if (source?.kind === 'glyph') draft.texts[source.text] = texts[source.text];
  insertChain(draft, into, added, timings, newId, afterStop + 1, values);
}

/**
 * Runs the rail from stop `first` to stop `last` the other way. Its poses stand in the opposite order, and each shift between them goes back the way it
 * came, with its duration, the easing of the way back and its match. A closed rail of which every card is meant is run the other way as a whole. Returns in
 * words what of the matches cannot be run backwards.
 */
export function reverseStops(
  draft: PieceDraft,
  figureId: Id,
  first: number,
  last: number,
  newId: IdSource,
): readonly string[] {
  const figure = draft.figures[figureId];
  const stops = stopsOf(draft as Piece, figure as Figure);
  const closed = isClosedRail(draft as Piece, figure as Figure);
  const end = closed && first === 0 && last >= stops.length - 2 ? stops.length - 1 : last;
  // With its first pose elsewhere a closed rail would come back to another one.
  const opens = closed && end < stops.length - 1 && first === 0;
  const lost: string[] = [];
  for (const id of figure.rail.slice(first, end)) {
    const shift = draft.shifts[id];
    const names = `${draft.poses[shift.to].name} to ${draft.poses[shift.from].name}`;
    const turned = reversedMatch(shift.match as Shift['match']);
    lost.push(...turned.lost.map((what) => `${what} could not be kept on the way back from ${names}.`));
    const { from, to } = shift;
    Object.assign(shift, {
      from: to,
      to: from,
      easing: reverseEasing(shift.easing),
      match: turned.match as Draft<Shift['match']>,
    });
  }
  const stretch = stops.slice(first, end + 1).reverse();
  const order = [...stops.slice(0, first), ...stretch, ...stops.slice(end + 1)];
  if (opens) order[order.length - 1] = order[0];
  rebuildRail(draft, figureId, order, newId);
  return lost;
}
