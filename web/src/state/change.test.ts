import type { Piece, PieceDraft } from '@core';
import { describe, expect, test } from '@jest/globals';
import { pieceOf } from '../testing/pieces';
import { changePiece, changePieceInSteps } from './change';
import { documentActions } from './document';
import { pendingSvgs } from './pending-svgs';
import { chosenFigure, selectedPose, selectedShift, selectPiece, selectSelection } from './selectors';
import { sessionActions } from './session';
import { createStore } from './store';
import { numberedAnew, takeVersion } from './versions';

/** A piece of one pose with as many parts as there are names, each with a source of its kind. */
function piece(kind: 'shape' | 'glyph', names: readonly string[]): Piece {
  const draft = structuredClone(pieceOf(['M0 0H9V9Z', 'M0 0H9V5Z'])) as PieceDraft;
  const [first] = Object.values(draft.parts);
  const pose = draft.poses[Object.keys(draft.poses)[0]];
  names.forEach((name, i) => {
    const id = `n${i}`;
    draft.parts[id] = { ...structuredClone(first), id, name, source: { kind, n: i } as never };
    pose.parts.push(id);
  });
  return draft as Piece;
}
const opened = (of: Piece) => {
  const store = createStore();
  store.dispatch(documentActions.opened({ piece: of, revision: 3 }));
  return store;
};
/** Turns the first parts that have a source into points. */
const toPoints = (count: number) =>
  changePiece('To points', (draft) => {
    for (let i = 0; i < count; i++) delete (draft.parts[`n${i}`] as { source?: unknown }).source;
  });
const told = (store: ReturnType<typeof createStore>) => store.getState().session.messages;

describe('what a change turns into points', () => {
  test.each([
    ['shape', ['Disc'], 1, '“Disc” is points now: it is no longer adjustable.'],
    ['shape', ['A', 'B'], 2, '“A”, “B” are points now: they are no longer adjustable.'],
    ['shape', ['A', 'B', 'C', 'D', 'E'], 5, '“A”, “B”, “C” and 2 more are points now: they are no longer adjustable.'],
    ['glyph', ['H', 'i'], 2, 'The letters “Hi” are points now: they no longer follow their text.'],
  ] as const)('is told by name: %s %j', (kind, names, count, text) => {
    const store = opened(piece(kind, names));
    store.dispatch(toPoints(count));
    const [message] = told(store);
    expect(message?.text).toBe(text);
    // “Undo” beside it takes back this very step.
    expect(message?.undoChange).toBe(store.getState().document.past.at(-1)?.id);
  });

  test('is not told where nothing was adjustable, or still is', () => {
    const store = opened(piece('shape', ['A']));
    store.dispatch(changePiece('Rename', (draft) => void (draft.name = 'Other')));
    expect(told(store)).toEqual([]);
  });
});

test('a change that could not be saved is not made, and says why', () => {
  const store = opened(pieceOf(['M0 0H9V9Z']));
  const before = store.getState().document.piece;
  store.dispatch(changePiece('Widen', (draft) => void (draft.canvas.width = -1)));
  expect(store.getState().document.piece).toBe(before);
  expect(store.getState().document.past).toEqual([]);
  const [message] = told(store);
  expect(message.tone).toBe('error');
  expect(message.text).toMatch(/^“Widen” was left undone, for it could not be saved: .+\.$/);
});

describe('a change in steps', () => {
  const rename = (name: string) => (draft: PieceDraft) => void (draft.name += name);

  test('is one step of the history, whose undoing gives back what was', async () => {
    const store = opened(pieceOf(['M0 0H9V9Z']));
    const before = store.getState().document.piece;
    let pauses = 0;
    await store.dispatch(changePieceInSteps('Twice', [rename('A'), rename('B')], async () => void pauses++));
    const { piece: after, past } = store.getState().document;
    expect([after?.name, past.map(({ name }) => name), pauses]).toEqual([`${before?.name}AB`, ['Twice'], 4]);
    store.dispatch(documentActions.undone());
    expect(store.getState().document.piece).toEqual(before);
  });

  test('is left where the piece was closed, or another opened, meanwhile', async () => {
    const store = opened(pieceOf(['M0 0H9V9Z']));
    const other = { ...pieceOf(['M0 0H9V9Z']), id: 'other' };
    await store.dispatch(
      changePieceInSteps('Late', [rename('A')], async () => {
        if (store.getState().document.piece?.id !== 'other')
          store.dispatch(documentActions.opened({ piece: other, revision: 1 }));
      }),
    );
    expect(store.getState().document.piece).toEqual(other);
    await createStore().dispatch(changePieceInSteps('None', [rename('A')], async () => {}));
  });
});

describe('what is selected', () => {
  const two = pieceOf(['M0 0H9V9Z', 'M0 0H9V5Z']);
  const figure = Object.values(two.figures)[0];

  test('is the pose of a stop or a shift, as records; undefined when it is gone', () => {
    const stop = { kind: 'stop', figureId: figure.id, stop: 1 } as const;
    const shift = { kind: 'shift', figureId: figure.id, shiftId: figure.rail[0] } as const;
    expect(selectedPose(two, stop)).toEqual({ pose: two.poses[figure.poses[1]], figure, stop: 1 });
    expect(selectedShift(two, shift)).toBe(two.shifts[figure.rail[0]]);
    for (const other of [shift, null, { ...stop, stop: 5 }, { ...stop, figureId: 'gone' }])
      expect(selectedPose(two, other)).toBeUndefined();
    for (const other of [stop, null, { ...shift, shiftId: 'gone' }]) expect(selectedShift(two, other)).toBeUndefined();
  });

  test('is on the rail of its figure, else of the first', () => {
    expect(chosenFigure(two, null)).toBe(figure);
    expect(chosenFigure(two, { kind: 'stop', figureId: 'gone', stop: 0 })).toBe(figure);
    const another = { ...two, figures: { ...two.figures, g: { ...figure, id: 'g' } } };
    expect(chosenFigure(another, { kind: 'stop', figureId: 'g', stop: 0 })?.id).toBe('g');
  });

  test('is read from the store', () => {
    const store = opened(two);
    const selection = { kind: 'stop', figureId: figure.id, stop: 0 } as const;
    store.dispatch(sessionActions.selected(selection));
    expect([selectPiece(store.getState()), selectSelection(store.getState())]).toEqual([two, selection]);
  });
});

describe('another version', () => {
  const version = { ...pieceOf(['M0 0H5V5Z']), name: 'Version' };

  test('takes the place of the piece in one step, goes on from its revision, and can be undone', () => {
    const before = pieceOf(['M0 0H9V9Z']);
    const store = opened(before);
    store.dispatch(documentActions.markSet(4));
    store.dispatch(takeVersion('Use this version', version, 9));
    const { piece: now, past, revision, mark } = store.getState().document;
    expect([now, past.length, revision, mark]).toEqual([version, 1, 9, null]);
    store.dispatch(documentActions.undone());
    expect(store.getState().document.piece).toEqual(before);
  });

  test('changes nothing where no piece is open', () => {
    const store = createStore();
    store.dispatch(takeVersion('Use this version', version, 9));
    expect(store.getState().document).toMatchObject({ piece: null, past: [] });
  });

  test('brings its steps with numbers of their own', () => {
    const steps = [1, 2].map((id) => ({ id, name: `${id}`, forward: [], backward: [] }));
    const anew = numberedAnew(steps);
    expect(anew.map(({ name }) => name)).toEqual(['1', '2']);
    expect(new Set([...steps, ...anew].map(({ id }) => id)).size).toBe(4);
  });
});

test('SVGs on their way into the next piece are taken once', () => {
  const svgs = [{ name: 'A', svg: '<svg/>' }];
  pendingSvgs.put(svgs);
  expect([pendingSvgs.take(), pendingSvgs.take()]).toEqual([svgs, []]);
});
