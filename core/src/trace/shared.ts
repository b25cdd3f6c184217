import type { Book } from '../ledger/book';
import type { HoldingKind, Step } from '../ledger/types';
import { fillingShares, upstream } from './flow';
import { compiledOf, type CompiledBook } from './compiled';

/** What goods can have in common. */
export const SHARED_KINDS = [
  'lot',
  'sack',
  'load',
  'fill',
  'pour',
  'moulding',
  'packing',
  'ingredient',
  'packaging',
  'machine',
  'person',
  'day',
] as const;
export type SharedKind = (typeof SHARED_KINDS)[number];

/** One thing that goods share: its kind, and an id that says which. */
export interface SharedThing {
  kind: SharedKind;
  /** A holding, a step, a batch, a machine or a person by its id; `lot no` for a sack; `station day` for a day. */
  id: string;
}

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

/** Visits what begins in a step, but for its day: whoever gets something of it has it. */
function eachThing(book: Book, step: Step, visit: (kind: SharedKind, id: string) => void): void {
  const made = step.slots['good'] ?? '';
  switch (step.kind) {
    case 'receive':
      visit('lot', made);
      return;
    case 'buy':
      visit(book.holdings.get(made)?.kind === 'packaging' ? 'packaging' : 'ingredient', made);
      return;
    case 'sort': {
      const command = step.command as { sacks?: readonly number[]; sources?: readonly { holdingId: string }[] };
      for (const no of command.sacks ?? []) visit('sack', `${command.sources?.[0]?.holdingId ?? ''} ${no}`);
      break;
    }
    case 'roast':
      visit('load', made);
      break;
    case 'charge':
      visit('fill', step.batchId ?? '');
      break;
    case 'temper':
      visit('pour', step.id);
      break;
    case 'mould':
      visit('moulding', step.id);
      break;
    case 'pack':
      visit('packing', step.id);
      break;
    default:
  }
  eachHand(step, visit);
}

/** Visits the machine and the person of a step. */
function eachHand(step: Step, visit: (kind: SharedKind, id: string) => void): void {
  if (!isDone(step)) return;
  if (step.machineId !== null) visit('machine', step.machineId);
  visit('person', `${step.station} ${step.personId}`);
}

/** Whether somebody did something with goods that were here. */
const isDone = (step: Step): boolean => step.kind !== 'receive' && step.kind !== 'buy' && step.postings.length > 0;

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
      const own = packagingIn(book, step);
      eachThing(book, step, (kind, thingId) => own.push({ kind, id: thingId }));
      if (isDone(step)) own.push({ kind: 'day', id: `${step.station} ${options.dayOf(step.at)}` });
      for (const thing of own) {
        const key = keyOf(thing);
        if (index.has(key)) continue;
        index.set(key, things.length);
        things.push(thing);
      }
    }
  const having = new Uint32Array(things.length);
  const masks = follow(book, things, options);
  for (const id of subjects) masks.eachBit(id, (bit) => (having[bit] = (having[bit] ?? 0) + 1));
  const goods = populationOf(book);
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
  return populationOf(book).flatMap(({ id }) => (masks.has(id, 0) ? [id] : []));
}

/** Wrappers weigh nothing here, so no trace of grams meets them. */
function packagingIn(book: Book, step: Step): SharedThing[] {
  if (step.kind !== 'pack') return [];
  return step.postings.flatMap(({ holdingId }): SharedThing[] =>
    holdingId !== null && book.holding(holdingId).kind === 'packaging' ? [{ kind: 'packaging', id: holdingId }] : [],
  );
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

/** What begins at a great many steps, which only a look at all of them finds. */
const HANDS: ReadonlySet<SharedKind> = new Set(['machine', 'person']);

function indexOf(book: Book): HandIndex {
  const compiled = compiledOf(book);
  const there = indices.get(book);
  const index: HandIndex = there?.compiled === compiled ? there : { compiled, upTo: 0, at: new Map() };
  for (; index.upTo < compiled.length; index.upTo += 1) {
    const step = book.timeline.at(index.upTo);
    if (!step) continue;
    eachHand(step, (kind, id) => {
      const key = keyOf({ kind, id });
      const list = index.at.get(key);
      if (list) list.push(index.upTo);
      else index.at.set(key, [index.upTo]);
    });
  }
  indices.set(book, index);
  return index;
}

/** Steps at which a thing begins that is no day and has no hands. */
function beginningsOf(book: Book, { kind, id }: SharedThing): Step[] {
  const own = book.steps.get(id);
  // A pour, a moulding, a packing is its step; of a sack the sorts of its lot tell; all else is what a step put in.
  const stepIds = own ? [id] : book.entriesOf(kind === 'sack' ? (id.split(' ')[0] ?? '') : id).map((row) => row.stepId);
  return [...new Set(stepIds)].flatMap((stepId) => {
    const step = book.steps.get(stepId);
    const begun: SharedThing[] = [];
    if (step) eachThing(book, step, (otherKind, otherId) => begun.push({ kind: otherKind, id: otherId }));
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
function follow(book: Book, things: readonly SharedThing[], { dayRange }: SharedOptions): Masks {
  const words = Math.ceil(things.length / WORD);
  const { compiled, at } = indexOf(book);
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
  things.forEach((thing, bit) => {
    if (HANDS.has(thing.kind)) {
      for (const step of at.get(keyOf(thing)) ?? []) mark(step, bit);
      return;
    }
    if (thing.kind !== 'day') {
      for (const step of beginningsOf(book, thing)) mark(timeline.indexAfter(step) - 1, bit);
      return;
    }
    const [station = '', day = ''] = thing.id.split(' ');
    const [from, to] = dayRange(day);
    for (let i = timeline.indexFrom(from); i < length; i += 1) {
      const step = timeline.at(i);
      if (!step || step.at >= to) break;
      if (step.station === station && isDone(step)) mark(i, bit);
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
function populationOf(book: Book): { id: string; pieces: number }[] {
  const there = populations.get(book);
  if (there?.state === book.state) return there.goods;
  const goods: { id: string; pieces: number }[] = [];
  for (const { id, kind } of book.holdings.values()) {
    if (!GOODS.includes(kind)) continue;
    let made = 0;
    let packed = 0;
    for (const entry of book.entriesOf(id)) {
      if (entry.kind === 'pack' && entry.pieces < 0) packed -= entry.pieces;
      else if (entry.pieces > 0 && entry.kind !== 'return') made += entry.pieces;
    }
    if (made - packed > 0) goods.push({ id, pieces: made - packed });
  }
  populations.set(book, { state: book.state, goods });
  return goods;
}
