import { BrowserDatabase } from './browser-database';

const DATABASE = 'arcshift-copies';
const STORE = 'copies';
/** Where an older program kept its copies, one a piece. */
const OLD_PREFIX = 'arcshift.unsaved.';

/** What one tab has made of a piece and the server may not have. */
export interface PieceCopy {
  readonly key: string;
  readonly pieceId: string;
  readonly tab: string;
  readonly name: string;
  /** The revision on the server that it was made from. */
  readonly revision: number;
  /** When, ms since 1970; null where an older program did not tell. */
  readonly at: number | null;
  /** The piece as JSON, as it was written, perhaps by an older program. */
  readonly text: string;
}

export const copyKey = (pieceId: string, tab: string): string => `${pieceId}/${tab}`;

/** Copies of pieces in the browser's database, one a tab and piece. */
export class BrowserCopies {
  private readonly database: BrowserDatabase;

  /** `factory` is undefined where the browser keeps no databases. */
  constructor(factory: IDBFactory | undefined) {
    this.database = new BrowserDatabase(factory, DATABASE, [STORE]);
  }

  /** Puts a copy in the place of the one before; resolves when it is on the disk. @throws when there is no room or no database */
  async keep(copy: PieceCopy): Promise<void> {
    await this.database.write(STORE, (store) => {
      store.put(copy);
    });
  }

  async drop(key: string): Promise<void> {
    await this.database.write(STORE, (store) => {
      store.delete(key);
    });
  }

  /** Gives a copy to another tab, at once: there is never a moment without it. */
  async hand(copy: PieceCopy, tab: string): Promise<void> {
    await this.database.write(STORE, (store) => {
      store.put({ ...copy, tab, key: copyKey(copy.pieceId, tab) });
      if (copy.tab !== tab) store.delete(copy.key);
    });
  }

  /** All copies, the latest first. */
  async all(): Promise<readonly PieceCopy[]> {
    const copies = await this.database.read<PieceCopy[]>(STORE, (store) => store.getAll());
    return copies.sort((a, b) => (b.at ?? 0) - (a.at ?? 0));
  }

  /** Is a copy still there? Browsers clear their storage unasked. */
  async has(key: string): Promise<boolean> {
    return (await this.database.read<number>(STORE, (store) => store.count(key))) > 0;
  }

  /** Takes over what an older program left in the browser's small storage; each is removed there once it is here. */
  async takeOver(storage: Storage | undefined): Promise<void> {
    if (!storage) return;
    const keys = Array.from({ length: storage.length }, (_, i) => storage.key(i)).filter((key) =>
      key?.startsWith(OLD_PREFIX),
    ) as string[];
    for (const key of keys) {
      const pieceId = key.slice(OLD_PREFIX.length);
      const copy = oldCopy(pieceId, storage.getItem(key) ?? '');
      if (!copy) continue;
      await this.keep(copy);
      storage.removeItem(key);
    }
  }
}

/** A copy of an older program; undefined for a torn one. */
function oldCopy(pieceId: string, stored: string): PieceCopy | undefined {
  try {
    const { piece, revision } = JSON.parse(stored) as { piece: { name?: string }; revision: number };
    const tab = 'before';
    const key = copyKey(pieceId, tab);
    return { key, pieceId, tab, name: piece.name ?? 'Untitled', revision, at: null, text: JSON.stringify(piece) };
  } catch {
    return undefined;
  }
}
