import { numberText } from '../../svg';
import { scaling } from '../../vec';
import { stepProperty } from '../property';
import { ANY, type LaneKind } from './kind';

/** By what a figure is scaled at its pivot: across and down, as factors. */
export const scale = {
  of: 'figure',
  type: 'numbers',
  neutral: [1, 1],
  limits: [ANY, ANY],
  lies: 'on-top',
  needs: 'nothing',
  does: 'transform',
  step: {
    svg: 'scale',
    lottie: { field: 's', say: (value) => [100 * value[0], 100 * value[1]] },
    apply: (target, value) => target.scale(value[0], value[1]),
    matrix: (value) => scaling(value[0], value[1]),
  },
  property: stepProperty('scale', 2e-4, (value) => `${numberText(value[0], 6)} ${numberText(value[1], 6)}`, '1 1'),
  words: {
    about: 'Makes the figure wider and higher about its pivot.',
    label: 'Scale',
    unit: '%',
    parts: ['X', 'Y'],
    step: 1,
    digits: 1,
    factor: 100,
    even: true,
  },
  files: { deviation: '0.0002', lottie: null, clipPath: null },
} as const satisfies LaneKind;
