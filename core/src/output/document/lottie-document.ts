import { CoreError } from '../../errors';
import { DRAWN_ROUND, type SvgStep } from '../../lane';
import { numberText } from '../../svg';
import type { DrawnElement, Track } from '../tree/drawn-element';
import type { AnimatedDocument } from './animated-document';
import { ReadingBudget } from './budget';
import { isObject, type Json, number, numbers, objects, scalar } from './json';
import { named, withinInner } from './layer-groups';
import { modernLottie } from './lottie-dialects';
import { type Combined, combinedOf, type FrameClock } from './lottie-keys';
import { addsNothing, colourText, ellipseText, outlineText, rectangleText, UNTAKEN } from './lottie-shapes';
import { isKeyed, rateOf, readLottieFile, valueAt } from './lottie-value';

const MOST_DEPTH = 24;
const MOST_ELEMENTS = 20_000;
const DIGITS = 6;
/**
 * Reads a Lottie file (Lottie Specification 1.0, Lottie Animation Community) as a drawing: layers and groups are groups, paths and styles are paths, keys are tracks, mattes are clip
 * paths. What is not taken is told in the notes.
 *
 * @throws CoreError 'file-too-large', 'json-syntax', 'svg-too-complex'
 */
export function readLottieDocument(text: string, budget = new ReadingBudget()): AnimatedDocument {
  const { file, notes } = modernLottie(readLottieFile(text));
  const read = new LottieReader(file, budget).document();
  return { ...read, notes: [...notes, ...read.notes] };
}

/** A path before it has a style: its outline over time, and the groups that lie between it and its style. */
interface PathItem {
  readonly properties: readonly unknown[];
  readonly outline: (values: readonly unknown[]) => string;
  readonly around: readonly Json[];
  readonly trim: Json | null;
}

class LottieReader {
  private readonly notes = new Set<string>();
  private readonly assets: ReadonlyMap<string, Json>;
  private readonly defs: DrawnElement[] = [];
  private count = 0;
  private ids = 0;

  constructor(
    private readonly file: Json,
    private readonly budget: ReadingBudget,
  ) {
    this.assets = new Map(objects(file.assets).map((asset) => [String(asset.id), asset]));
  }

  document(): AnimatedDocument {
    const { file } = this;
    const rate = rateOf(file);
    const first = number(file.ip);
    const frames = Math.max(1, number(file.op) - first);
    const clock: FrameClock = { offset: -first, stretch: 1, rate, frames, budget: this.budget };
    const [width, height] = [number(file.w, 300), number(file.h, 300)].map((v) => numberText(Math.max(1, v), 3));
    const layers = this.layers(objects(file.layers), clock, 0);
    const root = this.element('svg', { width, height, viewBox: `0 0 ${width} ${height}` }, [
      this.element('defs', {}, this.defs),
      ...layers,
    ]);
    const again = objects(file.markers).find(({ cm, dr }) => cm === 'again' && number(dr) > 0);
    const duration = frames / rate;
    return {
      root,
      notes: [...this.notes],
      rate,
      run: again
        ? { duration, playback: 'stretch', from: Math.min(duration, Math.max(0, number(again.tm) - first) / rate) }
        : { duration, playback: 'loop', from: 0 },
    };
  }

  /** Layers, the lowest first. Those that show one figure one after another, as this program writes them, are one group. */
  private layers(layers: readonly Json[], clock: FrameClock, depth: number): DrawnElement[] {
    if (depth > MOST_DEPTH) {
      this.notes.add(`Compositions inside each other are taken ${MOST_DEPTH} deep: what lies deeper was left out.`);
      return [];
    }
    const byIndex = new Map(layers.map((layer) => [number(layer.ind, -1), layer]));
    const out: DrawnElement[] = [];
    let before: { key: string; element: DrawnElement } | undefined;
    for (let i = layers.length - 1; i >= 0; i--) {
      const layer = layers[i];
      if (layer.hd === true || layer.td === 1) continue;
      const content = this.content(layer, clock, depth);
      if (content.length === 0) continue;
      const shown = this.shown(layer, clock, content);
      const matte = this.matteOf(layers, i, byIndex);
      const clip = matte && this.clipOf(matte, clock, depth, byIndex);
      const key = clip ? '' : JSON.stringify([layer.nm, layer.ks, layer.parent]);
      if (before && key !== '' && before.key === key) {
        const last = out.pop() as DrawnElement;
        const element = withinInner(last, shown);
        out.push(element);
        before = { key, element };
        continue;
      }
      const moved = this.placed(layer, clock, byIndex, [shown]);
      const element = clip ? this.element('g', { 'clip-path': clip }, [moved]) : moved;
      out.push(named(element, layer.nm));
      before = { key, element };
    }
    return out;
  }

  /** What a layer draws, before it is placed. */
  private content(layer: Json, clock: FrameClock, depth: number): DrawnElement[] {
    if (layer.ddd === 1) this.notes.add('Layers in three dimensions were taken as flat.');
    if (objects(layer.ef).length > 0) this.notes.add('Effects of layers were left out.');
    if (number(layer.bm) !== 0) this.notes.add('Ways in which layers are laid over others were left out.');
    if (number(layer.ao) !== 0) this.notes.add('A layer that turns along its path by itself was taken without.');
    const masks = objects(layer.masksProperties).filter(({ mode }) => mode !== 'n');
    const content = this.unmasked(layer, clock, depth);
    if (masks.length === 0 || content.length === 0) return content;
    if (masks.some(({ mode, inv }) => mode !== 'a' || inv === true)) {
      this.notes.add('Masks that take away, or are turned inside out, were left out.');
      return content;
    }
    const areas = masks.map(({ pt }) => this.path(this.pathItem('sh', { ks: pt }), clock, { fill: '#000000' }));
    return [this.element('g', { 'clip-path': this.clipPath(areas) }, content)];
  }

  private unmasked(layer: Json, clock: FrameClock, depth: number): DrawnElement[] {
    switch (number(layer.ty, -1)) {
      case 0: {
        const asset = this.assets.get(String(layer.refId));
        if (layer.tm !== undefined)
          this.notes.add('A composition whose time runs by itself was taken as if it did not.');
        const stretch = number(layer.sr, 1) || 1;
        const inner = {
          ...clock,
          offset: clock.offset + number(layer.st) * clock.stretch,
          stretch: clock.stretch * stretch,
        };
        return asset ? this.layers(objects(asset.layers), inner, depth + 1) : [];
      }
      case 1: {
        const [w, h] = [number(layer.sw), number(layer.sh)].map((v) => numberText(v, 3));
        return [this.element('rect', { width: w, height: h, fill: String(layer.sc ?? '#000000') }, [])];
      }
      case 3:
        return [];
      case 4:
        return this.items(objects(layer.shapes), clock, depth).elements;
      default:
        this.notes.add(
          layer.ty === 5
            ? 'Text was left out: it has no outlines in the file.'
            : layer.ty === 2
              ? 'Pictures were left out.'
              : 'A layer of another kind was left out.',
        );
        return [];
    }
  }

  /** A layer where it stands, with the layers that carry it. */
  private placed(
    layer: Json,
    clock: FrameClock,
    byIndex: ReadonlyMap<number, Json>,
    content: readonly DrawnElement[],
  ): DrawnElement {
    let element = this.transformed(isObject(layer.ks) ? layer.ks : {}, clock, content, true);
    const seen = new Set<Json>([layer]);
    for (
      let next = byIndex.get(number(layer.parent, -2));
      next && !seen.has(next);
      next = byIndex.get(number(next.parent, -2))
    ) {
      seen.add(next);
      element = this.transformed(isObject(next.ks) ? next.ks : {}, clock, [element], false);
    }
    return element;
  }

  private shown(layer: Json, clock: FrameClock, content: readonly DrawnElement[]): DrawnElement {
    const at = (frame: number): number => (clock.offset + frame * clock.stretch) / clock.frames;
    const [from, until] = [at(number(layer.ip)), at(number(layer.op, clock.frames))];
    if (from <= 0 && until >= 1) return this.element('g', {}, content);
    const track: Track = {
      ...whole(clock),
      attribute: 'display',
      jumps: true,
      times: [0, Math.max(0, from), Math.min(1, until)],
      values: [from > 0 ? 'none' : 'inline', 'inline', 'none'],
      splines: [],
    };
    return this.element('g', {}, content, [track]);
  }

  /** The layer inside which another one is seen; undefined for none. */
  private matteOf(layers: readonly Json[], i: number, byIndex: ReadonlyMap<number, Json>): Json | undefined {
    const kind = number(layers[i].tt);
    if (kind === 0) return undefined;
    const matte = layers[i].tp !== undefined ? byIndex.get(number(layers[i].tp)) : layers[i - 1];
    if (kind === 1 && matte) return matte;
    this.notes.add('A matte by brightness, or turned inside out, was left out.');
    return undefined;
  }

  private clipOf(
    matte: Json,
    clock: FrameClock,
    depth: number,
    byIndex: ReadonlyMap<number, Json>,
  ): string | undefined {
    const content = this.content(matte, clock, depth);
    if (content.length === 0) return undefined;
    return this.clipPath([this.placed(matte, clock, byIndex, [this.shown(matte, clock, content)])]);
  }

  private clipPath(content: readonly DrawnElement[]): string {
    const id = `inside-${++this.ids}`;
    this.defs.push(this.element('clipPath', { id }, content));
    return `url(#${id})`;
  }

  /** Items of a group, topmost first in the file: what is drawn, the lowest first, and the paths that styles outside may paint. */
  private items(
    items: readonly Json[],
    clock: FrameClock,
    depth: number,
  ): { elements: DrawnElement[]; paths: PathItem[] } {
    if (depth > MOST_DEPTH) return { elements: [], paths: [] };
    const elements: DrawnElement[] = [];
    let paths: PathItem[] = [];
    for (const item of items) {
      if (item.hd === true) continue;
      const kind = String(item.ty);
      if (kind === 'gr') {
        const inner = objects(item.it);
        const transform = inner.find(({ ty }) => ty === 'tr');
        const found = this.items(inner, clock, depth + 1);
        if (found.elements.length > 0) {
          const group = transform
            ? this.transformed(transform, clock, found.elements, true)
            : this.element('g', {}, found.elements);
          elements.push(group);
        }
        const moves = transform && !addsNothing(transform);
        paths.push(...found.paths.map((path) => (moves ? { ...path, around: [transform, ...path.around] } : path)));
      } else if (['sh', 'rc', 'el'].includes(kind)) paths.push(this.pathItem(kind, item));
      else if (kind === 'tm') {
        if (number(item.m, 1) !== 1 && paths.length > 1)
          this.notes.add('Lines of which a part is drawn one after another are drawn together here.');
        paths = paths.map((path) => ({ ...path, trim: item }));
      } else if (['fl', 'gf', 'st', 'gs'].includes(kind)) elements.push(...this.styled(item, paths, clock));
      else if (kind !== 'tr') this.notes.add(`A “${UNTAKEN[kind] ?? kind.slice(0, 12)}” of shapes was left out.`);
    }
    return { elements: elements.reverse(), paths };
  }

  private pathItem(kind: string, item: Json): PathItem {
    const base = { around: [], trim: null };
    if (kind === 'sh') return { ...base, properties: [item.ks], outline: ([value]) => outlineText(value) };
    const pair = (value: unknown): [number, number] => [numbers(value)[0], numbers(value)[1] ?? 0];
    if (kind === 'el')
      return { ...base, properties: [item.p, item.s], outline: ([p, s]) => ellipseText(pair(p), pair(s)) };
    return {
      ...base,
      properties: [item.p, item.s, item.r],
      outline: ([p, s, r]) => rectangleText(pair(p), pair(s), scalar(r)),
    };
  }

  /** What a style paints: one path of all outlines where they are one area, else a path each. */
  private styled(style: Json, paths: readonly PathItem[], clock: FrameClock): DrawnElement[] {
    const isLine = style.ty === 'st' || style.ty === 'gs';
    const paint = this.paint(style, isLine, clock);
    if (isLine || paths.length < 2 || paths.some(({ around }) => around.length > 0)) {
      const alone = isLine && !paths.some(({ trim, around }) => trim || around.length > 0) && paths.length > 1;
      const joint = alone ? this.jointPath(paths, clock, paint) : null;
      return joint
        ? [joint]
        : [...paths].reverse().map((path) => this.path(path, clock, paint.attributes, paint.tracks));
    }
    return [this.jointPath(paths, clock, paint, true) as DrawnElement];
  }

  /** All paths as one; null where their keys are not those of each other, unless that is `forced`. */
  private jointPath(
    paths: readonly PathItem[],
    clock: FrameClock,
    { attributes, tracks }: Paint,
    forced = false,
  ): DrawnElement | null {
    const properties = paths.flatMap((path) => path.properties);
    let at = 0;
    const slices = paths.map((path) => {
      const begin = at;
      at += path.properties.length;
      return (values: readonly unknown[]): string => path.outline(values.slice(begin, begin + path.properties.length));
    });
    const d = combinedOf(properties, (values) => slices.map((say) => say(values)).join(''), clock);
    if (!d.exact && !forced) return null;
    return this.drawn('path', attributes, tracks, [['d', d]]);
  }

  private path(
    { properties, outline, around, trim }: PathItem,
    clock: FrameClock,
    attributes: Readonly<Record<string, string>>,
    tracks: readonly Track[] = [],
  ): DrawnElement {
    const parts: [string, Combined][] = [['d', combinedOf(properties, outline, clock)]];
    const all: Record<string, string> = { ...attributes };
    if (trim && attributes.stroke) {
      all.pathLength = '1';
      const length = (s: unknown, e: unknown): number => Math.abs(scalar(e) - scalar(s)) / 100;
      parts.push(
        [
          'stroke-dasharray',
          combinedOf(
            [trim.s, trim.e],
            ([s, e]) =>
              `${numberText(length(s, e), DIGITS)} ${numberText(Math.max(0, DRAWN_ROUND - length(s, e)), DIGITS)}`,
            clock,
          ),
        ],
        [
          'stroke-dashoffset',
          combinedOf(
            [trim.s, trim.e, trim.o],
            ([s, e, o]) => numberText(-DRAWN_ROUND * (Math.min(scalar(s), scalar(e)) / 100 + scalar(o) / 360), DIGITS),
            clock,
          ),
        ],
      );
    } else if (trim) this.notes.add('An area of whose outline only a part is drawn was taken whole.');
    let element = this.drawn('path', all, tracks, parts);
    for (const transform of [...around].reverse()) element = this.transformed(transform, clock, [element], false);
    return element;
  }

  private paint(style: Json, isLine: boolean, clock: FrameClock): Paint {
    const name = isLine ? 'stroke' : 'fill';
    const parts: [string, Combined][] = [
      [`${name}-opacity`, combinedOf([style.o ?? { k: 100 }], ([o]) => numberText(scalar(o) / 100, DIGITS), clock)],
    ];
    const attributes: Record<string, string> = isLine
      ? { fill: 'none' }
      : { 'fill-rule': style.r === 2 ? 'evenodd' : 'nonzero' };
    if (isObject(style.g)) attributes[name] = this.gradient(style, clock);
    else parts.push([name, combinedOf([style.c], ([c]) => colourText(numbers(c)), clock)]);
    if (isLine) {
      parts.push(['stroke-width', combinedOf([style.w], ([w]) => numberText(scalar(w), DIGITS), clock)]);
      attributes['stroke-linecap'] = ['butt', 'round', 'square'][number(style.lc, 2) - 1] ?? 'round';
      attributes['stroke-linejoin'] = ['miter', 'round', 'bevel'][number(style.lj, 2) - 1] ?? 'round';
      attributes['stroke-miterlimit'] = numberText(number(style.ml, 4), 4);
      const dashes = objects(style.d);
      const lengths = dashes.filter(({ n }) => n !== 'o').map(({ v }) => v);
      const offset = dashes.find(({ n }) => n === 'o');
      if (lengths.length > 0)
        parts.push([
          'stroke-dasharray',
          combinedOf(lengths, (values) => values.map((v) => numberText(scalar(v), DIGITS)).join(' '), clock),
        ]);
      if (offset)
        parts.push(['stroke-dashoffset', combinedOf([offset.v], ([v]) => numberText(scalar(v), DIGITS), clock)]);
    }
    const { attributes: said, tracks } = this.drawn('path', attributes, [], parts);
    return { attributes: { [name]: '#000000', ...said }, tracks };
  }

  /** @returns the paint that refers to it */
  private gradient(style: Json, clock: FrameClock): string {
    const id = `paint-${++this.ids}`;
    const g = style.g as Json;
    const count = Math.min(100, number(g.p));
    const pair = (value: unknown, i: 0 | 1): string => numberText(numbers(value)[i] ?? 0, DIGITS);
    const parts: [string, Combined][] = [];
    const linear = number(style.t, 1) === 1;
    const say = (name: string, from: readonly unknown[], text: (values: readonly unknown[]) => string): void =>
      void parts.push([name, combinedOf(from, text, clock)]);
    if (linear) {
      say('x1', [style.s], ([s]) => pair(s, 0));
      say('y1', [style.s], ([s]) => pair(s, 1));
      say('x2', [style.e], ([e]) => pair(e, 0));
      say('y2', [style.e], ([e]) => pair(e, 1));
    } else {
      say('cx', [style.s], ([s]) => pair(s, 0));
      say('cy', [style.s], ([s]) => pair(s, 1));
      say('r', [style.s, style.e], ([s, e]) => {
        const [p, q] = [numbers(s), numbers(e)];
        return numberText(Math.hypot(q[0] - p[0], (q[1] ?? 0) - (p[1] ?? 0)), DIGITS);
      });
      if (scalar(valueAt(style.h, 0)) !== 0) this.notes.add('The focus of a gradient was taken in its middle.');
    }
    const at = (value: unknown, i: number): number => Math.min(1, Math.max(0, numbers(value)[i] ?? 0));
    const stops = Array.from({ length: count }, (_, i) =>
      this.drawn(
        'stop',
        {},
        [],
        [
          ['offset', combinedOf([g.k], ([k]) => numberText(at(k, 4 * i), DIGITS), clock)],
          ['stop-color', combinedOf([g.k], ([k]) => colourText([1, 2, 3].map((c) => at(k, 4 * i + c))), clock)],
          [
            'stop-opacity',
            combinedOf(
              [g.k],
              ([k]) => numberText(numbers(k).length >= 6 * count ? at(k, 4 * count + 2 * i + 1) : 1, DIGITS),
              clock,
            ),
          ],
        ],
      ),
    );
    const { attributes, tracks } = this.drawn('g', { id, gradientUnits: 'userSpaceOnUse' }, [], parts);
    this.defs.push(this.element(linear ? 'linearGradient' : 'radialGradient', attributes, stops, tracks));
    return `url(#${id})`;
  }

  /** A group with a transform of the format. */
  private transformed(ks: Json, clock: FrameClock, content: readonly DrawnElement[], fades: boolean): DrawnElement {
    const steps: [SvgStep, Combined][] = [];
    const p = isObject(ks.p) ? ks.p : {};
    const pair = (value: unknown): string => [0, 1].map((i) => numberText(numbers(value)[i] ?? 0, DIGITS)).join(' ');
    if (p.s === true)
      steps.push([
        'translate',
        combinedOf([p.x, p.y], ([x, y]) => `${numberText(scalar(x), DIGITS)} ${numberText(scalar(y), DIGITS)}`, clock),
      ]);
    else if (ks.p !== undefined) steps.push(['translate', combinedOf([ks.p], ([v]) => pair(v), clock)]);
    const turn = ks.r ?? ks.rz;
    if (turn !== undefined) steps.push(['rotate', combinedOf([turn], ([v]) => numberText(scalar(v), DIGITS), clock)]);
    if (ks.sk !== undefined) {
      const level = !isKeyed(ks.sa) && scalar(valueAt(ks.sa, 0)) === 0;
      if (level) steps.push(['skewX', combinedOf([ks.sk], ([v]) => numberText(-scalar(v), DIGITS), clock)]);
      else if (isKeyed(ks.sk) || scalar(valueAt(ks.sk, 0)) !== 0)
        this.notes.add('A transform that leans along an axis of its own was taken without.');
    }
    if (ks.s !== undefined)
      steps.push(['scale', combinedOf([ks.s], ([v]) => pair(numbers(v).map((each) => each / 100)), clock)]);
    if (ks.a !== undefined)
      steps.push(['translate', combinedOf([ks.a], ([v]) => pair(numbers(v).map((each) => -each)), clock)]);
    const kept = steps.filter(
      ([name, { text, track }]) => track || text !== (name === 'scale' ? '1 1' : name === 'translate' ? '0 0' : '0'),
    );
    const attributes: Record<string, string> = {};
    const tracks: Track[] = [];
    if (kept.some(([, { track }]) => track))
      kept.forEach(
        ([type, { text, track }], i) =>
          void tracks.push({
            ...(track ?? { ...whole(clock), jumps: false, times: [0, 1], values: [text, text], splines: [] }),
            attribute: 'transform',
            step: { type, sum: i > 0 },
          }),
      );
    else if (kept.length > 0) attributes.transform = kept.map(([type, { text }]) => `${type}(${text})`).join(' ');
    const faded =
      fades && ks.o !== undefined ? combinedOf([ks.o], ([o]) => numberText(scalar(o) / 100, DIGITS), clock) : null;
    if (faded?.track) tracks.push({ ...faded.track, attribute: 'opacity' });
    else if (faded && faded.text !== '1') attributes.opacity = faded.text;
    return this.element('g', attributes, content, tracks);
  }

  /** An element whose attributes are said by properties. */
  private drawn(
    name: string,
    attributes: Readonly<Record<string, string>>,
    tracks: readonly Track[],
    parts: readonly (readonly [string, Combined])[],
  ): DrawnElement {
    const all: Record<string, string> = { ...attributes };
    const moving = [...tracks];
    for (const [attribute, { text, track }] of parts) {
      all[attribute] = text;
      if (track) moving.push({ ...track, attribute });
    }
    return this.element(name, all, [], moving);
  }

  private element(
    name: string,
    attributes: Readonly<Record<string, string>>,
    children: readonly DrawnElement[],
    tracks: readonly Track[] = [],
  ): DrawnElement {
    if (++this.count > MOST_ELEMENTS)
      throw new CoreError('svg-too-complex', `Expected at most ${MOST_ELEMENTS} layers, groups and paths; found more.`);
    return { name, attributes, children, tracks, text: '' };
  }
}

interface Paint {
  readonly attributes: Readonly<Record<string, string>>;
  readonly tracks: readonly Track[];
}

const whole = ({ frames, rate }: FrameClock): Pick<Track, 'begin' | 'duration' | 'repeats'> => ({
  begin: 0,
  duration: frames / rate,
  repeats: true,
});
