import { type AppStore, DRAWING_KEY } from '../state';

/** Keeps the drawing's preferences in the browser whenever they change; returns how to stop. */
export function rememberDrawing(store: AppStore): () => void {
  let last = '';
  return store.subscribe(() => {
    const { snap, rulers, together, drawsAs, shapeKind, left, right } = store.getState().drawing;
    const next = JSON.stringify({ snap, rulers, together, drawsAs, shapeKind, left, right });
    if (next === last) return;
    last = next;
    try {
      localStorage.setItem(DRAWING_KEY, next);
    } catch {
      // The choices then last until the page is closed.
    }
  });
}
