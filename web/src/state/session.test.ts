import { describe, expect, test } from '@jest/globals';
import { pieceOf } from '../testing/pieces';
import { outputsActions } from './outputs';
import { itemOf, railChoice, railItems, sameItem } from './rail-choice';
import { type Selection, sessionActions } from './session';
import { beginStep, createStore, endStep } from './store';

const piece = pieceOf(['M0 0H9V9Z', 'M0 0H9V5Z', 'M0 0H5V9Z']);
const figure = Object.values(piece.figures)[0];
const stopAt = (stop: number): Selection => ({ kind: 'stop', figureId: figure.id, stop });

describe('what is chosen on a rail', () => {
  test('is all stops and shifts of it in the order of time', () => {
    expect(railItems(figure, 3)).toEqual([
      { kind: 'stop', stop: 0 },
      { kind: 'shift', shiftId: figure.rail[0] },
      { kind: 'stop', stop: 1 },
      { kind: 'shift', shiftId: figure.rail[1] },
      { kind: 'stop', stop: 2 },
    ]);
  });

  test('comes in the order of time, however it was chosen, without what is gone', () => {
    const shift = { kind: 'shift', shiftId: figure.rail[1] } as const;
    const found = railChoice(piece, stopAt(2), [shift, { kind: 'stop', stop: 0 }, { kind: 'stop', stop: 9 }]);
    expect(found).toEqual({ figure, stops: [0, 2], shifts: [figure.rail[1]] });
    expect(railChoice(piece, stopAt(9), [])).toBeUndefined();
    expect(railChoice(piece, null, [shift])).toBeUndefined();
    expect(railChoice(piece, { ...stopAt(0), figureId: 'gone' }, [])).toBeUndefined();
  });

  test('a stop is the same by its number, a shift by its id, and neither is the other', () => {
    const [stop, shift] = [itemOf(stopAt(1)), itemOf({ kind: 'shift', figureId: figure.id, shiftId: 's' })];
    expect([sameItem(stop, { kind: 'stop', stop: 1 }), sameItem(stop, { kind: 'stop', stop: 2 })]).toEqual([
      true,
      false,
    ]);
    expect([sameItem(shift, shift), sameItem(shift, { kind: 'shift', shiftId: 't' })]).toEqual([true, false]);
    expect([sameItem(stop, shift), sameItem(shift, stop)]).toEqual([false, false]);
  });

  test('a new choice ends what was chosen besides, and keys; several figures end several items', () => {
    const store = createStore();
    const now = () => store.getState().session;
    store.dispatch(sessionActions.selected(stopAt(0)));
    store.dispatch(sessionActions.moreChosen([{ kind: 'stop', stop: 1 }]));
    store.dispatch(sessionActions.keysChosen([{ lane: 'l', key: 'k' }]));
    expect([now().more.length, now().keys.length]).toEqual([1, 1]);
    store.dispatch(sessionActions.selected(stopAt(2)));
    expect([now().selection, now().more, now().keys]).toEqual([stopAt(2), [], []]);
    store.dispatch(sessionActions.moreChosen([{ kind: 'stop', stop: 1 }]));
    store.dispatch({ type: 'drawing/alsoChosen', payload: [] });
    expect(now().more).toEqual([]);
  });
});

describe('messages', () => {
  const textsOf = (store: ReturnType<typeof createStore>) => store.getState().session.messages.map(({ text }) => text);
  const tell = (store: ReturnType<typeof createStore>, ...texts: string[]): void => {
    for (const text of texts) store.dispatch(sessionActions.told({ tone: 'notice', text, details: ['one'] }));
  };

  test('four are shown at most, the latest last; the same again comes once', () => {
    const store = createStore();
    tell(store, 'a', 'b', 'c', 'a');
    expect(textsOf(store)).toEqual(['b', 'c', 'a']);
    tell(store, 'd', 'e');
    expect(textsOf(store)).toEqual(['c', 'a', 'd', 'e']);
  });

  test('each goes by its own number', () => {
    const store = createStore();
    tell(store, 'a', 'b');
    const [first, second] = store.getState().session.messages;
    expect(first.id).not.toBe(second.id);
    store.dispatch(sessionActions.dismissed(first.id));
    expect(textsOf(store)).toEqual(['b']);
  });

  test('when a piece is left, what is about the next one stays, once; so does the theme', () => {
    const store = createStore();
    tell(store, 'a');
    store.dispatch(sessionActions.told({ tone: 'error', text: 'next', ofNext: true }));
    store.dispatch(sessionActions.themeChosen('dark'));
    store.dispatch(sessionActions.said('heard'));
    store.dispatch(sessionActions.reset());
    expect(textsOf(store)).toEqual(['next']);
    expect(store.getState().session).toMatchObject({ theme: 'dark', said: '', selection: null });
    store.dispatch(sessionActions.reset());
    expect(textsOf(store)).toEqual([]);
  });
});

test('the sheet of shortcuts opens and closes by turns, or as it is told', () => {
  const store = createStore();
  const open = (to?: boolean): boolean => {
    store.dispatch(sessionActions.sheetToggled(to));
    return store.getState().session.sheetOpen;
  };
  expect([open(), open(), open(false), open(true), open(true)]).toEqual([true, false, false, true, true]);
});

test('what the tab knows of its saving, its work and its easings is kept as it is told', () => {
  const store = createStore();
  const easing = { kind: 'linear' } as const;
  const busy = { text: 'Reading', share: 0.5, stoppable: true };
  store.dispatch(sessionActions.saveChanged({ state: 'refused', problem: 'too large' }));
  store.dispatch(sessionActions.busyChanged(busy));
  store.dispatch(sessionActions.easingCopied(easing as never));
  store.dispatch(sessionActions.easingSetAside(easing as never));
  expect(store.getState().session).toMatchObject({
    save: 'refused',
    saveProblem: 'too large',
    busy,
    copiedEasing: easing,
    asideEasing: easing,
  });
  store.dispatch(sessionActions.easingSetAside(null));
  expect(store.getState().session.asideEasing).toBeNull();
});

test('jobs found in the store come before those asked for since; each changes and goes by its id', () => {
  const store = createStore();
  const job = (id: string) => ({ id, share: 0 }) as never;
  const found = () => store.getState().outputs.jobs.map(({ id, share }) => [id, share]);
  store.dispatch(outputsActions.jobAdded(job('c')));
  store.dispatch(outputsActions.jobsFound([job('a'), job('b')]));
  store.dispatch(outputsActions.jobChanged({ id: 'b', share: 0.5 }));
  store.dispatch(outputsActions.jobChanged({ id: 'gone', share: 1 }));
  expect(found()).toEqual([
    ['a', 0],
    ['b', 0.5],
    ['c', 0],
  ]);
  store.dispatch(outputsActions.jobRemoved('a'));
  expect(found().map(([id]) => id)).toEqual(['b', 'c']);
});

test('steps that may take many changes have marks of their own, and only its own ends one', () => {
  const store = createStore();
  const mark = () => (store.getState().document as { mark?: { id?: number } | null }).mark;
  const none = mark();
  const first = store.dispatch(beginStep());
  expect(mark()).not.toEqual(none);
  const second = store.dispatch(beginStep());
  expect(second).not.toBe(first);
  const during = mark();
  store.dispatch(endStep(first));
  expect(mark()).toEqual(during);
  store.dispatch(endStep(second));
  expect(mark()).toEqual(none);
});
