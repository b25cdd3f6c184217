/* What a browser has and jsdom lacks. */
const util = require('node:util');

for (const name of ['TextEncoder', 'TextDecoder']) globalThis[name] ??= util[name];

// React's parts for tests are in its development build only, whatever the tests are run under.
process.env.NODE_ENV = 'test';

if (typeof Element !== 'undefined') Element.prototype.scrollIntoView ??= () => undefined;
if (typeof window !== 'undefined')
  window.matchMedia ??= () => ({
    matches: false,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
  });
performance.measure ??= () => undefined;
globalThis.ResizeObserver ??= class {
  observe() {}
  unobserve() {}
  disconnect() {}
};
