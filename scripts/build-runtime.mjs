// Turns the code that goes into files that are taken out into texts that the core can write.
// node scripts/build-runtime.mjs [--check]
import fs from 'node:fs';
import { fileURLToPath } from 'node:url';
import ts from 'typescript';

const folder = fileURLToPath(new URL('../core/src/output/runtime/', import.meta.url));
const player = fileURLToPath(new URL('../web/src/player/moving-piece.ts', import.meta.url));

/** The code of a file without types, imports and exports. */
function plain(path) {
  const { outputText } = ts.transpileModule(fs.readFileSync(path, 'utf8'), {
    compilerOptions: {
      removeComments: true,
      target: ts.ScriptTarget.ES2022,
      module: ts.ModuleKind.ESNext,
      verbatimModuleSyntax: false,
    },
  });
  return outputText
    .replace(/^import .*\n/gm, '')
    .replace(/^export (?=const|function|class)/gm, '')
    .replace(/^export \{\};\n/gm, '')
    .replace(/^ +/gm, (spaces) => ' '.repeat(spaces.length / 4))
    .trim();
}

const texts = {
  FRAMES_RUNTIME: `${plain(`${folder}track-value.ts`)}\n${plain(`${folder}frames.ts`)}\n`,
  PLAYER: `${plain(player)}\n`,
};
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
