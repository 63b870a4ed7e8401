import { colourProperty } from '../property';
import { COLOUR, COLOUR_WORDS, type LaneKind } from './kind';

/** What lies behind all figures: red, green, blue and alpha of sRGB, 0 to 1. */
export const background = {
  ...COLOUR,
  of: 'canvas',
  neutral: [1, 1, 1, 1],
  needs: 'nothing',
  does: 'ground',
  property: colourProperty('canvas', 'fill', 'fill-opacity'),
  words: { about: 'What lies behind all figures.', ...COLOUR_WORDS, label: 'Background' },
} as const satisfies LaneKind;
