import { CoreError } from '../../errors';
import { IDENTITY, type Matrix, multiply, rotation, scaling, translation } from '../../vec';

const NUMBER = /[+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?/gi;
const radians = (degrees: number): number => (degrees * Math.PI) / 180;

/** A CSS transform with px and deg as the attribute would write it. */
export const cssTransform = (text: string | undefined): string | undefined => text?.replace(/(?<=\d)(?:px|deg)\b/g, '');

/**
 * Reads a `transform` attribute (SVG 2, chapter 8.5; CSS Transforms 1): matrix, translate, scale, rotate, skewX, skewY, in any number,
 * the left-most outermost.
 * @throws CoreError 'svg-syntax' naming the function that cannot be read
 */
export function readTransform(text: string | undefined, line = 0): Matrix {
  let matrix: Matrix = IDENTITY;
  if (!text || text.trim() === 'none') return matrix;
  // One step after another, never back: a text of any length takes one pass.
  const step = /\s*([a-z]+)\s*\(([^()]*)\)\s*,?/iy;
  const end = text.trimEnd().length;
  while (step.lastIndex < end) {
    const at = step.lastIndex;
    const found = step.exec(text);
    if (!found) {
      throw new CoreError(
        'svg-syntax',
        `Expected only transform functions; found “${text
          .slice(at, at + 60)
          .trim()
          .slice(0, 40)}” (line ${line}).`,
        `line ${line}`,
      );
    }
    const [whole, name, list] = found;
    const n = (list.match(NUMBER) ?? []).map(Number);
    const next = single(name, n);
    if (!next || n.some((v) => !Number.isFinite(v))) {
      throw new CoreError(
        'svg-syntax',
        `Expected a transform such as translate(4 8); found ${whole.slice(0, 60).trim().slice(0, 40)} (line ${line}).`,
        `line ${line}`,
      );
    }
    matrix = multiply(matrix, next);
  }
  return matrix;
}

function single(name: string, n: number[]): Matrix | undefined {
  switch (name) {
    case 'matrix':
      return n.length === 6 ? (n as unknown as Matrix) : undefined;
    case 'translate':
      return n.length === 1 || n.length === 2 ? translation(n[0], n[1] ?? 0) : undefined;
    case 'scale':
      return n.length === 1 || n.length === 2 ? scaling(n[0], n[1] ?? n[0]) : undefined;
    case 'rotate':
      if (n.length !== 1 && n.length !== 3) return undefined;
      return multiply(
        translation(n[1] ?? 0, n[2] ?? 0),
        multiply(rotation(radians(n[0])), translation(-(n[1] ?? 0), -(n[2] ?? 0))),
      );
    case 'skewX':
      return n.length === 1 ? [1, 0, Math.tan(radians(n[0])), 1, 0, 0] : undefined;
    case 'skewY':
      return n.length === 1 ? [1, Math.tan(radians(n[0])), 0, 1, 0, 0] : undefined;
    default:
      return undefined;
  }
}
