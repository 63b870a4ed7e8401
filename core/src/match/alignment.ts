import type { ContourSamples } from './samples';

/** What a node and a step of the alignment cost; see `alignSamples`. */
const POSITION = 1;
const TANGENT = 0.6;
const BEND = 0.25;
const STRETCH = 0.35;
const CORNER = 0.12;
/** Costs nearer than this are equal, and the first wins: the last bits of sines and roots differ between JavaScript engines. */
const TIE = 1e-9;
/** How far the map may stray from even shares. */
const BAND = 0.3;

const STEPS: readonly (readonly [number, number])[] = [
  [1, 1],
  [2, 1],
  [3, 1],
  [4, 1],
  [1, 2],
  [1, 3],
  [1, 4],
  [2, 3],
  [3, 2],
];

/** A way through both rows of samples: indices into A and B, ascending, from start to end (the end of a closed row is its count). */
export interface Alignment {
  readonly cost: number;
  readonly i: number[];
  readonly j: number[];
}

/**
 * Prepared comparison of two rows of samples. `align(i0, j0)` finds the cheapest monotone way that starts at sample i0 of A and j0 of B
 * and comes back to them (closed) or reaches the ends (open): dynamic programming after Sederberg & Greenwood (A physically based
 * approach to 2-D shape blending, 1992) and Maes (On a cyclic string-to-string correction problem, 1990), with steps of up to
 * four samples so that neither side ever stands still.
 */
export class SampleAligner {
  private readonly node: Float64Array;
  private readonly rows: number;
  private readonly columns: number;
  private readonly cost: Float64Array;
  private readonly from: Int8Array;
  private readonly shareA: Float64Array;
  private readonly shareB: Float64Array;
  private readonly turnA: Float64Array;
  private readonly turnB: Float64Array;

  constructor(
    private readonly a: ContourSamples,
    private readonly b: ContourSamples,
  ) {
    const n = a.share.length;
    const m = b.share.length;
    this.rows = a.count + 1;
    this.columns = b.count + 1;
    this.node = new Float64Array(n * m);
    for (let i = 0; i < n; i++) {
      for (let j = 0; j < m; j++) {
        const dx = a.x[i] - b.x[j];
        const dy = a.y[i] - b.y[j];
        const bend = a.bend[i] - b.bend[j];
        this.node[i * m + j] =
          POSITION * (dx * dx + dy * dy) + TANGENT * (1 - a.tx[i] * b.tx[j] - a.ty[i] * b.ty[j]) + BEND * bend * bend;
      }
    }
    this.cost = new Float64Array(this.rows * this.columns);
    this.from = new Int8Array(this.rows * this.columns);
    this.shareA = new Float64Array(this.rows);
    this.shareB = new Float64Array(this.columns);
    this.turnA = new Float64Array(this.rows);
    this.turnB = new Float64Array(this.columns);
  }

  align(i0: number, j0: number, limit = Infinity): Alignment | undefined {
    const { a, b, rows, columns, cost, from, node } = this;
    const m = b.share.length;
    unroll(a, i0, this.shareA, this.turnA);
    unroll(b, j0, this.shareB, this.turnB);
    const { shareA, shareB, turnA, turnB } = this;
    cost.fill(Infinity);
    cost[0] = 0;
    for (let i = 1; i < rows; i++) {
      const ia = (i0 + i) % a.share.length;
      let rowBest = Infinity;
      for (let j = 1; j < columns; j++) {
        if (Math.abs(shareA[i] - shareB[j]) > BAND) continue;
        const here = node[ia * m + ((j0 + j) % m)];
        let best = Infinity;
        let bestStep = 0;
        for (let s = 0; s < STEPS.length; s++) {
          const di = STEPS[s][0];
          const dj = STEPS[s][1];
          if (di > i || dj > j) continue;
          const before = cost[(i - di) * columns + j - dj];
          if (before >= best - TIE) continue;
          const dsA = shareA[i] - shareA[i - di];
          const dsB = shareB[j] - shareB[j - dj];
          const there = node[((i0 + i - di) % a.share.length) * m + ((j0 + j - dj) % m)];
          const gap = dsA - dsB;
          let corner = Math.abs(turnA[i] - turnB[j]);
          for (let k = 1; k < di; k++) corner += Math.abs(turnA[i - k]);
          for (let k = 1; k < dj; k++) corner += Math.abs(turnB[j - k]);
          const total =
            before +
            ((here + there) / 2) * ((dsA + dsB) / 2) +
            (STRETCH * gap * gap) / (dsA + dsB) +
            (CORNER * corner) / Math.PI;
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
      const [di, dj] = STEPS[from[i * columns + j]];
      i -= di;
      j -= dj;
      pathI.push(i);
      pathJ.push(j);
    }
    return { cost: end, i: pathI.reverse(), j: pathJ.reverse() };
  }
}

/** Shares and turns counted from sample `start`, so that rows of a closed contour read like open ones. */
function unroll(samples: ContourSamples, start: number, share: Float64Array, turn: Float64Array): void {
  const n = samples.share.length;
  const zero = samples.share[start];
  for (let k = 0; k <= samples.count; k++) {
    const i = (start + k) % n;
    const ahead = samples.share[i] - zero;
    share[k] = k === samples.count ? 1 : samples.closed && ahead < 0 ? ahead + 1 : ahead;
    turn[k] = samples.turn[i];
  }
}
