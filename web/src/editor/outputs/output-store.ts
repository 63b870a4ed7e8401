import type { Piece } from '@core';
import type { JobProof, OutputJob } from '../../state';

/** What came of an order. */
export interface OrderResult {
  readonly state: 'made' | 'failed';
  readonly fileName: string;
  readonly note: string;
  readonly problem: string;
  /** Left out where the file was not proved. */
  readonly proof?: JobProof;
}

/** What was asked for. */
export type Order = Pick<OutputJob, 'id' | 'pieceId' | 'pieceName' | 'label' | 'choices' | 'asked'>;

/** An order as it is kept, with what came of it; null as long as nothing has. */
export interface StoredOrder extends Order {
  readonly result: OrderResult | null;
  /** Bytes of the file. */
  readonly size: number;
  /** Are there pictures of the moment at which it is furthest off? */
  readonly hasPictures: boolean;
}

export type StoredPart = 'file' | 'wanted' | 'found';

/** Keeps orders and what was made of them beyond the tab. */
export interface OutputStore {
  /** All orders, the oldest first. */
  list(): Promise<readonly StoredOrder[]>;
  /** @throws StoreFailure, as all that write do */
  keepOrder(order: Order, piece: Piece): Promise<void>;
  keepPart(id: string, part: StoredPart, blob: Blob): Promise<void>;
  finish(id: string, result: OrderResult): Promise<void>;
  remove(id: string): Promise<void>;
  part(id: string, part: StoredPart): Promise<Blob>;
  piece(id: string): Promise<Piece>;
  addressOf(id: string, part: StoredPart): string;
}

/** Something was not kept, in words. */
export class StoreFailure extends Error {
  constructor(
    message: string,
    /** May it go well another time? */
    readonly mayGoWell: boolean,
  ) {
    super(message);
    this.name = 'StoreFailure';
  }
}

const BASE = '/api/outputs';
const at = (id: string, part = ''): string => `${BASE}/${encodeURIComponent(id)}${part && `/${part}`}`;

async function call(address: string, init: RequestInit = {}): Promise<Response> {
  const answer = await fetch(address, init).catch(() => {
    throw new StoreFailure('The server does not answer.', true);
  });
  if (answer.ok) return answer;
  const { detail } = (await answer.json().catch(() => ({}))) as { detail?: string };
  throw new StoreFailure(detail ?? 'The server did not take it.', answer.status >= 500);
}

const json = (method: string, body: object): RequestInit => ({
  method,
  headers: { 'Content-Type': 'application/json' },
  body: JSON.stringify(body),
});

/** The server's store. */
export const SERVER_STORE: OutputStore = {
  list: async () => ((await (await call(BASE)).json()) as { outputs: StoredOrder[] }).outputs,
  keepOrder: async (order, piece) => void (await call(BASE, json('POST', { order, piece }))),
  keepPart: async (id, part, blob) =>
    void (await call(at(id, part), {
      method: 'PUT',
      headers: { 'Content-Type': blob.type.split(';')[0] || 'application/octet-stream' },
      body: blob,
    })),
  finish: async (id, result) => void (await call(at(id), json('PUT', result))),
  remove: async (id) => void (await call(at(id), { method: 'DELETE' })),
  part: async (id, part) => (await call(at(id, part))).blob(),
  piece: async (id) => ((await (await call(at(id, 'piece'))).json()) as { piece: Piece }).piece,
  addressOf: at,
};
