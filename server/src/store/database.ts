import { PGlite } from '@electric-sql/pglite';
import { drizzle, type PgliteDatabase } from 'drizzle-orm/pglite';
import { migrate } from 'drizzle-orm/pglite/migrator';
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
 * @param prepared a data directory packed by `dumpDataDir`: saves the seconds of a first start
 */
export async function openDatabase(
  directory: string | null,
  migrations: string,
  prepared?: Blob,
): Promise<OpenDatabase> {
  const client = await PGlite.create({
    ...(directory === null ? {} : { dataDir: join(directory, 'pg') }),
    ...(prepared ? { loadDataDir: prepared } : {}),
  });
  const db = drizzle(client, { schema });
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
