// The program's own source is loaded once for all tests of a process, by Node itself, as a server loads it: to load it for
// each test file took as long as the tests of many.
const { readFileSync } = require('node:fs');
const { join } = require('node:path');
const { transformSync } = require('@swc/core');
const packages = require('./packages.cjs');
const swc = require('./swc.cjs');

const options = {
  ...swc,
  jsc: { ...swc.jsc, baseUrl: join(__dirname, '../..'), paths: { '@wunsch/core/*': ['core/src/*'] } },
  sourceMaps: 'inline',
};

/** Lets Node load the program's source as it stands. */
function loadSource() {
  require.extensions['.ts'] = (module, filename) =>
    module._compile(transformSync(readFileSync(filename, 'utf8'), { ...options, filename }).code, filename);
}

module.exports = { ...packages, loadSource };
