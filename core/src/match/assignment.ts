import { type GainfulPair, takeByAuction } from './auction';
import { type FeatureDistance, NearestByFeatures } from './nearest';

/**
 * Cheapest one-to-one assignment of rows to columns of a square cost matrix (row-major, n × n): the Hungarian method with potentials and
 * shortest augmenting paths, O(n³) (Kuhn 1955; Jonker & Volgenant: A shortest augmenting path algorithm, 1987).
 *
 * @returns for each row its column
 */
export function assignOptimally(cost: Float64Array, n: number): Int32Array {
  const rowPotential = new Float64Array(n + 1);
  const columnPotential = new Float64Array(n + 1);
  const rowOf = new Int32Array(n + 1);
  const way = new Int32Array(n + 1);
  for (let row = 1; row <= n; row++) {
    rowOf[0] = row;
    let column = 0;
    const slack = new Float64Array(n + 1).fill(Infinity);
    const used = new Uint8Array(n + 1);
    do {
      used[column] = 1;
      const r = rowOf[column];
      let delta = Infinity;
      let next = 0;
      for (let j = 1; j <= n; j++) {
        if (used[j]) continue;
        const reduced = cost[(r - 1) * n + j - 1] - rowPotential[r] - columnPotential[j];
        if (reduced < slack[j]) {
          slack[j] = reduced;
          way[j] = column;
        }
        if (slack[j] < delta) {
          delta = slack[j];
          next = j;
        }
      }
      for (let j = 0; j <= n; j++) {
        if (used[j]) {
          rowPotential[rowOf[j]] += delta;
          columnPotential[j] -= delta;
        } else slack[j] -= delta;
      }
      column = next;
    } while (rowOf[column] !== 0);
    while (column !== 0) {
      const before = way[column];
      rowOf[column] = rowOf[before];
      column = before;
    }
  }
  const out = new Int32Array(n);
  for (let j = 1; j <= n; j++) out[rowOf[j] - 1] = j - 1;
  return out;
}

/** Two sets and what it costs to pair their items, or to leave one alone. */
export interface PairingCosts {
  readonly countA: number;
  readonly countB: number;
  readonly cost: (a: number, b: number) => number;
  readonly costUnpairedA: (a: number) => number;
  readonly costUnpairedB: (b: number) => number;
  /** By what near items are found where there are too many to try each with each. */
  readonly near?: () => Nearness;
}

/** What the most of a pair's cost depends on: features of every item, one item after the other, and what the differences of two items' features cost at least. */
export interface Nearness {
  readonly axes: number;
  readonly a: Float64Array;
  readonly b: Float64Array;
  readonly distance: FeatureDistance;
  /** Pairs that belong together wherever they are. */
  readonly linked?: readonly (readonly [number, number])[];
}

/** Up to so many on both sides together are assigned in one go, and so are groups that no useful pair joins to others; larger ones by auction. */
const FEW = 128;
/** With more pairs than this only near ones are tried, so many for each item. */
const MOST_PAIRS = 6_000;
const NEIGHBOURS = 12;
/** So often those that are left are tried with those that are left. */
const ROUNDS = 6;

/**
 * Pairs items of two sets where leaving an item unpaired has a cost of its own, so that all costs together are least. The answer is exact for up to 128 items and for groups
 * of up to 128 that no useful pair joins to others. Beyond that it is within a thousandth for each item, of the pairs that were looked at.
 * @returns pairs as [a, b] in ascending order of a
 */
export function pairOptimally(pairing: PairingCosts): [number, number][] {
  const { countA, countB } = pairing;
  if (countA + countB <= FEW) return pairAtOnce(pairing);
  return countA * countB > MOST_PAIRS && pairing.near ? pairNear(pairing, pairing.near()) : pairInGroups(pairing);
}

interface UsefulPair extends GainfulPair {
  readonly cost: number;
}

/** A pair that costs more than leaving both alone is never part of the best answer. */
const usefulPair = (pairing: PairingCosts, i: number, j: number): UsefulPair | undefined => {
  const cost = pairing.cost(i, j);
  const gain = pairing.costUnpairedA(i) + pairing.costUnpairedB(j) - cost;
  return gain > 0 ? { i, j, gain, cost } : undefined;
};

/** Of items that are alike, those that stand at like places in their rows are nearest, so that not all ask for the same few. */
const LIKE_PLACES = 1e-6;

/** Features with one more at the end: where in its row the item stands, 0 to 1. */
function inRow(features: Float64Array, axes: number, count: number): Float64Array {
  const out = new Float64Array(count * (axes + 1));
  for (let i = 0; i < count; i++) {
    out.set(features.subarray(i * axes, (i + 1) * axes), i * (axes + 1));
    out[i * (axes + 1) + axes] = i / count;
  }
  return out;
}

/** Each item is tried with its nearest ones; what is left after that with what is left. */
function pairNear(pairing: PairingCosts, near: Nearness): [number, number][] {
  const { linked = [] } = near;
  const axes = near.axes + 1;
  const [a, b] = [inRow(near.a, near.axes, pairing.countA), inRow(near.b, near.axes, pairing.countB)];
  const distance: FeatureDistance = (apart) => near.distance(apart) + LIKE_PLACES * apart[near.axes];
  const out: [number, number][] = [];
  let leftA = Array.from({ length: pairing.countA }, (_, i) => i);
  let leftB = Array.from({ length: pairing.countB }, (_, j) => j);
  for (let round = 0; round < ROUNDS && leftA.length > 0 && leftB.length > 0; round++) {
    const featuresB = new Float64Array(leftB.length * axes);
    leftB.forEach((j, k) => featuresB.set(b.subarray(j * axes, (j + 1) * axes), k * axes));
    const tree = new NearestByFeatures(featuresB, axes, distance);
    const pairs = new Map<number, UsefulPair>();
    const add = (i: number, j: number): void => {
      const key = i * pairing.countB + j;
      const pair = pairs.has(key) ? undefined : usefulPair(pairing, i, j);
      if (pair) pairs.set(key, pair);
    };
    if (round === 0) for (const [i, j] of linked) add(i, j);
    for (const i of leftA)
      for (const k of tree.nearest(a.subarray(i * axes, (i + 1) * axes), NEIGHBOURS)) add(i, leftB[k]);
    const taken = takeByAuction([...pairs.values()], pairing.countA, pairing.countB);
    if (taken.length === 0) break;
    for (const { i, j } of taken) out.push([i, j]);
    const [usedA, usedB] = [new Set(taken.map(({ i }) => i)), new Set(taken.map(({ j }) => j))];
    leftA = leftA.filter((i) => !usedA.has(i));
    leftB = leftB.filter((j) => !usedB.has(j));
  }
  return out.sort(([p], [q]) => p - q);
}

/** As one assignment, but quick for many: those that no useful pair joins are assigned apart. */
function pairInGroups(pairing: PairingCosts): [number, number][] {
  const { countA, countB } = pairing;
  const useful: UsefulPair[] = [];
  const group = Int32Array.from({ length: countA + countB }, (_, k) => k);
  const root = (k: number): number => {
    let at = k;
    while (group[at] !== at) {
      group[at] = group[group[at]];
      at = group[at];
    }
    return at;
  };
  for (let i = 0; i < countA; i++) {
    for (let j = 0; j < countB; j++) {
      const pair = usefulPair(pairing, i, j);
      if (!pair) continue;
      useful.push(pair);
      group[root(i)] = root(countA + j);
    }
  }
  const members = new Map<number, { a: number[]; b: number[]; pairs: UsefulPair[] }>();
  const of = (k: number): { a: number[]; b: number[]; pairs: UsefulPair[] } => {
    const at = root(k);
    let found = members.get(at);
    if (!found) {
      found = { a: [], b: [], pairs: [] };
      members.set(at, found);
    }
    return found;
  };
  for (let i = 0; i < countA; i++) of(i).a.push(i);
  for (let j = 0; j < countB; j++) of(countA + j).b.push(j);
  for (const pair of useful) of(pair.i).pairs.push(pair);
  const out: [number, number][] = [];
  for (const { a, b, pairs } of members.values()) {
    if (pairs.length === 0) continue;
    if (a.length + b.length > FEW) {
      for (const { i, j } of takeByAuction(pairs, countA, countB)) out.push([i, j]);
      continue;
    }
    const costs = new Map(pairs.map((pair) => [pair.i * countB + pair.j, pair.cost]));
    const found = pairAtOnce({
      countA: a.length,
      countB: b.length,
      cost: (p, q) => costs.get(a[p] * countB + b[q]) ?? Number.POSITIVE_INFINITY,
      costUnpairedA: (p) => pairing.costUnpairedA(a[p]),
      costUnpairedB: (q) => pairing.costUnpairedB(b[q]),
    });
    for (const [p, q] of found) out.push([a[p], b[q]]);
  }
  return out.sort(([p], [q]) => p - q);
}

function pairAtOnce({ countA, countB, cost, costUnpairedA, costUnpairedB }: PairingCosts): [number, number][] {
  const n = countA + countB;
  const forbidden = 1e9;
  const matrix = new Float64Array(n * n);
  for (let i = 0; i < n; i++) {
    for (let j = 0; j < n; j++) {
      let c = 0;
      if (i < countA && j < countB) c = Math.min(forbidden, cost(i, j));
      else if (i < countA) c = j - countB === i ? costUnpairedA(i) : forbidden;
      else if (j < countB) c = i - countA === j ? costUnpairedB(j) : forbidden;
      matrix[i * n + j] = c;
    }
  }
  const column = assignOptimally(matrix, n);
  const pairs: [number, number][] = [];
  for (let i = 0; i < countA; i++)
    if (column[i] < countB && matrix[i * n + column[i]] < forbidden) pairs.push([i, column[i]]);
  return pairs;
}
