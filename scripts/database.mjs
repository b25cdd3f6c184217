import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { PGlite } from '@electric-sql/pglite';
import { drizzle } from 'drizzle-orm/pglite';
import { migrate } from 'drizzle-orm/pglite/migrator';

/**
 * Makes databases that nobody has entered anything into, as a first start needs one and every test: `bare.tar` has no
 * table, `empty.tar` those of the migrations, and so has the directory `empty`.
 */
export async function writeDatabases(migrations, to) {
  rmSync(to, { recursive: true, force: true });
  mkdirSync(to, { recursive: true });
  const client = await PGlite.create();
  // What new databases are copied from is two thirds of one that stays the only one: each start and each copy goes through
  // all of its files.
  await client.exec('update pg_database set datistemplate = false where datname <> current_database()');
  for (const name of ['template0', 'template1']) await client.exec(`drop database ${name}`);
  await client.exec('checkpoint');
  const dump = async (name) => {
    const packed = await client.dumpDataDir('none');
    writeFileSync(join(to, name), Buffer.from(await packed.arrayBuffer()));
    return packed;
  };
  await dump('bare.tar');
  await migrate(drizzle(client), { migrationsFolder: migrations });
  const packed = await dump('empty.tar');
  await client.close();
  await (await PGlite.create({ dataDir: join(to, 'empty'), loadDataDir: packed })).close();
}
