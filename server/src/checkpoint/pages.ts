import { deflateRawSync, inflateRawSync } from 'node:zlib';
import { bytesOf, type Sections } from './sections';

/** Values of a page: few enough that one is opened in a moment, enough that they pack well. */
export const PAGE = 64;
/** Opened pages that are kept: what was looked at lately is looked at again. */
const KEPT = 96;

/** Values packed by the page, opened when one of them is asked for. */
export class Pages<T> {
  private readonly opened = new Map<number, readonly T[]>();

  /**
   * @param bytes the pages behind one another
   * @param ends where each of them ends
   */
  constructor(
    private readonly bytes: Uint8Array,
    private readonly ends: Uint32Array,
  ) {}

  get count(): number {
    return this.ends.length;
  }

  /** A page as it is packed. */
  packed(page: number): Uint8Array {
    return this.bytes.subarray(page === 0 ? 0 : this.ends[page - 1], this.ends[page]);
  }

  /** The values of a page. */
  open(page: number): readonly T[] {
    const known = this.opened.get(page);
    if (known) {
      // Asked for last is let go of last.
      this.opened.delete(page);
      this.opened.set(page, known);
      return known;
    }
    const values = JSON.parse(inflateRawSync(this.packed(page)).toString()) as T[];
    this.opened.set(page, values);
    for (const oldest of this.opened.keys()) {
      if (this.opened.size <= KEPT) break;
      this.opened.delete(oldest);
    }
    return values;
  }
}

export const packPage = (values: readonly unknown[]): Uint8Array =>
  deflateRawSync(Buffer.from(JSON.stringify(values)), { level: 5 });

export function pageSections(pages: readonly Uint8Array[]): Sections {
  const ends = new Uint32Array(pages.length);
  let end = 0;
  pages.forEach((page, i) => (ends[i] = end += page.length));
  return { pages: Buffer.concat(pages), 'pages.ends': bytesOf(ends) };
}

/** The pages of a checkpoint. @throws Error where there are none */
export function openPages<T>(sections: Sections): Pages<T> {
  const [bytes, ends] = [sections['pages'], sections['pages.ends']];
  if (!bytes || !ends) throw new Error('there are no pages');
  return new Pages(bytes, new Uint32Array(ends.buffer as ArrayBuffer, ends.byteOffset, ends.length / 4));
}
