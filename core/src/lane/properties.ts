import { CAPS, type DrawTarget, hexText, JOINS } from '../paint';
import { numberText } from '../svg';
import type { NumberRange } from './blend';

/** Decimals of whatever is no coordinate of an outline. */
const DIGITS = 4;
const n = (value: number): string => numberText(value, DIGITS);

/**
 * One thing of a picture that can change over time. The whole table is below: canvas and outputs read it, nothing else knows how a property
 * blends, is set on a drawing target or is written.
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

const number = (
  of: Property['of'],
  attribute: string,
  options: Partial<NumberRange> & { error: number; initial?: string; apply?: Property['apply'] },
): Property => ({
  of,
  type: 'numbers',
  range: { beyond: options.beyond ?? 'held', least: options.least ?? -Infinity },
  error: options.error,
  attributes: [attribute],
  texts: (value) => [n(value[0])],
  ...(options.initial !== undefined && { initial: [options.initial] }),
  ...(options.apply && { apply: options.apply }),
});

const numbers = (
  of: Property['of'],
  attributes: readonly string[],
  error: number,
  texts: Property['texts'],
  least = -Infinity,
): Property => ({ of, type: 'numbers', range: { beyond: 'held', least }, error, attributes, texts });

const choice = (attribute: string, options: readonly string[], apply: Property['apply']): Property => ({
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
const colour = (of: Property['of'], attribute: string, opacity: string): Property => ({
  of,
  type: 'colour',
  range: { beyond: 'held', least: 0 },
  error: 0.5 / 255,
  attributes: [attribute, opacity],
  texts: (c) => [shortHex(hexText({ r: c[0], g: c[1], b: c[2] })), numberText(c[3], 3)],
  initial: ['', '1'],
});

/** A part of a figure's transform, which SVG writes as an attribute of that name's function. */
const motion = (
  name: 'translate' | 'rotate' | 'scale',
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

/** #rgb where that says the same as #rrggbb. */
const shortHex = (hex: string): string =>
  hex[1] === hex[2] && hex[3] === hex[4] && hex[5] === hex[6] ? `#${hex[1]}${hex[3]}${hex[5]}` : hex;

/** The share of a contour's length that is drawn. */
export const drawnShare = (value: ArrayLike<number>): number => Math.min(1, Math.max(0, value[1] - value[0]));

/** A stretch comes again after a little more than the whole length: else round ends of the next one would show at the end of an open contour. */
export const DRAWN_ROUND = 1.001;
/** Where the dash that is drawn begins, in shares of the length, as the offset of dashes. */
export const drawnOffset = (value: ArrayLike<number>): number => -DRAWN_ROUND * (value[0] + value[2]);

/** No ellipse of a gradient is thinner than this, px: SVG paints nothing under a map without area. */
const LEAST_RADIUS_PX = 1e-4;

/** Everything of a picture that can change, a row each. */
export const PROPERTIES = {
  /** Of a figure: how far it is moved, px; how far it is turned about its pivot, degrees clockwise; by what it is scaled there. */
  position: motion('translate', 0.02, (value) => `${n(value[0])} ${n(value[1])}`, '0 0'),
  turn: motion('rotate', 0.02, (value) => n(value[0]), '0'),
  scale: motion('scale', 2e-4, (value) => `${numberText(value[0], 6)} ${numberText(value[1], 6)}`, '1 1'),
  /** Of all that a figure paints, together. */
  opacity: number('figure', 'opacity', { error: 1 / 512, initial: '1', least: 0 }),
  /** How soft all of it is, edges and inside: the standard deviation of a blur, px of the canvas. */
  softness: number('figure', 'stdDeviation', { beyond: 'on', error: 0.02, initial: '0', least: 0 }),
  /** What of each stroked contour is drawn: from, to, and how far both are shifted along, in shares of its length. Dashes of its own give way. */
  drawn: {
    ...numbers('figure', ['stroke-dasharray', 'stroke-dashoffset'], 2e-3, (value) => {
      const length = drawnShare(value);
      return [`${numberText(length, 5)} ${numberText(DRAWN_ROUND - length, 5)}`, numberText(drawnOffset(value), 5)];
    }),
    initial: ['1 0', '0'],
  },
  /** What lies behind all figures. */
  background: colour('canvas', 'fill', 'fill-opacity'),
  outline: {
    of: 'part',
    type: 'outline',
    range: { beyond: 'on', least: -Infinity },
    error: 0.08,
    attributes: ['d'],
    texts: () => [''],
  },
  fill: colour('part', 'fill', 'fill-opacity'),
  stroke: colour('stroke', 'stroke', 'stroke-opacity'),
  strokeWidth: number('stroke', 'stroke-width', {
    beyond: 'on',
    least: 0,
    error: 0.02,
    initial: '1',
    apply: (target, value) => void (target.lineWidth = value[0]),
  }),
  cap: choice('stroke-linecap', CAPS, (target, value) => void (target.lineCap = CAPS[value[0]])),
  join: choice('stroke-linejoin', JOINS, (target, value) => void (target.lineJoin = JOINS[value[0]])),
  miter: number('stroke', 'stroke-miterlimit', {
    least: 1,
    error: 0.01,
    initial: '4',
    apply: (target, value) => void (target.miterLimit = value[0]),
  }),
  dash: {
    ...numbers('stroke', ['stroke-dasharray'], 0.05, (value) => [Array.from(value, n).join(' ') || 'none'], 0),
    initial: ['none'],
    apply: (target: DrawTarget, value: Float64Array) => void target.setLineDash(value),
  },
  dashOffset: number('stroke', 'stroke-dashoffset', {
    error: 0.05,
    initial: '0',
    apply: (target, value) => void (target.lineDashOffset = value[0]),
  }),
  /** Of a linear gradient: x1, y1, x2, y2, px. */
  line: numbers('gradient', ['x1', 'y1', 'x2', 'y2'], 0.05, (value) => Array.from(value, n)),
  /** Of a radial one: centre x and y, radii, px, and rotation in degrees. Written as a map of the unit circle. */
  ellipse: numbers('gradient', ['translate', 'rotate', 'scale'], 0.05, (value) => [
    `${n(value[0])} ${n(value[1])}`,
    n(value[4]),
    `${n(Math.max(value[2], LEAST_RADIUS_PX))} ${n(Math.max(value[3], LEAST_RADIUS_PX))}`,
  ]),
  /** Where a radial gradient starts, in its unit circle. */
  focus: { ...numbers('gradient', ['fx', 'fy'], 1e-3, (value) => Array.from(value, n)), initial: ['0', '0'] },
  /** Share of a stop on the way along its gradient. */
  stopOffset: number('stop', 'offset', { least: 0, error: 1e-3 }),
  stopColour: colour('stop', 'stop-color', 'stop-opacity'),
} as const satisfies Readonly<Record<string, Property>>;

export type PropertyId = keyof typeof PROPERTIES;

/** Properties of a stroke besides its paint, in the order in which they are set and written. */
export const STROKE_PROPERTIES = ['strokeWidth', 'cap', 'join', 'miter', 'dash', 'dashOffset'] as const;
export type StrokeProperty = (typeof STROKE_PROPERTIES)[number];
