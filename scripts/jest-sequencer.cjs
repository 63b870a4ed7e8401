const { default: Sequencer } = require('@jest/test-sequencer');

/** Files that take long, the longest first: they come last, so that a failure elsewhere is seen in two minutes, and fill both cores to the end. */
const SLOW = [
  'morph/invariance',
  'morph/morph',
  'morph/tangles',
  'plan/taken-way',
  'reading/others-files',
  'morph/any-outlines',
  'morph/rank',
  'reading/moving-file',
  'output/animated-svg',
  'document/hostile',
  'output/code-module',
  'demo/any-piece',
];
const placeOf = ({ path }) => SLOW.findIndex((name) => path.includes(`${name}.test.`));

module.exports = class QuickFirst extends Sequencer {
  /** Quick ones in the order of their names. */
  sort(tests) {
    return [...tests].sort((p, q) => placeOf(p) - placeOf(q) || (p.path < q.path ? -1 : 1));
  }
};
