import { isGradient, type Paint, readColour } from '../paint';
import { placementScale } from './geometry';
import { NEUTRAL } from './lanes';
import { stopsOf } from './rail';
import type { Figure, Id, LaneProperty, Part, Piece } from './records';

/**
 * What a figure, or the canvas, has of a property by itself at a stop: what a lane that stands in its place begins with. Of several parts the lowest that has it
 * counts, of a gradient its first colour.
 */
export function ownValue(piece: Piece, figureId: Id | null, property: LaneProperty, stop: number): readonly number[] {
  if (figureId === null) return colourValue(piece.canvas.background) ?? NEUTRAL[property];
  const figure = piece.figures[figureId];
  const pose = piece.poses[stopsOf(piece, figure)[stop]];
  const parts: Part[] = pose ? pose.parts.map((id) => piece.parts[id]) : [];
  const stroked = parts.find(({ stroke }) => stroke !== null)?.stroke;
  if (property === 'strokeWidth') return stroked ? [stroked.width * placementScale(pose.placement)] : NEUTRAL[property];
  const paint = property === 'stroke' ? stroked?.paint : parts.find(({ fill }) => fill !== null)?.fill;
  return colourValue(paint) ?? NEUTRAL[property];
}

/** Has a figure something that a lane of this property changes? Without an area there is no fill, without a stroke nothing to draw along it. */
export function canHave({ poses, parts }: Piece, figure: Figure, property: LaneProperty): boolean {
  const all = figure.poses.flatMap((id) => poses[id].parts.map((part) => parts[part]));
  if (property === 'fill') return all.some(({ fill }) => fill !== null);
  if (property === 'stroke' || property === 'strokeWidth' || property === 'drawn')
    return all.some(({ stroke }) => stroke !== null);
  return property !== 'background';
}

function colourValue(paint: Paint | null | undefined): readonly number[] | undefined {
  if (!paint) return undefined;
  const colour = readColour(isGradient(paint) ? paint.stops[0].colour : paint);
  return colour && [colour.r, colour.g, colour.b, colour.alpha];
}
