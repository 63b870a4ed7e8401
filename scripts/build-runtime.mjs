// Turns the code that goes into files that are taken out into texts that the core can write, as small as they can be.
// node scripts/build-runtime.mjs [--check]
import fs from 'node:fs';
import { fileURLToPath } from 'node:url';
import { build } from 'esbuild';

const folder = fileURLToPath(new URL('../core/src/output/runtime/', import.meta.url));
const player = fileURLToPath(new URL('../web/src/player/moving-piece.ts', import.meta.url));

/** A file with all that it imports; `known` are names that are what they are told to be. */
async function small(path, known = {}) {
  const { outputFiles } = await build({
    entryPoints: [path],
    bundle: true,
    write: false,
    format: 'esm',
    target: 'es2022',
    minify: true,
    legalComments: 'none',
    define: Object.fromEntries(Object.entries(known).map(([name, value]) => [name, JSON.stringify(value)])),
  });
  return `${outputFiles[0].text.trim()}\n`;
}

const modules = {};
for (const input of ['poses', 'run'])
  for (const beyond of ['clamped', 'extrapolated'])
    modules[`${input} ${beyond}`] = await small(`${folder}module.ts`, {
      BY_POSES: input === 'poses',
      EXTRAPOLATED: beyond === 'extrapolated',
    });
const texts = { MODULE_RUNTIME: modules, PLAYER: await small(player) };
const text = `// Made from the files of this folder by scripts/build-runtime.mjs. Do not edit.\n${Object.entries(texts)
  .map(([name, code]) => `export const ${name} = ${JSON.stringify(code)};\n`)
  .join('')}`;
const file = `${folder}runtime.generated.js`;
if (process.argv.includes('--check')) {
  if (!fs.existsSync(file) || fs.readFileSync(file, 'utf8') !== text) {
    console.error('runtime.generated.js does not fit what it is made from: run node scripts/build-runtime.mjs');
    process.exit(1);
  }
} else fs.writeFileSync(file, text);
