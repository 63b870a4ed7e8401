import { ease } from '../easing';
import { evaluate, type PlanContour } from '../morph';
import type { FillRule } from '../outline';
import { blendColour } from '../paint';
import type { CompiledPiece, FigureSpan } from './compile';
import type { PartPlan } from './part-plans';

/** A part as it is drawn at a moment. Written anew by every sampling of the same frame. */
export interface FramePart {
  readonly plan: PartPlan;
  readonly contours: readonly PlanContour[];
  readonly fillRule: FillRule;
  /** x, y in px; the contours tell which numbers are whose. */
  readonly points: Float64Array;
  /** r, g, b, alpha in 0..1; alpha 0 draws nothing. */
  readonly fill: Float64Array;
  readonly stroke: Float64Array;
  strokeWidth: number;
  cap: 'butt' | 'round' | 'square';
  join: 'miter' | 'round' | 'bevel';
  /** Progress of the shift that draws it. */
  progress: number;
}

/** The picture of a piece at a time. */
export interface Frame {
  seconds: number;
  /** For each figure, lowest first, its parts in painting order. */
  readonly figures: { readonly id: string; parts: readonly FramePart[] }[];
  /** Prepared parts by the span that they belong to. */
  readonly prepared: ReadonlyMap<FigureSpan, readonly FramePart[]>;
}

/** Memory for sampling a compiled piece again and again without allocating. */
export function prepareFrame(compiled: CompiledPiece): Frame {
  const prepared = new Map<FigureSpan, FramePart[]>();
  for (const figure of compiled.figures) {
    for (const span of figure.spans) prepared.set(span, span.parts.map(preparePart));
  }
  return { seconds: 0, figures: compiled.figures.map(({ id }) => ({ id, parts: [] })), prepared };
}

const preparePart = (plan: PartPlan): FramePart => ({
  plan,
  contours: plan.plan.contours,
  fillRule: plan.plan.fillRule,
  points: new Float64Array(plan.plan.from.length),
  fill: new Float64Array(4),
  stroke: new Float64Array(4),
  strokeWidth: 0,
  cap: 'butt',
  join: 'miter',
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
  if (fill) blendColour(fill, progress, part.fill);
  if (!stroke) return;
  blendColour(stroke.colour, progress, part.stroke);
  const side = progress < 0.5 ? 0 : 1;
  part.strokeWidth = Math.max(0, stroke.widths[0] + (stroke.widths[1] - stroke.widths[0]) * progress);
  part.cap = stroke.caps[side];
  part.join = stroke.joins[side];
}

/** Is the contour a mere point at this progress? Then it is not drawn, stroke caps included. */
export const isVanished = (contour: PlanContour, progress: number): boolean =>
  (contour.role === 'birth' && progress <= 0) || (contour.role === 'death' && progress >= 1);
