import type { Piece } from '@core';
import type { BrowserDatabase } from './browser-database';
import { pieceText } from './piece-text';

export const GIVEN_WAY_TABLE = 'given-way';

/** They are kept for so long, ms. */
const KEPT_MS = 30 * 24 * 60 * 60 * 1000;

/** A version of a piece that gave way to another when both had been changed. */
export interface GivenWay {
  readonly key: string;
  readonly pieceId: string;
  /** When it gave way, ms since 1970. */
  readonly at: number;
  /** Was it made in this browser, or elsewhere? */
  readonly made: 'here' | 'elsewhere';
  /** The piece as JSON. */
  readonly text: string;
}

/** Replaced versions, for thirty days, in the browser's database. */
export class GivenWayKeeper {
  constructor(
    private readonly database: BrowserDatabase,
    private readonly now: () => number,
  ) {}

  /** @throws when there is no room or no database */
  async keep(piece: Piece, made: GivenWay['made']): Promise<void> {
    const at = this.now();
    const version: GivenWay = { key: `${piece.id}/${at}/${made}`, pieceId: piece.id, at, made, text: pieceText(piece) };
    await this.database.write(GIVEN_WAY_TABLE, (store) => void store.put(version));
  }

  async drop(key: string): Promise<void> {
    await this.database.write(GIVEN_WAY_TABLE, (store) => void store.delete(key));
  }

  /** Those of a piece, the latest first. What is older than thirty days is taken away. */
  async of(pieceId: string): Promise<readonly GivenWay[]> {
    const all = await this.database
      .read<GivenWay[]>(GIVEN_WAY_TABLE, (store) => store.getAll())
      .catch((): GivenWay[] => []);
    const old = all.filter(({ at }) => at < this.now() - KEPT_MS);
    for (const { key } of old) await this.drop(key).catch(() => {});
    return all.filter((each) => each.pieceId === pieceId && !old.includes(each)).sort((a, b) => b.at - a.at);
  }
}
