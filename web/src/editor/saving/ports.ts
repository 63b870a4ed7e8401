import type { BrowserCopies } from './copies';
import type { GivenWayKeeper } from './given-way';

/** How fast a piece is saved, ms. */
export interface SavingPace {
  /** After so long without a change it is sent. */
  readonly quiet: number;
  /** Copies in the browser follow each other no faster. */
  readonly copy: number;
  /** Pauses before the next attempts while the server does not answer; the last one repeats. */
  readonly retry: readonly number[];
  /** So often it is looked whether a copy is still there. */
  readonly look: number;
}

export const SAVING_PACE: SavingPace = { quiet: 600, copy: 200, retry: [1_000, 2_000, 5_000, 10_000], look: 5_000 };

/** What saving a piece needs of the tab. */
export interface SavingPorts {
  readonly copies: BrowserCopies;
  readonly tab: string;
  readonly now: () => number;
  readonly pace: SavingPace;
  readonly givenWay: GivenWayKeeper;
  /** Tells the other tabs that a piece was saved. */
  tellSaved(pieceId: string, revision: number): void;
  /** Is told of what other tabs save; returns what ends that. */
  onSaved(told: (pieceId: string, revision: number) => void): () => void;
  /** Asks the browser, once, not to clear what is kept here. */
  askToStay(): void;
  /** Texts of a piece that were sent and of which nobody knows whether they arrived. */
  sentOf(pieceId: string): Set<string>;
}
