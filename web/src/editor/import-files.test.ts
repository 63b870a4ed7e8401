import { emptyPiece, poseFromSvg, readSvg, stopsOf } from '@core';
import { beforeEach, describe, expect, test } from '@jest/globals';
import { createStore, documentActions, type RootState } from '../state';
import type { EngineClient } from '../workers';
import { type ImportSource, importFiles } from './import-files';

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
  importSvg: async (text: string, name: string) => {
    const reading = readSvg(text);
    return { added: poseFromSvg(reading, name, (prefix) => `${prefix}${++ids}`), notes: reading.notes };
  },
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
  return { store, state: () => store.getState() as RootState };
};
const names = (state: RootState): string[] => {
  const { piece } = state.document;
  const figure = piece?.figures[piece.figureOrder[0]];
  return piece && figure ? stopsOf(piece, figure).map((id) => piece.poses[id].name) : [];
};

describe('bringing files in', () => {
  test('makes a figure, and of each file a pose named after it, as one step', async () => {
    const { store, state } = open();
    expect(await importFiles(store, engine, [source('ferry-sign.svg'), source('two_words.SVG')])).toBe(2);
    expect(names(state())).toEqual(['ferry sign', 'two words']);
    expect(state().document.past.map(({ name }) => name)).toEqual(['Add 2 poses']);
    expect(state().session.arrival?.poseIds).toHaveLength(2);
    expect(state().session.busy).toBeNull();
  });

  test('goes where it was dropped', async () => {
    const { store, state } = open();
    await importFiles(store, engine, [source('a.svg'), source('b.svg')]);
    await importFiles(store, engine, [source('c.svg')], 1);
    expect(names(state())).toEqual(['a', 'c', 'b']);
  });

  test('uses the rule that was chosen last', async () => {
    const { store, state } = open();
    memory.set('arcshift.placement-rule', JSON.stringify({ centre: 'box', fit: 'area' }));
    await importFiles(store, engine, [source('a.svg')]);
    expect(Object.values(state().document.piece?.poses ?? {})[0].placement.rule).toEqual({
      centre: 'box',
      fit: 'area',
      to: 'first',
    });
    memory.set('arcshift.placement-rule', 'torn {');
    await importFiles(store, engine, [source('b.svg')]);
    expect(Object.values(state().document.piece?.poses ?? {})[1].placement.rule?.centre).toBe('area');
  });

  test('of several files the readable ones come in; the others are told one by one', async () => {
    const { store, state } = open();
    expect(
      await importFiles(store, engine, [source('a.svg'), source('bad.svg', 'x'), source('big.svg', svg(), 9e6)]),
    ).toBe(1);
    const [message] = state().session.messages;
    expect(message.tone).toBe('error');
    expect(message.details).toHaveLength(2);
    expect(message.details?.join()).toMatch(/bad\.svg.*big\.svg: Expected a file of at most 8 MB/);
  });

  test('nothing readable changes nothing', async () => {
    const { store, state } = open();
    const before = state().document;
    expect(await importFiles(store, engine, [source('bad.svg', '<svg')])).toBe(0);
    expect(state().document).toBe(before);
    expect(state().session.arrival).toBeNull();
  });

  test('a piece that was left meanwhile stays as it is', async () => {
    const { store, state } = open();
    const slow: ImportSource = {
      name: 'slow.svg',
      size: 10,
      text: async () => {
        store.dispatch(documentActions.opened({ piece: emptyPiece('other', 'Other'), revision: 1 }));
        return svg();
      },
    };
    expect(await importFiles(store, engine, [slow])).toBe(0);
    expect(state().document.piece?.id).toBe('other');
    expect(names(state())).toEqual([]);
  });

  test('what could not be taken of a file is passed on with its name', async () => {
    const { store, state } = open();
    await importFiles(store, engine, [source('n.svg', svg('<text>Hi</text><path d="M0 0h9v9z"/>'))]);
    expect(state().session.arrival?.notes.join()).toMatch(/^n\.svg: <text>/);
  });
});
