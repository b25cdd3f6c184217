import type { Book } from '../ledger/book';
import { isByProduct, type HoldingKind, type LossCause, type Step } from '../ledger/types';
import { Heap } from '../stats/heap';
import { STATIONS, type Station } from '../workshop/stations';

/** How much of each step belongs to what is traced: 1 is all of it. */
export type Fractions = Map<string, number>;

const later = (a: Step, b: Step): boolean => a.at > b.at || (a.at === b.at && a.order > b.order);

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
    if (entry.massMg > 0) {
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
  return (book.entriesOf(lotId)[0]?.massMg ?? 0) + driedMg(book, lotId);
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
    if (massMg > 0 && step) shares.set(stepId, Math.min(1, massMg / Math.max(massMg, goodMg(book, step))));
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
 * Follows what is in a holding forward to everything it went into. Shares are of the cacao side: sugar or
 * silk that joins a batch does not dilute them, so that bars all from one lot count as wholly concerned.
 *
 * @returns the share of every later step, and of every holding's content as it was last filled
 */
export function downstream(book: Book, holdingIds: readonly string[]): { steps: Fractions; holdings: Fractions } {
  const steps: Fractions = new Map();
  const holdings: Fractions = new Map();
  const mass = new Map<string, { mine: number; all: number }>();
  const queue = new Waiting(false);
  const enqueue = (holdingId: string): void => {
    for (const entry of book.entriesOf(holdingId)) {
      const user = book.steps.get(entry.stepId);
      if (user && entry.massMg < 0) queue.add(user);
    }
  };
  const seeds = new Set(holdingIds);
  const contentAt = (holdingId: string): number => {
    const known = mass.get(holdingId);
    return known && known.all > 0 ? known.mine / known.all : seeds.has(holdingId) ? 1 : 0;
  };
  // What comes from the pantry joins a batch; it does not make less of it the subject's.
  const joins = (holdingId: string): boolean =>
    !seeds.has(holdingId) && followsCacao && book.holding(holdingId).kind === 'ingredient';
  const followsCacao = holdingIds.every((id) => book.holding(id).kind !== 'ingredient');
  for (const holdingId of seeds) {
    holdings.set(holdingId, 1);
    enqueue(holdingId);
  }
  for (let step = queue.next(); step; step = queue.next()) {
    let mine = 0;
    let all = 0;
    for (const p of step.postings) {
      if (p.holdingId === null || p.massMg >= 0 || joins(p.holdingId)) continue;
      all -= p.massMg;
      mine -= p.massMg * contentAt(p.holdingId);
    }
    const fraction = all > 0 ? mine / all : 0;
    steps.set(step.id, fraction);
    for (const p of step.postings) {
      if (p.holdingId === null || p.massMg <= 0 || seeds.has(p.holdingId)) continue;
      const there = book.balanceAt(p.holdingId, step.at, step.order).massMg;
      const known = mass.get(p.holdingId);
      const share = known && known.all > 0 ? known.mine / known.all : 0;
      const sum = { mine: share * there + fraction * p.massMg, all: there + p.massMg };
      mass.set(p.holdingId, sum);
      holdings.set(p.holdingId, sum.all > 0 ? sum.mine / sum.all : 0);
      enqueue(p.holdingId);
    }
  }
  return { steps, holdings };
}

export interface FlowStep {
  stepId: string;
  /** Share of the step that belongs here. */
  fraction: number;
  at: number;
  inMg: number;
  goodMg: number;
}

/** One station's sums: what came in, went on, fell away, all as shares that belong to the subject. */
export interface StationTotals {
  station: Station;
  /** How many steps they are of. */
  count: number;
  inMg: number;
  /** Of it, what joined here from the pantry: sugar, butter, seed. */
  joinedMg: number;
  goodMg: number;
  byProductMg: number;
  losses: { cause: LossCause; mg: number }[];
  /** What came back here from a later station and went round again: counted once in the figures above. */
  reworkMg: number;
}

/** One station of a stream, with its steps. */
export interface FlowStation extends StationTotals {
  steps: FlowStep[];
}

const emptyTotals = (station: Station): StationTotals => ({
  station,
  count: 0,
  inMg: 0,
  joinedMg: 0,
  goodMg: 0,
  byProductMg: 0,
  losses: [],
  reworkMg: 0,
});

/** Adds up whole steps by station, in workshop order: for sums over years, without keeping the steps. */
export function totalsByStation(book: Book, steps: readonly Step[]): StationTotals[] {
  const rows = new Map<Station, StationTotals>();
  for (const step of steps) {
    const station = step.station as Station;
    if (!STATIONS.includes(station) || step.postings.length === 0) continue;
    const row = rows.get(station) ?? emptyTotals(station);
    rows.set(station, row);
    addStep(book, row, step, 1);
  }
  for (const step of steps) takeOutRework(book, rows, step, 1);
  return STATIONS.flatMap((station) => rows.get(station) ?? []);
}

/** Sums of several parts of the work, added station by station. */
export function addTotals(parts: readonly (readonly StationTotals[])[]): StationTotals[] {
  const rows = new Map<Station, StationTotals>();
  for (const part of parts.flat()) {
    const row = rows.get(part.station) ?? emptyTotals(part.station);
    rows.set(part.station, row);
    row.count += part.count;
    row.inMg += part.inMg;
    row.joinedMg += part.joinedMg;
    row.goodMg += part.goodMg;
    row.byProductMg += part.byProductMg;
    row.reworkMg += part.reworkMg;
    for (const { cause, mg } of part.losses) addLoss(row, cause, mg);
  }
  return STATIONS.flatMap((station) => rows.get(station) ?? []);
}

function addLoss(row: StationTotals, cause: LossCause, mg: number): void {
  const loss = row.losses.find((own) => own.cause === cause);
  if (loss) loss.mg += mg;
  else row.losses.push({ cause, mg });
}

/** Adds up steps by station, in workshop order; stations without steps are left out. */
export function flowByStation(book: Book, fractions: Fractions): FlowStation[] {
  const rows = new Map<Station, FlowStation>();
  const ordered = [...fractions]
    .map(([stepId, fraction]) => ({ step: book.steps.get(stepId), fraction }))
    .filter((row): row is { step: Step; fraction: number } => row.step !== undefined && row.fraction > 1e-9)
    .sort((a, b) => (later(a.step, b.step) ? 1 : -1));
  for (const { step, fraction } of ordered) {
    const station = STATIONS.find((name) => name === step.station);
    if (station === undefined || step.postings.length === 0) continue;
    let row = rows.get(station);
    if (!row) {
      row = { ...emptyTotals(station), steps: [] };
      rows.set(station, row);
    }
    row.steps.push(addStep(book, row, step, fraction));
  }
  for (const { step, fraction } of ordered) takeOutRework(book, rows, step, fraction);
  return STATIONS.map((station) => rows.get(station)).filter((row) => row !== undefined);
}

/** What can go round again. Nibs that are roasted after the winnowing only take their stations in another order. */
const REWORKED = new Set<HoldingKind>(['mass', 'block', 'tempered', 'remelt', 'bars', 'seconds', 'packed']);

/**
 * Bars that go back to be tempered again pass temper and mould twice. The second pass is not new chocolate,
 * so what went back is taken out of every station of the loop.
 */
function takeOutRework(book: Book, rows: Map<Station, StationTotals>, step: Step, fraction: number): void {
  const to = STATIONS.indexOf(step.station as Station);
  if (to < 0) return;
  for (const p of step.postings) {
    if (p.holdingId === null || p.massMg >= 0 || !REWORKED.has(book.holding(p.holdingId).kind)) continue;
    const maker = book.steps.get(book.entriesOf(p.holdingId)[0]?.stepId ?? '');
    const from = STATIONS.indexOf(maker?.station as Station);
    if (from <= to) continue;
    const mg = -p.massMg * fraction;
    for (const station of STATIONS.slice(to, from + 1)) {
      const row = rows.get(station);
      if (!row) continue;
      row.inMg -= mg;
      row.goodMg -= mg;
      if (station === step.station) row.reworkMg += mg;
    }
  }
}

function addStep(book: Book, row: StationTotals, step: Step, fraction: number): FlowStep {
  const own: FlowStep = { stepId: step.id, fraction, at: step.at, inMg: 0, goodMg: 0 };
  for (const p of step.postings) {
    const mg = p.massMg * fraction;
    if (p.holdingId !== null) {
      const { kind } = book.holding(p.holdingId);
      if (p.massMg < 0) {
        own.inMg -= mg;
        if (kind === 'ingredient') row.joinedMg -= mg;
      } else if (isByProduct(kind)) row.byProductMg += mg;
      else own.goodMg += mg;
    } else if (p.loss !== null) {
      addLoss(row, p.loss, mg);
    } else if (p.outside === 'supplier') own.inMg -= mg;
  }
  // Charging fills the bowl and emptying takes from it: between the two nothing crossed the station.
  if (step.kind === 'charge') own.goodMg = 0;
  if (step.kind === 'discharge') own.inMg = 0;
  // Drying takes water out of what the station has received already.
  if (step.kind === 'dry') {
    own.goodMg -= own.inMg;
    own.inMg = 0;
  }
  // Sending bars back only changes the tub they are in: the tempering that follows is the pass.
  if (step.kind === 'remelt') own.inMg = own.goodMg = 0;
  row.inMg += own.inMg;
  row.goodMg += own.goodMg;
  row.count += 1;
  return own;
}
