import { PGlite, types } from '@electric-sql/pglite';
import { lt } from 'drizzle-orm';
import { drizzle } from 'drizzle-orm/pglite';
import { migrate } from 'drizzle-orm/pglite/migrator';
import {
  closeSync,
  cpSync,
  existsSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import { Disk } from './disk';
import { WriteAheadLog } from './durable';
import { FolderFiles, MemoryFiles, type Files } from './files';
import { LastStep } from './last-step';
import { UNFINISHED } from './lock';
import { filesInside, movedOut } from './records';
import * as schema from './schema';
import type { Database } from './types';

/** Where a workshop is kept. */
export interface Store {
  db: Database;
  files: Files;
  disk: Disk;
  last: LastStep;
  /** Null where everything is in memory. */
  directory: string | null;
  /** Waits until everything committed is on the disk. */
  sync(): Promise<void>;
  /** Tidies up: lets go of dead rows, of old log, of answers that nobody asks for again. */
  upkeep(now: number): Promise<void>;
}

export interface OpenDatabase extends Store {
  client: PGlite;
  close(): Promise<void>;
}

/** A write is sent again within moments; after so long its first answer is no more kept. */
const ANSWERS_MS = 30 * 86_400_000;
/**
 * What the database keeps of its pages, in the memory of this process. Most of what is asked stands in the workshop's own
 * lists; the system keeps what is read of the files.
 */
const PAGES = 'shared_buffers=16MB';
/** Bytes go over as hexadecimal text; a curve has a million of them. */
const BYTES = {
  serializers: { [types.BYTEA]: (bytes: Uint8Array) => `\\x${Buffer.from(bytes).toString('hex')}` },
  parsers: { [types.BYTEA]: (text: string) => Buffer.from(text.slice(2), 'hex') },
};
/** Folders of the data directory in which an upload lies while it is read. */
export const INCOMING = 'incoming-';

/**
 * Opens (or makes) the database in a directory and brings it up to date.
 *
 * @param directory where the data is; null keeps everything in memory, for tests
 * @param migrations directory with the migration files
 * @param empty directory with a database that nothing was entered into: saves the same, for one that begins in a directory
 * @param copies where a copy of the whole database goes before migrations change it; left out, none is made
 * @param prepared a data directory packed by `dumpDataDir`: saves the seconds of a first start
 */
export async function openDatabase(
  directory: string | null,
  migrations: string,
  { prepared, empty, copies }: { prepared?: Blob; empty?: string; copies?: string } = {},
): Promise<OpenDatabase> {
  const disk = new Disk(directory);
  disk.room();
  if (directory !== null) {
    tidy(directory);
    if (empty !== undefined) begin(directory, empty);
  }
  const client = await PGlite.create({
    ...(directory === null ? {} : { dataDir: join(directory, 'pg') }),
    ...(prepared ? { loadDataDir: prepared } : {}),
    ...BYTES,
    startParams: [...PGlite.defaultStartParams, '-c', PAGES],
  });
  const db = drizzle(client, { schema });
  if (directory !== null && copies !== undefined) await copyBeforeMigration(client, migrations, copies);
  await migrate(db, { migrationsFolder: migrations });
  const files = directory === null ? new MemoryFiles() : new FolderFiles(join(directory, 'files'));
  // Pictures once lay in the database itself.
  for await (const { id, bytes } of filesInside(db)) await movedOut(db, id, await files.put(bytes));
  const log = directory === null ? null : new WriteAheadLog(directory);
  return {
    db,
    client,
    files,
    disk,
    last: new LastStep(directory),
    directory,
    sync: async () => {
      await log?.sync();
    },
    upkeep: async (now) => {
      disk.room();
      await db.delete(schema.answers).where(lt(schema.answers.at, now - ANSWERS_MS));
      for (const table of ['curves', 'curve_parts', 'works', 'batches', 'holdings', 'answers', 'files'])
        await client.exec(`vacuum ${table}`);
      await client.exec('checkpoint');
    },
    close: async () => {
      log?.close();
      await client.close();
    },
  };
}

/** Puts an empty database where there is none: all of it, or nothing. */
function begin(directory: string, empty: string): void {
  const [unfinished, there] = [join(directory, UNFINISHED), join(directory, 'pg')];
  rmSync(unfinished, { recursive: true, force: true });
  if (existsSync(there) || !existsSync(empty)) return;
  cpSync(empty, unfinished, { recursive: true });
  renameSync(unfinished, there);
}

/** What an upload that was cut short left behind. */
function tidy(directory: string): void {
  for (const name of readdirSync(directory))
    if (name.startsWith(INCOMING)) rmSync(join(directory, name), { recursive: true, force: true });
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
