import { closeSync, existsSync, fsyncSync, openSync, renameSync, rmSync, writeSync } from 'node:fs';
import { join } from 'node:path';
import { deserialize, serialize } from 'node:v8';
import type { Position } from '@wunsch/core/ledger/entries';
import type { Lasting, Settled } from '@wunsch/core/ledger/follower';
import { packSections, readSections, type Sections } from './sections';

/** Writes sections as a file, whole or not at all. @throws Error where the disk takes no more; what was there stays */
export function putSections(path: string, sections: Sections): void {
  const fresh = `${path}.new`;
  const file = openSync(fresh, 'w', 0o600);
  try {
    for (const piece of packSections(sections)) writeSync(file, piece);
    fsyncSync(file);
  } catch (error) {
    rmSync(fresh, { force: true });
    throw error;
  } finally {
    closeSync(file);
  }
  renameSync(fresh, path);
}

const HEAD = 'head';

interface Head {
  /** Which program wrote it, of which database. */
  build: string;
  lineage: string;
  settled: Record<string, Settled>;
}

/**
 * What is made of the book, in a file beside the checkpoint, up to where it is settled: who looks first after a start waits
 * for the last steps only. Whatever does not fit makes it no file at all; then the book is gone through.
 */
export class LastingFile {
  private readonly path: string;
  private kept: { head: Head; sections: Sections } | null = null;

  /** @param build which program this is: another may make something else of the same book */
  constructor(
    directory: string,
    private readonly build: string,
  ) {
    this.path = join(directory, 'checkpoint.made');
  }

  /** Reads it. @param lineage the database's */
  open(lineage: string): void {
    this.kept = null;
    const sections = existsSync(this.path) ? readSections(this.path) : null;
    if (!sections?.[HEAD]) return;
    const head = deserialize(sections[HEAD]) as Head;
    if (head.build === this.build && head.lineage === lineage) this.kept = { head, sections };
  }

  /** The last place in the order of the work that something in it is made of; null where there is none. */
  get upTo(): Position | null {
    const places = Object.values(this.kept?.head.settled ?? {});
    return (
      places.reduce<Settled | null>((last, own) => (last && last.place > own.place ? last : own), null)?.upTo ?? null
    );
  }

  settledOf(name: string): Settled | null {
    return this.kept?.head.settled[name] ?? null;
  }

  /** Lets something go on from what was kept of it, if anything was. */
  resume(name: string, lasting: Lasting): void {
    const settled = this.settledOf(name);
    const bytes = this.kept?.sections[name];
    if (settled === null || !bytes) return;
    lasting.resume(deserialize(bytes), settled);
    // It is read once, and takes no room after that.
    delete this.kept?.sections[name];
  }

  /** @throws Error where the disk takes no more */
  write(lineage: string, all: ReadonlyMap<string, { past: unknown; settled: Settled }>): void {
    const head: Head = {
      build: this.build,
      lineage,
      settled: Object.fromEntries(Array.from(all, ([name, { settled }]) => [name, settled])),
    };
    putSections(this.path, {
      [HEAD]: serialize(head),
      ...Object.fromEntries(Array.from(all, ([name, { past }]) => [name, serialize(past)])),
    });
    this.kept = { head, sections: {} };
  }

  drop(): void {
    this.kept = null;
    rmSync(this.path, { force: true });
  }
}
