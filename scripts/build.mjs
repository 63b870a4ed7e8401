// Builds the web application and the server into build/.
import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));
const vite = `${root}node_modules/vite/bin/vite.js`;
for (const [part, config] of [
  ['page', 'web/vite.config.ts'],
  ['server', 'server/vite.config.ts'],
]) {
  console.log(`Building the ${part} …`);
  // What the bundler has to say of itself concerns nobody; what is wrong is told.
  const args = [vite, 'build', '--config', config, '--logLevel', 'error'];
  const run = spawnSync(process.execPath, args, { cwd: root, stdio: 'inherit' });
  if (run.status !== 0) process.exit(run.status ?? 1);
}
