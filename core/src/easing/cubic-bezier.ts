import type { EasingKind } from './kind';

/** The timing function of CSS Easing 1: x values in [0, 1], y values free (below 0 winds up, above 1 overshoots). */
export interface CubicBezierEasing {
  readonly kind: 'cubic-bezier';
  readonly x1: number;
  readonly y1: number;
  readonly x2: number;
  readonly y2: number;
}

/** A curve x(t), y(t) from (0, 0) to (1, 1) with one control value each way; monotone in x. */
const bezier = (a: number, b: number, t: number): number => {
  const u = 1 - t;
  return 3 * u * u * t * a + 3 * u * t * t * b + t * t * t;
};
const bezierSlope = (a: number, b: number, t: number): number => {
  const u = 1 - t;
  return 3 * u * u * a + 6 * u * t * (b - a) + 3 * t * t * (1 - b);
};

const STEPS = 60;
const CLOSE = 1e-12;

/**
 * The parameter at which x is `x`: Newton's method inside a shrinking bracket, with bisection where Newton leaves it (Numerical Recipes, 3rd
 * edition, 2007, section 9.4). Asked for every frame, so it makes nothing, not even a function.
 */
export function parameterAtTime(x1: number, x2: number, x: number): number {
  let low = 0;
  let high = 1;
  let t = x;
  for (let step = 0; step < STEPS; step++) {
    const off = bezier(x1, x2, t) - x;
    if (off === 0) return t;
    if (off < 0) low = t;
    else high = t;
    let next = t - off / bezierSlope(x1, x2, t);
    if (!(next > low && next < high)) next = (low + high) / 2;
    if (Math.abs(next - t) < CLOSE) return next;
    t = next;
  }
  return t;
}

/** Is it a straight line anyway? */
const isStraight = ({ x1, y1, x2, y2 }: CubicBezierEasing): boolean => x1 === y1 && x2 === y2;

export const cubicBezier: EasingKind<CubicBezierEasing> = {
  files: 'curves',
  value(easing, time) {
    if (isStraight(easing)) return time;
    return bezier(easing.y1, easing.y2, parameterAtTime(easing.x1, easing.x2, time));
  },
  slope(easing, time) {
    if (isStraight(easing)) return 1;
    const t = parameterAtTime(easing.x1, easing.x2, time);
    return bezierSlope(easing.y1, easing.y2, t) / bezierSlope(easing.x1, easing.x2, t);
  },
  segments: ({ x1, y1, x2, y2 }) => [0, 0, x1, y1, x2, y2, 1, 1],
  reversed: ({ kind, x1, y1, x2, y2 }) => ({ kind, x1: 1 - x2, y1: 1 - y2, x2: 1 - x1, y2: 1 - y1 }),
};
