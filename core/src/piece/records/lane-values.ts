import { type ShapeNumberId, shapeNumber } from '../../shapes';
import type { CommonLaneProperty, Figure, Id, LaneProperty, LaneRecord, Piece } from './records';

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

/** The figure that a lane belongs to; null: the canvas. */
export const figureOfLane = (
  { figures }: Pick<Piece, 'figures'>,
  { figure }: Pick<LaneRecord, 'figure'>,
): Figure | null => (figure === null ? null : figures[figure]);

/** Does a lane have a value without keys: does it follow, drift or pulse? */
export const isDriven = ({ follow, drift, pulse }: Pick<LaneRecord, 'follow' | 'drift' | 'pulse'>): boolean =>
  follow !== undefined || drift !== undefined || pulse !== undefined;
