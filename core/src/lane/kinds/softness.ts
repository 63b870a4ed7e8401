import { numberProperty } from '../property';
import { type LaneKind, LENGTH } from './kind';

/** How soft all of a figure is, edges and inside: the standard deviation of a blur, px of the canvas. */
export const softness = {
  of: 'figure',
  type: 'numbers',
  neutral: [0],
  limits: [LENGTH],
  lies: 'on-top',
  needs: 'nothing',
  does: 'layer',
  property: numberProperty('figure', 'stdDeviation', { beyond: 'on', error: 0.02, initial: '0', least: 0 }),
  words: {
    about: 'Blurs the figure as a whole.',
    label: 'Blur',
    unit: 'px',
    parts: ['Blur'],
    step: 1,
    digits: 1,
    factor: 1,
  },
  files: { deviation: '0.02 px', lottie: 'Lottie 1.0 has no blur.', clipPath: 'A clip path has a hard edge.' },
} as const satisfies LaneKind;
