// Brings the schema of a piece up to date with the kinds of lanes, and compiles it into plain code, because the page's content security policy forbids compiling at run time.
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

// What can have a lane is said once, in core/src/lane/kinds.
const { outputFiles } = buildSync({
  entryPoints: [`${root}core/src/lane/kinds/index.ts`],
  bundle: true,
  write: false,
  format: 'esm',
  platform: 'neutral',
  mainFields: ['module', 'main'],
  logLevel: 'error',
});
const { LANE_KIND_IDS } = await import(
  `data:text/javascript;base64,${Buffer.from(outputFiles[0].text).toString('base64')}`
);
const lines = LANE_KIND_IDS.map((id) => `            "${id}"`).join(',\n');
const known = fs.readFileSync(schemaFile, 'utf8');
const lanes = /("laneProperty": \{\s*"anyOf": \[\s*\{\s*"enum": \[\n)[^\]]*?(\n {10}\])/;
if (!lanes.test(known)) throw new Error('The schema has no list of what can have a lane.');
write(schemaFile, known.replace(lanes, `$1${lines}$2`));
const schema = JSON.parse(fs.readFileSync(schemaFile, 'utf8'));
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
