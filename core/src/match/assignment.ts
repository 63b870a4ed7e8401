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
