import {
  areaCentre,
  type Contour,
  contourArea,
  contourBox,
  contourLength,
  type Nesting,
  type Outline,
  outlineSize,
} from '../outline';
import { type Nearness, pairOptimally } from './assignment';
import { linkedContours } from './origins';

interface Candidate {
  readonly index: number;
  /** In units in which a distance of 1 costs 1. */
  readonly x: number;
  readonly y: number;
  readonly weight: number;
  readonly depth: number;
  readonly parent: number;
  readonly kind: 'solid' | 'hole' | 'open';
}

/** A distance of this share of the size costs as much as having nothing in common. */
const FAR = 0.5;
const NOT_ALIKE = 0.6;
const LIKE_SIZE = 0.35;
/** Copies of each other belong together. */
const LINKED = -4;
const FORBIDDEN = 1e6;

/** Which contour becomes which, and what it costs in the terms of the assignment. */
export interface Assignment {
  readonly pairs: readonly (readonly [number, number])[];
  readonly cost: number;
}

/** How many assignments of solids are looked at. */
const ASSIGNMENTS_KEPT = 3;
/** An assignment dearer than the best by this is not worth a look. */
const WORTH_A_LOOK = 0.8;

/**
 * The best ways to pair contours, the cheapest first. Solids (and open lines) by optimal assignment on distance, size, depth and origin, then
 * the holes inside each pair of solids by their position relative to the solid's box. What is cheaper left unpaired stays unpaired. `own` holds
 * what was decided already, −1 for a contour that stays unpaired.
 */
export function rankAssignments(
  a: Outline,
  nestingA: readonly Nesting[],
  b: Outline,
  nestingB: readonly Nesting[],
  own: readonly (readonly [number, number])[] = [],
): Assignment[] {
  const size = Math.max(outlineSize(a), outlineSize(b)) || 1;
  const decidedA = new Set(own.map(([i]) => i));
  const decidedB = new Set(own.map(([, j]) => j));
  const allA = candidates(a, nestingA, size).filter((c) => !decidedA.has(c.index));
  const allB = candidates(b, nestingB, size).filter((c) => !decidedB.has(c.index));
  const outerA = allA.filter((c) => c.kind !== 'hole');
  const outerB = allB.filter((c) => c.kind !== 'hole');
  const ownPairs = own.filter(([i, j]) => i >= 0 && j >= 0);
  const links = new LinkedPairs(linkedContours(a.contours, b.contours), b.contours.length);
  const holesOf = (all: readonly Candidate[]): Map<number, Candidate[]> => {
    const out = new Map<number, Candidate[]>();
    for (const c of all) if (c.kind === 'hole') out.set(c.parent, [...(out.get(c.parent) ?? []), c]);
    return out;
  };
  const [holesA, holesB] = [holesOf(allA), holesOf(allB)];
  const withHoles = (outer: Solved): Assignment => {
    const pairs = [...ownPairs, ...outer.pairs];
    let cost = outer.cost;
    for (const [ia, ib] of [...pairs]) {
      const within = (holes: readonly Candidate[] = [], solid: Contour): Candidate[] => {
        const { minX, minY, maxX, maxY } = contourBox(solid);
        const share = (value: number, low: number, high: number): number =>
          high > low ? (value * FAR * size - low) / (high - low) : 0.5;
        return holes.map((hole) => ({ ...hole, x: share(hole.x, minX, maxX), y: share(hole.y, minY, maxY) }));
      };
      const holes = solve(within(holesA.get(ia), a.contours[ia]), within(holesB.get(ib), b.contours[ib]), links);
      pairs.push(...holes.pairs);
      cost += holes.cost;
    }
    return { pairs, cost };
  };
  const best = solve(outerA, outerB, links);
  const found = [best];
  for (const [i, j] of mostDoubtful(best.pairs, outerA, outerB, links)) {
    if (best.pairs.length + Math.abs(outerA.length - outerB.length) < 2) break;
    const other = solve(outerA, outerB, links, ([p, q]) => p === i && q === j);
    const key = JSON.stringify(other.pairs);
    if (other.cost < best.cost + WORTH_A_LOOK && !found.some(({ pairs }) => JSON.stringify(pairs) === key))
      found.push(other);
  }
  return found
    .sort((p, q) => p.cost - q.cost)
    .slice(0, ASSIGNMENTS_KEPT)
    .map(withHoles);
}

/** Of more pairs than this only the most doubtful ones are tried without; the more pairs, the fewer, for each trial takes longer. */
const PAIRS_DOUBTED = 16;
const LEAST_DOUBTED = 4;
const DOUBT_WORK = 1_024;

/**
 * The pairs that another assignment might do without: all of them, or of many those whose first contour has another partner that is nearly as near, the
 * nearest first.
 */
function mostDoubtful(
  pairs: readonly (readonly [number, number])[],
  a: readonly Candidate[],
  b: readonly Candidate[],
  links: LinkedPairs,
): readonly (readonly [number, number])[] {
  if (pairs.length <= PAIRS_DOUBTED) return pairs;
  const byIndex = new Map(a.map((candidate) => [candidate.index, candidate]));
  const margins = pairs.map((pair) => {
    const p = byIndex.get(pair[0]);
    let [own, other] = [Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY];
    for (const q of b) {
      const d = p ? distance(p, q) + links.cost(p, q) : 0;
      if (q.index === pair[1]) own = d;
      else if (d < other) other = d;
    }
    return { pair, margin: other - own };
  });
  return margins
    .sort((p, q) => p.margin - q.margin)
    .slice(0, Math.max(LEAST_DOUBTED, Math.min(PAIRS_DOUBTED, Math.floor(DOUBT_WORK / pairs.length))))
    .map(({ pair }) => pair);
}

function candidates(outline: Outline, nesting: readonly Nesting[], size: number): Candidate[] {
  return outline.contours.map((contour, index) => {
    const centre = areaCentre({ contours: [contour], fillRule: 'nonzero' });
    const kind = !contour.closed ? 'open' : nesting[index].hole ? 'hole' : 'solid';
    const weight =
      kind === 'open' ? (contourLength(contour) / size) ** 2 / 16 : Math.abs(contourArea(contour)) / (size * size);
    return {
      index,
      x: centre.x / (FAR * size),
      y: centre.y / (FAR * size),
      weight: Math.max(weight, 1e-6),
      depth: nesting[index].depth,
      parent: nesting[index].parent,
      kind,
    };
  });
}

/** Contours that are copies of each other. */
class LinkedPairs {
  private readonly keys: ReadonlySet<number>;

  constructor(
    private readonly pairs: readonly (readonly [number, number])[],
    private readonly countB: number,
  ) {
    this.keys = new Set(pairs.map(([i, j]) => i * countB + j));
  }

  cost(p: Candidate, q: Candidate): number {
    return this.keys.has(p.index * this.countB + q.index) ? LINKED : 0;
  }

  /** Those of two lists, as places in the lists. */
  among(a: readonly Candidate[], b: readonly Candidate[]): [number, number][] {
    if (this.pairs.length === 0) return [];
    const placeIn = (all: readonly Candidate[]): Map<number, number> => new Map(all.map(({ index }, k) => [index, k]));
    const [placesA, placesB] = [placeIn(a), placeIn(b)];
    return this.pairs.flatMap(([i, j]): [number, number][] => {
      const [p, q] = [placesA.get(i), placesB.get(j)];
      return p === undefined || q === undefined ? [] : [[p, q]];
    });
  }
}

const distance = (p: Candidate, q: Candidate): number => Math.hypot(p.x - q.x, p.y - q.y);

/** Place, size, depth and kind, by which near contours are found. */
function nearness(a: readonly Candidate[], b: readonly Candidate[], links: LinkedPairs): Nearness {
  const features = (all: readonly Candidate[]): Float64Array =>
    Float64Array.from(
      all.flatMap(({ x, y, weight, depth, kind }) => [x, y, Math.log(weight), depth, kind === 'open' ? 1 : 0]),
    );
  return {
    axes: 5,
    a: features(a),
    b: features(b),
    distance: (apart) =>
      Math.hypot(apart[0], apart[1]) + LIKE_SIZE * apart[2] + NOT_ALIKE * (Math.min(1, apart[3]) + apart[4]),
    linked: links.among(a, b),
  };
}

interface Solved {
  readonly pairs: readonly (readonly [number, number])[];
  readonly cost: number;
}

function solve(
  a: readonly Candidate[],
  b: readonly Candidate[],
  links: LinkedPairs,
  forbidden: (pair: readonly [number, number]) => boolean = () => false,
): Solved {
  const largest = Math.max(1e-6, ...a.map((c) => c.weight), ...b.map((c) => c.weight));
  const unpairedCost = (c: Candidate): number => 1.2 * (0.3 + Math.sqrt(c.weight / largest));
  const together = (p: Candidate, q: Candidate): number =>
    forbidden([p.index, q.index])
      ? FORBIDDEN
      : distance(p, q) +
        links.cost(p, q) +
        LIKE_SIZE * Math.abs(Math.log(p.weight / q.weight)) +
        (p.depth !== q.depth ? NOT_ALIKE : 0) +
        (p.kind !== q.kind ? NOT_ALIKE : 0);
  // One on each side always belong together: there is nothing to choose.
  if (a.length === 1 && b.length === 1) return { pairs: [[a[0].index, b[0].index]], cost: together(a[0], b[0]) };
  const pairs = pairOptimally({
    countA: a.length,
    countB: b.length,
    cost: (i, j) => together(a[i], b[j]),
    costUnpairedA: (i) => unpairedCost(a[i]),
    costUnpairedB: (j) => unpairedCost(b[j]),
    near: () => nearness(a, b, links),
  });
  const costs = pairs.map(([i, j]) => together(a[i], b[j]));
  const [pairedA, pairedB] = [new Set(pairs.map(([i]) => i)), new Set(pairs.map(([, j]) => j))];
  a.forEach((c, i) => {
    if (!pairedA.has(i)) costs.push(unpairedCost(c));
  });
  b.forEach((c, j) => {
    if (!pairedB.has(j)) costs.push(unpairedCost(c));
  });
  return {
    pairs: pairs.map(([i, j]) => [a[i].index, b[j].index]),
    cost: costs.reduce((sum, cost) => sum + cost, 0),
  };
}
