import { type DrawTarget, hexText } from '../paint';
import { numberText } from '../svg';
import type { NumberRange } from './blend';

/** Decimals of whatever is no coordinate of an outline. */
const DIGITS = 4;
/** A number as files have it. */
export const numberWord = (value: number): string => numberText(value, DIGITS);

/**
 * One thing of a picture that can change over time: how it blends, is set on a drawing target and is written. The whole table is in `properties.ts`: canvas and
 * outputs read it, nothing else knows.
 */
export interface Property {
  /** What has it: the canvas, a figure, a part, its stroke, a gradient, or a stop of one. */
  readonly of: 'canvas' | 'figure' | 'part' | 'stroke' | 'gradient' | 'stop';
  readonly type: 'outline' | 'colour' | 'numbers' | 'choice';
  /** For numbers. */
  readonly range: NumberRange;
  /** Largest error of keyed outputs, in the property's own unit: px, degrees, shares. */
  readonly error: number;
  /** The attributes of SVG 2 that carry it, and their texts for a value. */
  readonly attributes: readonly string[];
  texts(value: ArrayLike<number>): readonly string[];
  /** The texts that SVG takes for granted. */
  readonly initial?: readonly string[];
  /** Sets it on a target. Outlines, colours, layers and gradients are set by what paints them, because they need more than this one value. */
  apply?(target: DrawTarget, value: Float64Array): void;
}

/** One number. */
export const numberProperty = (
  of: Property['of'],
  attribute: string,
  options: Partial<NumberRange> & { error: number; initial?: string; apply?: Property['apply'] },
): Property => ({
  of,
  type: 'numbers',
  range: { beyond: options.beyond ?? 'held', least: options.least ?? -Infinity },
  error: options.error,
  attributes: [attribute],
  texts: (value) => [numberWord(value[0])],
  ...(options.initial !== undefined && { initial: [options.initial] }),
  ...(options.apply && { apply: options.apply }),
});

/** Several numbers, written together. */
export const numbersProperty = (
  of: Property['of'],
  attributes: readonly string[],
  error: number,
  texts: Property['texts'],
  least = -Infinity,
): Property => ({ of, type: 'numbers', range: { beyond: 'held', least }, error, attributes, texts });

/** One of a few words of a stroke. */
export const choiceProperty = (attribute: string, options: readonly string[], apply: Property['apply']): Property => ({
  of: 'stroke',
  type: 'choice',
  range: { beyond: 'held', least: 0 },
  error: 0,
  attributes: [attribute],
  texts: ([index]: ArrayLike<number> & Iterable<number>) => [options[index]],
  initial: [options[0]],
  apply,
});

/** r, g, b and alpha, half a level of 255 off at most. */
export const colourProperty = (of: Property['of'], attribute: string, opacity: string): Property => ({
  of,
  type: 'colour',
  range: { beyond: 'held', least: 0 },
  error: 0.5 / 255,
  attributes: [attribute, opacity],
  texts: (c) => [shortHex(hexText({ r: c[0], g: c[1], b: c[2] })), numberText(c[3], 3)],
  initial: ['', '1'],
});

/** #rgb where that says the same as #rrggbb. */
const shortHex = (hex: string): string =>
  hex[1] === hex[2] && hex[3] === hex[4] && hex[5] === hex[6] ? `#${hex[1]}${hex[3]}${hex[5]}` : hex;

/** Functions of a transform in SVG that files of the program use. */
export const SVG_STEPS = ['translate', 'rotate', 'skewX', 'scale'] as const;
export type SvgStep = (typeof SVG_STEPS)[number];

/** A part of a figure's transform, which SVG writes as an attribute of that name's function. */
export const stepProperty = (
  name: SvgStep,
  error: number,
  text: (value: ArrayLike<number>) => string,
  initial: string,
): Property => ({
  of: 'figure',
  type: 'numbers',
  range: { beyond: 'on', least: -Infinity },
  error,
  attributes: [name],
  texts: (value) => [text(value)],
  initial: [initial],
});
