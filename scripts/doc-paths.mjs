// Finds files that documents name and that are not there. node scripts/doc-paths.mjs
import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));
const files = execFileSync('git', ['ls-files', '--cached', '--others', '--exclude-standard'], {
  cwd: root,
  encoding: 'utf8',
})
  .split('\n')
  .filter((file) => file && fs.existsSync(root + file));
/** What is made and not kept, and what the reader makes. */
const MADE = /^(?:build|node_modules|test-results|data)\//;
/** `NAME` stands for any name. */
const patternOf = (path) =>
  new RegExp(
    `(?:^|/)${path.replace(/[.*+?^${}()|[\]\\]/g, '\\$&').replaceAll('NAME', '[\\w-]+')}${path.endsWith('/') ? '' : '(?:$|/)'}`,
  );

let missing = 0;
for (const document of files.filter((file) => file.endsWith('.md'))) {
  fs.readFileSync(root + document, 'utf8')
    .split('\n')
    .forEach((line, i) => {
      for (const [, path] of line.matchAll(/`([\w./-]*\/[\w./-]*|[\w-]+\.(?:tsx?|mjs|cjs))`/g)) {
        // Paths of the web and of packages are no files here.
        if (
          MADE.test(path) ||
          /^(?:\/|@)/.test(path) ||
          !/\.(?:tsx?|mjs|cjs|json|md|svg|png)$|\/$|^(?:core|web|server|e2e|bench|scripts)\//.test(path)
        )
          continue;
        const pattern = patternOf(path);
        if (files.some((file) => pattern.test(file))) continue;
        missing++;
        console.log(`${document}:${i + 1}: ${path}`);
      }
    });
}
console.log(`${missing} files that documents name are not there`);
process.exit(missing === 0 ? 0 : 1);
