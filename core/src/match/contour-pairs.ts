import {
  areaCentre,
  contourArea,
  contourBox,
  contourLength,
  type Nesting,
  type Outline,
  outlineSize,
} from '../outline';
import { pairOptimally } from './assignment';

interface Candidate {
  readonly index: number;
  readonly x: number;
  readonly y: number;
  readonly weight: number;
  readonly depth: number;
  readonly parent: number;
  readonly kind: 'solid' | 'hole' | 'open';
}

const NOT_ALIKE = 0.6;

/**
 * Which contour becomes which: solids (and open lines) are paired by optimal assignment on distance, size and depth, then the holes
 * inside each pair of solids by their position relative to the solid's box. What is cheaper left alone stays alone.
 */
export function pairContours(
  a: Outline,
  nestingA: readonly Nesting[],
  b: Outline,
  nestingB: readonly Nesting[],
): [number, number][] {
  const size = Math.max(outlineSize(a), outlineSize(b)) || 1;
  const allA = candidates(a, nestingA, size);
  const allB = candidates(b, nestingB, size);
  const outerA = allA.filter((c) => c.kind !== 'hole');
  const outerB = allB.filter((c) => c.kind !== 'hole');
  const pairs = solve(outerA, outerB, (p, q) => Math.hypot(p.x - q.x, p.y - q.y) / 0.5);
  for (const [ia, ib] of [...pairs]) {
    const boxA = contourBox(a.contours[ia]);
    const boxB = contourBox(b.contours[ib]);
    const within = (value: number, low: number, high: number): number =>
      high > low ? (value - low) / (high - low) : 0.5;
    const inA = allA.filter((c) => c.kind === 'hole' && c.parent === ia);
    const inB = allB.filter((c) => c.kind === 'hole' && c.parent === ib);
    pairs.push(
      ...solve(inA, inB, (p, q) =>
        Math.hypot(
          within(p.x * size, boxA.minX, boxA.maxX) - within(q.x * size, boxB.minX, boxB.maxX),
          within(p.y * size, boxA.minY, boxA.maxY) - within(q.y * size, boxB.minY, boxB.maxY),
        ),
      ),
    );
  }
  return pairs;
}

function candidates(outline: Outline, nesting: readonly Nesting[], size: number): Candidate[] {
  return outline.contours.map((contour, index) => {
    const centre = areaCentre({ contours: [contour], fillRule: 'nonzero' });
    const kind = !contour.closed ? 'open' : nesting[index].hole ? 'hole' : 'solid';
    const weight =
      kind === 'open' ? (contourLength(contour) / size) ** 2 / 16 : Math.abs(contourArea(contour)) / (size * size);
    return {
      index,
      x: centre.x / size,
      y: centre.y / size,
      weight: Math.max(weight, 1e-6),
      depth: nesting[index].depth,
      parent: nesting[index].parent,
      kind,
    };
  });
}

function solve(
  a: readonly Candidate[],
  b: readonly Candidate[],
  distance: (p: Candidate, q: Candidate) => number,
): [number, number][] {
  const largest = Math.max(1e-6, ...a.map((c) => c.weight), ...b.map((c) => c.weight));
  const alone = (c: Candidate): number => 1.2 * (0.3 + Math.sqrt(c.weight / largest));
  // One on each side always belong together: there is nothing to choose.
  if (a.length === 1 && b.length === 1) return [[a[0].index, b[0].index]];
  return pairOptimally(
    a.length,
    b.length,
    (i, j) =>
      distance(a[i], b[j]) +
      0.35 * Math.abs(Math.log(a[i].weight / b[j].weight)) +
      (a[i].depth !== b[j].depth ? NOT_ALIKE : 0) +
      (a[i].kind !== b[j].kind ? NOT_ALIKE : 0),
    (i) => alone(a[i]),
    (j) => alone(b[j]),
  ).map(([i, j]) => [a[i].index, b[j].index]);
}
