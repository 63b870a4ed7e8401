import { DEFAULT_EASING, type Easing } from '../../easing';
import type { Figure, Id, LaneKey, LaneRecord, Piece, StopName } from '../records';
import { isClosedRail, railTimeline, stopsOf } from './rail';

/** The name of a stop on the rail as it is. */
export const stopName = (figure: Figure, stops: readonly Id[], stop: number): StopName => ({
  pose: stops[stop],
  shift: stop > 0 ? figure.rail[stop - 1] : null,
});

/** Which stop a name means: the one that it says, else the first that shows its pose; −1 where none does. */
export function stopNamed(figure: Figure, stops: readonly Id[], { pose, shift }: StopName): number {
  const said = shift === null ? 0 : figure.rail.indexOf(shift) + 1;
  if ((shift === null || said > 0) && stops[said] === pose) return said;
  return stops.indexOf(pose);
}

/** A key in time: the value stands from `from` until `until`, s; and how it goes on to the next. */
export interface TimedKey {
  readonly key: LaneKey;
  /** Its stop, −1 on the canvas; the value stands through the stop's hold where the key is not free. */
  readonly stop: number;
  readonly from: number;
  readonly until: number;
  readonly easing: Easing;
}

/**
 * The keys of a lane in the order of their times. Keys whose stop is gone are left out. A closed rail that loops comes back to the value with which it began,
 * unless the return has a key of its own.
 */
export function timedKeys(piece: Piece, figure: Figure | null, lane: LaneRecord): TimedKey[] {
  if (!figure) return canvasKeys(lane);
  const stops = stopsOf(piece, figure);
  const timeline = railTimeline(piece, figure);
  const found = lane.keys.flatMap((key) => {
    const stop = key.stop ? stopNamed(figure, stops, key.stop) : -1;
    return stop >= 0 ? [{ key, stop }] : [];
  });
  const last = stops.length - 1;
  const first = found.find(({ key, stop }) => stop === 0 && key.after === null);
  if (first && isClosedRail(piece, figure) && !found.some(({ key, stop }) => stop === last && key.after === null))
    found.push({ key: first.key, stop: last });
  const timed = found.map(({ key, stop }) => {
    const { start, hold } = timeline.stops[stop];
    return key.after === null
      ? { key, stop, from: start, until: start + hold }
      : { key, stop, from: start + key.after, until: start + key.after };
  });
  timed.sort((p, q) => p.from - q.from || p.stop - q.stop);
  return timed.map((each, i) => ({ ...each, easing: easingBetween(piece, figure, each, timed[i + 1]) }));
}

/** The keys of the canvas: each at its time. */
function canvasKeys({ keys }: LaneRecord): TimedKey[] {
  const timed = keys.map((key) => {
    const at = key.after ?? 0;
    return { key, stop: -1, from: at, until: at, easing: key.easing ?? DEFAULT_EASING };
  });
  return timed.sort((p, q) => p.from - q.from);
}

type Standing = Omit<TimedKey, 'easing'>;

/** Its own easing, or that of the one shift that lies between two stops. */
function easingBetween(piece: Piece, figure: Figure, from: Standing, to: Standing | undefined): Easing {
  if (from.key.easing) return from.key.easing;
  const spansOne = to && from.key.after === null && to.key.after === null && to.stop === from.stop + 1;
  return spansOne ? piece.shifts[figure.rail[from.stop]].easing : DEFAULT_EASING;
}
