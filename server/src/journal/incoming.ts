import type { Channel, Readings } from '@wunsch/core/run/readings';
import { Buffer } from 'node:buffer';
import { createReadStream, createWriteStream } from 'node:fs';
import { mkdtemp, open, rm, type FileHandle } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { setImmediate as breathe } from 'node:timers/promises';
import { createGunzip } from 'node:zlib';
import { JSONParser } from '@streamparser/json';
import { openPromise, type Entry, type ZipFile } from 'yauzl';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { LARGEST_FILE } from '../store/sniff';
import { unstorable } from '../store/text';
import { INCOMING, type Store } from '../store/database';
import { noRows } from '../store/records';
import type { FileMeta } from '@wunsch/core/workshop/kept';
import { badRestore, checkedBytes, readRow, type ListName, type Rows } from './bundle';

/** Between two rows of an export: no row is larger. */
const LARGEST_ROW = 64 * 1024 * 1024;
/** More rows than any workshop has: what holds more is not one. */
const MOST_ROWS = 5_000_000;

/** An export as it was read: rows in memory, each by its schema; readings of curves in a file beside, photos kept. */
export interface Incoming {
  settings: Record<string, unknown>;
  rows: Rows;
  /** The readings of the curve at an index of `rows.curves`. */
  readings(index: number): Promise<Readings>;
  /** Lets go of what was kept beside. */
  close(): Promise<void>;
}

const notOne = (detail: string): DomainError =>
  new DomainError('workshop/bad-restore', `That is no export of a workshop: ${detail}. Nothing was restored.`, [
    { path: 'format', message: 'is no export' },
  ]);

/** Readings of curves in a file: a second of a day's work would fill the memory. */
class Spool {
  private readonly places: { at: number; length: number; channels: readonly Channel[] }[] = [];
  private end = 0;

  private constructor(private readonly file: FileHandle) {}

  static async make(path: string): Promise<Spool> {
    return new Spool(await open(path, 'w+', 0o600));
  }

  async add({ channels, seconds, values }: Readings): Promise<void> {
    const bytes = Buffer.concat(
      [seconds, ...values].map((column) => Buffer.from(column.buffer, column.byteOffset, column.byteLength)),
    );
    this.places.push({ at: this.end, length: seconds.length, channels });
    await this.file.write(bytes, 0, bytes.length, this.end);
    this.end += bytes.length;
  }

  async read(index: number): Promise<Readings> {
    const { at, length, channels } = this.places[index] ?? { at: 0, length: 0, channels: [] };
    const bytes = Buffer.alloc(length * 8 * (1 + channels.length));
    await this.file.read(bytes, 0, bytes.length, at);
    const all = new Float64Array(bytes.buffer, bytes.byteOffset, length * (1 + channels.length));
    const column = (place: number): Float64Array => all.slice(place * length, (place + 1) * length);
    return { channels, seconds: column(0), values: channels.map((_, i) => column(i + 1)) };
  }

  close(): Promise<void> {
    return this.file.close();
  }
}

/**
 * Reads an export in pieces, whatever its size: the JSON document, packed by gzip or not, or the ZIP with the files
 * beside it. Others are answered meanwhile.
 *
 * @throws DomainError `workshop/bad-restore` naming the row and the field, `store/disk-full`
 */
export async function readExport(source: Readable, store: Store): Promise<Incoming> {
  const folder = await mkdtemp(join(store.directory ?? tmpdir(), INCOMING));
  const upload = join(folder, 'upload');
  let curves: Spool | null = null;
  const close = async (): Promise<void> => {
    await curves?.close().catch(() => undefined);
    await rm(folder, { recursive: true, force: true });
  };
  try {
    await pipeline(source, store.disk.watching(), createWriteStream(upload, { mode: 0o600 }));
    curves = await Spool.make(join(folder, 'curves'));
    const kept = curves;
    const reader = new Reader(kept, store);
    const first = await firstBytes(upload);
    if (first.subarray(0, 2).toString('latin1') === 'PK') await readZip(upload, reader);
    else if (first[0] === 0x1f && first[1] === 0x8b)
      await reader.document(createReadStream(upload).pipe(createGunzip()));
    else await reader.document(createReadStream(upload));
    const { settings, rows } = reader.end();
    return { settings, rows, readings: (index) => kept.read(index), close };
  } catch (error) {
    await close();
    if (error instanceof DomainError || error instanceof TypeError || error instanceof RangeError) throw error;
    const { message, code } = error as Error & { code?: string };
    if (code === 'ENOSPC') store.disk.room(Number.MAX_SAFE_INTEGER);
    // What the parser says of letters and positions helps nobody.
    throw notOne(
      /Unexpected|state/.test(message)
        ? 'it is neither its JSON document nor the ZIP with it, or it is damaged'
        : message,
    );
  }
}

async function firstBytes(path: string): Promise<Buffer> {
  const file = await open(path, 'r');
  try {
    const bytes = Buffer.alloc(4);
    await file.read(bytes, 0, 4, 0);
    return bytes;
  } finally {
    await file.close();
  }
}

async function readZip(path: string, reader: Reader): Promise<void> {
  const zip = await openPromise(path, { autoClose: false });
  try {
    const entries = new Map<string, Entry>();
    for await (const entry of zip.eachEntry()) entries.set(entry.fileName, entry);
    const document = entries.get('workshop.json');
    if (!document) throw notOne('there is no workshop.json in it');
    reader.bytesOf = async (sha256) => {
      const entry = entries.get(`files/${sha256}`);
      return entry ? bytesOf(zip, entry) : null;
    };
    await reader.document(await zip.openReadStreamPromise(document));
  } finally {
    zip.close();
  }
}

async function bytesOf(zip: ZipFile, entry: Entry): Promise<Buffer | null> {
  if (entry.uncompressedSize > LARGEST_FILE) return null;
  const pieces: Buffer[] = [];
  for await (const piece of await zip.openReadStreamPromise(entry)) pieces.push(piece as Buffer);
  return Buffer.concat(pieces);
}

/** Takes the document apart, row by row. */
class Reader {
  /** Where the bytes of a file are, when they are not in its row. */
  bytesOf: (sha256: string) => Promise<Buffer | null> = () => Promise.resolve(null);
  private readonly head = new Map<string, unknown>();
  private readonly settings: Record<string, unknown> = {};
  private readonly rows: Rows = noRows();
  private count = 0;
  private waiting: { list: string; value: unknown }[] = [];

  constructor(
    private readonly curves: Spool,
    private readonly store: Store,
  ) {}

  async document(stream: NodeJS.ReadableStream): Promise<void> {
    let sinceRow = 0;
    const parser = new JSONParser({ paths: ['$.format', '$.version', '$.*.*'], keepStack: false });
    parser.onValue = ({ value, key, stack }) => {
      sinceRow = 0;
      if (stack.length === 1) this.head.set(String(key), value);
      else if (stack[1]?.key === 'settings') this.settings[String(key)] = value;
      else this.waiting.push({ list: String(stack[1]?.key), value });
    };
    for await (const chunk of stream) {
      const bytes = chunk as Buffer;
      sinceRow += bytes.length;
      if (sinceRow > LARGEST_ROW) throw notOne('one row of it is larger than a whole workshop may be');
      parser.write(bytes);
      for (const { list, value } of this.waiting.splice(0)) await this.take(list, value);
      await breathe();
    }
    if (!parser.isEnded) throw notOne('it ends in the middle');
  }

  private async take(name: string, value: unknown): Promise<void> {
    if (!Object.hasOwn(this.rows, name))
      throw notOne(`it holds “${name.slice(0, 40)}”, which this version does not know; was it made by a newer one?`);
    const list = name as ListName;
    this.count += 1;
    if (this.count > MOST_ROWS) throw notOne('it has more rows than any workshop');
    const index = this.rows[list].length;
    const path = unstorable(value, `${list}.${index}`);
    if (path !== null) throw badRestore(path, `${list}, row ${index + 1}, holds characters that cannot be kept.`);
    const { row, curve, data } = readRow(list, value, index);
    if (curve) await this.curves.add(curve);
    if (list === 'files') await this.keepFile(row as FileMeta, data, index);
    (this.rows[list] as unknown[]).push(row);
  }

  private async keepFile(row: FileMeta, data: Buffer | undefined, index: number): Promise<void> {
    const bytes = data ?? (await this.bytesOf(row.sha256));
    if (!bytes || bytes.length === 0) throw badRestore(`files.${index}`, `File ${index + 1} is not in it.`);
    this.store.disk.room(bytes.length);
    const hash = await this.store.files.put(checkedBytes(bytes, row, index));
    if (row.sha256.length === hash.length && row.sha256 !== hash)
      throw badRestore(`files.${index}`, `File ${index + 1} is not what it says it is.`);
    row.sha256 = hash;
    row.size = bytes.length;
  }

  end(): Pick<Incoming, 'settings' | 'rows'> {
    if (this.head.get('format') !== 'wunsch-workshop') throw notOne('it does not say that it is one');
    if (this.head.get('version') !== 1) throw notOne('it is of another version');
    return { settings: this.settings, rows: this.rows };
  }
}
