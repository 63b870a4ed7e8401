import { type AppStore, BENCH_KEY } from '../state';

/** Keeps the bench's preferences in the browser whenever they change; returns how to stop. */
export function rememberBench(store: AppStore): () => void {
  let last = '';
  return store.subscribe(() => {
    const { snap, rulers, together, drawsAs, shapeKind, left, right } = store.getState().bench;
    const next = JSON.stringify({ snap, rulers, together, drawsAs, shapeKind, left, right });
    if (next === last) return;
    last = next;
    try {
      localStorage.setItem(BENCH_KEY, next);
    } catch {
      // The choices then last until the page is closed.
    }
  });
}
