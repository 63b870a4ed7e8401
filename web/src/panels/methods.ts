import type { Method } from '@core';

/** The ways from one outline to the other, as they are offered. */
export const METHODS = [
  { value: 'auto', label: 'Best', hint: 'The one whose in-betweens look best' },
  { value: 'straight', label: 'Straight', hint: 'Every point goes straight' },
  { value: 'blended', label: 'Blended', hint: 'Half straight, half turning' },
  { value: 'turning', label: 'Turning', hint: 'Edges turn and stretch' },
] as const satisfies readonly { value: Method | 'auto'; label: string; hint: string }[];
