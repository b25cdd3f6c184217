import { closeSync, fstatSync, openSync, readSync } from 'node:fs';
import { crc32 } from 'node:zlib';

/*
 * A file of named sections: a line that says what it is, the list of sections as JSON, the sections themselves (each on
 * a boundary of eight bytes, so that numbers can be looked at where they lie) and the
 * CRC-32 of all that: it finds what went wrong, it keeps nobody out.
 */

const MAGIC = 'wunsch checkpoint 2\n';
const SUM_BYTES = 4;
const ALIGNED = 8;

export type Numbers = Float64Array | Int32Array | Uint32Array | Uint16Array | Uint8Array;
export type Sections = Record<string, Uint8Array>;

const padded = (bytes: number): number => Math.ceil(bytes / ALIGNED) * ALIGNED;

export const bytesOf = (numbers: Numbers): Uint8Array =>
  new Uint8Array(numbers.buffer, numbers.byteOffset, numbers.byteLength);

interface Kind<N extends Numbers> {
  readonly BYTES_PER_ELEMENT: number;
  new (buffer: ArrayBuffer, from: number, length: number): N;
}

/** Numbers where they lie in a section. @throws Error where it is not there */
export function numbersIn<N extends Numbers>(Kind: Kind<N>, sections: Sections, name: string): N {
  const bytes = sections[name];
  if (!bytes) throw new Error(`there is no section ${name}`);
  return new Kind(bytes.buffer as ArrayBuffer, bytes.byteOffset, bytes.length / Kind.BYTES_PER_ELEMENT);
}

/** A sum that goes on: of nothing at all it would begin anew. */
const summed = (sum: number, bytes: Uint8Array): number => (bytes.length === 0 ? sum : crc32(bytes, sum));

/** The file that holds sections, in pieces. */
export function packSections(sections: Sections): Uint8Array[] {
  const list = Buffer.from(JSON.stringify(Object.entries(sections).map(([name, { length }]) => [name, length])));
  const head = Buffer.alloc(padded(MAGIC.length + 4 + list.length));
  head.write(MAGIC, 'latin1');
  head.writeUInt32LE(list.length, MAGIC.length);
  list.copy(head, MAGIC.length + 4);
  const pieces: Uint8Array[] = [head];
  for (const bytes of Object.values(sections)) pieces.push(bytes, new Uint8Array(padded(bytes.length) - bytes.length));
  const sum = Buffer.alloc(SUM_BYTES);
  sum.writeUInt32LE(pieces.reduce(summed, 0));
  return [...pieces, sum];
}

/** The sections of a file, each in memory of its own; null where it is none, or not whole. */
export function readSections(path: string): Sections | null {
  const file = openSync(path, 'r');
  try {
    let sum = 0;
    const next = (bytes: number): Buffer => {
      const buffer = Buffer.allocUnsafeSlow(bytes);
      if (readSync(file, buffer) !== bytes) throw new Error('the file ends too soon');
      sum = summed(sum, buffer);
      return buffer;
    };
    const begin = next(MAGIC.length + 4);
    if (begin.toString('latin1', 0, MAGIC.length) !== MAGIC) return null;
    const length = begin.readUInt32LE(MAGIC.length);
    if (length > fstatSync(file).size) return null;
    const list = next(padded(begin.length + length) - begin.length).toString('utf8', 0, length);
    const sections: Sections = {};
    for (const [name, bytes] of JSON.parse(list) as [string, number][])
      sections[name] = next(padded(bytes)).subarray(0, bytes);
    const found = Buffer.alloc(SUM_BYTES);
    return readSync(file, found) === SUM_BYTES && found.readUInt32LE() === sum ? sections : null;
  } catch {
    return null;
  } finally {
    closeSync(file);
  }
}
