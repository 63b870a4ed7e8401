import {
  type CommonLaneProperty,
  cssText,
  isColourLane,
  isShapeNumber,
  type LaneProperty,
  laneLimits,
  readColour,
  type ShapeNumberId,
  shapeNumber,
} from '@core';
import { shapeKindName } from '../../editor';

/** What lanes are called, and how their values are written. */
interface LaneWords {
  readonly label: string;
  /** Of a shape's number, without the kind of shape. */
  readonly short?: string;
  readonly unit: string;
  /** Names of its numbers. */
  readonly parts: readonly string[];
  /** What an arrow key changes a number by, and how many decimals it has. */
  readonly step: number;
  readonly digits: number;
  /** Numbers as they are shown and typed, for each one stored. */
  readonly factor: number;
}

const COLOUR = { unit: '', parts: ['Colour'], step: 0, digits: 2, factor: 1 } as const;
const LENGTH = { unit: 'px', step: 1, digits: 1, factor: 1 } as const;

const COMMON: Readonly<Record<CommonLaneProperty, LaneWords>> = {
  position: { label: 'Position', unit: 'px', parts: ['X', 'Y'], step: 1, digits: 1, factor: 1 },
  turn: { label: 'Turn', unit: '°', parts: ['Turn'], step: 1, digits: 1, factor: 1 },
  scale: { label: 'Scale', unit: '%', parts: ['Across', 'Down'], step: 1, digits: 1, factor: 100 },
  opacity: { label: 'Opacity', unit: '%', parts: ['Opacity'], step: 1, digits: 1, factor: 100 },
  fill: { ...COLOUR, label: 'Fill' },
  stroke: { ...COLOUR, label: 'Stroke' },
  strokeWidth: { ...LENGTH, label: 'Stroke width', parts: ['Width'] },
  drawn: {
    label: 'Drawn part',
    unit: '%',
    parts: ['From', 'To', 'Shifted'],
    step: 1,
    digits: 1,
    factor: 100,
  },
  softness: { ...LENGTH, label: 'Softness', parts: ['Blur'] },
  background: { ...COLOUR, label: 'Background' },
};

/** Numbers that go together, by the name that they share. */
const TOGETHER: Readonly<Partial<Record<ShapeNumberId, string>>> = { 'rectangle.radii': 'Radius' };
const numberWords = new Map<ShapeNumberId, LaneWords>();

/** Of a shape's number: as its field in the details says it. */
function wordsOfNumber(id: ShapeNumberId): LaneWords {
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
      unit,
      parts: parameters.map(({ label }) => inShort(label)),
      step: 1,
      digits: whole ? 0 : 1,
      factor: unit === '%' ? 100 : 1,
    };
    numberWords.set(id, words);
  }
  return words;
}

export const laneWords = (property: LaneProperty): LaneWords =>
  isShapeNumber(property) ? wordsOfNumber(property) : COMMON[property];

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
  const { unit } = laneWords(property);
  const space = unit === '°' ? '' : ' ';
  const numbers =
    value.every((v) => v === value[0]) && (property === 'scale' || isShapeNumber(property)) ? value.slice(0, 1) : value;
  return `${numbers.map((v) => shownNumber(property, v)).join(', ')}${space}${unit}`;
}

/** A colour of a lane as CSS says it. */
export const colourOfValue = ([r, g, b, alpha]: readonly number[]): string => cssText(r, g, b, alpha);

/** And back; undefined where it is no colour. */
export function valueOfColour(css: string): readonly number[] | undefined {
  const colour = readColour(css);
  return colour && [colour.r, colour.g, colour.b, colour.alpha];
}
