import { cssText } from '../paint';
import { type Frame, type FramePart, isVanished } from './sample';

/** What a picture is drawn on: the part of a 2D canvas context that is needed. */
export interface DrawTarget {
  fillStyle: unknown;
  strokeStyle: unknown;
  lineWidth: number;
  lineCap: string;
  lineJoin: string;
  miterLimit: number;
  beginPath(): void;
  moveTo(x: number, y: number): void;
  bezierCurveTo(x1: number, y1: number, x2: number, y2: number, x: number, y: number): void;
  closePath(): void;
  fill(rule?: 'nonzero' | 'evenodd'): void;
  stroke(): void;
}

/** SVG's own default, so that the canvas and SVG outputs draw the same corners. */
const MITER_LIMIT = 4;

/** Draws all figures of a frame, lowest first, in canvas px. The background is the caller's. */
export function drawFrame(frame: Frame, target: DrawTarget): void {
  for (let f = 0; f < frame.figures.length; f++) {
    const { parts } = frame.figures[f];
    for (let i = 0; i < parts.length; i++) drawPart(parts[i], target);
  }
}

function drawPart(part: FramePart, target: DrawTarget): void {
  const fills = part.plan.fill !== null && part.fill[3] > 0;
  const strokes = part.plan.stroke !== null && part.stroke[3] > 0 && part.strokeWidth > 0;
  if (!fills && !strokes) return;
  target.beginPath();
  const p = part.points;
  for (let c = 0; c < part.contours.length; c++) {
    const contour = part.contours[c];
    if (isVanished(contour, part.progress)) continue;
    const { at, pieces, closed } = contour;
    target.moveTo(p[at], p[at + 1]);
    for (let k = 0, i = at + 2; k < pieces; k++, i += 6)
      target.bezierCurveTo(p[i], p[i + 1], p[i + 2], p[i + 3], p[i + 4], p[i + 5]);
    if (closed) target.closePath();
  }
  if (fills) {
    target.fillStyle = cssText(part.fill[0], part.fill[1], part.fill[2], part.fill[3]);
    target.fill(part.fillRule);
  }
  if (strokes) {
    target.strokeStyle = cssText(part.stroke[0], part.stroke[1], part.stroke[2], part.stroke[3]);
    target.lineWidth = part.strokeWidth;
    target.lineCap = part.cap;
    target.lineJoin = part.join;
    target.miterLimit = MITER_LIMIT;
    target.stroke();
  }
}
