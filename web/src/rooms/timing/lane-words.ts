import {
  cssText,
  isColourLane,
  isShapeNumber,
  type LaneProperty,
  type LaneWords,
  laneKind,
  laneLimits,
  readColour,
  type ShapeNumberId,
  shapeNumber,
} from '@core';
import { shapeKindName } from '../../editor';

/** What a lane is called, and how its values are shown; of a shape's number also without the kind of shape. */
interface LaneName extends LaneWords {
  readonly short?: string;
}

/** Numbers that go together, by the name that they share. */
const TOGETHER: Readonly<Partial<Record<ShapeNumberId, string>>> = { 'rectangle.radii': 'Radius' };
const numberWords = new Map<ShapeNumberId, LaneName>();

/** Of a shape's number: as its field in the details says it. */
function wordsOfNumber(id: ShapeNumberId): LaneName {
  let words = numberWords.get(id);
  if (!words) {
    const number = shapeNumber(id);
    const parameters = number?.parameters ?? [];
    const { unit = '', whole } = parameters[0] ?? {};
    const common = TOGETHER[id];
    const inShort = (label: string): string => label.replace(`${common} `, '').replace(/^./, (c) => c.toUpperCase());
    const short = common ?? parameters[0]?.label ?? id;
    words = {
      label: `${shapeKindName(number?.kind ?? 'rectangle')}: ${short}`,
      short,
      about: `${short} of the adjustable shape, in place of its own.`,
      unit,
      parts: parameters.map(({ label }) => inShort(label)),
      step: 1,
      digits: whole ? 0 : 1,
      factor: unit === '%' ? 100 : 1,
      even: true,
    };
    numberWords.set(id, words);
  }
  return words;
}

export const laneWords = (property: LaneProperty): LaneName =>
  isShapeNumber(property) ? wordsOfNumber(property) : laneKind(property).words;

/** The nearest number that a lane can have. */
export function nearestThatCanBe(property: LaneProperty, part: number, value: number): number {
  const [least, most] = laneLimits(property, part);
  return Math.min(most, Math.max(least, value));
}

/** Is a number one that a lane can have? */
export const canBe = (property: LaneProperty, part: number, value: number): boolean =>
  nearestThatCanBe(property, part, value) === value;

/** A number of a lane as it is shown. */
export const shownNumber = (property: LaneProperty, value: number): string => {
  const { factor, digits } = laneWords(property);
  return String(+(value * factor).toFixed(digits)).replace('-', '−');
};

/** A value in words, with its unit. */
export function valueText(property: LaneProperty, value: readonly number[]): string {
  if (isColourLane(property)) return colourOfValue(value);
  const { unit, even } = laneWords(property);
  const space = unit === '°' ? '' : ' ';
  const numbers = even && value.every((v) => v === value[0]) ? value.slice(0, 1) : value;
  return `${numbers.map((v) => shownNumber(property, v)).join(', ')}${space}${unit}`;
}

/** A colour of a lane as CSS says it. */
export const colourOfValue = ([r, g, b, alpha]: readonly number[]): string => cssText(r, g, b, alpha);

/** And back; undefined where it is no colour. */
export function valueOfColour(css: string): readonly number[] | undefined {
  const colour = readColour(css);
  return colour && [colour.r, colour.g, colour.b, colour.alpha];
}
