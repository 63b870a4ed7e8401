// npm run lock: writes package-lock.json afresh from package.json, without download addresses. Where npm leaves the addresses out by itself, it
// also leaves out the optional packages of other platforms, and `npm ci` then refuses the file; so they are taken out afterwards.
import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { ROOT } from './install.mjs';

const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'arc-shift-lock-'));
for (const name of ['package.json', '.npmrc']) fs.copyFileSync(ROOT + name, path.join(folder, name));
const { status } = spawnSync('npm', ['install', '--package-lock-only', '--ignore-scripts', '--omit-lockfile-registry-resolved=false'], { cwd: folder, stdio: 'inherit' });
if (status === 0) {
  const lock = JSON.parse(fs.readFileSync(path.join(folder, 'package-lock.json'), 'utf8'));
  for (const entry of Object.values(lock.packages)) delete entry.resolved;
  fs.writeFileSync(`${ROOT}package-lock.json`, `${JSON.stringify(lock, null, 2)}\n`);
}
fs.rmSync(folder, { recursive: true });
process.exit(status ?? 1);
