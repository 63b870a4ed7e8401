import { QUARTER_ARC_HANDLE } from '../../outline';
import { hexText } from '../../paint';
import { numberText, writePathData } from '../../svg';
import { isObject, type Json, numbers } from './json';
import { outlineOf } from './lottie-value';

const DIGITS = 6;

/** What shapes may have that is not taken, in words. */
export const UNTAKEN: Readonly<Record<string, string>> = {
  sr: 'star or polygon',
  mm: 'merging',
  rp: 'repeating',
  rd: 'rounding of corners',
  zz: 'zig-zag',
  pb: 'pucker',
  tw: 'twist',
  op: 'offset',
};

/** Does a transform of a group change nothing? */
export const addsNothing = (transform: Json): boolean =>
  !['p', 'a', 's', 'r', 'sk'].some((name) => {
    const property = transform[name];
    if (!isObject(property)) return false;
    if (property.a === 1 || property.s === true) return true;
    return numbers(property.k).some((v) => v !== (name === 's' ? 100 : 0));
  });

/** A shape of the format as path data. */
export const outlineText = (value: unknown): string =>
  writePathData(outlineOf(value), { digits: DIGITS, lines: false });

/** An ellipse by its centre and size, clockwise from its top (Lottie Specification 1.0, Ellipse). */
export function ellipseText([cx, cy]: readonly [number, number], [w, h]: readonly [number, number]): string {
  const [rx, ry] = [w / 2, h / 2];
  const [kx, ky] = [rx * QUARTER_ARC_HANDLE, ry * QUARTER_ARC_HANDLE];
  const n = (...values: number[]): string => values.map((v) => numberText(v, DIGITS)).join(' ');
  return `M${n(cx, cy - ry)}C${n(cx + kx, cy - ry, cx + rx, cy - ky, cx + rx, cy)}C${n(cx + rx, cy + ky, cx + kx, cy + ry, cx, cy + ry)}C${n(cx - kx, cy + ry, cx - rx, cy + ky, cx - rx, cy)}C${n(cx - rx, cy - ky, cx - kx, cy - ry, cx, cy - ry)}Z`;
}

/** A rectangle by its centre and size, clockwise from its upper right (Lottie Specification 1.0, Rectangle). */
export function rectangleText(
  [cx, cy]: readonly [number, number],
  [w, h]: readonly [number, number],
  radius: number,
): string {
  const r = Math.max(0, Math.min(radius, Math.abs(w) / 2, Math.abs(h) / 2));
  const [left, top, right, bottom] = [cx - w / 2, cy - h / 2, cx + w / 2, cy + h / 2];
  const n = (...values: number[]): string => values.map((v) => numberText(v, DIGITS)).join(' ');
  if (!(r > 0)) return `M${n(right, top)}L${n(right, bottom)}L${n(left, bottom)}L${n(left, top)}Z`;
  const k = r * (1 - QUARTER_ARC_HANDLE);
  return `M${n(right, top + r)}L${n(right, bottom - r)}C${n(right, bottom - k, right - k, bottom, right - r, bottom)}L${n(left + r, bottom)}C${n(left + k, bottom, left, bottom - k, left, bottom - r)}L${n(left, top + r)}C${n(left, top + k, left + k, top, left + r, top)}L${n(right - r, top)}C${n(right - k, top, right, top + k, right, top + r)}Z`;
}

/** Red, green and blue, 0 to 1, as #rrggbb. */
export function colourText([r = 0, g = 0, b = 0]: readonly number[]): string {
  const within = (v: number): number => Math.min(1, Math.max(0, v));
  return hexText({ r: within(r), g: within(g), b: within(b) });
}
