import { type Rgba, readColour } from '../../paint';
import { readPathData } from '../../svg';
import { IDENTITY, type Matrix, multiply } from '../../vec';
import { attributesAt } from '../document/attributes-at';
import { isCalmPicture } from '../own-names';
import type { DrawnElement } from '../tree/drawn-element';
import { linesOf, type Painted } from './painted';

/** What an element hands on to those in it. */
interface Inherited {
  readonly matrix: Matrix;
  readonly opacity: number;
  readonly visible: boolean;
  readonly paint: Readonly<Record<string, string>>;
}

const PAINT = ['fill', 'fill-opacity', 'stroke', 'stroke-opacity', 'stroke-width', 'stroke-dasharray'] as const;
const NOT_PAINTED = new Set(['defs', 'clipPath', 'style', 'title', 'filter', 'linearGradient', 'radialGradient']);

/** What a drawing paints at a time in s, in painting order. What stands only where less motion is asked for is left out. */
export function paintedOfDrawing(root: DrawnElement, seconds: number): Painted[] {
  const gradients = new Map<string, readonly (readonly number[])[]>();
  const collect = (element: DrawnElement): void => {
    if (element.name.endsWith('Gradient'))
      gradients.set(
        element.attributes.id,
        element.children.map((stop) => {
          const at = attributesAt(stop, seconds);
          return colourOf(at['stop-color'] ?? '#000', Number(at['stop-opacity'] ?? 1));
        }),
      );
    element.children.forEach(collect);
  };
  collect(root);
  const found: Painted[] = [];
  walk(root, { matrix: IDENTITY, opacity: 1, visible: true, paint: {} }, seconds, gradients, found);
  return found;
}

function walk(
  element: DrawnElement,
  above: Inherited,
  seconds: number,
  gradients: ReadonlyMap<string, readonly (readonly number[])[]>,
  found: Painted[],
): void {
  const { name, children } = element;
  if (NOT_PAINTED.has(name) || isCalmPicture(element)) return;
  const at = attributesAt(element, seconds);
  if (at.display === 'none') return;
  const own = Object.fromEntries(PAINT.flatMap((key) => (at[key] === undefined ? [] : [[key, at[key]]])));
  const here: Inherited = {
    matrix: at.transform ? multiply(above.matrix, transformMatrix(at.transform)) : above.matrix,
    opacity: above.opacity * Number(at.opacity ?? 1),
    visible: at.visibility === undefined ? above.visible : at.visibility === 'visible',
    paint: { ...above.paint, ...own },
  };
  if (name === 'path' && here.visible && here.opacity > 0 && at.d) paintPath(at.d, here, gradients, found);
  for (const child of children) walk(child, here, seconds, gradients, found);
}

function paintPath(
  d: string,
  { matrix, opacity, paint }: Inherited,
  gradients: ReadonlyMap<string, readonly (readonly number[])[]>,
  found: Painted[],
): void {
  const lines = linesOf(readPathData(d), matrix);
  if (lines.length === 0) return;
  const coloursOf = (value: string, alpha: number): readonly (readonly number[])[] => {
    const id = /^url\(["']?#([^"')]*)/.exec(value)?.[1];
    const colours = id === undefined ? [colourOf(value, alpha)] : (gradients.get(id) ?? []);
    return colours.map(([r, g, b, a]) => [r, g, b, a * opacity]);
  };
  const fill = paint.fill ?? '#000';
  if (fill !== 'none')
    found.push({ kind: 'fill', lines, colours: coloursOf(fill, Number(paint['fill-opacity'] ?? 1)), partly: false });
  const stroke = paint.stroke ?? 'none';
  if (stroke !== 'none' && Number.parseFloat(paint['stroke-width'] ?? '1') > 0)
    found.push({
      kind: 'stroke',
      lines,
      colours: coloursOf(stroke, Number(paint['stroke-opacity'] ?? 1)),
      partly: true,
    });
}

const BLACK: Rgba = { r: 0, g: 0, b: 0, alpha: 1 };
function colourOf(text: string, alpha: number): number[] {
  const { r, g, b, alpha: own } = readColour(text) ?? BLACK;
  return [r, g, b, own * alpha];
}

/** The map of a list of translate, rotate, skewX, scale and matrix. */
export function transformMatrix(text: string): Matrix {
  let matrix: Matrix = IDENTITY;
  for (const [, name, inside] of text.matchAll(/(\w+)\(([^)]*)\)/g)) {
    const [p = 0, q, r = 0, s = 0, t = 0, u = 0] = inside
      .trim()
      .split(/[\s,]+/)
      .map(Number);
    const angle = (p * Math.PI) / 180;
    const step: Matrix | null =
      name === 'translate'
        ? [1, 0, 0, 1, p, q ?? 0]
        : name === 'scale'
          ? [p, 0, 0, q ?? p, 0, 0]
          : name === 'rotate'
            ? [Math.cos(angle), Math.sin(angle), -Math.sin(angle), Math.cos(angle), 0, 0]
            : name === 'skewX'
              ? [1, 0, Math.tan(angle), 1, 0, 0]
              : name === 'matrix'
                ? [p, q ?? 0, r, s, t, u]
                : null;
    if (step) matrix = multiply(matrix, step);
  }
  return matrix;
}
