import { LIMITS, within } from '../../num';
import { type Outline, outlineBox, transformOutline } from '../../outline';
import { isGradient, type Paint, transformPaint } from '../../paint';
import type { SvgReading, SvgShape } from '../../svg';
import { boxSize, emptyBox, includeBox, isEmptyBox, type Matrix, multiply, scaling, translation } from '../../vec';
import { CONTOURS_OF_PART } from '../records';

/** A drawing further from the origin than this is moved to it, px: scaled up to a canvas it would leave the range of coordinates. */
const FAR = 100_000;
/** A drawing larger or smaller than this is brought to a usual size, px. */
const LARGEST = 100_000;
const SMALLEST = 0.01;
const USUAL = 1_000;
const WIDEST_STROKE = LIMITS.strokeWidth.max;

/**
 * A reading as it can be stored in a piece. Shapes with too many contours are left out, and strokes are narrowed to what is allowed. A drawing that
 * lies far away is moved. One that is far too large or small is scaled, all of it alike. What was done is told in the notes, with the names of shapes.
 */
export function storableReading(reading: SvgReading): SvgReading {
  const notes = [...reading.notes];
  const kept = reading.shapes.filter(({ name, outline }) => {
    const count = outline.contours.length;
    if (count <= CONTOURS_OF_PART) return true;
    notes.push(
      `“${name}” was left out: it has ${count.toLocaleString('en')} contours, at most ${CONTOURS_OF_PART.toLocaleString('en')} of one shape can be stored`,
    );
    return false;
  });
  const matrix = intoRange(kept, notes);
  const shapes = (matrix ? kept.map((shape) => mapShape(shape, matrix)) : kept).map((shape) =>
    limitStroke(shape, notes),
  );
  const [width, height] = [reading.width, reading.height].map((side) => within(LIMITS.canvasSide, side));
  return { ...reading, width, height, shapes, notes };
}

/** The move and even scaling that bring all shapes together into a usual place and size; undefined when they are there. */
function intoRange(shapes: readonly SvgShape[], notes: string[]): Matrix | undefined {
  const box = emptyBox();
  for (const { outline } of shapes) includeBox(box, outlineBox(outline));
  if (isEmptyBox(box)) return undefined;
  const size = boxSize(box);
  const away = Math.max(...[box.minX, box.minY, box.maxX, box.maxY].map(Math.abs));
  const resized = size > LARGEST || (size > 0 && size < SMALLEST);
  // A small drawing at large coordinates is far, wherever its size would be usual.
  if (!resized && !(away > FAR)) return undefined;
  const scale = resized ? USUAL / size : 1;
  if (resized)
    notes.push(`The drawing is ${readable(size)} px large; it was brought to ${USUAL} px, all its shapes alike`);
  else notes.push(`The drawing lies ${readable(away)} px away from the origin of its file; it was moved there`);
  return multiply(scaling(scale, scale), translation(-box.minX, -box.minY));
}

const readable = (length: number): string =>
  length >= 1 ? Math.round(length).toLocaleString('en') : String(Number(length.toPrecision(2)));

function mapShape(shape: SvgShape, matrix: Matrix): SvgShape {
  const scale = Math.abs(matrix[0]);
  const map = (outline: Outline): Outline => transformOutline(outline, matrix);
  const paint = (value: Paint | null): Paint | null => transformPaint(value, matrix);
  const { stroke } = shape;
  return {
    ...shape,
    outline: map(shape.outline),
    fill: paint(shape.fill),
    stroke: stroke && {
      ...stroke,
      paint: transformPaint(stroke.paint, matrix),
      width: stroke.width * scale,
      dash: stroke.dash.map((length) => length * scale),
      dashOffset: stroke.dashOffset * scale,
    },
    clips: shape.clips.map((clip) => clip.map(map)),
  };
}

/** Strokes and gradients within what can be stored. */
function limitStroke(shape: SvgShape, notes: string[]): SvgShape {
  const fill = limitPaint(shape.fill, shape.name, notes);
  const { stroke } = shape;
  if (!stroke) return fill === shape.fill ? shape : { ...shape, fill };
  const paint = limitPaint(stroke.paint, shape.name, notes) ?? stroke.paint;
  const tooWide = stroke.width > WIDEST_STROKE;
  if (tooWide)
    notes.push(
      `The stroke of “${shape.name}” is ${readable(stroke.width)} px wide; it was taken with ${WIDEST_STROKE.toLocaleString('en')} px`,
    );
  const dash = stroke.dash.map((length) => within(LIMITS.dash, length));
  const dashOffset = within(LIMITS.dashOffset, stroke.dashOffset);
  return {
    ...shape,
    fill,
    stroke: { ...stroke, paint, width: tooWide ? WIDEST_STROKE : stroke.width, dash, dashOffset },
  };
}

/** A gradient whose ends lie beyond all coordinates shows its last colour. */
function limitPaint(paint: Paint | null, name: string, notes: string[]): Paint | null {
  if (!isGradient(paint)) return paint;
  const places = paint.kind === 'linear' ? [...paint.from, ...paint.to] : [...paint.centre, ...paint.radii];
  if (places.every((v) => Math.abs(v) <= LIMITS.coordinate.max)) return paint;
  notes.push(`The gradient of “${name}” reaches beyond all coordinates; its last colour was taken`);
  return paint.stops[paint.stops.length - 1].colour;
}
