import fs from 'node:fs';
import { type PathEngine, readFont, type TextFont } from '@core';
import CanvasKitInit from 'canvaskit-wasm';
import { canvasKitEngine } from '../workers/canvaskit-engine';

let started: Promise<PathEngine> | undefined;

/** The path engine as the worker has it, in Node. */
export function pathEngine(): Promise<PathEngine> {
  started ??= CanvasKitInit().then(canvasKitEngine);
  return started;
}

/** A shipped font, read as the worker reads it. */
export function heavyFont(): TextFont {
  const file = fs.readFileSync('node_modules/@fontsource/archivo-black/files/archivo-black-latin-400-normal.woff');
  return readFont(file.buffer.slice(file.byteOffset, file.byteOffset + file.byteLength) as ArrayBuffer);
}
