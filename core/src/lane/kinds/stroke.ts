import { colourProperty } from '../property';
import { COLOUR, COLOUR_WORDS, type LaneKind } from './kind';

/** One colour in place of what strokes of a figure are painted with: red, green, blue and alpha of sRGB, 0 to 1. */
export const stroke = {
  ...COLOUR,
  of: 'figure',
  neutral: [0, 0, 0, 1],
  needs: 'stroke',
  does: 'paint',
  property: colourProperty('stroke', 'stroke', 'stroke-opacity'),
  words: { about: 'A colour in place of the strokes of all its parts.', ...COLOUR_WORDS, label: 'Stroke' },
} as const satisfies LaneKind;
