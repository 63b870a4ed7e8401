import type { BrowserCopies } from './copies';

/** How fast a piece is saved, ms. */
export interface SavingPace {
  /** After so long without a change it is sent. */
  readonly quiet: number;
  /** Copies in the browser follow each other no faster. */
  readonly copy: number;
  /** Pauses before the next attempts while the server does not answer; the last one repeats. */
  readonly retry: readonly number[];
}

export const SAVING_PACE: SavingPace = { quiet: 600, copy: 200, retry: [1_000, 2_000, 5_000, 10_000] };

/** What saving a piece needs of the tab. */
export interface SavingPorts {
  readonly copies: BrowserCopies;
  readonly tab: string;
  readonly now: () => number;
  readonly pace: SavingPace;
  /** Texts of a piece that were sent and of which nobody knows whether they arrived. */
  sentOf(pieceId: string): Set<string>;
}
