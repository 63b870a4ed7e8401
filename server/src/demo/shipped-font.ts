import fs from 'node:fs';
import { createRequire } from 'node:module';
import { readFont, type TextFont } from '@core';

/** The font in which the demo pieces are set. */
export function shippedFont(): TextFont {
  const file = createRequire(import.meta.url).resolve(
    '@fontsource/archivo-black/files/archivo-black-latin-400-normal.woff',
  );
  const { buffer, byteOffset, byteLength } = fs.readFileSync(file);
  return readFont(buffer.slice(byteOffset, byteOffset + byteLength) as ArrayBuffer);
}
