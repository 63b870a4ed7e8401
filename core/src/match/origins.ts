import { anchorCount, type Contour, measureArcLength, shareOfAnchor } from '../outline';
import type { FixedPair } from './match';

/** Least number of linked anchors that say anything. */
const LEAST_LINKS = 2;

/**
 * Anchors of two contours that are copies of each other, or of the same third, as shares of the lengths as they are written. Empty where fewer
 * than half of the anchors of the contour that has less of them are linked: then they are strangers.
 */
export function originPairs(a: Contour, b: Contour): FixedPair[] {
  const links = originLinks(a, b);
  if (links.length < Math.max(LEAST_LINKS, Math.min(anchorCount(a), anchorCount(b)) / 2)) return [];
  const tableA = measureArcLength(a);
  const tableB = measureArcLength(b);
  return links.map(([i, j]) => ({ a: shareOfAnchor(tableA, i), b: shareOfAnchor(tableB, j) }));
}

/** Contours linked this far are copies of each other. */
const LINKED_SHARE = 0.5;

/** How much of a contour is linked by origin to another: 0 to 1. */
export const originShare = (a: Contour, b: Contour): number =>
  originLinks(a, b).length / Math.max(1, Math.min(anchorCount(a), anchorCount(b)));

/** Pairs of contours of which at least half is linked by origin. Only those that have a name in common are compared. */
export function linkedContours(a: readonly Contour[], b: readonly Contour[]): [number, number][] {
  const owners = new Map<string, number[]>();
  const names = ({ anchorIds = [], originIds = [] }: Contour): Set<string> =>
    new Set([...anchorIds, ...originIds].filter((name) => name !== undefined));
  a.forEach((contour, i) => {
    for (const name of names(contour)) {
      const known = owners.get(name);
      if (known) known.push(i);
      else owners.set(name, [i]);
    }
  });
  return b.flatMap((contour, j) => {
    const likely = new Set([...names(contour)].flatMap((name) => owners.get(name) ?? []));
    return [...likely].filter((i) => originShare(a[i], contour) >= LINKED_SHARE).map((i): [number, number] => [i, j]);
  });
}

function originLinks(a: Contour, b: Contour): [number, number][] {
  if (!a.anchorIds || !b.anchorIds || (!a.originIds && !b.originIds)) return [];
  const known = new Map<string, number>();
  for (let i = a.anchorIds.length - 1; i >= 0; i--) {
    const origin = a.originIds?.[i];
    if (origin !== undefined) known.set(origin, i);
  }
  for (let i = a.anchorIds.length - 1; i >= 0; i--) known.set(a.anchorIds[i], i);
  const used = new Set<number>();
  const links: [number, number][] = [];
  b.anchorIds.forEach((id, j) => {
    const origin = b.originIds?.[j];
    const i = (origin !== undefined ? known.get(origin) : undefined) ?? known.get(id);
    if (i === undefined || used.has(i)) return;
    used.add(i);
    links.push([i, j]);
  });
  return links;
}
