import type { Book } from '../ledger/book';
import { NumberList } from './number-list';
import type { Step } from '../ledger/types';

/*
 * The timeline of a book in numbers, for passes over all of it: what each step takes from which holding and puts into
 * which. Kept beside the book and extended as it grows; a correction in the midst of it compiles it anew.
 */

export interface CompiledBook {
  /** So many steps, from the first of the timeline, are compiled. */
  length: number;
  /** Holdings by their number. */
  ids: string[];
  slotOf: Map<string, number>;
  /** Postings of step i stand from `takeEnd[i - 1]` (0 for the first) to `takeEnd[i]`. */
  takeEnd: NumberList<Uint32Array>;
  takeSlot: NumberList<Uint32Array>;
  /** mg, positive; 0 of what is only counted. */
  takeMg: NumberList<Float64Array>;
  putEnd: NumberList<Uint32Array>;
  putSlot: NumberList<Uint32Array>;
  putMg: NumberList<Float64Array>;
}

const kept = new WeakMap<Book, { state: string; line: string; compiled: CompiledBook }>();

const empty = (): CompiledBook => ({
  length: 0,
  ids: [],
  slotOf: new Map(),
  takeEnd: new NumberList(new Uint32Array()),
  takeSlot: new NumberList(new Uint32Array()),
  takeMg: new NumberList(new Float64Array()),
  putEnd: new NumberList(new Uint32Array()),
  putSlot: new NumberList(new Uint32Array()),
  putMg: new NumberList(new Float64Array()),
});

/** The timeline of a book in numbers; the same object as before as long as the book only grew at its end. */
export function compiledOf(book: Book): CompiledBook {
  const there = kept.get(book);
  if (there?.state === book.state) return there.compiled;
  const { timeline } = book;
  const compiled = there?.line === book.line ? there.compiled : empty();
  for (let i = compiled.length; i < timeline.length; i += 1) {
    const step = timeline.at(i);
    if (step) append(compiled, step);
  }
  kept.set(book, { state: book.state, line: book.line, compiled });
  return compiled;
}

function append(compiled: CompiledBook, step: Step): void {
  const { ids, slotOf, takeSlot, takeMg, putSlot, putMg } = compiled;
  for (const { holdingId, massMg, pieces } of step.postings) {
    if (holdingId === null || (massMg === 0 && pieces === 0)) continue;
    let slot = slotOf.get(holdingId);
    if (slot === undefined) {
      slot = ids.length;
      ids.push(holdingId);
      slotOf.set(holdingId, slot);
    }
    if (massMg < 0 || (massMg === 0 && pieces < 0)) {
      takeSlot.push(slot);
      takeMg.push(-massMg);
    } else {
      putSlot.push(slot);
      putMg.push(massMg);
    }
  }
  compiled.length += 1;
  compiled.takeEnd.push(takeSlot.length);
  compiled.putEnd.push(putSlot.length);
}
