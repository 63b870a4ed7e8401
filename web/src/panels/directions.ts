import type { DirectionChoice } from '@core';

/** Ways to run the second outline, to choose from. */
export const DIRECTIONS = [
  { value: 'auto', label: 'Automatic', hint: 'Solids are run the same way round' },
  { value: 'same', label: 'As drawn', hint: 'Both outlines are run as they are written' },
  { value: 'reversed', label: 'Reversed', hint: 'The second outline is run backwards' },
] as const satisfies readonly { value: DirectionChoice; label: string; hint: string }[];
