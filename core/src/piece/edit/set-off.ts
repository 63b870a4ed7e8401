import { seededRandom, toMillionths } from '../../num';
import type { Id } from '../records';
import type { PieceDraft } from './edit';

export const SET_OFF_ORDERS = ['painting', 'across', 'down', 'seeded'] as const;
/** In which order figures are set off: as they are painted, from left to right, from top to bottom, or shuffled in the same way each time. */
export type SetOffOrder = (typeof SET_OFF_ORDERS)[number];

/** A figure and where it stands, px. */
export interface StandingFigure {
  readonly id: Id;
  readonly x: number;
  readonly y: number;
}

/**
 * Sets figures off one after another: the first begins when the earliest of them does, each other one `seconds` after the one before. `figures` are in painting
 * order, the lowest first.
 */
export function setOff(
  draft: PieceDraft,
  figures: readonly StandingFigure[],
  order: SetOffOrder,
  seconds: number,
  seed: number,
): void {
  const ordered = [...figures];
  if (order === 'across') ordered.sort((p, q) => p.x - q.x);
  if (order === 'down') ordered.sort((p, q) => p.y - q.y);
  if (order === 'seeded') {
    // Fisher and Yates' shuffle (Knuth: The Art of Computer Programming, volume 2, 1997, algorithm 3.4.2P).
    const random = seededRandom(seed);
    for (let i = ordered.length - 1; i > 0; i--) {
      const k = Math.floor(random() * (i + 1));
      [ordered[i], ordered[k]] = [ordered[k], ordered[i]];
    }
  }
  const first = Math.min(...ordered.map(({ id }) => draft.figures[id].start));
  ordered.forEach(({ id }, i) => {
    draft.figures[id].start = toMillionths(first + i * seconds);
  });
}
