import { numberProperty } from '../property';
import { type LaneKind, LENGTH, PAINTLESS } from './kind';

/** One width in place of those of all strokes of a figure, px of the canvas. */
export const strokeWidth = {
  of: 'figure',
  type: 'numbers',
  neutral: [0],
  limits: [LENGTH],
  lies: 'in-place',
  needs: 'stroke',
  does: 'paint',
  property: numberProperty('stroke', 'stroke-width', {
    beyond: 'on',
    least: 0,
    error: 0.02,
    initial: '1',
    apply: (target, value) => void (target.lineWidth = value[0]),
  }),
  words: {
    about: 'A width in place of that of all its strokes.',
    label: 'Stroke width',
    unit: 'px',
    parts: ['Width'],
    step: 1,
    digits: 1,
    factor: 1,
  },
  files: { deviation: '0.02 px', lottie: null, clipPath: PAINTLESS },
} as const satisfies LaneKind;
