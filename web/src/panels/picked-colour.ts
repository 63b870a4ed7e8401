import { cssText, readColour } from '@core';
import type { PickedColour } from '../ui';

/** A CSS colour as channels for picking; black where it cannot be read. */
export function pickedColour(css: string): PickedColour {
  const { r, g, b, alpha } = readColour(css) ?? { r: 0, g: 0, b: 0, alpha: 1 };
  return { r: Math.round(255 * r), g: Math.round(255 * g), b: Math.round(255 * b), a: alpha };
}

/** Picked channels as a CSS colour. */
export const colourText = ({ r, g, b, a }: PickedColour): string => cssText(r / 255, g / 255, b / 255, a);
