import { CoreError } from '../../errors';
import { COORDINATE_LIMIT } from '../../num';
import { type Contour, ContourBuilder, ellipseContour, type Outline, QUARTER_ARC_HANDLE } from '../../outline';
import { readPathData } from '../path-data-reader';
import type { SvgNode } from './tree';

/** The size that percentages refer to, in user units. */
export interface Viewport {
  readonly width: number;
  readonly height: number;
}

const UNITS: Readonly<Record<string, number>> = {
  '': 1,
  px: 1,
  pt: 4 / 3,
  pc: 16,
  mm: 96 / 25.4,
  cm: 96 / 2.54,
  in: 96,
  em: 16,
  rem: 16,
  ex: 8,
  q: 96 / 101.6,
};

const LENGTH = /^([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)\s*([a-z]*|%)$/i;
/** No number needs more characters; the pattern would take the square of their count. */
const LENGTH_TEXT_LIMIT = 200;

/** A length in px by CSS Values 4 (96 px an inch; em as 16 px); percentages of `whole`. Undefined when there is none. */
export function readLength(text: string | undefined, whole: number, where: string): number | undefined {
  if (text === undefined || text.trim() === '' || text.trim() === 'auto') return undefined;
  const trimmed = text.trim();
  const match = trimmed.length > LENGTH_TEXT_LIMIT ? null : LENGTH.exec(trimmed);
  const unit = match?.[2].toLowerCase();
  const factor = unit === '%' ? whole / 100 : unit === undefined ? undefined : UNITS[unit];
  if (!match || factor === undefined) {
    throw new CoreError(
      'svg-syntax',
      `Expected a length such as 12 or 12px for ${where}; found “${text.slice(0, 24)}”.`,
      where,
    );
  }
  const value = Number(match[1]) * factor;
  if (!(Math.abs(value) <= COORDINATE_LIMIT)) {
    throw new CoreError(
      'number-range',
      `Expected lengths up to ${COORDINATE_LIMIT.toLocaleString('en')} px for ${where}; found ${text.slice(0, 24)}.`,
      where,
    );
  }
  return value;
}

export const SHAPE_ELEMENTS = ['path', 'rect', 'circle', 'ellipse', 'line', 'polyline', 'polygon'] as const;
export type ShapeElement = (typeof SHAPE_ELEMENTS)[number];
export const isShapeElement = (name: string): name is ShapeElement =>
  (SHAPE_ELEMENTS as readonly string[]).includes(name);

const WORDS: Readonly<Record<ShapeElement, string>> = {
  path: 'Shape',
  rect: 'Rectangle',
  circle: 'Circle',
  ellipse: 'Ellipse',
  line: 'Line',
  polyline: 'Line',
  polygon: 'Polygon',
};

/** What a shape is called: by its id, or by what it is and its number among the shapes of the file, from 1. */
export function nameOfShape({ name, attributes }: SvgNode, number: number): string {
  return attributes.id || `${isShapeElement(name) ? WORDS[name] : WORDS.path} ${number}`;
}

/**
 * Contours of a basic shape or path in its own coordinates, each as the equivalent path of SVG 2, chapter 10 (same start point and
 * direction). No contours where the standard draws nothing.
 * @throws CoreError with the line of the element
 */
export function shapeContours(node: SvgNode, viewport: Viewport): readonly Contour[] {
  const where = (name: string): string => `${name} of <${node.name}> (line ${node.line})`;
  const x = (name: string): number | undefined => readLength(node.attributes[name], viewport.width, where(name));
  const y = (name: string): number | undefined => readLength(node.attributes[name], viewport.height, where(name));
  const diagonal = Math.hypot(viewport.width, viewport.height) / Math.SQRT2;
  switch (node.name as ShapeElement) {
    case 'path':
      return pathContours(node).contours;
    case 'rect':
      return rectangle(x('x') ?? 0, y('y') ?? 0, x('width') ?? 0, y('height') ?? 0, x('rx'), y('ry'));
    case 'circle': {
      const r = readLength(node.attributes.r, diagonal, where('r')) ?? 0;
      return r > 0 ? [ellipseContour(x('cx') ?? 0, y('cy') ?? 0, r, r)] : [];
    }
    case 'ellipse': {
      const rx = x('rx') ?? y('ry') ?? 0;
      const ry = y('ry') ?? x('rx') ?? 0;
      return rx > 0 && ry > 0 ? [ellipseContour(x('cx') ?? 0, y('cy') ?? 0, rx, ry)] : [];
    }
    case 'line': {
      const builder = new ContourBuilder(x('x1') ?? 0, y('y1') ?? 0);
      builder.lineTo(x('x2') ?? 0, y('y2') ?? 0);
      return [builder.finish(false)];
    }
    default:
      return poly(node);
  }
}

function pathContours(node: SvgNode): Outline {
  try {
    return readPathData(node.attributes.d ?? '');
  } catch (error) {
    if (error instanceof CoreError)
      throw new CoreError(error.code, `${error.message} (<path> in line ${node.line})`, error.where);
    throw error;
  }
}

function rectangle(x: number, y: number, w: number, h: number, rxIn?: number, ryIn?: number): Contour[] {
  if (!(w > 0) || !(h > 0)) return [];
  const rx = Math.min(Math.max(0, rxIn ?? ryIn ?? 0), w / 2);
  const ry = Math.min(Math.max(0, ryIn ?? rxIn ?? 0), h / 2);
  const builder = new ContourBuilder(x + rx, y);
  if (!(rx > 0) || !(ry > 0)) {
    const sharp = new ContourBuilder(x, y);
    sharp.lineTo(x + w, y);
    sharp.lineTo(x + w, y + h);
    sharp.lineTo(x, y + h);
    return [sharp.finish(true)];
  }
  const kx = rx * (1 - QUARTER_ARC_HANDLE);
  const ky = ry * (1 - QUARTER_ARC_HANDLE);
  const lineTo = (toX: number, toY: number, room: number): void => {
    if (room > 1e-12 * (w + h)) builder.lineTo(toX, toY);
  };
  lineTo(x + w - rx, y, w - 2 * rx);
  builder.cubicTo(x + w - kx, y, x + w, y + ky, x + w, y + ry);
  lineTo(x + w, y + h - ry, h - 2 * ry);
  builder.cubicTo(x + w, y + h - ky, x + w - kx, y + h, x + w - rx, y + h);
  lineTo(x + rx, y + h, w - 2 * rx);
  builder.cubicTo(x + kx, y + h, x, y + h - ky, x, y + h - ry);
  lineTo(x, y + ry, h - 2 * ry);
  builder.cubicTo(x, y + ky, x + kx, y, x + rx, y);
  return [builder.finish(true)];
}

function poly(node: SvgNode): Contour[] {
  const text = node.attributes.points ?? '';
  if (text.trim() === '') return [];
  const pairs = text.trim().split(/[\s,]+|(?<=[\d.])(?=-)/);
  const numbers = pairs.map(Number);
  const bad = numbers.findIndex((v) => !(Math.abs(v) <= COORDINATE_LIMIT));
  if (bad >= 0) {
    throw new CoreError(
      'number-range',
      `Expected numbers in points of <${node.name}> (line ${node.line}); number ${bad + 1} is “${pairs[bad].slice(0, 24)}”.`,
      `line ${node.line}`,
    );
  }
  if (numbers.length < 4) return [];
  const builder = new ContourBuilder(numbers[0], numbers[1]);
  for (let i = 2; i + 1 < numbers.length; i += 2) builder.lineTo(numbers[i], numbers[i + 1]);
  return [builder.finish(node.name === 'polygon')];
}
