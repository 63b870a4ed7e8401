import { stillLanes } from '../frame';
import { type PaintLanes, PROPERTIES, STROKE_PROPERTIES } from '../lane';
import { transformOutline } from '../outline';
import { outlineOfPart, type Part, type Placement, placementMatrix } from '../piece';
import { numberText, writePathData } from '../svg';
import type { Matrix } from '../vec';
import { gradientElements, LaneWriter } from './svg-paint';
import { type Attributes, type DrawnElement, drawn } from './tree/drawn-element';
import { svgText } from './tree/svg-text';

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
  const n = (v: number): string => numberText(v, digits);
  const [x, y, width, height] = [box.x, box.y, box.width, box.height].map(n);
  const defs: DrawnElement[] = [];
  const writer = new LaneWriter(null, 1);
  const paint = (name: 'fill' | 'stroke', lanes: PaintLanes): Attributes => {
    if (lanes.kind === 'colour') return writer.property(PROPERTIES[name], lanes.colour).attributes;
    const id = `paint${defs.length + 1}`;
    defs.push(gradientElements(lanes, writer)[0](id));
    return { [name]: `url(#${id})` };
  };
  const body = poses.flatMap(({ placement, parts, motion }) => {
    const matrix = placementMatrix(placement);
    const paths = stillLanes(placement, parts).map(({ fill, stroke }, i) => {
      const outline = transformOutline(outlineOfPart(parts[i]), matrix);
      // Lines are mostly drawn with circles and arcs, areas with cubics; each goes out as it mostly came in.
      const arcs = parts[i].fill === null;
      const attributes: Record<string, string> = {
        d: writePathData(outline, { digits, arcs }),
        ...(parts[i].fillRule === 'evenodd' && { 'fill-rule': 'evenodd' }),
        ...(fill ? paint('fill', fill) : { fill: 'none' }),
      };
      if (stroke && writer.first(stroke.properties.strokeWidth)[0] > 0) {
        Object.assign(attributes, paint('stroke', stroke.paint));
        for (const id of STROKE_PROPERTIES)
          Object.assign(attributes, writer.property(PROPERTIES[id], stroke.properties[id]).attributes);
      }
      return drawn('path', attributes);
    });
    if (!motion) return paths;
    const transform = `matrix(${motion.map((v, i) => numberText(v, i < 4 ? 6 : digits)).join(' ')})`;
    return [drawn('g', { transform }, { children: paths })];
  });
  return svgText(
    drawn(
      'svg',
      { xmlns: 'http://www.w3.org/2000/svg', viewBox: `${x} ${y} ${width} ${height}`, width, height },
      {
        children: [
          ...(defs.length > 0 ? [drawn('defs', {}, { children: defs })] : []),
          ...(title ? [drawn('title', {}, { text: title })] : []),
          ...(background ? [drawn('rect', { x, y, width, height, fill: background })] : []),
          ...body,
        ],
      },
    ),
  );
}
