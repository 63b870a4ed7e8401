import { type Easing, ease } from '../../easing';

/** One cubic through moments and progresses: Gauss–Newton for the handles of a CSS curve (Nocedal and Wright: Numerical Optimization, 10.3), with slopes by differences. */
export function fittedCurve(shares: readonly number[], progresses: readonly number[]): Easing {
  let handles = [0.4, 0, 0.2, 1];
  const easingOf = ([x1, y1, x2, y2]: readonly number[]): Easing => ({
    kind: 'cubic-bezier',
    x1: Math.min(1, Math.max(0, x1)),
    y1,
    x2: Math.min(1, Math.max(0, x2)),
    y2,
  });
  const offs = (values: readonly number[]): number[] =>
    shares.map((share, i) => ease(easingOf(values), share) - progresses[i]);
  const total = (values: readonly number[]): number => offs(values).reduce((sum, off) => sum + off * off, 0);
  let damping = 1e-3;
  for (let round = 0; round < 60; round++) {
    const now = offs(handles);
    const slopes = handles.map((value, k) => {
      const moved = handles.with(k, value + 1e-5);
      return offs(moved).map((off, i) => (off - now[i]) / 1e-5);
    });
    const matrix = slopes.map((p, i) =>
      slopes.map((q, j) => p.reduce((sum, v, k) => sum + v * q[k], 0) + (i === j ? damping : 0)),
    );
    const right = slopes.map((p) => -p.reduce((sum, v, k) => sum + v * now[k], 0));
    const step = solved(matrix, right);
    const next = handles.map((value, k) => value + step[k]);
    if (total(next) < total(handles)) {
      handles = next;
      damping /= 4;
    } else damping *= 8;
    if (damping > 1e6) break;
  }
  return easingOf(handles.map((value) => Math.round(value * 1e4) / 1e4));
}

/** Gaussian elimination with the largest of each column first. */
function solved(matrix: readonly (readonly number[])[], right: readonly number[]): number[] {
  const rows = matrix.map((row, i) => [...row, right[i]]);
  const n = rows.length;
  for (let k = 0; k < n; k++) {
    const lead = rows.slice(k).reduce((best, row, i) => (Math.abs(row[k]) > Math.abs(rows[best][k]) ? k + i : best), k);
    [rows[k], rows[lead]] = [rows[lead], rows[k]];
    for (let i = k + 1; i < n; i++) {
      const factor = rows[i][k] / rows[k][k];
      for (let j = k; j <= n; j++) rows[i][j] -= factor * rows[k][j];
    }
  }
  const out = new Array<number>(n).fill(0);
  for (let k = n - 1; k >= 0; k--)
    out[k] = (rows[k][n] - rows[k].slice(k + 1, n).reduce((sum, v, j) => sum + v * out[k + 1 + j], 0)) / rows[k][k];
  return out;
}
