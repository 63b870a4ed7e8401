import { SaxesParser } from 'saxes';
import { EVEN_SPLINE, type KeySpline } from '../../easing';
import { CoreError } from '../../errors';
import { SVG_STEPS, type SvgStep } from '../../lane';
import type { Playback } from '../../piece';
import type { DrawnElement, Track } from '../tree/drawn-element';
import { mixable } from '../tree/mixable';
import { type Runs, readBegins, runsOfAnimations, type TimedAnimation } from './begin-times';

/** A drawing as a file says it, and what of it was not understood. */
export interface AnimatedDocument {
  readonly root: DrawnElement;
  readonly notes: readonly string[];
  /** Frames per second, where the file says it. */
  readonly rate?: number;
  /** How it plays, where the file says it: its length, s, and from when on it plays again. Else its animations say it. */
  readonly run?: { readonly duration: number; readonly playback: Playback; readonly from: number };
}

export const DOCUMENT_BYTE_LIMIT = 40 * 1024 * 1024;
const MOST_ELEMENTS = 200_000;
const MOST_DEPTH = 200;

interface OpenElement extends DrawnElement {
  readonly children: OpenElement[];
  readonly tracks: Track[];
  text: string;
}

/**
 * Reads an SVG with declarative animation (SVG Animations 2): elements with their attributes, and the animations inside them as tracks. Whatever is no
 * animation by keys of time (events, motion along a path, accumulation) is named in the notes.
 *
 * @throws CoreError 'svg-syntax', 'svg-not-svg', 'svg-unsafe', 'svg-too-complex', 'file-too-large'
 */
export function readAnimatedDocument(text: string): AnimatedDocument {
  if (text.length > DOCUMENT_BYTE_LIMIT)
    throw new CoreError(
      'file-too-large',
      `Expected an SVG of at most ${DOCUMENT_BYTE_LIMIT / 1024 / 1024} MB; this one has ${(text.length / 1024 / 1024).toFixed(1)} MB.`,
    );
  const parser = new SaxesParser();
  const notes = new Set<string>();
  const open: OpenElement[] = [];
  /** What style attributes declare: many elements ask for those around them. */
  const styles = new Map<string, ReadonlyMap<string, string>>();
  const animations: {
    readonly element: OpenElement;
    readonly parent: OpenElement;
    readonly base: string | undefined;
  }[] = [];
  let root: OpenElement | null = null;
  let count = 0;
  parser.on('error', (error) => {
    throw new CoreError('svg-syntax', `Expected an SVG in XML; ${error.message}.`);
  });
  parser.on('doctype', (doctype) => {
    if (doctype.includes('<!ENTITY'))
      throw new CoreError('svg-unsafe', 'Expected an SVG without entities of its own; found <!ENTITY.');
  });
  parser.on('opentag', ({ name, attributes }) => {
    if (++count > MOST_ELEMENTS || open.length > MOST_DEPTH)
      throw new CoreError(
        'svg-too-complex',
        `Expected at most ${MOST_ELEMENTS} elements, ${MOST_DEPTH} deep; found more.`,
      );
    const element: OpenElement = {
      name: localName(name),
      attributes: attributes as Record<string, string>,
      children: [],
      tracks: [],
      text: '',
    };
    if (!root && element.name !== 'svg')
      throw new CoreError('svg-not-svg', `Expected the element svg first; found ${element.name.slice(0, 40)}.`);
    root ??= element;
    open.push(element);
  });
  parser.on('text', (part) => {
    const element = open[open.length - 1];
    if (element) element.text += part;
  });
  parser.on('cdata', (part) => {
    const element = open[open.length - 1];
    if (element) element.text += part;
  });
  parser.on('closetag', () => {
    const element = open.pop();
    const parent = open[open.length - 1];
    if (!element || !parent) return;
    if (ANIMATIONS.has(element.name))
      animations.push({ element, parent, base: baseValue(open, element.attributes.attributeName, styles) });
    else parent.children.push(element);
  });
  parser.write(text).close();
  if (!root) throw new CoreError('svg-not-svg', 'Expected the element svg; the file has no element.');
  const runs = runsOfAnimations(animations.map(({ element }) => timedOf(element)));
  animations.forEach(({ element, parent, base }, i) => {
    const track = trackOf(element, base, runs[i]);
    if (typeof track === 'string') notes.add(track);
    else parent.tracks.push(track);
  });
  return { root, notes: [...notes] };
}

/** Attributes of an element that are not those of what is inside it. */
const OWN =
  /^(?:opacity|transform|d|r|rx|ry|c[xy]|[xy][12]?|width|height|points|offset|stop-|clip-path|mask|filter|display)/;
/** What attributes are where nobody says anything. */
const INITIAL: Readonly<Record<string, string>> = {
  opacity: '1',
  'fill-opacity': '1',
  'stroke-opacity': '1',
  'stop-opacity': '1',
  'stroke-width': '1',
  'stroke-dashoffset': '0',
  'stroke-miterlimit': '4',
  fill: '#000000',
  ...Object.fromEntries('r rx ry cx cy x y x1 y1 x2 y2 width height offset'.split(' ').map((name) => [name, '0'])),
};

/** What an attribute is without its animation: the element's own, else that of the nearest element around it, where it is inherited. */
function baseValue(
  around: readonly OpenElement[],
  attribute: string | undefined,
  styles: Map<string, ReadonlyMap<string, string>>,
): string | undefined {
  if (attribute === undefined) return undefined;
  const reach = OWN.test(attribute) ? around.slice(-1) : around;
  for (let i = reach.length - 1; i >= 0; i--) {
    const { attributes } = reach[i];
    const own = (attributes.style && styleOf(attributes.style, styles).get(attribute)) || attributes[attribute];
    if (own !== undefined) return own;
  }
  return INITIAL[attribute];
}

/** The declarations of a style attribute; `styles` keeps those that were looked into. */
function styleOf(text: string, styles: Map<string, ReadonlyMap<string, string>>): ReadonlyMap<string, string> {
  let known = styles.get(text);
  if (known) return known;
  known = new Map(
    text.split(';').flatMap((part): [string, string][] => {
      const colon = part.indexOf(':');
      return colon < 0 ? [] : [[part.slice(0, colon).trim(), part.slice(colon + 1).trim()]];
    }),
  );
  styles.set(text, known);
  return known;
}

/** When an animation element begins, and how long it runs. */
function timedOf({ attributes }: DrawnElement): TimedAnimation {
  const duration = seconds(attributes.dur ?? '');
  const endless = attributes.repeatCount === 'indefinite' || attributes.repeatDur === 'indefinite';
  return {
    id: attributes.id,
    begins: readBegins(attributes.begin, seconds),
    lasts: endless || duration === null ? Number.POSITIVE_INFINITY : duration * (roundsOf(attributes, duration) ?? 1),
  };
}

const ANIMATIONS = new Set(['animate', 'animateTransform', 'animateMotion', 'animateColor', 'set']);
const localName = (name: string): string => name.slice(name.indexOf(':') + 1);

/** The track of an animation element, or why it has none. */
function trackOf({ name, attributes }: DrawnElement, base: string | undefined, runs: Runs | null): Track | string {
  const attribute = attributes.attributeName;
  if (name === 'animateMotion') return 'Motion along a path (animateMotion) is not taken.';
  if (!attribute) return `An animation without attributeName (${name}) is not taken.`;
  if (!runs) return `An animation that begins by an event (${clipped(attributes.begin)}) is not taken.`;
  if (runs.irregular)
    return `An animation that begins at no regular times (${clipped(attributes.begin)}) is not taken.`;
  const { begin, period } = runs;
  const duration = seconds(attributes.dur ?? '');
  const repeats = attributes.repeatCount === 'indefinite' || attributes.repeatDur === 'indefinite';
  const values = valuesOf(attributes, base);
  if (values && values.length > MOST_KEYS)
    throw new CoreError(
      'svg-too-complex',
      `Expected at most ${MOST_KEYS.toLocaleString('en')} keys of an animation; that of ${clipped(attribute)} has ${values.length.toLocaleString('en')}.`,
    );
  if (values === null) return `An animation of ${clipped(attribute)} without values is not taken.`;
  if (attributes.accumulate === 'sum') return `An animation of ${clipped(attribute)} that adds up is not taken.`;
  const whole = name === 'set' ? { times: [0], values: [values[values.length - 1]] } : undefined;
  if (!whole && !(duration !== null && duration > 0))
    return `An animation of ${clipped(attribute)} without a duration is not taken.`;
  const mode = name === 'set' ? 'discrete' : (attributes.calcMode ?? 'linear');
  const jumps = mode === 'discrete' || JUMPING.has(attribute);
  const times = whole?.times ?? timesOf(attributes.keyTimes, values.length, jumps);
  if (!times) return `An animation of ${clipped(attribute)} whose times do not fit its values is not taken.`;
  const splines = mode === 'spline' ? splinesOf(attributes.keySplines, values.length - 1) : [];
  if (!splines) return `An animation of ${clipped(attribute)} whose splines do not fit its values is not taken.`;
  const rounds = repeats ? 1 : roundsOf(attributes, duration ?? 1);
  if (rounds === null)
    return `An animation of ${clipped(attribute)} that is played more than ${MOST_ROUNDS} times is not taken.`;
  const type = attributes.type as SvgStep | undefined;
  if (name === 'animateTransform' && !(type && SVG_STEPS.includes(type)))
    return `A transform that ${clipped(attributes.type)}s over time is not taken.`;
  const keys = played(rounds, {
    duration: duration ?? 1,
    times,
    values: mixable(attribute, type, whole?.values ?? values),
    splines,
  });
  const passes = name !== 'set' && !repeats && attributes.fill !== 'freeze';
  const track: Track = {
    attribute,
    ...(name === 'animateTransform' && type && { step: { type, sum: attributes.additive === 'sum' } }),
    begin,
    repeats,
    jumps,
    ...(passes && { active: keys.duration }),
    ...keys,
  };
  return period === null ? track : everyPeriod(track, period);
}

/** A track that begins again and again. */
function everyPeriod(track: Track, period: number): Track {
  const share = Math.min(1, track.duration / period);
  return { ...track, repeats: true, restarts: true, duration: period, times: track.times.map((time) => time * share) };
}

/** Keys that one animation may have: a key for each frame of five minutes. */
const MOST_KEYS = 20_000;
/** A file that plays something more often than this by numbers is not taken to do so. */
const MOST_ROUNDS = 60;

/** How often an animation is played; null: too often. */
function roundsOf({ repeatCount, repeatDur }: Readonly<Record<string, string>>, duration: number): number | null {
  const lasts = seconds(repeatDur ?? '');
  const said = Math.min(
    repeatCount === undefined ? Number.POSITIVE_INFINITY : Number(repeatCount),
    lasts === null ? Number.POSITIVE_INFINITY : lasts / duration,
  );
  const rounds = said > 0 && said < Number.POSITIVE_INFINITY ? said : 1;
  return rounds > MOST_ROUNDS ? null : rounds;
}

/** Keys played a number of times, the last of them perhaps in part. */
function played(
  rounds: number,
  { duration, times, values, splines }: Pick<Track, 'duration' | 'times' | 'values' | 'splines'>,
): Pick<Track, 'duration' | 'times' | 'values' | 'splines'> {
  if (rounds === 1) return { duration, times, values, splines };
  const whole = Array.from({ length: Math.ceil(rounds) }, (_, k) => k);
  // Between one round and the next it jumps: two keys of one time.
  return {
    duration: duration * rounds,
    times: whole.flatMap((k) => times.map((time) => (k + time) / rounds)),
    values: whole.flatMap(() => values),
    splines: splines.length === 0 ? [] : whole.flatMap((k) => (k === 0 ? splines : [EVEN_SPLINE, ...splines])),
  };
}

/** Attributes that have no values between two others. */
const JUMPING = new Set(['display', 'visibility', 'stroke-linecap', 'stroke-linejoin', 'fill-rule', 'clip-rule']);

const clipped = (text: string | undefined): string => (text ?? 'nothing').slice(0, 40);

function valuesOf(attributes: Readonly<Record<string, string>>, base: string | undefined): string[] | null {
  const list = attributes.values
    ?.split(';')
    .map((value) => value.trim())
    .filter((value, i, all) => value !== '' || i < all.length - 1);
  if (list && list.length > 0) return list;
  const from = attributes.from ?? base;
  const { to } = attributes;
  if (to === undefined) return null;
  return from === undefined ? [to] : [from, to];
}

/** Clock values of SMIL: 2s, 250ms, 1.5min, 00:02.5. @returns null for anything else */
function seconds(text: string): number | null {
  const value = clockValue(text);
  return value !== null && Math.abs(value) <= LONGEST_S ? value : null;
}

/** Nothing that is drawn to be watched takes longer, s. */
const LONGEST_S = 86_400;

function clockValue(text: string): number | null {
  const parts = text.trim().split(':');
  if (parts.length > 1) {
    const numbers = parts.map(Number);
    return numbers.every(Number.isFinite) ? numbers.reduce((sum, part) => 60 * sum + part, 0) : null;
  }
  const found = /^([+-]?(?:\d+\.?\d*|\.\d+))(s|ms|min|h)?$/.exec(text.trim());
  return found ? Number(found[1]) * UNIT_SECONDS[(found[2] ?? 's') as keyof typeof UNIT_SECONDS] : null;
}
const UNIT_SECONDS = { s: 1, ms: 1e-3, min: 60, h: 3600 };

function timesOf(text: string | undefined, count: number, jumps: boolean): number[] | null {
  if (text === undefined) return Array.from({ length: count }, (_, k) => k / Math.max(1, jumps ? count : count - 1));
  const times = text.split(';').filter(Boolean).map(Number);
  const ascending = times.every((time, k) => time >= (k === 0 ? 0 : times[k - 1]) && time <= 1);
  return times.length === count && ascending ? times : null;
}

function splinesOf(text: string | undefined, count: number): KeySpline[] | null {
  const splines = (text ?? '')
    .split(';')
    .map((part) => part.trim())
    .filter(Boolean)
    .map((part) => part.split(/[\s,]+/).map(Number));
  const fits = splines.length === count && splines.every((each) => each.length === 4 && each.every(Number.isFinite));
  return fits ? splines.map((each) => each as unknown as KeySpline) : null;
}
