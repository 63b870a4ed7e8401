import { ANY, LANE_KIND_IDS, type LaneKind, type Limits, laneKind } from '../../lane';
import { type ShapeNumberId, shapeNumber } from '../../shapes';
import type { Figure, Id, LaneProperty, LaneRecord, Piece } from './records';

/** All that is known of a property; undefined for numbers of adjustable shapes. */
const kindOf = (property: LaneProperty): LaneKind | undefined =>
  isShapeNumber(property) ? undefined : laneKind(property);

/** All that a figure can have a lane of, and the canvas: without the numbers of shapes. */
export const FIGURE_LANES = LANE_KIND_IDS.filter((id) => laneKind(id).of === 'figure');
export const CANVAS_LANES = LANE_KIND_IDS.filter((id) => laneKind(id).of === 'canvas');
export const isCanvasLane = (property: LaneProperty): boolean => kindOf(property)?.of === 'canvas';

/** Is it a number of an adjustable shape? */
export const isShapeNumber = (property: LaneProperty): property is ShapeNumberId => property.includes('.');

/**
 * What a figure has where it has no lane: nothing is added to what rules and records give. What stands in place of paint and of shapes' numbers has no such value:
 * it begins as here. None where there is no such property.
 */
export function neutralOf(property: LaneProperty): readonly number[] {
  return isShapeNumber(property) ? (shapeNumber(property)?.parameters.map(() => 0) ?? []) : laneKind(property).neutral;
}

/** Is its value a colour: red, green, blue and alpha, 0 to 1? */
export const isColourLane = (property: LaneProperty): boolean => kindOf(property)?.type === 'colour';

/** Does a lane's value stand in place of what the poses' parts, or the canvas, have themselves? Else it lies on top, and its neutral value adds nothing. */
export const standsInPlace = (property: LaneProperty): boolean => (kindOf(property)?.lies ?? 'in-place') === 'in-place';

/** The least and the most that a number of a lane can be. */
export function laneLimits(property: LaneProperty, part: number): Limits {
  if (!isShapeNumber(property)) return laneKind(property).limits[part] ?? ANY;
  const parameter = shapeNumber(property)?.parameters[part];
  return parameter ? [parameter.min, parameter.max] : ANY;
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
