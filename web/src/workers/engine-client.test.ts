import { AUTOMATIC_MATCH, CoreError, type ShiftInput } from '@core';
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import * as Comlink from 'comlink';
import { EngineCancelled, type EngineClient, EngineDied, startEngine } from './engine-client';

/** A worker in this process: a message port behind which a stand-in engine works. */
class PortWorker {
  static made = 0;
  static ended = 0;
  static readonly all: PortWorker[] = [];
  private readonly channel = new MessageChannel();

  constructor() {
    PortWorker.made++;
    PortWorker.all.push(this);
    Comlink.expose(standIn, this.channel.port2);
    this.channel.port2.start();
    this.channel.port1.start();
  }
  postMessage(message: unknown, transfer: Transferable[] = []): void {
    this.channel.port1.postMessage(message, transfer);
  }
  private onError: (event: { message: string }) => void = () => {};
  addEventListener(type: 'message' | 'error', listener: (event: never) => void): void {
    if (type === 'error') this.onError = listener as (event: { message: string }) => void;
    else this.channel.port1.addEventListener(type, listener as (event: MessageEvent) => void);
  }
  /** Ends by itself, as when memory runs out. */
  die(message: string): void {
    this.onError({ message });
  }
  removeEventListener(type: 'message', listener: (event: MessageEvent) => void): void {
    this.channel.port1.removeEventListener(type, listener);
  }
  terminate(): void {
    PortWorker.ended++;
    this.close();
  }
  close(): void {
    this.channel.port1.close();
  }
}

/** Answers as the engine does: with `ok`, or with a refusal as plain data. */
const standIn = {
  checkFont: async (bytes: ArrayBuffer) =>
    bytes.byteLength > 0
      ? { ok: `Font of ${bytes.byteLength} bytes` }
      : { refusal: { code: 'font-invalid', message: 'Expected a font; found nothing.', where: 'font' } },
  planShift: async (input: ShiftInput, onProgress?: (share: number) => void) => {
    onProgress?.(0.25);
    onProgress?.(0.5);
    // What is told arrives before the answer does.
    await new Promise((resolve) => setTimeout(resolve, 20));
    // One that takes for ever.
    if (input.method === 'turning') await new Promise(() => {});
    return { ok: { parts: [], reasons: [], health: { verdict: 'good' } } };
  },
};

const INPUT: ShiftInput = {
  from: { placement: { x: 0, y: 0, scaleX: 1, scaleY: 1, rotation: 0, rule: null }, parts: [] },
  to: { placement: { x: 0, y: 0, scaleX: 1, scaleY: 1, rotation: 0, rule: null }, parts: [] },
  pairs: [],
  method: 'auto',
  match: AUTOMATIC_MATCH,
};
let client: EngineClient;

beforeEach(() => {
  PortWorker.made = 0;
  PortWorker.ended = 0;
  Object.assign(globalThis, { Worker: PortWorker });
  client = startEngine();
});
afterEach(() => {
  client.cancel();
  for (const worker of PortWorker.all.splice(0)) worker.close();
  Object.assign(globalThis, { Worker: undefined });
});

test('a worker is started at the first call, and serves the next ones', async () => {
  expect(PortWorker.made).toBe(0);
  expect(await client.checkFont(new ArrayBuffer(7))).toBe('Font of 7 bytes');
  expect(await client.checkFont(new ArrayBuffer(9))).toBe('Font of 9 bytes');
  expect(PortWorker.made).toBe(1);
});

test('a refusal becomes an error again, with its code and place', async () => {
  const refused = client.checkFont(new ArrayBuffer(0));
  await expect(refused).rejects.toBeInstanceOf(CoreError);
  await expect(refused).rejects.toMatchObject({ code: 'font-invalid', where: 'font' });
});

test('functions are called back over the border', async () => {
  const told: number[] = [];
  await client.planShift(INPUT, (share) => void told.push(share));
  expect(told).toEqual([0.25, 0.5]);
});

test('cancelling ends the call under way and the worker; the next call starts another', async () => {
  const waiting = client.planShift({ ...INPUT, method: 'turning' });
  await new Promise((resolve) => setTimeout(resolve, 20));
  client.cancel();
  await expect(waiting).rejects.toBeInstanceOf(EngineCancelled);
  expect(PortWorker.ended).toBe(1);
  expect(await client.checkFont(new ArrayBuffer(3))).toBe('Font of 3 bytes');
  expect(PortWorker.made).toBe(2);
});

test('cancelling where nothing is under way does nothing: an idle worker is kept', async () => {
  client.cancel();
  expect(PortWorker.ended).toBe(0);
  await client.checkFont(new ArrayBuffer(3));
  client.cancel();
  await client.checkFont(new ArrayBuffer(3));
  expect([PortWorker.made, PortWorker.ended]).toEqual([1, 0]);
});

test('a worker that dies fails its calls with the reason, and the next call has a new worker', async () => {
  const made = PortWorker.made;
  const call = client.planShift({ ...INPUT, method: 'turning' });
  const outcome = expect(call).rejects.toThrow(EngineDied);
  await new Promise((resolve) => setTimeout(resolve, 10));
  PortWorker.all[PortWorker.all.length - 1].die('out of memory');
  await outcome;
  await expect(call).rejects.toThrow(/out of memory/);
  expect(await client.checkFont(new ArrayBuffer(3))).toBe('Font of 3 bytes');
  expect(PortWorker.made - made).toBe(2);
});
