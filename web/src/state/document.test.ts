import { describe, expect, test } from '@jest/globals';
import { pieceOf } from '../testing/pieces';
import { changePiece, changePieceInSteps } from './change';
import { documentActions } from './document';
import type { RootState } from './store';
import { beginStep, createStore, endStep } from './store';

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

describe('a step that takes many changes', () => {
  const open = () => {
    const store = createStore();
    store.dispatch(documentActions.opened({ piece: pieceOf(['M0 0H10V10H0Z']), revision: 1 }));
    const state = () => (store.getState() as RootState).document;
    const [part] = Object.keys(state().piece?.parts ?? {});
    const fill = (colour: string): void =>
      void store.dispatch(changePiece('Fill', (draft) => void (draft.parts[part].fill = colour)));
    return { store, state, fill, colour: () => state().piece?.parts[part].fill };
  };

  test('40 colours on the way are one step, no heavier than one colour; undo and redo take all of it', () => {
    const { store, state, fill, colour } = open();
    const before = colour();
    const step = store.dispatch(beginStep());
    for (let i = 10; i < 50; i++) fill(`#0000${i}`);
    store.dispatch(endStep(step));
    expect(state().past).toHaveLength(1);
    expect([state().past[0].forward.length, state().past[0].backward.length]).toEqual([1, 1]);
    store.dispatch(documentActions.undone());
    expect(colour()).toBe(before);
    store.dispatch(documentActions.redone());
    expect(colour()).toBe('#000049');
  });

  test('what comes before and after it are steps of their own', () => {
    const { store, state, fill, colour } = open();
    fill('#111111');
    const step = store.dispatch(beginStep());
    fill('#222222');
    fill('#333333');
    store.dispatch(endStep(step));
    fill('#444444');
    expect(state().past).toHaveLength(3);
    store.dispatch(documentActions.undone());
    expect(colour()).toBe('#333333');
    store.dispatch(documentActions.undone());
    expect(colour()).toBe('#111111');
  });

  test('a step that another one has replaced does not end that one; undoing ends any', () => {
    const { store, state, fill } = open();
    const first = store.dispatch(beginStep());
    fill('#111111');
    const second = store.dispatch(beginStep());
    fill('#222222');
    store.dispatch(endStep(first));
    fill('#333333');
    expect(state().past).toHaveLength(2);
    store.dispatch(documentActions.undone());
    fill('#444444');
    fill('#555555');
    expect(state().past).toHaveLength(3);
    store.dispatch(endStep(second));
  });

  test('changes that add and take away are joined in full', () => {
    const { store, state } = open();
    const step = store.dispatch(beginStep());
    const before = state().piece;
    store.dispatch(changePiece('Guide', (draft) => void draft.aids.guides.push({ id: 'a', axis: 'x', at: 10 })));
    store.dispatch(changePiece('Guide', (draft) => void (draft.aids.guides[0].at = 20)));
    store.dispatch(endStep(step));
    expect(state().past).toHaveLength(1);
    store.dispatch(documentActions.undone());
    expect(state().piece).toEqual(before);
    store.dispatch(documentActions.redone());
    expect(state().piece?.aids.guides).toEqual([{ id: 'a', axis: 'x', at: 20 }]);
  });

  test('the oldest steps go when there are too many, and the open one stays whole', () => {
    const { store, state, fill } = open();
    for (let i = 0; i < 200; i++) fill(`#${String(100000 + i)}`);
    const step = store.dispatch(beginStep());
    fill('#aaaaaa');
    fill('#bbbbbb');
    store.dispatch(endStep(step));
    expect(state().past).toHaveLength(200);
    store.dispatch(documentActions.undone());
    expect(state().past).toHaveLength(199);
  });
});

describe('a change in several steps of the page', () => {
  const inSteps = (name: string, later: () => Promise<void>, ...recipes: Parameters<typeof changePieceInSteps>[1]) =>
    changePieceInSteps(name, recipes, later);
  const [first, second] = Object.keys(pieceOf(['M0 0H10V10H0Z', 'M0 0H9V9Z']).parts);
  const fill =
    (id: string, colour: string): Parameters<typeof changePiece>[1] =>
    (draft) =>
      void (draft.parts[id].fill = colour);

  test('is one step of history, and nothing of it is seen before it is whole', async () => {
    const { store, doc } = open();
    const start = doc().piece;
    const seen: unknown[] = [];
    const later = async () => void seen.push(doc().piece);
    await store.dispatch(inSteps('Fill both', later, fill(first, '#111111'), fill(second, '#222222')));
    expect(seen.length).toBeGreaterThan(2);
    expect(seen.every((piece) => piece === start)).toBe(true);
    expect(doc().past.map(({ name }) => name)).toEqual(['Fill both']);
    expect([doc().piece?.parts[first].fill, doc().piece?.parts[second].fill]).toEqual(['#111111', '#222222']);
    store.dispatch(documentActions.undone());
    expect(doc().piece).toEqual(start);
  });
  test('what is changed meanwhile goes before it', async () => {
    const { store, doc } = open();
    let steps = 0;
    const later = async () => {
      if (++steps === 2) store.dispatch(rename('Meanwhile'));
    };
    await store.dispatch(inSteps('Fill', later, fill(first, '#111111')));
    expect(doc().past.map(({ name }) => name)).toEqual(['Rename to Meanwhile', 'Fill']);
    expect([doc().piece?.name, doc().piece?.parts[first].fill]).toEqual(['Meanwhile', '#111111']);
  });
  test('is left undone, with the reason, where it could not be saved; and when the piece was left', async () => {
    const { store, doc } = open();
    const start = doc().piece;
    await store.dispatch(
      inSteps(
        'Spoil',
        async () => {},
        (draft) => void (draft.parts[first].fill = 'x'.repeat(400)),
      ),
    );
    expect(doc().piece).toBe(start);
    expect((store.getState() as RootState).session.messages[0].text).toMatch(/^“Spoil” was left undone/);
    const leave = async () => void store.dispatch(documentActions.closed());
    await store.dispatch(inSteps('Fill', leave, fill(first, '#111111')));
    expect(doc().piece).toBeNull();
  });
});
