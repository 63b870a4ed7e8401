import type { AppStore } from '../../state';
import type { StepsKeeper } from './kept-steps';
import type { SavingPace } from './ports';

/** Keeps what can be undone and redone in the browser, a moment after each change and when the page goes. Returns what ends that. */
export function keepSteps(store: AppStore, keeper: StepsKeeper, pace: SavingPace): () => void {
  const pieceId = store.getState().document.piece?.id;
  let kept = store.getState().document;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const keep = (): void => {
    clearTimeout(timer);
    timer = undefined;
    const { document } = store.getState();
    const { piece, past, future } = document;
    if (!piece || piece.id !== pieceId || (past === kept.past && future === kept.future)) return;
    kept = document;
    // Where there is no room, steps are lost with the page, as they always were.
    void keeper.keep(piece, { past, future }).catch(() => {});
  };
  const unsubscribe = store.subscribe(() => {
    const { past, future } = store.getState().document;
    if (past !== kept.past || future !== kept.future) timer ??= setTimeout(keep, pace.quiet);
  });
  globalThis.addEventListener?.('pagehide', keep);
  return () => {
    keep();
    globalThis.removeEventListener?.('pagehide', keep);
    unsubscribe();
  };
}
