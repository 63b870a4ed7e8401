import { CoreError } from '../../errors';
import { anchorCount, type FillRule, type Outline, transformOutline } from '../../outline';
import { cssText, readColour } from '../../paint';
import { determinant, IDENTITY, type Matrix, multiply, scaling, translation } from '../../vec';
import { SEGMENT_LIMIT } from '../path-data-reader';
import { isShapeElement, readLength, shapeContours, type Viewport } from './basic-shapes';
import { inheritStyle, type Style, StyleSheet } from './style';
import { readTransform } from './transform';
import { parseSvgTree, type SvgNode } from './tree';

/** A stroke as read: width in px after all transforms. */
export interface SvgStroke {
  readonly colour: string;
  readonly width: number;
  readonly cap: 'butt' | 'round' | 'square';
  readonly join: 'miter' | 'round' | 'bevel';
}

/** A drawn shape of the file, in px of the document, in painting order. */
export interface SvgShape {
  readonly name: string;
  readonly outline: Outline;
  /** CSS colour, alpha included, or null for none. */
  readonly fill: string | null;
  readonly stroke: SvgStroke | null;
}

export interface SvgReading {
  readonly width: number;
  readonly height: number;
  readonly shapes: readonly SvgShape[];
  /** One sentence for each thing that could not be taken. */
  readonly notes: readonly string[];
}

const DEFAULT_SIZE = 300;
const USE_LIMIT = 2_000;
const CONTAINERS = new Set(['svg', 'g', 'a', 'switch']);
const SILENT = new Set([
  'title',
  'desc',
  'defs',
  'symbol',
  'style',
  'linearGradient',
  'radialGradient',
  'metadata',
  'view',
]);

/**
 * Reads an SVG file: basic shapes, paths, groups, nested transforms, view boxes, use and symbol, presentation attributes, style
 * attributes and simple style rules, inherited paint. What is not taken is named in `notes`. Nothing is run or fetched.
 *
 * @throws CoreError 'svg-not-svg', 'svg-syntax', 'svg-unsafe', 'svg-no-outline', 'file-too-large', 'path-data', 'number-range', 'too-many-segments'
 */
export function readSvg(text: string): SvgReading {
  return new SvgReader(text).read();
}

class SvgReader {
  private readonly shapes: SvgShape[] = [];
  private readonly notes = new Map<string, number>();
  private readonly byId = new Map<string, SvgNode>();
  private readonly root: SvgNode;
  private readonly sheet: StyleSheet;
  private uses = 0;
  private anchors = 0;

  constructor(text: string) {
    const { root, dropped } = parseSvgTree(text);
    this.root = root;
    for (const [what, count] of dropped) this.note(`${what} was left out: active content never gets in`, count);
    let css = '';
    const index = (node: SvgNode): void => {
      if (node.attributes.id !== undefined && !this.byId.has(node.attributes.id))
        this.byId.set(node.attributes.id, node);
      if (node.name === 'style') css += `${node.text}\n`;
      node.children.forEach(index);
    };
    index(root);
    this.sheet = new StyleSheet(css);
    for (const selector of this.sheet.ignored)
      this.note(`Style rule “${selector}” was not applied: only element, class and id selectors are read`);
  }

  read(): SvgReading {
    const where = (name: string): string => `${name} of <svg> (line ${this.root.line})`;
    const box = readViewBox(this.root);
    const width = readLength(this.root.attributes.width, box?.width ?? DEFAULT_SIZE, where('width'));
    const height = readLength(this.root.attributes.height, box?.height ?? DEFAULT_SIZE, where('height'));
    const w = width ?? (height !== undefined && box ? (height * box.width) / box.height : box?.width) ?? DEFAULT_SIZE;
    const h = height ?? (width !== undefined && box ? (width * box.height) / box.width : box?.height) ?? DEFAULT_SIZE;
    const matrix = box && w > 0 && h > 0 ? viewBoxMatrix(this.root, box, 0, 0, w, h) : IDENTITY;
    const viewport = box ?? { width: w, height: h };
    this.container(this.root, matrix, {}, 1, viewport, []);
    if (this.shapes.length === 0) {
      const found = [...this.notes.keys()];
      throw new CoreError(
        'svg-no-outline',
        `Expected at least one drawn shape or path in the SVG; found none. ${found.join('. ')}`.trim(),
      );
    }
    const notes = [...this.notes].map(([text, count]) => (count > 1 ? `${text} (${count} times)` : text));
    return { width: w, height: h, shapes: this.shapes, notes };
  }

  private note(text: string, count = 1): void {
    this.notes.set(text, (this.notes.get(text) ?? 0) + count);
  }

  private container(
    node: SvgNode,
    matrix: Matrix,
    parent: Style,
    opacity: number,
    viewport: Viewport,
    chain: readonly SvgNode[],
  ): void {
    const own = this.sheet.ownStyle(node);
    if (own.display === 'none') return;
    const style = inheritStyle(parent, own);
    const inner = node === this.root ? matrix : multiply(matrix, readTransform(node.attributes.transform, node.line));
    const alpha = opacity * readOpacity(own.opacity);
    for (const child of node.children) this.element(child, inner, style, alpha, viewport, chain);
  }

  private element(
    node: SvgNode,
    matrix: Matrix,
    style: Style,
    opacity: number,
    viewport: Viewport,
    chain: readonly SvgNode[],
  ): void {
    for (const property of ['clip-path', 'mask', 'filter'] as const) {
      if (node.attributes[property] && node.attributes[property] !== 'none') this.note(`A ${property} was left out`);
    }
    if (node.name === 'svg') this.nested(node, matrix, style, opacity, viewport, chain);
    else if (CONTAINERS.has(node.name)) this.container(node, matrix, style, opacity, viewport, chain);
    else if (node.name === 'use') this.use(node, matrix, style, opacity, viewport, chain);
    else if (isShapeElement(node.name)) this.shape(node, matrix, style, opacity, viewport);
    else if (!SILENT.has(node.name)) this.note(`<${node.name}> was left out: it has no outline that can be read`);
  }

  private nested(
    node: SvgNode,
    matrix: Matrix,
    style: Style,
    opacity: number,
    viewport: Viewport,
    chain: readonly SvgNode[],
  ): void {
    const length = (name: string, whole: number): number | undefined =>
      readLength(node.attributes[name], whole, `${name} of <${node.name}> (line ${node.line})`);
    const box = readViewBox(node);
    const x = length('x', viewport.width) ?? 0;
    const y = length('y', viewport.height) ?? 0;
    const w = length('width', viewport.width) ?? viewport.width;
    const h = length('height', viewport.height) ?? viewport.height;
    if (!(w > 0) || !(h > 0)) return;
    const place = box ? viewBoxMatrix(node, box, x, y, w, h) : translation(x, y);
    this.container(node, multiply(matrix, place), style, opacity, box ?? { width: w, height: h }, chain);
  }

  private use(
    node: SvgNode,
    matrix: Matrix,
    parent: Style,
    opacity: number,
    viewport: Viewport,
    chain: readonly SvgNode[],
  ): void {
    const href = node.attributes.href ?? '';
    const target = href.startsWith('#') ? this.byId.get(href.slice(1)) : undefined;
    if (!target) {
      this.note(
        href.startsWith('#')
          ? `<use> of “${href.slice(0, 40)}” was left out: there is no such element`
          : '<use> of another document was left out: nothing is fetched',
      );
      return;
    }
    if (chain.includes(target) || ++this.uses > USE_LIMIT) {
      this.note(`<use> of “${href.slice(0, 40)}” was left out: it refers to itself or is repeated too often`);
      return;
    }
    const own = this.sheet.ownStyle(node);
    if (own.display === 'none') return;
    const where = (name: string): string => `${name} of <use> (line ${node.line})`;
    const x = readLength(node.attributes.x, viewport.width, where('x')) ?? 0;
    const y = readLength(node.attributes.y, viewport.height, where('y')) ?? 0;
    const placed = multiply(multiply(matrix, readTransform(node.attributes.transform, node.line)), translation(x, y));
    const style = inheritStyle(parent, own);
    const alpha = opacity * readOpacity(own.opacity);
    const next = [...chain, target];
    if (target.name === 'symbol') {
      const size = { width: node.attributes.width ?? '100%', height: node.attributes.height ?? '100%' };
      this.nested({ ...target, attributes: { ...target.attributes, ...size } }, placed, style, alpha, viewport, next);
    } else this.element(target, placed, style, alpha, viewport, next);
  }

  private shape(node: SvgNode, matrix: Matrix, parent: Style, opacityAbove: number, viewport: Viewport): void {
    const own = this.sheet.ownStyle(node);
    if (own.display === 'none') return;
    const style = inheritStyle(parent, own);
    if (style.visibility === 'hidden' || style.visibility === 'collapse') return;
    const opacity = opacityAbove * readOpacity(own.opacity);
    const full = multiply(matrix, readTransform(node.attributes.transform, node.line));
    const fill =
      node.name === 'line'
        ? null
        : this.paint(style.fill ?? 'black', style, opacity * readOpacity(style['fill-opacity']));
    const stroke = this.stroke(style, opacity, full, viewport);
    const contours = shapeContours(node, viewport);
    this.anchors += contours.reduce((sum, contour) => sum + anchorCount(contour), 0);
    if (this.anchors > SEGMENT_LIMIT) {
      throw new CoreError(
        'too-many-segments',
        `Expected at most ${SEGMENT_LIMIT.toLocaleString('en')} path segments in one file; this one has more (reached in line ${node.line}).`,
        `line ${node.line}`,
      );
    }
    if (contours.length === 0) return;
    // Nothing painted: frames around icons are drawn like this.
    if (fill === null && stroke === null) return;
    const fillRule: FillRule = style['fill-rule'] === 'evenodd' ? 'evenodd' : 'nonzero';
    const name = node.attributes.id ?? node.name;
    this.shapes.push({ name, outline: transformOutline({ contours, fillRule }, full), fill, stroke });
  }

  private stroke(style: Style, opacity: number, matrix: Matrix, viewport: Viewport): SvgStroke | null {
    const colour = this.paint(style.stroke ?? 'none', style, opacity * readOpacity(style['stroke-opacity']));
    const width =
      readLength(style['stroke-width'], Math.hypot(viewport.width, viewport.height) / Math.SQRT2, 'stroke-width') ?? 1;
    if (colour === null || !(width > 0)) return null;
    if (style['stroke-dasharray'] && style['stroke-dasharray'] !== 'none')
      this.note('Dashes of a stroke were left out');
    const cap = style['stroke-linecap'];
    const join = style['stroke-linejoin'];
    return {
      colour,
      width: width * Math.sqrt(Math.abs(determinant(matrix))),
      cap: cap === 'round' || cap === 'square' ? cap : 'butt',
      join: join === 'round' || join === 'bevel' ? join : 'miter',
    };
  }

  /** A CSS colour with `opacity` in its alpha, or null. A gradient gives its first stop, and a note. */
  private paint(value: string, style: Style, opacity: number): string | null {
    if (value === 'none' || value === 'transparent') return null;
    if (value === 'currentColor' || value.toLowerCase() === 'currentcolor')
      return this.paint(style.color ?? 'black', {}, opacity);
    const reference = /^url\(\s*['"]?#([^'")]+)['"]?\s*\)\s*(.*)$/.exec(value);
    if (reference) {
      const stop = this.firstStop(this.byId.get(reference[1]));
      if (stop) this.note('A gradient was taken as its first colour');
      return this.paint(stop ?? (reference[2] || 'none'), style, opacity);
    }
    const colour = readColour(value);
    if (!colour) {
      this.note(`The colour “${value.slice(0, 32)}” was not understood and was taken as black`);
      return cssText(0, 0, 0, opacity);
    }
    const alpha = colour.alpha * opacity;
    return alpha > 0 ? cssText(colour.r, colour.g, colour.b, alpha) : null;
  }

  private firstStop(node: SvgNode | undefined, depth = 0): string | undefined {
    const stop = node?.children.find((child) => child.name === 'stop');
    if (stop) return this.sheet.ownStyle(stop)['stop-color'] ?? 'black';
    const href = node?.attributes.href;
    return href?.startsWith('#') && depth < 8 ? this.firstStop(this.byId.get(href.slice(1)), depth + 1) : undefined;
  }
}

const readOpacity = (text: string | undefined): number => {
  if (text === undefined) return 1;
  const value = text.trim().endsWith('%') ? Number.parseFloat(text) / 100 : Number(text);
  return Number.isFinite(value) ? Math.min(1, Math.max(0, value)) : 1;
};

interface ViewBox extends Viewport {
  readonly x: number;
  readonly y: number;
}

function readViewBox(node: SvgNode): ViewBox | undefined {
  const text = node.attributes.viewBox;
  if (text === undefined) return undefined;
  const n = text
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  if (n.length !== 4 || n.some((v) => !(Math.abs(v) <= 1e7))) {
    throw new CoreError(
      'svg-syntax',
      `Expected four numbers in viewBox of <${node.name}> (line ${node.line}); found “${text.slice(0, 40)}”.`,
      `line ${node.line}`,
    );
  }
  return n[2] > 0 && n[3] > 0 ? { x: n[0], y: n[1], width: n[2], height: n[3] } : undefined;
}

/** The equivalent transform of a view box in its viewport (SVG 2, chapter 8.2). */
function viewBoxMatrix(node: SvgNode, box: ViewBox, x: number, y: number, w: number, h: number): Matrix {
  const [align = 'xMidYMid', meet = 'meet'] = (node.attributes.preserveAspectRatio ?? '')
    .trim()
    .split(/\s+/)
    .filter(Boolean);
  let sx = w / box.width;
  let sy = h / box.height;
  if (align !== 'none') sx = sy = meet === 'slice' ? Math.max(sx, sy) : Math.min(sx, sy);
  const share = (part: string): number => (align.includes(`${part}Mid`) ? 0.5 : align.includes(`${part}Max`) ? 1 : 0);
  const tx = x + (align === 'none' ? 0 : share('x') * (w - box.width * sx));
  const ty = y + (align === 'none' ? 0 : share('Y') * (h - box.height * sy));
  return multiply(multiply(translation(tx, ty), scaling(sx, sy)), translation(-box.x, -box.y));
}
