import type { EasingKind } from './kind';

export const STEP_JUMPS = ['end', 'start', 'none', 'both'] as const;

/** Progress in equal steps (CSS Easing 1, section 2.4): `jump` says at which ends of the time it jumps. With `none` there are at least two. */
export interface StepsEasing {
  readonly kind: 'steps';
  readonly count: number;
  readonly jump: (typeof STEP_JUMPS)[number];
}

/** Level from the first step to the last: how many levels, and how many jumps there are in all. */
function stepsOf({ count, jump }: StepsEasing): {
  readonly first: number;
  readonly jumps: number;
  readonly times: number;
} {
  // `count` stretches of time; at `start` and `both` the first of them is a step up already.
  const first = jump === 'start' || jump === 'both' ? 1 : 0;
  const jumps = jump === 'both' ? count + 1 : jump === 'none' ? Math.max(1, count - 1) : count;
  return { first, jumps, times: count };
}

export const steps: EasingKind<StepsEasing> = {
  files: 'steps',
  value(easing, time) {
    const { first, jumps, times } = stepsOf(easing);
    return Math.min(1, (Math.floor(time * times) + first) / jumps);
  },
  slope: () => 0,
  segments(easing) {
    const { first, jumps, times } = stepsOf(easing);
    const out = [0, 0];
    let progress = 0;
    const jumpTo = (time: number, to: number): void => {
      if (to !== progress) out.push(time, progress, time, to, time, to);
      progress = to;
    };
    for (let i = 0; i < times; i++) {
      const [from, until] = [i / times, (i + 1) / times];
      jumpTo(from, Math.min(1, (i + first) / jumps));
      const width = (until - from) / 3;
      out.push(from + width, progress, until - width, progress, until, progress);
    }
    jumpTo(1, 1);
    return out;
  },
  reversed: ({ kind, count, jump }) => ({
    kind,
    count,
    jump: jump === 'end' ? 'start' : jump === 'start' ? 'end' : jump,
  }),
};
