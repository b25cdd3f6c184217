// Tests run in Node's own context: in a sandbox every look at a global (Math, NaN, Float64Array) costs as much as the
// arithmetic. They share globals, so none may leave anything behind there.
const vm = require('node:vm');
const { TestEnvironment } = require('jest-environment-node');
const { loadSource } = require('./own.cjs');

const own = new WeakSet();
const { compileFunction } = vm;
/** What was compiled before, by its file: each test file runs it anew. */
const compiled = new Map();
vm.compileFunction = (code, names, { parsingContext, ...options } = {}) => {
  if (!own.has(parsingContext)) return compileFunction(code, names, { ...options, parsingContext });
  const before = compiled.get(options.filename);
  if (before?.code === code) return before.run;
  const run = compileFunction(code, names, options);
  compiled.set(options.filename, { code, run });
  return run;
};
const { runInContext } = vm.Script.prototype;
vm.Script.prototype.runInContext = function (context, options) {
  return own.has(context) ? this.runInThisContext(options) : runInContext.call(this, context, options);
};

/** For packages that are loaded once; see packages.cjs. */
globalThis.loadedByNode = require;

module.exports = class extends TestEnvironment {
  constructor(config, context) {
    super(config, context);
    loadSource();
    this.global = globalThis;
    this.context = vm.createContext({});
    own.add(this.context);
  }

  async teardown() {
    this.context = null;
  }
};
