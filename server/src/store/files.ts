import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { mkdir, open, readdir, readFile, rename, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable } from 'node:stream';

/** Photos and papers, each by the SHA-256 of its bytes: what is there twice is kept once. */
export interface Files {
  /** Keeps bytes, on the disk when it returns. @returns their SHA-256 as hexadecimal */
  put(bytes: Uint8Array): Promise<string>;
  /** @returns null where there are none (any more) */
  read(sha256: string): Promise<Uint8Array | null>;
  /** The same in pieces. */
  open(sha256: string): Readable;
  has(sha256: string): Promise<boolean>;
  /** Lets go of what nothing names any more. @returns names of which nothing is there */
  sweep(named: ReadonlySet<string>): Promise<string[]>;
}

export const hashOf = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

const HASH = /^[0-9a-f]{64}$/;

/** Files in a folder of the data directory. */
export class FolderFiles implements Files {
  constructor(private readonly folder: string) {}

  async put(bytes: Uint8Array): Promise<string> {
    const hash = hashOf(bytes);
    await mkdir(this.folder, { recursive: true, mode: 0o700 });
    const draft = join(this.folder, `${hash}.part`);
    const file = await open(draft, 'w', 0o600);
    try {
      await file.writeFile(bytes);
      await file.sync();
    } catch (error) {
      await file.close();
      await rm(draft, { force: true });
      throw error;
    }
    await file.close();
    await rename(draft, join(this.folder, hash));
    const folder = await open(this.folder, 'r');
    await folder.sync();
    await folder.close();
    return hash;
  }

  async read(sha256: string): Promise<Uint8Array | null> {
    if (!HASH.test(sha256)) return null;
    try {
      return await readFile(join(this.folder, sha256));
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code === 'ENOENT') return null;
      throw error;
    }
  }

  open(sha256: string): Readable {
    return HASH.test(sha256) ? createReadStream(join(this.folder, sha256)) : Readable.from([]);
  }

  async has(sha256: string): Promise<boolean> {
    return HASH.test(sha256) && (await stat(join(this.folder, sha256)).catch(() => null)) !== null;
  }

  async sweep(named: ReadonlySet<string>): Promise<string[]> {
    const there = new Set(await readdir(this.folder).catch(() => []));
    for (const name of there) if (!named.has(name)) await rm(join(this.folder, name), { force: true });
    return [...named].filter((name) => !there.has(name));
  }
}

/** The same in memory, for tests. */
export class MemoryFiles implements Files {
  private readonly there = new Map<string, Uint8Array>();

  put(bytes: Uint8Array): Promise<string> {
    const hash = hashOf(bytes);
    this.there.set(hash, bytes);
    return Promise.resolve(hash);
  }

  read(sha256: string): Promise<Uint8Array | null> {
    return Promise.resolve(this.there.get(sha256) ?? null);
  }

  open(sha256: string): Readable {
    return Readable.from([Buffer.from(this.there.get(sha256) ?? [])]);
  }

  has(sha256: string): Promise<boolean> {
    return Promise.resolve(this.there.has(sha256));
  }

  sweep(named: ReadonlySet<string>): Promise<string[]> {
    for (const name of this.there.keys()) if (!named.has(name)) this.there.delete(name);
    return Promise.resolve([...named].filter((name) => !this.there.has(name)));
  }
}
