import type { LoadedPiece, Piece, Problem } from '@core';
import { type AppStore, api, documentActions, type SaveState, sessionActions, takeVersion, UNKEPT } from '../../state';
import { copyKey } from './copies';
import { pieceText } from './piece-text';
import type { SavingPorts } from './ports';

/** Making copies takes at most a twentieth of the time. */
const COPY_SHARE = 20;

export interface Autosave {
  /** Saves at once what is not saved yet. */
  now(): void;
  /** Settles a conflict: by the user's version, or by the one on the server. */
  resolve(choice: 'mine' | 'theirs'): void;
  /** The version on the server, while there is a conflict. */
  newer(): LoadedPiece | undefined;
  /** Puts a piece back that was deleted elsewhere. */
  bringBack(): Promise<void>;
  /** Is there something that neither the server nor the browser has? */
  atRisk(): boolean;
  /** Resolves when the last save has its answer. */
  stop(): Promise<void>;
}

/** What a failed call tells. */
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
    // Without an answer nobody knows whether it arrived.
    const answered = !error || typeof error.status === 'number';
    if (answered) sent.delete(text);
    if (result.data) {
      accepted(piece, result.data.revision);
      return;
    }
    const problem = error?.data;
    if (problem?.code === 'piece-stale' && problem.newer) {
      const found = JSON.stringify(problem.newer.piece);
      // A write of this tab whose answer was lost: what is newer is our own.
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
      // The same again would be refused again.
      tell('refused', problem.detail);
      return;
    }
    tell('offline', problem ? problem.detail : null);
    schedule(desk.pace.retry[Math.min(failures++, desk.pace.retry.length - 1)]);
  }

  /** The open piece, unless another has been opened meanwhile; one that was left is as it was left. */
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

  // Copies in the browser.
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
        // No room or no database: what is in memory and the retries remain, and leaving asks.
        copied = null;
      },
    );
  };
  /** While a colour is dragged the piece changes at the display's rate: the first change is copied at once, the others now and then. */
  const scheduleCopy = (): void => {
    copyTimer ??= setTimeout(copyNow, Math.max(0, lastCopy + copyPause - desk.now()));
  };
  const dropCopy = (): void => {
    clearTimeout(copyTimer);
    copyTimer = undefined;
    copied = null;
    copying = copying.then(() => (current().piece === saved ? desk.copies.drop(key).catch(() => {}) : undefined));
  };
  /** A copy that the browser has cleared away is none: it is made anew. */
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
  /** Another tab of this browser has saved: this one is behind, whether or not it has changed anything since. */
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
        // What is here is to be there, even where nothing was changed since it was saved.
        saved = null;
        void save();
      }
    },
    async bringBack() {
      const restored = await store.dispatch(api.endpoints.restorePiece.initiate(pieceId, UNKEPT));
      const { piece } = current();
      if (!piece) return;
      if (restored.error) {
        // It is not in the bin any more: it is made anew.
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
      // One that is under way may be of an older state.
      await saving;
      await save();
      await copying;
    },
  };
}
