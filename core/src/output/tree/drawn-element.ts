import type { KeySpline } from '../../easing';
import type { SvgStep } from '../../lane';
import type { TimedTexts } from '../runtime/track-value';

/** An attribute that changes over time, by its keys. */
export interface Track extends TimedTexts {
  readonly attribute: string;
  /** Of an animated transform: which function this is, and whether it comes after those before it or takes the place of all. */
  readonly step?: { readonly type: SvgStep; readonly sum: boolean };
  readonly splines: readonly KeySpline[];
  /** So long it says something in each of its runs, s; then what the element has itself comes back. Left out: until the next run. */
  readonly active?: number;
  /** Does each of its runs begin anew, and so go before what began earlier? */
  readonly restarts?: boolean;
}

/** Attributes by their names, in the order in which they are written. */
export type Attributes = Readonly<Record<string, string>>;

/** An element of a drawing, with what moves in it: what stands in memory between lanes and the writers of text, and what a file that was read says. */
export interface DrawnElement {
  readonly name: string;
  readonly attributes: Attributes;
  readonly children: readonly DrawnElement[];
  readonly tracks: readonly Track[];
  readonly text: string;
}

/** What an element gets from one thing that it shows. */
export interface Written {
  readonly attributes: Attributes;
  readonly tracks: readonly Track[];
}

export const NOTHING: Written = { attributes: {}, tracks: [] };

/** Several things together, in their order. */
export const together = (...parts: readonly Written[]): Written => ({
  attributes: Object.assign({}, ...parts.map(({ attributes }) => attributes)),
  tracks: parts.flatMap(({ tracks }) => tracks),
});

export const drawn = (
  name: string,
  attributes: Attributes,
  { children = [], tracks = [], text = '' }: Partial<DrawnElement> = {},
): DrawnElement => ({ name, attributes, children, tracks, text });
