import { EVEN_SPLINE, type KeySpline } from '../../easing';
import { numberText } from '../../svg';
import type { DrawnElement, Track } from './drawn-element';

/** Decimals of times and shares, and of the curves between keys. */
export const TIME_DIGITS = 6;
export const SPLINE_DIGITS = 4;

/** Text made safe for XML content and attributes. */
export const escapeText = (text: string): string =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;');

/** Elements that stand in one line with what they are in. */
const INLINE = new Set(['stop', 'feGaussianBlur']);
/** Elements whose children have lines of their own. */
const CONTAINERS = new Set(['svg', 'g', 'defs', 'clipPath']);

/**
 * The text of an element and all in it, as SVG with its tracks as elements of SVG Animations 2.
 *
 * @param breaks does a line begin after the tag of what holds others?
 */
export function svgText(element: DrawnElement, breaks = true): string {
  return INLINE.has(element.name) ? textOf(element, breaks) : `${textOf(element, breaks)}\n`;
}

function textOf({ name, attributes, children, tracks, text }: DrawnElement, breaks: boolean): string {
  const said = Object.entries(attributes)
    .map(([key, value]) => ` ${key}="${escapeText(value)}"`)
    .join('');
  const holds = breaks && CONTAINERS.has(name);
  if (!holds && tracks.length === 0 && children.length === 0 && text === '') return `<${name}${said}/>`;
  const own = tracks.map(trackText).join('') + (name === 'style' ? text : escapeText(text));
  // A group that is kept apart from the one in it shares its line.
  const inside =
    holds && attributes.style !== undefined
      ? children.map((child) => textOf(child, breaks))
      : [holds ? '\n' : '', ...children.map((child) => svgText(child, breaks))];
  return `<${name}${said}>${own}${inside.join('')}</${name}>`;
}

const short = (text: string): string => text.replace(/^(-?)0\./, '$1.');
const timeText = (time: number): string => short(numberText(time, TIME_DIGITS));
const splineText = (spline: KeySpline): string => spline.map((v) => short(numberText(v, SPLINE_DIGITS))).join(' ');
const EVEN_TEXT = EVEN_SPLINE.join(' ');

/** A track as an element of SVG Animations 2. */
export function trackText({ attribute, step, begin, duration, repeats, jumps, times, values, splines }: Track): string {
  const clock = `${begin === 0 ? '' : ` begin="${numberText(begin, TIME_DIGITS)}s"`} dur="${numberText(duration, TIME_DIGITS)}s" ${repeats ? 'repeatCount="indefinite"' : 'fill="freeze"'}`;
  const function_ = step ? ` type="${step.type}" additive="${step.sum ? 'sum' : 'replace'}"` : '';
  const list = values.join(';');
  // A step that stands among others that move.
  if (step && values.length === 2 && values[0] === values[1])
    return `<animateTransform attributeName="${attribute}"${function_} values="${list}"${clock}/>`;
  const texts = splines.map(splineText);
  const mode = jumps ? ' calcMode="discrete"' : texts.some((text) => text !== EVEN_TEXT) ? ' calcMode="spline"' : '';
  const curves = mode && !jumps ? ` keySplines="${texts.join(';')}"` : '';
  return `<${step ? 'animateTransform' : 'animate'} attributeName="${attribute}"${mode} values="${list}" keyTimes="${times.map(timeText).join(';')}"${curves}${clock}${function_}/>`;
}
