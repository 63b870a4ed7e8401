import { afterEach, describe, expect, test } from '@jest/globals';
import { BENCH_KEY, benchActions, benchReducer } from './bench';
import { sessionActions } from './session';
import { createStore, type RootState } from './store';

const anchor = { part: 'p', contour: 'c', anchor: 'a' };
const open = () => {
  const store = createStore();
  return { store, bench: () => (store.getState() as RootState).bench };
};

/** A browser's memory that holds one text. */
function remember(text: string | null): void {
  Object.assign(globalThis, {
    localStorage: {
      getItem: (key: string) => (key === BENCH_KEY ? text : null),
      setItem: () => {},
      removeItem: () => {},
    },
  });
}
afterEach(() => remember(null));

describe('the drawing bench', () => {
  test('a tool brings its details into sight and lets points go', () => {
    const { store, bench } = open();
    store.dispatch(benchActions.anchorsChosen([anchor]));
    store.dispatch(benchActions.toolChosen('points'));
    expect(bench()).toMatchObject({ tool: 'points', details: 'outline', anchors: [] });
    store.dispatch(benchActions.toolChosen('colour'));
    expect(bench().details).toBe('paint');
    store.dispatch(benchActions.shapeChosen('star'));
    expect(bench()).toMatchObject({ tool: 'shape', shapeKind: 'star' });
  });
  test('a coarser choice ends the finer ones', () => {
    const { store, bench } = open();
    store.dispatch(benchActions.partsChosen(['p1', 'p2']));
    store.dispatch(benchActions.anchorsChosen([anchor]));
    expect(bench()).toMatchObject({ parts: ['p1', 'p2'], anchors: [anchor] });
    store.dispatch(benchActions.partsChosen(['p1']));
    expect(bench().anchors).toEqual([]);
    store.dispatch(benchActions.alsoChosen(['f2']));
    expect(bench()).toMatchObject({ also: ['f2'], parts: [] });
    store.dispatch(sessionActions.selected(null));
    expect(bench().also).toEqual([]);
  });
  test('another piece starts with the selection tool', () => {
    const { store, bench } = open();
    store.dispatch(benchActions.toolChosen('cut'));
    store.dispatch(sessionActions.reset());
    expect(bench().tool).toBe('select');
  });
  test('one snap choice leaves the others', () => {
    const { store, bench } = open();
    const before = bench().snap;
    store.dispatch(benchActions.snapChanged({ grid: true }));
    expect(bench().snap).toEqual({ ...before, grid: true });
  });
});

describe('what a browser remembers', () => {
  const fresh = () => benchReducer(undefined, { type: 'start' });
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
