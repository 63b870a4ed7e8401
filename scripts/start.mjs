// npm start and npm run demo: installs what is missing, builds what is out of date, starts the server.
import { spawn } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { installPackages, ROOT, run } from './install.mjs';

const SOURCES = [
  'core/src',
  'server/src',
  'web/src',
  'web/public',
  'web/index.html',
  'web/vite.config.ts',
  'server/vite.config.ts',
  'package-lock.json',
];

/** The latest change among files and folders, ms. */
function newest(at) {
  const stat = fs.statSync(at, { throwIfNoEntry: false });
  if (!stat) return 0;
  if (!stat.isDirectory()) return stat.mtimeMs;
  return fs.readdirSync(at).reduce((latest, name) => Math.max(latest, newest(path.join(at, name))), stat.mtimeMs);
}

const { compiled } = await installPackages();
await compiled;
const built = Math.min(newest(`${ROOT}build/web/index.html`), newest(`${ROOT}build/server/main.mjs`));
if (built < Math.max(...SOURCES.map((source) => newest(ROOT + source)))) {
  const status = run(process.execPath, ['scripts/build.mjs']);
  if (status !== 0) process.exit(status);
}
const server = spawn(process.execPath, ['build/server/main.mjs', ...process.argv.slice(2)], {
  cwd: ROOT,
  stdio: 'inherit',
  env: { ARC_SHIFT_LOG: 'warn', ...process.env },
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.once('exit', (code) => process.exit(code ?? 0));
