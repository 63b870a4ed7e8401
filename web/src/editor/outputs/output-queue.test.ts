import type { Piece } from '@core';
import { describe, expect, test } from '@jest/globals';
import { createStore, type FormChoice, type OutputJob } from '../../state';
import { pieceOf } from '../../testing/pieces';
import { OutputQueue, type QueuePorts } from './output-queue';
import { type OutputStore, type StoredOrder, StoreFailure } from './output-store';

const piece = pieceOf(['M0 0H10V10H0Z']);
const SVG: FormChoice = { form: 'animated-svg', options: { digits: '2' }, name: 'SVG' };
const GIF: FormChoice = { form: 'gif', options: {}, name: 'GIF' };
/** Lets everything happen that needs no more than a turn. */
const settle = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 0));
const cancelled = (): Error => Object.assign(new Error('Cancelled.'), { name: 'EngineCancelled' });
type Made = Awaited<ReturnType<QueuePorts['engine']['makeOutput']>>;

/** An engine that answers when it is told to. */
function slowEngine() {
  const asked: {
    forms: string[];
    piece: Piece;
    answer: (made: Made) => void;
    fail: (error: Error) => void;
    tell: (share: number) => void;
  }[] = [];
  const wait = (forms: string[], of: Piece, tell: (share: number) => void): Promise<Made> =>
    new Promise((answer, fail) => asked.push({ forms, piece: of, answer, fail, tell }));
  const engine: QueuePorts['engine'] = {
    makeOutput: (form, of, _options, _proved, tell) => wait([form], of, tell as (share: number) => void),
    makeOutputs: (choices, of, tell) =>
      wait(
        choices.map(({ form }) => form),
        of,
        tell as (share: number) => void,
      ),
    cancel: () => asked[asked.length - 1]?.fail(cancelled()),
  };
  return { engine, asked };
}

const settled = async (): Promise<void> => {
  for (let i = 0; i < 4; i++) await Promise.resolve();
};

/** A store in memory; `fault` is what it throws as long as it is set. */
function storeInMemory() {
  const orders = new Map<string, StoredOrder & { piece: Piece }>();
  const parts = new Map<string, Blob>();
  const state: { fault?: StoreFailure } = {};
  const write = async (change: () => void): Promise<void> => {
    // On its way.
    await Promise.resolve();
    if (state.fault) throw state.fault;
    change();
  };
  const store: OutputStore = {
    list: async () => [...orders.values()].map(({ piece: _, ...order }) => order),
    keepOrder: async (order, of) => {
      // A piece takes longer on its way than a wish.
      await settled();
      await write(() => void orders.set(order.id, { ...order, piece: of, result: null, size: 0, hasPictures: false }));
    },
    keepPart: (id, part, blob) => write(() => void parts.set(`${id}/${part}`, blob)),
    finish: (id, result) =>
      write(() => {
        const size = parts.get(`${id}/file`)?.size ?? 0;
        const order = orders.get(id) as StoredOrder & { piece: Piece };
        orders.set(id, { ...order, result, size, hasPictures: parts.has(`${id}/found`) });
      }),
    remove: (id) => write(() => void orders.delete(id)),
    part: async (id, part) => parts.get(`${id}/${part}`) as Blob,
    piece: async (id) => orders.get(id)?.piece as Piece,
    addressOf: (id, part) => `kept:${id}/${part}`,
  };
  return { store, state, orders };
}

/** Tabs hold jobs one after another, as with the browser's locks. */
function locksOfTabs() {
  const held = new Map<string, { tab: number; next: (() => void)[] }>();
  return {
    holdFor:
      (tab: number) =>
      (id: string): Promise<void> => {
        const lock = held.get(id);
        if (!lock || lock.tab === tab) {
          held.set(id, { tab, next: lock?.next ?? [] });
          return Promise.resolve();
        }
        return new Promise((free) => lock.next.push(free));
      },
    /** A tab is closed. */
    end(tab: number): void {
      for (const [id, lock] of held) {
        if (lock.tab !== tab) continue;
        held.delete(id);
        for (const free of lock.next) free();
      }
    },
  };
}

function queueWith(kept = storeInMemory(), locks = locksOfTabs(), tab = 1) {
  const store = createStore();
  const { engine, asked } = slowEngine();
  const revoked: string[] = [];
  const waits: (() => void)[] = [];
  let ids = 0;
  const queue = new OutputQueue({
    engine,
    store: kept.store,
    hold: locks.holdFor(tab),
    dispatch: store.dispatch,
    freshId: () => `job${tab === 1 ? '' : `${tab}-`}${++ids}`,
    now: () => 7,
    wait: () => new Promise((done) => waits.push(done)),
    urlOf: (blob) => `blob:${blob.size}`,
    revoke: (url) => void revoked.push(url),
    fileName: (extension, name) => `${name}.${extension}`,
  });
  const jobs = (): readonly OutputJob[] => store.getState().outputs.jobs;
  return { queue, jobs, asked, revoked, kept, locks, waits };
}
const made = (text: string, fields: Partial<Made> = {}): Made => ({
  blob: new Blob([text]),
  extension: 'svg',
  ...fields,
});

describe('the queue of outputs', () => {
  test('makes one file after another, tells how far it is, and keeps what was made', async () => {
    const { queue, jobs, asked } = queueWith();
    queue.ask(piece, [SVG], 'Animated SVG');
    queue.ask(piece, [GIF], 'GIF');
    await settle();
    expect(jobs().map(({ state }) => state)).toEqual(['making', 'waiting']);
    asked[0].tell(0.4);
    expect(jobs()[0].share).toBe(0.4);
    asked[0].answer(made('12345', { note: 'Small.' }));
    await settle();
    expect(jobs()[0]).toMatchObject({ state: 'made', size: 5, fileName: 'Test.svg', note: 'Small.', asked: 7 });
    expect(queue.files('job1')?.url).toBe('blob:5');
    expect(asked[1].forms).toEqual(['gif']);
    expect(jobs()[1].state).toBe('making');
  });

  test('what fails says why, and the next is made', async () => {
    const { queue, jobs, asked } = queueWith();
    queue.ask(piece, [SVG], 'A');
    queue.ask(piece, [SVG], 'B');
    await settle();
    asked[0].fail(new Error('No encoder here.'));
    await settle();
    expect(jobs()[0]).toMatchObject({ state: 'failed', problem: 'No encoder here.' });
    expect(queue.files('job1')).toBeUndefined();
    expect(jobs()[1].state).toBe('making');
  });

  test('a job that is being made, and one that waits, can be cancelled: nothing of them is there', async () => {
    const { queue, jobs, asked } = queueWith();
    queue.ask(piece, [SVG], 'A');
    queue.ask(piece, [SVG], 'B');
    queue.ask(piece, [GIF], 'C');
    await settle();
    queue.cancel('job2');
    queue.cancel('job1');
    await settle();
    expect(jobs().map(({ state }) => state)).toEqual(['cancelled', 'cancelled', 'making']);
    expect(asked.map(({ forms }) => forms[0])).toEqual(['animated-svg', 'gif']);
    expect(queue.files('job1')).toBeUndefined();
  });

  test('a share that arrives late changes no other job', async () => {
    const { queue, jobs, asked } = queueWith();
    queue.ask(piece, [SVG], 'A');
    await settle();
    asked[0].answer(made('x'));
    await settle();
    asked[0].tell(0.1);
    expect(jobs()[0].share).toBe(1);
  });

  test('made again: of the piece as it was, or as it is now', async () => {
    const { queue, asked } = queueWith();
    queue.ask(piece, [SVG], 'A');
    await settle();
    asked[0].answer(made('x'));
    await settle();
    await queue.again('job1');
    await settle();
    expect(asked[1].piece).toBe(piece);
    asked[1].answer(made('x'));
    await settle();
    const later = { ...piece, name: 'Later' };
    await queue.again('job1', later);
    await settle();
    expect(asked[2].piece).toBe(later);
    expect(await queue.again('nobody')).toBeNull();
  });

  test('several forms are one file, and a proof is kept without its pictures in the store', async () => {
    const { queue, jobs, asked } = queueWith();
    queue.ask(piece, [SVG, GIF], 'Everything');
    await settle();
    expect(asked[0].forms).toEqual(['animated-svg', 'gif']);
    const worst = { seconds: 1.5, wanted: new Blob(['ab']), found: new Blob(['abc']) };
    const lines = [{ what: 'Size', wanted: '1', found: '2', holds: false }];
    asked[0].answer(made('x', { extension: 'zip', proof: { holds: false, lines, worst } }));
    await settle();
    expect(jobs()[0].proof).toEqual({ holds: false, lines, seconds: 1.5 });
    expect(queue.files('job1')?.worst).toEqual({ wanted: 'blob:2', found: 'blob:3' });
  });

  test('a removed job is gone with its files', async () => {
    const { queue, jobs, asked, revoked } = queueWith();
    queue.ask(piece, [SVG], 'A');
    await settle();
    asked[0].answer(
      made('xyz', {
        proof: { holds: true, lines: [], worst: { seconds: 0, wanted: new Blob(['1']), found: new Blob(['22']) } },
      }),
    );
    await settle();
    queue.remove('job1');
    expect(jobs()).toEqual([]);
    expect(revoked).toEqual(['blob:3', 'blob:1', 'blob:2']);
    expect(queue.files('job1')).toBeUndefined();
  });
});

describe('what outlives the tab', () => {
  const worst = { seconds: 1.5, wanted: new Blob(['ab']), found: new Blob(['abc']) };
  const proof = { holds: true, lines: [], worst };

  test('another tab has the files that were made, with size and proof, and fetches one when it is wanted', async () => {
    const first = queueWith();
    first.queue.ask(piece, [SVG], 'A');
    await settle();
    first.asked[0].answer(made('12345', { note: 'Small.', proof }));
    await settle();
    expect(first.jobs()[0]).toMatchObject({ kept: true, unkept: '' });
    const second = queueWith(first.kept, first.locks, 2);
    await second.queue.takeUp();
    const [job] = second.jobs();
    expect(job).toEqual({ ...first.jobs()[0], kept: true });
    expect(second.queue.files('job1')).toEqual({
      blob: null,
      url: 'kept:job1/file',
      worst: { wanted: 'kept:job1/wanted', found: 'kept:job1/found' },
    });
    const open = await second.queue.open('job1');
    expect(await open?.blob.text()).toBe('12345');
    expect(second.queue.files('job1')).toBe(open);
    expect(await second.queue.open('nobody')).toBeUndefined();
  });

  test('what a tab was at when it ended is made by the next, of the piece as it was; one that is still there is left to it', async () => {
    const first = queueWith();
    first.queue.ask(piece, [SVG], 'A');
    first.queue.ask({ ...piece, name: 'Second' }, [GIF], 'B');
    await settle();
    const second = queueWith(first.kept, first.locks, 2);
    await second.queue.takeUp();
    await settle();
    expect(second.jobs().map(({ state }) => state)).toEqual(['elsewhere', 'elsewhere']);
    expect(second.asked).toHaveLength(0);
    first.asked[0].answer(made('1'));
    await settle();
    first.locks.end(1);
    await settle();
    expect(second.jobs().map(({ state, fileName }) => [state, fileName])).toEqual([
      ['made', 'Test.svg'],
      ['making', ''],
    ]);
    expect(second.asked.map(({ forms, piece: of }) => [forms[0], of.name])).toEqual([['gif', 'Second']]);
  });

  test('what was thrown away in one tab is no job of the next', async () => {
    const first = queueWith();
    first.queue.ask(piece, [SVG], 'A');
    await settle();
    const second = queueWith(first.kept, first.locks, 2);
    await second.queue.takeUp();
    first.queue.remove('job1');
    await settle();
    first.locks.end(1);
    await settle();
    expect(second.jobs()).toEqual([]);
    expect([...first.kept.orders]).toEqual([]);
  });

  test('what is thrown away while it is on its way to the server is not kept', async () => {
    const { queue, kept, asked } = queueWith();
    queue.ask(piece, [SVG], 'A');
    queue.remove('job1');
    await settle();
    expect([...kept.orders]).toEqual([]);
    expect(asked).toHaveLength(0);
  });

  test('where the server does not answer, a job says so, and is kept as soon as it does', async () => {
    const { queue, jobs, asked, kept, waits } = queueWith();
    kept.state.fault = new StoreFailure('The server does not answer.', true);
    queue.ask(piece, [SVG], 'A');
    await settle();
    asked[0].answer(made('12345'));
    await settle();
    expect(jobs()[0]).toMatchObject({ state: 'made', kept: false, unkept: 'The server does not answer.' });
    kept.state.fault = undefined;
    waits[0]();
    await settle();
    expect(jobs()[0]).toMatchObject({ state: 'made', kept: true, unkept: '' });
    expect(kept.orders.get('job1')).toMatchObject({ size: 5, result: { state: 'made', fileName: 'Test.svg' } });
  });

  test('what the server refuses for good is not tried again, and stays in the tab with the reason', async () => {
    const { queue, jobs, asked, kept, waits } = queueWith();
    queue.ask(piece, [SVG], 'A');
    await settle();
    kept.state.fault = new StoreFailure('Expected a body of at most 256 MB.', false);
    asked[0].answer(made('12345'));
    await settle();
    expect(jobs()[0]).toMatchObject({ state: 'made', kept: false, unkept: 'Expected a body of at most 256 MB.' });
    expect(waits).toHaveLength(0);
    expect(queue.files('job1')?.url).toBe('blob:5');
  });

  test('asked twice, what is kept is taken up once', async () => {
    const first = queueWith();
    first.queue.ask(piece, [SVG], 'A');
    await settle();
    const second = queueWith(first.kept, first.locks, 2);
    await Promise.all([second.queue.takeUp(), second.queue.takeUp()]);
    expect(second.jobs()).toHaveLength(1);
  });
});
