// What the two commands need before anything is installed: plain Node, no packages.
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import fs from 'node:fs';
import { fileURLToPath } from 'node:url';
import { chromiumPath } from './chromium.mjs';

export const ROOT = fileURLToPath(new URL('..', import.meta.url));
const MARK = `${ROOT}node_modules/.arc-shift-installed`;

/** Runs a program with its output on the terminal; returns its exit code. */
export function run(command, args, options = {}) {
  return spawnSync(command, args, { cwd: ROOT, stdio: 'inherit', ...options }).status ?? 1;
}

/** Starts a program; resolves with its exit code, 1 if it could not start. */
const start = (command, args, options) =>
  new Promise((resolve) => {
    const child = spawn(command, args, { cwd: ROOT, ...options });
    child.once('error', () => resolve(1));
    child.once('exit', (code) => resolve(code ?? 1));
  });

/** Runs npm, with a sign of life every 20 s; ends the program if it fails. */
async function npm(args, env, trouble) {
  const started = Date.now();
  const sign = setInterval(
    () => console.log(`… still at work, ${Math.round((Date.now() - started) / 1000)} s`),
    20_000,
  );
  const status = await start('npm', [...args, '--loglevel=error'], {
    stdio: ['ignore', 2, 2],
    env: { ...process.env, ...env },
  });
  clearInterval(sign);
  if (status === 0) return;
  console.error(trouble);
  process.exit(1);
}

/**
 * Installs the packages unless those of this very lock file are there. SQLite is compiled afterwards: `compiled` resolves when it is ready, and until then
 * everything that needs no database can be done.
 * @returns {Promise<{ compiled: Promise<void> }>}
 */
export async function installPackages() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19)) {
    console.error(`Arc Shift needs Node 20.19 or newer; this is ${process.versions.node}.`);
    process.exit(1);
  }
  const wanted = createHash('sha256')
    .update(fs.readFileSync(`${ROOT}package-lock.json`))
    .update(process.version)
    .digest('hex');
  if (fs.existsSync(MARK) && fs.readFileSync(MARK, 'utf8') === wanted) return { compiled: Promise.resolve() };
  console.log('Installing packages. SQLite is compiled from source the first time; that takes one or two minutes.');
  // Not `npm ci`: it refuses a lock file made where some platforms' optional packages were not to be had.
  await npm(
    ['install', '--no-save', '--no-audit', '--no-fund', '--ignore-scripts'],
    {},
    'The packages could not be installed.',
  );
  const compiled = npm(
    ['rebuild'],
    // Full optimisation makes SQLite take three times as long to compile. Pieces are read and written by key, which is quick anyway.
    { CFLAGS: process.env.CFLAGS ?? '-O1', CXXFLAGS: process.env.CXXFLAGS ?? '-O1' },
    'SQLite could not be compiled. A C++ compiler, make and python3 are needed (Debian: apt-get install build-essential python3).',
  ).then(() => fs.writeFileSync(MARK, wanted));
  return { compiled };
}

const hasFfprobe = () => spawnSync('ffprobe', ['-version'], { stdio: 'ignore' }).status === 0;

/** Asks Debian's package manager for a package; says nothing about success. */
async function aptInstall(name) {
  const asRoot = process.getuid?.() === 0 ? [] : ['sudo', '-n'];
  const apt = (...args) => {
    const [command, ...rest] = [...asRoot, 'apt-get', ...args];
    return start(command, rest, {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
  };
  await apt('update');
  await apt('install', '-y', '--no-install-recommends', name);
}

/**
 * Finds the programs that only the tests need, installs them where that is possible, or says what to do. They are a browser to drive, and ffprobe, which looks
 * at video from outside.
 */
export async function ensureTestPrograms() {
  for (const name of ['chromium-headless-shell', 'chromium']) {
    if (chromiumPath()) break;
    console.log(`A browser is missing; trying to install ${name} with apt-get.`);
    await aptInstall(name);
  }
  if (!chromiumPath()) {
    console.error(
      'The browser tests need Chromium. Install it (Debian: apt-get install chromium) or name it in the variable CHROMIUM.',
    );
    process.exit(1);
  }
  if (hasFfprobe()) return;
  console.log('ffprobe is missing; trying to install ffmpeg with apt-get.');
  await aptInstall('ffmpeg');
  if (!hasFfprobe()) {
    console.error('The tests of video need ffprobe. Install it (Debian: apt-get install ffmpeg).');
    process.exit(1);
  }
}
