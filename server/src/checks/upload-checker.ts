import { Worker } from 'node:worker_threads';
import { ApiError } from '../errors';
import type { UploadKind } from './read-upload';
import type { UploadAnswer, UploadTask } from './upload-worker';

/** Reads uploads before they are taken. */
export interface UploadChecker {
  /** @throws ApiError 'asset-invalid' when it cannot be read, or takes too long */
  check(kind: UploadKind, bytes: Uint8Array): Promise<void>;
  close(): Promise<void>;
}

/** As a promise per upload. */
interface Waiting {
  readonly done: (answer: UploadAnswer['refusal']) => void;
}

export interface WorkerCheckerOptions {
  /** The built worker. */
  readonly script: URL;
  /** An upload that takes longer is refused, ms. */
  readonly patienceMs: number;
  /** Largest heap of the worker, MB. */
  readonly heapMb: number;
}

/**
 * Reads uploads in a thread of its own, one after another, so that none can hold the server up. One that takes too long or too much memory ends with its
 * thread, and the next gets a new one.
 */
export function startUploadChecker({ script, patienceMs, heapMb }: WorkerCheckerOptions): UploadChecker {
  let worker: Worker | undefined;
  let waiting: (Waiting & { readonly id: number }) | undefined;
  let queue: Promise<unknown> = Promise.resolve();
  let next = 1;

  const start = (): Worker => {
    const thread = new Worker(script, { resourceLimits: { maxOldGenerationSizeMb: heapMb } });
    thread.unref();
    thread.on('message', ({ id, refusal }: UploadAnswer) => {
      if (waiting?.id === id) waiting.done(refusal);
    });
    const failed = (): void => {
      if (worker === thread) worker = undefined;
      waiting?.done({
        message: 'Expected a file that can be read with the memory that there is; this one needs more.',
      });
    };
    thread.on('error', failed);
    return thread;
  };

  const run = (kind: UploadKind, bytes: Uint8Array): Promise<UploadAnswer['refusal']> =>
    new Promise((resolve) => {
      const id = next++;
      worker ??= start();
      const thread = worker;
      const timer = setTimeout(() => {
        worker = undefined;
        void thread.terminate();
        finish({ message: `Expected a file that is read within ${patienceMs / 1000} s; this one takes longer.` });
      }, patienceMs);
      const finish = (refusal: UploadAnswer['refusal']): void => {
        clearTimeout(timer);
        waiting = undefined;
        resolve(refusal);
      };
      waiting = { id, done: finish };
      thread.postMessage({ id, kind, bytes } satisfies UploadTask);
    });

  return {
    async check(kind, bytes) {
      const turn = queue.then(() => run(kind, bytes));
      queue = turn;
      const refusal = await turn;
      if (refusal) throw new ApiError('asset-invalid', refusal.message, refusal.where);
    },
    async close() {
      await worker?.terminate();
    },
  };
}
