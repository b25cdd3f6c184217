import { PGlite } from '@electric-sql/pglite';
import { drizzle, type PgliteDatabase } from 'drizzle-orm/pglite';
import { migrate } from 'drizzle-orm/pglite/migrator';
import { closeSync, fsyncSync, mkdirSync, openSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { WriteAheadLog } from './durable';
import * as schema from './schema';

export type Database = PgliteDatabase<typeof schema>;

export interface OpenDatabase {
  db: Database;
  client: PGlite;
  /** Waits until everything committed is on the disk. */
  sync(): Promise<void>;
  close(): Promise<void>;
}

/**
 * Opens (or makes) the database in a directory and brings it up to date.
 *
 * @param directory where the data is; null keeps everything in memory, for tests
 * @param migrations directory with the migration files
 * @param copies where a copy of the whole database goes before migrations change it; left out, none is made
 * @param prepared a data directory packed by `dumpDataDir`: saves the seconds of a first start
 */
export async function openDatabase(
  directory: string | null,
  migrations: string,
  prepared?: Blob,
  copies?: string,
): Promise<OpenDatabase> {
  const client = await PGlite.create({
    ...(directory === null ? {} : { dataDir: join(directory, 'pg') }),
    ...(prepared ? { loadDataDir: prepared } : {}),
  });
  const db = drizzle(client, { schema });
  if (directory !== null && copies !== undefined) await copyBeforeMigration(client, migrations, copies);
  await migrate(db, { migrationsFolder: migrations });
  const log = directory === null ? null : new WriteAheadLog(directory);
  return {
    db,
    client,
    sync: async () => {
      await log?.sync();
    },
    close: async () => {
      log?.close();
      await client.close();
    },
  };
}

/** Packs the database as it is into one file, where it is older than the migrations. A new one needs no copy. */
async function copyBeforeMigration(client: PGlite, migrations: string, copies: string): Promise<void> {
  const journal = JSON.parse(readFileSync(join(migrations, 'meta/_journal.json'), 'utf8')) as { entries: unknown[] };
  const { rows } = await client.query<{ there: string | null }>(
    "select to_regclass('drizzle.__drizzle_migrations')::text as there",
  );
  if (rows[0]?.there == null) return;
  const applied = await client.query<{ count: number }>(
    'select count(*)::int as count from drizzle.__drizzle_migrations',
  );
  if ((applied.rows[0]?.count ?? 0) >= journal.entries.length) return;
  mkdirSync(copies, { recursive: true, mode: 0o700 });
  const name = `wunsch-${new Date().toISOString().replace(/[-:.]/g, '')}-before-migration.tar.gz`;
  const dump = await client.dumpDataDir('gzip');
  const file = openSync(join(copies, name), 'wx', 0o600);
  try {
    writeFileSync(file, Buffer.from(await dump.arrayBuffer()));
    fsyncSync(file);
  } finally {
    closeSync(file);
  }
}
