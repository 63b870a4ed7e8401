// npm test: installs what is missing, then lint, types, import rules, unused code, unit tests, builds, and drives the real interface.
// Ends with a line 'N passed, N failed'; steps without tests of their own count as one each.
import fs from 'node:fs';
import { ensureChromium, installPackages, ROOT, run } from './install.mjs';

await installPackages();
ensureChromium();

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

step('lint and formatting', bin('biome'), ['check', '.']);
step('types', bin('tsc'), ['-p', 'tsconfig.json']);
step('types of the core without DOM and Node', bin('tsc'), ['-p', 'core/tsconfig.json']);
step('import rules', bin('depcruise'), [
  '--config',
  'dependency-cruiser.config.cjs',
  'core/src',
  'server/src',
  'web/src',
]);
step('unused code', bin('knip'), []);
step('compiled piece schema', process.execPath, ['scripts/build-piece-check.mjs', '--check']);

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
