import {
  type GradientSample,
  type Lane,
  type PaintLanes,
  prepareGradient,
  STROKE_PROPERTIES,
  type StrokeProperty,
  sampleGradient,
} from '../lane';
import type { PlanContour } from '../morph';
import type { FillRule } from '../outline';
import type { Part, Placement } from '../piece';
import { type CompiledPiece, type FigureSpan, stillLanes } from './compile';
import type { PartLanes } from './part-lanes';

/** A paint at a moment. */
export interface PaintSample {
  /** r, g, b, alpha in 0..1; alpha 0 draws nothing. Not used where there is a gradient. */
  readonly colour: Float64Array;
  readonly gradient: GradientSample | null;
}

/** A stroke at a moment; each property in the numbers of its lane. */
export interface StrokeSample {
  readonly paint: PaintSample;
  readonly values: Readonly<Record<StrokeProperty, Float64Array>>;
}

/** A part as it is drawn at a moment. Written anew by every sampling of the same frame. */
export interface FramePart {
  readonly lanes: PartLanes;
  readonly contours: readonly PlanContour[];
  readonly fillRule: FillRule;
  /** x, y in px; the contours tell which numbers are whose. */
  readonly points: Float64Array;
  readonly fill: PaintSample | null;
  readonly stroke: StrokeSample | null;
  /** Progress of the shift that draws it. */
  progress: number;
}

/** A figure at a moment. */
export interface FrameFigure {
  readonly id: string;
  parts: readonly FramePart[];
  /** One number, 0 to 1. */
  readonly opacity: Float64Array;
  readonly hidden: boolean;
  /** Index of the figure inside which it is seen, or −1. */
  readonly clip: number;
  /** Index of the span that it is in. */
  span: number;
}

/** The picture of a piece at a time. */
export interface Frame {
  seconds: number;
  /** For each figure, lowest first, its parts in painting order. */
  readonly figures: FrameFigure[];
  /** Prepared parts by the span that they belong to. */
  readonly prepared: ReadonlyMap<FigureSpan, readonly FramePart[]>;
}

/** Memory for sampling a compiled piece again and again without allocating. */
export function prepareFrame(compiled: CompiledPiece): Frame {
  const prepared = new Map<FigureSpan, FramePart[]>();
  for (const figure of compiled.figures) {
    for (const span of figure.spans) prepared.set(span, span.parts.map(preparePart));
  }
  const figures = compiled.figures.map(({ id, hidden, clip }): FrameFigure => {
    return { id, parts: [], opacity: new Float64Array(1), hidden, clip, span: 0 };
  });
  return { seconds: 0, figures, prepared };
}

const preparePaint = (lanes: PaintLanes): PaintSample => ({
  colour: new Float64Array(4),
  gradient: lanes.kind === 'gradient' ? prepareGradient(lanes) : null,
});

const valuesOf = (lanes: Readonly<Record<StrokeProperty, Lane>>): Record<StrokeProperty, Float64Array> =>
  Object.fromEntries(STROKE_PROPERTIES.map((id) => [id, new Float64Array(lanes[id].size)])) as Record<
    StrokeProperty,
    Float64Array
  >;

const preparePart = (lanes: PartLanes): FramePart => ({
  lanes,
  contours: lanes.plan.contours,
  fillRule: lanes.plan.fillRule,
  points: new Float64Array(lanes.plan.from.length),
  fill: lanes.fill && preparePaint(lanes.fill),
  stroke: lanes.stroke && { paint: preparePaint(lanes.stroke.paint), values: valuesOf(lanes.stroke.properties) },
  progress: Number.NaN,
});

/** Time within one run: wrapped when the piece loops, held at the ends otherwise. A loop's end is its beginning. */
export function runTime(compiled: CompiledPiece, seconds: number): number {
  const { duration, loop } = compiled;
  if (!(duration > 0)) return 0;
  if (loop) return seconds - Math.floor(seconds / duration) * duration;
  return Math.min(duration, Math.max(0, seconds));
}

/** Writes the picture at `seconds` into `frame` (made by `prepareFrame` for the same piece) and returns it. Allocates nothing. */
export function sampleFrame(compiled: CompiledPiece, seconds: number, frame: Frame): Frame {
  const time = runTime(compiled, seconds);
  frame.seconds = time;
  for (let f = 0; f < compiled.figures.length; f++) {
    const { spans, opacity } = compiled.figures[f];
    const figure = frame.figures[f];
    opacity.sample(time, figure.opacity);
    if (spans.length === 0) continue;
    // Playing goes on from where it was.
    if (time < spans[figure.span].start) figure.span = 0;
    while (figure.span < spans.length - 1 && time >= spans[figure.span].end) figure.span++;
    const span = spans[figure.span];
    const parts = frame.prepared.get(span) as readonly FramePart[];
    for (let i = 0; i < parts.length; i++) samplePart(parts[i], time);
    figure.parts = parts;
  }
  return frame;
}

function samplePart(part: FramePart, seconds: number): void {
  const { time, outline, fill, stroke } = part.lanes;
  const progress = time.progressAt(seconds);
  // All lanes of a part run by one time: at the same progress everything is as it was.
  if (part.progress === progress) return;
  part.progress = progress;
  outline.sample(seconds, part.points);
  if (fill && part.fill) samplePaint(fill, seconds, part.fill);
  if (!stroke || !part.stroke) return;
  samplePaint(stroke.paint, seconds, part.stroke.paint);
  for (let i = 0; i < STROKE_PROPERTIES.length; i++) {
    const id = STROKE_PROPERTIES[i];
    stroke.properties[id].sample(seconds, part.stroke.values[id]);
  }
}

function samplePaint(lanes: PaintLanes, seconds: number, out: PaintSample): void {
  if (lanes.kind === 'colour') lanes.colour.sample(seconds, out.colour);
  else if (out.gradient) sampleGradient(lanes, seconds, out.gradient);
}

/** Parts standing still, to be drawn or written over by a gesture: each contour's points in their record's order. */
export function stillParts(placement: Placement, parts: readonly Part[]): FramePart[] {
  const still = stillLanes(placement, parts).map(preparePart);
  for (const part of still) samplePart(part, 0);
  return still;
}

/** Is the contour a mere point at this progress? Then it is not drawn, stroke caps included. */
export const isVanished = (contour: PlanContour, progress: number): boolean =>
  (contour.role === 'appears' && progress <= contour.begin) || (contour.role === 'vanishes' && progress >= contour.end);
