import type { EasingKind } from './kind';

/** It stands still, and is there at once: at the end of the time, or at its start. */
export interface HoldEasing {
  readonly kind: 'hold';
  readonly until: 'end' | 'start';
}

export const hold: EasingKind<HoldEasing> = {
  files: 'steps',
  value: ({ until }) => (until === 'end' ? 0 : 1),
  slope: () => 0,
  segments: ({ until }) =>
    until === 'end'
      ? [0, 0, 1 / 3, 0, 2 / 3, 0, 1, 0, 1, 0, 1, 1, 1, 1]
      : [0, 0, 0, 0, 0, 1, 0, 1, 1 / 3, 1, 2 / 3, 1, 1, 1],
  reversed: ({ kind, until }) => ({ kind, until: until === 'end' ? 'start' : 'end' }),
};
