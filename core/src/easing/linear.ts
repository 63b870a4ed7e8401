import type { EasingKind } from './kind';

/** Progress is the share of the time. */
export interface LinearEasing {
  readonly kind: 'linear';
}

export const linear: EasingKind<LinearEasing> = {
  files: 'curves',
  value: (_easing, time) => time,
  slope: () => 1,
  segments: () => [0, 0, 1 / 3, 1 / 3, 2 / 3, 2 / 3, 1, 1],
  reversed: (easing) => easing,
};
