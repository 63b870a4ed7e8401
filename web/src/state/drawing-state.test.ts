import { afterEach, describe, expect, test } from '@jest/globals';
import { drawingActions, drawingReducer } from './drawing-state';
import { PREFERENCES } from './preferences';
import { sessionActions } from './session';
import { createStore, type RootState } from './store';

const anchor = { part: 'p', contour: 'c', anchor: 'a' };
const open = () => {
  const store = createStore();
  return { store, drawing: () => (store.getState() as RootState).drawing };
};

/** A browser's memory that holds one text. */
function remember(text: string | null): void {
  Object.assign(globalThis, {
    localStorage: {
      getItem: (key: string) => (key === PREFERENCES.drawing.key ? text : null),
      setItem: () => {},
      removeItem: () => {},
    },
  });
}
afterEach(() => remember(null));

describe('the drawing', () => {
  test('a tool brings its details into sight and lets points go', () => {
    const { store, drawing } = open();
    store.dispatch(drawingActions.anchorsChosen([anchor]));
    store.dispatch(drawingActions.toolChosen('points'));
    expect(drawing()).toMatchObject({ tool: 'points', details: 'outline', anchors: [] });
    store.dispatch(drawingActions.toolChosen('colour'));
    expect(drawing().details).toBe('paint');
    store.dispatch(drawingActions.shapeChosen('star'));
    expect(drawing()).toMatchObject({ tool: 'shape', shapeKind: 'star' });
  });
  test('a coarser choice ends the finer ones', () => {
    const { store, drawing } = open();
    store.dispatch(drawingActions.partsChosen(['p1', 'p2']));
    store.dispatch(drawingActions.anchorsChosen([anchor]));
    expect(drawing()).toMatchObject({ parts: ['p1', 'p2'], anchors: [anchor] });
    store.dispatch(drawingActions.partsChosen(['p1']));
    expect(drawing().anchors).toEqual([]);
    store.dispatch(drawingActions.alsoChosen(['f2']));
    expect(drawing()).toMatchObject({ also: ['f2'], parts: [] });
    store.dispatch(sessionActions.selected(null));
    expect(drawing().also).toEqual([]);
  });
  test('another piece starts with the selection tool', () => {
    const { store, drawing } = open();
    store.dispatch(drawingActions.toolChosen('cut'));
    store.dispatch(sessionActions.reset());
    expect(drawing().tool).toBe('select');
  });
  test('one snap choice leaves the others', () => {
    const { store, drawing } = open();
    const before = drawing().snap;
    store.dispatch(drawingActions.snapChanged({ grid: true }));
    expect(drawing().snap).toEqual({ ...before, grid: true });
  });
});

describe('what a browser remembers', () => {
  const fresh = () => drawingReducer(undefined, { type: 'start' });
  test('is taken up where it makes sense', () => {
    remember(JSON.stringify({ rulers: true, left: false, drawsAs: 'pose', snap: { grid: true }, tool: 'cut' }));
    expect(fresh()).toMatchObject({
      rulers: true,
      left: false,
      drawsAs: 'pose',
      tool: 'select',
      snap: { grid: true, points: true },
    });
  });
  test.each(['', 'not JSON', '7', '{"drawsAs":"teapot","shapeKind":3,"left":"no","rulers":1}'])(
    '%j leaves the defaults',
    (text) => {
      remember(null);
      const plain = fresh();
      remember(text);
      expect(fresh()).toEqual(plain);
    },
  );
});
