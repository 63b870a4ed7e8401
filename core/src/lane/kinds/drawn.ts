import { numberText } from '../../svg';
import { numbersProperty } from '../property';
import { ANY, type LaneKind, PAINTLESS, SHARE } from './kind';

/** The share of a contour's length that is drawn. */
export const drawnShare = (value: ArrayLike<number>): number => Math.min(1, Math.max(0, value[1] - value[0]));

/** A stretch comes again after a little more than the whole length: else round ends of the next one would show at the end of an open contour. */
export const DRAWN_ROUND = 1.001;
/** Where the dash that is drawn begins, in shares of the length, as the offset of dashes. */
export const drawnOffset = (value: ArrayLike<number>): number => -DRAWN_ROUND * (value[0] + value[2]);

/** What of each stroked contour is drawn: from, to, and how far both are shifted along, in shares of its length. Dashes of its own give way. */
export const drawn = {
  of: 'figure',
  type: 'numbers',
  neutral: [0, 1, 0],
  // How far a drawn part is shifted along may be any number of rounds.
  limits: [SHARE, SHARE, ANY],
  driven: [ANY, ANY, ANY],
  lies: 'on-top',
  needs: 'stroke',
  does: 'paint',
  property: {
    ...numbersProperty('figure', ['stroke-dasharray', 'stroke-dashoffset'], 2e-3, (value) => {
      const length = drawnShare(value);
      return [`${numberText(length, 5)} ${numberText(DRAWN_ROUND - length, 5)}`, numberText(drawnOffset(value), 5)];
    }),
    initial: ['1 0', '0'],
  },
  words: {
    about: 'Which part of each stroke is drawn: from, to, and shifted along it.',
    label: 'Drawn part',
    unit: '%',
    parts: ['From', 'To', 'Shifted'],
    step: 1,
    digits: 1,
    factor: 100,
  },
  files: { deviation: '0.2 % of the length', lottie: null, clipPath: PAINTLESS },
} as const satisfies LaneKind;
