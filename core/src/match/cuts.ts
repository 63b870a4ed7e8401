import { areaCentre, type Contour, contourArea } from '../outline';
import { cutSolid } from './cut-contour';
import type { RunContour } from './joined-contour';
import type { CutPart } from './match';

const HALVINGS = 24;

/**
 * Straight lines that divide a solid into as many parts as there are contours to become. They are square to the line through those whose centres are
 * furthest apart, each part with the share of the area that its contour has among them.
 *
 * @param rings the solid and, run the other way, its holes
 * @returns the lines, and the contours in the order of the parts; undefined where a line would cut the solid more than once, or leave a hole whole
 */
export function automaticCut(
  rings: readonly RunContour[],
  targets: readonly Contour[],
): { lines: CutPart['lines']; order: number[] } | undefined {
  const centres = targets.map((contour) => areaCentre({ contours: [contour], fillRule: 'nonzero' }));
  let [ux, uy] = [0, 0];
  for (const p of centres)
    for (const q of centres)
      if (Math.hypot(q.x - p.x, q.y - p.y) > Math.hypot(ux, uy) + 1e-9) [ux, uy] = [q.x - p.x, q.y - p.y];
  const span = Math.hypot(ux, uy);
  if (!(span > 0)) return undefined;
  ux /= span;
  uy /= span;
  const order = targets.map((_, i) => i).sort((p, q) => along(centres[p], ux, uy) - along(centres[q], ux, uy));
  const areas = order.map((i) => Math.abs(contourArea(targets[i])));
  const whole = areas.reduce((sum, area) => sum + area, 0);
  const solidArea = areaOf(rings);
  if (!(whole > 0) || !(solidArea > 0)) return undefined;
  const lines: [number, number, number, number][] = [];
  let before = 0;
  for (let k = 0; k + 1 < order.length; k++) {
    before += areas[k];
    const line = lineThatLeaves(rings, ux, uy, (solidArea * before) / whole);
    if (!line) return undefined;
    lines.push(line);
  }
  const parts = cutSolid(rings, lines);
  if (parts.length !== targets.length || parts.some((part) => part.length > 1)) return undefined;
  return { lines, order };
}

/** Area of a solid without its holes, px². */
const areaOf = (rings: readonly RunContour[]): number =>
  Math.abs(rings.reduce((sum, { contour }) => sum + contourArea(contour), 0));

const along = (p: { x: number; y: number }, ux: number, uy: number): number => p.x * ux + p.y * uy;

/** The line square to (ux, uy) that has `area` of the solid behind it, by bisection. */
function lineThatLeaves(
  rings: readonly RunContour[],
  ux: number,
  uy: number,
  area: number,
): [number, number, number, number] | undefined {
  let low = Infinity;
  let high = -Infinity;
  const { points } = rings[0].contour;
  for (let i = 0; i < points.length; i += 2) {
    const at = points[i] * ux + points[i + 1] * uy;
    low = Math.min(low, at);
    high = Math.max(high, at);
  }
  // The normal of (dx, dy) as cutContour takes it, (−dy, dx), is to point along (ux, uy).
  const lineAt = (at: number): [number, number, number, number] => [
    at * ux,
    at * uy,
    at * ux + uy * 100,
    at * uy - ux * 100,
  ];
  for (let k = 0; k < HALVINGS; k++) {
    const middle = (low + high) / 2;
    const parts = cutSolid(rings, [lineAt(middle)]);
    let behind = 0;
    for (const part of parts) {
      const centre = areaCentre({ contours: part.map(({ contour }) => contour), fillRule: 'nonzero' });
      if (along(centre, ux, uy) < middle) behind += areaOf(part);
    }
    if (behind < area) low = middle;
    else high = middle;
  }
  return lineAt((low + high) / 2);
}
