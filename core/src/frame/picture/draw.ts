import { cubicLength } from '../../curve';
import { DRAWN_ROUND, drawnOffset, drawnShare, type GradientSample, PROPERTIES, STROKE_PROPERTIES } from '../../lane';
import { cssText, type DrawTarget, type Layer, type TargetGradient } from '../../paint';
import type { OverSample, PaintSample } from '../lanes';
import { applyMotion, type MotionSample } from '../lanes';
import { type Frame, type FrameFigure, type FramePart, isVanished, type StrokeSample } from './sample';

/** The part of a target that outlines are traced on. */
export type OutlineSink = Pick<DrawTarget, 'moveTo' | 'bezierCurveTo' | 'closePath'>;

const INSIDE: Layer = { opacity: 1, mode: 'inside' };
const WHOLE: Layer = { opacity: 1, mode: 'over' };
const NO_DASH: number[] = [];

/**
 * Draws all figures of a frame, lowest first, in canvas px. The background is the caller's. `fade` thins figures out while drawing. What a
 * half-opaque figure paints is put together first and then laid over the rest as one.
 */
export function drawFrame(
  frame: Pick<Frame, 'figures'>,
  target: DrawTarget,
  fade?: (figureId: string) => number,
): void {
  for (let f = 0; f < frame.figures.length; f++) {
    const figure = frame.figures[f];
    const opacity = figure.opacity[0] * (fade?.(figure.id) ?? 1);
    if (figure.hidden || !(opacity > 0)) continue;
    const softness = figure.over?.softness?.[0] ?? 0;
    // One painted area, or one stroke, can be thinned by itself; several must not show through each other.
    const layered = softness > 0 || (opacity < 1 && paintCount(figure) > 1);
    const clips = figure.clip >= 0;
    const masked = clips && needsMask(frame, figure);
    if (clips || opacity < 1) target.save();
    if (clips) clipByPaths(frame, figure, target);
    // What is soft is soft before it is clipped.
    if (masked) target.beginLayer(WHOLE);
    if (layered) target.beginLayer({ opacity, mode: 'over', softness });
    else if (opacity < 1) target.globalAlpha = opacity;
    if (figure.motion) {
      target.save();
      applyMotion(figure.motion, target);
    }
    for (let i = 0; i < figure.parts.length; i++) drawPart(figure.parts[i], target, figure.over);
    if (figure.motion) target.restore();
    if (layered) target.endLayer();
    if (masked) {
      maskByFigures(frame, figure, target);
      target.endLayer();
    }
    if (clips || opacity < 1) target.restore();
  }
}

/** How many areas and strokes a figure paints, up to 2. */
function paintCount({ parts }: FrameFigure): number {
  let count = 0;
  for (let i = 0; i < parts.length && count < 2; i++) count += (parts[i].fill ? 1 : 0) + (parts[i].stroke ? 1 : 0);
  return count;
}

/** Does a figure of the chain consist of several parts? Their areas together are no one path: each has a fill rule of its own. */
function needsMask(frame: Pick<Frame, 'figures'>, figure: FrameFigure): boolean {
  for (let c = figure.clip, depth = 0; c >= 0 && depth < frame.figures.length; c = frame.figures[c].clip, depth++)
    if (frame.figures[c].parts.length !== 1) return true;
  return false;
}

/** Clips to every figure of the chain that is one part. */
function clipByPaths(frame: Pick<Frame, 'figures'>, figure: FrameFigure, target: DrawTarget): void {
  for (let c = figure.clip, depth = 0; c >= 0 && depth < frame.figures.length; c = frame.figures[c].clip, depth++) {
    const { parts, motion } = frame.figures[c];
    if (parts.length !== 1) continue;
    target.beginPath();
    traceMoved(parts[0], motion, target);
    target.clip(parts[0].fillRule);
  }
}

/** Leaves of the layer what lies inside the filled areas of every figure of the chain that is several parts, all its areas together. */
function maskByFigures(frame: Pick<Frame, 'figures'>, figure: FrameFigure, target: DrawTarget): void {
  for (let c = figure.clip, depth = 0; c >= 0 && depth < frame.figures.length; c = frame.figures[c].clip, depth++) {
    const { parts, motion } = frame.figures[c];
    if (parts.length === 1) continue;
    target.beginLayer(INSIDE);
    target.fillStyle = '#000000';
    for (let i = 0; i < parts.length; i++) {
      target.beginPath();
      traceMoved(parts[i], motion, target);
      target.fill(parts[i].fillRule);
    }
    target.endLayer();
  }
}

/**
 * A path of more contours than this is not closed where it is only filled, and stroked run by run. A browser's canvas goes through the whole path at each
 * `closePath`, so that 4,900 contours take 0.4 s and not 5 ms.
 */
const MANY_CONTOURS = 100;

/** Adds a part of a figure that moves as areas; a path keeps its place when the transform is taken back. */
function traceMoved(part: FramePart, motion: MotionSample | null, target: DrawTarget): void {
  if (!motion) {
    traceArea(part, target);
    return;
  }
  target.save();
  applyMotion(motion, target);
  traceArea(part, target);
  target.restore();
}

/** Adds the part's contours to the target's path. */
export function tracePart(part: FramePart, target: OutlineSink): void {
  traceRun(part, target, 0, part.contours.length, true);
}

/** Adds contours `from` up to, not with, `to`. Areas need no closing line; the edges of a stroke do. */
function traceRun(part: FramePart, target: OutlineSink, from: number, to: number, close: boolean): void {
  const p = part.points;
  for (let c = from; c < to; c++) {
    const contour = part.contours[c];
    if (isVanished(contour, part.progress)) continue;
    const { at, segments, closed } = contour;
    target.moveTo(p[at], p[at + 1]);
    for (let k = 0, i = at + 2; k < segments; k++, i += 6)
      target.bezierCurveTo(p[i], p[i + 1], p[i + 2], p[i + 3], p[i + 4], p[i + 5]);
    if (close && closed) target.closePath();
  }
}

/** Adds the part's contours as areas, to be filled or clipped to. */
const traceArea = (part: FramePart, target: OutlineSink): void =>
  traceRun(part, target, 0, part.contours.length, part.contours.length <= MANY_CONTOURS);

/** Adds what a stroke follows: slits and cuts are no edges of the outline that is nearer in time. */
function traceEdges(part: FramePart, target: OutlineSink): void {
  const p = part.points;
  for (let c = 0; c < part.contours.length; c++) {
    const contour = part.contours[c];
    if (isVanished(contour, part.progress)) continue;
    const { at, segments } = contour;
    const bridges = part.progress < 0.5 ? contour.bridgesA : contour.bridgesB;
    let open = false;
    for (let k = 0, i = at; k < segments; k++, i += 6) {
      if (bridges.includes(k)) {
        open = false;
        continue;
      }
      if (!open) target.moveTo(p[i], p[i + 1]);
      open = true;
      target.bezierCurveTo(p[i + 2], p[i + 3], p[i + 4], p[i + 5], p[i + 6], p[i + 7]);
    }
    if (contour.closed && bridges.length === 0) target.closePath();
  }
}

function hasBridges({ contours }: FramePart): boolean {
  for (let c = 0; c < contours.length; c++)
    if (contours[c].bridgesA.length + contours[c].bridgesB.length > 0) return true;
  return false;
}

/** Draws one part with its paint, or with that of its figure's lanes. */
export function drawPart(part: FramePart, target: DrawTarget, over: OverSample | null = null): void {
  const fill = part.fill && (over?.fill ?? part.fill);
  const { stroke } = part;
  const paint = stroke && (over?.stroke ?? stroke.paint);
  const width = stroke ? (over?.strokeWidth ?? stroke.values.strokeWidth)[0] : 0;
  const fills = fill !== null && shows(fill);
  const strokes = paint !== null && width > 0 && shows(paint);
  if (!fills && !strokes) return;
  if (fills || (part.contours.length <= MANY_CONTOURS && !over?.drawn)) {
    target.beginPath();
    traceArea(part, target);
  }
  if (fills) fillPart(fill, part.fillRule, target);
  if (!stroke || !strokes) return;
  if (over?.drawn) {
    if (drawnShare(over.drawn) > 0) strokeDrawn(part, stroke, paint, over, target);
    return;
  }
  if (hasBridges(part)) {
    target.beginPath();
    traceEdges(part, target);
  }
  strokePart(part, stroke, paint, over?.strokeWidth ?? null, target);
}

/** Strokes a stretch of each run of edges, in shares of its own length. */
function strokeDrawn(
  part: FramePart,
  { values }: StrokeSample,
  paint: PaintSample,
  over: OverSample,
  target: DrawTarget,
): void {
  const drawn = over.drawn ?? WHOLE_LENGTH;
  const { gradient, colour } = paint;
  const ellipse = gradient !== null && isEllipse(gradient);
  if (ellipse) layDown(part, gradient, values, over.strokeWidth, target);
  setStroke(values, over.strokeWidth, target);
  target.setLineDash(NO_DASH);
  target.lineDashOffset = 0;
  target.strokeStyle = ellipse
    ? '#000000'
    : gradient
      ? gradientIn(gradient, target, false)
      : cssText(colour[0], colour[1], colour[2], colour[3]);
  for (let c = 0; c < part.contours.length; c++) {
    const contour = part.contours[c];
    if (isVanished(contour, part.progress)) continue;
    const bridges = part.progress < 0.5 ? contour.bridgesA : contour.bridgesB;
    let begin = -1;
    for (let k = 0; k <= contour.segments; k++) {
      const gap = k === contour.segments || bridges.includes(k);
      if (gap && begin >= 0) {
        const closed = contour.closed && bridges.length === 0;
        strokeRun(part.points, contour.at + 6 * begin, k - begin, closed, drawn, target);
      }
      begin = gap ? -1 : begin < 0 ? k : begin;
    }
  }
  target.setLineDash(NO_DASH);
  if (!ellipse) return;
  target.endLayer();
  target.endLayer();
}

function strokeRun(
  p: Float64Array,
  at: number,
  segments: number,
  closed: boolean,
  drawn: Float64Array,
  target: DrawTarget,
): void {
  const share = drawnShare(drawn);
  let length = 0;
  target.beginPath();
  target.moveTo(p[at], p[at + 1]);
  for (let k = 0, i = at; k < segments; k++, i += 6) {
    target.bezierCurveTo(p[i + 2], p[i + 3], p[i + 4], p[i + 5], p[i + 6], p[i + 7]);
    if (share < 1) length += cubicLength(p, i);
  }
  if (closed) target.closePath();
  if (share < 1) {
    DRAWN_DASH[0] = share * length;
    DRAWN_DASH[1] = DRAWN_ROUND * length - DRAWN_DASH[0];
    target.lineDashOffset = drawnOffset(drawn) * length;
    target.setLineDash(DRAWN_DASH);
  }
  target.stroke();
}

const WHOLE_LENGTH = Float64Array.of(0, 1, 0);
const DRAWN_DASH: number[] = [0, 0];

const shows = ({ gradient, colour }: PaintSample): boolean => gradient !== null || colour[3] > 0;

function fillPart({ gradient, colour }: PaintSample, fillRule: FramePart['fillRule'], target: DrawTarget): void {
  if (gradient) {
    fillGradient(gradient, fillRule, target);
    return;
  }
  target.fillStyle = cssText(colour[0], colour[1], colour[2], colour[3]);
  target.fill(fillRule);
}

function strokePart(
  part: FramePart,
  { values }: StrokeSample,
  { gradient, colour }: PaintSample,
  width: Float64Array | null,
  target: DrawTarget,
): void {
  setStroke(values, width, target);
  if (gradient && isEllipse(gradient)) strokeWithEllipse(part, gradient, values, width, target);
  else {
    target.strokeStyle = gradient
      ? gradientIn(gradient, target, false)
      : cssText(colour[0], colour[1], colour[2], colour[3]);
    strokeTraced(part, target, gradient === null && colour[3] >= 1);
  }
  if (values.dash.length > 0) target.setLineDash(NO_DASH);
}

function setStroke(values: StrokeSample['values'], width: Float64Array | null, target: DrawTarget): void {
  for (let i = 0; i < STROKE_PROPERTIES.length; i++) {
    const id = STROKE_PROPERTIES[i];
    PROPERTIES[id].apply?.(target, id === 'strokeWidth' && width ? width : values[id]);
  }
}

/** Strokes the path that was traced; of many contours run by run, which where they overlap is the same as long as the paint is opaque. */
function strokeTraced(part: FramePart, target: DrawTarget, opaque: boolean): void {
  const count = part.contours.length;
  if (count <= MANY_CONTOURS || hasBridges(part)) {
    target.stroke();
    return;
  }
  if (!opaque) {
    target.beginPath();
    tracePart(part, target);
    target.stroke();
    return;
  }
  for (let c = 0; c < count; c += MANY_CONTOURS) {
    target.beginPath();
    traceRun(part, target, c, Math.min(count, c + MANY_CONTOURS), true);
    target.stroke();
  }
}

const isEllipse = ({ kind, geometry: g }: GradientSample): boolean => kind === 'radial' && g[2] !== g[3];

/** A pen must not be bent, so the paint is laid down first, in its own coordinates, and what the pen covers is left of it. */
function strokeWithEllipse(
  part: FramePart,
  gradient: GradientSample,
  values: StrokeSample['values'],
  width: Float64Array | null,
  target: DrawTarget,
): void {
  layDown(part, gradient, values, width, target);
  target.strokeStyle = '#000000';
  setStroke(values, width, target);
  target.beginPath();
  if (hasBridges(part)) traceEdges(part, target);
  else tracePart(part, target);
  target.stroke();
  target.endLayer();
  target.endLayer();
}

/** Begins two layers: in the first the paint lies wherever a stroke can be, what is drawn in the second is what is left of it. */
function layDown(
  part: FramePart,
  gradient: GradientSample,
  values: StrokeSample['values'],
  width: Float64Array | null,
  target: DrawTarget,
): void {
  target.beginLayer(WHOLE);
  target.beginPath();
  traceRoom(part, (width ?? values.strokeWidth)[0] * Math.max(1, values.miter[0]), target);
  fillGradient(gradient, 'nonzero', target);
  target.beginLayer(INSIDE);
}

/** A rectangle round all points of a part with some room, px. */
function traceRoom({ points }: FramePart, room: number, target: OutlineSink): void {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i < points.length; i += 2) {
    left = Math.min(left, points[i]);
    right = Math.max(right, points[i]);
    top = Math.min(top, points[i + 1]);
    bottom = Math.max(bottom, points[i + 1]);
  }
  [left, top, right, bottom] = [left - room, top - room, right + room, bottom + room];
  target.moveTo(left, top);
  target.bezierCurveTo(left, top, right, top, right, top);
  target.bezierCurveTo(right, top, right, bottom, right, bottom);
  target.bezierCurveTo(right, bottom, left, bottom, left, bottom);
  target.closePath();
}

/** The path is in canvas px already; only the paint follows the ellipse's own coordinates. */
function fillGradient(gradient: GradientSample, fillRule: FramePart['fillRule'], target: DrawTarget): void {
  const g = gradient.geometry;
  if (gradient.kind === 'linear') {
    target.fillStyle = gradientIn(gradient, target, false);
    target.fill(fillRule);
    return;
  }
  // Has the ellipse no extent? Then everything lies beyond its edge.
  if (!(g[2] > 0 && g[3] > 0)) {
    const last = 4 * (gradient.at.length - 1);
    const c = gradient.colours;
    target.fillStyle = cssText(c[last], c[last + 1], c[last + 2], c[last + 3]);
    target.fill(fillRule);
    return;
  }
  target.save();
  target.translate(g[0], g[1]);
  target.rotate((g[4] * Math.PI) / 180);
  target.scale(g[2], g[3]);
  target.fillStyle = gradientIn(gradient, target, true);
  target.fill(fillRule);
  target.restore();
}

/** The target's gradient: a radial one in its unit circle, or, where it is a circle, in px. */
function gradientIn({ kind, geometry: g, at, colours }: GradientSample, target: DrawTarget, unit: boolean): unknown {
  const gradient =
    kind === 'linear'
      ? target.createLinearGradient(g[0], g[1], g[2], g[3])
      : unit
        ? target.createRadialGradient(g[5], g[6], 0, 0, 0, 1)
        : circleIn(g, target);
  for (let i = 0; i < at.length; i++) {
    const share = Math.min(1, Math.max(0, at[i]));
    gradient.addColorStop(share, cssText(colours[4 * i], colours[4 * i + 1], colours[4 * i + 2], colours[4 * i + 3]));
  }
  return gradient;
}

function circleIn(g: Float64Array, target: DrawTarget): TargetGradient {
  const angle = (g[4] * Math.PI) / 180;
  const [cos, sin] = [Math.cos(angle) * g[2], Math.sin(angle) * g[2]];
  return target.createRadialGradient(
    g[0] + g[5] * cos - g[6] * sin,
    g[1] + g[5] * sin + g[6] * cos,
    0,
    g[0],
    g[1],
    g[2],
  );
}
