// The program's own source is loaded once for all tests of a process, by Node itself, as a server loads it: to load it for
// each test file took as long as the tests of many.
const { createHash } = require('node:crypto');
const { readFileSync } = require('node:fs');
const { join } = require('node:path');
const { transformSync } = require('@swc/core');
const packages = require('./packages.cjs');
const swc = require('./swc.cjs');

const options = {
  ...swc,
  jsc: { ...swc.jsc, baseUrl: join(__dirname, '../..'), paths: { '@wunsch/core/*': ['core/src/*'] } },
};
const compile = (source, filename, more = {}) => transformSync(source, { ...options, ...more, filename });

/** Lets Node load the program's source as it stands. */
function loadSource() {
  require.extensions['.ts'] = (module, filename) =>
    module._compile(compile(readFileSync(filename, 'utf8'), filename).code, filename);
}

module.exports = {
  loadSource,
  // The map is for Jest, which tells in which line something went wrong.
  process: (source, filename, asked) => ({
    ...packages.process(source, filename, asked),
    map: compile(source, filename, { sourceMaps: true }).map,
  }),
  getCacheKey: (source, filename, asked) =>
    createHash('sha256')
      .update(JSON.stringify([packages.getCacheKey(source, filename, asked), source, options]))
      .digest('hex'),
};
