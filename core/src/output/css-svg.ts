import type { CompiledPiece } from '../frame';
import { numberText } from '../svg';
import { type AnimatedSvgOptions, CALM_RULES, drawPiece, HIDDEN_RULES } from './animated-svg';
import { cssKeyframes } from './css-keyframes';
import { OWN, safeTitle, withOwnNames } from './own-names';
import { type DrawnElement, drawn, type Track } from './tree/drawn-element';
import { mixable } from './tree/mixable';
import { escapeText, svgText } from './tree/svg-text';

export interface CssOptions extends AnimatedSvgOptions {
  /** A picture, or a page with the picture in it. */
  readonly page?: boolean;
}

/** What CSS can change over time of an SVG, by attribute; the value as CSS has it. */
const CSS_VALUES: Readonly<Record<string, (value: string) => string>> = {
  d: (value) => `path("${value}")`,
  ...Object.fromEntries(
    [
      ...['fill', 'fill-opacity', 'stroke', 'stroke-opacity', 'stroke-linecap', 'stroke-linejoin', 'stroke-miterlimit'],
      ...['stroke-dashoffset', 'opacity', 'stop-color', 'stop-opacity', 'visibility'],
    ].map((name) => [name, (value: string) => value]),
  ),
  'stroke-width': (value) => `${value}px`,
  'stroke-dasharray': (value) => value.replace(/ /g, ','),
  translate: (value) => pair(value, 'px'),
  rotate: (value) => `${value}deg`,
  scale: (value) => value,
  // Of what a transform does CSS has no property for it: it stands in the general one.
  skewX: (value) => `skewX(${value}deg)`,
  filter: (value) => `blur(${value}px)`,
};
const CSS_STEP: Readonly<Record<string, string>> = { skewX: 'transform' };
const pair = (value: string, unit: string): string =>
  value
    .split(' ')
    .map((part) => part + unit)
    .join(' ');

/** What CSS has no property for: where a gradient lies, and where its stops stand. */
export const NO_CSS_PROPERTY = ['gradientTransform', 'x1', 'y1', 'x2', 'y2', 'fx', 'fy', 'offset'] as const;

/**
 * Writes a piece as an SVG, or a page with it, animated by CSS (Animations 1, Transforms 2, Easing 2; the property `d` of SVG 2): the animated SVG with its
 * tracks as keyframes. Transforms are the properties translate, rotate and scale about a transform-origin. What CSS has no property for (where a gradient lies) is
 * animated by SVG's own elements. Where less motion is asked for, a still picture stands in its place (`calmAt`), else the first one.
 */
export function writeCssSvg(compiled: CompiledPiece, options: CssOptions = {}): string {
  const root = drawPiece(compiled, options);
  const sheet = new StyleSheet(blurs(root));
  const body = root.children.filter(({ name }) => name !== 'style').flatMap((child) => sheet.element(child, false));
  const { viewBox, width, height } = root.attributes;
  // Without a picture of its own for it, what moves stands as it was first written where less motion is asked for.
  const calmed = options.calmAt !== undefined && compiled.duration > 0;
  const calm = calmed
    ? `${CALM_RULES}\n`
    : `@media (prefers-reduced-motion:reduce){.${OWN}file *{animation:none!important}}\n`;
  const style = sheet.text && drawn('style', {}, { text: `\n${sheet.text}${calm}` });
  const svg = svgText(
    drawn(
      'svg',
      {
        ...(!options.page && { xmlns: 'http://www.w3.org/2000/svg' }),
        ...(style && { class: `${OWN}file` }),
        ...{ viewBox, width, height },
      },
      { children: style ? [style, ...body] : body },
    ),
    false,
  );
  const title = options.title ?? '';
  const file = options.page
    ? `<!doctype html>\n<html lang="en">\n<meta charset="utf-8">\n<title>${escapeText(safeTitle(title) || 'Piece')}</title>\n${svg}</html>\n`
    : svg;
  return withOwnNames(file, title);
}

/** The tracks of blurs by the id of their filter. */
function blurs(root: DrawnElement): Map<string, { readonly value: string; readonly tracks: readonly Track[] }> {
  const found = new Map<string, { value: string; tracks: readonly Track[] }>();
  for (const defs of root.children.filter(({ name }) => name === 'defs'))
    for (const { name, attributes, children } of defs.children) {
      if (name !== 'filter') continue;
      const [blur] = children;
      found.set(attributes.id, { value: blur.attributes.stdDeviation, tracks: blur.tracks });
    }
  return found;
}

/** The words of CSS for a run of keyframes. */
class StyleSheet {
  text = '';
  private moving = 0;
  private keyframes = 0;
  private readonly known = new Map<string, string>();

  constructor(private readonly filters: ReturnType<typeof blurs>) {}

  /** An element with all that is in it; what moves gets a class of its own. */
  element(whole: DrawnElement, inClip: boolean): DrawnElement[] {
    if (whole.name === 'filter') return [];
    const element = leaningApart(whole);
    const { name, children, text } = element;
    const attributes: Record<string, string> = { ...element.attributes };
    const rules: string[] = [];
    const tracks: Track[] = [];
    const left: Track[] = [];
    for (const track of element.tracks) {
      if (track.attribute === 'transform' || track.attribute === 'gradientTransform') continue;
      if ((NO_CSS_PROPERTY as readonly string[]).includes(track.attribute)) left.push(track);
      else if (track.attribute === 'display') tracks.push(shown(track, inClip));
      else tracks.push(track);
    }
    for (const track of element.tracks) if (track.attribute === 'gradientTransform') left.push(track);
    // What is hidden at first, until its animation says otherwise.
    const first = firstState(attributes.class);
    if (first) delete attributes.class;
    const hidden = first && (first === 'not-seen' || inClip ? HIDDEN_RULES['not-seen'] : 'opacity:0');
    const transforms = element.tracks.filter(({ attribute }) => attribute === 'transform');
    if (transforms.length > 0) {
      const [rule, moving] = transformRule(attributes.transform, transforms);
      delete attributes.transform;
      rules.push(rule);
      tracks.push(...moving);
    }
    const filter = this.filters.get(/^url\(#(.*)\)$/.exec(attributes.filter ?? '')?.[1] ?? '');
    if (filter) {
      delete attributes.filter;
      rules.push(`filter:blur(${filter.value}px)`);
      tracks.push(...filter.tracks.map((track) => ({ ...track, attribute: 'filter' })));
    }
    if (tracks.length > 0) rules.push(`animation:${tracks.map((track) => this.animation(track)).join(',')}`);
    if (rules.length > 0) {
      attributes.class = `${OWN}m${++this.moving}`;
      this.text += `.${attributes.class}{${rules.join(';')}}\n`;
      if (hidden) this.text += `@media all{.${attributes.class}{${hidden}}}\n`;
    }
    const clip = inClip || name === 'clipPath';
    const inside = children.flatMap((child) => this.element(child, clip));
    return name === 'defs' && inside.length === 0
      ? []
      : [drawn(name, attributes, { text, tracks: left, children: inside })];
  }

  private animation(track: Track): string {
    const { begin, duration, repeats } = track;
    const say = CSS_VALUES[track.attribute];
    const frames = cssKeyframes(CSS_STEP[track.attribute] ?? track.attribute, {
      ...track,
      values: mixable(track.attribute, track.step?.type, track.values).map(say),
    });
    let name = this.known.get(frames);
    if (!name) {
      name = `${OWN}k${++this.keyframes}`;
      this.known.set(frames, name);
      this.text += `@keyframes ${name}{${frames}}\n`;
    }
    const n = (value: number): string => `${numberText(value, 6)}s`;
    return `${name} ${n(duration)}${begin === 0 ? '' : ` ${n(begin)}`} linear${repeats ? ' infinite' : ''} forwards`;
  }
}

/**
 * CSS applies `transform`, in which what leans stands, after the properties translate, rotate and scale: what is scaled inside what leans is a group of its own.
 */
function leaningApart(element: DrawnElement): DrawnElement {
  const steps = stepsOf(element.attributes.transform ?? '');
  const at = steps.findIndex(({ type }) => type === 'skewX');
  const moving = element.tracks.filter(({ attribute }) => attribute === 'transform');
  if (moving.length === 0 || at < 0 || !steps.slice(at + 1).some(({ type }) => type === 'scale')) return element;
  const back = steps[steps.length - 1].value;
  const there = back
    .split(' ')
    .map((part) => numberText(-Number(part), 4))
    .join(' ');
  const text = (parts: readonly { type: string; value: string }[]): string =>
    parts.map(({ type, value }) => `${type}(${value})`).join(' ');
  const [outer, inner] = [steps.slice(0, at + 1), steps.slice(at + 1, -1)];
  const isInner = ({ step }: Track): boolean => step?.type === 'scale';
  const group: DrawnElement = {
    name: 'g',
    text: '',
    attributes: { transform: `translate(${there}) ${text(inner)} translate(${back})` },
    children: element.children,
    tracks: moving.filter(isInner),
  };
  return {
    ...element,
    attributes: { ...element.attributes, transform: `${text(outer)} translate(${back})` },
    tracks: element.tracks.filter((track) => !isInner(track)),
    children: [group],
  };
}

const stepsOf = (transform: string): { type: string; value: string }[] =>
  [...transform.matchAll(/(\w+)\(([^)]*)\)/g)].map(([, type, value]) => ({ type, value }));

/** Is an element hidden at first, and how? */
function firstState(name: string | undefined): keyof typeof HIDDEN_RULES | null {
  const own = name?.replace(OWN, '');
  return own === 'not-yet' || own === 'not-seen' ? own : null;
}

/** What is not displayed has no part in CSS animation; what is not to be seen has. */
function shown(track: Track, inClip: boolean): Track {
  const words = inClip ? { none: 'hidden', inline: 'visible' } : { none: '0', inline: '1' };
  return {
    ...track,
    attribute: inClip ? 'visibility' : 'opacity',
    jumps: true,
    values: track.values.map((value) => (value === 'none' ? words.none : words.inline)),
  };
}

/** A transform of steps as rules, and the tracks of its properties. */
function transformRule(transform: string, tracks: readonly Track[]): [string, Track[]] {
  const steps = stepsOf(transform);
  const about = steps.length > 1 && steps[steps.length - 1].type === 'translate';
  const [px, py] = about ? steps[steps.length - 1].value.split(' ').map((part) => -Number(part)) : [0, 0];
  const placed = (value: string): string => {
    const [x, y] = value.split(' ').map(Number);
    return `${numberText(x - px, 4)} ${numberText(y - py, 4)}`;
  };
  const own = about ? steps.slice(0, -1) : steps;
  const rules = own.map(({ type, value }) => {
    const at = type === 'translate' ? placed(value) : value;
    return `${CSS_STEP[type] ?? type}:${CSS_VALUES[type](at)}`;
  });
  if (about) rules.push(`transform-origin:${numberText(px, 4)}px ${numberText(py, 4)}px`);
  const moving = tracks
    .filter(({ values }) => values.some((value) => value !== values[0]))
    .map((track): Track => {
      const type = track.step?.type ?? 'translate';
      const values = type === 'translate' ? track.values.map(placed) : track.values;
      return { ...track, attribute: type, values };
    });
  return [rules.join(';'), moving];
}
