import { Near } from './near';
import { bytesOf, numbersIn, type Sections } from './sections';

/*
 * Many texts in one piece of memory, found by their numbers and by what they say. As strings in a map each would take
 * eight times the room of its letters.
 */

const EMPTY = 0;
/** Letters below this are one byte each, and the same as their codes. */
const ASCII = 0x80;

/** FNV-1a. */
const BASIS = 0x811c9dc5;
const mixed = (hash: number, byte: number): number => Math.imul(hash ^ byte, 0x01000193);

export class Packed {
  /** Numbers, plus one, each at the place that its hash says or after it. */
  private readonly table: Uint32Array;

  private constructor(
    private readonly bytes: Buffer,
    /** Where each text ends. */
    private readonly ends: Near,
    table?: Uint32Array,
  ) {
    this.table = table ?? this.placed();
  }

  private placed(): Uint32Array {
    const { bytes, ends } = this;
    // At most three quarters full: what is not there is found out soon.
    const table = new Uint32Array(2 ** Math.ceil(Math.log2((ends.length * 4) / 3 + 2)));
    for (let number = 0; number < ends.length; number += 1) {
      const end = ends.at(number);
      let hash = BASIS;
      for (let i = this.begin(number); i < end; i += 1) hash = mixed(hash, bytes[i] ?? 0);
      let at = hash & (table.length - 1);
      while (table[at] !== EMPTY) at = (at + 1) & (table.length - 1);
      table[at] = number + 1;
    }
    return table;
  }

  /** @param texts each once */
  static of(texts: Iterable<string>): Packed {
    return new Packed(Buffer.alloc(0), Near.of([])).with(texts);
  }

  /** These and others behind them. @param others each once, and none of these */
  with(others: Iterable<string>): Packed {
    const pieces = Array.from(others, (text) => Buffer.from(text));
    let end = this.bytes.length;
    const ends = [...this.ends, ...pieces.map(({ length }) => (end += length))];
    return new Packed(Buffer.concat([this.bytes, ...pieces]), Near.of(ends));
  }

  /** The texts that lie in a file under a name. @throws Error where they are not there */
  static open(name: string, sections: Sections): Packed {
    const { buffer, byteOffset, length } = numbersIn(Uint8Array, sections, `${name}.bytes`);
    return new Packed(
      Buffer.from(buffer, byteOffset, length),
      Near.open(`${name}.ends`, sections),
      numbersIn(Uint32Array, sections, `${name}.table`),
    );
  }

  /** The texts as sections of a file. */
  sections(name: string): Sections {
    return {
      [`${name}.bytes`]: bytesOf(this.bytes),
      ...this.ends.sections(`${name}.ends`),
      [`${name}.table`]: bytesOf(this.table),
    };
  }

  private place(hash: number): number {
    return hash & (this.table.length - 1);
  }

  private begin(number: number): number {
    return number === 0 ? 0 : this.ends.at(number - 1);
  }

  get length(): number {
    return this.ends.length;
  }

  /** The text of a number; undefined where there is none. */
  text(number: number): string | undefined {
    if (number >= this.ends.length) return undefined;
    const [from, to] = [this.begin(number), this.ends.at(number)];
    // Ids and codes, which are asked for by the ten thousand, are read twice as fast when they are known to be plain.
    for (let i = from; i < to; i += 1) if ((this.bytes[i] ?? 0) >= ASCII) return this.bytes.toString('utf8', from, to);
    return this.bytes.toString('latin1', from, to);
  }

  /** The number of a text; undefined where it is not there. */
  find(text: string): number | undefined {
    let hash = BASIS;
    for (let i = 0; i < text.length; i += 1) {
      const code = text.charCodeAt(i);
      if (code >= ASCII) return this.findBytes(Buffer.from(text));
      hash = mixed(hash, code);
    }
    return this.probe(hash, text.length, (i) => text.charCodeAt(i));
  }

  private findBytes(text: Buffer): number | undefined {
    return this.probe(text.reduce(mixed, BASIS), text.length, (i) => text[i] ?? 0);
  }

  /** Looks where a hash points to and on from there, until a text has these bytes. */
  private probe(hash: number, length: number, byte: (i: number) => number): number | undefined {
    for (let at = this.place(hash); ; at = this.place(at + 1)) {
      const number = (this.table[at] ?? EMPTY) - 1;
      if (number < 0) return undefined;
      const begin = this.begin(number);
      if (this.ends.at(number) - begin !== length) continue;
      let i = 0;
      while (i < length && this.bytes[begin + i] === byte(i)) i += 1;
      if (i === length) return number;
    }
  }

  *[Symbol.iterator](): Generator<string> {
    for (let number = 0; number < this.ends.length; number += 1) yield this.text(number) ?? '';
  }
}
