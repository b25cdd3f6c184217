import type { Book } from '../ledger/book';
import { isByProduct, type Step } from '../ledger/types';
import { Heap } from '../stats/heap';
import { compiledOf } from './compiled';

/** How much of each step belongs to what is traced: 1 is all of it. */
export type Fractions = Map<string, number>;

/** Whether a step comes behind another in the order of the work. */
export const later = (a: Step, b: Step): boolean => a.at > b.at || (a.at === b.at && a.order > b.order);

/** Steps waiting to be followed, each once, the latest (or the earliest) first. */
class Waiting {
  private readonly heap: Heap<Step>;
  private readonly known = new Set<string>();

  constructor(latest: boolean) {
    this.heap = new Heap((a, b) => (latest ? later(a, b) : later(b, a)));
  }

  add(step: Step): void {
    if (this.known.has(step.id)) return;
    this.known.add(step.id);
    this.heap.push(step);
  }

  next(): Step | undefined {
    return this.heap.pop();
  }
}

/**
 * Which steps filled a holding and what share of its content each stands for at a moment, when everything
 * in it is mixed: what leaves takes from each filling alike.
 */
function fillings(book: Book, holdingId: string, user: Step): { stepId: string; share: number }[] {
  const parts: { stepId: string; mg: number }[] = [];
  let total = 0;
  for (const entry of book.entriesOf(holdingId)) {
    if (entry.at > user.at || (entry.at === user.at && entry.order >= user.order)) break;
    if (entry.massMg > 0 && total > 0 && comesBack(book, entry.stepId)) {
      // What a count finds, or a buyer sends back, is of what was there.
      const grow = (total + entry.massMg) / total;
      for (const part of parts) part.mg *= grow;
      total *= grow;
    } else if (entry.massMg > 0) {
      parts.push({ stepId: entry.stepId, mg: entry.massMg });
      total += entry.massMg;
    } else if (total > 0) {
      const keep = Math.max(0, (total + entry.massMg) / total);
      for (const part of parts) part.mg *= keep;
      total *= keep;
    }
  }
  return total > 0 ? parts.map(({ stepId, mg }) => ({ stepId, share: mg / total })) : [];
}

/** Whether a step puts grams in that were not made by it. */
const comesBack = (book: Book, stepId: string): boolean => {
  const kind = book.steps.get(stepId)?.kind;
  return kind === 'return' || kind === 'adjust';
};

/** What drying took out of a holding later: negative. */
function driedMg(book: Book, holdingId: string): number {
  let sum = 0;
  for (const { stepId, massMg } of book.entriesOf(holdingId)) {
    if (book.steps.get(stepId)?.kind === 'dry') sum += massMg;
  }
  return sum;
}

/** Grams of a lot as they came in, or, where they came in wet, as they were once dry. */
export function greenMg(book: Book, lotId: string): number {
  return (book.firstEntry(lotId)?.massMg ?? 0) + driedMg(book, lotId);
}

function goodMg(book: Book, step: Step): number {
  // All of a wet lot is in its dry beans.
  if (step.kind === 'receive') return greenMg(book, step.slots['good'] ?? '');
  let sum = 0;
  for (const p of step.postings) {
    if (p.holdingId !== null && p.massMg > 0 && !isByProduct(book.holding(p.holdingId).kind)) sum += p.massMg;
  }
  return sum;
}

/** The share of each step that made something which is in this holding: seconds of the same pour are not. */
export function fillingShares(book: Book, holdingId: string): Fractions {
  const shares: Fractions = new Map();
  for (const { stepId, massMg } of book.entriesOf(holdingId)) {
    const step = book.steps.get(stepId);
    // Husk is no good output: traced by itself it stands for its whole step.
    if (massMg > 0 && step && !comesBack(book, stepId))
      shares.set(stepId, Math.min(1, massMg / Math.max(massMg, goodMg(book, step))));
  }
  return shares;
}

/**
 * Follows grams back from some steps to the sacks.
 *
 * @param from steps to begin at and the share of each that is meant
 * @returns the share of every step upstream (and of those given) that ended up there
 */
export function upstream(book: Book, from: Fractions): Fractions {
  const fractions: Fractions = new Map(from);
  const queue = new Waiting(true);
  for (const stepId of from.keys()) {
    const step = book.steps.get(stepId);
    if (step) queue.add(step);
  }
  for (let step = queue.next(); step; step = queue.next()) {
    const fraction = fractions.get(step.id) ?? 0;
    for (const posting of step.postings) {
      if (posting.holdingId === null || posting.massMg >= 0) continue;
      for (const { stepId, share } of fillings(book, posting.holdingId, step)) {
        const maker = book.steps.get(stepId);
        if (!maker) continue;
        const good = goodMg(book, maker);
        if (good === 0) continue;
        const added = (fraction * -posting.massMg * share) / good;
        fractions.set(stepId, (fractions.get(stepId) ?? 0) + added);
        queue.add(maker);
      }
    }
  }
  return withDrying(book, fractions);
}

/** The drying of a wet lot belongs to whatever belongs to its receipt. */
function withDrying(book: Book, fractions: Fractions): Fractions {
  for (const [stepId, fraction] of [...fractions]) {
    const step = book.steps.get(stepId);
    if (step?.kind !== 'receive') continue;
    for (const entry of book.entriesOf(step.slots['good'] ?? '')) {
      if (book.steps.get(entry.stepId)?.kind === 'dry') fractions.set(entry.stepId, fraction);
    }
  }
  return fractions;
}

/**
 * What shares of a forward trace are shares of. `cacao`: of the cacao, by the lots it came from; sugar or silk
 * that joins does not dilute it, so bars all from one lot are wholly its own. `goods`: of the chocolate that is
 * worked; what joins from the pantry belongs to what it joins. `mass`: of all grams.
 */
export type Side = 'cacao' | 'goods' | 'mass';

export interface Forward {
  /** The subject's share of what went into every later step it reached. */
  steps: Fractions;
  /** Its share of every holding it reached, as that was last filled. */
  holdings: Fractions;
  /** Its share of what each of these steps took from each holding, at that moment. */
  taken: Map<string, Fractions>;
  side: Side;
}

/**
 * Follows what is in some holdings forward to everything it went into, through the whole book in the order of
 * the work: a filling without any of the subject dilutes it like one with it.
 *
 * Its shares are those of the backward trace: of the cacao in a bar, a lot has the share here that the bar's
 * page gives to the lot.
 *
 * @param side left out: the cacao, or the mass where the subject has no cacao in it
 */
export function downstream(book: Book, holdingIds: readonly string[], side?: Side): Forward {
  const seeds = new Set(holdingIds);
  const asked = side ?? 'cacao';
  const found = follow(book, seeds, asked);
  return side === undefined && !found.counts ? follow(book, seeds, 'mass') : found;
}

function follow(book: Book, seeds: ReadonlySet<string>, side: Side): Forward & { counts: boolean } {
  const steps: Fractions = new Map();
  const holdings: Fractions = new Map([...seeds].map((id) => [id, 1]));
  const taken = new Map<string, Fractions>();
  const compiled = compiledOf(book);
  const { ids, slotOf, takeEnd, takeSlot, takeMg, putEnd, putSlot, putMg } = compiled;
  // How much of each gram of a holding counts, and how much of that is the subject's.
  const massMg = new Float64Array(ids.length);
  const basis = new Float64Array(ids.length);
  const mine = new Float64Array(ids.length);
  const isSeed = new Uint8Array(ids.length);
  for (const id of seeds) {
    const slot = slotOf.get(id);
    if (slot !== undefined) isSeed[slot] = 1;
  }
  // Before a subject is filled nothing of it can be anywhere, but what it will meet is being made.
  let counts = false;
  let [take, put] = [0, 0];
  for (let i = 0; i < compiled.length; i += 1) {
    let [poolMg, poolBasis, poolMine] = [0, 0, 0];
    // The step, where it takes some of the subject.
    let reached: string | null = null;
    for (const end = takeEnd.at(i); take < end; take += 1) {
      const slot = takeSlot.at(take);
      const mg = takeMg.at(take);
      const [own, counted] = [mine[slot] ?? 0, basis[slot] ?? 0];
      poolMg += mg;
      poolBasis += mg * counted;
      poolMine += mg * own;
      massMg[slot] = (massMg[slot] ?? 0) - mg;
      if (own <= 0 && isSeed[slot] === 0) continue;
      reached ??= book.timeline.at(i)?.id ?? '';
      const shares = taken.get(reached) ?? new Map<string, number>();
      shares.set(ids[slot] ?? '', counted > 0 ? own / counted : 0);
      taken.set(reached, shares);
    }
    if (reached !== null) steps.set(reached, poolBasis > 0 ? poolMine / poolBasis : 0);
    for (const end = putEnd.at(i); put < end; put += 1) {
      const mg = putMg.at(put);
      if (mg <= 0) continue;
      const slot = putSlot.at(put);
      const had = Math.max(0, massMg[slot] ?? 0);
      let [addedBasis, addedMine] = [0, 0];
      if (poolMg > 0) {
        // What joined belongs to what it joined: every gram of worked goods counts alike.
        if (side === 'goods') [addedBasis, addedMine] = [1, poolBasis > 0 ? poolMine / poolBasis : 0];
        else [addedBasis, addedMine] = [poolBasis / poolMg, poolMine / poolMg];
      } else if ((basis[slot] ?? 0) > 0) {
        // Grams that a count found are of what was there.
        [addedBasis, addedMine] = [basis[slot] ?? 0, mine[slot] ?? 0];
      } else {
        // From outside the door.
        const fromPantry = side !== 'mass' && book.holding(ids[slot] ?? '').kind === 'ingredient';
        addedBasis = fromPantry ? 0 : 1;
      }
      const total = (massMg[slot] ?? 0) + mg;
      const blend = (before: number, added: number): number =>
        total > 0 ? (before * had + added * mg) / total : added;
      const counted = blend(basis[slot] ?? 0, addedBasis);
      const own = isSeed[slot] === 1 ? counted : blend(mine[slot] ?? 0, addedMine);
      basis[slot] = counted;
      mine[slot] = own;
      massMg[slot] = total;
      if (isSeed[slot] === 1) counts ||= counted > 0;
      else if (own > 0 || holdings.has(ids[slot] ?? '')) holdings.set(ids[slot] ?? '', counted > 0 ? own / counted : 0);
    }
  }
  return { steps, holdings, taken, side, counts };
}
