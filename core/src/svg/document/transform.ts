import { CoreError } from '../../errors';
import { IDENTITY, type Matrix, multiply, rotation, scaling, translation } from '../../vec';

const NUMBER = /[+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?/gi;
const radians = (degrees: number): number => (degrees * Math.PI) / 180;

/**
 * Reads a `transform` attribute (SVG 2, chapter 8.5; CSS Transforms 1): matrix, translate, scale, rotate, skewX, skewY, in any number,
 * the left-most outermost.
 * @throws CoreError 'svg-syntax' naming the function that cannot be read
 */
export function readTransform(text: string | undefined, line = 0): Matrix {
  let matrix: Matrix = IDENTITY;
  if (!text || text.trim() === 'none') return matrix;
  const rest = text.replace(/([a-z]+)\s*\(([^()]*)\)\s*,?/gi, (whole, name: string, list: string) => {
    const n = (list.match(NUMBER) ?? []).map(Number);
    const step = single(name, n);
    if (!step || n.some((v) => !Number.isFinite(v))) {
      throw new CoreError(
        'svg-syntax',
        `Expected a transform such as translate(4 8); found ${whole.trim().slice(0, 40)} (line ${line}).`,
        `line ${line}`,
      );
    }
    matrix = multiply(matrix, step);
    return '';
  });
  if (rest.trim() !== '') {
    throw new CoreError(
      'svg-syntax',
      `Expected only transform functions; found “${rest.trim().slice(0, 40)}” (line ${line}).`,
      `line ${line}`,
    );
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
