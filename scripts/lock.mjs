// npm run lock: writes package-lock.json afresh from package.json. `npm install` in a folder that has its packages drops the optional packages
// of other platforms from a lock file without download addresses, and `npm ci` then refuses it.
import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { ROOT } from './install.mjs';

const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'arc-shift-lock-'));
for (const name of ['package.json', '.npmrc']) fs.copyFileSync(ROOT + name, path.join(folder, name));
const { status } = spawnSync('npm', ['install', '--package-lock-only', '--ignore-scripts'], { cwd: folder, stdio: 'inherit' });
if (status === 0) fs.copyFileSync(path.join(folder, 'package-lock.json'), `${ROOT}package-lock.json`);
fs.rmSync(folder, { recursive: true });
process.exit(status ?? 1);
