import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { mkdir, open, readdir, rename, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGunzip, createGzip } from 'node:zlib';
import { Disk } from './disk';

/** Why a backup was made. */
export const REASONS = ['daily', 'asked', 'before-restore', 'before-migration'] as const;
export type BackupReason = (typeof REASONS)[number];

export interface Backup {
  name: string;
  reason: BackupReason;
  at: number;
  bytes: number;
}

const NAME = /^wunsch-(\d{8})T(\d{6})(\d{3})Z-([a-z-]+)\.json\.gz$/;
const DAY_MS = 86_400_000;

const nameOf = (at: number, reason: BackupReason): string =>
  `wunsch-${new Date(at).toISOString().replace(/[-:.]/g, '')}-${reason}.json.gz`;

function parse(name: string): Pick<Backup, 'at' | 'reason'> | null {
  const match = NAME.exec(name);
  if (!match) return null;
  const [day = '', time = '', ms = '', reason = ''] = match.slice(1);
  const at = Date.parse(
    `${day.slice(0, 4)}-${day.slice(4, 6)}-${day.slice(6)}T${time.slice(0, 2)}:${time.slice(2, 4)}:${time.slice(4)}.${ms}Z`,
  );
  return Number.isNaN(at) || !(REASONS as readonly string[]).includes(reason)
    ? null
    : { at, reason: reason as BackupReason };
}

/**
 * Which backups are kept: every one of the last week, the last of each week for two months, the last of each month
 * for two years; those made before something was replaced for three months. The newest always.
 *
 * @returns the names to delete
 */
export function outdated(backups: readonly Backup[], now: number): string[] {
  const newestFirst = [...backups].sort((a, b) => b.at - a.at);
  const [newest] = newestFirst;
  const seen = new Set<string>();
  return newestFirst
    .filter(({ name, at, reason }) => {
      const days = (now - at) / DAY_MS;
      if (name === newest?.name || days < 7) return false;
      if (reason.startsWith('before-') && days < 92) return false;
      const slot =
        days < 62
          ? `week ${Math.floor(at / (7 * DAY_MS))}`
          : days < 732
            ? new Date(at).toISOString().slice(0, 7)
            : null;
      if (slot === null || seen.has(slot)) return true;
      seen.add(slot);
      return false;
    })
    .map(({ name }) => name);
}

/** Whole copies of the workshop beside it, each read back before it counts. */
export class Backups {
  private making: Promise<Backup> | null = null;

  constructor(
    readonly directory: string,
    private readonly now: () => number,
    /** The whole workshop as one JSON document, in pieces. */
    private readonly document: () => AsyncIterable<string>,
    /** Where they are kept; watched, so that a backup does not fill it. */
    private readonly disk = new Disk(null),
  ) {}

  /** Newest first. */
  async list(): Promise<Backup[]> {
    const names = await readdir(this.directory).catch(() => []);
    const rows = await Promise.all(
      names.map(async (name): Promise<Backup | null> => {
        const known = parse(name);
        const file = known ? await stat(join(this.directory, name)).catch(() => null) : null;
        return known && file ? { name, ...known, bytes: file.size } : null;
      }),
    );
    return rows.filter((row) => row !== null).sort((a, b) => b.at - a.at);
  }

  /** Makes one, reads it back, and lets go of what the rule does not keep. One at a time. */
  make(reason: BackupReason): Promise<Backup> {
    const work = (this.making ?? Promise.resolve()).then(
      () => this.write(reason),
      () => this.write(reason),
    );
    this.making = work;
    void work.catch(() => undefined).then(() => (this.making === work ? (this.making = null) : undefined));
    return work;
  }

  private async write(reason: BackupReason): Promise<Backup> {
    await mkdir(this.directory, { recursive: true, mode: 0o700 });
    const at = this.now();
    const name = nameOf(at, reason);
    const path = join(this.directory, name);
    const draft = `${path}.part`;
    try {
      const wrote = createHash('sha256');
      const hashing = new Transform({
        transform(chunk: Buffer, _, done) {
          wrote.update(chunk);
          done(null, chunk);
        },
      });
      await pipeline(
        Readable.from(this.document()),
        hashing,
        createGzip({ level: 6 }),
        this.disk.watching(),
        createWriteStream(draft, { mode: 0o600 }),
      );
      const file = await open(draft, 'r');
      await file.sync();
      await file.close();
      const read = createHash('sha256');
      await pipeline(createReadStream(draft), createGunzip(), read);
      if (wrote.digest('hex') !== read.digest('hex')) throw new Error('what was read back is not what was written');
      await rename(draft, path);
      const folder = await open(this.directory, 'r');
      await folder.sync();
      await folder.close();
    } catch (error) {
      await rm(draft, { force: true });
      throw error;
    }
    for (const old of outdated(await this.list(), at)) await rm(join(this.directory, old), { force: true });
    return { name, reason, at, bytes: (await stat(path)).size };
  }

  /** The document of a backup, in pieces. @returns null where there is none of that name */
  async read(name: string): Promise<Readable | null> {
    const known = (await this.list()).some((row) => row.name === name);
    return known ? createReadStream(join(this.directory, name)).pipe(createGunzip()) : null;
  }

  /** The file itself, packed. */
  async file(name: string): Promise<Readable | null> {
    const known = (await this.list()).some((row) => row.name === name);
    return known ? createReadStream(join(this.directory, name)) : null;
  }
}
