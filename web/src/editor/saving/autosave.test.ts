import { type Piece, readPieceFile } from '@core';
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { IDBFactory } from 'fake-indexeddb';
import { changePiece, createStore, documentActions, type RootState } from '../../state';
import { pieceOf } from '../../testing/pieces';
import type { Autosave } from './autosave';
import { SavingDesk } from './desk';

const puts: { piece: Piece; revision: number }[] = [];
let answer: (body: { piece: Piece; revision: number }, request: Request) => Response;
let autosave: Autosave | undefined;
let factory: IDBFactory;

const json = (status: number, body: object): Response =>
  new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } });
const accepted = ({ piece, revision }: { piece: Piece; revision: number }): Response =>
  json(200, { id: piece.id, name: piece.name, revision: revision + 1, createdAt: '', updatedAt: '' });

beforeEach(() => {
  puts.length = 0;
  answer = accepted;
  factory = new IDBFactory();
  Object.assign(globalThis, {
    fetch: async (request: Request) => {
      const text = await request.text();
      const body = text === '' ? {} : JSON.parse(text);
      if (request.method === 'PUT') puts.push(body);
      return answer(body, request);
    },
    Request: class extends Request {
      constructor(input: string, init?: RequestInit) {
        super(new URL(input, 'http://127.0.0.1'), init);
      }
    },
  });
});
afterEach(() => autosave?.stop());

const check = async (text: string): Promise<Piece> => readPieceFile(text);
const pass = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));
/** A desk as another tab of this browser has it; `live` are the tabs that are open. */
const deskOf = (
  tab: string,
  live: readonly string[] = [tab],
  storage?: Storage,
  channel?: BroadcastChannel,
): SavingDesk =>
  new SavingDesk({
    factory,
    tab,
    storage,
    now: Date.now,
    pace: { quiet: 150, copy: 50, retry: [250, 500], look: 100 },
    channel,
    locks: {
      request: async () => {},
      query: async () => ({ held: live.map((name) => ({ name: `arcshift-tab-${name}` })) }),
    } as unknown as LockManager,
  });
const open = (desk = deskOf('here')) => {
  const store = createStore();
  store.dispatch(documentActions.opened({ piece: pieceOf(['M0 0H10V10H0Z']), revision: 4 }));
  autosave = desk.open(store, false);
  const state = () => store.getState() as RootState;
  const rename = (name: string): void =>
    void store.dispatch(changePiece(`Rename to ${name}`, (draft) => void (draft.name = name)));
  const kept = async (): Promise<string[]> => (await desk.copies.all()).map(({ name }) => name);
  return { store, state, rename, kept, desk, save: () => state().session.save };
};
const theirs = { ...pieceOf(['M0 0H10V10H0Z']), name: 'Theirs' };
const stale = (): Response =>
  json(409, {
    code: 'piece-stale',
    status: 409,
    detail: '',
    newer: { id: 'test', name: 'Theirs', revision: 9, piece: theirs },
  });
const away = (): Response => {
  throw new TypeError('no connection');
};

describe('autosave', () => {
  test('waits for a quiet moment, then saves once, on the revision it knows', async () => {
    const { rename, save, state } = open();
    for (const name of ['A', 'B', 'C']) rename(name);
    expect([save(), puts.length]).toEqual(['unsaved', 0]);
    await pass(225);
    expect(puts.map(({ piece, revision }) => [piece.name, revision])).toEqual([['C', 4]]);
    expect([save(), state().document.revision]).toEqual(['saved', 5]);
    rename('D');
    await pass(225);
    expect(puts[1].revision).toBe(5);
    // A day's saves would be kept with all that was sent.
    expect(state().api.mutations).toEqual({});
  });

  test('keeps a copy in the browser until the server has it, and tries again', async () => {
    const { rename, save, kept, desk } = open();
    answer = away;
    let copies = 0;
    const { keep } = desk.copies;
    desk.copies.keep = (copy) => {
      copies++;
      return keep.call(desk.copies, copy);
    };
    // Changes at the display's rate are copied now and then, the last one in any case.
    for (let i = 0; i < 40; i++) rename(`Name ${i}`);
    rename('Kept');
    await pass(100);
    expect([await kept(), copies <= 2]).toEqual([['Kept'], true]);
    await pass(150);
    expect(save()).toBe('offline');
    answer = accepted;
    await pass(375);
    expect([save(), await kept()]).toEqual(['saved', []]);
  });

  test('a stale write stops it until the user has chosen', async () => {
    const { rename, save, state } = open();
    answer = stale;
    rename('Mine');
    await pass(225);
    expect(save()).toBe('conflict');
    rename('Mine too');
    await pass(375);
    expect(puts).toHaveLength(1);
    answer = accepted;
    autosave?.resolve('mine');
    await pass(125);
    expect(puts.at(-1)).toMatchObject({ revision: 9, piece: { name: 'Mine too' } });
    expect([save(), state().document.revision]).toEqual(['saved', 10]);
  });

  test('taking the other version shows it and saves nothing', async () => {
    const { rename, save, state, kept } = open();
    answer = stale;
    rename('Mine');
    await pass(225);
    expect(await kept()).toEqual(['Mine']);
    autosave?.resolve('theirs');
    await pass(250);
    expect([state().document.piece?.name, state().document.revision, save(), puts.length]).toEqual([
      'Theirs',
      9,
      'saved',
      1,
    ]);
    expect(await kept()).toEqual([]);
  });

  test('taking the other version can be undone, and what gave way is kept', async () => {
    const { rename, store, state, desk } = open();
    answer = stale;
    rename('Mine');
    await pass(225);
    autosave?.resolve('theirs');
    expect((await desk.givenWay.of('test')).map(({ made, text }) => [made, JSON.parse(text).name])).toEqual([
      ['here', 'Mine'],
    ]);
    answer = accepted;
    store.dispatch(documentActions.undone());
    expect([state().document.piece?.name, state().document.revision]).toEqual(['Mine', 9]);
    await pass(225);
    expect(puts.at(-1)).toMatchObject({ revision: 9, piece: { name: 'Mine' } });
  });

  test('keeping one’s own version keeps the other for thirty days, and no longer', async () => {
    const { rename, desk } = open();
    answer = stale;
    rename('Mine');
    await pass(225);
    answer = accepted;
    autosave?.resolve('mine');
    await pass(50);
    expect((await desk.givenWay.of('test')).map(({ made }) => made)).toEqual(['elsewhere']);
    const later = new SavingDesk({
      factory,
      tab: 'later',
      locks: undefined,
      storage: undefined,
      now: () => Date.now() + 31 * 24 * 60 * 60 * 1000,
    });
    expect(await later.givenWay.of('test')).toEqual([]);
    expect(await desk.givenWay.of('test')).toEqual([]);
  });

  test('a tab learns at once that another one has saved', async () => {
    const [ours, other] = [new BroadcastChannel('saves'), new BroadcastChannel('saves')];
    const { save } = open(deskOf('here', ['here'], undefined, ours));
    answer = (_body, request) =>
      request.method === 'GET'
        ? json(200, { id: 'test', name: 'Theirs', revision: 9, piece: theirs, createdAt: '', updatedAt: '' })
        : json(500, {});
    other.postMessage({ pieceId: 'another', revision: 12 });
    other.postMessage({ pieceId: 'test', revision: 4 });
    await pass(60);
    expect(save()).toBe('saved');
    other.postMessage({ pieceId: 'test', revision: 9 });
    await pass(100);
    expect([save(), autosave?.newer()?.revision]).toEqual(['conflict', 9]);
    for (const channel of [ours, other]) channel.close();
  });

  test('a copy that the browser has cleared away is made anew', async () => {
    const { rename, kept, desk } = open();
    answer = away;
    rename('Kept');
    await pass(120);
    expect(await kept()).toEqual(['Kept']);
    await desk.copies.drop('test/here');
    await pass(200);
    expect(await kept()).toEqual(['Kept']);
  });

  test('steps outlive the page: undone and redone from just the state that they were kept of, and from no other', async () => {
    const { rename, store, state, desk } = open();
    for (const name of ['A', 'B', 'C']) rename(name);
    store.dispatch(documentActions.undone());
    const left = state().document.piece as Piece;
    await autosave?.stop();
    await pass(50);
    const { past, future } = await desk.steps.of(JSON.parse(JSON.stringify(left)));
    expect([past, future].map((steps) => steps.map(({ name }) => name))).toEqual([
      ['Rename to A', 'Rename to B'],
      ['Rename to C'],
    ]);
    const next = createStore();
    next.dispatch(documentActions.opened({ piece: left, revision: 5, past, future }));
    const nameNow = (): string | undefined => (next.getState() as RootState).document.piece?.name;
    next.dispatch(documentActions.undone());
    expect(nameNow()).toBe('A');
    next.dispatch(documentActions.redone());
    next.dispatch(documentActions.redone());
    expect(nameNow()).toBe('C');
    expect(await desk.steps.of({ ...left, name: 'Another' })).toEqual({ past: [], future: [] });
  });

  test('a change during saving is saved after it', async () => {
    const { rename, save, store } = open();
    answer = (body) => {
      if (body.piece.name === 'First') store.dispatch(changePiece('Rename', (draft) => void (draft.name = 'Second')));
      return accepted(body);
    };
    rename('First');
    await pass(500);
    expect(puts.map(({ piece }) => piece.name)).toEqual(['First', 'Second']);
    expect(save()).toBe('saved');
  });

  test('opening a piece saves nothing; leaving one saves what is left', async () => {
    const { rename } = open();
    await pass(250);
    expect(puts).toHaveLength(0);
    rename('Last words');
    autosave?.stop();
    await pass(125);
    expect(puts.map(({ piece }) => piece.name)).toEqual(['Last words']);
  });

  test('a save whose answer was lost is no conflict with oneself, though more was changed meanwhile', async () => {
    const { rename, save, state, kept } = open();
    let stored: Piece | undefined;
    answer = (body) => {
      if (!stored) {
        stored = body.piece;
        return away();
      }
      if (body.revision === 4)
        return json(409, {
          code: 'piece-stale',
          status: 409,
          detail: '',
          newer: { id: 'test', name: '', revision: 5, piece: stored },
        });
      return accepted(body);
    };
    rename('Arrived');
    await pass(175);
    expect(save()).toBe('offline');
    rename('More');
    await pass(625);
    expect(puts.map(({ piece, revision }) => [piece.name, revision])).toEqual([
      ['Arrived', 4],
      ['More', 4],
      ['More', 5],
    ]);
    expect([save(), state().document.revision, await kept()]).toEqual(['saved', 6, []]);
  });

  test('what the server refuses is said, kept, not sent again unchanged, and saved when it is mended', async () => {
    const { rename, save, state, kept } = open();
    answer = () => json(422, { code: 'piece-invalid', status: 422, detail: 'Too much of it.' });
    rename('Refused');
    await pass(625);
    expect([save(), state().session.saveProblem, puts.length, await kept()]).toEqual([
      'refused',
      'Too much of it.',
      1,
      ['Refused'],
    ]);
    answer = accepted;
    rename('Mended');
    await pass(225);
    expect([save(), state().session.saveProblem, await kept()]).toEqual(['saved', null, []]);
  });

  test('a server that is full is tried again, with its reason', async () => {
    const { rename, save, state } = open();
    answer = () => json(507, { code: 'storage-full', status: 507, detail: 'The disk is full.' });
    rename('Waiting');
    await pass(200);
    expect([save(), state().session.saveProblem]).toEqual(['offline', 'The disk is full.']);
    answer = accepted;
    await pass(375);
    expect([save(), state().session.saveProblem]).toEqual(['saved', null]);
  });

  test('a piece that was deleted elsewhere stays here until it is brought back', async () => {
    const { rename, save, state, kept } = open();
    answer = () => json(404, { code: 'not-found', status: 404, detail: '' });
    rename('Orphan');
    await pass(225);
    rename('Orphan too');
    await pass(225);
    expect([save(), puts.length, await kept()]).toEqual(['gone', 1, ['Orphan too']]);
    // In the bin it is not any more, so it is made anew.
    answer = (_body, request) =>
      request.url.endsWith('/restore')
        ? json(404, { code: 'not-found', status: 404, detail: '' })
        : json(201, { id: 'test', name: 'Orphan too', revision: 1, createdAt: '', updatedAt: '' });
    await autosave?.bringBack();
    await pass(50);
    expect([save(), state().document.revision, await kept()]).toEqual(['saved', 1, []]);
  });

  test('where no copy can be kept it knows that something is at risk', async () => {
    factory = {
      open: () => {
        throw new Error('no databases here');
      },
    } as unknown as IDBFactory;
    const { rename } = open();
    answer = away;
    expect(autosave?.atRisk()).toBe(false);
    rename('Nowhere');
    await pass(200);
    expect(autosave?.atRisk()).toBe(true);
    answer = accepted;
    await pass(375);
    expect(autosave?.atRisk()).toBe(false);
  });
});

describe('copies that tabs have left', () => {
  test('two tabs that were offline each leave one; both are found, the latest first', async () => {
    for (const tab of ['first', 'second']) {
      const { rename } = open(deskOf(tab));
      answer = away;
      rename(`Of the ${tab}`);
      await autosave?.stop();
      await pass(5);
    }
    const found = await deskOf('third').leftOf('test', theirs, check);
    expect(found.map(({ copy, piece }) => [copy.tab, copy.revision, piece?.name])).toEqual([
      ['second', 4, 'Of the second'],
      ['first', 4, 'Of the first'],
    ]);
    // One that is still open looks after its own.
    const others = await deskOf('third', ['third', 'second']).leftOf('test', theirs, check);
    expect(others.map(({ copy }) => copy.tab)).toEqual(['first']);
  });

  test('of a tab that was in conflict while another saved is kept', async () => {
    const { rename } = open(deskOf('loser'));
    answer = stale;
    rename('Mine');
    await pass(225);
    await autosave?.stop();
    const winner = open(deskOf('winner'));
    answer = accepted;
    winner.rename('Won');
    await pass(225);
    expect((await deskOf('next').leftOf('test', theirs, check)).map(({ piece }) => piece?.name)).toEqual(['Mine']);
  });

  test('one that equals what the server has is taken away; one that goes to another tab is never gone', async () => {
    const { rename, desk, state } = open(deskOf('old'));
    answer = away;
    rename('Arrived after all');
    const piece = state().document.piece as Piece;
    await autosave?.stop();
    const [copy] = await desk.copies.all();
    await desk.copies.hand(copy, 'new');
    expect((await desk.copies.all()).map(({ key }) => key)).toEqual(['test/new']);
    expect(await deskOf('new').leftOf('test', piece, check)).toEqual([]);
    expect(await desk.copies.all()).toEqual([]);
  });

  test('what an older program left is taken over and brought up to date; a torn one stays where it is', async () => {
    const piece = pieceOf(['M0 0H10V10H0Z', 'M0 0H20V10H0Z']);
    const old = JSON.parse(JSON.stringify({ ...piece, version: 4, name: 'Mine' }));
    for (const shift of Object.values<{ match: Record<string, unknown> }>(old.shifts)) {
      delete shift.match.directions;
      delete shift.match.turns;
    }
    const memory = new Map([
      ['arcshift.unsaved.test', JSON.stringify({ piece: old, revision: 3 })],
      ['arcshift.unsaved.torn', '{"piece":'],
      ['arcshift.theme', '"dark"'],
    ]);
    const storage = {
      get length() {
        return memory.size;
      },
      key: (i: number) => [...memory.keys()][i] ?? null,
      getItem: (key: string) => memory.get(key) ?? null,
      removeItem: (key: string) => void memory.delete(key),
    } as Storage;
    const [left] = await deskOf('here', ['here'], storage).leftOf('test', piece, check);
    expect([left.piece, left.copy.revision, left.copy.at]).toEqual([{ ...piece, name: 'Mine' }, 3, null]);
    expect([...memory.keys()]).toEqual(['arcshift.unsaved.torn', 'arcshift.theme']);
  });

  test('one that cannot be read is told apart and not removed', async () => {
    const desk = deskOf('here');
    const copy = {
      key: 'test/x',
      pieceId: 'test',
      tab: 'x',
      name: 'Spoiled',
      revision: 2,
      at: 1,
      text: '{"format":7}',
    };
    await desk.copies.keep(copy);
    expect(await desk.leftOf('test', theirs, check)).toEqual([{ copy, piece: null }]);
    expect(await desk.copies.all()).toHaveLength(1);
  });
});
