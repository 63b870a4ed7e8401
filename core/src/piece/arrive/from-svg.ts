import { findCrossings } from '../../morph';
import {
  type Contour,
  closeContour,
  contourArea,
  type FillRule,
  type Outline,
  orientOutline,
  outlineBox,
  outlineSize,
  reverseContour,
} from '../../outline';
import { coloursOf, isGradient, type Paint, readColour } from '../../paint';
import type { SvgReading, SvgShape } from '../../svg';
import { type Box, includeBox } from '../../vec';
import type { NewPose } from '../edit';
import type { Part } from '../records';
import { CONTOURS_OF_PART, type IdSource, newPose, recordOfContour } from '../records';

/**
 * Turns a read SVG into one pose: shapes that follow each other in the same paint become one part where that changes nothing of the
 * picture, other shapes a part each. Coordinates stay those of the file; place the pose afterwards.
 */
export function poseFromSvg(reading: SvgReading, name: string, newId: IdSource): NewPose {
  const groups: JoinedShapes[] = [];
  for (const shape of reading.shapes.flatMap(asAreas)) {
    const last = groups[groups.length - 1];
    if (!last || !joinShape(last, shape)) groups.push(alone(shape));
  }
  const parts = groups.map(
    ({ shape, contours, fillRule }, i): Part => ({
      id: newId('p'),
      name: shape.name.slice(0, 200) || `Part ${i + 1}`,
      contours: contours.map((contour) => recordOfContour(contour, newId)),
      fillRule,
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

/** Ends that are nearer than this share of the size are one point. */
const SAME_END_REL = 1e-4;

/**
 * A shape as it is seen: filling closes its open contours (SVG 2, 13.4: subpaths are filled as if they were closed), so they are areas. What is stroked as well is divided
 * into the area and, over it, the stroke along the contours as they were drawn. Lines that enclose nothing stay lines.
 */
function asAreas(shape: SvgShape): readonly SvgShape[] {
  const { outline, fill, stroke } = shape;
  const least = 1e-9 * outlineSize(outline) ** 2;
  const area = (contour: Contour): boolean => !contour.closed && Math.abs(contourArea(contour)) > least;
  if (fill === null || !outline.contours.some(area)) return [shape];
  const merge = SAME_END_REL * outlineSize(outline);
  const contours = outline.contours.map((contour) => (area(contour) ? closeContour(contour, merge) : contour));
  const filled = { ...shape, outline: { ...outline, contours }, stroke: null };
  return stroke ? [filled, { ...shape, fill: null }] : [filled];
}

/** Shapes that have become one so far. */
interface JoinedShapes {
  /** The first of them: name and paint. */
  readonly shape: SvgShape;
  readonly contours: Contour[];
  fillRule: FillRule;
  /** What they cover together, px. */
  readonly box: Box;
  /** Are the contours as they can be laid over others? */
  ready: boolean;
}

const alone = (shape: SvgShape): JoinedShapes => ({
  shape,
  contours: [...shape.outline.contours],
  fillRule: shape.outline.fillRule,
  box: outlineBox(shape.outline),
  ready: false,
});

/** Adds a shape to others; false where the picture would change, the paint differs, or there would be too many contours. */
function joinShape(joined: JoinedShapes, next: SvgShape): boolean {
  const { shape, contours } = joined;
  if (!samePaint(shape.fill, next.fill) || !sameStroke(shape.stroke, next.stroke)) return false;
  if (contours.length + next.outline.contours.length > CONTOURS_OF_PART) return false;
  const box = outlineBox(next.outline);
  const apart = boxesApart(joined.box, box, 4 * (shape.stroke?.width ?? 0));
  const seeThrough = (paint: Paint | null | undefined): boolean =>
    coloursOf(paint ?? null).some((colour) => (readColour(colour)?.alpha ?? 1) < 1);
  if (!apart && ((shape.fill && shape.stroke) || seeThrough(shape.fill) || seeThrough(shape.stroke?.paint)))
    return false;
  let added: readonly Contour[] | undefined = next.outline.contours;
  if (shape.fill !== null) {
    added = asNonzero(next.outline);
    const own = joined.ready ? contours : asNonzero(shape.outline);
    if (!added || !own) return false;
    if (!joined.ready) contours.splice(0, contours.length, ...own);
  }
  joined.ready = true;
  joined.fillRule = 'nonzero';
  contours.push(...added);
  includeBox(joined.box, box);
  return true;
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

const boxesApart = (p: Box, q: Box, reach: number): boolean =>
  p.maxX + reach < q.minX || q.maxX + reach < p.minX || p.maxY + reach < q.minY || q.maxY + reach < p.minY;

/** The contours for fill rule nonzero with the largest run clockwise, so that several outlines can be laid over each other. */
function asNonzero(outline: Outline): readonly Contour[] | undefined {
  if (outline.fillRule === 'evenodd') {
    const crossings = findCrossings(outline, 5e-4 * outlineSize(outline) || 1, 1);
    if (crossings.self.length > 0 || crossings.between.length > 0) return undefined;
    return orientOutline(outline).outline.contours;
  }
  const areas = outline.contours.map((contour) => contourArea(contour));
  const largest = areas.reduce((best, area) => (Math.abs(area) > Math.abs(best) ? area : best), 0);
  // A second solid run the other way would cut a hole where it overlaps a neighbour.
  return largest < 0 ? outline.contours.map(reverseContour) : outline.contours;
}
