// A test environment without a context of its own. In the usual one every look-up of a global (Math, Infinity, Float64Array) goes through an
// interceptor, which makes numeric code about a hundred times slower than it is in the product.
const vm = require('node:vm');
const { TestEnvironment } = require('jest-environment-node');

const MARK = { isThisContext: true };
const { runInContext } = vm.Script.prototype;
vm.Script.prototype.runInContext = function run(context, options) {
  return context === MARK ? this.runInThisContext(options) : runInContext.call(this, context, options);
};
const { compileFunction } = vm;
vm.compileFunction = (code, parameters, options) =>
  compileFunction(
    code,
    parameters,
    options?.parsingContext === MARK ? { ...options, parsingContext: undefined } : options,
  );

module.exports = class ThisContextEnvironment extends TestEnvironment {
  constructor(config, context) {
    super(config, context);
    this.global = globalThis;
  }

  getVmContext() {
    return MARK;
  }

  async teardown() {
    // The globals are the process's own: nothing to take down.
  }
};
