import type { SvgStep } from '../../lane';
import { hexText, type Rgba, readColour } from '../../paint';

const COLOURS = new Set(['fill', 'stroke', 'stop-color', 'color']);

/** Values that can be mixed number by number: colours as #rrggbb, and as many numbers in each step of a transform. */
export function mixable(attribute: string, type: SvgStep | undefined, values: readonly string[]): readonly string[] {
  if (COLOURS.has(attribute)) {
    const colours = values.map((value) => readColour(value));
    return colours.every((colour) => colour !== undefined && colour.alpha === 1)
      ? colours.map((colour) => hexText(colour as Rgba))
      : values;
  }
  if (type === undefined) return values;
  const lists = values.map((value) => value.split(/[\s,]+/).map(Number));
  const about = lists.some(({ length }) => length > 1);
  return lists.map(([first = 0, second, third]) => {
    if (type === 'skewX') return String(first);
    if (type === 'rotate') return about ? `${first} ${second ?? 0} ${third ?? 0}` : String(first);
    return `${first} ${second ?? (type === 'scale' ? first : 0)}`;
  });
}
