/** The rooms of a piece in the order of the work: a row here is a link in the header, a shortcut and an address. */
export const ROOMS = [
  { id: 'shapes', label: 'Shapes', key: '1' },
  { id: 'match', label: 'Match', key: '2' },
  { id: 'timing', label: 'Timing', key: '3' },
  { id: 'output', label: 'Output', key: '5' },
] as const;
export type RoomId = (typeof ROOMS)[number]['id'];
