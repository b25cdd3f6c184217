import { DomainError } from '../errors/domain-error';
import { toMg } from '../units/mass';
import { nextPlace, type Place, type Route, type Station } from '../work/stations';
import type { Book } from './book';
import type { Balance, Entry } from './entries';
import type { Source } from '../fields/sources';
import { sumOf } from './revision';
import type { Batch, Holding, HoldingKind, LossCause, LotFacts, Material, Outside, Posting } from './types';

/** What the planners of all stations may look at and ask for; ids and codes are handed out by the server. */
export interface PlanContext {
  book: Book;
  at: number;
  order: number;
  /** What moved in a holding before this step; an earlier version of the step itself is left out. */
  before(holdingId: string): readonly Entry[];
  /** The first version of the step that is being corrected: what it made names that one. */
  first: string | null;
  /** Holdings that the step being corrected had made: its new version makes the same ones. */
  oldSlots: Readonly<Record<string, string>>;
  route(id: string): Route;
  batch(id: string): Batch;
  material(id: string): Material;
  newId(): string;
  /** Milligrams in the workshop's own units, for people; beside a larger mass in the same unit as that. */
  mass: (mg: number, besideMg?: number) => string;
  /** The next free code with that letter: `T118`. */
  newCode(letter: CodeLetter): string;
  machineId: string | null;
}

/** What a holding held just before the step that is planned. */
export const held = (context: PlanContext, holdingId: string): Balance => sumOf(context.before(holdingId));

export const CODE_LETTERS = { lot: 'L', tub: 'T', husk: 'H', block: 'K', batch: 'B', pantry: 'P' } as const;
export type CodeLetter = (typeof CODE_LETTERS)[keyof typeof CODE_LETTERS];

/** What bars are called without their weight: melted and moulded again they get another one. */
export const withoutWeight = (name: string): string => name.replace(/(?:, [\d.]+ g)+(?= \+ |$)/g, '');

/** A planned step: postings that add up, and what has to be created for them. */
export interface StepPlan {
  station: Place;
  batchId: string | null;
  postings: Posting[];
  holdings: Holding[];
  /** What is said now of holdings that an earlier version of the step made already. */
  restated: HoldingFacts[];
  slots: Record<string, string>;
  purchaseMilli: number;
  revenueMilli: number;
  /** Of the revenue, what each thing sold fetched, by holding. */
  takingsMilli?: Record<string, number>;
  lot?: LotFacts;
  batch?: Batch;
}

/** What a correction can change of a holding: everything but its grams and where it stands now. */
export type HoldingFacts = Pick<Holding, 'id' | 'code' | 'name' | 'kind' | 'routeId' | 'batchId' | 'materialId'>;

export interface NewHolding {
  kind: HoldingKind;
  letter: CodeLetter;
  name: string;
  place: Place;
  routeId?: string | null;
  batchId?: string | null;
  materialId?: string | null;
  code?: string;
}

/**
 * More came out than went in: scales differ by a little, never by this much. A share of the mass; under half a
 * kilogram the step of a kitchen scale on both weighings.
 */
const SCALE_NOISE = { share: 0.01, mg: 5_000 };

/** Whether a surplus is more than two scales can differ by. */
export const moreThanNoise = (surplusMg: number, inMg: number): boolean =>
  surplusMg > Math.max(SCALE_NOISE.mg, inMg * SCALE_NOISE.share);

/** Builds the postings of one step and keeps count of what is still to be explained. */
export class Planner {
  readonly postings: Posting[] = [];
  /** What is made; it can be said otherwise until the plan is done. */
  readonly holdings: { -readonly [Fact in keyof Holding]: Holding[Fact] }[] = [];
  readonly restated: HoldingFacts[] = [];
  readonly slots: Record<string, string> = {};
  private inMg = 0;
  private outMg = 0;

  constructor(readonly context: PlanContext) {}

  /** Takes grams or pieces out of holdings. @returns milligrams taken */
  take(sources: readonly Source[], accepts: readonly HoldingKind[], field = 'sources'): number {
    let total = 0;
    sources.forEach((source, index) => {
      const holding = this.context.book.holdings.get(source.holdingId);
      const path = `${field}.${index}.holdingId`;
      if (!holding) {
        throw new DomainError('ledger/unknown-holding', 'There is no such tub, lot or bar.', [
          { path, message: 'is not known here' },
        ]);
      }
      if (!accepts.includes(holding.kind)) {
        throw new DomainError('ledger/wrong-kind', `${holding.code} (${holding.kind}) cannot go in here.`, [
          { path, message: `is ${holding.kind}; this takes ${accepts.join(', ')}` },
        ]);
      }
      const taken = this.amount(holding, source);
      // From nought, so that nought stays the same number when it is read again.
      this.post({ holdingId: holding.id, massMg: 0 - taken.massMg, pieces: 0 - taken.pieces });
      total += taken.massMg;
    });
    this.inMg += total;
    return total;
  }

  /** Grams and pieces meant by a source: bars go by the piece, at the mean weight of what is there. */
  private amount(holding: Holding, source: Source): { massMg: number; pieces: number } {
    const there = held(this.context, holding.id);
    if (source.pieces !== undefined) {
      if (there.pieces <= 0) {
        throw new DomainError('ledger/short', `${holding.code} held no pieces at that time.`);
      }
      const all = source.pieces === there.pieces;
      return {
        pieces: source.pieces,
        massMg: all ? there.massMg : Math.round((there.massMg * source.pieces) / there.pieces),
      };
    }
    const massMg = toMg(source.massG ?? 0);
    if (there.pieces > 0) {
      throw new DomainError('ledger/by-the-piece', `${holding.code} is counted: say how many pieces.`);
    }
    return { massMg, pieces: 0 };
  }

  /** Makes (or, when correcting, makes again) a holding and puts grams in it. */
  make(slot: string, spec: NewHolding, massMg: number, pieces = 0): string {
    const old = this.context.oldSlots[slot];
    const holdingId = old ?? this.context.newId();
    if (old === undefined) {
      const { letter, code, ...rest } = spec;
      this.holdings.push({
        routeId: null,
        batchId: null,
        materialId: null,
        ...rest,
        id: holdingId,
        code: code ?? this.context.newCode(letter),
        madeBy: '',
      });
    } else {
      const there = this.context.book.holding(old);
      const { kind, name, code = there.code, routeId = null, materialId = null } = spec;
      // A batch is named after itself.
      const batchId = spec.batchId ?? (there.batchId === old ? old : null);
      this.restated.push({ id: old, code, name, kind, routeId, batchId, materialId });
    }
    this.slots[slot] = holdingId;
    this.put(holdingId, massMg, pieces);
    return holdingId;
  }

  /** Puts grams into a holding that exists. */
  put(holdingId: string, massMg: number, pieces = 0): void {
    this.post({ holdingId, massMg, pieces });
    this.outMg += massMg;
  }

  lose(loss: LossCause, massMg: number, reason: string | null = null): void {
    if (massMg === 0) return;
    this.post({ loss, massMg, reason });
    this.outMg += massMg;
  }

  /** Grams across the workshop door: negative comes in. */
  door(outside: Outside, massMg: number, pieces = 0): void {
    this.post({ outside, massMg, pieces });
    this.outMg += massMg;
  }

  /** Milligrams that went in and are not explained yet. */
  get left(): number {
    return this.inMg - this.outMg;
  }

  /**
   * Books what is left under a cause. A small surplus is scale noise and goes to `unaccounted`;
   * a large one is refused.
   *
   * @throws DomainError `ledger/more-out-than-in`
   */
  explainRest(cause: LossCause, field: string): void {
    const left = this.left;
    if (left >= 0) {
      this.lose(cause, left);
      return;
    }
    if (moreThanNoise(-left, this.inMg)) {
      const { mass } = this.context;
      const tooMuch = mass(-left, this.outMg);
      throw new DomainError(
        'ledger/more-out-than-in',
        `${mass(this.inMg, this.outMg)} went in but ${mass(this.outMg)} came out: ${tooMuch} too much. Weigh again or check what went in.`,
        [{ path: field, message: `is ${tooMuch} more than went in` }],
      );
    }
    this.lose('unaccounted', left);
  }

  private post(posting: Partial<Posting>): void {
    this.postings.push({
      holdingId: null,
      loss: null,
      outside: null,
      reason: null,
      massMg: 0,
      pieces: 0,
      ...posting,
    });
  }

  /** The code of a holding with the next free number behind it: what is cut from K012 is K012-2. */
  nextCodeOf(holdingId: string): string {
    const base = this.context.book.holding(holdingId).code.replace(/-\d+$/, '');
    const taken = new Set(this.holdings.map(({ code }) => code.toUpperCase()));
    for (let n = 2; ; n += 1) {
      const code = `${base}-${n}`;
      if (!taken.has(code.toUpperCase()) && !this.context.book.byCode(code)) return code;
    }
  }

  /** The route that most of what goes in is on, and the batch, if it is all of one. */
  origin(sources: readonly Source[]): { routeId: string | null; batchId: string | null; name: string } {
    const all = sources.map((source) => this.context.book.holding(source.holdingId));
    const goods = all.filter(({ kind }) => kind !== 'ingredient' && kind !== 'packaging');
    // Bought chocolate is an ingredient that can be all there is.
    const holdings = goods.length > 0 ? goods : all;
    const first = holdings[0];
    const batches = new Set(holdings.map((holding) => holding.batchId).filter((value) => value !== null));
    const [only] = batches;
    return {
      routeId: first?.routeId ?? null,
      batchId: batches.size === 1 ? (only ?? null) : (first?.batchId ?? null),
      name: [...new Set(holdings.map((holding) => holding.name))].slice(0, 3).join(' + '),
    };
  }

  /** Where goods on a route wait after this station. */
  after(station: Station, routeId: string | null, otherwise: Place): Place {
    return routeId === null ? otherwise : nextPlace(this.context.route(routeId), station);
  }

  plan(station: Place, batchId: string | null, extra: Partial<StepPlan> = {}): StepPlan {
    return {
      station,
      batchId,
      postings: this.postings,
      holdings: this.holdings,
      restated: this.restated,
      slots: this.slots,
      purchaseMilli: 0,
      revenueMilli: 0,
      ...extra,
    };
  }
}
