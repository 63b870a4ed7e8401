import type { Piece } from '@core';
import { type AppStore, api, documentActions, type LoadedPiece, type Problem, sessionActions } from '../state';

const QUIET_MS = 600;
/** A copy is kept at most this long after a change. */
const BACKUP_MS = 200;
const RETRY_MS = [1_000, 2_000, 5_000, 10_000];
const BACKUP_PREFIX = 'arcshift.unsaved.';

interface Backup {
  readonly piece: Piece;
  readonly revision: number;
}

/** Changes of this browser that never reached the server, if there are any; as they were written, perhaps by an older program. */
export function readBackup(id: string): Backup | undefined {
  try {
    const text = localStorage.getItem(BACKUP_PREFIX + id);
    return text ? (JSON.parse(text) as Backup) : undefined;
  } catch {
    return undefined;
  }
}

const same = (a: Piece, b: Piece): boolean => JSON.stringify(a) === JSON.stringify(b);

/**
 * The copy of this browser, checked and brought up to date by `check`, if it holds anything that the server does not have. A piece left within a
 * moment of a change has been saved by then, but nobody was there any more to take the copy away.
 */
export async function unsavedBackup(
  onServer: Piece,
  check: (text: string) => Promise<Piece>,
): Promise<Backup | undefined> {
  const backup = readBackup(onServer.id);
  if (!backup) return undefined;
  try {
    const piece = await check(JSON.stringify(backup.piece));
    if (!same(piece, onServer)) return { piece, revision: backup.revision };
    writeBackup(undefined, onServer.id);
  } catch {
    // It cannot be used; what the server has can.
  }
  return undefined;
}

function writeBackup(backup: Backup | undefined, id: string): void {
  try {
    if (backup) localStorage.setItem(BACKUP_PREFIX + id, JSON.stringify(backup));
    else localStorage.removeItem(BACKUP_PREFIX + id);
  } catch {
    // No room or no storage: the copy in memory and the retries remain.
  }
}

export interface Autosave {
  /** Saves at once what is not saved yet. */
  now(): void;
  /** Settles a conflict: by the user's version, or by the one on the server. */
  resolve(choice: 'mine' | 'theirs'): void;
  stop(): void;
}

/**
 * Saves the open piece shortly after each change, keeps a copy in the browser until the server has it, and tries again when the server does
 * not answer. A stale write stops saving until the user has decided.
 */
export function startAutosave(store: AppStore, unsavedAtStart: boolean): Autosave {
  let saved: Piece | null = unsavedAtStart ? null : store.getState().document.piece;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let saving = false;
  let failures = 0;
  let newer: LoadedPiece | undefined;
  let stopped = false;
  const tell = (state: 'saved' | 'saving' | 'unsaved' | 'offline' | 'conflict'): void => {
    if (store.getState().session.save !== state) store.dispatch(sessionActions.saveChanged(state));
  };
  const schedule = (delay: number): void => {
    clearTimeout(timer);
    timer = setTimeout(() => void save(), delay);
  };

  async function save(): Promise<void> {
    const { piece, revision: base } = store.getState().document;
    if (!piece || saving || newer || piece === saved) return;
    saving = true;
    if (!stopped) tell('saving');
    const result = await store.dispatch(api.endpoints.savePiece.initiate({ piece, revision: base }));
    saving = false;
    const problem = (result.error as { data?: Problem } | undefined)?.data;
    // A write of this browser that was still on its way when the piece was opened again: both are the same.
    const own = problem?.code === 'piece-stale' && problem.newer && same(problem.newer.piece, piece) && problem.newer;
    const revision = (result.data ?? (own || undefined))?.revision;
    if (revision !== undefined) {
      saved = piece;
      failures = 0;
      if (store.getState().document.piece?.id === piece.id) store.dispatch(documentActions.revisionKnown(revision));
      if (stopped || store.getState().document.piece === piece) {
        writeBackup(undefined, piece.id);
        if (!stopped) tell('saved');
      } else schedule(QUIET_MS);
      return;
    }
    if (problem?.code === 'piece-stale' && problem.newer) {
      newer = problem.newer;
      tell('conflict');
      return;
    }
    if (problem && problem.status < 500)
      store.dispatch(
        sessionActions.told({
          tone: 'error',
          text: `The piece could not be saved. ${problem.detail} Your changes stay in this browser.`,
        }),
      );
    tell('offline');
    schedule(RETRY_MS[Math.min(failures++, RETRY_MS.length - 1)]);
  }

  const onChange = (): void => {
    const { piece } = store.getState().document;
    if (!piece || piece === saved || piece === watched) return;
    watched = piece;
    scheduleBackup();
    if (store.getState().session.save !== 'offline' && !newer) tell('unsaved');
    if (!newer) schedule(QUIET_MS);
  };
  let watched: Piece | null = saved;
  // While a colour is dragged the piece changes at the display's rate: copying it each time would hold the hand up.
  let backupTimer: ReturnType<typeof setTimeout> | undefined;
  const backUp = (): void => {
    clearTimeout(backupTimer);
    backupTimer = undefined;
    const { piece, revision } = store.getState().document;
    if (piece && piece !== saved) writeBackup({ piece, revision }, piece.id);
  };
  const scheduleBackup = (): void => {
    backupTimer ??= setTimeout(backUp, BACKUP_MS);
  };
  // A page that goes away keeps what is newest.
  globalThis.addEventListener?.('pagehide', backUp);
  const unsubscribe = store.subscribe(onChange);
  onChange();

  return {
    now: () => {
      clearTimeout(timer);
      void save();
    },
    resolve(choice) {
      if (!newer) return;
      const other = newer;
      newer = undefined;
      if (choice === 'theirs') {
        saved = other.piece;
        watched = other.piece;
        writeBackup(undefined, other.id);
        store.dispatch(documentActions.replaced({ piece: other.piece, revision: other.revision }));
        tell('saved');
      } else {
        store.dispatch(documentActions.revisionKnown(other.revision));
        void save();
      }
    },
    stop() {
      stopped = true;
      globalThis.removeEventListener?.('pagehide', backUp);
      if (backupTimer !== undefined) backUp();
      clearTimeout(timer);
      unsubscribe();
      void save();
    },
  };
}
