import { CoreError, type CoreErrorCode } from '@core';
import * as Comlink from 'comlink';
import type { Engine, Outcome } from './engine-worker';

/** The engine's calls as promises; refusals become errors again. */
export interface EngineClient {
  planShift(...args: Parameters<Engine['planShift']>): Promise<Ok<ReturnType<Engine['planShift']>>>;
  importSvg(...args: Parameters<Engine['importSvg']>): Promise<Ok<ReturnType<Engine['importSvg']>>>;
  importPiece(...args: Parameters<Engine['importPiece']>): Promise<Ok<ReturnType<Engine['importPiece']>>>;
  animatedSvg(...args: Parameters<Engine['animatedSvg']>): Promise<Ok<ReturnType<Engine['animatedSvg']>>>;
}
type Ok<T> = T extends { readonly ok: infer Value } ? Value : never;

/** Starts a worker of its own; it lives as long as the page. */
export function startEngine(): EngineClient {
  const worker = new Worker(new URL('./engine-worker.ts', import.meta.url), { type: 'module' });
  const remote = Comlink.wrap<Engine>(worker);
  return {
    planShift: async (input) => unwrap(await remote.planShift(input)),
    importSvg: async (text, name) => unwrap(await remote.importSvg(text, name)),
    importPiece: async (text) => unwrap(await remote.importPiece(text)),
    animatedSvg: async (piece, digits) => unwrap(await remote.animatedSvg(piece, digits)),
  };
}

function unwrap<T>(outcome: Outcome<T>): T {
  if ('ok' in outcome) return outcome.ok;
  throw new CoreError(outcome.refusal.code as CoreErrorCode, outcome.refusal.message, outcome.refusal.where);
}

/** One worker plans shifts, another reads and writes files, so that an import does not wait for matching. */
export interface Engines {
  readonly planner: EngineClient;
  readonly files: EngineClient;
}

export const startEngines = (): Engines => ({ planner: startEngine(), files: startEngine() });
