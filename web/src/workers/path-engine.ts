import type { PathEngine } from '@core';
import CanvasKitInit from 'canvaskit-wasm';
import wasm from 'canvaskit-wasm/bin/canvaskit.wasm?url';
import { canvasKitEngine } from './canvaskit-engine';

let started: Promise<PathEngine> | undefined;

/** The path engine, loaded when it is first needed. */
export function pathEngine(): Promise<PathEngine> {
  started ??= CanvasKitInit({ locateFile: () => wasm }).then(canvasKitEngine);
  return started;
}
