import { fileURLToPath } from 'node:url';
import { build } from 'vite';

/** A script of this folder, built to run in a page by itself. */
export async function builtScript(file: string): Promise<string> {
  const built = await build({
    configFile: false,
    logLevel: 'error',
    resolve: { alias: { '@core': fileURLToPath(new URL('../../core/src/index.ts', import.meta.url)) } },
    build: {
      write: false,
      minify: false,
      lib: { entry: fileURLToPath(new URL(file, import.meta.url)), formats: ['iife'], name: 'built' },
    },
  });
  const [first] = Array.isArray(built) ? built : [built];
  if (!('output' in first)) throw new Error('Nothing was built.');
  return first.output[0].type === 'chunk' ? first.output[0].code : '';
}
