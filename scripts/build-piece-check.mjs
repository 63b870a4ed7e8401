// Compiles the JSON schema of a piece into plain code, because the page's content security policy forbids compiling at run time.
// node scripts/build-piece-check.mjs [--check]
import fs from 'node:fs';
import { fileURLToPath } from 'node:url';
import Ajv from 'ajv';
import standalone from 'ajv/dist/standalone/index.js';

const folder = fileURLToPath(new URL('../core/src/piece/rules/', import.meta.url));
const schema = JSON.parse(fs.readFileSync(`${folder}piece.schema.json`, 'utf8'));
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
const file = `${folder}piece-check.generated.js`;
if (process.argv.includes('--check')) {
  const old = fs.existsSync(file) ? fs.readFileSync(file, 'utf8') : '';
  if (old !== text) {
    console.error('piece-check.generated.js does not fit piece.schema.json: run node scripts/build-piece-check.mjs');
    process.exit(1);
  }
} else fs.writeFileSync(file, text);
