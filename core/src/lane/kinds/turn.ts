import { rotation } from '../../vec';
import { numberWord, stepProperty } from '../property';
import { ANY, type LaneKind } from './kind';

const RADIANS = Math.PI / 180;

/** How far a figure is turned about its pivot, degrees clockwise. */
export const turn = {
  of: 'figure',
  type: 'numbers',
  neutral: [0],
  limits: [ANY],
  lies: 'on-top',
  needs: 'nothing',
  does: 'transform',
  step: {
    svg: 'rotate',
    lottie: { field: 'r', say: (value) => value[0] },
    apply: (target, value) => target.rotate(value[0] * RADIANS),
    matrix: (value) => rotation(value[0] * RADIANS),
  },
  property: stepProperty('rotate', 0.02, (value) => numberWord(value[0]), '0'),
  words: {
    about: 'Rotates the figure clockwise about its pivot, any number of turns.',
    label: 'Rotation',
    unit: '°',
    parts: ['Rotation'],
    step: 1,
    digits: 1,
    factor: 1,
  },
  files: { deviation: '0.02°', lottie: null, clipPath: null },
} as const satisfies LaneKind;
