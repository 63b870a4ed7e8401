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

/**
 * Pairs items of two sets where leaving an item unpaired has a cost of its own.
 * @returns pairs as [a, b] in ascending order of a
 */
export function pairOptimally(
  countA: number,
  countB: number,
  cost: (a: number, b: number) => number,
  costUnpairedA: (a: number) => number,
  costUnpairedB: (b: number) => number,
): [number, number][] {
  const pairing = { countA, countB, cost, costUnpairedA, costUnpairedB };
  return countA + countB > FEW ? pairInGroups(pairing) : pairAtOnce(pairing);
}

/** Two sets and what it costs to pair their items, or to leave one alone. */
interface Pairing {
  readonly countA: number;
  readonly countB: number;
  readonly cost: (a: number, b: number) => number;
  readonly costUnpairedA: (a: number) => number;
  readonly costUnpairedB: (b: number) => number;
}

/** Up to so many on both sides together are assigned in one go. */
const FEW = 128;
/** A group with more on both sides together is paired by the cheapest first. */
const LARGE_GROUP = 400;

/**
 * As one assignment, but quick for many: a pair that costs more than leaving both alone is never part of the best answer, so those that no useful pair joins are
 * assigned apart. The answer costs the same; only in a group of more than 400 the cheapest pairs are taken first, which may cost a little more.
 */
function pairInGroups({ countA, countB, cost, costUnpairedA, costUnpairedB }: Pairing): [number, number][] {
  const aloneB = Float64Array.from({ length: countB }, (_, j) => costUnpairedB(j));
  const useful: { readonly i: number; readonly j: number; readonly gain: number; readonly cost: number }[] = [];
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
    const alone = costUnpairedA(i);
    for (let j = 0; j < countB; j++) {
      const c = cost(i, j);
      if (!(c < alone + aloneB[j])) continue;
      useful.push({ i, j, gain: alone + aloneB[j] - c, cost: c });
      group[root(i)] = root(countA + j);
    }
  }
  const members = new Map<number, { a: number[]; b: number[]; pairs: typeof useful }>();
  const of = (k: number): { a: number[]; b: number[]; pairs: typeof useful } => {
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
    if (a.length + b.length > LARGE_GROUP) {
      const taken = new Set<number>();
      for (const { i, j } of pairs.sort((p, q) => q.gain - p.gain)) {
        if (taken.has(i) || taken.has(countA + j)) continue;
        taken.add(i).add(countA + j);
        out.push([i, j]);
      }
      continue;
    }
    const costs = new Map(pairs.map((pair) => [pair.i * countB + pair.j, pair.cost]));
    const found = pairAtOnce({
      countA: a.length,
      countB: b.length,
      cost: (p, q) => costs.get(a[p] * countB + b[q]) ?? Number.POSITIVE_INFINITY,
      costUnpairedA: (p) => costUnpairedA(a[p]),
      costUnpairedB: (q) => aloneB[b[q]],
    });
    for (const [p, q] of found) out.push([a[p], b[q]]);
  }
  return out.sort(([p], [q]) => p - q);
}

function pairAtOnce({ countA, countB, cost, costUnpairedA, costUnpairedB }: Pairing): [number, number][] {
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
