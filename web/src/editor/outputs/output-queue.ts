import type { Piece } from '@core';
import { type AppDispatch, type FormChoice, type OutputJob, outputsActions } from '../../state';
import { EngineCancelled, type EngineClient } from '../../workers';
import { type OrderResult, type OutputStore, type StoredOrder, StoreFailure } from './output-store';

/** What was made for a job. */
export interface JobFiles {
  /** Null until it has been fetched from the store. */
  readonly blob: Blob | null;
  readonly url: string;
  /** The moment of the largest deviation, as pictures of both. */
  readonly worst: { readonly wanted: string; readonly found: string } | null;
}

/** Files in memory. */
export type OpenFiles = JobFiles & { readonly blob: Blob };

/** What a queue needs from outside. */
export interface QueuePorts {
  readonly engine: Pick<EngineClient, 'makeOutput' | 'makeOutputs' | 'cancel'>;
  readonly store: OutputStore;
  /** Waits until no other tab holds the job, then takes it. The lock is released when the tab closes. */
  readonly hold: (id: string) => Promise<void>;
  readonly dispatch: AppDispatch;
  readonly freshId: () => string;
  readonly now: () => number;
  readonly wait: (ms: number) => Promise<void>;
  readonly urlOf: (blob: Blob) => string;
  readonly revoke: (url: string) => void;
  readonly fileName: (extension: string, pieceName: string) => string;
}

interface Order {
  readonly job: OutputJob;
  /** The piece as it was at the time; null until it has been fetched from the store. */
  piece: Piece | null;
  /** Resolves when the order is stored, or cannot be. */
  keeping: Promise<unknown>;
}

type Made = Awaited<ReturnType<QueuePorts['engine']['makeOutput']>>;

/** Delay before a failed write to the store is retried, ms. */
const AGAIN_MS = 10_000;

/**
 * Makes files one after another, in a worker, from pieces as they were when the files were asked for. It outlives the room, the page of the piece and the tab:
 * orders and what was made are kept by a store, and another tab goes on with what this one left.
 */
export class OutputQueue {
  private readonly orders = new Map<string, Order>();
  private readonly waiting: string[] = [];
  private readonly made = new Map<string, JobFiles>();
  private current: string | null = null;
  /** The current job, if it was cancelled. */
  private stopped: string | null = null;

  constructor(private readonly ports: QueuePorts) {}

  /** Orders a file of one form, or several in one ZIP; returns the job's id. */
  ask(piece: Piece, choices: readonly FormChoice[], label: string): string {
    const { dispatch, freshId, now, hold, store } = this.ports;
    const job: OutputJob = {
      ...NEW_JOB,
      id: freshId(),
      pieceId: piece.id,
      pieceName: piece.name,
      choices: choices.map(({ form, options, name }) => ({ form, options, name })),
      label,
      asked: now(),
    };
    dispatch(outputsActions.jobAdded(job));
    void hold(job.id);
    const keeping = this.keep(job.id, () => store.keepOrder(orderOf(job), piece));
    this.orders.set(job.id, { job, piece, keeping });
    this.waiting.push(job.id);
    void this.next();
    return job.id;
  }

  /**
   * Loads the stored jobs. Finished files are listed again, and waiting ones are made unless another tab is making them.
   * @throws StoreFailure
   */
  async takeUp(): Promise<void> {
    const { store, dispatch } = this.ports;
    const stored = (await store.list()).filter(({ id }) => !this.orders.has(id));
    const jobs = stored.map(jobOf);
    for (const [i, job] of jobs.entries()) {
      this.orders.set(job.id, { job, piece: null, keeping: Promise.resolve() });
      this.found(stored[i]);
    }
    dispatch(outputsActions.jobsFound(jobs));
    for (const { id, state } of jobs) if (state === 'elsewhere') void this.takeOver(id);
  }

  /** Waits until the tab that holds a job has finished or closed, then makes what is left. */
  private async takeOver(id: string): Promise<void> {
    const { store, dispatch, hold } = this.ports;
    await hold(id);
    const stored = (await store.list()).find((each) => each.id === id);
    if (!this.orders.has(id)) return;
    if (!stored) {
      this.forget(id);
      return;
    }
    if (stored.result) this.found(stored);
    dispatch(outputsActions.jobChanged({ ...jobOf(stored), ...(!stored.result && { state: 'waiting' }) }));
    if (stored.result) return;
    this.waiting.push(id);
    void this.next();
  }

  private found({ id, result, hasPictures }: StoredOrder): void {
    if (result?.state !== 'made') return;
    const { store } = this.ports;
    const worst = hasPictures ? { wanted: store.addressOf(id, 'wanted'), found: store.addressOf(id, 'found') } : null;
    this.made.set(id, { blob: null, url: store.addressOf(id, 'file'), worst });
  }

  /**
   * Orders the same again: from `piece`, or, left out, from the piece as it was then.
   * @throws StoreFailure if that piece cannot be fetched
   */
  async again(id: string, piece?: Piece): Promise<string | null> {
    const order = this.orders.get(id);
    return order ? this.ask(piece ?? (await this.pieceOf(order)), order.job.choices, order.job.label) : null;
  }

  private async pieceOf(order: Order): Promise<Piece> {
    order.piece ??= await this.ports.store.piece(order.job.id);
    return order.piece;
  }

  /** The result of a job; undefined if it is not in memory. */
  files(id: string): JobFiles | undefined {
    return this.made.get(id);
  }

  /**
   * The result of a job, fetched if needed; undefined if there is none.
   * @throws StoreFailure
   */
  async open(id: string): Promise<OpenFiles | undefined> {
    const files = this.made.get(id);
    if (!files || isOpen(files)) return files as OpenFiles | undefined;
    const blob = await this.ports.store.part(id, 'file');
    const before = this.made.get(id);
    if (!before || isOpen(before)) return before as OpenFiles | undefined;
    const open = { ...files, blob, url: this.ports.urlOf(blob) };
    this.made.set(id, open);
    return open;
  }

  /** Cancels a job that waits or is being made. Only the order remains. */
  cancel(id: string): void {
    const at = this.waiting.indexOf(id);
    if (at >= 0) this.waiting.splice(at, 1);
    else if (this.current !== id) return;
    this.ports.dispatch(outputsActions.jobChanged({ id, state: 'cancelled', share: 0, unkept: '' }));
    if (this.current === id) {
      this.stopped = id;
      this.ports.engine.cancel();
    }
    void this.throwAway(id);
  }

  /** Removes a job and its files, from the store too. */
  remove(id: string): void {
    this.cancel(id);
    void this.throwAway(id);
    this.forget(id);
  }

  private async throwAway(id: string): Promise<void> {
    // A write in progress would arrive after the removal.
    await this.orders.get(id)?.keeping;
    await this.ports.store.remove(id).catch(() => {
      // It is gone already, or the store will delete it when it expires.
    });
  }

  private forget(id: string): void {
    const files = this.made.get(id);
    if (files) for (const url of [files.url, files.worst?.wanted, files.worst?.found]) if (url) this.ports.revoke(url);
    this.made.delete(id);
    this.orders.delete(id);
    this.ports.dispatch(outputsActions.jobRemoved(id));
  }

  private async next(): Promise<void> {
    if (this.current !== null) return;
    const id = this.waiting.shift();
    const order = id === undefined ? undefined : this.orders.get(id);
    if (id === undefined || !order) return;
    this.current = id;
    const { dispatch } = this.ports;
    dispatch(outputsActions.jobChanged({ id, state: 'making', share: 0 }));
    try {
      const made = await this.make(order, (share) => {
        if (this.current === id) dispatch(outputsActions.jobChanged({ id, share }));
      });
      if (this.orders.has(id)) this.settle(order, made);
    } catch (error) {
      const { name, message } = error as Error;
      if (name !== 'EngineCancelled') this.tell(order, { ...NOTHING, state: 'failed', problem: message }, []);
    } finally {
      this.current = null;
      void this.next();
    }
  }

  private async make(order: Order, tell: (share: number) => void): Promise<Made> {
    const { engine } = this.ports;
    const { choices } = order.job;
    const piece = await this.pieceOf(order);
    // Cancelled before the engine had started.
    if (this.stopped === order.job.id) throw new EngineCancelled();
    const [{ form, options }] = choices;
    return choices.length === 1
      ? engine.makeOutput(form, piece, options, true, tell)
      : engine.makeOutputs(choices, piece, tell);
  }

  private settle(order: Order, { blob, extension = '', note = '', proof }: Made): void {
    const { urlOf, fileName, store } = this.ports;
    const { id, pieceName } = order.job;
    const worst = proof?.worst;
    this.made.set(id, {
      blob,
      url: urlOf(blob),
      worst: worst ? { wanted: urlOf(worst.wanted), found: urlOf(worst.found) } : null,
    });
    const result: OrderResult = {
      ...NOTHING,
      state: 'made',
      fileName: fileName(extension, pieceName),
      note,
      ...(proof && { proof: { holds: proof.holds, lines: proof.lines, seconds: worst?.seconds ?? null } }),
    };
    const parts = [
      () => store.keepPart(id, 'file', blob),
      ...(worst
        ? [() => store.keepPart(id, 'wanted', worst.wanted), () => store.keepPart(id, 'found', worst.found)]
        : []),
    ];
    this.tell(order, result, parts, blob.size);
  }

  /** Reports the result of an order and stores it. The parts go first, since an order counts as done once its result is there. */
  private tell(order: Order, result: OrderResult, parts: readonly (() => Promise<void>)[], size = 0): void {
    const { dispatch, store } = this.ports;
    const { id } = order.job;
    dispatch(outputsActions.jobChanged({ id, ...told(result, size), kept: false }));
    const before = order.keeping;
    order.keeping = this.keep(id, async () => {
      await before;
      for (const part of parts) await part();
      await store.finish(id, result);
    });
  }

  /** Stores something of a job, and retries if that may help. The job says so meanwhile. */
  private async keep(id: string, write: () => Promise<void>): Promise<void> {
    const { dispatch, wait } = this.ports;
    for (;;) {
      try {
        await write();
        dispatch(outputsActions.jobChanged({ id, kept: true, unkept: '' }));
        return;
      } catch (error) {
        dispatch(outputsActions.jobChanged({ id, unkept: (error as Error).message }));
        if (!(error instanceof StoreFailure && error.mayGoWell)) return;
      }
      await wait(AGAIN_MS);
      if (!this.orders.has(id)) return;
    }
  }
}

const isOpen = (files: JobFiles): files is OpenFiles => files.blob !== null;

const NOTHING = { fileName: '', note: '', problem: '' };

const NEW_JOB = {
  ...NOTHING,
  state: 'waiting',
  share: 0,
  size: 0,
  proof: null,
  kept: false,
  unkept: '',
} as const;

const orderOf = ({ id, pieceId, pieceName, label, choices, asked }: OutputJob) => ({
  id,
  pieceId,
  pieceName,
  label,
  choices,
  asked,
});

/** A result as it is shown in a job. */
const told = ({ state, fileName, note, problem, proof }: OrderResult, size: number) => ({
  state,
  share: 1,
  fileName,
  note,
  problem,
  size,
  proof: proof ?? null,
});

const jobOf = ({ result, size, hasPictures: _, ...order }: StoredOrder): OutputJob => ({
  ...NEW_JOB,
  ...order,
  kept: true,
  ...(result ? told(result, size) : { state: 'elsewhere' }),
});
