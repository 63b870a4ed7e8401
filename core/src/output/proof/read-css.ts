import { EVEN_SPLINE, type KeySpline } from '../../easing';
import type { SvgStep } from '../../lane';
import { readAnimatedDocument } from '../document/animated-document';
import type { DrawnElement, Track } from '../tree/drawn-element';

/** Keyframes of one property. */
interface Keyframes {
  readonly property: string;
  readonly times: readonly number[];
  readonly values: readonly string[];
  readonly splines: readonly KeySpline[];
  readonly jumps: boolean;
}

/** Properties that move something, in the order in which they apply, and what each does. `transform` holds what has no property of its own. */
const CSS_STEPS = [
  ['translate', 'translate'],
  ['rotate', 'rotate'],
  ['scale', 'scale'],
  ['transform', 'skewX'],
] as const satisfies readonly (readonly [property: string, step: SvgStep])[];

/**
 * Reads an SVG, or a page with one, that is animated by CSS in the way of this program: class rules with `animation`, and keyframes of one property each. What
 * moves becomes tracks of the elements, as if the file were animated by SVG itself.
 *
 * @throws CoreError as `readAnimatedDocument`
 */
export function readCssDrawing(text: string): DrawnElement {
  const begin = text.indexOf('<svg');
  const end = text.lastIndexOf('</svg>');
  const { root } = readAnimatedDocument(text.slice(begin, end + '</svg>'.length));
  const sheet = root.children
    .filter(({ name }) => name === 'style')
    .map((style) => style.text)
    .join('\n');
  const keyframes = new Map<string, Keyframes>();
  for (const [, name, body] of sheet.matchAll(/@keyframes\s+([\w-]+)\s*\{((?:[^{}]*\{[^{}]*\})*)\s*\}/g))
    keyframes.set(name, readKeyframes(body));
  const rules = new Map<string, ReadonlyMap<string, string>>();
  for (const [, name, body] of sheet.matchAll(/(?:^|\n)\.([\w-]+)\s*\{([^{}]*)\}/g))
    rules.set(name, declarations(body));
  return moved(withoutKeyframes(root), rules, keyframes);
}

/** The rest of style sheets: what was taken from them need not be read again for each look at a shape. */
const withoutKeyframes = (root: DrawnElement): DrawnElement => ({
  ...root,
  children: root.children.map((child) =>
    child.name === 'style'
      ? { ...child, text: child.text.replace(/@keyframes\s+[\w-]+\s*\{(?:[^{}]*\{[^{}]*\})*\s*\}/g, '') }
      : child,
  ),
});

/** Declarations of a rule; a semicolon within quotes or brackets divides nothing. */
export function declarations(body: string): Map<string, string> {
  const found = new Map<string, string>();
  for (const [, name, value] of body.matchAll(/([\w-]+)\s*:\s*((?:"[^"]*"|\([^()]*(?:\([^()]*\)[^()]*)*\)|[^;"(])+)/g))
    found.set(name, value.trim());
  return found;
}

/** The frames of one keyframes rule, `body` between its braces. */
export function readKeyframes(body: string): Keyframes {
  const times: number[] = [];
  const values: string[] = [];
  const splines: KeySpline[] = [];
  let property = '';
  let jumps = false;
  for (const [, percent, inside] of body.matchAll(/([\d.]+)%\s*\{([^{}]*)\}/g)) {
    const said = declarations(inside);
    const timing = said.get('animation-timing-function');
    const [name, value] = [...said].find(([key]) => key !== 'animation-timing-function') ?? ['', ''];
    property = name;
    times.push(Number(percent) / 100);
    values.push(plainValue(value));
    jumps ||= timing === 'step-end';
    splines.push(curveOf(timing ?? '') ?? EVEN_SPLINE);
  }
  return { property, times, values, splines: splines.slice(0, -1), jumps };
}

/** The numbers of a curve; undefined where it is none, as CSS leaves out what it does not understand. */
function curveOf(timing: string): KeySpline | undefined {
  const numbers = /cubic-bezier\(([^)]*)\)/.exec(timing)?.[1].split(',').map(Number);
  if (numbers?.length !== 4 || !numbers.every(Number.isFinite)) return undefined;
  const [x1, y1, x2, y2] = numbers;
  return x1 >= 0 && x1 <= 1 && x2 >= 0 && x2 <= 1 ? [x1, y1, x2, y2] : undefined;
}

/** A value as an attribute of SVG has it. */
const plainValue = (value: string): string =>
  (/^(?:path\("|skewX\()(.*?)"?\)$/.exec(value)?.[1] ?? value).replace(/(-?[\d.]+)(?:px|deg)/g, '$1');

function moved(
  element: DrawnElement,
  rules: ReadonlyMap<string, ReadonlyMap<string, string>>,
  keyframes: ReadonlyMap<string, Keyframes>,
): DrawnElement {
  const children = element.children.map((child) => moved(child, rules, keyframes));
  const rule = rules.get(element.attributes.class ?? '');
  if (!rule) return { ...element, children };
  const tracks = (rule.get('animation') ?? '')
    .split(/,(?![^(]*\))/)
    .flatMap((text) => trackOf(text.trim(), keyframes) ?? []);
  const attributes: Record<string, string> = { ...element.attributes };
  const steps = CSS_STEPS.filter(([property]) => rule.has(property));
  if (steps.length === 0) return { ...element, attributes, children, tracks: [...element.tracks, ...tracks] };
  // Transforms 2, 13: translate, rotate and scale apply in this order, then `transform`, about the origin.
  const [px, py] = (rule.get('transform-origin') ?? '0 0').split(' ').map(Number.parseFloat);
  const placed = (value: string): string => {
    const [x, y = 0] = value.split(' ').map(Number.parseFloat);
    return `${x + px} ${y + py}`;
  };
  const all: Track[] = [];
  const still = (value: string): Omit<Track, 'attribute' | 'step'> => ({
    begin: 0,
    duration: 1,
    repeats: false,
    jumps: false,
    times: [0, 1],
    values: [value, value],
    splines: [],
  });
  for (const [property, step] of CSS_STEPS) {
    const said = rule.get(property);
    if (said === undefined && !(step === 'translate' && (px !== 0 || py !== 0))) continue;
    const value = plainValue(said ?? '0 0');
    const say = (text: string): string => (step === 'translate' ? placed(text) : text);
    const moving = tracks.filter(({ attribute }) => attribute === property);
    const base: Omit<Track, 'attribute' | 'step'>[] = moving.length > 0 ? moving : [still(value)];
    // Of two that follow each other the later one holds from when it begins.
    all.push(
      ...base.map((track) => ({
        ...track,
        attribute: 'transform',
        step: { type: step, sum: all.length > 0 },
        values: track.values.map(say),
      })),
    );
  }
  if (px !== 0 || py !== 0)
    all.push({ ...still(`${-px} ${-py}`), attribute: 'transform', step: { type: 'translate', sum: true } });
  const rest = tracks.filter(({ attribute }) => !CSS_STEPS.some(([property]) => property === attribute));
  return { ...element, attributes, children, tracks: [...element.tracks, ...rest, ...all] };
}

function trackOf(text: string, keyframes: ReadonlyMap<string, Keyframes>): Track | null {
  const [name, ...words] = text.split(/\s+/);
  const frames = keyframes.get(name);
  if (!frames) return null;
  const times = words.filter((word) => /^-?[\d.]+s$/.test(word)).map(Number.parseFloat);
  const { property, ...rest } = frames;
  return {
    ...rest,
    attribute: property,
    begin: times[1] ?? 0,
    duration: times[0],
    repeats: words.includes('infinite'),
  };
}
