import { EVEN_SPLINE, type KeySpline } from '../easing';
import type { Playback } from '../piece';
import { numberText } from '../svg';

/** How a file plays. */
export interface FileRun {
  /** Of the whole run, s. */
  readonly duration: number;
  readonly playback: Playback;
  /** What is played again and again when a stretch is, s. */
  readonly stretch: readonly [from: number, until: number];
}

/** When what an element shows runs within the whole run; s. */
export interface SpanTime extends FileRun {
  /** When the last ramp ends. */
  readonly end: number;
  /** Until when it is seen. */
  readonly until: number;
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

const EVEN_TEXT = EVEN_SPLINE.join(' ');
const TIME_DIGITS = 6;
const SPLINE_DIGITS = 4;
/** Shares of the run nearer than this are one. */
const SAME_SHARE = 1e-7;

/** A value at a time, s, and how it runs to it from the one before. */
interface TimedText {
  readonly time: number;
  readonly text: string;
  readonly spline: string;
}

/**
 * Animation elements of SMIL (SVG Animations 2) for a value that runs in ramps and is level between them: one, or two where a stretch is played again and again
 * after the beginning was played once. Where nobody sees what comes after the last ramp, each run of the animation ends with it, so that the last value is
 * written once.
 *
 * @returns '' where all texts are the same
 */
export function animateElement(name: string, ramps: readonly RampTexts[], span: SpanTime, extra = ''): string {
  const [first] = ramps[0].texts;
  if (ramps.every(({ texts }) => texts.every((text) => text === first))) return '';
  const { end, until, duration, playback } = span;
  // Does the value still show when the last ramp is over, in a run that begins again? Then the run is the piece's own.
  const early = playback === 'once' || (playback === 'loop' && until <= end) ? end - duration : 0;
  const jumps = ramps.every(({ splines }) => splines.length === 0);
  const keys: TimedText[] = [];
  const add = (time: number, text: string, spline: string): void => {
    const last = keys[keys.length - 1];
    if (last && text === last.text && (jumps || Math.abs(time - last.time) < SAME_SHARE * duration)) return;
    keys.push({ time: Math.min(early + duration, Math.max(early, time)), text, spline });
  };
  for (const { start, end: stop, times, texts, splines } of ramps) {
    const at = (share: number): number => start + (stop - start) * share;
    if (keys.length === 0 && at(times[0]) > early) add(early, texts[0], EVEN_TEXT);
    else if (!jumps && keys.length > 0) add(at(times[0]), keys[keys.length - 1].text, EVEN_TEXT);
    times.forEach((time, k) => {
      add(at(time), texts[k], k === 0 || jumps ? EVEN_TEXT : splineText(splines[k]));
    });
  }
  return playedElements(name, keys, jumps, span, early, extra);
}

/** Shows an element from one time of the run to another, s; '' where it is always there. */
export const displayElement = (from: number, until: number, run: FileRun): string =>
  switchElement(
    'display',
    [
      ...(from > 0 ? [{ time: 0, text: 'none' }] : []),
      { time: from, text: 'inline' },
      ...(until < run.duration ? [{ time: until, text: 'none' }] : []),
    ],
    run,
  );

/** Switches an attribute at times of the run, s, from the first on, which is 0; '' where there is nothing to switch. */
export function switchElement(
  name: string,
  switches: readonly { readonly time: number; readonly text: string }[],
  run: FileRun,
): string {
  if (switches.length < 2) return '';
  const keys = switches.map((each) => ({ ...each, spline: EVEN_TEXT }));
  return playedElements(name, keys, true, run, 0, '');
}

/** The elements that play keys as the file plays. */
function playedElements(
  name: string,
  keys: readonly TimedText[],
  jumps: boolean,
  { duration, playback, stretch: [from, until] }: FileRun,
  early: number,
  extra: string,
): string {
  const element = (part: readonly TimedText[], begin: number, length: number, again: boolean): string =>
    keyedElement(name, part, { jumps, from: begin, length, clock: clockText(begin, length, again), extra });
  if (playback === 'back')
    return keyedElement(name, thereAndBack(keys, duration, jumps), {
      jumps,
      from: 0,
      length: 2 * duration,
      clock: clockText(0, 2 * duration, true),
      extra,
    });
  if (playback !== 'stretch') return element(keys, early, duration, playback === 'loop');
  const once = element(between(keys, 0, until), 0, until, false);
  const again = keyedElement(name, between(keys, from, until), {
    jumps,
    from,
    length: until - from,
    clock: clockText(until, until - from, true),
    extra,
  });
  return once + again;
}

/** Keys from one time to another. There are keys at both, unless the value is level there. */
function between(keys: readonly TimedText[], from: number, until: number): TimedText[] {
  const near = SAME_SHARE;
  const before = keys.filter(({ time }) => time <= from + near);
  const inside = keys.filter(({ time }) => time > from + near && time < until + near);
  // Of several at the very beginning the last stands from there on.
  const first = before[before.length - 1] ?? keys[0];
  const last = inside[inside.length - 1] ?? first;
  const end = last.time < until - near ? [{ time: until, text: last.text, spline: EVEN_TEXT }] : [];
  return [{ ...first, time: from }, ...inside, ...end];
}

/** A value that jumps on its way there is what it was, on its way back, a moment longer: so that both ways show the same at the same time. */
const MOMENT = 1e-5;

/** Keys followed by the same the other way round. */
function thereAndBack(keys: readonly TimedText[], duration: number, jumps: boolean): TimedText[] {
  if (jumps) {
    const back = keys
      .slice(0, -1)
      .map(({ text }, i) => ({ time: 2 * duration - keys[i + 1].time + MOMENT, text, spline: EVEN_TEXT }));
    return [...keys, ...back.reverse()];
  }
  const last = keys[keys.length - 1];
  const there = last.time < duration ? [...keys, { time: duration, text: last.text, spline: EVEN_TEXT }] : keys;
  const back = there.slice(0, -1).map(({ time, text }, i) => ({
    time: 2 * duration - time,
    text,
    spline: reversedSpline(there[i + 1].spline),
  }));
  return [...there, ...back.reverse()];
}

interface ElementTimes {
  readonly jumps: boolean;
  /** When its first key may stand, and how long it runs, s. */
  readonly from: number;
  readonly length: number;
  readonly clock: string;
  readonly extra: string;
}

function keyedElement(
  name: string,
  keys: readonly TimedText[],
  { jumps, from, length, clock, extra }: ElementTimes,
): string {
  const shares = keys.map(({ time }) => Math.min(1, Math.max(0, (time - from) / length)));
  const texts = keys.map(({ text }) => text);
  const arriving = keys.slice(1).map(({ spline }) => spline);
  const last = shares.length - 1;
  if (!jumps && shares[last] < 1) {
    if (1 - shares[last] > SAME_SHARE) {
      shares.push(1);
      texts.push(texts[last]);
      arriving.push(EVEN_TEXT);
    } else shares[last] = 1;
  }
  const mode = jumps ? 'discrete' : arriving.every((spline) => spline === EVEN_TEXT) ? '' : 'spline';
  const attributes = [
    ` attributeName="${name}"`,
    mode && ` calcMode="${mode}"`,
    ` values="${texts.join(';')}"`,
    ` keyTimes="${shares.map(jumps ? jumpText : timeText).join(';')}"`,
    mode === 'spline' && ` keySplines="${arriving.join(';')}"`,
    clock,
    extra,
  ];
  return `<animate${attributes.filter(Boolean).join('')}/>`;
}

/** A step of a transform that stands still among others that move: it takes its place among them each time that they begin. */
export function stillTransform(
  attribute: string,
  type: string,
  value: string,
  additive: 'replace' | 'sum',
  span: SpanTime | null,
): string {
  const element = (clock: string): string =>
    `<animateTransform attributeName="${attribute}" type="${type}" additive="${additive}" values="${value};${value}"${clock}/>`;
  if (!span) return element(clockText(0, 1, false));
  const { duration, playback, stretch } = span;
  if (playback !== 'stretch') return element(clockText(0, duration, playback !== 'once'));
  const [from, until] = stretch;
  return element(clockText(0, until, false)) + element(clockText(until, until - from, true));
}

/**
 * A run that began before 0 begins again when what it shows is no longer seen: never before that, however its numbers are rounded, or its first value would
 * flash up.
 */
const clockText = (begin: number, duration: number, loop: boolean): string => {
  const length = numberText(duration, TIME_DIGITS);
  const from = begin < 0 ? roundedUp(begin + duration - Number(length)) : begin;
  return `${from === 0 ? '' : ` begin="${numberText(from, TIME_DIGITS)}s"`} dur="${length}s" ${loop ? 'repeatCount="indefinite"' : 'fill="freeze"'}`;
};

/** Numbers nearer than this share of the last decimal to a rounded one are it. */
const SLACK = 1e-3;
const UNIT = 10 ** TIME_DIGITS;
const roundedUp = (value: number): number => Math.ceil(value * UNIT - SLACK) / UNIT;
/** What jumps does so at its time or a moment before, never after what it makes way for is gone. */
const jumpText = (time: number): string => timeText(Math.floor(time * UNIT + SLACK) / UNIT);

const short = (text: string): string => text.replace(/^(-?)0\./, '$1.');
const timeText = (time: number): string => short(numberText(time, TIME_DIGITS));

function splineText([x1, y1, x2, y2]: KeySpline): string {
  if (Math.abs(x1 - y1) < 1e-6 && Math.abs(x2 - y2) < 1e-6) return EVEN_TEXT;
  return [x1, y1, x2, y2].map((v) => short(numberText(v, SPLINE_DIGITS))).join(' ');
}

/** The same curve the other way round. */
const reversedSpline = (spline: string): string => {
  if (spline === EVEN_TEXT) return spline;
  const [x1, y1, x2, y2] = spline.split(' ').map(Number);
  return splineText([1 - x2, 1 - y2, 1 - x1, 1 - y1]);
};
