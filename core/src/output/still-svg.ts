import { type FramePart, type PoseInput, planStill, stillParts } from '../frame';
import { transformOutline } from '../outline';
import { hexText } from '../paint';
import { outlineOfPart, placementMatrix } from '../piece';
import { numberText, writePathData } from '../svg';
import { escapeText, gradientElement } from './svg-paint';

export interface StillSvgOptions {
  /** Decimals of coordinates. Default 3. */
  readonly digits?: number;
  readonly title?: string;
  readonly background?: string | null;
}

/** The view box of a still picture, px. */
export interface StillBox {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Writes poses as they stand, the lowest first, as one SVG file without animation. */
export function writeStillSvg(poses: readonly PoseInput[], box: StillBox, options: StillSvgOptions = {}): string {
  const { digits = 3, title, background } = options;
  let defs = '';
  let body = title ? `<title>${escapeText(title)}</title>\n` : '';
  const n = (v: number): string => numberText(v, digits);
  if (background)
    body += `<rect x="${n(box.x)}" y="${n(box.y)}" width="${n(box.width)}" height="${n(box.height)}" fill="${escapeText(background)}"/>\n`;
  let count = 0;
  for (const pose of poses) {
    const matrix = placementMatrix(pose.placement);
    stillParts(planStill(pose).parts).forEach((part, i) => {
      const { attributes, gradients } = stillPaint(part, () => `paint${++count}`);
      defs += gradients;
      // From the record itself: plans round to a fraction of a px, which shows in drawings of a few units.
      const outline = transformOutline(outlineOfPart(pose.parts[i]), matrix);
      // Lines are mostly drawn with circles and arcs, areas with cubics; each goes out as it mostly came in.
      const arcs = pose.parts[i].fill === null;
      body += `<path d="${writePathData(outline, { digits, arcs })}"${attributes}/>\n`;
    });
  }
  if (defs) defs = `<defs>\n${defs}</defs>\n`;
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${n(box.x)} ${n(box.y)} ${n(box.width)} ${n(box.height)}" width="${n(box.width)}" height="${n(box.height)}">\n${defs}${body}</svg>\n`;
}

function stillPaint(part: FramePart, newId: () => string): { attributes: string; gradients: string } {
  let gradients = '';
  let attributes = part.fillRule === 'evenodd' ? ' fill-rule="evenodd"' : '';
  const paint = (name: 'fill' | 'stroke', colour: Float64Array, gradient: FramePart['fillGradient']): void => {
    if (gradient) {
      const id = newId();
      gradients += gradientElement(id, gradient);
      attributes += ` ${name}="url(#${id})"`;
      return;
    }
    attributes += ` ${name}="${hexText({ r: colour[0], g: colour[1], b: colour[2] })}"`;
    if (colour[3] < 1) attributes += ` ${name}-opacity="${numberText(colour[3], 4)}"`;
  };
  if (part.plan.fill) paint('fill', part.fill, part.fillGradient);
  else attributes += ' fill="none"';
  if (part.plan.stroke && part.strokeWidth > 0) {
    paint('stroke', part.stroke, part.strokeGradient);
    attributes += ` stroke-width="${numberText(part.strokeWidth, 4)}" stroke-linecap="${part.cap}" stroke-linejoin="${part.join}"`;
    if (part.join === 'miter' && part.miter !== 4) attributes += ` stroke-miterlimit="${numberText(part.miter, 4)}"`;
    if (part.dash.length > 0) {
      attributes += ` stroke-dasharray="${part.dash.map((v) => numberText(v, 4)).join(' ')}"`;
      if (part.dashOffset !== 0) attributes += ` stroke-dashoffset="${numberText(part.dashOffset, 4)}"`;
    }
  }
  return { attributes, gradients };
}
