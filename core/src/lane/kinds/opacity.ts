import { numberProperty } from '../property';
import { type LaneKind, PAINTLESS, SHARE } from './kind';

/** The opacity of all that a figure paints, together. */
export const opacity = {
  of: 'figure',
  type: 'numbers',
  neutral: [1],
  limits: [SHARE],
  lies: 'on-top',
  needs: 'nothing',
  does: 'opacity',
  property: numberProperty('figure', 'opacity', { error: 1 / 512, initial: '1', least: 0 }),
  words: {
    about: 'Fades all that the figure paints, as one.',
    label: 'Opacity',
    unit: '%',
    parts: ['Opacity'],
    step: 1,
    digits: 1,
    factor: 100,
  },
  files: { deviation: 'half a level of 255', lottie: null, clipPath: PAINTLESS },
} as const satisfies LaneKind;
