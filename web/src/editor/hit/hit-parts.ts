import {
  flattenContour,
  mapPoint,
  nearestOnContour,
  type Outline,
  outlineBox,
  outlineOfPart,
  outlineSize,
  type Part,
  polylineWinding,
} from '@core';
import type { ShownPose } from '../scene/scene';

const FLATTEN_SHARE = 5e-4;
const polylines = new WeakMap<Outline, readonly Float64Array[]>();

function polylinesOf(outline: Outline): readonly Float64Array[] {
  let lines = polylines.get(outline);
  if (!lines) {
    const epsilon = FLATTEN_SHARE * outlineSize(outline) || 1;
    lines = outline.contours.map((contour) => flattenContour(contour, epsilon));
    polylines.set(outline, lines);
  }
  return lines;
}

/** Does the part's filled area hold the point (in the pose's own coordinates)? */
export function isInside(part: Part, x: number, y: number): boolean {
  const outline = outlineOfPart(part);
  let winding = 0;
  let crossings = 0;
  polylinesOf(outline).forEach((line) => {
    const w = polylineWinding(line, x, y);
    winding += w;
    if (w % 2 !== 0) crossings++;
  });
  return outline.fillRule === 'evenodd' ? crossings % 2 === 1 : winding !== 0;
}

/** Is the part's outline within `reach` of the point, both in the pose's own coordinates? */
export function isNearOutline(part: Part, x: number, y: number, reach: number): boolean {
  return outlineOfPart(part).contours.some((contour) => nearestOnContour(contour, x, y, reach) !== undefined);
}

export interface PartHit {
  readonly shown: ShownPose;
  readonly part: Part;
}

/** The topmost part under a point of the canvas; `slack` in canvas px. Hidden and locked figures are passed over. */
export function hitPart(poses: readonly ShownPose[], x: number, y: number, slack: number): PartHit | undefined {
  for (const shown of [...poses].reverse()) {
    if (shown.figure.hidden || shown.figure.locked) continue;
    const [px, py] = mapPoint(shown.inverse, x, y);
    const k = Math.hypot(shown.inverse[0], shown.inverse[1]);
    for (const part of [...shown.parts].reverse()) {
      const reach = (part.stroke?.width ?? 0) / 2 + slack * k;
      if ((part.fill !== null && isInside(part, px, py)) || isNearOutline(part, px, py, reach)) return { shown, part };
    }
  }
  return undefined;
}

/** A place of the canvas at which a press hits the pose: its middle where that is inside, else a point of its outline. */
export function placeInside({ parts, matrix }: ShownPose): { readonly x: number; readonly y: number } | undefined {
  const part = parts[parts.length - 1];
  if (!part) return undefined;
  const box = outlineBox(outlineOfPart(part));
  const middle = [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2] as const;
  const at = part.fill !== null && isInside(part, ...middle) ? middle : part.contours[0]?.anchors[0]?.at;
  if (!at) return undefined;
  const [x, y] = mapPoint(matrix, at[0], at[1]);
  return { x, y };
}
