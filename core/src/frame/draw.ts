import { cssText, type GradientSample } from '../paint';
import { type Frame, type FrameFigure, type FramePart, isVanished } from './sample';

/** A gradient of the target, made ready for one painting. */
export interface TargetGradient {
  addColorStop(at: number, colour: string): void;
}

/** What a picture is drawn on: the part of a 2D canvas context that is needed. */
export interface DrawTarget {
  fillStyle: unknown;
  strokeStyle: unknown;
  lineWidth: number;
  lineCap: string;
  lineJoin: string;
  miterLimit: number;
  lineDashOffset: number;
  globalAlpha: number;
  save(): void;
  restore(): void;
  translate(x: number, y: number): void;
  rotate(angle: number): void;
  scale(x: number, y: number): void;
  beginPath(): void;
  moveTo(x: number, y: number): void;
  bezierCurveTo(x1: number, y1: number, x2: number, y2: number, x: number, y: number): void;
  closePath(): void;
  fill(rule?: 'nonzero' | 'evenodd'): void;
  stroke(): void;
  clip(rule?: 'nonzero' | 'evenodd'): void;
  setLineDash(lengths: number[]): void;
  createLinearGradient(x0: number, y0: number, x1: number, y1: number): TargetGradient;
  createRadialGradient(x0: number, y0: number, r0: number, x1: number, y1: number, r1: number): TargetGradient;
}

/** Draws all figures of a frame, lowest first, in canvas px. The background is the caller's. `fade` thins figures out while drawing. */
export function drawFrame(frame: Frame, target: DrawTarget, fade?: (figureId: string) => number): void {
  for (let f = 0; f < frame.figures.length; f++) {
    const figure = frame.figures[f];
    const opacity = figure.opacity * (fade?.(figure.id) ?? 1);
    if (figure.hidden || !(opacity > 0)) continue;
    const apart = figure.clip >= 0 || opacity < 1;
    if (apart) target.save();
    for (let c = figure.clip, depth = 0; c >= 0 && depth < frame.figures.length; c = frame.figures[c].clip, depth++)
      clipTo(frame.figures[c], target);
    if (opacity < 1) target.globalAlpha = opacity;
    for (let i = 0; i < figure.parts.length; i++) drawPart(figure.parts[i], target);
    if (apart) target.restore();
  }
}

/** Leaves the filled area of a figure: all its parts together. */
function clipTo(figure: FrameFigure, target: DrawTarget): void {
  target.beginPath();
  for (let i = 0; i < figure.parts.length; i++) tracePart(figure.parts[i], target);
  target.clip(figure.parts.length === 1 ? figure.parts[0].fillRule : 'nonzero');
}

/** Adds the part's contours to the target's path. */
export function tracePart(part: FramePart, target: Pick<DrawTarget, 'moveTo' | 'bezierCurveTo' | 'closePath'>): void {
  const p = part.points;
  for (let c = 0; c < part.contours.length; c++) {
    const contour = part.contours[c];
    if (isVanished(contour, part.progress)) continue;
    const { at, segments, closed } = contour;
    target.moveTo(p[at], p[at + 1]);
    for (let k = 0, i = at + 2; k < segments; k++, i += 6)
      target.bezierCurveTo(p[i], p[i + 1], p[i + 2], p[i + 3], p[i + 4], p[i + 5]);
    if (closed) target.closePath();
  }
}

/** Adds what a stroke follows: slits and cuts are no edges of the outline that is nearer in time. */
function traceEdges(part: FramePart, target: Pick<DrawTarget, 'moveTo' | 'bezierCurveTo' | 'closePath'>): void {
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

const hasBridges = ({ contours }: FramePart): boolean =>
  contours.some(({ bridgesA, bridgesB }) => bridgesA.length + bridgesB.length > 0);

/** Draws one part with its paint. */
export function drawPart(part: FramePart, target: DrawTarget): void {
  const fills = part.plan.fill !== null && (part.fillGradient !== null || part.fill[3] > 0);
  const strokes =
    part.plan.stroke !== null && part.strokeWidth > 0 && (part.strokeGradient !== null || part.stroke[3] > 0);
  if (!fills && !strokes) return;
  target.beginPath();
  tracePart(part, target);
  if (fills) {
    if (part.fillGradient) fillGradient(part, part.fillGradient, target);
    else {
      target.fillStyle = cssText(part.fill[0], part.fill[1], part.fill[2], part.fill[3]);
      target.fill(part.fillRule);
    }
  }
  if (strokes) {
    if (hasBridges(part)) {
      target.beginPath();
      traceEdges(part, target);
    }
    target.strokeStyle = part.strokeGradient
      ? gradientIn(part.strokeGradient, target, false)
      : cssText(part.stroke[0], part.stroke[1], part.stroke[2], part.stroke[3]);
    target.lineWidth = part.strokeWidth;
    target.lineCap = part.cap;
    target.lineJoin = part.join;
    target.miterLimit = part.miter;
    target.setLineDash(part.dash);
    target.lineDashOffset = part.dashOffset;
    target.stroke();
    if (part.dash.length > 0) target.setLineDash([]);
  }
}

/** The path is in canvas px already; only the paint follows the ellipse's own coordinates. */
function fillGradient(part: FramePart, gradient: GradientSample, target: DrawTarget): void {
  const g = gradient.geometry;
  if (gradient.kind === 'linear') {
    target.fillStyle = gradientIn(gradient, target, false);
    target.fill(part.fillRule);
    return;
  }
  // Has the ellipse no extent? Then everything lies beyond its edge.
  if (!(g[2] > 0 && g[3] > 0)) {
    const last = 4 * (gradient.at.length - 1);
    const c = gradient.colours;
    target.fillStyle = cssText(c[last], c[last + 1], c[last + 2], c[last + 3]);
    target.fill(part.fillRule);
    return;
  }
  target.save();
  target.translate(g[0], g[1]);
  target.rotate((g[4] * Math.PI) / 180);
  target.scale(g[2], g[3]);
  target.fillStyle = gradientIn(gradient, target, true);
  target.fill(part.fillRule);
  target.restore();
}

/** The target's gradient; a radial one in its unit circle, or for strokes as the circle of equal area, because a pen must not be bent. */
function gradientIn({ kind, geometry: g, at, colours }: GradientSample, target: DrawTarget, unit: boolean): unknown {
  const r = unit ? 1 : Math.sqrt(Math.max(0, g[2] * g[3]));
  const [x, y] = unit ? [0, 0] : [g[0], g[1]];
  const gradient =
    kind === 'linear'
      ? target.createLinearGradient(g[0], g[1], g[2], g[3])
      : target.createRadialGradient(x + g[5] * r, y + g[6] * r, 0, x, y, r);
  for (let i = 0; i < at.length; i++) {
    const share = Math.min(1, Math.max(0, at[i]));
    gradient.addColorStop(share, cssText(colours[4 * i], colours[4 * i + 1], colours[4 * i + 2], colours[4 * i + 3]));
  }
  return gradient;
}
