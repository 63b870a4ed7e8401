// Keeps the modules of the core from one test file to the next of a process. Each file of tests would load some 400 of them again, which takes longer than
// most of the tests. The core holds no state that a test could leave behind: what it remembers, it remembers by the object that it was asked about.
const path = require('node:path');
const { default: Runtime } = require('jest-runtime');

const CORE = path.join(__dirname, '..', 'core', 'src') + path.sep;
/** Modules by path. */
const kept = new Map();
/** Where their lines are in the source, for stack traces. */
const maps = new Map();
const isKept = (file) => file.startsWith(CORE) && !file.endsWith('.test.ts');

/** The modules of one test file, those of the core taken from what is kept. */
class Modules extends Map {
  get(file) {
    return kept.get(file) ?? super.get(file);
  }
  has(file) {
    return kept.has(file) || super.has(file);
  }
  set(file, module) {
    if (!isKept(file)) return super.set(file, module);
    kept.set(file, module);
    return this;
  }
  delete(file) {
    return kept.delete(file) || super.delete(file);
  }
}

module.exports = class KeepingRuntime extends Runtime {
  constructor(...args) {
    super(...args);
    const { watch, watchAll } = args.at(-1);
    // Who watches changes files between two runs of one process.
    if (!watch && !watchAll) this.registries.moduleRegistry = new Modules();
  }

  getSourceMaps() {
    for (const [file, map] of super.getSourceMaps()) if (isKept(file)) maps.set(file, map);
    return new Map([...maps, ...super.getSourceMaps()]);
  }
};
module.exports.default = module.exports;
