import type { Book } from '../ledger/book';
import type { HoldingKind, Step } from '../ledger/types';
import { fillingShares, upstream } from './flow';

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
  const masks = follow(book, things, options);
  const has = (holdingId: string, bit: number): boolean => {
    const mask = masks.get(holdingId);
    return mask !== undefined && ((mask[Math.floor(bit / WORD)] ?? 0) & (1 << (bit % WORD))) !== 0;
  };
  const goods = populationOf(book);
  const total = goods.reduce((sum, { pieces }) => sum + pieces, 0);
  const groups = new Map<string, SharedGroup>();
  things.forEach((thing, bit) => {
    const own = goods.filter(({ id }) => has(id, bit));
    const pieces = own.reduce((sum, row) => sum + row.pieces, 0);
    const having = subjects.filter((id) => has(id, bit)).length;
    if (having === 0) return;
    const key = `${having} ${own.map(({ id }) => id).join(' ')}`;
    const there = groups.get(key);
    if (there) there.things.push(thing);
    else {
      // A subject that is no finished good (a tub) counts as one piece of its own.
      const share = total > 0 ? Math.max(pieces, 1) / Math.max(total, 1) : 1;
      const evidence =
        having * Math.log((1 - STRAY) / Math.min(1, share) + STRAY) + (subjects.length - having) * Math.log(STRAY);
      groups.set(key, {
        things: [thing],
        having,
        of: subjects.length,
        pieces,
        share: total > 0 ? pieces / total : 0,
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
  return populationOf(book).flatMap(({ id }) => (((masks.get(id)?.[0] ?? 0) & 1) !== 0 ? [id] : []));
}

/** Wrappers weigh nothing here, so no trace of grams meets them. */
function packagingIn(book: Book, step: Step): SharedThing[] {
  if (step.kind !== 'pack') return [];
  return step.postings.flatMap(({ holdingId }): SharedThing[] =>
    holdingId !== null && book.holding(holdingId).kind === 'packaging' ? [{ kind: 'packaging', id: holdingId }] : [],
  );
}

/** Follows all things through the book at once. @returns by holding, a bit for each thing that it has */
function follow(book: Book, things: readonly SharedThing[], { dayRange }: SharedOptions): Map<string, Uint32Array> {
  const words = Math.ceil(things.length / WORD);
  const bits = new Map<SharedKind, Map<string, number>>();
  const days = new Map<string, { from: number; to: number; bit: number }[]>();
  things.forEach(({ kind, id }, bit) => {
    if (kind !== 'day') {
      const own = bits.get(kind) ?? new Map<string, number>();
      bits.set(kind, own.set(id, bit));
      return;
    }
    const [station = '', day = ''] = id.split(' ');
    const [from, to] = dayRange(day);
    days.set(station, [...(days.get(station) ?? []), { from, to, bit }]);
  });
  const masks = new Map<string, Uint32Array>();
  const pool = new Uint32Array(words);
  let any = false;
  const mark = (bit: number): void => {
    any = true;
    const at = Math.floor(bit / WORD);
    pool[at] = (pool[at] ?? 0) | (1 << (bit % WORD));
  };
  const visit = (kind: SharedKind, id: string): void => {
    const bit = bits.get(kind)?.get(id);
    if (bit !== undefined) mark(bit);
  };
  for (const step of book.timeline) {
    pool.fill(0);
    any = false;
    for (const { holdingId, massMg, pieces } of step.postings) {
      if (holdingId === null || (massMg >= 0 && pieces >= 0)) continue;
      const mask = masks.get(holdingId);
      if (!mask) continue;
      any = true;
      for (let i = 0; i < words; i += 1) pool[i] = (pool[i] ?? 0) | (mask[i] ?? 0);
    }
    eachThing(book, step, visit);
    for (const { from, to, bit } of days.get(step.station) ?? [])
      if (step.at >= from && step.at < to && isDone(step)) mark(bit);
    if (!any) continue;
    for (const { holdingId, massMg, pieces } of step.postings) {
      if (holdingId === null || (massMg <= 0 && pieces <= 0)) continue;
      let mask = masks.get(holdingId);
      if (!mask) {
        mask = new Uint32Array(words);
        masks.set(holdingId, mask);
      }
      for (let i = 0; i < words; i += 1) mask[i] = (mask[i] ?? 0) | (pool[i] ?? 0);
    }
  }
  return masks;
}

/** Finished goods, by the pieces that were made: packs, and bars that went into none. */
function populationOf(book: Book): { id: string; pieces: number }[] {
  const rows: { id: string; pieces: number }[] = [];
  for (const [id, { kind }] of book.holdings) {
    if (!GOODS.includes(kind)) continue;
    let made = 0;
    let packed = 0;
    for (const entry of book.entriesOf(id)) {
      if (entry.pieces > 0) made += entry.pieces;
      else if (entry.kind === 'pack') packed -= entry.pieces;
    }
    if (made - packed > 0) rows.push({ id, pieces: made - packed });
  }
  return rows;
}
