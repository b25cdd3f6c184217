import type { Book } from '../ledger/book';
import { isByProduct, type HoldingKind, type LossCause, type Step } from '../ledger/types';
import { STATIONS, type Station } from '../work/stations';
import { later, type Fractions } from './flow';

/* What came in at each station, went on and fell away: of what is traced, or of whole steps over years. */

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

/** Whole steps added up by station as they come, without keeping them: for sums over years. */
export class StationSums {
  private readonly rows: Map<Station, StationTotals>;

  /** @param parts of others, which stay as they are */
  constructor(parts: readonly StationTotals[] = []) {
    this.rows = new Map(
      parts.map((row) => [row.station, { ...row, losses: row.losses.map((loss) => ({ ...loss })) }] as const),
    );
  }

  private readonly row = (station: Station): StationTotals => {
    const row = this.rows.get(station) ?? emptyTotals(station);
    this.rows.set(station, row);
    return row;
  };

  add(book: Book, step: Step): void {
    const station = step.station as Station;
    if (!STATIONS.includes(station)) return;
    const { postings } = step;
    if (postings.length === 0) return;
    addStep(book, this.row(station), step, 1);
    takeOutRework(book, this.row, step, 1);
  }

  /** The sums in workshop order; stations without steps are left out. */
  totals(): StationTotals[] {
    return STATIONS.flatMap((station) => this.rows.get(station) ?? []).filter(({ count }) => count > 0);
  }

  /** All rows, also those of which only something was taken out: to be added to others. */
  parts(): StationTotals[] {
    return [...this.rows.values()];
  }
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
  return STATIONS.flatMap((station) => rows.get(station) ?? []).filter(({ count }) => count > 0);
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
  for (const { step, fraction } of ordered) takeOutRework(book, (station) => rows.get(station), step, fraction);
  return STATIONS.map((station) => rows.get(station)).filter((row) => row !== undefined);
}

/** What can go round again. Nibs that are roasted after the winnowing only take their stations in another order. */
const REWORKED = new Set<HoldingKind>(['mass', 'block', 'tempered', 'remelt', 'bars', 'seconds', 'packed']);

/**
 * Bars that go back to be tempered again pass temper and mould twice. The second pass is not new chocolate,
 * so what went back is taken out of every station of the loop.
 */
function takeOutRework(
  book: Book,
  rowOf: (station: Station) => StationTotals | undefined,
  step: Step,
  fraction: number,
): void {
  const to = STATIONS.indexOf(step.station as Station);
  if (to < 0) return;
  for (const p of step.postings) {
    if (p.holdingId === null || p.massMg >= 0 || !REWORKED.has(book.holding(p.holdingId).kind)) continue;
    const maker = book.steps.get(book.firstEntry(p.holdingId)?.stepId ?? '');
    const from = STATIONS.indexOf(maker?.station as Station);
    // A second time over the stones, or a pour that is tempered again, comes back to the station it left.
    const again =
      (maker?.kind === 'discharge' && step.kind === 'charge') || (maker?.kind === 'temper' && step.kind === 'temper');
    if (from <= to && !again) continue;
    const mg = -p.massMg * fraction;
    for (const station of STATIONS.slice(to, from + 1)) {
      const row = rowOf(station);
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
