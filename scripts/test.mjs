// npm test: installs what is missing, then lint, types, import rules, unused code, unit tests, builds, and drives the real interface.
// Ends with a line 'N passed, N failed'; steps without tests of their own count as one each.
import { spawn } from 'node:child_process';
import fs from 'node:fs';
import { ensureTestPrograms, installPackages, ROOT, run } from './install.mjs';

// SQLite is compiled without optimisation for tests: that takes a third of the time, and they hold little in it.
process.env.CFLAGS ??= '-O0';
process.env.CXXFLAGS ??= '-O0';
const programs = ensureTestPrograms();
const { compiled } = await installPackages();

let passed = 0;
let failed = 0;
/** What failed, repeated at the end: what stands far above is soon out of sight. */
const failures = [];
const bin = (name) => `${ROOT}node_modules/.bin/${name}`;
const started = Date.now();
const say = (text) => console.log(`\n== ${text} (${Math.round((Date.now() - started) / 1000)} s)`);

function fail(...names) {
  failed += names.length;
  failures.push(...names);
}

function step(name, command, args) {
  say(name);
  const good = run(command, args) === 0;
  if (good) passed++;
  else fail(name);
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
          if (code === 0) passed++;
          else fail(name);
          resolve();
        });
      }),
  );
  await Promise.all(ends);
}

/** TypeScript's own compiler is a native program since version 7, and four times as fast. Version 5 beside it is what the import rules are read with. */
const tsc = [`${ROOT}node_modules/typescript-native/bin/tsc`, '-p'];

await together([
  ['types', process.execPath, [...tsc, 'tsconfig.json']],
  ['types of the core without DOM and Node', process.execPath, [...tsc, 'core/tsconfig.json']],
  ['lint and formatting', bin('biome'), ['check', '.']],
  [
    'import rules',
    bin('depcruise'),
    ['--config', 'dependency-cruiser.config.cjs', 'core/src', 'server/src', 'web/src'],
  ],
  ['unused code', bin('knip'), []],
  ['compiled piece schema', process.execPath, ['scripts/build-piece-check.mjs', '--check']],
  ['sentences of documents and comments', process.execPath, ['scripts/plain-words.mjs']],
  ['files that documents name', process.execPath, ['scripts/doc-paths.mjs']],
  ['list of terms', bin('tsx'), ['scripts/terms.ts', '--check']],
  ['list of licences', process.execPath, ['scripts/licences.mjs', '--check']],
  ['code for files that are taken out', process.execPath, ['scripts/build-runtime.mjs', '--check']],
]);

/** Runs a test runner that writes its results to a file, and adds them; read() says how many passed, and the names of what failed. */
function suite(name, command, args, file, read) {
  say(name);
  fs.mkdirSync(`${ROOT}test-results`, { recursive: true });
  fs.rmSync(ROOT + file, { force: true });
  const status = run(command, args);
  const result = fs.existsSync(ROOT + file) ? read(JSON.parse(fs.readFileSync(ROOT + file, 'utf8'))) : undefined;
  passed += result?.passed ?? 0;
  fail(...(result?.failed ?? []));
  if (!result || (status !== 0 && result.failed.length === 0)) fail(`${name} (ended with ${status})`);
}

/** Runs the unit tests of folders. */
function unitTests(name, folders, file) {
  suite(name, bin('jest'), ['--json', `--outputFile=${file}`, ...folders], file, ({ numPassedTests, testResults }) => ({
    passed: numPassedTests,
    failed: testResults.flatMap(({ name, status, assertionResults }) => {
      const failed = assertionResults.filter((result) => result.status === 'failed');
      if (failed.length > 0) return failed.map((result) => result.fullName);
      return status === 'failed' ? [`${name.slice(ROOT.length)} (did not run)`] : [];
    }),
  }));
}

await programs;
// Only the server needs SQLite, which may still be compiled.
unitTests('unit tests of core and page', ['core/src', 'web/src'], 'test-results/unit.json');
await compiled;
unitTests('unit tests of the server', ['server/src'], 'test-results/unit-server.json');

/** Titles of the browser tests of a suite that did not end as they should, or only at another try. */
function unexpected({ title, specs = [], suites = [] }) {
  return [
    ...specs
      .filter((spec) => spec.tests.some(({ status }) => status === 'unexpected' || status === 'flaky'))
      .map((spec) => `${title} › ${spec.title}`),
    ...suites.flatMap(unexpected),
  ];
}

if (step('build', process.execPath, ['scripts/build.mjs'])) {
  suite(
    'the interface in Chromium',
    bin('playwright'),
    ['test', '--config', 'e2e/playwright.config.ts'],
    'test-results/e2e.json',
    ({ stats, errors, suites }) => ({
      passed: stats.expected,
      failed: [...suites.flatMap(unexpected), ...errors.map((error) => error.message ?? 'an error outside of tests')],
    }),
  );
}
say('done');
for (const name of failures) console.log(`failed: ${name}`);
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
