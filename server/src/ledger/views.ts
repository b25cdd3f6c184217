import type {
  CompositionView,
  GrindView,
  HoldingView,
  LineView,
  ReadingView,
  StepView,
  WorkView,
} from '@wunsch/core/api/types';
import type { CommandOf } from '@wunsch/core/commands';
import type { LotFacts, Posting, Step } from '@wunsch/core/ledger/types';
import type { Book } from '@wunsch/core/ledger/book';
import { plainStep } from '@wunsch/core/ledger/plain-step';
import { originVerdict, type Composition, type OriginVerdict } from '@wunsch/core/composition/composition';
import { MARKING } from '@wunsch/core/stations';
import { marksOf } from '@wunsch/core/trace/marks';
import type { Mark } from '@wunsch/core/workshop/mark';
import { Notables } from '@wunsch/core/trace/notable';
import type { Lasting } from '@wunsch/core/ledger/follower';
import { BarsByBatch, type BatchBars } from '@wunsch/core/trace/bars';
import type { Work } from '@wunsch/core/workshop/work';
import { blocksOf } from '@wunsch/core/trace/blocks';
import type { Workshop } from '../journal/workshop';
import { BatchSteps, type BatchSpan } from './batch-steps';
import { YieldIndex } from './yield-index';

/** Steps that say something of all of a batch. */
const SPOKEN: ReadonlySet<string> = new Set(
  [...MARKING.steps].flatMap(([kind, { carriesOn }]) => (carriesOn === true ? [] : [kind])),
);

const inOrder = (a: Step, b: Step): number => a.at - b.at || a.order - b.order;

/** Holdings by when they came to be, the newest first. */
export function newestFirst(book: Book, ids: readonly string[]): string[] {
  const since = new Map(ids.map((id) => [id, book.firstEntry(id)?.at ?? 0]));
  return [...ids].sort((a, b) => (since.get(b) ?? 0) - (since.get(a) ?? 0));
}

/** Reads the workshop as screens need it. Everything is computed from the book; nothing is stored. */
export class Views {
  readonly yields: YieldIndex;

  constructor(readonly workshop: Workshop) {
    this.yields = new YieldIndex(workshop, (id) => this.dominant(id));
  }

  cocoa(holdingId: string): Composition {
    return this.workshop.compositions.of(holdingId);
  }

  /** The same with codes and names, and what machines can have carried over. */
  composition(holdingId: string): CompositionView {
    const { book, compositions } = this.workshop;
    const found = compositions.of(holdingId);
    return {
      ...found,
      parts: found.parts.map((part) => {
        const { code, name } = book.holding(part.rootId);
        return { ...part, code, name: part.kind === 'cacao' ? name : part.name };
      }),
      carriedOver: compositions.carriedOver(holdingId),
    };
  }

  /** Papers of a lot; of cacao from before the book, what was said when it was opened. */
  private papers(rootId: string): Pick<LotFacts, 'producer' | 'country' | 'region'> {
    const { lots, book } = this.workshop;
    const facts = lots.get(rootId);
    if (facts) return facts;
    const command = book.steps.get(book.firstEntry(rootId)?.stepId ?? '')?.command as
      Partial<CommandOf<'open'>> | undefined;
    return { producer: command?.producer ?? '', country: command?.country ?? '', region: '' };
  }

  private readonly notables = new Notables(() => this.workshop.book, MARKING);

  /** What one has to know of a holding: from the steps behind it, what was said of its batch, the papers of a lot. */
  marks(holdingId: string): Mark[] {
    const { book, batches, lots } = this.workshop;
    const { batchId, kind } = book.holding(holdingId);
    const batch = batchId === null ? undefined : batches.get(batchId);
    const behind = this.notables.behind(holdingId);
    const target = batch?.targetMicron ?? null;
    const found = this.markedBy(this.markedGoods, holdingId, behind, batch?.id ?? null, SPOKEN, target);
    const block = blocksOf(this.workshop.records).get(holdingId);
    const blocked: Mark[] = block ? [{ id: 'blocked', label: 'blocked', why: block.why, stepId: null }] : [];
    return [...(kind === 'lot' && lots.has(holdingId) ? this.lotMarks(holdingId) : []), ...blocked, ...found];
  }

  /** What one has to know of a batch: what holds for any of its goods. */
  batchMarks(batchId: string): readonly Mark[] {
    const target = this.workshop.batches.get(batchId)?.targetMicron ?? null;
    return this.markedBy(this.markedBatches, batchId, null, batchId, null, target);
  }

  private readonly markedGoods = new Map<string, Marked>();
  private readonly markedBatches = new Map<string, Marked>();

  /**
   * What some steps mark something with, kept as long as these are the same.
   *
   * @param marked where that is kept
   * @param behind steps that it carries on, whatever batch they name
   * @param kinds which of its batch's steps are asked; null: all
   */
  private markedBy(
    marked: Map<string, Marked>,
    subjectId: string,
    behind: ReadonlySet<string> | null,
    batchId: string | null,
    kinds: ReadonlySet<string> | null,
    target: number | null,
  ): readonly Mark[] {
    const ofBatch = batchId === null ? '' : this.stepsWord(batchId);
    const before = marked.get(subjectId);
    if (before?.target === target && before.behind === behind && before.ofBatch === ofBatch) return before.marks;
    const own = batchId === null ? [] : this.stepsOfBatch(batchId);
    const spoken = kinds === null ? own : own.filter(({ kind }) => kinds.has(kind));
    const carried = [...(behind ?? [])].flatMap((id) => this.workshop.book.steps.get(id) ?? []);
    const all = new Map([...carried, ...spoken].map((step) => [step.id, step]));
    const marks = all.size > 0 ? marksOf([...all.values()].sort(inOrder), target, MARKING) : NO_MARKS;
    marked.set(subjectId, { behind, ofBatch, target, marks });
    return marks;
  }

  private lotMarks(lotId: string): Mark[] {
    const { standing, decision } = this.workshop.standing(lotId);
    const why = decision?.value.word ?? '';
    if (standing === 'on hold')
      return [{ id: 'hold', label: 'on hold', why: why || 'Kept apart until it is released.', stepId: null }];
    if (standing === 'refused') return [{ id: 'refused', label: 'refused', why, stepId: null }];
    return decision?.value.action === 'allowance' ? [{ id: 'claim', label: 'on claim', why, stepId: null }] : [];
  }

  lotsIn(
    holdingId: string,
  ): { id: string; code: string; producer: string; country: string; region: string; share: number }[] {
    return this.cocoa(holdingId).lots.map(({ lotId, share }) => {
      const { producer, country, region } = this.papers(lotId);
      return { id: lotId, code: this.workshop.book.holding(lotId).code, producer, country, region, share };
    });
  }

  origin(holdingId: string): OriginVerdict {
    return originVerdict(this.lotsIn(holdingId));
  }

  /** What lots are grouped by when yields are compared: country and region (or producer). */
  family(holdingId: string): string {
    return this.dominant(holdingId).family;
  }

  /** The lot that most of a holding is, and its family. */
  dominant(holdingId: string): { lotId: string | null; family: string } {
    let best: string | undefined;
    let most = 0;
    for (const [rootId, share] of this.workshop.valuation.makeUp(holdingId)) {
      if (share > most && this.workshop.lots.has(rootId)) [best, most] = [rootId, share];
    }
    const facts = best === undefined ? undefined : this.workshop.lots.get(best);
    const words = facts ? [facts.country, facts.region || facts.producer].filter((word) => word !== '') : [];
    return {
      lotId: best ?? null,
      family: words.join(', ') || (best === undefined ? '' : this.workshop.book.holding(best).name),
    };
  }

  holding(holdingId: string, reserved = this.workshop.reserved()): HoldingView {
    const { book, valuation, batches } = this.workshop;
    const holding = book.holding(holdingId);
    const { massMg, pieces } = book.balance(holdingId);
    const { madeBy: _, ...facts } = holding;
    const first = book.firstEntry(holdingId);
    const maker = book.steps.get(first?.stepId ?? '');
    const made = maker?.command as { bestBefore?: string | null } | undefined;
    return {
      ...facts,
      batchCode: holding.batchId === null ? null : (batches.get(holding.batchId)?.code ?? null),
      massMg,
      pieces,
      freeMg: massMg - (reserved.get(holdingId) ?? 0),
      since: first?.at ?? 0,
      valueMilli: valuation.worth(holdingId).valueMilli,
      perKgMilli: valuation.perKgMilli(holdingId),
      perPieceMilli: valuation.perPieceMilli(holdingId),
      family: this.family(holdingId),
      lots: this.lotsIn(holdingId).map(({ code, share }) => ({ code, share })),
      allergens: this.cocoa(holdingId).allergens,
      bestBefore: made?.bestBefore ?? null,
      marks: this.marks(holdingId),
      ...(maker?.kind === 'silk' ? { silk: true } : {}),
    };
  }

  person = (personId: string): string => this.workshop.people.get(personId)?.name ?? 'somebody';

  private line(posting: Posting): LineView {
    const holding = posting.holdingId === null ? undefined : this.workshop.book.holdings.get(posting.holdingId);
    return { ...posting, code: holding?.code ?? null, name: holding?.name ?? '', kind: holding?.kind ?? null };
  }

  step(step: Step): StepView {
    const { book, valuation, machines, batches } = this.workshop;
    const cost = book.isCurrent(step) ? valuation.costOf(step.id) : undefined;
    const sum = (pick: (p: Posting) => boolean): number =>
      step.postings.reduce((total, p) => (pick(p) ? total + p.massMg : total), 0);
    const { order: _order, slots: _slots, money, postings, batchId, overrides = [], ...rest } = plainStep(step);
    return {
      ...rest,
      person: this.person(step.personId),
      batchCode: batchId === null ? null : (batches.get(batchId)?.code ?? null),
      machine: step.machineId === null ? null : (machines.get(step.machineId)?.name ?? null),
      supersededBy: book.successorOf(step.id) ?? null,
      inMg: -sum((p) => p.holdingId !== null && p.massMg < 0),
      goodMg: sum((p) => p.holdingId !== null && p.massMg > 0 && book.holding(p.holdingId).kind !== 'husk'),
      overrides: overrides.map((row) => ({ ...row, person: this.person(row.personId) })),
      lines: postings.map((posting) => this.line(posting)),
      cost: {
        inputsMilli: cost?.inputsMilli ?? 0,
        purchaseMilli: money.purchaseMilli,
        labourMilli: money.labourMilli,
        energyMilli: money.energyMilli,
        creditMilli: cost?.creditMilli ?? 0,
        lostMilli: cost?.lostMilli ?? 0,
        soldMilli: cost?.soldMilli ?? 0,
        revenueMilli: money.revenueMilli,
      },
    };
  }

  work(work: Work): WorkView {
    const { book, machines } = this.workshop;
    return {
      id: work.id,
      station: work.station,
      sources: work.sources.map((source) => {
        const { code, name, kind } = book.holding(source.holdingId);
        return { ...source, code, name, kind };
      }),
      massMg: work.sources.reduce((sum, { massMg }) => sum + massMg, 0),
      machineId: work.machineId,
      machine: work.machineId === null ? null : (machines.get(work.machineId)?.name ?? null),
      person: this.person(work.personId),
      startedAt: work.startedAt,
      dueAt: work.dueAt,
      note: work.note,
      pausedAt: work.pausedAt ?? null,
      pausedMs: work.pausedMs ?? 0,
      sacks: work.sacks ?? [],
      personId: work.personId,
      allergens: [...new Set(work.sources.flatMap(({ holdingId }) => this.cocoa(holdingId).allergens))].sort(),
      marks: work.sources.flatMap(({ holdingId }) => this.marks(holdingId)),
      overrides: work.overrides ?? [],
      live: work.roast != null,
      silk: work.silk === true,
      school: work.pour?.school ?? null,
      moulding: work.mould ? { productId: work.mould.productId, barG: work.mould.barG } : null,
    };
  }

  /** Batches with something in the bowl. @param whole with what their machines can have carried over */
  grinds(whole = false): GrindView[] {
    const { book, batches } = this.workshop;
    return book.standing
      .filter(({ id, kind }) => kind === 'mass' && batches.has(id))
      .map(({ id }) => this.grind(id, whole))
      .sort((a, b) => a.startedAt - b.startedAt);
  }

  private grind(batchId: string, whole: boolean): GrindView {
    const { book, batches, machines } = this.workshop;
    const batch = batches.get(batchId);
    if (!batch) throw new Error(`no batch ${batchId}`);
    const first = book.firstEntry(batchId);
    const step = first ? book.steps.get(first.stepId) : undefined;
    const machineId = this.machineOf(batchId);
    return {
      batch,
      massMg: book.balance(batchId).massMg,
      startedAt: first?.at ?? 0,
      person: step ? this.person(step.personId) : '',
      machine: machineId === null ? null : (machines.get(machineId) ?? null),
      readings: this.readings(batchId),
      cocoa: this.cocoa(batchId),
      carriedOver: whole ? this.workshop.compositions.carriedOver(batchId) : [],
      origin: this.origin(batchId),
    };
  }

  /** The machine that a batch is in: where it was last charged or moved to. */
  machineOf(batchId: string): string | null {
    const inIt = this.stepsOfBatch(batchId).findLast(
      (step) =>
        step.machineId !== null &&
        (step.kind === 'charge' || (step.kind === 'reading' && (step.command as CommandOf<'reading'>).what === 'move')),
    );
    return inIt?.machineId ?? this.workshop.batches.get(batchId)?.machineId ?? null;
  }

  readings(batchId: string): ReadingView[] {
    return this.stepsOfBatch(batchId)
      .filter((step) => step.kind === 'reading')
      .map((step) => {
        const { what, value, note, channels = [] } = step.command as CommandOf<'reading'>;
        return { stepId: step.id, at: step.at, what, value, channels, note, person: this.person(step.personId) };
      });
  }

  private readonly barCounts = new BarsByBatch(
    () => this.workshop.book,
    (id) => this.workshop.batches.has(id),
  );

  /** Bars of a batch, for every page that says how many. */
  bars(batchId: string): BatchBars {
    return this.barCounts.of(batchId);
  }

  readonly batchSteps = new BatchSteps(() => this.workshop.book);

  /** What is made of the book, in the order in which it is first asked for. */
  get lasting(): ReadonlyMap<string, Lasting> {
    return new Map<string, Lasting>([
      ['batch steps', this.batchSteps],
      ['notables', this.notables],
      ['bars', this.barCounts],
      ['yields', this.yields],
    ]);
  }

  /** When a batch's first and its last step was, and the machines that they name; null where no step names it. */
  spanOfBatch(batchId: string): BatchSpan | null {
    return this.batchSteps.spanOf(batchId);
  }

  /** Another word whenever other steps are in force that name any batch. */
  get stepsOfBatches(): string {
    return this.batchSteps.word;
  }

  /** Another word whenever other steps are in force that name a batch. */
  stepsWord(batchId: string): string {
    return this.batchSteps.wordOf(batchId);
  }

  /** Steps in force that name a batch, in order: a list of its own for whoever asks. */
  stepsOfBatch(batchId: string): readonly Step[] {
    return this.batchSteps.of(batchId);
  }
}

/** Of nearly all there is nothing to know: these have one list. */
const NO_MARKS: readonly Mark[] = [];

/** What something is marked with, and what that was read of. */
interface Marked {
  behind: ReadonlySet<string> | null;
  ofBatch: string;
  target: number | null;
  marks: readonly Mark[];
}
