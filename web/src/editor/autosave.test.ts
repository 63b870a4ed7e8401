import { type Piece, readPieceFile } from '@core';
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { changePiece, createStore, documentActions, type RootState } from '../state';
import { pieceOf } from '../testing/pieces';
import { type Autosave, readBackup, startAutosave, unsavedBackup } from './autosave';

const memory = new Map<string, string>();
const puts: { piece: Piece; revision: number }[] = [];
let answer: (body: { piece: Piece; revision: number }) => Response;
let autosave: Autosave | undefined;

const json = (status: number, body: object): Response =>
  new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } });
const accepted = ({ piece, revision }: { piece: Piece; revision: number }): Response =>
  json(200, { id: piece.id, name: piece.name, revision: revision + 1, createdAt: '', updatedAt: '' });

beforeEach(() => {
  memory.clear();
  puts.length = 0;
  answer = accepted;
  Object.assign(globalThis, {
    localStorage: {
      getItem: (key: string) => memory.get(key) ?? null,
      setItem: (key: string, value: string) => void memory.set(key, value),
      removeItem: (key: string) => void memory.delete(key),
    },
    fetch: async (request: Request) => {
      const body = JSON.parse(await request.text());
      puts.push(body);
      return answer(body);
    },
    Request: class extends Request {
      constructor(input: string, init?: RequestInit) {
        super(new URL(input, 'http://127.0.0.1'), init);
      }
    },
  });
});
afterEach(() => {
  autosave?.stop();
});

const check = async (text: string): Promise<Piece> => readPieceFile(text);
const pass = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));
const open = () => {
  const store = createStore();
  store.dispatch(documentActions.opened({ piece: pieceOf(['M0 0H10V10H0Z']), revision: 4 }));
  autosave = startAutosave(store, false);
  const state = () => store.getState() as RootState;
  const rename = (name: string): void =>
    void store.dispatch(changePiece(`Rename to ${name}`, (draft) => void (draft.name = name)));
  return { store, state, rename, save: () => state().session.save };
};

describe('autosave', () => {
  test('waits for a quiet moment, then saves once, on the revision it knows', async () => {
    const { rename, save, state } = open();
    for (const name of ['A', 'B', 'C']) rename(name);
    expect([save(), puts.length]).toEqual(['unsaved', 0]);
    await pass(900);
    expect(puts.map(({ piece, revision }) => [piece.name, revision])).toEqual([['C', 4]]);
    expect([save(), state().document.revision]).toEqual(['saved', 5]);
    rename('D');
    await pass(900);
    expect(puts[1].revision).toBe(5);
  });

  test('keeps a copy in the browser until the server has it, and tries again', async () => {
    const { rename, save } = open();
    answer = () => {
      throw new TypeError('no connection');
    };
    // Changes at the display's rate are copied once.
    let copies = 0;
    const { setItem } = localStorage;
    localStorage.setItem = (key, value) => {
      copies++;
      setItem.call(localStorage, key, value);
    };
    for (let i = 0; i < 40; i++) rename(`Name ${i}`);
    rename('Kept');
    await pass(300);
    expect([readBackup('test')?.piece.name, copies]).toEqual(['Kept', 1]);
    await pass(600);
    expect(save()).toBe('offline');
    answer = accepted;
    await pass(1_500);
    expect([save(), readBackup('test')]).toEqual(['saved', undefined]);
  });

  test('a stale write stops it until the user has chosen', async () => {
    const { rename, save, state } = open();
    const theirs = { ...pieceOf(['M0 0H10V10H0Z']), name: 'Theirs' };
    answer = () =>
      json(409, {
        code: 'piece-stale',
        status: 409,
        detail: '',
        newer: { id: 'test', name: 'Theirs', revision: 9, piece: theirs },
      });
    rename('Mine');
    await pass(900);
    expect(save()).toBe('conflict');
    rename('Mine too');
    await pass(1_500);
    expect(puts).toHaveLength(1);
    answer = accepted;
    autosave?.resolve('mine');
    await pass(500);
    expect(puts.at(-1)).toMatchObject({ revision: 9, piece: { name: 'Mine too' } });
    expect([save(), state().document.revision]).toEqual(['saved', 10]);
  });

  test('taking the other version shows it and saves nothing', async () => {
    const { rename, save, state } = open();
    const theirs = { ...pieceOf(['M0 0H10V10H0Z']), name: 'Theirs' };
    answer = () =>
      json(409, {
        code: 'piece-stale',
        status: 409,
        detail: '',
        newer: { id: 'test', name: 'Theirs', revision: 9, piece: theirs },
      });
    rename('Mine');
    await pass(900);
    autosave?.resolve('theirs');
    await pass(1_000);
    expect([state().document.piece?.name, state().document.revision, save(), puts.length]).toEqual([
      'Theirs',
      9,
      'saved',
      1,
    ]);
    expect(readBackup('test')).toBeUndefined();
  });

  test('a change during saving is saved after it', async () => {
    const { rename, save, store } = open();
    answer = (body) => {
      if (body.piece.name === 'First') store.dispatch(changePiece('Rename', (draft) => void (draft.name = 'Second')));
      return accepted(body);
    };
    rename('First');
    await pass(2_000);
    expect(puts.map(({ piece }) => piece.name)).toEqual(['First', 'Second']);
    expect(save()).toBe('saved');
  });

  test('opening a piece saves nothing; leaving one saves what is left', async () => {
    const { rename } = open();
    await pass(1_000);
    expect(puts).toHaveLength(0);
    rename('Last words');
    autosave?.stop();
    await pass(500);
    expect(puts.map(({ piece }) => piece.name)).toEqual(['Last words']);
  });

  test('a write of this browser that was still on its way is no change from elsewhere', async () => {
    const { rename, save, state } = open();
    answer = ({ piece }) =>
      json(409, { code: 'piece-stale', status: 409, detail: '', newer: { id: 'test', name: '', revision: 5, piece } });
    rename('Same');
    await pass(900);
    expect([save(), state().document.revision, readBackup('test')]).toEqual(['saved', 5, undefined]);
  });

  test('a copy that equals what the server has is taken away; another one is not', async () => {
    const piece = pieceOf(['M0 0H10V10H0Z']);
    memory.set('arcshift.unsaved.test', JSON.stringify({ piece, revision: 3 }));
    expect(await unsavedBackup({ ...piece, name: 'Another' }, check)).toEqual({ piece, revision: 3 });
    expect(await unsavedBackup(piece, check)).toBeUndefined();
    expect(memory.size).toBe(0);
  });

  test('a copy that an older program left is brought up to date; one that is no piece is left aside', async () => {
    const piece = pieceOf(['M0 0H10V10H0Z', 'M0 0H20V10H0Z']);
    const old = JSON.parse(JSON.stringify({ ...piece, version: 4, name: 'Mine' }));
    for (const shift of Object.values<{ match: Record<string, unknown> }>(old.shifts)) {
      delete shift.match.directions;
      delete shift.match.turns;
    }
    memory.set('arcshift.unsaved.test', JSON.stringify({ piece: old, revision: 3 }));
    expect((await unsavedBackup(piece, check))?.piece).toEqual({ ...piece, name: 'Mine' });
    memory.set('arcshift.unsaved.test', JSON.stringify({ piece: { ...old, shifts: 7 }, revision: 3 }));
    expect(await unsavedBackup(piece, check)).toBeUndefined();
    expect(memory.size).toBe(1);
  });

  test('a torn copy in the browser is no copy', () => {
    memory.set('arcshift.unsaved.test', '{"piece":');
    expect(readBackup('test')).toBeUndefined();
  });
});
