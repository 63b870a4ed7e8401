import { EVEN_SPLINE, type KeySpline } from '../easing';
import type { Playback } from '../piece';
import { numberText } from '../svg';
import type { RampKeys } from './ramp-keys';
import type { Track } from './tree/drawn-element';
import { SPLINE_DIGITS, TIME_DIGITS } from './tree/svg-text';

/** How a file plays. */
export interface FileRun {
  /** Length of the whole run, s. */
  readonly duration: number;
  readonly playback: Playback;
  /** The stretch that repeats, s. */
  readonly stretch: readonly [from: number, until: number];
}

/** When the content of an element plays within the whole run; s. */
export interface SpanTime extends FileRun {
  /** When the last ramp ends. */
  readonly end: number;
  /** When it stops being visible. */
  readonly until: number;
}

/** The keys of a ramp, each with its value as text. */
export interface RampTexts extends Omit<RampKeys, 'values'> {
  readonly texts: readonly string[];
}

/** Shares of the run that are closer than this count as the same. */
const SAME_SHARE = 1e-7;

/** A value at a time, s, and the easing that leads to it. */
interface TimedText {
  readonly time: number;
  readonly text: string;
  readonly spline: KeySpline;
}

/** The step of a transform that a track animates; left out: the track is no transform. */
type Step = Track['step'];

/**
 * Tracks for a value that runs in ramps and is level between them: one, or two where a stretch is played again and again after the beginning was played once.
 * Where nobody sees what comes after the last ramp, each run of the track ends with it, so that the last value is written once. Times and curves are rounded as
 * files have them.
 *
 * @returns an empty list if all texts are the same
 */
export function rampTracks(attribute: string, ramps: readonly RampTexts[], span: SpanTime, step?: Step): Track[] {
  const [first] = ramps[0].texts;
  if (ramps.every(({ texts }) => texts.every((text) => text === first))) return [];
  const { end, until, duration, playback } = span;
  // Does the value still show when the last ramp is over, in a run that begins again? Then the run is the piece's own.
  const early = playback === 'once' || (playback === 'loop' && until <= end) ? end - duration : 0;
  const jumps = ramps.every(({ splines }) => splines.length === 0);
  const keys: TimedText[] = [];
  const add = (time: number, text: string, spline: KeySpline): void => {
    const last = keys[keys.length - 1];
    if (last && text === last.text && (jumps || Math.abs(time - last.time) < SAME_SHARE * duration)) return;
    keys.push({ time: Math.min(early + duration, Math.max(early, time)), text, spline });
  };
  for (const { start, end: stop, times, texts, splines } of ramps) {
    const at = (share: number): number => start + (stop - start) * share;
    if (keys.length === 0 && at(times[0]) > early) add(early, texts[0], EVEN_SPLINE);
    else if (!jumps && keys.length > 0) add(at(times[0]), keys[keys.length - 1].text, EVEN_SPLINE);
    times.forEach((time, k) => {
      add(at(time), texts[k], k === 0 || jumps ? EVEN_SPLINE : roundedSpline(splines[k]));
    });
  }
  return playedTracks({ attribute, step, jumps }, keys, span, early);
}

/** Shows an element from one time of the run to another, s; empty if it is always visible. */
export const displayTracks = (from: number, until: number, run: FileRun): Track[] =>
  switchTracks(
    'display',
    [
      ...(from > 0 ? [{ time: 0, text: 'none' }] : []),
      { time: from, text: 'inline' },
      ...(until < run.duration ? [{ time: until, text: 'none' }] : []),
    ],
    run,
  );

/** Switches an attribute at times of the run, s. The first time is 0. Empty if nothing switches. */
export function switchTracks(
  attribute: string,
  switches: readonly { readonly time: number; readonly text: string }[],
  run: FileRun,
): Track[] {
  if (switches.length < 2) return [];
  const keys = switches.map((each) => ({ ...each, spline: EVEN_SPLINE }));
  return playedTracks({ attribute, jumps: true }, keys, run, 0);
}

/** What a track animates. */
interface Said {
  readonly attribute: string;
  readonly step?: Step;
  readonly jumps: boolean;
}

/** Tracks for keys, following the way the file plays. */
function playedTracks(
  said: Said,
  keys: readonly TimedText[],
  { duration, playback, stretch: [from, until] }: FileRun,
  early: number,
): Track[] {
  if (playback === 'back')
    return [keyedTrack(said, thereAndBack(keys, duration, said.jumps), 0, clockOf(0, 2 * duration, true))];
  if (playback !== 'stretch') return [keyedTrack(said, keys, early, clockOf(early, duration, playback === 'loop'))];
  return [
    keyedTrack(said, between(keys, 0, until), 0, clockOf(0, until, false)),
    keyedTrack(said, between(keys, from, until), from, clockOf(until, until - from, true)),
  ];
}

/** The keys between two times, with a key at each of them unless the value is level there. */
function between(keys: readonly TimedText[], from: number, until: number): TimedText[] {
  const near = SAME_SHARE;
  const before = keys.filter(({ time }) => time <= from + near);
  const inside = keys.filter(({ time }) => time > from + near && time < until + near);
  // Of several at the very beginning the last stands from there on.
  const first = before[before.length - 1] ?? keys[0];
  const last = inside[inside.length - 1] ?? first;
  const end = last.time < until - near ? [{ time: until, text: last.text, spline: EVEN_SPLINE }] : [];
  return [{ ...first, time: from }, ...inside, ...end];
}

/** A value that jumps on its way there is what it was, on its way back, a moment longer: so that both ways show the same at the same time. */
const MOMENT = 1e-5;

/** Keys followed by the same keys in reverse. */
function thereAndBack(keys: readonly TimedText[], duration: number, jumps: boolean): TimedText[] {
  if (jumps) {
    const back = keys
      .slice(0, -1)
      .map(({ text }, i) => ({ time: 2 * duration - keys[i + 1].time + MOMENT, text, spline: EVEN_SPLINE }));
    return [...keys, ...back.reverse()];
  }
  const last = keys[keys.length - 1];
  const there = last.time < duration ? [...keys, { time: duration, text: last.text, spline: EVEN_SPLINE }] : keys;
  const back = there.slice(0, -1).map(({ time, text }, i) => ({
    time: 2 * duration - time,
    text,
    spline: reversedSpline(there[i + 1].spline),
  }));
  return [...there, ...back.reverse()];
}

/** When a track begins, how long one of its runs is, s, and whether it begins again; `length` before it was rounded. */
interface Clock extends Pick<Track, 'begin' | 'duration' | 'repeats'> {
  readonly length: number;
}

/** @param from the earliest time of its first key, s */
function keyedTrack(
  { attribute, step, jumps }: Said,
  keys: readonly TimedText[],
  from: number,
  { begin, duration, repeats, length }: Clock,
): Track {
  const shares = keys.map(({ time }) => Math.min(1, Math.max(0, (time - from) / length)));
  const values = keys.map(({ text }) => text);
  const arriving = keys.slice(1).map(({ spline }) => spline);
  const last = shares.length - 1;
  if (!jumps && shares[last] < 1) {
    if (1 - shares[last] > SAME_SHARE) {
      shares.push(1);
      values.push(values[last]);
      arriving.push(EVEN_SPLINE);
    } else shares[last] = 1;
  }
  const curved = !jumps && arriving.some((spline) => spline !== EVEN_SPLINE);
  return {
    attribute,
    ...(step && { step }),
    begin,
    duration,
    repeats,
    jumps,
    times: shares.map(jumps ? jumpTime : rounded),
    values,
    splines: curved ? arriving : [],
  };
}

/** A held step of a transform among moving ones. It starts again with each of their runs, so that the order of the steps is kept. */
export function heldTracks(attribute: string, step: NonNullable<Step>, value: string, span: SpanTime | null): Track[] {
  const track = ({ begin, duration, repeats }: Clock): Track => ({
    ...{ attribute, step, begin, duration, repeats },
    ...{ jumps: false, times: [0, 1], values: [value, value], splines: [] },
  });
  if (!span) return [track(clockOf(0, 1, false))];
  const { duration, playback, stretch } = span;
  if (playback !== 'stretch') return [track(clockOf(0, duration, playback !== 'once'))];
  const [from, until] = stretch;
  return [track(clockOf(0, until, false)), track(clockOf(until, until - from, true))];
}

/**
 * A run that began before 0 begins again when what it shows is no longer seen: never before that, however its numbers are rounded, or its first value would
 * flash up.
 */
function clockOf(begin: number, length: number, repeats: boolean): Clock {
  const duration = rounded(length);
  return { begin: rounded(begin < 0 ? roundedUp(begin + length - duration) : begin), duration, repeats, length };
}

/** Numbers nearer than this share of the last decimal to a rounded one are it. */
const SLACK = 1e-3;
const UNIT = 10 ** TIME_DIGITS;
const roundedUp = (value: number): number => Math.ceil(value * UNIT - SLACK) / UNIT;
/** What jumps does so at its time or a moment before, never after what it makes way for is gone. */
const jumpTime = (time: number): number => rounded(Math.floor(time * UNIT + SLACK) / UNIT);
const rounded = (time: number): number => Number(numberText(time, TIME_DIGITS));

function roundedSpline([x1, y1, x2, y2]: KeySpline): KeySpline {
  if (Math.abs(x1 - y1) < 1e-6 && Math.abs(x2 - y2) < 1e-6) return EVEN_SPLINE;
  const [a, b, c, d] = [x1, y1, x2, y2].map((v) => Number(numberText(v, SPLINE_DIGITS)));
  return a === 0 && b === 0 && c === 1 && d === 1 ? EVEN_SPLINE : [a, b, c, d];
}

/** The same curve in reverse. */
const reversedSpline = (spline: KeySpline): KeySpline =>
  spline === EVEN_SPLINE ? spline : roundedSpline([1 - spline[2], 1 - spline[3], 1 - spline[0], 1 - spline[1]]);
