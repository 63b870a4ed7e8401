// Takes a piece out in a form of text, without a browser: npm run -s out -- piece.arcshift.json --form svg. See --help.
import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import { installPackages, ROOT } from './install.mjs';

// What is installed is told on the standard error: the standard output is the file's.
const log = console.log;
console.log = console.error;
if (!fs.existsSync(`${ROOT}node_modules/tsx`)) await installPackages();
console.log = log;
const result = spawnSync(process.execPath, ['--import', 'tsx', `${ROOT}scripts/out.ts`, ...process.argv.slice(2)], {
  stdio: 'inherit',
});
process.exit(result.status ?? 1);
