import { colourProperty } from '../property';
import { COLOUR, COLOUR_WORDS, type LaneKind } from './kind';

/** One colour in place of what fills the parts of a figure: red, green, blue and alpha of sRGB, 0 to 1. */
export const fill = {
  ...COLOUR,
  of: 'figure',
  neutral: [0, 0, 0, 1],
  needs: 'fill',
  does: 'paint',
  property: colourProperty('part', 'fill', 'fill-opacity'),
  words: { about: 'A colour in place of the fills of all its parts.', ...COLOUR_WORDS, label: 'Fill' },
} as const satisfies LaneKind;
