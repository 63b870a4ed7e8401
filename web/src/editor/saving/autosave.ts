import type { LoadedPiece, Piece, Problem } from '@core';
import { type AppStore, api, documentActions, type SaveState, sessionActions, takeVersion, UNKEPT } from '../../state';
import { copyKey } from './copies';
import { pieceText } from './piece-text';
import type { SavingPorts } from './ports';

/** Copying takes at most a twentieth of the time. */
const COPY_SHARE = 20;

export interface Autosave {
  /** Saves unsaved changes at once. */
  now(): void;
  /** Resolves a conflict with the user's version, or with the one on the server. */
  resolve(choice: 'mine' | 'theirs'): void;
  /** The server's version during a conflict. */
  newer(): LoadedPiece | undefined;
  /** Puts a piece back that was deleted elsewhere. */
  bringBack(): Promise<void>;
  /** Is there a change that neither the server nor the browser has stored? */
  atRisk(): boolean;
  /** Resolves when the last save has its answer. */
  stop(): Promise<void>;
}

/** What a failed call reports. */
interface CallError {
  readonly status?: number | string;
  readonly data?: Problem;
}

/**
 * Saves the open piece shortly after each change, keeps a copy in the browser until the server has exactly that, and tries again when the server
 * does not answer. A stale write stops saving until the user has decided; so does a piece that is not there any more. What the server refuses is tried
 * again after the next change, and said until then.
 */
export function startAutosave(store: AppStore, desk: SavingPorts, unsavedAtStart: boolean): Autosave {
  const pieceId = store.getState().document.piece?.id ?? '';
  const key = copyKey(pieceId, desk.tab);
  const sent = desk.sentOf(pieceId);
  let saved: Piece | null = unsavedAtStart ? null : store.getState().document.piece;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let saving: Promise<void> | undefined;
  let failures = 0;
  let newer: LoadedPiece | undefined;
  let gone = false;
  let stopped = false;
  const tell = (state: SaveState, problem: string | null = null): void => {
    const { save, saveProblem } = store.getState().session;
    if (!stopped && (save !== state || saveProblem !== problem))
      store.dispatch(sessionActions.saveChanged({ state, problem }));
  };
  const schedule = (delay: number): void => {
    clearTimeout(timer);
    if (!stopped) timer = setTimeout(() => void save(), delay);
  };

  const save = (): Promise<void> => {
    saving ??= saveOnce().finally(() => {
      saving = undefined;
    });
    return saving;
  };
  async function saveOnce(): Promise<void> {
    const { piece, revision: base } = current();
    if (!piece || newer || gone || piece === saved) return;
    tell('saving');
    const text = pieceText(piece);
    sent.add(text);
    const result = await store.dispatch(
      api.endpoints.savePiece.initiate({ id: piece.id, text, revision: base }, UNKEPT),
    );
    const error = result.error as CallError | undefined;
    // Without an answer it is unknown whether the save arrived.
    const answered = !error || typeof error.status === 'number';
    if (answered) sent.delete(text);
    if (result.data) {
      accepted(piece, result.data.revision);
      return;
    }
    const problem = error?.data;
    if (problem?.code === 'piece-stale' && problem.newer) {
      const found = JSON.stringify(problem.newer.piece);
      // The answer to an earlier write of this tab was lost: the newer version is our own.
      if (found === text || sent.has(found)) {
        sent.clear();
        accepted(found === text ? piece : problem.newer.piece, problem.newer.revision);
        return;
      }
      newer = problem.newer;
      tell('conflict');
      return;
    }
    if (problem?.code === 'not-found') {
      gone = true;
      tell('gone');
      return;
    }
    if (problem && problem.status < 500) {
      // Sending the same again would be refused again.
      tell('refused', problem.detail);
      return;
    }
    tell('offline', problem ? problem.detail : null);
    schedule(desk.pace.retry[Math.min(failures++, desk.pace.retry.length - 1)]);
  }

  /** The piece being saved. If another has been opened since, it is as it was when it was closed. */
  const current = (): { piece: Piece | null; revision: number } => {
    const { piece, revision } = store.getState().document;
    return piece?.id === pieceId && !stopped ? { piece, revision } : left;
  };
  let left: { piece: Piece | null; revision: number } = { piece: null, revision: 0 };

  function accepted(piece: Piece, revision: number): void {
    saved = piece;
    failures = 0;
    desk.tellSaved(pieceId, revision);
    if (stopped) left = { ...left, revision };
    else store.dispatch(documentActions.revisionKnown(revision));
    if (current().piece === piece) {
      dropCopy();
      tell('saved');
    } else schedule(desk.pace.quiet);
  }

  // Copies kept in the browser.
  let copied: Piece | null = null;
  let copyTimer: ReturnType<typeof setTimeout> | undefined;
  let copyPause = desk.pace.copy;
  let lastCopy = Number.NEGATIVE_INFINITY;
  let copying: Promise<void> = Promise.resolve();
  const copyNow = (): void => {
    clearTimeout(copyTimer);
    copyTimer = undefined;
    const { piece, revision } = current();
    if (!piece || piece === saved || piece === copied) return;
    const started = desk.now();
    const copy = { key, pieceId, tab: desk.tab, name: piece.name, revision, at: started, text: pieceText(piece) };
    lastCopy = desk.now();
    copyPause = Math.max(desk.pace.copy, COPY_SHARE * (lastCopy - started));
    copying = desk.copies.keep(copy).then(
      () => {
        copied = piece;
        desk.askToStay();
      },
      () => {
        // No room or no database: memory and retries remain, and leaving the page asks first.
        copied = null;
      },
    );
  };
  /** During a drag the piece changes at the display's rate. The first change is copied at once, the others from time to time. */
  const scheduleCopy = (): void => {
    copyTimer ??= setTimeout(copyNow, Math.max(0, lastCopy + copyPause - desk.now()));
  };
  const dropCopy = (): void => {
    clearTimeout(copyTimer);
    copyTimer = undefined;
    copied = null;
    copying = copying.then(() => (current().piece === saved ? desk.copies.drop(key).catch(() => {}) : undefined));
  };
  /** The browser may have deleted the copy: then it is made again. */
  const look = setInterval(() => {
    if (copied === null || copied === saved) return;
    void desk.copies.has(key).then(
      (there) => {
        if (there || copied === null || copied === saved) return;
        copied = null;
        copyNow();
      },
      () => {
        copied = null;
      },
    );
  }, desk.pace.look);
  const atRisk = (): boolean => {
    const { piece } = current();
    return piece !== null && piece !== saved && piece !== copied;
  };
  const onLeave = (event: Event): void => {
    copyNow();
    if (event.type === 'beforeunload' && atRisk()) event.preventDefault();
  };

  let watched: Piece | null = saved;
  const onChange = (): void => {
    const { piece } = current();
    if (!piece || piece === saved || piece === watched) return;
    watched = piece;
    scheduleCopy();
    if (newer || gone) return;
    if (store.getState().session.save !== 'offline') tell('unsaved');
    schedule(desk.pace.quiet);
  };
  for (const name of ['pagehide', 'beforeunload']) globalThis.addEventListener?.(name, onLeave);
  const unsubscribe = store.subscribe(onChange);
  /** Another tab of this browser has saved: this tab is out of date, with or without changes of its own. */
  const unhear = desk.onSaved((id, revision) => {
    if (id !== pieceId || newer || gone || stopped || revision <= current().revision) return;
    void store.dispatch(api.endpoints.fetchPiece.initiate(pieceId, UNKEPT)).then(({ data }) => {
      if (!data || newer || stopped || saving || data.revision <= current().revision) return;
      newer = data;
      clearTimeout(timer);
      tell('conflict');
    });
  });
  onChange();

  return {
    now: () => {
      clearTimeout(timer);
      void save();
    },
    newer: () => newer,
    resolve(choice) {
      if (!newer) return;
      const other = newer;
      newer = undefined;
      const mine = current().piece;
      if (choice === 'theirs') {
        if (mine && mine !== saved) void desk.givenWay.keep(mine, 'here').catch(() => {});
        saved = other.piece;
        watched = other.piece;
        store.dispatch(takeVersion('Take the other version', other.piece, other.revision));
        dropCopy();
        tell('saved');
      } else {
        void desk.givenWay.keep(other.piece, 'elsewhere').catch(() => {});
        store.dispatch(documentActions.revisionKnown(other.revision));
        // The user's version must reach the server, even if nothing changed since it was saved.
        saved = null;
        void save();
      }
    },
    async bringBack() {
      const restored = await store.dispatch(api.endpoints.restorePiece.initiate(pieceId, UNKEPT));
      const { piece } = current();
      if (!piece) return;
      if (restored.error) {
        // It is no longer in the bin: it is created again.
        const made = await store.dispatch(api.endpoints.createPiece.initiate(piece, UNKEPT));
        const problem = (made.error as CallError | undefined)?.data;
        if (!made.data) {
          tell('gone', problem?.detail ?? null);
          return;
        }
        gone = false;
        accepted(piece, made.data.revision);
        return;
      }
      const there = await store.dispatch(api.endpoints.fetchPiece.initiate(pieceId, UNKEPT));
      gone = false;
      if (there.data) store.dispatch(documentActions.revisionKnown(there.data.revision));
      await save();
    },
    atRisk,
    async stop() {
      copyNow();
      left = current();
      stopped = true;
      for (const name of ['pagehide', 'beforeunload']) globalThis.removeEventListener?.(name, onLeave);
      clearTimeout(timer);
      unsubscribe();
      unhear();
      clearInterval(look);
      // A save in progress may carry an older state.
      await saving;
      await save();
      await copying;
    },
  };
}
