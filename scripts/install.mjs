// What the two commands need before anything is installed: plain Node, no packages.
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import fs from 'node:fs';
import { fileURLToPath } from 'node:url';

export const ROOT = fileURLToPath(new URL('..', import.meta.url));
const MARK = `${ROOT}node_modules/.arc-shift-installed`;
const CHROMIUM = process.env.CHROMIUM ?? '/usr/bin/chromium';

/** Runs a program with its output on the terminal; returns its exit code. */
export function run(command, args, options = {}) {
  return spawnSync(command, args, { cwd: ROOT, stdio: 'inherit', ...options }).status ?? 1;
}

/** Installs the packages unless those of this very lock file are there. */
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
  if (fs.existsSync(MARK) && fs.readFileSync(MARK, 'utf8') === wanted) return;
  console.log('Installing packages. SQLite is compiled from source the first time; that takes about three minutes.');
  const started = Date.now();
  const status = await new Promise((resolve) => {
    // Not `npm ci`: it refuses a lock file made where some platforms' optional packages were not to be had.
    const child = spawn('npm', ['install', '--no-save', '--no-audit', '--no-fund', '--loglevel=error'], {
      cwd: ROOT,
      stdio: 'inherit',
    });
    const sign = setInterval(
      () => console.log(`… still at work, ${Math.round((Date.now() - started) / 1000)} s`),
      20_000,
    );
    child.once('exit', (code) => {
      clearInterval(sign);
      resolve(code ?? 1);
    });
  });
  if (status !== 0) {
    console.error(
      'The packages could not be installed. A C++ compiler, make and python3 are needed for SQLite (Debian: apt-get install build-essential python3).',
    );
    process.exit(1);
  }
  fs.writeFileSync(MARK, wanted);
}

/** Asks Debian's package manager for some packages; tells nothing of whether it worked. */
function aptInstall(...names) {
  const asRoot = process.getuid?.() === 0 ? [] : ['sudo', '-n'];
  const apt = (...args) =>
    run(asRoot[0] ?? 'apt-get', [...asRoot.slice(1), ...(asRoot.length > 0 ? ['apt-get'] : []), ...args], {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
  apt('update');
  apt('install', '-y', '--no-install-recommends', ...names);
}

/** Finds Chromium, installs it where that is possible, or says what to do. */
export function ensureChromium() {
  if (fs.existsSync(CHROMIUM)) return;
  console.log('Chromium is missing; trying to install it with apt-get.');
  aptInstall('chromium');
  if (!fs.existsSync(CHROMIUM)) {
    console.error(
      'The browser tests need Chromium. Install it (Debian: apt-get install chromium) or name it in the variable CHROMIUM.',
    );
    process.exit(1);
  }
}

/** Finds ffprobe, by which the tests look at video from outside; the program itself does not need it. */
export function ensureFfprobe() {
  const isThere = () => spawnSync('ffprobe', ['-version'], { stdio: 'ignore' }).status === 0;
  if (isThere()) return;
  console.log('ffprobe is missing; trying to install ffmpeg with apt-get.');
  aptInstall('ffmpeg');
  if (!isThere()) {
    console.error('The tests of video need ffprobe. Install it (Debian: apt-get install ffmpeg).');
    process.exit(1);
  }
}
