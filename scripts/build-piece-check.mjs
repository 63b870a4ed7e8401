// Writes the schema of a piece down as JSON, and compiles it into plain code: the page's content security policy forbids compiling at run time.
// node scripts/build-piece-check.mjs [--check]
import fs from 'node:fs';
import { fileURLToPath } from 'node:url';
import Ajv from 'ajv';
import standalone from 'ajv/dist/standalone/index.js';
import { buildSync } from 'esbuild';

const root = fileURLToPath(new URL('..', import.meta.url));
const folder = fileURLToPath(new URL('../core/src/piece/rules/', import.meta.url));
const schemaFile = `${folder}piece.schema.json`;
/** Says what is wrong where files are only looked at; else writes. */
const check = process.argv.includes('--check');
function write(file, text) {
  const old = fs.existsSync(file) ? fs.readFileSync(file, 'utf8') : '';
  if (old === text) return;
  if (!check) {
    fs.writeFileSync(file, text);
    return;
  }
  console.error(`${file.slice(root.length)} is not what it is made from: run node scripts/build-piece-check.mjs`);
  process.exit(1);
}

// The schema is made from the tables of the core: limits, lanes, shapes, easings.
const { outputFiles } = buildSync({
  entryPoints: [`${root}core/src/piece/schema/piece-schema.ts`],
  bundle: true,
  write: false,
  format: 'esm',
  platform: 'neutral',
  mainFields: ['module', 'main'],
  logLevel: 'error',
});
const { PIECE_SCHEMA: schema } = await import(
  `data:text/javascript;base64,${Buffer.from(outputFiles[0].text).toString('base64')}`
);
write(schemaFile, `${JSON.stringify(schema, null, 2)}\n`);
const ajv = new Ajv({
  code: { source: true, esm: false },
  allErrors: false,
  verbose: false,
  formats: { 'css-colour': /^[^<>{};]*$/ },
});
const body = (standalone.default ?? standalone)(ajv, ajv.compile(schema));
if (/require\((?!"ajv\/dist\/runtime\/(?:ucs2length|equal)")/.test(body))
  throw new Error('The compiled check needs a module that the core may not import.');
const text = `// Made from piece.schema.json by scripts/build-piece-check.mjs. Do not edit.\n${body
  .replace(/^"use strict";/, '')
  .replace(
    /const (\w+) = require\("ajv\/dist\/runtime\/ucs2length"\)\.default;?/g,
    'const $1 = (text) => [...text].length;',
  )
  .replace(/module\.exports = (\w+);\s*module\.exports\.default = \w+;/, 'export const validatePiece = $1;')}\n`;
write(`${folder}piece-check.generated.js`, text);
