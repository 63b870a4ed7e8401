import { CoreError } from '../../errors';
import { type Matrix, multiply, scaling, translation } from '../../vec';
import type { Viewport } from './basic-shapes';
import type { SvgNode } from './tree';

/** A view box; its place and size in its own units. */
export interface ViewBox extends Viewport {
  readonly x: number;
  readonly y: number;
}

/** The view box of an element, or undefined where there is none or it has no area. @throws CoreError 'svg-syntax' */
export function readViewBox(node: SvgNode): ViewBox | undefined {
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
export function viewBoxMatrix(node: SvgNode, box: ViewBox, x: number, y: number, w: number, h: number): Matrix {
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

/** A picture that is smaller than this, px, cannot be made larger again. */
const LEAST_SIDE = 1e-3;

/** Checks the size of a whole picture, px; `where` says which side of what it is. @throws CoreError 'number-range' */
export function checkSides(width: number, height: number, where: (side: string) => string): void {
  for (const [side, px] of Object.entries({ width, height }))
    if (px > 0 && px < LEAST_SIDE)
      throw new CoreError(
        'number-range',
        `Expected a ${side} of the svg of at least ${LEAST_SIDE} px, or none; found ${px}.`,
        where(side),
      );
}
