import {
  type CompiledPiece,
  type Frame,
  type FramePart,
  isVanished,
  motionMatrix,
  type PaintSample,
} from '../../frame';
import { drawnShare } from '../../lane';
import { flattenContour, type Outline } from '../../outline';
import { IDENTITY, type Matrix, transformPoints } from '../../vec';

/** Something that is painted in a picture: an area or a line, as points, in its colours. */
export interface Painted {
  readonly kind: 'fill' | 'stroke';
  /** Points of each contour, x and y in turn, px of the canvas; a closed one ends where it begins. */
  readonly lines: readonly Float64Array[];
  /** Red, green, blue and alpha, 0 to 1: one colour, or those of a gradient's stops. */
  readonly colours: readonly (readonly number[])[];
  /** Is it perhaps only a part of its outline? Dashes, drawn parts, and lines without slits are. */
  readonly partly: boolean;
}

/** Flattened this exactly, px. */
const FLAT_PX = 0.01;

/** Outlines as points under a map. */
export function linesOf(outline: Outline, matrix: Matrix): Float64Array[] {
  return outline.contours.map(({ points, closed }) => {
    const flat = flattenContour(
      { points: transformPoints(matrix, points, new Float64Array(points.length)), closed },
      FLAT_PX,
    );
    return Float64Array.from(closed ? [...flat, flat[0], flat[1]] : flat);
  });
}

/** Everything that a frame paints, in painting order. */
export function paintedOfFrame({ figures }: Pick<Frame, 'figures'>): Painted[] {
  return figures.flatMap((figure) => {
    const { parts, motion, over, hidden } = figure;
    const opacity = figure.opacity[0];
    if (hidden || !(opacity > 0)) return [];
    const matrix = motion ? motionMatrix(motion) : IDENTITY;
    return parts.flatMap((part): Painted[] => {
      const outline = outlineOfPart(part);
      if (outline.contours.length === 0) return [];
      const lines = linesOf(outline, matrix);
      const { fill, stroke } = part;
      const bridged = part.contours.some(({ bridgesA, bridgesB }) => bridgesA.length + bridgesB.length > 0);
      const fillPaint = fill && (over?.fill ?? fill);
      const strokePaint = stroke && (over?.stroke ?? stroke.paint);
      const width = stroke ? (over?.strokeWidth ?? stroke.values.strokeWidth)[0] : 0;
      const shown = over?.drawn ? drawnShare(over.drawn) : 1;
      return [
        ...painted('fill', lines, fillPaint, opacity, false),
        ...(width > 0 && shown > 0
          ? painted('stroke', lines, strokePaint, opacity, bridged || over?.drawn != null)
          : []),
      ];
    });
  });
}

function painted(
  kind: Painted['kind'],
  lines: readonly Float64Array[],
  paint: PaintSample | null,
  opacity: number,
  partly: boolean,
): Painted[] {
  if (!paint) return [];
  const { colour, gradient } = paint;
  const colours = gradient
    ? Array.from(gradient.at, (_, i) => Array.from(gradient.colours.subarray(4 * i, 4 * i + 4)))
    : [Array.from(colour)];
  if (!gradient && !(colour[3] > 0)) return [];
  return [{ kind, lines, colours: colours.map(([r, g, b, alpha]) => [r, g, b, alpha * opacity]), partly }];
}

function outlineOfPart({ contours, points, progress, fillRule }: FramePart): Outline {
  return {
    fillRule,
    contours: contours
      .filter((contour) => !isVanished(contour, progress))
      .map(({ at, segments, closed }) => ({ points: points.slice(at, at + 6 * segments + 2), closed })),
  };
}

/** When a file is compared, s: frames of one run, spread over it, neither the first nor the one in the middle among them. */
export const proofTimes = (
  { duration, rate }: Pick<CompiledPiece, 'duration' | 'rate'>,
  length: number,
  count = 10,
): number[] =>
  duration > 0
    ? Array.from({ length: count }, (_, i) => Math.floor((rate * length * (i + 0.37)) / count + 1e-9) / rate)
    : [0];
