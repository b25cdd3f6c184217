import type { Sections } from './sections';
import { bytesOf } from './sections';

/*
 * Many texts in one piece of memory, found by their numbers and by what they say. As strings in a map each would take
 * eight times the room of its letters.
 */

const EMPTY = 0;
/** Letters of one text that are looked for without asking for memory. */
const SCRATCH = Buffer.allocUnsafeSlow(1024);

/** FNV-1a of some bytes. */
function hashOf(bytes: Uint8Array, from: number, to: number): number {
  let hash = 0x811c9dc5;
  for (let i = from; i < to; i += 1) hash = Math.imul(hash ^ (bytes[i] ?? 0), 0x01000193);
  return hash >>> 0;
}

export class Packed {
  /** Numbers, plus one, each at the place that its hash says or after it. */
  private readonly table: Uint32Array;

  private constructor(
    private readonly bytes: Buffer,
    /** Where each text ends. */
    private readonly ends: Uint32Array,
  ) {
    // At most half full: what is not there is found out soon.
    this.table = new Uint32Array(2 ** Math.ceil(Math.log2(2 * ends.length + 2)));
    for (let number = 0; number < ends.length; number += 1) {
      let at = this.place(hashOf(bytes, this.begin(number), ends[number] ?? 0));
      while (this.table[at] !== EMPTY) at = this.place(at + 1);
      this.table[at] = number + 1;
    }
  }

  /** @param texts each once */
  static of(texts: Iterable<string>): Packed {
    const ends: number[] = [];
    const pieces: Buffer[] = [];
    let end = 0;
    for (const text of texts) {
      const piece = Buffer.from(text);
      pieces.push(piece);
      ends.push((end += piece.length));
    }
    return new Packed(Buffer.concat(pieces), Uint32Array.from(ends));
  }

  /** The texts that lie in a file under a name. @throws Error where they are not there */
  static open(name: string, sections: Sections): Packed {
    const [bytes, ends] = [sections[`${name}.bytes`], sections[`${name}.ends`]];
    if (!bytes || !ends) throw new Error(`there is no section ${name}`);
    return new Packed(
      Buffer.from(bytes.buffer, bytes.byteOffset, bytes.length),
      new Uint32Array(ends.buffer as ArrayBuffer, ends.byteOffset, ends.length / 4),
    );
  }

  /** The texts as sections of a file. */
  sections(name: string): Sections {
    return { [`${name}.bytes`]: bytesOf(this.bytes), [`${name}.ends`]: bytesOf(this.ends) };
  }

  private place(hash: number): number {
    return hash & (this.table.length - 1);
  }

  private begin(number: number): number {
    return number === 0 ? 0 : (this.ends[number - 1] ?? 0);
  }

  get length(): number {
    return this.ends.length;
  }

  /** The text of a number; undefined where there is none. */
  text(number: number): string | undefined {
    return number < this.ends.length ? this.bytes.toString('utf8', this.begin(number), this.ends[number]) : undefined;
  }

  /** The number of a text; undefined where it is not there. */
  find(text: string): number | undefined {
    const fits = 3 * text.length <= SCRATCH.length;
    const wanted = fits ? SCRATCH.subarray(0, SCRATCH.write(text)) : Buffer.from(text);
    for (let at = this.place(hashOf(wanted, 0, wanted.length)); ; at = this.place(at + 1)) {
      const number = (this.table[at] ?? EMPTY) - 1;
      if (number < 0) return undefined;
      if (wanted.compare(this.bytes, this.begin(number), this.ends[number]) === 0) return number;
    }
  }

  *[Symbol.iterator](): Generator<string> {
    for (let number = 0; number < this.ends.length; number += 1) yield this.text(number) ?? '';
  }
}
