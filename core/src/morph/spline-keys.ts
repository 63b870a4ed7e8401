import { PLAN_GRID_PX } from '../num';
import type { PlanKeys } from './plan';

/** Rounds to the grid on which plans are kept. */
export const onGrid = (value: number): number => Math.round(value / PLAN_GRID_PX) * PLAN_GRID_PX;

/**
 * Keys joined by cubics with continuous second derivative (cubic splines, de Boor: A Practical Guide to Splines, 2001, chapter IV), with end
 * slopes of the cubic through the outermost four keys. `frames` has one row of numbers for each time. Everything is rounded to the plan's grid.
 */
export function splineKeys(times: readonly number[], frames: readonly Float64Array[]): PlanKeys {
  const count = times.length;
  const n = frames[0].length;
  const values = new Float64Array(count * n);
  frames.forEach((frame, k) => {
    for (let i = 0; i < n; i++) values[k * n + i] = onGrid(frame[i]);
  });
  const slopes = new Float64Array(count * n);
  const y = new Float64Array(count);
  const m = new Float64Array(count);
  const weight = new Float64Array(count);
  const firstWeights = slopeWeights(times.slice(0, 4), 0);
  const lastTimes = times.slice(-4);
  const lastWeights = slopeWeights(lastTimes, lastTimes.length - 1);
  for (let i = 0; i < n; i++) {
    for (let k = 0; k < count; k++) y[k] = values[k * n + i];
    m[0] = 0;
    m[count - 1] = 0;
    for (let k = 0; k < firstWeights.length; k++) m[0] += firstWeights[k] * y[k];
    for (let k = 0; k < lastWeights.length; k++) m[count - 1] += lastWeights[k] * y[count - lastWeights.length + k];
    // Continuity of the second derivative at the inner keys, by Thomas' algorithm.
    weight[0] = 0;
    for (let k = 1; k < count - 1; k++) {
      const h0 = times[k] - times[k - 1];
      const h1 = times[k + 1] - times[k];
      const diagonal = 2 * (h0 + h1) - h1 * weight[k - 1];
      weight[k] = h0 / diagonal;
      const right = 3 * ((h1 * (y[k] - y[k - 1])) / h0 + (h0 * (y[k + 1] - y[k])) / h1);
      m[k] = (right - h1 * m[k - 1]) / diagonal;
    }
    for (let k = count - 2; k > 0; k--) m[k] -= weight[k] * m[k + 1];
    for (let k = 0; k < count; k++) slopes[k * n + i] = onGrid(m[k]);
  }
  return { times: Float64Array.from(times), values, slopes };
}

/** Weights of values at the given times whose sum is the slope at time `at` of the polynomial through them (Lagrange). */
function slopeWeights(times: readonly number[], at: number): number[] {
  return times.map((tj, j) => {
    if (j === at) return times.reduce((sum, tk, k) => (k === j ? sum : sum + 1 / (tj - tk)), 0);
    let product = 1;
    times.forEach((tk, k) => {
      if (k !== j && k !== at) product *= (times[at] - tk) / (tj - tk);
    });
    return product / (tj - times[at]);
  });
}
