import { byProductSales, reachingBack } from '@wunsch/core/ledger/by-product-sales';
import { Follower, type Lasting, type Settled } from '@wunsch/core/ledger/follower';
import { Layered } from '@wunsch/core/ledger/layered';
import { isByProduct, type Step } from '@wunsch/core/ledger/types';
import { addTotals, StationSums, type StationTotals } from '@wunsch/core/trace/by-station';
import type { Station } from '@wunsch/core/work/stations';
import type { Views } from '../ledger/views';

const MONTH_MS = 30.4375 * 86_400_000;

/** What good output of a station cost so far, and how much of it there was. */
interface Worth {
  milli: number;
  mg: number;
}

/** The same, to be kept. */
interface SumsPast {
  family: string;
  month: number;
  firstAt: number;
  stations: StationTotals[];
  worth: ReadonlyMap<Station, Worth>;
}

/** Sums of one family in one month. */
class Sums {
  readonly stations: StationSums;
  readonly worth: Map<Station, Worth>;
  readonly family: string;
  readonly month: number;
  firstAt: number;

  constructor({ family, month, firstAt, stations, worth }: SumsPast) {
    [this.family, this.month, this.firstAt] = [family, month, firstAt];
    this.stations = new StationSums(stations);
    this.worth = new Map([...worth].map(([station, own]) => [station, { ...own }]));
  }

  static first(family: string, month: number): Sums {
    return new Sums({ family, month, firstAt: Infinity, stations: [], worth: new Map() });
  }

  past(): SumsPast {
    const { family, month, firstAt, stations, worth } = this;
    return { family, month, firstAt, stations: stations.parts(), worth };
  }

  add({ workshop: { book, valuation } }: Views, step: Step): void {
    this.stations.add(book, step);
    this.firstAt = Math.min(this.firstAt, step.at);
    if (step.kind === 'charge') return;
    const cost = valuation.costOf(step.id);
    if (!cost) return;
    const station = step.station as Station;
    const sum = this.worth.get(station) ?? { milli: 0, mg: 0 };
    this.worth.set(station, sum);
    for (const { holdingId, massMg } of step.postings) {
      if (holdingId === null || massMg <= 0 || isByProduct(book.holding(holdingId).kind)) continue;
      sum.mg += massMg;
      sum.milli += cost.outputs.get(holdingId) ?? 0;
    }
  }
}

/** What the loss book of some months and families is made from. */
export interface LossSums {
  totals: StationTotals[];
  worth: Map<Station, Worth>;
  /** When its first step was; null without any. */
  firstAt: number | null;
}

const NONE = new Set(['buy', 'sell', 'return']);

/** The family that a step is counted with; null where it moves nothing on. */
function familyOf(views: Views, step: Step): string | null {
  const made = step.slots['good'] ?? step.batchId;
  return made === null || NONE.has(step.kind) || step.postings.length === 0 ? null : views.dominant(made).family;
}

/** What several parts were worth together, by station. */
export function worthOf(parts: readonly { worth: ReadonlyMap<Station, Worth> }[]): Map<Station, Worth> {
  const all = new Map<Station, Worth>();
  for (const { worth } of parts)
    for (const [station, { milli, mg }] of worth) {
      const sum = all.get(station) ?? { milli: 0, mg: 0 };
      all.set(station, { milli: sum.milli + milli, mg: sum.mg + mg });
    }
  return all;
}

/** What is settled of it, and the sales of by-products since that it had known of. */
interface Past {
  sums: SumsPast[];
  sales: readonly string[];
}

/**
 * Where the grams of each family went in each month, kept up to date with the book.
 */
export class LossIndex implements Lasting {
  private readonly sums = new Layered<string, Sums>();
  /** Sales after what is settled that are credited to steps in it. */
  private sales: readonly string[] = [];
  /** Can be caught up ahead of the first question. */
  readonly follower: Follower;

  constructor(private readonly views: Views) {
    const { workshop } = views;
    this.follower = new Follower({
      book: () => workshop.book,
      begin: () => this.sums.begin(),
      take: (step) => this.add(step),
      standsOn: () => workshop.valuation,
      layers: {
        settle: (settled) => {
          this.sales = this.salesReaching(settled);
          this.sums.settle();
        },
        back: () => this.sums.back(),
        // What steps cost is another where a by-product of theirs was sold since.
        holds: (settled) => this.salesReaching(settled).join() === this.sales.join(),
      },
    });
  }

  private salesReaching({ place, upTo }: Settled): string[] {
    return reachingBack(byProductSales(this.views.workshop.book, place), upTo);
  }

  private add(step: Step): void {
    const family = familyOf(this.views, step);
    if (family === null) return;
    const month = Math.floor(step.at / MONTH_MS);
    const sums = this.sums.own(
      `${month} ${family}`,
      () => Sums.first(family, month),
      (settled) => new Sums(settled.past()),
    );
    sums.add(this.views, step);
  }

  /** Sums by family from a moment on, those of its first month step by step. */
  since(from: number): Map<string, LossSums> {
    this.follower.catchUp();
    const whole = Math.ceil(from / MONTH_MS);
    const parts = this.partial(from, whole * MONTH_MS);
    for (const [, sums] of this.sums)
      if (sums.month >= whole) parts.set(sums.family, [...(parts.get(sums.family) ?? []), sums]);
    return new Map([...parts].map(([family, own]) => [family, together(own)]));
  }

  /** Steps from a moment on up to where the whole months begin, by family. */
  private partial(from: number, until: number): Map<string, Sums[]> {
    const found = new Map<string, Sums[]>();
    if (!Number.isFinite(from)) return found;
    const { timeline } = this.views.workshop.book;
    for (let i = timeline.indexFrom(from); i < timeline.length; i += 1) {
      const step = timeline.at(i);
      if (!step || step.at >= until) break;
      const family = familyOf(this.views, step);
      if (family === null) continue;
      const [sums = Sums.first(family, 0)] = found.get(family) ?? [];
      found.set(family, [sums]);
      sums.add(this.views, step);
    }
    return found;
  }

  past(): Past {
    return { sums: Array.from(this.sums.past.values(), (sums) => sums.past()), sales: this.sales };
  }

  resume(past: unknown, settled: Settled): void {
    const { sums, sales } = past as Past;
    this.sums.begin(new Map(sums.map((own) => [`${own.month} ${own.family}`, new Sums(own)])));
    this.sales = sales;
    this.follower.resume(settled);
  }
}

function together(parts: readonly Sums[]): LossSums {
  const firstAt = Math.min(...parts.map((part) => part.firstAt));
  return {
    totals: addTotals(parts.map(({ stations }) => stations.parts())),
    worth: worthOf(parts),
    firstAt: Number.isFinite(firstAt) ? firstAt : null,
  };
}

const indices = new WeakMap<Views, LossIndex>();

/** The index of a workshop. */
export function lossIndex(views: Views): LossIndex {
  const known = indices.get(views) ?? new LossIndex(views);
  indices.set(views, known);
  return known;
}
