import type { ContourSamples } from './samples';

/** What a node and a step of the alignment cost; see `SampleAligner`. */
const POSITION = 1;
const TANGENT = 0.6;
const BEND = 0.25;
const STRETCH = 0.35;
const CORNER = 0.12 / Math.PI;
/** Costs nearer than this are equal, and the first wins: the last bits of sines and roots differ between JavaScript engines. */
const TIE = 1e-9;
/** How far the map may stray from even shares. */
const BAND = 0.3;

/** Steps (samples of A, samples of B) and the turning of jumped corners follow from them. */
const STEP_A = Int32Array.of(1, 2, 3, 4, 1, 1, 1, 2, 3);
const STEP_B = Int32Array.of(1, 1, 1, 1, 2, 3, 4, 3, 2);

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

  constructor(
    private readonly a: ContourSamples,
    private readonly b: ContourSamples,
  ) {
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
          POSITION * (dx * dx + dy * dy) + TANGENT * (1 - a.tx[i] * b.tx[j] - a.ty[i] * b.ty[j]) + BEND * bend * bend;
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
  }

  /**
   * The cheapest way from sample `i0` of A and `j0` of B over `countA` and `countB` samples: by default once round (closed) or to the ends
   * (open). Undefined when no way is cheaper than `limit`, or none exists.
   */
  align(
    i0: number,
    j0: number,
    limit = Infinity,
    countA = this.a.count,
    countB = this.b.count,
  ): Alignment | undefined {
    const { a, b, cost, from, node, stride, shareA, shareB, turnA, turnB, passedA, passedB } = this;
    const rows = countA + 1;
    const columns = countB + 1;
    unroll(a, i0, countA, shareA, turnA, passedA);
    unroll(b, j0, countB, shareB, turnB, passedB);
    const lengthA = shareA[countA];
    const slope = lengthA > 0 ? shareB[countB] / lengthA : 1;
    // Stretches between fixed places are narrow: there the band is wider than they are.
    const band = BAND;
    const n = a.share.length;
    cost.fill(Infinity, 0, rows * columns);
    cost[0] = 0;
    let low = 1;
    for (let i = 1; i < rows; i++) {
      const middle = shareA[i] * slope;
      while (low < columns && shareB[low] < middle - band) low++;
      const rowNode = ((i0 + i) % n) * stride + j0;
      let rowBest = Infinity;
      for (let j = low; j < columns && shareB[j] <= middle + band; j++) {
        const here = node[rowNode + j];
        let best = Infinity;
        let bestStep = 0;
        for (let s = 0; s < 9; s++) {
          const pi = i - STEP_A[s];
          const pj = j - STEP_B[s];
          if (pi < 0 || pj < 0) continue;
          const before = cost[pi * columns + pj];
          if (before >= best - TIE) continue;
          const dsA = shareA[i] - shareA[pi];
          const dsB = shareB[j] - shareB[pj];
          const there = node[((i0 + pi) % n) * stride + j0 + pj];
          const gap = dsA - dsB;
          const turn = turnA[i] - turnB[j];
          const corner =
            (turn < 0 ? -turn : turn) + passedA[i - 1] - passedA[pi] + passedB[j - 1] - passedB[pj];
          const total =
            before + ((here + there) * (dsA + dsB)) / 4 + (STRETCH * gap * gap) / (dsA + dsB) + CORNER * corner;
          if (total < best - TIE) {
            best = total;
            bestStep = s;
          }
        }
        cost[i * columns + j] = best;
        from[i * columns + j] = bestStep;
        if (best < rowBest) rowBest = best;
      }
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
