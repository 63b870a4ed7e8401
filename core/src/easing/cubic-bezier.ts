import { increasingRoot } from '../num';
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

function parameterAt(x1: number, x2: number, x: number): number {
  return increasingRoot(
    (t) => bezier(x1, x2, t) - x,
    (t) => bezierSlope(x1, x2, t),
    0,
    1,
    x,
    1e-12,
  );
}

/** Is it a straight line anyway? */
const isStraight = ({ x1, y1, x2, y2 }: CubicBezierEasing): boolean => x1 === y1 && x2 === y2;

export const cubicBezier: EasingKind<CubicBezierEasing> = {
  value(easing, time) {
    if (isStraight(easing)) return time;
    return bezier(easing.y1, easing.y2, parameterAt(easing.x1, easing.x2, time));
  },
  slope(easing, time) {
    if (isStraight(easing)) return 1;
    const t = parameterAt(easing.x1, easing.x2, time);
    return bezierSlope(easing.y1, easing.y2, t) / bezierSlope(easing.x1, easing.x2, t);
  },
  segments: ({ x1, y1, x2, y2 }) => [0, 0, x1, y1, x2, y2, 1, 1],
};
