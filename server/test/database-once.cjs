// The database engine is compiled once for all tests of a process, and a database in memory that begins empty is used
// again, emptied: to begin one takes as long as the tests of many files.
const { readFileSync, statSync } = require('node:fs');
const { dirname, join } = require('node:path');
const { PGlite } = require('@electric-sql/pglite');

const TEMPLATE = join(__dirname, '../dist/database/empty.tar');
const TABLES = "select string_agg(quote_ident(tablename), ', ') as names from pg_tables where schemaname = 'public'";
/** What a process that runs tests for another is told at the end. */
const END = 2;

const compiled = Symbol.for('compiled');
if (!PGlite[compiled]) {
  const engine = (name) =>
    new WebAssembly.Module(readFileSync(join(dirname(require.resolve('@electric-sql/pglite')), name)));
  PGlite[compiled] = { pgliteWasmModule: engine('pglite.wasm'), initdbWasmModule: engine('initdb.wasm') };
  const { create } = PGlite;
  const { close } = PGlite.prototype;
  const idle = [];
  const emptied = async (client) => {
    if (client.closed) return;
    const [{ names }] = (await client.query(TABLES)).rows;
    await client.exec(`rollback; truncate ${names} restart identity`);
    idle.push(client);
  };
  PGlite.create = async (where = {}, more = {}) => {
    if (typeof where === 'string') return create.call(PGlite, where, { ...PGlite[compiled], ...more });
    const { dataDir, loadDataDir } = where;
    const isUsedAgain =
      process.send !== undefined && dataDir === undefined && loadDataDir?.size === statSync(TEMPLATE).size;
    const client = (isUsedAgain && idle.pop()) || (await create.call(PGlite, { ...PGlite[compiled], ...where }));
    if (isUsedAgain) client.close = () => emptied(client);
    return client;
  };
  // A database that waits keeps a timer, and whoever listens keeps the process.
  const ended = ([what]) => {
    if (what !== END) return;
    process.off('message', ended);
    for (const client of idle) void close.call(client);
  };
  if (process.send) process.on('message', ended);
}
