import { findCrossings } from '../morph';
import {
  type Contour,
  contourArea,
  type Outline,
  orientOutline,
  outlineBox,
  outlineSize,
  reverseContour,
} from '../outline';
import { coloursOf, isGradient, type Paint, readColour } from '../paint';
import type { SvgReading, SvgShape } from '../svg';
import { newPose } from './defaults';
import type { NewPose } from './edit';
import { type IdSource, recordOfContour } from './geometry';
import { CONTOURS_OF_PART } from './limits';
import type { Part } from './records';

/**
 * Turns a read SVG into one pose: shapes that follow each other in the same paint become one part where that changes nothing of the
 * picture, other shapes a part each. Coordinates stay those of the file; place the pose afterwards.
 */
export function poseFromSvg(reading: SvgReading, name: string, newId: IdSource): NewPose {
  const groups: SvgShape[] = [];
  for (const shape of reading.shapes) {
    const before = groups[groups.length - 1];
    const joined = before && joinShapes(before, shape);
    if (joined) groups[groups.length - 1] = joined;
    else groups.push(shape);
  }
  const parts = groups.map(
    (shape, i): Part => ({
      id: newId('p'),
      name: shape.name.slice(0, 200) || `Part ${i + 1}`,
      contours: shape.outline.contours.map((contour) => recordOfContour(contour, newId)),
      fillRule: shape.outline.fillRule,
      fill: shape.fill,
      stroke: shape.stroke,
    }),
  );
  return {
    pose: newPose(
      newId('q'),
      name.slice(0, 200) || 'Pose',
      parts.map(({ id }) => id),
    ),
    parts,
  };
}

/** Two shapes as one, or undefined where the picture would change or the paint differs. */
function joinShapes(a: SvgShape, b: SvgShape): SvgShape | undefined {
  if (!samePaint(a.fill, b.fill) || !sameStroke(a.stroke, b.stroke)) return undefined;
  if (a.outline.contours.length + b.outline.contours.length > CONTOURS_OF_PART) return undefined;
  const apart = boxesApart(a, b);
  const seeThrough = (paint: Paint | null | undefined): boolean =>
    coloursOf(paint ?? null).some((colour) => (readColour(colour)?.alpha ?? 1) < 1);
  if (!apart && ((a.fill && a.stroke) || seeThrough(a.fill) || seeThrough(a.stroke?.paint))) return undefined;
  if (a.fill === null)
    return { ...a, outline: { contours: [...a.outline.contours, ...b.outline.contours], fillRule: 'nonzero' } };
  const first = asNonzero(a.outline);
  const second = asNonzero(b.outline);
  if (!first || !second) return undefined;
  return { ...a, outline: { contours: [...first, ...second], fillRule: 'nonzero' } };
}

const sameStroke = (p: SvgShape['stroke'], q: SvgShape['stroke']): boolean =>
  p === q ||
  (p !== null &&
    q !== null &&
    samePaint(p.paint, q.paint) &&
    p.width === q.width &&
    p.cap === q.cap &&
    p.join === q.join &&
    p.miter === q.miter &&
    p.dashOffset === q.dashOffset &&
    p.dash.join() === q.dash.join());

const samePaint = (p: Paint | null, q: Paint | null): boolean =>
  p === q || (isGradient(p) && isGradient(q) && JSON.stringify(p) === JSON.stringify(q));

function boxesApart(a: SvgShape, b: SvgShape): boolean {
  const p = outlineBox(a.outline);
  const q = outlineBox(b.outline);
  const reach = (a.stroke?.width ?? 0) * 4;
  return p.maxX + reach < q.minX || q.maxX + reach < p.minX || p.maxY + reach < q.minY || q.maxY + reach < p.minY;
}

/** The contours for fill rule nonzero with the largest run clockwise, so that several outlines can be laid over each other. */
function asNonzero(outline: Outline): readonly Contour[] | undefined {
  if (outline.fillRule === 'evenodd') {
    const crossings = findCrossings(outline, 5e-4 * outlineSize(outline) || 1);
    if (crossings.self.length > 0 || crossings.between.length > 0) return undefined;
    return orientOutline(outline).outline.contours;
  }
  const areas = outline.contours.map((contour) => contourArea(contour));
  const largest = areas.reduce((best, area) => (Math.abs(area) > Math.abs(best) ? area : best), 0);
  // A second solid run the other way would cut a hole where it overlaps a neighbour.
  return largest < 0 ? outline.contours.map(reverseContour) : outline.contours;
}
