import { increasingRoot } from '../num';

/**
 * How progress runs over the time of a shift. `cubic-bezier` is the timing function of CSS Easing 1: x values in [0, 1], y values free
 * (below 0 winds up, above 1 overshoots).
 */
export type Easing =
  | { readonly kind: 'linear' }
  | {
      readonly kind: 'cubic-bezier';
      readonly x1: number;
      readonly y1: number;
      readonly x2: number;
      readonly y2: number;
    };

/** A curve x(t), y(t) from (0, 0) to (1, 1) with one control value each way; monotone in x. */
const bezier = (a: number, b: number, t: number): number => {
  const u = 1 - t;
  return 3 * u * u * t * a + 3 * u * t * t * b + t * t * t;
};
const bezierSlope = (a: number, b: number, t: number): number => {
  const u = 1 - t;
  return 3 * u * u * a + 6 * u * t * (b - a) + 3 * t * t * (1 - b);
};

/** Progress at `time`, the share of the duration in [0, 1] (clamped). At 0 and 1 it is 0 and 1 exactly. */
export function ease(easing: Easing, time: number): number {
  if (!(time > 0)) return 0;
  if (time >= 1) return 1;
  if (easing.kind === 'linear') return time;
  const { x1, y1, x2, y2 } = easing;
  // Is it a straight line anyway?
  if (x1 === y1 && x2 === y2) return time;
  return bezier(y1, y2, solveX(x1, x2, time));
}

function solveX(x1: number, x2: number, x: number): number {
  return increasingRoot(
    (t) => bezier(x1, x2, t) - x,
    (t) => bezierSlope(x1, x2, t),
    0,
    1,
    x,
    1e-12,
  );
}

/** Does progress stay within 0..1 all the way? */
export const staysInside = (easing: Easing): boolean =>
  easing.kind === 'linear' || (easing.y1 >= 0 && easing.y1 <= 1 && easing.y2 >= 0 && easing.y2 <= 1);
