import { statfsSync } from 'node:fs';
import { Transform } from 'node:stream';
import { DomainError } from '@wunsch/core/errors/domain-error';

const MB = 1024 * 1024;
/**
 * Room that stays free: the database takes its log in segments of 16 MB, and one that finds no room for the next does
 * not come back. No write is begun below this.
 */
const RESERVE = 64 * MB;
/** Between two looks while something long is written. */
const LOOK_EVERY = 16 * MB;
/** Below this every screen says so. */
const LITTLE = 512 * MB;

/** The disk under a data directory. */
export class Disk {
  /** @param directory null where everything is in memory; @param reserve bytes that stay free */
  constructor(
    private readonly directory: string | null,
    private readonly reserve = RESERVE,
  ) {}

  private free(): number {
    if (this.directory === null) return Infinity;
    const { bavail, bsize } = statfsSync(this.directory);
    return bavail * bsize;
  }

  /**
   * Makes sure that there is room to write. At once: whoever asks goes on before anything else happens.
   *
   * @param bytes how much is to be written beside the usual
   * @throws DomainError `store/disk-full`
   */
  room(bytes = 0): void {
    const free = this.free();
    if (free - bytes >= this.reserve) return;
    throw new DomainError(
      'store/disk-full',
      `The disk is full: ${Math.round(free / MB)} MB are left, ${Math.round((this.reserve + bytes) / MB)} MB are needed. Nothing of this was saved, what was saved before is kept and can be read. Make room on the machine, then try again.`,
    );
  }

  /** Lets something long through as long as there is room for more of it. */
  watching(): Transform {
    let seen = 0;
    const take = (chunk: Buffer): void => {
      const before = Math.floor(seen / LOOK_EVERY);
      const isFirst = seen === 0;
      seen += chunk.length;
      if (isFirst || Math.floor(seen / LOOK_EVERY) > before) this.room(LOOK_EVERY);
    };
    return new Transform({
      transform(chunk: Buffer, _, done) {
        try {
          take(chunk);
          done(null, chunk);
        } catch (error) {
          done(error as Error);
        }
      },
    });
  }

  /** What every screen should say about it; null while there is room. */
  warning(): string | null {
    const free = this.free();
    if (free < this.reserve)
      return `The disk is full (${Math.round(free / MB)} MB left): nothing can be saved until there is room on the machine. What was saved can be read.`;
    if (free < LITTLE) return `The disk is nearly full: ${Math.round(free / MB)} MB are left. Make room soon.`;
    return null;
  }
}
