// Jest asks which test a promise belongs to, for which Node follows every promise there is: a sixth of what the tests of the
// server take. Tests of a process run one after another, so that it is the one that runs.
const { AsyncLocalStorage } = require('node:async_hooks');

const running = new WeakMap();
AsyncLocalStorage.prototype.getStore = function () {
  return running.get(this);
};
AsyncLocalStorage.prototype.run = function (store, act, ...given) {
  const before = running.get(this);
  const ended = () => running.set(this, before);
  running.set(this, store);
  let result;
  try {
    result = act(...given);
  } catch (error) {
    ended();
    throw error;
  }
  if (typeof result?.then === 'function') return result.finally(ended);
  ended();
  return result;
};
