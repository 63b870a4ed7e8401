import { numberWord, stepProperty } from '../property';
import type { LaneKind, Limits } from './kind';

const RADIANS = Math.PI / 180;
/** Beyond this a figure is a line: at 90° it has no end. */
const STEEPEST: Limits = [-85, 85];

/** How far a figure leans at its pivot, degrees: as `skewX` of CSS and SVG, so what lies below moves right where it is above 0. */
export const skew = {
  of: 'figure',
  type: 'numbers',
  neutral: [0],
  limits: [STEEPEST],
  lies: 'on-top',
  needs: 'nothing',
  does: 'transform',
  step: {
    svg: 'skewX',
    // Its sign is the other way round there, and its axis is level.
    lottie: { field: 'sk', say: (value) => -value[0], beside: { sa: 0 } },
    apply: (target, value) => target.transform(1, 0, Math.tan(value[0] * RADIANS), 1, 0, 0),
    matrix: (value) => [1, 0, Math.tan(value[0] * RADIANS), 1, 0, 0],
  },
  property: stepProperty('skewX', 0.02, (value) => numberWord(value[0]), '0'),
  words: {
    about: 'Leans the figure at its pivot, as skewX of CSS does.',
    label: 'Skew',
    unit: '°',
    parts: ['Skew'],
    step: 1,
    digits: 1,
    factor: 1,
  },
  files: { deviation: '0.02°', lottie: null, clipPath: null },
} as const satisfies LaneKind;
