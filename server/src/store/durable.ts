import { closeSync, fdatasync, fsyncSync, openSync, readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';

/**
 * Brings the write-ahead log to the disk. The database writes it at every commit but leaves it in the machine's
 * memory; a power cut would take back what was answered.
 */
export class WriteAheadLog {
  private readonly folder: string;
  private readonly open = new Map<string, { file: number; changed: number }>();

  constructor(directory: string) {
    this.folder = join(directory, 'pg', 'pg_wal');
  }

  /** Waits until everything written to the log so far is on the disk. @returns how many segments had changed */
  async sync(): Promise<number> {
    const segments = readdirSync(this.folder).filter((name) => /^[0-9A-F]{24}$/.test(name));
    let fresh = false;
    const waiting: Promise<void>[] = [];
    for (const name of segments) {
      const path = join(this.folder, name);
      const changed = statSync(path).mtimeMs;
      const known = this.open.get(name);
      if (known && known.changed === changed) continue;
      fresh ||= known === undefined;
      const file = known?.file ?? openSync(path, 'r');
      this.open.set(name, { file, changed });
      waiting.push(new Promise((resolve, reject) => fdatasync(file, (error) => (error ? reject(error) : resolve()))));
    }
    await Promise.all(waiting);
    if (fresh) this.syncFolder();
    for (const [name, { file }] of this.open) {
      if (segments.includes(name)) continue;
      closeSync(file);
      this.open.delete(name);
    }
    return waiting.length;
  }

  /** A new segment is on the disk only when its name is. */
  private syncFolder(): void {
    const folder = openSync(this.folder, 'r');
    try {
      fsyncSync(folder);
    } finally {
      closeSync(folder);
    }
  }

  close(): void {
    for (const { file } of this.open.values()) closeSync(file);
    this.open.clear();
  }
}
