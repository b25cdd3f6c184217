import { spawn } from 'node:child_process';
import {
  chmodSync,
  closeSync,
  existsSync,
  mkdirSync,
  openSync,
  readdirSync,
  readFileSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';

/** Another server has this data directory. */
export class DirectoryInUse extends Error {}

/** A directory that is no workshop's, or has lost its database. */
export class NoWorkshop extends Error {}

const LOCK = 'wunsch.lock';
/** Where a new database lies until all of it is there. */
export const UNFINISHED = 'pg.new';
/** Where whole copies are kept, unless WUNSCH_BACKUPS says otherwise. */
export const BACKUPS = 'backups';
/** What `flock` ends with when somebody else holds the lock. */
const HELD = 75;

/**
 * Takes a data directory for this process. The lock is the kernel's (flock on a file in it, held by a child that lives
 * as long as its standard input): it is good across containers on one machine, only one of many can take it, and it
 * is gone with the process, however that ends.
 *
 * @returns a function that gives it back
 * @throws DirectoryInUse when another server holds it
 */
export async function lockDirectory(directory: string): Promise<() => void> {
  // Wages, suppliers and buyers are nobody else's business on this machine.
  mkdirSync(directory, { recursive: true, mode: 0o700 });
  chmodSync(directory, 0o700);
  const path = join(directory, LOCK);
  closeSync(openSync(path, 'a', 0o600));
  chmodSync(path, 0o600);
  const holder = spawn(
    'flock',
    ['--nonblock', '--conflict-exit-code', String(HELD), path, 'sh', '-c', 'echo held; exec cat >/dev/null'],
    { stdio: ['pipe', 'pipe', 'ignore'], detached: true },
  );
  // The holder must not keep this process alive, nor a broken pipe end it.
  holder.stdin.on('error', () => undefined);
  await new Promise<void>((resolve, reject) => {
    holder.on('error', (error) =>
      reject(new Error(`The data directory could not be locked: ${error.message} (flock is in Debian’s util-linux).`)),
    );
    holder.stdout.once('data', () => resolve());
    holder.on('exit', (code) => {
      const other = code === HELD ? readFileSync(path, 'utf8').trim() : '';
      reject(
        new DirectoryInUse(
          `The data directory ${directory} is in use by another server${other === '' ? '' : ` (process ${other})`}. Stop that one first, or set WUNSCH_DATA to another directory.`,
        ),
      );
    });
  });
  holder.removeAllListeners('exit');
  holder.unref();
  (holder.stdin as unknown as { unref?: () => void }).unref?.();
  (holder.stdout as unknown as { unref?: () => void }).unref?.();
  writeFileSync(path, `${process.pid}`);
  return () => void holder.stdin.end();
}

/**
 * Refuses to begin a new workshop where something is already: a mistyped directory, or one that lost its database.
 *
 * @throws NoWorkshop
 */
export function checkDirectory(directory: string): void {
  const there = readdirSync(directory).filter((name) => name !== LOCK && name !== UNFINISHED);
  if (there.length === 0 || existsSync(join(directory, 'pg', 'PG_VERSION'))) return;
  const copies = existsSync(join(directory, BACKUPS)) ? readdirSync(join(directory, BACKUPS)).sort() : [];
  const newest = copies.at(-1);
  const hint =
    newest === undefined
      ? ''
      : ` The newest of ${copies.length} backups is ${join(directory, BACKUPS, newest)}: start with an empty WUNSCH_DATA and restore it there.`;
  throw new NoWorkshop(
    (there.includes('pg')
      ? `The database in ${directory} is missing or damaged (pg/PG_VERSION is not there). Nothing was changed. Bring the directory back from a backup, or restore an export into an empty one.`
      : `${directory} is not empty and holds no workshop. Nothing was changed. Set WUNSCH_DATA to another directory.`) +
      hint,
  );
}
