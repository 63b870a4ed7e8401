import { CoreError, type CoreErrorCode } from '@core';
import * as Comlink from 'comlink';
import type { Engine, Outcome } from './engine-worker';
import { closeProgress, tellProgress } from './progress-ports';

tellProgress();

type Ok<T> = T extends { readonly ok: infer Value } ? Value : never;

/** The engine's calls as promises; refusals become errors again. */
export type EngineCalls = {
  readonly [K in keyof Engine]: (...args: Parameters<Engine[K]>) => Promise<Ok<Awaited<ReturnType<Engine[K]>>>>;
};

/** A worker of its own. */
export interface EngineClient extends EngineCalls {
  /** Ends what the worker is at: its calls fail with `EngineCancelled`, the next call starts a new worker. One that is idle is kept. */
  cancel(): void;
}

/** What calls under way fail with when they were cancelled. */
export class EngineCancelled extends Error {
  constructor() {
    super('Cancelled. Nothing was changed.');
    this.name = 'EngineCancelled';
  }
}

/** What calls under way fail with when their worker ended by itself. */
export class EngineDied extends Error {
  constructor(reason: string | undefined) {
    super(
      `The work ended before it was done${reason ? ` (${reason})` : ''}. Nothing was changed; try again, or with something smaller.`,
    );
    this.name = 'EngineDied';
  }
}

/** Starts a worker at the first call; it lives until it is cancelled or the page is left. */
export function startEngine(): EngineClient {
  let running: {
    remote: Comlink.Remote<Engine>;
    /** Ends the worker; its calls fail. */
    end: (reason: Error) => void;
    /** Of the calls under way, what makes each fail. */
    calls: Set<(reason: Error) => void>;
  } | null = null;
  const start = () => {
    const worker = new Worker(new URL('./engine-worker.ts', import.meta.url), { type: 'module' });
    // Browsers keep a worker that has ended for a long time, and with it all that listens to it: nobody does any more.
    const ears = new AbortController();
    const end = (reason: Error): void => {
      if (running === mine) running = null;
      // An error as the reason would keep the stack it was made on, and all that is on it.
      ears.abort('ended');
      worker.terminate();
      for (const fail of mine.calls) fail(reason);
    };
    const remote = Comlink.wrap<Engine>(endpointOf(worker, ears.signal));
    const mine = { remote, end, calls: new Set<(reason: Error) => void>() };
    // A worker that died answers nobody: its calls fail, and the next one starts another.
    worker.addEventListener('error', ({ message }) => end(new EngineDied(message)), { signal: ears.signal });
    return mine;
  };
  const call = async (name: keyof Engine, args: unknown[]): Promise<unknown> => {
    running ??= start();
    const mine = running;
    const { remote, calls } = mine;
    // Each call has a line of its own for its progress.
    const sent = args.map((arg) => (typeof arg === 'function' ? (share: number) => arg(share) : arg));
    const method = remote[name] as unknown as (...sent: unknown[]) => Promise<Outcome<unknown>>;
    let failed: (reason: Error) => void = () => {};
    try {
      // No race against a promise that lives as long as the worker: it would keep what every call gave.
      const outcome = await new Promise<Outcome<unknown>>((resolve, reject) => {
        failed = reject;
        calls.add(failed);
        method(...sent).then(resolve, reject);
      });
      return unwrap(outcome);
    } finally {
      calls.delete(failed);
      sent.forEach(closeProgress);
    }
  };
  const cancel = (): void => {
    // An idle worker is kept: starting one takes longer than many a call.
    if (!running || running.calls.size === 0) return;
    running.end(new EngineCancelled());
  };
  return new Proxy({} as EngineClient, {
    get: (_target, name) => (name === 'cancel' ? cancel : (...args: unknown[]) => call(name as keyof Engine, args)),
  });
}

/**
 * A worker as the other end of calls, heard until `signal`. It knows nothing else: it is kept until what calls it is collected, and would never be if it knew that
 * itself.
 */
const endpointOf = (worker: Worker, signal: AbortSignal): Comlink.Endpoint => ({
  postMessage: (message, transfer) => worker.postMessage(message, transfer ?? []),
  addEventListener: (type, listener) => worker.addEventListener(type, listener, { signal }),
  removeEventListener: (type, listener) => worker.removeEventListener(type, listener),
});

function unwrap<T>(outcome: Outcome<T>): T {
  if ('ok' in outcome) return outcome.ok;
  throw new CoreError(outcome.refusal.code as CoreErrorCode, outcome.refusal.message, outcome.refusal.where);
}

/**
 * Some workers plan shifts. One answers at once while something is dragged, one in full when the hand rests, one looks for alternatives. One reads and
 * writes files, one makes outputs, one what the Output room shows of them, one changes outlines and sets text. So none waits for another. None is
 * started before it is needed.
 */
export interface Engines {
  readonly planners: readonly EngineClient[];
  readonly previewer: EngineClient;
  readonly refiner: EngineClient;
  readonly alternatives: EngineClient;
  readonly files: EngineClient;
  readonly outputs: EngineClient;
  readonly looks: EngineClient;
  readonly shapes: EngineClient;
}

/** More workers than this do not plan faster: they wait for memory. */
const MOST_PLANNERS = 6;
/** One core is the page's own. */
const plannerCount = (cores: number): number => Math.min(MOST_PLANNERS, Math.max(1, cores - 1));

export const startEngines = (cores = globalThis.navigator?.hardwareConcurrency ?? 1): Engines => ({
  planners: Array.from({ length: plannerCount(cores) }, startEngine),
  previewer: startEngine(),
  refiner: startEngine(),
  alternatives: startEngine(),
  files: startEngine(),
  outputs: startEngine(),
  looks: startEngine(),
  shapes: startEngine(),
});
