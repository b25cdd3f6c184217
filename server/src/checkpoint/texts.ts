import { createHash } from 'node:crypto';
import { closeSync, fstatSync, fsyncSync, ftruncateSync, openSync, readSync, writeSync } from 'node:fs';
import { open } from 'node:fs/promises';
import { Lately } from '../store/lately';

/** Bytes of a file, looked at where somebody asks. */
export type Texts = (from: number, to: number) => string;

/** Bytes of the file that are read together: what was entered after one another is asked for together. */
const BLOCK = 16_384;
/** Blocks that are kept in memory. */
const KEPT = 192;

/** A stretch of the file that was written at once. */
export interface Stretch {
  bytes: number;
  sha256: string;
}

const hashOf = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

/**
 * Texts behind one another in a file that only ever grows. What is asked for is read then: what nobody asks for takes no
 * memory.
 */
export class TextFile {
  private readonly file: number;
  /** Where in memory each block is that was read lately. */
  private readonly blocks = new Lately<number, number>(KEPT);
  private readonly memory = Buffer.allocUnsafeSlow(KEPT * BLOCK);
  private readonly whole: number;

  /**
   * @param stretches what has to be in it; what is behind that is cut off
   * @throws Error where less is there
   */
  constructor(
    private readonly path: string,
    readonly stretches: readonly Stretch[],
  ) {
    this.whole = stretches.reduce((sum, { bytes }) => sum + bytes, 0);
    this.file = openSync(path, stretches.length === 0 ? 'w+' : 'r+', 0o600);
    const { size } = fstatSync(this.file);
    if (size < this.whole) throw new Error('the file ends too soon');
    if (size > this.whole) ftruncateSync(this.file, this.whole);
  }

  readonly text: Texts = (from, to) => {
    const [first, last] = [Math.floor(from / BLOCK), Math.floor((to - 1) / BLOCK)];
    if (first === last) {
      const begin = this.block(first) - first * BLOCK;
      return this.memory.toString('utf8', begin + from, begin + to);
    }
    const bytes = Buffer.allocUnsafe(to - from);
    readSync(this.file, bytes, 0, bytes.length, from);
    return bytes.toString();
  };

  /** Brings a block to memory. @returns where it begins there */
  private block(number: number): number {
    const known = this.blocks.get(number);
    if (known !== undefined) return known;
    const begin = this.blocks.makeRoom() ?? this.blocks.size * BLOCK;
    readSync(this.file, this.memory, begin, BLOCK, number * BLOCK);
    this.blocks.set(number, begin);
    return begin;
  }

  /** Adds a stretch at the end. @returns all of them */
  append(bytes: Uint8Array): Stretch[] {
    if (bytes.length === 0) return [...this.stretches];
    for (let done = 0; done < bytes.length;)
      done += writeSync(this.file, bytes, done, bytes.length - done, this.whole + done);
    fsyncSync(this.file);
    return [...this.stretches, { bytes: bytes.length, sha256: hashOf(bytes) }];
  }

  /** Reads all of it again, others in between. @returns whether it is what was written */
  async isWhole(): Promise<boolean> {
    const file = await open(this.path);
    // One piece of memory for all of it: a new one for each part of the file would stay with the process.
    const part = Buffer.allocUnsafe(BLOCK);
    try {
      let from = 0;
      for (const { bytes, sha256 } of this.stretches) {
        const hash = createHash('sha256');
        for (const end = from + bytes; from < end;) {
          const { bytesRead } = await file.read(part, 0, Math.min(BLOCK, end - from), from);
          if (bytesRead === 0) return false;
          hash.update(part.subarray(0, bytesRead));
          from += bytesRead;
        }
        if (hash.digest('hex') !== sha256) return false;
      }
      return true;
    } finally {
      await file.close();
    }
  }

  close(): void {
    closeSync(this.file);
  }
}
