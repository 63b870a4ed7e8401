import { type ArrivalForm, type ArrivingFile, emptyPiece, posesOfArrival, readSvg, stopsOf } from '@core';
import { beforeEach, describe, expect, test } from '@jest/globals';
import { createStore, documentActions, type RootState, sessionActions } from '../../state';
import type { EngineClient } from '../../workers';
import { Arrivals, type ImportSource } from './arrivals';

const memory = new Map<string, string>();
beforeEach(() => {
  memory.clear();
  Object.assign(globalThis, {
    localStorage: {
      getItem: (key: string) => memory.get(key) ?? null,
      setItem: (key: string, value: string) => void memory.set(key, value),
      removeItem: (key: string) => void memory.delete(key),
    },
  });
});

let ids = 0;
const engine = {
  cancel: () => {},
  readSvg: async (text: string) => readSvg(text),
  arrive: async (files: readonly ArrivingFile[], form: ArrivalForm) =>
    posesOfArrival(files, form, null, (prefix) => `${prefix}${++ids}`),
} as unknown as EngineClient;
const svg = (body = '<path d="M0 0h9v9z"/>'): string => `<svg xmlns="http://www.w3.org/2000/svg">${body}</svg>`;
const source = (name: string, text = svg(), size = text.length): ImportSource => ({
  name,
  size,
  text: async () => text,
});
const open = () => {
  const store = createStore();
  store.dispatch(documentActions.opened({ piece: emptyPiece('p', 'Piece'), revision: 1 }));
  const arrivals = new Arrivals(store, engine);
  return { store, arrivals, state: () => store.getState() as RootState };
};
const names = (state: RootState): string[] => {
  const { piece } = state.document;
  const figure = piece?.figures[piece.figureOrder[0]];
  return piece && figure ? stopsOf(piece, figure).map((id) => piece.poses[id].name) : [];
};

describe('bringing files in', () => {
  test('makes a figure, and of each file a pose named after it, as one step', async () => {
    const { arrivals, state } = open();
    expect(await arrivals.take([source('ferry-sign.svg'), source('two_words.SVG')])).toBe(2);
    expect(names(state())).toEqual(['ferry sign', 'two words']);
    expect(state().document.past.map(({ name }) => name)).toEqual(['Add 2 poses']);
    expect(state().session.arrival?.poseIds).toHaveLength(2);
    expect(state().session.busy).toBeNull();
  });

  test('a figure of one file is called like the file', async () => {
    const { arrivals, state } = open();
    await arrivals.take([source('ferry-sign.svg')]);
    expect(Object.values(state().document.piece?.figures ?? {}).map(({ name }) => name)).toEqual(['ferry sign']);
  });

  test('what has arrived is chosen where a pose was chosen, and only there', async () => {
    const { arrivals, store, state } = open();
    await arrivals.take([source('one.svg')]);
    expect(state().session.selection).toBeNull();
    const figureId = state().document.piece?.figureOrder[0] ?? '';
    store.dispatch(sessionActions.selected({ kind: 'stop', figureId, stop: 0 }));
    await arrivals.take([source('two.svg'), source('three.svg')]);
    expect(state().session.selection).toEqual({ kind: 'stop', figureId, stop: 1 });
    await arrivals.take([source('first.svg')], 0);
    expect(state().session.selection).toEqual({ kind: 'stop', figureId, stop: 0 });
  });

  test('goes where it was dropped', async () => {
    const { arrivals, state } = open();
    await arrivals.take([source('a.svg'), source('b.svg')]);
    await arrivals.take([source('c.svg')], 1);
    expect(names(state())).toEqual(['a', 'c', 'b']);
  });

  test('uses the rule that was chosen last', async () => {
    const { arrivals, state } = open();
    memory.set('arcshift.placement-rule', JSON.stringify({ centre: 'box', fit: 'area' }));
    await arrivals.take([source('a.svg')]);
    expect(Object.values(state().document.piece?.poses ?? {})[0].placement.rule).toEqual({
      centre: 'box',
      fit: 'area',
      to: 'previous',
    });
    memory.set('arcshift.placement-rule', 'torn {');
    await arrivals.take([source('b.svg')]);
    expect(Object.values(state().document.piece?.poses ?? {})[1].placement.rule?.centre).toBe('area');
  });

  test('of several files the readable ones come in; the others are told one by one', async () => {
    const { arrivals, state } = open();
    expect(await arrivals.take([source('a.svg'), source('bad.svg', 'x'), source('big.svg', svg(), 7e7)])).toBe(1);
    const [message] = state().session.messages;
    expect(message.tone).toBe('error');
    expect(message.details).toHaveLength(2);
    expect(message.details?.join()).toMatch(/bad\.svg.*big\.svg: Expected a file of at most 60 MB/);
  });

  test('nothing readable changes nothing', async () => {
    const { arrivals, state } = open();
    const before = state().document;
    expect(await arrivals.take([source('bad.svg', '<svg')])).toBe(0);
    expect(state().document).toBe(before);
    expect(state().session.arrival).toBeNull();
  });

  test('stopped at any time nothing comes in, also while a file is still being fetched, and the next files are read again', async () => {
    const { arrivals, state } = open();
    const fetched: ImportSource = {
      name: 'fetched.svg',
      size: 10,
      text: async () => {
        arrivals.stop();
        return svg();
      },
    };
    expect(await arrivals.take([source('first.svg'), fetched])).toBe(0);
    expect(names(state())).toEqual([]);
    expect(state().session.messages.map(({ text }) => text)).toEqual(['Reading was stopped. Nothing came in.']);
    expect(state().session.busy).toBeNull();
    expect(await arrivals.take([source('later.svg')])).toBe(1);
  });

  test('a piece that was left meanwhile stays as it is', async () => {
    const { store, arrivals, state } = open();
    const slow: ImportSource = {
      name: 'slow.svg',
      size: 10,
      text: async () => {
        store.dispatch(documentActions.opened({ piece: emptyPiece('other', 'Other'), revision: 1 }));
        return svg();
      },
    };
    expect(await arrivals.take([slow])).toBe(0);
    expect(state().document.piece?.id).toBe('other');
    expect(names(state())).toEqual([]);
  });

  test('what could not be taken of a file is passed on with its name', async () => {
    const { arrivals, state } = open();
    await arrivals.take([source('n.svg', svg('<text>Hi</text><path d="M0 0h9v9z"/>'))]);
    expect(state().session.arrival?.notes.join()).toMatch(/^n\.svg: <text>/);
  });
});
