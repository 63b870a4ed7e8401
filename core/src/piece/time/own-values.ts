import { laneKind } from '../../lane';
import { isGradient, type Paint, readColour } from '../../paint';
import { numbersOfShape, SHAPE_NUMBERS, shapeNumber } from '../../shapes';
import {
  FIGURE_LANES,
  type Figure,
  type Id,
  isShapeNumber,
  type LaneProperty,
  laneLimits,
  neutralOf,
  type Part,
  type Piece,
  placementScale,
} from '../records';
import { stopsOf } from './rail';

/**
 * What a figure, or the canvas, has of a property by itself at a stop: what a lane that stands in its place begins with. Of several parts the lowest that has it
 * counts, of a gradient its first colour.
 */
export function ownValue(piece: Piece, figureId: Id | null, property: LaneProperty, stop: number): readonly number[] {
  if (figureId === null) return colourValue(piece.canvas.background) ?? neutralOf(property);
  const figure = piece.figures[figureId];
  const pose = piece.poses[stopsOf(piece, figure)[stop]];
  const parts: Part[] = pose ? pose.parts.map((id) => piece.parts[id]) : [];
  const stroked = parts.find(({ stroke }) => stroke !== null)?.stroke;
  if (isShapeNumber(property)) {
    const number = shapeNumber(property);
    const source = parts.find((part) => part.source?.kind === number?.kind)?.source;
    return number && source && source.kind !== 'glyph' ? numbersOfShape(source, number) : leastNumbers(property);
  }
  if (property === 'strokeWidth')
    return stroked ? [stroked.width * placementScale(pose.placement)] : neutralOf(property);
  const paint = property === 'stroke' ? stroked?.paint : parts.find(({ fill }) => fill !== null)?.fill;
  return colourValue(paint) ?? neutralOf(property);
}

/** All that a figure can have a lane of: what poses have, and the numbers of its shapes. */
export const propertiesOf = (piece: Piece, figure: Figure): LaneProperty[] =>
  figure.poses.length > 0
    ? [...FIGURE_LANES, ...SHAPE_NUMBERS.keys()].filter((property) => canHave(piece, figure, property))
    : [];

/** Has a figure something that a lane of this property changes? Without an area there is no fill, without a stroke nothing to draw along it, without a shape no number. */
export function canHave({ poses, parts }: Piece, figure: Figure, property: LaneProperty): boolean {
  const all = figure.poses.flatMap((id) => poses[id].parts.map((part) => parts[part]));
  if (isShapeNumber(property)) return all.some(({ source }) => source?.kind === shapeNumber(property)?.kind);
  const { of, needs } = laneKind(property);
  return of === 'figure' && (needs === 'nothing' || all.some((part) => part[needs] !== null));
}

/** Of a shape that is not there: as near to nothing as it can be. */
const leastNumbers = (property: LaneProperty): number[] =>
  neutralOf(property).map((_, i) => Math.max(0, laneLimits(property, i)[0]));

/** Does the pose of a stop have something that a lane of this property changes? Without the shape whose number it is, a lane needs no key there. */
export function poseCanHave(
  { poses, parts }: Pick<Piece, 'poses' | 'parts'>,
  poseId: Id,
  property: LaneProperty,
): boolean {
  if (!isShapeNumber(property)) return true;
  const kind = shapeNumber(property)?.kind;
  return poses[poseId].parts.some((id) => parts[id].source?.kind === kind);
}

function colourValue(paint: Paint | null | undefined): readonly number[] | undefined {
  if (!paint) return undefined;
  const colour = readColour(isGradient(paint) ? paint.stops[0].colour : paint);
  return colour && [colour.r, colour.g, colour.b, colour.alpha];
}
