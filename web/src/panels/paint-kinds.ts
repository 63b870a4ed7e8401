import { type Gradient, isGradient, outlineBox, outlineOfContours, outlineOfPart, type Paint, type Part } from '@core';

/** The kinds of paint that can be chosen. */
export type PaintKind = 'none' | 'solid' | 'linear' | 'radial';

export const kindOfPaint = (paint: Paint | null): PaintKind =>
  paint === null ? 'none' : isGradient(paint) ? paint.kind : 'solid';

/** The colour to begin with when a paint becomes another kind. */
export const firstColour = (paint: Paint | null): string =>
  paint === null ? '#23201b' : isGradient(paint) ? paint.stops[0].colour : paint;

/** A gradient over the box of the parts, from the colour that was there to a lighter end. */
export function newGradient(kind: 'linear' | 'radial', from: Paint, parts: readonly Part[]): Gradient {
  const box = outlineBox(outlineOfContours(parts.flatMap((part) => outlineOfPart(part).contours)));
  const middle: [number, number] = [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2];
  const stops = isGradient(from)
    ? from.stops
    : [
        { at: 0, colour: from },
        { at: 1, colour: '#f6efe2' },
      ];
  if (kind === 'linear') return { kind, from: [box.minX, middle[1]], to: [box.maxX, middle[1]], stops };
  const r = Math.max(1, (box.maxX - box.minX + box.maxY - box.minY) / 4);
  return { kind, centre: middle, radii: [r, r], rotation: 0, focus: [0, 0], stops };
}
