import { canGoByNumbers, canGoByPoints, type Piece, type Shift, type ShiftMethod } from '@core';

/** The ways from one outline to the other, as they are offered. */
export const METHOD_CHOICES = [
  { value: 'auto', label: 'Best', hint: 'The one whose in-betweens look best' },
  { value: 'straight', label: 'Straight', hint: 'Every point goes straight' },
  { value: 'blended', label: 'Blended', hint: 'Half straight, half turning' },
  { value: 'turning', label: 'Turning', hint: 'Edges turn and stretch' },
] as const satisfies readonly { value: ShiftMethod; label: string; hint: string }[];

const BY_NUMBERS = {
  value: 'numbers',
  label: 'By its numbers',
  hint: 'Sizes, radii and angles of the shape change, and it stays what it is',
} as const;

const BY_POINTS = {
  value: 'points',
  label: 'Point by point',
  hint: 'Each point goes straight to the point with its number; nothing is matched',
} as const;

/** The ways that a shift has: by the numbers of its shapes where both ends are shapes of one kind, point by point where both have as many. */
export const methodsOf = (
  piece: Piece,
  shift: Shift,
): readonly { value: ShiftMethod; label: string; hint: string }[] => [
  ...METHOD_CHOICES,
  ...(shift.method === 'numbers' || canGoByNumbers(piece, shift) ? [BY_NUMBERS] : []),
  ...(shift.method === 'points' || canGoByPoints(piece, shift) ? [BY_POINTS] : []),
];
