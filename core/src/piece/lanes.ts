import { DEFAULT_EASING, type Easing } from '../easing';
import { type ShapeNumberId, shapeNumber } from '../shapes';
import { isClosedRail, railTimeline, stopsOf } from './rail';
import type { CommonLaneProperty, Figure, Id, LaneKey, LaneProperty, LaneRecord, Piece, StopName } from './records';

const NEUTRAL: Readonly<Record<CommonLaneProperty, readonly number[]>> = {
  position: [0, 0],
  turn: [0],
  scale: [1, 1],
  opacity: [1],
  fill: [0, 0, 0, 1],
  stroke: [0, 0, 0, 1],
  strokeWidth: [0],
  drawn: [0, 1, 0],
  softness: [0],
  background: [1, 1, 1, 1],
};

/** Is it a number of an adjustable shape? */
export const isShapeNumber = (property: LaneProperty): property is ShapeNumberId => property.includes('.');

/**
 * What a figure has where it has no lane: nothing is added to what rules and records give. What stands in place of paint and of shapes' numbers has no such value:
 * it begins as here. None where there is no such property.
 */
export function neutralOf(property: LaneProperty): readonly number[] {
  return isShapeNumber(property) ? (shapeNumber(property)?.parameters.map(() => 0) ?? []) : NEUTRAL[property];
}

/** Colours: red, green, blue and alpha, 0 to 1. */
const COLOURS: ReadonlySet<LaneProperty> = new Set<LaneProperty>(['fill', 'stroke', 'background']);
export const isColourLane = (property: LaneProperty): boolean => COLOURS.has(property);

/** Does a lane's value stand in place of what the poses' parts, or the canvas, have themselves? Else it lies on top, and its neutral value adds nothing. */
export const standsInPlace = (property: LaneProperty): boolean =>
  isColourLane(property) || property === 'strokeWidth' || isShapeNumber(property);

const ANY: readonly [number, number] = [Number.NEGATIVE_INFINITY, Number.POSITIVE_INFINITY];
const SHARE: readonly [number, number] = [0, 1];
const LENGTH: readonly [number, number] = [0, Number.POSITIVE_INFINITY];

/** The least and the most that a number of a lane can be: shares lie from 0 to 1, widths and blurs are not below 0. */
export function laneLimits(property: LaneProperty, part: number): readonly [least: number, most: number] {
  if (isShapeNumber(property)) {
    const parameter = shapeNumber(property)?.parameters[part];
    return parameter ? [parameter.min, parameter.max] : ANY;
  }
  if (property === 'opacity' || isColourLane(property)) return SHARE;
  // How far a drawn part is shifted along may be any number of rounds.
  if (property === 'drawn') return part === 2 ? ANY : SHARE;
  return property === 'strokeWidth' || property === 'softness' ? LENGTH : ANY;
}

export const isNeutral = (property: LaneProperty, value: readonly number[]): boolean =>
  !standsInPlace(property) && value.every((v, i) => v === neutralOf(property)[i]);

/** Lanes by their figure, as long as the table is the same; one that is not frozen may change. */
const byFigure = new WeakMap<Piece['lanes'], ReadonlyMap<Id | null, readonly LaneRecord[]>>();
const NONE: readonly LaneRecord[] = [];

/** The lanes of a figure, or of the canvas. */
export function lanesOf({ lanes }: Pick<Piece, 'lanes'>, figureId: Id | null): readonly LaneRecord[] {
  let known = byFigure.get(lanes);
  if (!known) {
    const made = new Map<Id | null, LaneRecord[]>();
    for (const lane of Object.values(lanes)) made.set(lane.figure, [...(made.get(lane.figure) ?? []), lane]);
    known = made;
    if (Object.isFrozen(lanes)) byFigure.set(lanes, known);
  }
  return known.get(figureId) ?? NONE;
}

export const laneOf = (
  piece: Pick<Piece, 'lanes'>,
  figureId: Id | null,
  property: LaneProperty,
): LaneRecord | undefined => lanesOf(piece, figureId).find((lane) => lane.property === property);

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

/** The figure that a lane belongs to; null: the canvas. */
export const figureOfLane = (
  { figures }: Pick<Piece, 'figures'>,
  { figure }: Pick<LaneRecord, 'figure'>,
): Figure | null => (figure === null ? null : figures[figure]);

type Standing = Omit<TimedKey, 'easing'>;

/** Its own easing, or that of the one shift that lies between two stops. */
function easingBetween(piece: Piece, figure: Figure, from: Standing, to: Standing | undefined): Easing {
  if (from.key.easing) return from.key.easing;
  const spansOne = to && from.key.after === null && to.key.after === null && to.stop === from.stop + 1;
  return spansOne ? piece.shifts[figure.rail[from.stop]].easing : DEFAULT_EASING;
}
