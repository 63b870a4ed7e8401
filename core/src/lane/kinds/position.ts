import { translation } from '../../vec';
import { numberWord, stepProperty } from '../property';
import { ANY, type LaneKind } from './kind';

/** How far a figure is moved: x and y, px of the canvas. */
export const position = {
  of: 'figure',
  type: 'numbers',
  neutral: [0, 0],
  limits: [ANY, ANY],
  lies: 'on-top',
  needs: 'nothing',
  does: 'transform',
  step: {
    svg: 'translate',
    lottie: { field: 'p', say: (value) => [value[0], value[1]] },
    apply: (target, value) => target.translate(value[0], value[1]),
    matrix: (value) => translation(value[0], value[1]),
  },
  property: stepProperty('translate', 0.02, (value) => `${numberWord(value[0])} ${numberWord(value[1])}`, '0 0'),
  words: {
    about: 'Moves the figure on the canvas.',
    label: 'Position',
    unit: 'px',
    parts: ['X', 'Y'],
    step: 1,
    digits: 1,
    factor: 1,
  },
  files: { deviation: '0.02 px', lottie: null, clipPath: null },
} as const satisfies LaneKind;
