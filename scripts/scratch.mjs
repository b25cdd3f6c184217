import { existsSync, mkdtempSync, rmSync, statfsSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** What the tests put down at a time, with room to spare. */
const NEEDED_BYTES = 4 * 2 ** 30;
const MEMORY = '/dev/shm';

/**
 * A folder for what is thrown away, in memory where that has room: tests make and drop a database each, and a disk takes
 * longer over that than they do.
 *
 * @returns its path; it goes with this process
 */
export function scratch() {
  const hasRoom = () => {
    const { bavail, bsize } = statfsSync(MEMORY);
    return bavail * bsize >= NEEDED_BYTES;
  };
  const path = mkdtempSync(join(existsSync(MEMORY) && hasRoom() ? MEMORY : tmpdir(), 'wunsch-tests-'));
  process.once('exit', () => rmSync(path, { recursive: true, force: true }));
  for (const signal of ['SIGINT', 'SIGTERM']) process.once(signal, () => process.exit(1));
  return path;
}
