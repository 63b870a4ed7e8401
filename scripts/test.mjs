// npm test: installs what is missing, then lint, types, import rules, unused code, unit tests, builds, and drives the real interface.
// Ends with a line 'N passed, N failed'; steps without tests of their own count as one each.
import { spawn } from 'node:child_process';
import fs from 'node:fs';
import { ensureChromium, ensureFfprobe, installPackages, ROOT, run } from './install.mjs';

await installPackages();
ensureChromium();
ensureFfprobe();

let passed = 0;
let failed = 0;
const bin = (name) => `${ROOT}node_modules/.bin/${name}`;
const started = Date.now();
const say = (text) => console.log(`\n== ${text} (${Math.round((Date.now() - started) / 1000)} s)`);

function step(name, command, args) {
  say(name);
  const good = run(command, args) === 0;
  if (good) passed++;
  else failed++;
  return good;
}

/** Runs steps side by side: one of them takes as long as all the others. What each says is printed when it ends. */
async function together(steps) {
  say(steps.map(([name]) => name).join(', '));
  const ends = steps.map(
    ([name, command, args]) =>
      new Promise((resolve) => {
        const child = spawn(command, args, { cwd: ROOT });
        let said = '';
        child.stdout.on('data', (chunk) => (said += chunk));
        child.stderr.on('data', (chunk) => (said += chunk));
        child.once('error', (error) => (said += error.message));
        child.once('close', (code) => {
          console.log(`-- ${name}: ${code === 0 ? 'passed' : 'failed'}\n${code === 0 ? '' : said}`);
          resolve(code === 0);
        });
      }),
  );
  for (const good of await Promise.all(ends))
    if (good) passed++;
    else failed++;
}

await together([
  ['types', bin('tsc'), ['-p', 'tsconfig.json']],
  ['types of the core without DOM and Node', bin('tsc'), ['-p', 'core/tsconfig.json']],
  ['lint and formatting', bin('biome'), ['check', '.']],
  [
    'import rules',
    bin('depcruise'),
    ['--config', 'dependency-cruiser.config.cjs', 'core/src', 'server/src', 'web/src'],
  ],
  ['unused code', bin('knip'), []],
  ['compiled piece schema', process.execPath, ['scripts/build-piece-check.mjs', '--check']],
  ['code for files that are taken out', process.execPath, ['scripts/build-runtime.mjs', '--check']],
]);

/** Runs a test runner that writes its counts to a file, and adds them. */
function suite(name, command, args, file, read) {
  say(name);
  fs.mkdirSync(`${ROOT}test-results`, { recursive: true });
  fs.rmSync(ROOT + file, { force: true });
  const status = run(command, args);
  let counts = { passed: 0, failed: 1 };
  if (fs.existsSync(ROOT + file)) counts = read(JSON.parse(fs.readFileSync(ROOT + file, 'utf8')));
  if (status !== 0 && counts.failed === 0) counts = { ...counts, failed: 1 };
  passed += counts.passed;
  failed += counts.failed;
}

suite(
  'unit tests',
  bin('jest'),
  ['--json', '--outputFile=test-results/unit.json'],
  'test-results/unit.json',
  ({ numPassedTests, numFailedTests, numFailedTestSuites, numRuntimeErrorTestSuites }) => ({
    passed: numPassedTests,
    failed: numFailedTests + (numFailedTests === 0 ? numFailedTestSuites : numRuntimeErrorTestSuites),
  }),
);
if (step('build', process.execPath, ['scripts/build.mjs'])) {
  suite(
    'the interface in Chromium',
    bin('playwright'),
    ['test', '--config', 'e2e/playwright.config.ts'],
    'test-results/e2e.json',
    ({ stats, errors }) => ({
      passed: stats.expected,
      failed: stats.unexpected + stats.flaky + (errors?.length ?? 0),
    }),
  );
}
say('done');
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
