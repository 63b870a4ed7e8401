// Builds the web application and the server into build/.
import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));
const vite = `${root}node_modules/vite/bin/vite.js`;
for (const config of ['web/vite.config.ts', 'server/vite.config.ts']) {
  const run = spawnSync(process.execPath, [vite, 'build', '--config', config], { cwd: root, stdio: 'inherit' });
  if (run.status !== 0) process.exit(run.status ?? 1);
}
