import type { ContourSamples } from './samples';

/** What a node and a step of the alignment cost; see `SampleAligner`. */
export interface Weights {
  /** Squared distance of the samples, of outlines brought to the same size and middle. */
  readonly position: number;
  /** One minus the cosine between the directions of the outlines. */
  readonly tangent: number;
  /** Squared difference of bending. */
  readonly bend: number;
  /** Squared difference of the shares of a step, over their sum. */
  readonly stretch: number;
  /** Turning of corners that meet no corner alike, in half turns. */
  readonly corner: number;
}

/** What is tried first, and nearly always enough. */
export const WEIGHTS: Weights = { position: 1, tangent: 0.6, bend: 0.25, stretch: 0.35, corner: 0.12 };
/** Other opinions of what belongs together, for pairs that come out unhealthy by the first: place, direction, evenness or corners count for more. */
export const OTHER_WEIGHTS: readonly Weights[] = [
  { ...WEIGHTS, position: 4 },
  { ...WEIGHTS, tangent: 8 },
  { ...WEIGHTS, stretch: 8 },
  { ...WEIGHTS, corner: 0.5 },
];
/** Costs nearer than this are equal, and the first wins: the last bits of sines and roots differ between JavaScript engines. */
const TIE = 1e-9;
/** How far the map may stray from even shares. */
const BAND = 0.3;
/** How far it may stray from a way found on a coarser sampling. */
const GUIDED_BAND = 0.07;

/** Steps (samples of A, samples of B) and the turning of jumped corners follow from them. */
const STEP_A = Int32Array.of(1, 2, 3, 4, 1, 1, 1, 2, 3);
const STEP_B = Int32Array.of(1, 1, 1, 1, 2, 3, 4, 3, 2);

export interface AlignOptions {
  /** Only a way cheaper than this is of use. */
  readonly limit?: number;
  /** How many samples of each row are gone over. */
  readonly countA?: number;
  readonly countB?: number;
  /** Where the way is expected: share of B for a share of A, both counted from the start. */
  readonly guide?: (share: number) => number;
}

/** A way through both rows of samples: indices into A and B, ascending, from start to end (the end of a closed row is its count). */
export interface Alignment {
  readonly cost: number;
  readonly i: number[];
  readonly j: number[];
}

/**
 * Prepared comparison of two rows of samples. `align` finds the cheapest monotone way: dynamic programming after Sederberg & Greenwood
 * (A physically based approach to 2-D shape blending, 1992) and Maes (On a cyclic string-to-string correction problem, 1990), with
 * steps of up to four samples so that neither side ever stands still.
 */
export class SampleAligner {
  /** Node costs, one row for each sample of A; the samples of B twice in a row, so that a closed one reads on past its end. */
  private readonly node: Float64Array;
  private readonly stride: number;
  private readonly cost: Float64Array;
  private readonly from: Int8Array;
  private readonly shareA: Float64Array;
  private readonly shareB: Float64Array;
  private readonly turnA: Float64Array;
  private readonly turnB: Float64Array;
  private readonly passedA: Float64Array;
  private readonly passedB: Float64Array;
  private readonly nodeRow: Int32Array;
  private readonly widthB: Float64Array;
  private readonly jumpedB: Float64Array;
  private readonly stretch: number;
  private readonly corner: number;

  constructor(
    private readonly a: ContourSamples,
    private readonly b: ContourSamples,
    { position, tangent, bend: bending, stretch, corner }: Weights = WEIGHTS,
  ) {
    this.stretch = stretch;
    this.corner = corner / Math.PI;
    const n = a.share.length;
    const m = b.share.length;
    this.stride = 2 * m;
    this.node = new Float64Array(n * 2 * m);
    for (let i = 0; i < n; i++) {
      const row = i * 2 * m;
      for (let j = 0; j < m; j++) {
        const dx = a.x[i] - b.x[j];
        const dy = a.y[i] - b.y[j];
        const bend = a.bend[i] - b.bend[j];
        const cost =
          position * (dx * dx + dy * dy) +
          tangent * (1 - a.tx[i] * b.tx[j] - a.ty[i] * b.ty[j]) +
          bending * bend * bend;
        this.node[row + j] = cost;
        this.node[row + m + j] = cost;
      }
    }
    const rows = a.count + 1;
    const columns = b.count + 1;
    this.cost = new Float64Array(rows * columns);
    this.from = new Int8Array(rows * columns);
    this.shareA = new Float64Array(rows);
    this.shareB = new Float64Array(columns);
    this.turnA = new Float64Array(rows);
    this.turnB = new Float64Array(columns);
    this.passedA = new Float64Array(rows);
    this.passedB = new Float64Array(columns);
    this.nodeRow = new Int32Array(rows);
    this.widthB = new Float64Array(4 * columns);
    this.jumpedB = new Float64Array(4 * columns);
  }

  /**
   * The cheapest way from sample `i0` of A and `j0` of B over `countA` and `countB` samples: by default once round (closed) or to the ends
   * (open). `guide` keeps it within `GUIDED_BAND` of a way found before. Undefined when no way is cheaper than `limit`, or none exists.
   */
  align(i0: number, j0: number, { limit = Infinity, countA, countB, guide }: AlignOptions = {}): Alignment | undefined {
    const { a, b, cost, from, stride, shareA, shareB, turnA, turnB, passedA, passedB, nodeRow } = this;
    const lastA = countA ?? a.count;
    const lastB = countB ?? b.count;
    const rows = lastA + 1;
    const columns = lastB + 1;
    unroll(a, i0, lastA, shareA, turnA, passedA);
    unroll(b, j0, lastB, shareB, turnB, passedB);
    this.prepareColumns(columns);
    const slope = shareA[lastA] > 0 ? shareB[lastB] / shareA[lastA] : 1;
    const band = guide ? GUIDED_BAND : BAND;
    const n = a.share.length;
    for (let i = 0; i < rows; i++) nodeRow[i] = ((i0 + i) % n) * stride + j0;
    cost.fill(Infinity, 0, rows * columns);
    cost[0] = 0;
    let low = 1;
    for (let i = 1; i < rows; i++) {
      const middle = guide ? guide(shareA[i]) : shareA[i] * slope;
      while (low < columns && shareB[low] < middle - band) low++;
      let high = low;
      while (high < columns && shareB[high] <= middle + band) high++;
      const row = i * columns;
      for (let s = 0; s < 9; s++) {
        const di = STEP_A[s];
        if (di > i) continue;
        this.relax(i, s, low, high, row, columns);
      }
      let rowBest = Infinity;
      for (let j = low; j < high; j++) if (cost[row + j] < rowBest) rowBest = cost[row + j];
      // Can this start still win? Three rows back may be cheaper, so only a clear loss ends it.
      if (rowBest > limit * 1.5 + 0.1 && i > 4 && rowBest !== Infinity) return undefined;
    }
    const end = cost[rows * columns - 1];
    if (!(end < limit - TIE)) return undefined;
    const pathI = [rows - 1];
    const pathJ = [columns - 1];
    for (let i = rows - 1, j = columns - 1; i > 0 || j > 0; ) {
      const step = from[i * columns + j];
      i -= STEP_A[step];
      j -= STEP_B[step];
      pathI.push(i);
      pathJ.push(j);
    }
    return { cost: end, i: pathI.reverse(), j: pathJ.reverse() };
  }

  /** Share of B that belongs to a share of A on an alignment from `i0`, `j0`, both counted from there. */
  guideOf(path: Alignment): (share: number) => number {
    const a = path.i.map((i) => this.shareA[i]);
    const b = path.j.map((j) => this.shareB[j]);
    let k = 0;
    return (share) => {
      if (share < a[k]) k = 0;
      while (k < a.length - 2 && a[k + 1] < share) k++;
      const width = a[k + 1] - a[k];
      return width > 0 ? b[k] + (b[k + 1] - b[k]) * Math.min(1, (share - a[k]) / width) : b[k];
    };
  }

  /** What a step over one to four samples of B adds, for every column. */
  private prepareColumns(columns: number): void {
    const { shareB, passedB, widthB, jumpedB } = this;
    for (let dj = 1; dj <= 4; dj++) {
      const at = (dj - 1) * columns;
      for (let j = dj; j < columns; j++) {
        widthB[at + j] = shareB[j] - shareB[j - dj];
        jumpedB[at + j] = passedB[j - 1] - passedB[j - dj];
      }
    }
  }

  /** Tries step `s` into row `i` for columns low to high − 1. */
  private relax(i: number, s: number, low: number, high: number, row: number, columns: number): void {
    const { cost, from, node, nodeRow, turnB, widthB, jumpedB, stretch, corner } = this;
    const di = STEP_A[s];
    const dj = STEP_B[s];
    const before = (i - di) * columns - dj;
    const here = nodeRow[i];
    const there = nodeRow[i - di] - dj;
    const column = (dj - 1) * columns;
    const dsA = this.shareA[i] - this.shareA[i - di];
    const jumpedA = this.passedA[i - 1] - this.passedA[i - di];
    const turn = this.turnA[i];
    for (let j = low < dj ? dj : low; j < high; j++) {
      const old = cost[before + j];
      const best = cost[row + j];
      if (old >= best - TIE) continue;
      const dsB = widthB[column + j];
      const sum = dsA + dsB;
      const gap = dsA - dsB;
      const bent = turn - turnB[j];
      const total =
        old +
        ((node[here + j] + node[there + j]) * sum) / 4 +
        (stretch * gap * gap) / sum +
        corner * ((bent < 0 ? -bent : bent) + jumpedA + jumpedB[column + j]);
      if (total < best - TIE) {
        cost[row + j] = total;
        from[row + j] = s;
      }
    }
  }
}

/** Shares and turns counted from sample `start`, so that rows of a closed contour read like open ones; `passed` sums up the turning. */
function unroll(
  samples: ContourSamples,
  start: number,
  count: number,
  share: Float64Array,
  turn: Float64Array,
  passed: Float64Array,
): void {
  const n = samples.share.length;
  const zero = samples.share[start];
  let sum = 0;
  for (let k = 0; k <= count; k++) {
    const at = start + k;
    const i = at % n;
    const ahead = samples.share[i] - zero + (samples.closed && at >= n ? 1 : 0);
    share[k] = samples.closed && k === samples.count ? 1 : ahead;
    turn[k] = samples.turn[i];
    sum += Math.abs(samples.turn[i]);
    passed[k] = sum;
  }
}
