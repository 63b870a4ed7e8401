// Takes a piece out in a form of text, without a browser: npm run -s out -- piece.arcshift.json --form svg. See --help.
import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { installPackages, ROOT } from './install.mjs';

// What is installed is told on the standard error: the standard output is the file's.
const log = console.log;
console.log = console.error;
if (!fs.existsSync(`${ROOT}node_modules/esbuild`)) await (await installPackages()).compiled;
console.log = log;

const program = `${ROOT}build/out/out.mjs`;
/** When anything that the program is made of was changed last, ms. */
const newest = (folder) =>
  fs
    .readdirSync(folder, { withFileTypes: true })
    .reduce(
      (latest, entry) =>
        Math.max(
          latest,
          entry.isDirectory()
            ? newest(path.join(folder, entry.name))
            : fs.statSync(path.join(folder, entry.name)).mtimeMs,
        ),
      0,
    );
const changed = Math.max(newest(`${ROOT}core/src`), fs.statSync(`${ROOT}scripts/out.ts`).mtimeMs);
// Compiled once, and again after a change of the program.
if (!fs.existsSync(program) || fs.statSync(program).mtimeMs < changed) {
  const { buildSync } = await import('esbuild');
  buildSync({
    entryPoints: [`${ROOT}scripts/out.ts`],
    outfile: program,
    bundle: true,
    platform: 'node',
    format: 'esm',
    banner: { js: "import { createRequire } from 'node:module';const require = createRequire(import.meta.url);" },
    logLevel: 'error',
  });
}
const result = spawnSync(process.execPath, [program, ...process.argv.slice(2)], { stdio: 'inherit' });
process.exit(result.status ?? 1);
