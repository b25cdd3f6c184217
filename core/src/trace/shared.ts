import type { Book } from '../ledger/book';
import type { HoldingKind, Step, StepKind } from '../ledger/types';
import type { SharedThing, StepThings } from '../workshop/things';
import { fillingShares, upstream } from './flow';
import { compiledOf, type CompiledBook } from './compiled';

/** What goods can have in common beside what their steps say: whose hands they went through, and on which day. */
export const SHARED_ANYWHERE = ['machine', 'person', 'day'] as const;

/** Things that exactly the same bars have: nothing in the book tells them apart. */
export interface SharedGroup {
  things: SharedThing[];
  /** Subjects that have it, of all. */
  having: number;
  of: number;
  /** Pieces of all goods that have it, and their share of all pieces. */
  pieces: number;
  share: number;
  /** How much more likely the subjects are if this is the cause than by chance, natural logarithm; the greatest first. */
  evidence: number;
  /** How likely it is, of all these, if one of them is the cause and each was as likely before, 0 to 1. */
  chance: number;
}

export interface SharedOptions {
  /** What goods have in common that got something of a step, by its kind. */
  things: ReadonlyMap<StepKind, StepThings>;
  /** Day of a moment in the workshop's zone, and the moments between which a day lies: the latter is asked far less often. */
  dayOf: (at: number) => string;
  dayRange: (day: string) => readonly [from: number, to: number];
}

/** Kinds of finished goods: what a complaint is about, and what it is held against. */
const GOODS: readonly HoldingKind[] = ['packed', 'bars', 'seconds'];
/** A complaint can be about something else than the others: so often. */
const STRAY = 0.1;
const TRACE = 1e-9;
const WORD = 32;

/** Whether somebody did something with goods that were here. */
const isDone = (step: Step, things: SharedOptions['things']): boolean =>
  things.get(step.kind)?.brings !== true && step.postings.length > 0;

/** The machine and the person of a step: what begins at a great many, which only a look at all of them finds. */
const HANDS: ReadonlySet<string> = new Set(['machine', 'person']);

/** Visits the machine and the person of a step. */
function eachHand(step: Step, things: SharedOptions['things'], visit: (thing: SharedThing) => void): void {
  if (!isDone(step, things)) return;
  if (step.machineId !== null) visit({ kind: 'machine', id: step.machineId });
  visit({ kind: 'person', id: `${step.station} ${step.personId}` });
}

/** What begins in a step: whoever gets something of it has it. A day is told by its station, as one goes by. */
function thingsOf(book: Book, step: Step, { things, dayOf }: SharedOptions): SharedThing[] {
  const own = things.get(step.kind);
  const found = [...(own?.takes?.(step, book) ?? []), ...(own?.begins(step, book) ?? [])];
  eachHand(step, things, (thing) => found.push(thing));
  if (isDone(step, things)) found.push({ kind: 'day', id: `${step.station} ${dayOf(step.at)}` });
  return found;
}

const keyOf = ({ kind, id }: SharedThing): string => `${kind}:${id}`;

/**
 * What some goods have in common, the likeliest cause first.
 *
 * Candidates are what lies behind the subjects. One pass through the book follows all of them forward at once, so that for
 * each it is known which of all goods have it too. They are ranked by how much more likely the subjects are if complaints
 * come from the goods that have it (nine in ten of them, the tenth from anywhere) than if they come from all goods alike:
 * what every subject has and few others do stands first. Things that the same goods have are one group.
 *
 * @param subjects holdings: packs, bars, tubs; one for each complaint, so that some can stand there twice
 */
export function sharedBy(book: Book, subjects: readonly string[], options: SharedOptions): SharedGroup[] {
  const index = new Map<string, number>();
  const things: SharedThing[] = [];
  for (const id of subjects)
    for (const [stepId, fraction] of upstream(book, fillingShares(book, id))) {
      const step = fraction > TRACE ? book.steps.get(stepId) : undefined;
      if (!step) continue;
      for (const thing of thingsOf(book, step, options)) {
        const key = keyOf(thing);
        if (index.has(key)) continue;
        index.set(key, things.length);
        things.push(thing);
      }
    }
  const having = new Uint32Array(things.length);
  const masks = follow(book, things, options);
  for (const id of subjects) masks.eachBit(id, (bit) => (having[bit] = (having[bit] ?? 0) + 1));
  const goods = populationOf(book, options.things);
  const total = goods.reduce((sum, { pieces }) => sum + pieces, 0);
  // Which goods have a thing, told apart by two sums over their numbers: things of the same goods are one group.
  const pieces = new Float64Array(things.length);
  const [sum1, sum2] = [new Int32Array(things.length), new Int32Array(things.length)];
  goods.forEach((good, n) => {
    const [a, b] = [mixed(n + 1), mixed(n + 0x9e3779b9)];
    masks.eachBit(good.id, (bit) => {
      pieces[bit] = (pieces[bit] ?? 0) + good.pieces;
      sum1[bit] = (sum1[bit] ?? 0) + a;
      sum2[bit] = (sum2[bit] ?? 0) ^ b;
    });
  });
  const groups = new Map<string, SharedGroup>();
  things.forEach((thing, bit) => {
    const [those, made] = [having[bit] ?? 0, pieces[bit] ?? 0];
    if (those === 0) return;
    const key = `${those} ${made} ${sum1[bit] ?? 0} ${sum2[bit] ?? 0}`;
    const there = groups.get(key);
    if (there) there.things.push(thing);
    else {
      // A subject that is no finished good (a tub) counts as one piece of its own.
      const share = total > 0 ? Math.max(made, 1) / Math.max(total, 1) : 1;
      const evidence =
        those * Math.log((1 - STRAY) / Math.min(1, share) + STRAY) + (subjects.length - those) * Math.log(STRAY);
      groups.set(key, {
        things: [thing],
        having: those,
        of: subjects.length,
        pieces: made,
        share: total > 0 ? made / total : 0,
        evidence,
        chance: 0,
      });
    }
  });
  const found = [...groups.values()].sort(
    (a, b) => b.evidence - a.evidence || b.having - a.having || a.pieces - b.pieces,
  );
  const most = found[0]?.evidence ?? 0;
  const sum = found.reduce((all, { evidence }) => all + Math.exp(evidence - most), 0);
  return found.map((group) => ({ ...group, chance: Math.exp(group.evidence - most) / sum }));
}

/**
 * Every good that has a thing: packs, and bars that went into none.
 *
 * @returns their ids, in the order in which they were made
 */
export function goodsHaving(book: Book, thing: SharedThing, options: SharedOptions): string[] {
  const masks = follow(book, [thing], options);
  return populationOf(book, options.things).flatMap(({ id }) => (masks.has(id, 0) ? [id] : []));
}

/** A number spread over 32 bits (Murmur3's finish). */
function mixed(value: number): number {
  let h = value | 0;
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  return h ^ (h >>> 16);
}

/** At which steps each machine and each person was: kept beside the book, and extended as it grows. */
interface HandIndex {
  compiled: CompiledBook;
  upTo: number;
  at: Map<string, number[]>;
}
const indices = new WeakMap<Book, HandIndex>();

function indexOf(book: Book, things: SharedOptions['things']): HandIndex {
  const compiled = compiledOf(book);
  const there = indices.get(book);
  const index: HandIndex = there?.compiled === compiled ? there : { compiled, upTo: 0, at: new Map() };
  for (; index.upTo < compiled.length; index.upTo += 1) {
    const step = book.timeline.at(index.upTo);
    if (!step) continue;
    eachHand(step, things, (thing) => {
      const key = keyOf(thing);
      const list = index.at.get(key);
      if (list) list.push(index.upTo);
      else index.at.set(key, [index.upTo]);
    });
  }
  indices.set(book, index);
  return index;
}

/** Steps at which a thing begins that is no day and has no hands. */
function beginningsOf(book: Book, { kind, id }: SharedThing, things: SharedOptions['things']): Step[] {
  // Some are their step. All else is found by what moved in a holding, or in that of which it is a part.
  const [holdingId = ''] = id.split(' ');
  const stepIds = book.steps.get(id) ? [id] : book.entriesOf(holdingId).map((row) => row.stepId);
  return [...new Set(stepIds)].flatMap((stepId) => {
    const step = book.steps.get(stepId);
    const begun = (step && things.get(step.kind)?.begins(step, book)) ?? [];
    return step && begun.some((other) => other.kind === kind && other.id === id) ? [step] : [];
  });
}

/** Which things each holding has, a bit for each. */
class Masks {
  constructor(
    private readonly slotOf: ReadonlyMap<string, number>,
    private readonly words: number,
    private readonly bits: Uint32Array,
  ) {}

  has(holdingId: string, bit: number): boolean {
    const slot = this.slotOf.get(holdingId);
    return (
      slot !== undefined && ((this.bits[slot * this.words + Math.floor(bit / WORD)] ?? 0) & (1 << (bit % WORD))) !== 0
    );
  }

  eachBit(holdingId: string, visit: (bit: number) => void): void {
    const slot = this.slotOf.get(holdingId);
    if (slot === undefined) return;
    for (let word = 0; word < this.words; word += 1) {
      let left = this.bits[slot * this.words + word] ?? 0;
      while (left !== 0) {
        const lowest = 31 - Math.clz32(left & -left);
        visit(word * WORD + lowest);
        left &= left - 1;
      }
    }
  }
}

/** Follows all things through the book at once, a bit for each. */
function follow(book: Book, followed: readonly SharedThing[], { things, dayRange }: SharedOptions): Masks {
  const words = Math.ceil(followed.length / WORD);
  const { compiled, at } = indexOf(book, things);
  const { timeline } = book;
  const { length, ids, slotOf, takeEnd, takeSlot, putEnd, putSlot } = compiled;
  // What each step brings in itself.
  const own = new Uint32Array(length * words);
  let first = length;
  const mark = (step: number, bit: number): void => {
    const where = step * words + Math.floor(bit / WORD);
    own[where] = (own[where] ?? 0) | (1 << (bit % WORD));
    first = Math.min(first, step);
  };
  followed.forEach((thing, bit) => {
    if (HANDS.has(thing.kind)) {
      for (const step of at.get(keyOf(thing)) ?? []) mark(step, bit);
      return;
    }
    if (thing.kind !== 'day') {
      for (const step of beginningsOf(book, thing, things)) mark(timeline.indexAfter(step) - 1, bit);
      return;
    }
    const [station = '', day = ''] = thing.id.split(' ');
    const [from, to] = dayRange(day);
    for (let i = timeline.indexFrom(from); i < length; i += 1) {
      const step = timeline.at(i);
      if (!step || step.at >= to) break;
      if (step.station === station && isDone(step, things)) mark(i, bit);
    }
  });
  const masks = new Uint32Array(ids.length * words);
  const pool = new Uint32Array(words);
  for (let i = first; i < length; i += 1) {
    let any = false;
    for (let w = 0; w < words; w += 1) pool[w] = own[i * words + w] ?? 0;
    for (let take = i === 0 ? 0 : takeEnd.at(i - 1); take < takeEnd.at(i); take += 1) {
      const from = takeSlot.at(take) * words;
      for (let w = 0; w < words; w += 1) pool[w] = (pool[w] ?? 0) | (masks[from + w] ?? 0);
    }
    for (let w = 0; w < words; w += 1) any ||= pool[w] !== 0;
    if (!any) continue;
    for (let put = i === 0 ? 0 : putEnd.at(i - 1); put < putEnd.at(i); put += 1) {
      const to = putSlot.at(put) * words;
      for (let w = 0; w < words; w += 1) masks[to + w] = (masks[to + w] ?? 0) | (pool[w] ?? 0);
    }
  }
  return new Masks(slotOf, words, masks);
}

const populations = new WeakMap<Book, { state: string; goods: { id: string; pieces: number }[] }>();

/** Finished goods, by the pieces that were made: packs, and bars that went into none. */
function populationOf(book: Book, things: SharedOptions['things']): { id: string; pieces: number }[] {
  const there = populations.get(book);
  if (there?.state === book.state) return there.goods;
  const goods: { id: string; pieces: number }[] = [];
  for (const { id, kind } of book.holdings.values()) {
    if (!GOODS.includes(kind)) continue;
    let made = 0;
    let packed = 0;
    for (const entry of book.entriesOf(id)) {
      if (entry.pieces < 0 && things.get(entry.kind)?.wraps === true) packed -= entry.pieces;
      else if (entry.pieces > 0 && entry.kind !== 'return') made += entry.pieces;
    }
    if (made - packed > 0) goods.push({ id, pieces: made - packed });
  }
  populations.set(book, { state: book.state, goods });
  return goods;
}
