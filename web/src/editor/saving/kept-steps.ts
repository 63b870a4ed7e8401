import { type Piece, textHash } from '@core';
import type { HistoryEntry } from '../../state';
import type { BrowserDatabase } from './browser-database';
import { pieceText } from './piece-text';

export const STEPS_TABLE = 'steps';

/** All steps of a piece together may have so many characters. */
const MOST_CHARACTERS = 20 * 1024 * 1024;

/** Steps that lead back from a state of a piece, the oldest first, and forward again, the nearest first. */
export interface Steps {
  readonly past: readonly HistoryEntry[];
  readonly future: readonly HistoryEntry[];
}

interface KeptSteps {
  /** Id of the piece. */
  readonly key: string;
  /** The state that they lead from. */
  readonly of: string;
  readonly past: readonly string[];
  readonly future: readonly string[];
}

const texts = new WeakMap<HistoryEntry, string>();

/** Steps are put into words once. */
function textOf(entry: HistoryEntry): string {
  let text = texts.get(entry);
  if (text === undefined) {
    text = JSON.stringify(entry);
    texts.set(entry, text);
  }
  return text;
}

/** What a piece was left with to be undone and redone, one list a piece in the browser's database. */
export class StepsKeeper {
  constructor(private readonly database: BrowserDatabase) {}

  /** @throws when there is no room or no database */
  async keep(piece: Piece, { past, future }: Steps): Promise<void> {
    let room = MOST_CHARACTERS;
    // The nearest first: where there is no room for all, the farthest are left out.
    const fitting = (entries: readonly HistoryEntry[]): string[] => {
      const found: string[] = [];
      for (const entry of entries) {
        const text = textOf(entry);
        room -= text.length;
        if (room < 0) break;
        found.push(text);
      }
      return found;
    };
    const back = fitting([...past].reverse()).reverse();
    const kept: KeptSteps = { key: piece.id, of: digest(pieceText(piece)), past: back, future: fitting(future) };
    await this.database.write(STEPS_TABLE, (store) => void store.put(kept));
  }

  /** The steps that lead from just this state; none where it is another. */
  async of(piece: Piece): Promise<Steps> {
    const kept = await this.database
      .read<KeptSteps | undefined>(STEPS_TABLE, (store) => store.get(piece.id))
      .catch(() => undefined);
    if (!kept || kept.of !== digest(pieceText(piece))) return { past: [], future: [] };
    const read = (list: readonly string[]): HistoryEntry[] => list.map((text) => JSON.parse(text) as HistoryEntry);
    return { past: read(kept.past), future: read(kept.future) };
  }
}

/** A text in a few characters: its length, and two hashes. */
const digest = (text: string): string => `${text.length} ${textHash(text)} ${textHash(text, OTHER_BASIS)}`;
const OTHER_BASIS = 0x01234567;
