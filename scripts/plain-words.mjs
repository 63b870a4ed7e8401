// Finds sentences of more than 35 words in documents, in comments that are read first, and in texts of the interface. node scripts/plain-words.mjs
import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));
const MOST_WORDS = 35;

const isWord = (part) => /[\p{L}\p{N}]/u.test(part);
/** Sentences of a text: what is code or an address counts as one word. */
function longSentences(text) {
  const plain = text
    .replace(/`[^`]*`/g, 'Code')
    .replace(/\[([^\]]*)\]\([^)]*\)/g, '$1')
    .replace(/\$\{[^}]*\}/g, 'value')
    // Where a method was published is looked up, not read.
    .replace(/\([^()]*\b(?:1[89]|20)\d\d\b[^()]*\)/g, '');
  return plain
    .split(/(?<=[.!?])[\s*_”"’)]+(?=[\p{Lu}\p{N}*_“"`(])/u)
    .filter((sentence) => sentence.split(/\s+/).filter(isWord).length > MOST_WORDS);
}

/** Paragraphs, list items and table cells of a Markdown file, each with its first line. */
function* blocksOfMarkdown(text) {
  let [block, at, fenced] = ['', 0, false];
  const lines = [...text.split('\n'), ''];
  for (const [i, line] of lines.entries()) {
    if (line.startsWith('```')) fenced = !fenced;
    const starts = /^\s*(?:[-*] |\d+\. |#|\||>|$|```|!\[|<)/.test(line) || fenced;
    if (starts) {
      if (block) yield [at, block];
      block = '';
    }
    if (fenced || line.startsWith('```') || line.trim() === '') continue;
    if (line.startsWith('|')) for (const cell of line.split('|')) yield [i + 1, cell];
    else {
      if (!block) at = i + 1;
      block += ` ${line.replace(/^\s*(?:[-*] |\d+\. |#+ |> )/, '')}`;
    }
  }
}

/** Comments on what is exported or heads a file, and texts in quotes. */
function* blocksOfCode(text) {
  for (const { 0: comment, index } of text.matchAll(/\/\*\*[\s\S]*?\*\//g)) {
    const parts = comment
      .replace(/^\/\*\*|\*\/$/g, '')
      .replace(/^\s*\* ?/gm, '')
      .split(/\n\s*\n|(?=@(?:param|returns|throws))/);
    for (const part of parts) yield [lineAt(text, index), part];
  }
  const head = /^(?:\/\/.*\n)+/.exec(text);
  if (head) yield [1, head[0].replace(/^\/\/ ?/gm, '')];
  for (const { 0: quoted, index } of text.matchAll(/'(?:[^'\\\n]|\\.)*'|`(?:[^`\\]|\\.)*`/g))
    for (const part of quoted.slice(1, -1).split('\n')) if (!DATA.test(part)) yield [lineAt(text, index), part];
}
/** Paths, style sheets, markup and code are no sentences. */
const DATA = /^M\d|[{}<>]/;
const lineAt = (text, index) => text.slice(0, index).split('\n').length;

let found = 0;
for (const file of execFileSync('git', ['ls-files'], { cwd: root, encoding: 'utf8' }).split('\n')) {
  const isText = /\.md$/.test(file);
  if (!isText && !/^(?:core|server|web|scripts|bench)\/.*\.(?:ts|tsx|mjs)$/.test(file)) continue;
  if (/\.test\.ts$|\/testing\/|generated|docs\/licences|e2e\//.test(file) || !fs.existsSync(root + file)) continue;
  const text = fs.readFileSync(root + file, 'utf8');
  for (const [line, block] of isText ? blocksOfMarkdown(text) : blocksOfCode(text))
    for (const sentence of longSentences(block)) {
      found++;
      console.log(`${file}:${line}: ${sentence.trim().replace(/\s+/g, ' ')}`);
    }
}
console.log(`${found} sentences of more than ${MOST_WORDS} words`);
process.exit(found === 0 ? 0 : 1);
