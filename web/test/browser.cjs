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

/** What is not shown, by its element alone. */
const UNSEEN = new Set(['HEAD', 'LINK', 'META', 'NOSCRIPT', 'SCRIPT', 'STYLE', 'TEMPLATE', 'TITLE', 'DATALIST']);

/**
 * How an element is shown where there is no style sheet, as in these tests: by what is said at it, and whether it is
 * hidden. To go through a browser's own sheet for each one takes a sixth of their time.
 */
function styleOf(element, pseudo) {
  if (pseudo) return { content: '', display: 'inline', visibility: 'visible', getPropertyValue: () => '' };
  const inherited = (name) => {
    for (let above = element; above; above = above.parentElement) if (above.style?.[name]) return above.style[name];
    return undefined;
  };
  const worked = {
    display: element.hidden || UNSEEN.has(element.tagName) ? 'none' : element.style?.display || 'block',
    visibility: inherited('visibility') ?? 'visible',
  };
  const valueOf = (name) => worked[name] ?? element.style?.[name] ?? '';
  return new Proxy(worked, {
    get: (_, name) => (name === 'getPropertyValue' ? valueOf : valueOf(name)),
  });
}
if (typeof window !== 'undefined') window.getComputedStyle = styleOf;
