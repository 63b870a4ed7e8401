import { CoreError } from '../../errors';
import { COORDINATE_LIMIT } from '../../num';
import {
  anchorCount,
  type Contour,
  contourArea,
  type FillRule,
  type Outline,
  outlineBox,
  polygonContour,
  segmentCount,
  transformOutline,
} from '../../outline';
import { cssText, fadePaint, type Paint, readColour } from '../../paint';
import { IDENTITY, type Matrix, multiply, translation } from '../../vec';
import { SEGMENT_LIMIT } from '../path-data-reader';
import { isShapeElement, nameOfShape, readLength, shapeContours, type Viewport } from './basic-shapes';
import { WorkBudget } from './budget';
import { type ReadStops, readGradient, readGradientStops } from './gradients';
import { readStroke, type SvgStroke, strokeReach } from './stroke';
import { inheritStyle, type Style, StyleRules, StyleSheet } from './style';
import { cssTransform, readTransform } from './transform';
import { parseSvgTree, type SvgNode, type SvgTree } from './tree';
import { checkSides, readViewBox, viewBoxMatrix } from './view-box';

/** A drawn shape of the file, in px of the document, in painting order. */
export interface SvgShape {
  readonly name: string;
  /** Names of the groups around it, the outermost first. */
  readonly groups: readonly string[];
  readonly outline: Outline;
  /** Alpha included; null for none. */
  readonly fill: Paint | null;
  readonly stroke: SvgStroke | null;
  /** Areas outside of which it is cut off, all at once; each the union of its outlines. */
  readonly clips: readonly (readonly Outline[])[];
}

export interface SvgReading {
  readonly width: number;
  readonly height: number;
  readonly shapes: readonly SvgShape[];
  /** One sentence for each thing that could not be taken. */
  readonly notes: readonly string[];
}

export interface ReadSvgOptions {
  /** Told now and then how much is done, 0 to 1. */
  readonly onProgress?: (share: number) => void;
}

const DEFAULT_SIZE = 300;
const USE_LIMIT = 2_000;
const CLIP_DEPTH = 8;
/** Work: what an element costs, each character of its attributes, and a clip held against a shape. */
const ELEMENT_COST = 120;
const CHARACTER_COST = 2;
const CLIP_COST = 20;
/** A file may be left out in many ways; so many are told. */
const NOTE_LIMIT = 60;
const CONTAINERS = new Set(['svg', 'g', 'a', 'switch']);
const SILENT = new Set([
  'title',
  'desc',
  'defs',
  'symbol',
  'style',
  'linearGradient',
  'radialGradient',
  'pattern',
  'clipPath',
  'mask',
  'filter',
  'marker',
  'metadata',
  'view',
]);
const DRAWN = new Set([
  ...CONTAINERS,
  'use',
  'text',
  'image',
  'path',
  'rect',
  'circle',
  'ellipse',
  'line',
  'polyline',
  'polygon',
]);

/**
 * Reads an SVG file: basic shapes, paths, groups, nested transforms, view boxes, use and symbol, presentation attributes, style
 * attributes and simple style rules, inherited paint, gradients, dashes, clip paths. What is not taken is named in `notes`. Nothing is
 * run or fetched.
 *
 * @throws CoreError 'svg-not-svg', 'svg-syntax', 'svg-unsafe', 'svg-no-outline', 'file-too-large', 'path-data', 'number-range', 'too-many-segments'
 */
export function readSvg(text: string, options: ReadSvgOptions = {}): SvgReading {
  const tree = parseSvgTree(text, (share) => options.onProgress?.(share * 0.6));
  return new SvgReader(tree, options).read();
}

/** As `readSvg`, of elements at hand; `rules` stand for the texts of its style elements. @throws as it does, but for what concerns the text */
export const readSvgTree = (root: SvgNode, rules?: StyleRules): SvgReading =>
  new SvgReader({ root, dropped: new Map() }, {}, rules).read();

/** What an element gets from those around it. */
interface Surroundings {
  readonly matrix: Matrix;
  readonly style: Style;
  readonly opacity: number;
  readonly viewport: Viewport;
  readonly clips: readonly (readonly Outline[])[];
  readonly groups: readonly string[];
  /** Targets of `use` that are being drawn. */
  readonly chain: readonly SvgNode[];
}

/** Up to three of the shapes that a style rule may be about, in words. */
function concernedText(nodes: readonly SvgNode[]): string {
  const shapes = nodes.filter(({ name }) => isShapeElement(name));
  if (shapes.length === 0) return '';
  const names = shapes.slice(0, 3).map(({ name, attributes, line }) => attributes.id ?? `<${name}> in line ${line}`);
  return ` to ${names.join(', ')}${shapes.length > 3 ? ` and ${shapes.length - 3} more` : ''}`;
}

class SvgReader {
  private readonly shapes: SvgShape[] = [];
  private readonly notes = new Map<string, number>();
  private readonly byId = new Map<string, SvgNode>();
  private readonly root: SvgNode;
  private readonly sheet: StyleSheet;
  private readonly budget = new WorkBudget();
  /** Stops by gradient and by what `currentColor` is there. */
  private readonly stops = new Map<string, Map<SvgNode | undefined, ReadStops>>();
  private uses = 0;
  private anchors = 0;
  private elements = 0;
  private done = 0;

  constructor(
    { root, dropped }: SvgTree,
    private readonly options: ReadSvgOptions,
    rules?: StyleRules,
  ) {
    this.root = root;
    for (const [what, count] of dropped) this.note(`${what} was left out: active content never gets in`, count);
    let css = '';
    const parents = new Map<SvgNode, SvgNode>();
    const index = (node: SvgNode): void => {
      this.elements++;
      if (node.attributes.id !== undefined && !this.byId.has(node.attributes.id))
        this.byId.set(node.attributes.id, node);
      if (node.name === 'style') css += `${node.text}\n`;
      for (const child of node.children) {
        parents.set(child, node);
        index(child);
      }
    };
    index(root);
    this.sheet = new StyleSheet(rules ?? new StyleRules(css), { parents, budget: this.budget });
  }

  read(): SvgReading {
    const where = (name: string): string => `${name} of <svg> (line ${this.root.line})`;
    const box = readViewBox(this.root);
    const width = readLength(this.root.attributes.width, box?.width ?? DEFAULT_SIZE, where('width'));
    const height = readLength(this.root.attributes.height, box?.height ?? DEFAULT_SIZE, where('height'));
    const w = width ?? (height !== undefined && box ? (height * box.width) / box.height : box?.width) ?? DEFAULT_SIZE;
    const h = height ?? (width !== undefined && box ? (width * box.height) / box.width : box?.height) ?? DEFAULT_SIZE;
    checkSides(w, h, where);
    const matrix = box && w > 0 && h > 0 ? viewBoxMatrix(this.root, box, 0, 0, w, h) : IDENTITY;
    const viewport = box ?? { width: w, height: h };
    this.container(this.root, { matrix, style: {}, opacity: 1, viewport, clips: [], groups: [], chain: [] });
    for (const { rule, concerns } of this.sheet.ignored())
      this.note(`Style rule “${rule}” was not applied${concernedText(concerns)}: it is not understood`);
    if (this.shapes.length === 0) {
      const found = [...this.notes.keys()].slice(0, NOTE_LIMIT);
      throw new CoreError(
        'svg-no-outline',
        `Expected at least one drawn shape or path in the SVG; found none. ${found.join('. ')}`.trim(),
      );
    }
    const all = [...this.notes].map(([text, count]) => (count > 1 ? `${text} (${count} times)` : text));
    const more = all.length - NOTE_LIMIT;
    const notes = more > 0 ? [...all.slice(0, NOTE_LIMIT), `${more} more things were left out`] : all;
    return { width: w, height: h, shapes: this.shapes, notes };
  }

  private note(text: string, count = 1): void {
    this.notes.set(text, (this.notes.get(text) ?? 0) + count);
  }

  /** What an element hands to those inside it, or undefined where it is not drawn. */
  private inside(node: SvgNode, around: Surroundings): { inner: Surroundings; own: Style } | undefined {
    if (++this.done % 200 === 0) this.options.onProgress?.(0.6 + 0.4 * Math.min(1, this.done / this.elements));
    this.budget.spend(ELEMENT_COST + CHARACTER_COST * node.size, node.line);
    const own = this.sheet.ownStyle(node);
    if (own.display === 'none') return undefined;
    const style = inheritStyle(around.style, own);
    const matrix =
      node === this.root
        ? around.matrix
        : multiply(around.matrix, readTransform(cssTransform(own.transform), node.line));
    for (const property of ['mask', 'filter'] as const)
      if (own[property] && own[property] !== 'none') this.note(`A ${property} was left out`);
    const clip = own['clip-path'];
    let clips = around.clips;
    if (clip && clip !== 'none') {
      const region = this.clipRegion(clip, node, matrix, around);
      if (region) clips = [...clips, ...region];
    }
    const opacity = around.opacity * readOpacity(own.opacity);
    return { inner: { ...around, style, matrix, opacity, clips }, own };
  }

  private container(node: SvgNode, around: Surroundings): void {
    const found = this.inside(node, around);
    if (!found) return;
    const { inner, own } = found;
    if (readOpacity(own.opacity) < 1 && node.children.filter(({ name }) => DRAWN.has(name)).length > 1)
      this.note('A see-through group was taken as see-through shapes: where they overlap it looks denser');
    const groups =
      node === this.root || node.attributes.id === undefined ? inner.groups : [...inner.groups, node.attributes.id];
    // A switch draws the first of its children that can be drawn here.
    const children =
      node.name === 'switch'
        ? node.children.filter(({ name, attributes }) => DRAWN.has(name) && !attributes.requiredExtensions).slice(0, 1)
        : node.children;
    for (const child of children) this.element(child, { ...inner, groups });
  }

  private element(node: SvgNode, around: Surroundings): void {
    if (node.name === 'svg') this.nested(node, around);
    else if (CONTAINERS.has(node.name)) this.container(node, around);
    else if (node.name === 'use') this.reuse(node, around);
    else if (isShapeElement(node.name)) this.shape(node, around);
    else if (node.name === 'text')
      this.note('<text> was left out: turn it into outlines where it was made, or type it here');
    else if (!SILENT.has(node.name)) this.note(`<${node.name}> was left out: it has no outline that can be read`);
  }

  private nested(node: SvgNode, around: Surroundings): void {
    const { viewport } = around;
    const length = (name: string, whole: number): number | undefined =>
      readLength(node.attributes[name], whole, `${name} of <${node.name}> (line ${node.line})`);
    const box = readViewBox(node);
    const x = length('x', viewport.width) ?? 0;
    const y = length('y', viewport.height) ?? 0;
    const w = length('width', viewport.width) ?? viewport.width;
    const h = length('height', viewport.height) ?? viewport.height;
    if (!(w > 0) || !(h > 0)) return;
    const place = box ? viewBoxMatrix(node, box, x, y, w, h) : translation(x, y);
    const overflow = this.sheet.ownStyle(node).overflow;
    const cut = overflow !== 'visible' && overflow !== 'auto';
    const frame = transformOutline(
      { contours: [polygonContour([x, y, x + w, y, x + w, y + h, x, y + h])], fillRule: 'nonzero' },
      around.matrix,
    );
    this.container(node, {
      ...around,
      matrix: multiply(around.matrix, place),
      viewport: box ?? { width: w, height: h },
      clips: cut ? [...around.clips, [frame]] : around.clips,
    });
  }

  private reuse(node: SvgNode, around: Surroundings): void {
    const target = this.reuseTarget(node, around.chain);
    const found = target && this.inside(node, around);
    if (!target || !found) return;
    const where = (name: string): string => `${name} of <use> (line ${node.line})`;
    const x = readLength(node.attributes.x, around.viewport.width, where('x')) ?? 0;
    const y = readLength(node.attributes.y, around.viewport.height, where('y')) ?? 0;
    const inner = {
      ...found.inner,
      matrix: multiply(found.inner.matrix, translation(x, y)),
      chain: [...around.chain, target],
      groups: node.attributes.id === undefined ? around.groups : [...around.groups, node.attributes.id],
    };
    const { width, height } = node.attributes;
    if (target.name === 'symbol' || target.name === 'svg') {
      const full = target.name === 'symbol' ? '100%' : undefined;
      const size: Record<string, string> = {};
      if (width ?? full) size.width = (width ?? full) as string;
      if (height ?? full) size.height = (height ?? full) as string;
      this.nested({ ...target, attributes: { ...target.attributes, ...size } }, inner);
    } else this.element(target, inner);
  }

  /** The element that a `use` draws, or undefined with a note. */
  private reuseTarget(node: SvgNode, chain: readonly SvgNode[]): SvgNode | undefined {
    const href = node.attributes.href ?? '';
    const target = href.startsWith('#') ? this.byId.get(href.slice(1)) : undefined;
    if (!target) {
      this.note(
        href.startsWith('#')
          ? `<use> of “${href.slice(0, 40)}” was left out: there is no such element`
          : '<use> of another document was left out: nothing is fetched',
      );
      return undefined;
    }
    if (chain.includes(target) || ++this.uses > USE_LIMIT) {
      this.note(`<use> of “${href.slice(0, 40)}” was left out: it refers to itself or is repeated too often`);
      return undefined;
    }
    return target;
  }

  /** The areas that a clip-path leaves, or undefined with a note where it cannot be read. */
  private clipRegion(
    value: string,
    clipped: SvgNode,
    matrix: Matrix,
    around: Surroundings,
    depth = 0,
  ): readonly (readonly Outline[])[] | undefined {
    const node = this.byId.get(/^url\(\s*['"]?#([^'")]+)['"]?\s*\)/.exec(value)?.[1] ?? '');
    if (node?.name !== 'clipPath' || depth > CLIP_DEPTH) {
      this.note(`A clip-path “${value.slice(0, 32)}” was left out: it is no clipPath of this file`);
      return undefined;
    }
    const own = this.sheet.ownStyle(node);
    let place = multiply(matrix, readTransform(cssTransform(own.transform), node.line));
    if (node.attributes.clipPathUnits === 'objectBoundingBox') {
      if (!isShapeElement(clipped.name)) {
        this.note('A clip-path in units of a group’s box was left out');
        return undefined;
      }
      const box = outlineBox({ contours: shapeContours(clipped, around.viewport), fillRule: 'nonzero' });
      place = multiply(place, [box.maxX - box.minX, 0, 0, box.maxY - box.minY, box.minX, box.minY]);
    }
    const outlines: Outline[] = [];
    const collect = (child: SvgNode, at: Matrix, inherited: Style, chain: readonly SvgNode[]): void => {
      this.budget.spend(ELEMENT_COST + CHARACTER_COST * child.size, child.line);
      const style = inheritStyle(inherited, this.sheet.ownStyle(child));
      if (style.display === 'none' || style.visibility === 'hidden') return;
      const inner = multiply(at, readTransform(cssTransform(this.sheet.ownStyle(child).transform), child.line));
      if (isShapeElement(child.name)) {
        const contours = shapeContours(child, around.viewport);
        this.count(contours, child);
        const fillRule: FillRule = style['clip-rule'] === 'evenodd' ? 'evenodd' : 'nonzero';
        if (contours.length > 0) outlines.push(placedOutline({ contours, fillRule }, inner, child));
      } else if (child.name === 'use') {
        const target = this.reuseTarget(child, chain);
        const x = readLength(child.attributes.x, around.viewport.width, 'x of <use>') ?? 0;
        const y = readLength(child.attributes.y, around.viewport.height, 'y of <use>') ?? 0;
        if (target) collect(target, multiply(inner, translation(x, y)), style, [...chain, target]);
      } else if (!SILENT.has(child.name)) this.note(`<${child.name}> in a clip-path was left out`);
    };
    for (const child of node.children) collect(child, place, own, []);
    const outer = own['clip-path'];
    const more = outer && outer !== 'none' ? (this.clipRegion(outer, clipped, matrix, around, depth + 1) ?? []) : [];
    return [outlines, ...more];
  }

  private count(contours: readonly Contour[], node: SvgNode): void {
    this.anchors += contours.reduce((sum, contour) => sum + anchorCount(contour), 0);
    if (this.anchors <= SEGMENT_LIMIT) return;
    throw new CoreError(
      'too-many-segments',
      `Expected at most ${SEGMENT_LIMIT.toLocaleString('en')} path segments in one file; this one has more (reached in line ${node.line}).`,
      `line ${node.line}`,
    );
  }

  private shape(node: SvgNode, around: Surroundings): void {
    const found = this.inside(node, around);
    if (!found) return;
    const { style, matrix, opacity, viewport, clips, groups } = found.inner;
    if (style.visibility === 'hidden' || style.visibility === 'collapse') return;
    const contours = shapeContours(node, viewport);
    this.count(contours, node);
    if (contours.length === 0) return;
    const fillRule: FillRule = style['fill-rule'] === 'evenodd' ? 'evenodd' : 'nonzero';
    const drawn: Outline = { contours, fillRule };
    const paint = (value: string, alpha: number): Paint | null =>
      this.paint(value, style, opacity * alpha, drawn, matrix, viewport);
    const fill = node.name === 'line' ? null : paint(style.fill ?? 'black', readOpacity(style['fill-opacity']));
    const strokePaint = paint(style.stroke ?? 'none', readOpacity(style['stroke-opacity']));
    const stroke =
      strokePaint === null
        ? null
        : readStroke(strokePaint, node, style, drawn, found.own, matrix, viewport, (text) => this.note(text));
    for (const marker of ['marker-start', 'marker-mid', 'marker-end'] as const)
      if (style[marker] && style[marker] !== 'none') this.note('Markers on a line were left out');
    if (stroke && fill && /^\s*(stroke|markers\s+stroke)/.test(style['paint-order'] ?? ''))
      this.note('A paint-order was left out: strokes lie over fills here');
    // Nothing painted: frames around icons are drawn like this.
    if (fill === null && stroke === null) return;
    // Each clip is held against each shape.
    const held = clips.reduce((sum, clip) => sum + clip.length, 0);
    this.budget.spend(CLIP_COST * held, node.line);
    const outline = placedOutline(drawn, matrix, node);
    const reach = stroke ? strokeReach(stroke) : 0;
    this.shapes.push({
      name: nameOfShape(node, this.shapes.length + 1),
      groups,
      outline,
      fill,
      stroke,
      clips: clips.filter((clip) => !leavesWhole(clip, outline, reach)),
    });
  }

  private stopsOf(node: SvgNode | undefined, currentColour: string): ReadStops {
    let known = this.stops.get(currentColour);
    if (!known) {
      known = new Map();
      this.stops.set(currentColour, known);
    }
    let stops = known.get(node);
    if (!stops) {
      this.budget.spend(ELEMENT_COST * (node?.children.length ?? 0), node?.line ?? 0);
      stops = readGradientStops(node, this.sheet, currentColour);
      known.set(node, stops);
    }
    return stops;
  }

  /** A colour or gradient with `opacity` in its alphas, or null where nothing shows. */
  private paint(
    value: string,
    style: Style,
    opacity: number,
    drawn: Outline,
    matrix: Matrix,
    viewport: Viewport,
  ): Paint | null {
    if (value === 'none' || value === 'transparent') return null;
    if (/^currentcolor$/i.test(value)) return this.paint(style.color ?? 'black', {}, opacity, drawn, matrix, viewport);
    const reference = /^url\(\s*['"]?([^'")]*)['"]?\s*\)\s*(.*)$/.exec(value);
    if (reference) {
      const server = reference[1].startsWith('#') ? this.byId.get(reference[1].slice(1)) : undefined;
      if (server?.name === 'linearGradient' || server?.name === 'radialGradient') {
        const reading = readGradient(
          server,
          this.byId,
          (node) => this.stopsOf(node, style.color ?? 'black'),
          drawn,
          matrix,
          viewport,
        );
        for (const text of reading.notes) this.note(text);
        return fadePaint(reading.paint, opacity, cssText);
      }
      if (server) this.note(`A fill with a <${server.name}> was left out`);
      else if (!reference[1].startsWith('#'))
        this.note('A paint from another document was left out: nothing is fetched');
      else this.note(`A paint “${reference[1].slice(0, 32)}” was left out: it is not in the file`);
      return this.paint(reference[2] || 'none', style, opacity, drawn, matrix, viewport);
    }
    const colour = readColour(value);
    if (!colour) {
      this.note(`The colour “${value.slice(0, 32)}” was not understood and was taken as black`);
      return cssText(0, 0, 0, opacity);
    }
    const alpha = colour.alpha * opacity;
    return alpha > 0 ? cssText(colour.r, colour.g, colour.b, alpha) : null;
  }
}

/** The outline in the document. @throws CoreError 'number-range' where a transform takes it beyond all pictures */
function placedOutline(drawn: Outline, matrix: Matrix, node: SvgNode): Outline {
  const outline = transformOutline(drawn, matrix);
  if (outline.contours.every(({ points }) => points.every((v) => Math.abs(v) <= COORDINATE_LIMIT))) return outline;
  throw new CoreError(
    'number-range',
    `Expected coordinates up to ${COORDINATE_LIMIT.toLocaleString('en')} px; the transforms of <${node.name}> (line ${node.line}) lead beyond.`,
    `line ${node.line}`,
  );
}

/** Is the clip a rectangle that holds the whole shape? Then it cuts nothing off. */
function leavesWhole(clip: readonly Outline[], outline: Outline, reach: number): boolean {
  return clip.some(({ contours }) => {
    if (contours.length !== 1 || segmentCount(contours[0]) !== 4 || !contours[0].closed) return false;
    const clipBox = outlineBox({ contours, fillRule: 'nonzero' });
    const area = (clipBox.maxX - clipBox.minX) * (clipBox.maxY - clipBox.minY);
    if (Math.abs(Math.abs(contourArea(contours[0])) - area) > 1e-6 * area) return false;
    const box = outlineBox(outline);
    const slack = 1e-6 * Math.sqrt(area) - reach;
    return (
      box.minX >= clipBox.minX - slack &&
      box.maxX <= clipBox.maxX + slack &&
      box.minY >= clipBox.minY - slack &&
      box.maxY <= clipBox.maxY + slack
    );
  });
}

const readOpacity = (text: string | undefined): number => {
  if (text === undefined) return 1;
  const value = text.trim().endsWith('%') ? Number.parseFloat(text) / 100 : Number(text);
  return Number.isFinite(value) ? Math.min(1, Math.max(0, value)) : 1;
};
