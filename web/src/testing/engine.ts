import type { PathEngine } from '@core';
import CanvasKitInit from 'canvaskit-wasm';
import { canvasKitEngine } from '../workers/canvaskit-engine';

let started: Promise<PathEngine> | undefined;

/** The path engine as the worker has it, in Node. */
export function pathEngine(): Promise<PathEngine> {
  started ??= CanvasKitInit().then(canvasKitEngine);
  return started;
}
