import Flatbush from 'flatbush';
import { FLATTEN_EPS_REL } from '../num';
import { type Box, boxSize } from '../vec';
import { reverseContour } from './change';
import type { Contour, Outline } from './contour';
import { flattenContour, polylineWinding } from './flatten';
import { contourArea, contourBox, outlineSize } from './measure';

/** How a contour lies among the others of its outline. */
export interface Nesting {
  /** Number of contours around it. */
  readonly depth: number;
  /** Index of the nearest contour around it, or −1. */
  readonly parent: number;
  /** Does it take away from the picture (true) or add to it (false)? */
  readonly hole: boolean;
}

/** Fewer contours are held against each other one by one. */
const FEW = 48;
/** So many contours that might lie around one are looked at, the smallest first. */
const MOST_CANDIDATES = 200;

/** What containment is decided by, for each contour. */
interface Measured {
  readonly contour: Contour;
  readonly line: Float64Array;
  readonly box: Box;
  readonly area: number;
}

/**
 * Containment of contours that do not cross each other: contour i lies in j when one of its points does. Whether it is a hole
 * follows from the fill rule: even-odd by depth, nonzero by the winding numbers on both sides of it. Open contours are never holes.
 *
 * Many contours are looked up by their boxes (flatbush: a packed Hilbert R-tree), and what lies around the nearest one around a contour lies around it
 * too. So the work grows about as n log n.
 */
export function nestingOf(outline: Outline): Nesting[] {
  const { contours, fillRule } = outline;
  const size = outlineSize(outline);
  const all = contours.map(
    (contour): Measured => ({
      contour,
      line: flattenContour(contour, FLATTEN_EPS_REL * size || 1),
      box: contourBox(contour),
      area: contourArea(contour),
    }),
  );
  const around = contours.length <= FEW ? aroundEach(all) : aroundMany(all);
  return all.map(({ contour, area }, i) => {
    if (!contour.closed) return { depth: 0, parent: -1, hole: false };
    const { depth, parent, winding } = around[i];
    const filledOutside = fillRule === 'evenodd' ? depth % 2 === 1 : winding !== 0;
    const filledInside = fillRule === 'evenodd' ? depth % 2 === 0 : winding + Math.sign(area) !== 0;
    return { depth, parent, hole: filledOutside && !filledInside };
  });
}

/** How many contours lie around one, the nearest of them or −1, and the sum of their directions. */
interface Around {
  readonly depth: number;
  readonly parent: number;
  readonly winding: number;
}
const NOTHING: Around = { depth: 0, parent: -1, winding: 0 };

/** Can j lie around i at all? */
function mayHold(all: readonly Measured[], j: number, i: number): boolean {
  if (j === i || !all[j].contour.closed) return false;
  const [inner, outer] = [Math.abs(all[i].area), Math.abs(all[j].area)];
  if (outer < inner || boxSize(all[j].box) === 0 || (outer === inner && j > i)) return false;
  const [a, b] = [all[i].box, all[j].box];
  return a.minX <= b.maxX && a.maxX >= b.minX && a.minY <= b.maxY && a.maxY >= b.minY;
}

/** Each held against each. */
function aroundEach(all: readonly Measured[]): Around[] {
  return all.map(({ contour, line }, i) => {
    if (!contour.closed) return NOTHING;
    let [depth, parent, winding] = [0, -1, 0];
    for (let j = 0; j < all.length; j++) {
      if (!mayHold(all, j, i) || !mostlyInside(line, all[j].line)) continue;
      depth++;
      winding += Math.sign(all[j].area);
      if (parent < 0 || Math.abs(all[j].area) < Math.abs(all[parent].area)) parent = j;
    }
    return { depth, parent, winding };
  });
}

/** The largest first, each held against the smallest that its box allows until one lies around it; equal contours are looked at once. */
function aroundMany(all: readonly Measured[]): Around[] {
  const index = new Flatbush(all.length);
  for (const { box } of all) index.add(box.minX, box.minY, box.maxX, box.maxY);
  index.finish();
  const order = all.map((_, k) => k).sort((i, j) => Math.abs(all[j].area) - Math.abs(all[i].area) || i - j);
  const rank = new Int32Array(all.length);
  order.forEach((i, k) => {
    rank[i] = k;
  });
  const around: Around[] = new Array(all.length).fill(NOTHING);
  const copies = copiesOf(all);
  for (const i of order) {
    const { contour, line, box } = all[i];
    if (!contour.closed) continue;
    const { first, before } = copies[i];
    if (first !== i) {
      // One more on a pile: around it lies what lies around the first, and those of the pile before it if a contour lies in its equal.
      around[i] = mostlyInside(line, all[before].line) ? inside(all, around, before) : around[first];
      continue;
    }
    const parent = nearestAround(
      all,
      order,
      (found) => {
        index.search(box.minX, box.minY, box.maxX, box.maxY, (j) => {
          if (rank[j] < rank[i] && mayHold(all, j, i)) found(rank[j]);
          return false;
        });
      },
      line,
    );
    if (parent !== undefined) around[i] = inside(all, around, parent);
  }
  return around;
}

const inside = (all: readonly Measured[], around: readonly Around[], parent: number): Around => ({
  depth: around[parent].depth + 1,
  parent,
  winding: around[parent].winding + Math.sign(all[parent].area),
});

/** The smallest of the candidates that `visit` tells by rank which lies around a line. */
function nearestAround(
  all: readonly Measured[],
  order: readonly number[],
  visit: (found: (rank: number) => void) => void,
  line: Float64Array,
): number | undefined {
  let smallest = -1;
  visit((rank) => {
    if (rank > smallest) smallest = rank;
  });
  if (smallest < 0) return undefined;
  if (mostlyInside(line, all[order[smallest]].line)) return order[smallest];
  // Not the very smallest: the others in turn.
  const ranks: number[] = [];
  visit((rank) => ranks.push(rank));
  const others = Int32Array.from(ranks).sort().reverse().subarray(1, MOST_CANDIDATES);
  const found = others.find((rank) => mostlyInside(line, all[order[rank]].line));
  return found === undefined ? undefined : order[found];
}

/** For each contour the first one with the same points, and the one before it in that pile. */
function copiesOf(all: readonly Measured[]): { readonly first: number; readonly before: number }[] {
  const last = new Map<string, number>();
  const firsts: { first: number; before: number }[] = [];
  all.forEach(({ contour: { points }, area }, i) => {
    const key = `${points.length} ${points[0]} ${points[1]} ${area}`;
    const known = last.get(key);
    const before = known !== undefined && equalPoints(all[known].contour.points, points) ? known : i;
    firsts.push({ first: before === i ? i : firsts[before].first, before });
    last.set(key, i);
  });
  return firsts;
}

const equalPoints = (p: Float64Array, q: Float64Array): boolean => p.every((v, k) => v === q[k]);

/** Do most of a few points of `inner` lie inside `outer`? Several, because one may lie exactly on it. */
function mostlyInside(inner: Float64Array, outer: Float64Array): boolean {
  const n = inner.length / 2;
  const probes = Math.min(5, n);
  let hits = 0;
  for (let k = 0; k < probes; k++) {
    const i = 2 * Math.floor((k * n) / probes);
    if (polylineWinding(outer, inner[i], inner[i + 1]) !== 0) hits++;
  }
  return 2 * hits > probes;
}

/**
 * The same picture with solids run clockwise on screen, holes the other way, and fill rule nonzero. Needs contours that do not cross.
 * `reversed[i]` says whether contour i was turned round.
 */
export function orientOutline(outline: Outline): { outline: Outline; nesting: Nesting[]; reversed: boolean[] } {
  const nesting = nestingOf(outline);
  const reversed = outline.contours.map(
    (contour, i) => contour.closed && contourArea(contour) > 0 === nesting[i].hole && contourArea(contour) !== 0,
  );
  const contours: Contour[] = outline.contours.map((contour, i) => (reversed[i] ? reverseContour(contour) : contour));
  return { outline: { contours, fillRule: 'nonzero' }, nesting, reversed };
}
