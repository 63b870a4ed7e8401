import type { Piece } from '@core';
import { describe, expect, test } from '@jest/globals';
import { createStore, type OutputJob } from '../../state';
import { pieceOf } from '../../testing/pieces';
import { type NamedChoice, OutputQueue, type QueuePorts } from './output-queue';

const piece = pieceOf(['M0 0H10V10H0Z']);
const SVG: NamedChoice = { form: 'animated-svg', options: { digits: '2' }, name: 'SVG' };
const GIF: NamedChoice = { form: 'gif', options: {}, name: 'GIF' };
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
    cancel: () => asked[asked.length - 1].fail(cancelled()),
  };
  return { engine, asked };
}

function queueWith() {
  const store = createStore();
  const { engine, asked } = slowEngine();
  const revoked: string[] = [];
  let ids = 0;
  const queue = new OutputQueue({
    engine,
    dispatch: store.dispatch,
    freshId: () => `job${++ids}`,
    now: () => 7,
    urlOf: (blob) => `blob:${blob.size}`,
    revoke: (url) => void revoked.push(url),
    fileName: (extension, name) => `${name}.${extension}`,
  });
  const jobs = (): readonly OutputJob[] => store.getState().outputs.jobs;
  return { queue, jobs, asked, revoked };
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
    asked[0].answer(made('x'));
    await settle();
    asked[0].tell(0.1);
    expect(jobs()[0].share).toBe(1);
  });

  test('made again: of the piece as it was, or as it is now', async () => {
    const { queue, asked } = queueWith();
    queue.ask(piece, [SVG], 'A');
    asked[0].answer(made('x'));
    await settle();
    queue.again('job1');
    expect(asked[1].piece).toBe(piece);
    asked[1].answer(made('x'));
    await settle();
    const later = { ...piece, name: 'Later' };
    queue.again('job1', later);
    expect(asked[2].piece).toBe(later);
    expect(queue.again('nobody')).toBeNull();
  });

  test('several forms are one file, and a proof is kept without its pictures in the store', async () => {
    const { queue, jobs, asked } = queueWith();
    queue.ask(piece, [SVG, GIF], 'Everything');
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
