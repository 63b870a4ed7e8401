import { describe, expect, test } from '@jest/globals';
import { pieceOf } from '../testing/pieces';
import { documentActions } from './document';
import type { RootState } from './store';
import { changePiece, createStore } from './store';

const open = () => {
  const store = createStore();
  store.dispatch(documentActions.opened({ piece: pieceOf(['M0 0H10V10H0Z', 'M0 0H9V9Z']), revision: 3 }));
  return { store, doc: () => (store.getState() as RootState).document };
};
const rename = (name: string) => changePiece(`Rename to ${name}`, (draft) => void (draft.name = name));

describe('undo and redo', () => {
  test('walk the history both ways and end where they began', () => {
    const { store, doc } = open();
    const start = doc().piece;
    for (const name of ['A', 'B', 'C']) store.dispatch(rename(name));
    const end = doc().piece;
    for (let i = 0; i < 5; i++) store.dispatch(documentActions.undone());
    expect(doc().piece).toEqual(start);
    expect(doc().future.map(({ name }) => name)).toEqual(['Rename to A', 'Rename to B', 'Rename to C']);
    for (let i = 0; i < 5; i++) store.dispatch(documentActions.redone());
    expect(doc().piece).toEqual(end);
    expect(doc().past).toHaveLength(3);
  });

  test('a new change after undo drops what was undone; a change of nothing is no step', () => {
    const { store, doc } = open();
    store.dispatch(rename('A'));
    store.dispatch(documentActions.undone());
    store.dispatch(rename('B'));
    expect([doc().past.length, doc().future.length]).toEqual([1, 0]);
    store.dispatch(changePiece('Nothing', () => {}));
    expect(doc().past).toHaveLength(1);
  });

  test('parts that did not change keep their identity, so their geometry is not computed again', () => {
    const { store, doc } = open();
    const before = doc().piece;
    store.dispatch(rename('A'));
    store.dispatch(documentActions.undone());
    for (const id of Object.keys(before?.parts ?? {})) expect(doc().piece?.parts[id]).toBe(before?.parts[id]);
  });

  test('opening another piece starts a new history; a revision does not touch the piece', () => {
    const { store, doc } = open();
    store.dispatch(rename('A'));
    const { piece } = doc();
    store.dispatch(documentActions.revisionKnown(9));
    expect([doc().piece === piece, doc().revision, doc().past.length]).toEqual([true, 9, 1]);
    store.dispatch(documentActions.opened({ piece: pieceOf([]), revision: 1 }));
    expect([doc().past.length, doc().revision]).toEqual([0, 1]);
  });

  test('the history is limited, the piece is not', () => {
    const { store, doc } = open();
    for (let i = 0; i < 230; i++) store.dispatch(rename(`N${i}`));
    expect([doc().past.length, doc().piece?.name]).toEqual([200, 'N229']);
  });
});
