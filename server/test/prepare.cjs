// Makes a bare and a migrated database for all tests. Each test file then loads a copy.
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
  const [template, bare] = [join(cache, 'pg-template.tar'), join(cache, 'pg-bare.tar')];
  if ([template, bare].every(existsSync) && readFileSync(`${template}.stamp`, 'utf8') === stamp) return;
  const { PGlite } = require('@electric-sql/pglite');
  const { drizzle } = require('drizzle-orm/pglite');
  const { migrate } = require('drizzle-orm/pglite/migrator');
  mkdirSync(cache, { recursive: true });
  const client = await PGlite.create();
  const dump = async (file) => writeFileSync(file, Buffer.from(await (await client.dumpDataDir('none')).arrayBuffer()));
  await dump(bare);
  await migrate(drizzle(client), { migrationsFolder: migrations });
  await dump(template);
  writeFileSync(`${template}.stamp`, stamp);
  await client.close();
};
