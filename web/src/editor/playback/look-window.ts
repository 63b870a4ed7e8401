import { figureOfLane, type Piece, railTimeline, timedKeys } from '@core';
import type { KeyRef, Selection } from '../../state';

/** How much is seen before and after what is looked at, s. */
const ROOM = 0.25;

/** The stretch of time to look at, s: a pose with the shifts that reach and leave it, a shift, or keys, with some room; undefined where nothing is chosen. */
export function lookWindow(
  piece: Piece,
  selection: Selection | null,
  keys: readonly KeyRef[],
): readonly [from: number, until: number] | undefined {
  const times = keys.flatMap(({ lane: laneId, key }) => {
    const lane = piece.lanes[laneId];
    if (!lane) return [];
    const timed = timedKeys(piece, figureOfLane(piece, lane), lane);
    return timed.filter((each) => each.key.id === key).flatMap(({ from, until }) => [from, until]);
  });
  if (times.length > 0) return [Math.max(0, Math.min(...times) - ROOM), Math.max(...times) + ROOM];
  const figure = selection && piece.figures[selection.figureId];
  if (!selection || !figure) return undefined;
  const { stops, spans } = railTimeline(piece, figure);
  if (selection.kind === 'shift') {
    const span = spans.find(({ shift }) => shift.id === selection.shiftId);
    return span && [Math.max(0, span.start - ROOM), span.end + ROOM];
  }
  const stop = stops[selection.stop];
  if (!stop) return undefined;
  return [spans[selection.stop - 1]?.start ?? stop.start, spans[selection.stop]?.end ?? stop.start + stop.hold];
}
