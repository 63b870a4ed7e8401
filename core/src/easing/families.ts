import type { EasingKind } from './kind';

// The classical families (R. Penner: Programming Macromedia Flash MX, 2002, chapter 7), each with the end at which it does what it is named after: when it
// arrives (out), when it leaves (in), or both, half of the time each.

export const EASING_SIDES = ['out', 'in', 'both'] as const;
export type EasingSide = (typeof EASING_SIDES)[number];

/** A rubber band: swings that die away. `amplitude` is 1 or more; `period` the share of the time that a swing takes. */
export interface ElasticEasing {
  readonly kind: 'elastic';
  readonly side: EasingSide;
  readonly amplitude: number;
  readonly period: number;
}

/** A ball that falls on the end and jumps up again, four times in all. */
export interface BounceEasing {
  readonly kind: 'bounce';
  readonly side: EasingSide;
}

/** Draws back before it goes, or goes too far: 1.70158 is a tenth of the way. */
export interface BackEasing {
  readonly kind: 'back';
  readonly side: EasingSide;
  readonly overshoot: number;
}

/** A family by what it does when it leaves: the other ends are the same turned round, and put together of halves. */
function family<E extends { readonly kind: string; readonly side: EasingSide }>(
  files: EasingKind<E>['files'],
  into: (easing: E, time: number) => number,
  intoSlope: (easing: E, time: number) => number,
  intoSegments?: (easing: E) => readonly number[],
): EasingKind<E> {
  const turned = (points: readonly number[]): number[] => {
    const out: number[] = [];
    for (let i = points.length - 2; i >= 0; i -= 2) out.push(1 - points[i], 1 - points[i + 1]);
    return out;
  };
  return {
    files,
    value(easing, time) {
      if (easing.side === 'in') return into(easing, time);
      if (easing.side === 'out') return 1 - into(easing, 1 - time);
      return time < 0.5 ? into(easing, 2 * time) / 2 : 1 - into(easing, 2 - 2 * time) / 2;
    },
    slope(easing, time) {
      if (easing.side === 'in') return intoSlope(easing, time);
      if (easing.side === 'out') return intoSlope(easing, 1 - time);
      return time < 0.5 ? intoSlope(easing, 2 * time) : intoSlope(easing, 2 - 2 * time);
    },
    ...(intoSegments && {
      segments(easing) {
        const points = intoSegments(easing);
        if (easing.side === 'in') return points;
        if (easing.side === 'out') return turned(points);
        return [
          ...points.map((v) => v / 2),
          ...turned(points)
            .slice(2)
            .map((v) => 0.5 + v / 2),
        ];
      },
    }),
    reversed: (easing) => ({ ...easing, side: easing.side === 'in' ? 'out' : easing.side === 'out' ? 'in' : 'both' }),
  };
}

/** 2^(−10 t), brought to 1 at 0 and to 0 at 1 exactly. */
const SPAN = 1 - 2 ** -10;
const fading = (t: number): number => (2 ** (-10 * t) - 2 ** -10) / SPAN;
const fadingSlope = (t: number): number => (-10 * Math.LN2 * 2 ** (-10 * t)) / SPAN;

const elasticInto = ({ amplitude, period }: ElasticEasing, t: number): number => {
  const a = Math.max(1, amplitude);
  const w = (2 * Math.PI) / period;
  const s = Math.asin(1 / a) / w;
  return a * fading(1 - t) * Math.sin((s + (1 - t)) * w);
};
const elasticSlope = ({ amplitude, period }: ElasticEasing, t: number): number => {
  const a = Math.max(1, amplitude);
  const w = (2 * Math.PI) / period;
  const s = Math.asin(1 / a) / w;
  const angle = (s + (1 - t)) * w;
  return a * (-fadingSlope(1 - t) * Math.sin(angle) - fading(1 - t) * w * Math.cos(angle));
};
export const elastic: EasingKind<ElasticEasing> = family('springs', elasticInto, elasticSlope);

export const back: EasingKind<BackEasing> = family(
  'curves',
  ({ overshoot: s }, t) => t * t * ((s + 1) * t - s),
  ({ overshoot: s }, t) => t * (3 * (s + 1) * t - 2 * s),
  // A polynomial of degree three over time is one cubic: its control values by blossoming.
  ({ overshoot: s }) => [0, 0, 1 / 3, 0, 2 / 3, -s / 3, 1, 1],
);

/** Four arcs of the ball: where each begins, where its top is, and how far from the end that is. Shares of the time by 11. */
const ARCS = [
  { from: 0, until: 4 / 11, top: 0, low: 0 },
  { from: 4 / 11, until: 8 / 11, top: 6 / 11, low: 3 / 4 },
  { from: 8 / 11, until: 10 / 11, top: 9 / 11, low: 15 / 16 },
  { from: 10 / 11, until: 1, top: 21 / 22, low: 63 / 64 },
] as const;
const GRAVITY = 121 / 16;
const arcAt = (t: number) => ARCS.find(({ until }) => t < until) ?? ARCS[3];
const bounceOut = (t: number): number => {
  const { top, low } = arcAt(t);
  return GRAVITY * (t - top) ** 2 + low;
};
export const bounce: EasingKind<BounceEasing> = family(
  'springs',
  (_easing, t) => 1 - bounceOut(1 - t),
  (_easing, t) => 2 * GRAVITY * (1 - t - arcAt(1 - t).top),
  () => {
    const out = [0, 0];
    // Parabolas, the last first: each is a cubic by raising its degree.
    for (const { from, until, top, low } of [...ARCS].reverse()) {
      const [a, b] = [1 - until, 1 - from];
      const at = (t: number): number => 1 - (GRAVITY * (1 - t - top) ** 2 + low);
      const slope = (t: number): number => 2 * GRAVITY * (1 - t - top);
      const w = b - a;
      out.push(a + w / 3, at(a) + (slope(a) * w) / 3, b - w / 3, at(b) - (slope(b) * w) / 3, b, at(b));
    }
    return out;
  },
);
