import { ease } from '../easing';
import { evaluate, type PlanContour } from '../morph';
import type { FillRule } from '../outline';
import {
  blendColour,
  type GradientSample,
  isGradientBlend,
  type PaintBlend,
  prepareGradient,
  sampleGradient,
} from '../paint';
import type { CompiledPiece, FigureSpan } from './compile';
import type { PartPlan } from './part-paint';

/** A part as it is drawn at a moment. Written anew by every sampling of the same frame. */
export interface FramePart {
  readonly plan: PartPlan;
  readonly contours: readonly PlanContour[];
  readonly fillRule: FillRule;
  /** x, y in px; the contours tell which numbers are whose. */
  readonly points: Float64Array;
  /** r, g, b, alpha in 0..1; alpha 0 draws nothing. Not used where there is a gradient. */
  readonly fill: Float64Array;
  readonly fillGradient: GradientSample | null;
  readonly stroke: Float64Array;
  readonly strokeGradient: GradientSample | null;
  strokeWidth: number;
  cap: 'butt' | 'round' | 'square';
  join: 'miter' | 'round' | 'bevel';
  miter: number;
  readonly dash: number[];
  dashOffset: number;
  /** Progress of the shift that draws it. */
  progress: number;
}

/** A figure at a moment. */
export interface FrameFigure {
  readonly id: string;
  parts: readonly FramePart[];
  readonly opacity: number;
  readonly hidden: boolean;
  /** Index of the figure inside which it is seen, or −1. */
  readonly clip: number;
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
  const figures = compiled.figures.map(({ id, opacity, hidden, clip }): FrameFigure => {
    return { id, parts: [], opacity, hidden, clip };
  });
  return { seconds: 0, figures, prepared };
}

const gradientOf = (blend: PaintBlend | null | undefined): GradientSample | null =>
  blend && isGradientBlend(blend) ? prepareGradient(blend) : null;

const preparePart = (plan: PartPlan): FramePart => ({
  plan,
  contours: plan.plan.contours,
  fillRule: plan.plan.fillRule,
  points: new Float64Array(plan.plan.from.length),
  fill: new Float64Array(4),
  fillGradient: gradientOf(plan.fill),
  stroke: new Float64Array(4),
  strokeGradient: gradientOf(plan.stroke?.paint),
  strokeWidth: 0,
  cap: 'butt',
  join: 'miter',
  miter: 4,
  dash: plan.stroke ? [...plan.stroke.dashes[0]] : [],
  dashOffset: 0,
  progress: NaN,
});

/** Time within one run: wrapped when the piece loops, held at the ends otherwise. A loop's end is its beginning. */
export function runTime(compiled: CompiledPiece, seconds: number): number {
  const { duration, loop } = compiled;
  if (!(duration > 0)) return 0;
  if (loop) return seconds - Math.floor(seconds / duration) * duration;
  return Math.min(duration, Math.max(0, seconds));
}

/** Eased progress of a span at a time: 0 during its hold. */
export function spanProgress(span: FigureSpan, seconds: number): number {
  if (seconds <= span.holdEnd) return 0;
  const duration = span.end - span.holdEnd;
  return duration > 0 ? ease(span.easing, (seconds - span.holdEnd) / duration) : 1;
}

/** Writes the picture at `seconds` into `frame` (made by `prepareFrame` for the same piece) and returns it. Allocates nothing. */
export function sampleFrame(compiled: CompiledPiece, seconds: number, frame: Frame): Frame {
  const time = runTime(compiled, seconds);
  frame.seconds = time;
  for (let f = 0; f < compiled.figures.length; f++) {
    const { spans } = compiled.figures[f];
    if (spans.length === 0) continue;
    let k = 0;
    while (k < spans.length - 1 && time >= spans[k].end) k++;
    const span = spans[k];
    const parts = frame.prepared.get(span) ?? [];
    const progress = spanProgress(span, time);
    for (let i = 0; i < parts.length; i++) samplePart(parts[i], progress);
    frame.figures[f].parts = parts;
  }
  return frame;
}

function samplePart(part: FramePart, progress: number): void {
  if (part.progress === progress) return;
  part.progress = progress;
  const { plan, fill, stroke } = part.plan;
  evaluate(plan, progress, part.points);
  if (fill) samplePaint(fill, progress, part.fill, part.fillGradient);
  if (!stroke) return;
  samplePaint(stroke.paint, progress, part.stroke, part.strokeGradient);
  const way = progress > 0 ? Math.min(1, progress) : 0;
  const [dashA, dashB] = stroke.dashes;
  for (let i = 0; i < dashA.length; i++) part.dash[i] = dashA[i] + (dashB[i] - dashA[i]) * way;
  part.dashOffset = stroke.dashOffsets[0] + (stroke.dashOffsets[1] - stroke.dashOffsets[0]) * way;
  part.miter = stroke.miters[0] + (stroke.miters[1] - stroke.miters[0]) * way;
  const side = progress < 0.5 ? 0 : 1;
  part.strokeWidth = Math.max(0, stroke.widths[0] + (stroke.widths[1] - stroke.widths[0]) * progress);
  part.cap = stroke.caps[side];
  part.join = stroke.joins[side];
}

function samplePaint(blend: PaintBlend, progress: number, out: Float64Array, gradient: GradientSample | null): void {
  if (!isGradientBlend(blend)) blendColour(blend, progress, out);
  else if (gradient) sampleGradient(blend, progress, gradient);
}

/** The parts of a pose standing still, to be drawn or written over by a gesture: each contour's points in their record's order. */
export function stillParts(plans: readonly PartPlan[]): FramePart[] {
  const parts = plans.map(preparePart);
  for (const part of parts) samplePart(part, 0);
  return parts;
}

/** Is the contour a mere point at this progress? Then it is not drawn, stroke caps included. */
export const isVanished = (contour: PlanContour, progress: number): boolean =>
  (contour.role === 'appears' && progress <= 0) || (contour.role === 'vanishes' && progress >= 1);
