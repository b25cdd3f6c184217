// Makes one migrated database for all tests. Each test file then loads a copy.
const { mkdirSync, writeFileSync, readFileSync, existsSync, readdirSync } = require('node:fs');
const { createHash } = require('node:crypto');
const { join } = require('node:path');

module.exports = async () => {
  const cache = join(__dirname, '../../.cache');
  const migrations = join(__dirname, '../migrations');
  const hash = createHash('sha256');
  for (const name of readdirSync(migrations).filter((file) => file.endsWith('.sql')))
    hash.update(readFileSync(join(migrations, name)));
  const stamp = hash.digest('hex');
  const template = join(cache, 'pg-template.tar');
  if (existsSync(template) && existsSync(`${template}.stamp`) && readFileSync(`${template}.stamp`, 'utf8') === stamp)
    return;
  const { PGlite } = require('@electric-sql/pglite');
  const { drizzle } = require('drizzle-orm/pglite');
  const { migrate } = require('drizzle-orm/pglite/migrator');
  const client = await PGlite.create();
  await migrate(drizzle(client), { migrationsFolder: migrations });
  const dump = await client.dumpDataDir('none');
  mkdirSync(cache, { recursive: true });
  writeFileSync(template, Buffer.from(await dump.arrayBuffer()));
  writeFileSync(`${template}.stamp`, stamp);
  await client.close();
};
