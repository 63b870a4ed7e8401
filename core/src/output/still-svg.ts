import { stillLanes } from '../frame';
import { type PaintLanes, PROPERTIES, STROKE_PROPERTIES } from '../lane';
import { transformOutline } from '../outline';
import { outlineOfPart, type Part, type Placement, placementMatrix } from '../piece';
import { numberText, writePathData } from '../svg';
import type { Matrix } from '../vec';
import { escapeText, gradientElements, LaneWriter } from './svg-paint';

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

/** Parts and where they stand. */
export interface StillPose {
  readonly placement: Placement;
  readonly parts: readonly Part[];
  /** How its figure has moved it; left out: not at all. */
  readonly motion?: Matrix;
}

/** Writes poses as they stand, the lowest first, as one SVG file without animation. */
export function writeStillSvg(poses: readonly StillPose[], box: StillBox, options: StillSvgOptions = {}): string {
  const { digits = 3, title, background } = options;
  let defs = '';
  let body = title ? `<title>${escapeText(title)}</title>\n` : '';
  const n = (v: number): string => numberText(v, digits);
  if (background)
    body += `<rect x="${n(box.x)}" y="${n(box.y)}" width="${n(box.width)}" height="${n(box.height)}" fill="${escapeText(background)}"/>\n`;
  let count = 0;
  const writer = new LaneWriter(null, 1);
  const paint = (name: 'fill' | 'stroke', lanes: PaintLanes): string => {
    if (lanes.kind === 'colour') return writer.property(PROPERTIES[name], lanes.colour).attributes;
    const id = `paint${++count}`;
    defs += gradientElements(lanes, writer)[0](id);
    return ` ${name}="url(#${id})"`;
  };
  for (const { placement, parts, motion } of poses) {
    if (motion)
      body += `<g transform="matrix(${motion.map((v, i) => numberText(v, i < 4 ? 6 : digits)).join(' ')})">\n`;
    const matrix = placementMatrix(placement);
    stillLanes(placement, parts).forEach(({ fill, stroke }, i) => {
      let attributes = parts[i].fillRule === 'evenodd' ? ' fill-rule="evenodd"' : '';
      attributes += fill ? paint('fill', fill) : ' fill="none"';
      if (stroke && writer.first(stroke.properties.strokeWidth)[0] > 0) {
        attributes += paint('stroke', stroke.paint);
        for (const id of STROKE_PROPERTIES)
          attributes += writer.property(PROPERTIES[id], stroke.properties[id]).attributes;
      }
      const outline = transformOutline(outlineOfPart(parts[i]), matrix);
      // Lines are mostly drawn with circles and arcs, areas with cubics; each goes out as it mostly came in.
      const arcs = parts[i].fill === null;
      body += `<path d="${writePathData(outline, { digits, arcs })}"${attributes}/>\n`;
    });
    if (motion) body += '</g>\n';
  }
  if (defs) defs = `<defs>\n${defs}</defs>\n`;
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${n(box.x)} ${n(box.y)} ${n(box.width)} ${n(box.height)}" width="${n(box.width)}" height="${n(box.height)}">\n${defs}${body}</svg>\n`;
}
