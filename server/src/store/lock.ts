import { chmodSync, mkdirSync, openSync, readFileSync, rmSync, writeSync, closeSync } from 'node:fs';
import { join } from 'node:path';

/** Another server has this data directory. */
export class DirectoryInUse extends Error {}

/** When a process was started, in clock ticks since boot: tells a process from a later one with its number. */
function startedAt(pid: number): string | null {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
    return stat.slice(stat.lastIndexOf(')') + 2).split(' ')[19] ?? null;
  } catch {
    return null;
  }
}

function isAlive(pid: number, started: string): boolean {
  try {
    process.kill(pid, 0);
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'EPERM') return false;
  }
  const now = startedAt(pid);
  return now === null || started === '' || now === started;
}

/**
 * Takes a data directory for this process. A lock left by a killed server is recognised as dead and taken over.
 *
 * @returns a function that gives it back
 * @throws DirectoryInUse when a live process holds it
 */
export function lockDirectory(directory: string): () => void {
  // Wages, suppliers and buyers are nobody else's business on this machine.
  mkdirSync(directory, { recursive: true, mode: 0o700 });
  chmodSync(directory, 0o700);
  const path = join(directory, 'wunsch.lock');
  for (let attempt = 0; attempt < 2; attempt += 1) {
    try {
      const file = openSync(path, 'wx', 0o600);
      writeSync(file, `${process.pid} ${startedAt(process.pid) ?? ''}`);
      closeSync(file);
      return () => rmSync(path, { force: true });
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error;
      const [pid = '0', started = ''] = readFileSync(path, 'utf8').split(' ');
      if (Number(pid) > 0 && isAlive(Number(pid), started)) {
        throw new DirectoryInUse(
          `The data directory ${directory} is in use by process ${pid}. Stop that server first, or set WUNSCH_DATA to another directory.`,
        );
      }
      rmSync(path, { force: true });
    }
  }
  throw new DirectoryInUse(`The data directory ${directory} could not be locked: another server is starting.`);
}
