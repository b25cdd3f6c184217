// The database engine is compiled once for all tests of a process.
const { readFileSync } = require('node:fs');
const { dirname, join } = require('node:path');
const { PGlite } = require('@electric-sql/pglite');

const compiled = Symbol.for('compiled');
if (!PGlite[compiled]) {
  const engine = (name) =>
    new WebAssembly.Module(readFileSync(join(dirname(require.resolve('@electric-sql/pglite')), name)));
  PGlite[compiled] = { pgliteWasmModule: engine('pglite.wasm'), initdbWasmModule: engine('initdb.wasm') };
  const { create } = PGlite;
  PGlite.create = (where, more) =>
    typeof where === 'string'
      ? create.call(PGlite, where, { ...PGlite[compiled], ...more })
      : create.call(PGlite, { ...PGlite[compiled], ...where });
}
