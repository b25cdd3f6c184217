/* What a browser has and jsdom lacks. */
const util = require('node:util');

for (const name of ['TextEncoder', 'TextDecoder']) globalThis[name] ??= util[name];
