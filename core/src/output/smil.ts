import type { KeySpline } from '../easing';
import { numberText } from '../svg';

/** When what an element shows runs within the whole run; s. */
export interface SpanTime {
  /** When the last ramp ends. */
  readonly end: number;
  /** Until when it is seen. */
  readonly until: number;
  /** Of the whole run. */
  readonly duration: number;
  readonly loop: boolean;
}

/** A ramp of an animated value, s, with its keys and the value at each as text. */
export interface RampTexts {
  readonly start: number;
  readonly end: number;
  /** Shares of the ramp's duration, ascending. */
  readonly times: readonly number[];
  readonly texts: readonly string[];
  /** How the value runs to each key; empty where it jumps from key to key. */
  readonly splines: readonly KeySpline[];
}

const EVEN_SPLINE = '0 0 1 1';
const TIME_DIGITS = 6;
const SPLINE_DIGITS = 4;
/** Shares of the run nearer than this are one. */
const SAME_TIME = 1e-7;

/**
 * An animation element of SMIL (SVG Animations 2) for a value that runs in ramps and is level between them. Where nobody sees what comes after
 * the last ramp, each run of the animation ends with it, so that the last value is written once.
 *
 * @returns '' where all texts are the same
 */
export function animateElement(name: string, ramps: readonly RampTexts[], span: SpanTime, extra = ''): string {
  const [first] = ramps[0].texts;
  if (ramps.every(({ texts }) => texts.every((text) => text === first))) return '';
  const { end, until, duration, loop } = span;
  // Does the value still show when the last ramp is over, in a run that begins again? Then the run is the piece's own.
  const early = loop && until > end ? 0 : end - duration;
  const jumps = ramps.every(({ splines }) => splines.length === 0);
  const keyTimes: number[] = [];
  const values: string[] = [];
  const arriving: string[] = [];
  const add = (time: number, text: string, spline: string): void => {
    const last = keyTimes.length - 1;
    const known = last >= 0 && text === values[last] && (jumps || Math.abs(time - keyTimes[last]) < SAME_TIME);
    if (known) return;
    if (last >= 0) arriving.push(spline);
    keyTimes.push(Math.min(1, Math.max(0, time)));
    values.push(text);
  };
  for (const { start, end: stop, times, texts, splines } of ramps) {
    const share = (time: number): number => (start + (stop - start) * time - early) / duration;
    if (keyTimes.length === 0 && share(times[0]) > 0) add(0, texts[0], EVEN_SPLINE);
    else if (!jumps && keyTimes.length > 0) add(share(times[0]), values[values.length - 1], EVEN_SPLINE);
    times.forEach((time, k) => {
      add(share(time), texts[k], k === 0 || jumps ? EVEN_SPLINE : splineText(splines[k]));
    });
  }
  const last = keyTimes.length - 1;
  if (!jumps && keyTimes[last] < 1) {
    if (1 - keyTimes[last] > SAME_TIME) add(1, values[last], EVEN_SPLINE);
    else keyTimes[last] = 1;
  }
  const mode = jumps ? 'discrete' : arriving.every((spline) => spline === EVEN_SPLINE) ? '' : 'spline';
  const attributes = [
    ` attributeName="${name}"`,
    mode && ` calcMode="${mode}"`,
    ` values="${values.join(';')}"`,
    ` keyTimes="${keyTimes.map(timeText).join(';')}"`,
    mode === 'spline' && ` keySplines="${arriving.join(';')}"`,
    clockText(early, duration, loop),
    extra,
  ];
  return `<animate${attributes.filter(Boolean).join('')}/>`;
}

/** Shows an element from one time of the run to another, s; '' where it is always there. */
export function displayElement(from: number, until: number, duration: number, loop: boolean): string {
  const values: string[] = [];
  const times: number[] = [];
  const add = (value: string, time: number): void => {
    values.push(value);
    times.push(time / duration);
  };
  if (from > 0) add('none', 0);
  add('inline', from);
  if (until < duration) add('none', until);
  if (values.length === 1) return '';
  return `<animate attributeName="display" calcMode="discrete" values="${values.join(';')}" keyTimes="${times.map(timeText).join(';')}"${clockText(0, duration, loop)}/>`;
}

/** A step of a transform that stands still among others that move. */
export const stillTransform = (
  attribute: string,
  type: string,
  value: string,
  additive: 'replace' | 'sum',
  span: SpanTime | null,
): string =>
  `<animateTransform attributeName="${attribute}" type="${type}" additive="${additive}" values="${value};${value}" dur="${span?.duration ?? 1}s" ${span?.loop ? 'repeatCount="indefinite"' : 'fill="freeze"'}/>`;

const clockText = (begin: number, duration: number, loop: boolean): string =>
  `${begin === 0 ? '' : ` begin="${numberText(begin, TIME_DIGITS)}s"`} dur="${numberText(duration, TIME_DIGITS)}s" ${loop ? 'repeatCount="indefinite"' : 'fill="freeze"'}`;

const short = (text: string): string => text.replace(/^(-?)0\./, '$1.');
const timeText = (time: number): string => short(numberText(time, TIME_DIGITS));

function splineText([x1, y1, x2, y2]: KeySpline): string {
  if (Math.abs(x1 - y1) < 1e-6 && Math.abs(x2 - y2) < 1e-6) return EVEN_SPLINE;
  return [x1, y1, x2, y2].map((v) => short(numberText(v, SPLINE_DIGITS))).join(' ');
}
