import { Follower } from '@wunsch/core/ledger/follower';
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

/** Sums of one family in one month. */
class Sums {
  readonly stations = new StationSums();
  readonly worth = new Map<Station, Worth>();
  firstAt = Infinity;

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

/** The sums under a key, begun where there are none. */
function sumsAt<K>(map: Map<K, Sums>, key: K): Sums {
  const sums = map.get(key) ?? new Sums();
  map.set(key, sums);
  return sums;
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

/**
 * Where the grams of each family went in each month, kept up to date with the book.
 */
export class LossIndex {
  private families = new Map<string, Map<number, Sums>>();
  /** Can be caught up ahead of the first question. */
  readonly follower: Follower;

  constructor(private readonly views: Views) {
    const { workshop } = views;
    this.follower = new Follower(
      () => workshop.book,
      () => (this.families = new Map()),
      (step) => this.add(step),
      () => workshop.valuation,
    );
  }

  private add(step: Step): void {
    const family = familyOf(this.views, step);
    if (family === null) return;
    const months = this.families.get(family) ?? new Map<number, Sums>();
    this.families.set(family, months);
    const month = Math.floor(step.at / MONTH_MS);
    sumsAt(months, month).add(this.views, step);
  }

  /** Sums by family from a moment on, those of its first month step by step. */
  since(from: number): Map<string, LossSums> {
    this.follower.catchUp();
    const whole = Math.ceil(from / MONTH_MS);
    const parts = new Map<string, Sums[]>();
    for (const [family, months] of this.families) {
      const own = [...months].flatMap(([month, sums]) => (month >= whole ? [sums] : []));
      if (own.length > 0) parts.set(family, own);
    }
    for (const [family, sums] of this.partial(from, whole * MONTH_MS))
      parts.set(family, [sums, ...(parts.get(family) ?? [])]);
    return new Map([...parts].map(([family, own]) => [family, together(own)]));
  }

  /** Steps from a moment on up to where the whole months begin. */
  private partial(from: number, until: number): Map<string, Sums> {
    const found = new Map<string, Sums>();
    if (!Number.isFinite(from)) return found;
    const { timeline } = this.views.workshop.book;
    for (let i = timeline.indexFrom(from); i < timeline.length; i += 1) {
      const step = timeline.at(i);
      if (!step || step.at >= until) break;
      const family = familyOf(this.views, step);
      if (family !== null) sumsAt(found, family).add(this.views, step);
    }
    return found;
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
