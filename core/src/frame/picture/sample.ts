import {
  type Lane,
  type PaintLanes,
  prepareGradient,
  STROKE_PROPERTIES,
  type StrokeProperty,
  sampleGradient,
} from '../../lane';
import type { PlanContour } from '../../morph';
import { SAME_TIME_S } from '../../num';
import type { FillRule } from '../../outline';
import type { Part, Placement } from '../../piece';
import type { CompiledPiece, FigureSpan, PaintSample, PartLanes } from '../lanes';
import {
  type MotionSample,
  type OverSample,
  prepareMotion,
  prepareOver,
  sampleMotion,
  sampleOver,
  stillLanes,
} from '../lanes';

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
  /** x, y in px; the contours tell which numbers are whose. Read only, but of `stillParts`. */
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
  /** Moves, turns and scales all of it; null where it does not move. Not in the parts' points. */
  readonly motion: MotionSample | null;
  /** One number, 0 to 1. */
  readonly opacity: Float64Array;
  /** What its lanes put in place of its parts' paint; null where nothing. */
  readonly over: OverSample | null;
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
  /** The background as red, green, blue and alpha, 0 to 1; null where it never changes. */
  readonly ground: Float64Array | null;
  /** Prepared parts by the span that they belong to; a span is prepared when it is first seen. */
  readonly prepared: Map<FigureSpan, readonly FramePart[]>;
}

/** Memory for sampling a compiled piece again and again; only the first sight of a span allocates. */
export function prepareFrame(compiled: CompiledPiece): Frame {
  const figures = compiled.figures.map(({ id, hidden, clip, motion, over }): FrameFigure => {
    return {
      id,
      parts: [],
      motion: motion && prepareMotion(motion),
      opacity: new Float64Array(1),
      over: over && prepareOver(over),
      hidden,
      clip,
      span: 0,
    };
  });
  return { seconds: 0, figures, ground: compiled.ground ? new Float64Array(4) : null, prepared: new Map() };
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

/** What never moves is shown by its plan's own points. */
const preparePart = (lanes: PartLanes): FramePart =>
  preparePartIn(lanes, isStill(lanes) ? lanes.plan.from : new Float64Array(lanes.plan.from.length));

const isStill = ({ plan }: PartLanes): boolean => plan.from === plan.to;

const preparePartIn = (lanes: PartLanes, points: Float64Array): FramePart => ({
  lanes,
  contours: lanes.plan.contours,
  fillRule: lanes.plan.fillRule,
  points,
  fill: lanes.fill && preparePaint(lanes.fill),
  stroke: lanes.stroke && { paint: preparePaint(lanes.stroke.paint), values: valuesOf(lanes.stroke.properties) },
  progress: Number.NaN,
});

/**
 * When of a run something is seen: wrapped where it plays again, turned round where it goes back, held at the ends otherwise. The end of what plays again is its
 * beginning.
 */
export function runTime({ duration, playback, stretch }: RunTimes, seconds: number): number {
  if (!(duration > 0)) return 0;
  const wrapped = (time: number, round: number): number => time - Math.floor(time / round) * round;
  if (playback === 'loop') return wrapped(seconds, duration);
  if (playback === 'back') {
    const time = wrapped(seconds, 2 * duration);
    return time <= duration ? time : 2 * duration - time;
  }
  const [from, until] = stretch;
  if (playback === 'stretch' && seconds >= until) return from + wrapped(seconds - from, until - from);
  return Math.min(duration, Math.max(0, seconds));
}

/** How a piece plays. */
export type RunTimes = Pick<CompiledPiece, 'duration' | 'playback' | 'stretch'>;

/** How long a piece plays before it comes to a picture again, or stops, s: there and back takes twice as long. */
export const runLength = ({ duration, playback, stretch }: RunTimes): number =>
  playback === 'back' ? 2 * duration : playback === 'stretch' ? stretch[1] : duration;

const NOTHING: readonly FramePart[] = [];

/** Writes the picture at `seconds` into `frame` (made by `prepareFrame` for the same piece) and returns it. Allocates nothing but at the first sight of a span. */
export function sampleFrame(compiled: CompiledPiece, seconds: number, frame: Frame): Frame {
  const time = runTime(compiled, seconds);
  frame.seconds = time;
  if (compiled.ground && frame.ground) compiled.ground.sample(time, frame.ground);
  for (let f = 0; f < compiled.figures.length; f++) {
    const { spans, motion, opacity, over, from, until } = compiled.figures[f];
    const figure = frame.figures[f];
    opacity.sample(time, figure.opacity);
    if (over && figure.over) sampleOver(over, time, figure.over);
    if (motion && figure.motion) sampleMotion(motion, time, figure.motion);
    if (spans.length === 0) continue;
    if (time < from - SAME_TIME_S || time >= until - SAME_TIME_S) {
      figure.parts = NOTHING;
      continue;
    }
    figure.span = spanAt(spans, time, figure.span);
    const span = spans[figure.span];
    const parts = partsOf(frame, span);
    for (let i = 0; i < parts.length; i++) samplePart(parts[i], time);
    figure.parts = parts;
  }
  return frame;
}

/** The index of the span that shows a figure at a time within one run; looked for from `from` on, since playing goes on from where it was. */
function spanAt(spans: readonly FigureSpan[], time: number, from: number): number {
  let at = time < spans[from].start ? 0 : from;
  while (at < spans.length - 1 && time >= spans[at].end) at++;
  return at;
}

/**
 * Lays out what the picture at `seconds` needs, until it is all there or `isLate` says so; tells whether it is. For pieces of thousands of parts, which are
 * laid out in several steps.
 */
export function layOutAt(compiled: CompiledPiece, seconds: number, isLate: () => boolean): boolean {
  const time = runTime(compiled, seconds);
  return compiled.figures.every(({ spans }) => spans.length === 0 || spans[spanAt(spans, time, 0)].layOut(isLate));
}

/** Lays out everything, in the same way. */
export const layOutAll = ({ figures }: CompiledPiece, isLate: () => boolean): boolean =>
  figures.every(({ spans }) => spans.every((span) => span.layOut(isLate)));

function partsOf(frame: Frame, span: FigureSpan): readonly FramePart[] {
  let parts = frame.prepared.get(span);
  if (!parts) {
    parts = span.parts.map(preparePart);
    frame.prepared.set(span, parts);
  }
  return parts;
}

function samplePart(part: FramePart, seconds: number): void {
  const { time, outline, fill, stroke } = part.lanes;
  const progress = time.progressAt(seconds);
  // All lanes of a part run by one time: at the same progress everything is as it was.
  const same = part.progress === progress;
  if (same && !part.lanes.byLanes) return;
  part.progress = progress;
  if (part.points !== part.lanes.plan.from) outline.sample(seconds, part.points);
  if (same) return;
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
  const still = stillLanes(placement, parts).map((lanes) => preparePartIn(lanes, lanes.plan.from.slice()));
  for (const part of still) samplePart(part, 0);
  return still;
}

/** Is the contour a mere point at this progress? Then it is not drawn, stroke caps included. */
export const isVanished = (contour: PlanContour, progress: number): boolean =>
  (contour.role === 'appears' && progress <= contour.begin) || (contour.role === 'vanishes' && progress >= contour.end);
