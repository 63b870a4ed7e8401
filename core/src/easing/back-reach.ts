import { LIMITS } from '../num';

/** How far beyond its end a back easing goes, as a share of the way: the least value of t²((s + 1)t − s), at t = 2s / (3s + 3). */
export const backReach = (s: number): number => (4 * s ** 3) / (27 * (s + 1) ** 2);

/** The overshoot parameter of a back easing that reaches so far, by bisection. */
export function overshootOf(reach: number): number {
  let [low, high]: [number, number] = [LIMITS.backOvershoot.min, LIMITS.backOvershoot.max];
  for (let i = 0; i < 50; i++) {
    const middle = (low + high) / 2;
    if (backReach(middle) < reach) low = middle;
    else high = middle;
  }
  return Math.round(low * 1e5) / 1e5;
}
