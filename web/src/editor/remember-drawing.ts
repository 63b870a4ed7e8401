import { type AppStore, type DrawingPreferences, remember } from '../state';

/** Keeps the drawing's preferences in the browser whenever they change; returns how to stop. */
export function rememberDrawing(store: AppStore): () => void {
  let last = '';
  return store.subscribe(() => {
    const { snap, rulers, together, drawsAs, shapeKind, keepTool, left, right, widths } = store.getState().drawing;
    const next: DrawingPreferences = { snap, rulers, together, drawsAs, shapeKind, keepTool, left, right, widths };
    const text = JSON.stringify(next);
    if (text === last) return;
    last = text;
    remember('drawing', next);
  });
}
