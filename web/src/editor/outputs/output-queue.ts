import type { Piece } from '@core';
import { type AppDispatch, type FormChoice, type OutputJob, outputsActions } from '../../state';
import type { EngineClient } from '../../workers';

/** What was made for a job: kept as long as the tab is open. */
export interface JobFiles {
  readonly blob: Blob;
  readonly url: string;
  /** The moment at which the file is furthest off, as pictures of both. */
  readonly worst: { readonly wanted: string; readonly found: string } | null;
}

/** What a queue needs of its surroundings. */
export interface QueuePorts {
  readonly engine: Pick<EngineClient, 'makeOutput' | 'makeOutputs' | 'cancel'>;
  readonly dispatch: AppDispatch;
  readonly freshId: () => string;
  readonly now: () => number;
  readonly urlOf: (blob: Blob) => string;
  readonly revoke: (url: string) => void;
  readonly fileName: (extension: string, pieceName: string) => string;
}

/** A choice with the name that it has among others. */
export interface NamedChoice extends FormChoice {
  readonly name: string;
}

interface Order {
  readonly job: OutputJob;
  readonly piece: Piece;
  readonly choices: readonly NamedChoice[];
}

/**
 * Makes files one after another, in a worker, from pieces as they were when the files were asked for. It outlives the room and the page of the piece; what was
 * made is kept until it is removed or the tab is closed.
 */
export class OutputQueue {
  private readonly orders = new Map<string, Order>();
  private readonly waiting: string[] = [];
  private readonly made = new Map<string, JobFiles>();
  private current: string | null = null;

  constructor(private readonly ports: QueuePorts) {}

  /** Asks for a file of one form, or for several in one ZIP; returns the job's id. */
  ask(piece: Piece, choices: readonly NamedChoice[], label: string): string {
    const { dispatch, freshId, now } = this.ports;
    const job: OutputJob = {
      id: freshId(),
      pieceId: piece.id,
      pieceName: piece.name,
      choices: choices.map(({ form, options }) => ({ form, options })),
      label,
      state: 'waiting',
      share: 0,
      fileName: '',
      size: 0,
      note: '',
      problem: '',
      proof: null,
      asked: now(),
    };
    dispatch(outputsActions.jobAdded(job));
    this.orders.set(job.id, { job, piece, choices });
    this.waiting.push(job.id);
    void this.next();
    return job.id;
  }

  /** Asks again for what was asked for before, of the piece as it is now or, left out, as it was then. */
  again(id: string, piece?: Piece): string | null {
    const order = this.orders.get(id);
    return order ? this.ask(piece ?? order.piece, order.choices, order.job.label) : null;
  }

  /** What was made; undefined where it is not there. */
  files(id: string): JobFiles | undefined {
    return this.made.get(id);
  }

  /** Stops a job that waits or is being made: nothing is left of it but the wish. */
  cancel(id: string): void {
    const at = this.waiting.indexOf(id);
    if (at >= 0) this.waiting.splice(at, 1);
    else if (this.current !== id) return;
    this.ports.dispatch(outputsActions.jobChanged({ id, state: 'cancelled', share: 0 }));
    if (this.current === id) this.ports.engine.cancel();
  }

  /** Removes a job, with its files. */
  remove(id: string): void {
    this.cancel(id);
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
      if (this.orders.has(id)) this.keep(order, made);
    } catch (error) {
      const { name, message } = error as Error;
      if (name !== 'EngineCancelled') dispatch(outputsActions.jobChanged({ id, state: 'failed', problem: message }));
    } finally {
      this.current = null;
      void this.next();
    }
  }

  private make(
    { piece, choices }: Order,
    tell: (share: number) => void,
  ): ReturnType<QueuePorts['engine']['makeOutput']> {
    const { engine } = this.ports;
    const [{ form, options }] = choices;
    return choices.length === 1
      ? engine.makeOutput(form, piece, options, true, tell)
      : engine.makeOutputs(choices, piece, tell);
  }

  private keep({ job, piece }: Order, made: Awaited<ReturnType<QueuePorts['engine']['makeOutput']>>): void {
    const { dispatch, urlOf, fileName } = this.ports;
    const { blob, extension = '', note = '', proof } = made;
    this.made.set(job.id, {
      blob,
      url: urlOf(blob),
      worst: proof?.worst ? { wanted: urlOf(proof.worst.wanted), found: urlOf(proof.worst.found) } : null,
    });
    dispatch(
      outputsActions.jobChanged({
        id: job.id,
        state: 'made',
        share: 1,
        fileName: fileName(extension, piece.name),
        size: blob.size,
        note,
        proof: proof ? { holds: proof.holds, lines: proof.lines, seconds: proof.worst?.seconds ?? null } : null,
      }),
    );
  }
}
