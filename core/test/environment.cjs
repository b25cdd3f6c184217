// Tests of arithmetic run in Node's own context: in a sandbox every look at a global (Math, NaN, Float64Array) costs
// as much as the arithmetic. They share globals, so none may leave anything behind there.
const { createContext, Script } = require('node:vm');
const { TestEnvironment } = require('jest-environment-node');

const own = new WeakSet();
const { runInContext } = Script.prototype;
Script.prototype.runInContext = function (context, options) {
  return own.has(context) ? this.runInThisContext(options) : runInContext.call(this, context, options);
};

module.exports = class extends TestEnvironment {
  constructor(config, context) {
    super(config, context);
    this.global = globalThis;
    this.context = createContext(globalThis);
    own.add(this.context);
  }

  async teardown() {
    this.context = null;
  }
};
