// npm run mutants -- FOLDER [--share 0.3] [--seed 1] [--at-once 2]: breaks the code of a folder on purpose, line by line, and counts how often a test notices.
// A share below 1 takes a seeded sample of lines. Prints the score and what went through; the whole report is in test-results/mutants.
import fs from 'node:fs';
import path from 'node:path';
import { ROOT, run } from './install.mjs';

const args = process.argv.slice(2);
const option = (name, otherwise) => {
  const at = args.indexOf(`--${name}`);
  return at >= 0 ? Number(args[at + 1]) : otherwise;
};
const folder = args.find((arg) => !arg.startsWith('--') && !/^[\d.]+$/.test(arg));
if (!folder || !fs.existsSync(path.join(ROOT, folder))) {
  console.error('Expected a folder of the project, such as core/src/lane.');
  process.exit(1);
}
const share = option('share', 1);
const seed = option('seed', 1);

/** Mulberry32, so that the same seed takes the same lines everywhere. */
function random(start) {
  let a = start;
  return () => {
    a = (a + 0x6d2b79f5) | 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** Lines of code of the folder that are to be broken, as ranges. */
function ranges() {
  const next = random(seed);
  const files = fs
    .readdirSync(path.join(ROOT, folder), { recursive: true })
    .map((name) => `${folder}/${name}`)
    .filter((name) => /\.ts$/.test(name) && !/\.test\.ts$|\.generated|index\.ts$|\.d\.ts$/.test(name))
    .sort();
  if (share >= 1) return files;
  return files.flatMap((name) => {
    const lines = fs.readFileSync(path.join(ROOT, name), 'utf8').split('\n');
    return lines.flatMap((line, i) => {
      // Types, comments and imports break nothing.
      const code = line.trim();
      const idle =
        code === '' || /^(\/\/|\/?\*|import |export \* |export type|readonly |\}|\)|type |interface )/.test(code);
      return !idle && next() < share ? [`${name}:${i + 1}-${i + 1}`] : [];
    });
  });
}

/** Tests beside the code, and where they are, those of the rooms that it is made for: the smaller ones are what should notice. */
const TESTS = {
  'core/src/easing': ['core/src/easing'],
  'core/src/lane': ['core/src/lane'],
  'core/src/paint': ['core/src/paint'],
  'core/src/frame': ['core/src/frame'],
  'core/src/output': ['core/src/output'],
  'core/src/piece': ['core/src/piece'],
  'core/src/match': ['core/src/match', 'core/src/morph'],
};
/** Tests that take long and look at everything. */
const SLOW = ['any-outlines', 'invariance', 'outside', 'morph/morph', 'known-answers'];
const heavy = /core\/src\/(match|morph)/.test(folder);
const report = 'test-results/mutants';
fs.mkdirSync(path.join(ROOT, report), { recursive: true });
const config = {
  testRunner: 'jest',
  coverageAnalysis: 'perTest',
  // What is worked out once when a file is loaded would have every test run again for each breakage.
  ignoreStatic: share < 1,
  mutate: ranges(),
  // Words of messages are no behaviour.
  mutator: { excludedMutations: ['StringLiteral'] },
  ignorePatterns: ['build', 'data', 'docs', 'test-results', 'web/src/**/*.scss'],
  concurrency: option('at-once', 2),
  timeoutMS: heavy ? 40_000 : 20_000,
  timeoutFactor: 2,
  reporters: ['json', 'clear-text', 'progress-append-only'],
  clearTextReporter: { logTests: false, reportTests: false, allowColor: false },
  jsonReporter: { fileName: `${report}/${folder.replace(/\W+/g, '-')}.json` },
  tempDirName: 'test-results/.mutants',
  jest: {
    projectType: 'custom',
    configFile: 'jest.config.mjs',
    enableFindRelatedTests: false,
    config: {
      testEnvironment: path.join(ROOT, 'scripts/jest-environment.cjs'),
      roots: (TESTS[folder] ?? [folder]).map((name) => `<rootDir>/${name}`),
      testPathIgnorePatterns: ['/node_modules/', ...SLOW.map((name) => `${name}\\.test\\.ts$`)],
    },
  },
};
const file = path.join(ROOT, config.jsonReporter.fileName.replace(/\.json$/, '.config.json'));
fs.writeFileSync(file, JSON.stringify(config, null, 2));
const status = run(`${ROOT}node_modules/.bin/stryker`, ['run', path.relative(ROOT, file)]);
const results = path.join(ROOT, config.jsonReporter.fileName);
if (status !== 0 || !fs.existsSync(results)) process.exit(status || 1);
const all = Object.values(JSON.parse(fs.readFileSync(results, 'utf8')).files).flatMap(({ mutants }) => mutants);
const count = (...states) => all.filter((mutant) => states.includes(mutant.status)).length;
const caught = count('Killed', 'Timeout');
const through = count('Survived', 'NoCoverage');
console.log(
  `${folder}: ${caught} of ${caught + through} breakages noticed, ${((100 * caught) / Math.max(1, caught + through)).toFixed(1)} % (share ${share}, seed ${seed})`,
);
