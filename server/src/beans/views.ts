import type {
  BeanLotView,
  BeanRecordView,
  HarvestView,
  HoldView,
  InspectionView,
  LotLink,
  SampleView,
} from '@wunsch/core/api/beans';
import { claimSheet } from '@wunsch/core/beans/claim';
import { beansIn, cutShares } from '@wunsch/core/beans/cut-test';
import { dryingForecast, fermentAdvice } from '@wunsch/core/beans/harvest';
import { newestOf, ofKind, type BeanRecord, type RecordWith } from '@wunsch/core/beans/records';
import { checkCount, netOf, sackStock, type CountCheck } from '@wunsch/core/beans/sacks';
import type { HoldState } from '@wunsch/core/beans/state';
import { judgeArrival } from '@wunsch/core/beans/verdict';
import { DomainError } from '@wunsch/core/errors/domain-error';
import type { CommandOf } from '@wunsch/core/commands';
import type { LotFacts, Step } from '@wunsch/core/ledger/types';
import { greenMg } from '@wunsch/core/trace/flow';
import type { Views } from '../ledger/views';
import { expectedFrom } from '../ledger/expected';
import { sortView } from '../sort/views';
import { fileView } from '../journal/files';
import { papersOf } from '@wunsch/core/beans/papers';

const DAY_MS = 86_400_000;
/** Usual share that wet beans keep once they are dry. */
const DRY_OF_WET = 0.38;

/** A lot with everything written down about it. @throws DomainError for codes that are no lot's */
export function lotByCode(views: Views, code: string): string {
  const holding = views.workshop.book.byCode(code);
  if (!holding || !views.workshop.lots.has(holding.id))
    throw new DomainError('trace/unknown-code', 'There is no lot with that code.');
  return holding.id;
}

export function factsOf(views: Views, lotId: string): LotFacts {
  const facts = views.workshop.lots.get(lotId);
  if (!facts) throw new DomainError('http/not-found', 'There is no such lot.');
  return facts;
}

export function receiptOf(views: Views, lotId: string): Step {
  const { book } = views.workshop;
  const receipt = book.steps.get(book.firstEntry(lotId)?.stepId ?? '');
  if (!receipt) throw new DomainError('http/not-found', 'There is no such lot.');
  return receipt;
}

/** Sacks weighed one by one against the invoice; null when they were not weighed. */
export function countOf(views: Views, records: readonly BeanRecord[], facts: LotFacts): CountCheck | null {
  const weighed = newestOf(records, 'sacks');
  if (!weighed) return null;
  const invoice = { sacks: facts.invoiceSacks ?? null, netG: facts.invoiceNetG ?? null };
  const { massSystem } = views.workshop.settings;
  return checkCount(weighed.value.sacks, invoice, papersOf(records).limits.weightPct, massSystem);
}

export function inspectionView(
  views: Views,
  row: RecordWith<'inspection'>,
  records: readonly BeanRecord[],
  facts: LotFacts,
  netG: number,
): InspectionView {
  const { cut } = row.value;
  const arrival = judgeArrival(row.value, papersOf(records).limits, countOf(views, records, facts), netG);
  return {
    recordId: row.id,
    at: row.at,
    person: views.person(row.personId),
    value: row.value,
    arrival,
    shares: cut && beansIn(cut.tally) > 0 ? cutShares(cut.tally) : null,
    cut: arrival.cut,
  };
}

export function holdView(views: Views, hold: HoldState): HoldView {
  const { record, plan, clock, readings, released } = hold;
  return {
    recordId: record.id,
    since: record.at,
    person: views.person(record.personId),
    value: record.value,
    plan,
    clock,
    readings,
    released: released && { at: released.at, person: views.person(released.personId), word: released.value.word },
    toldBy: record.value.toldBy === null ? null : views.person(record.value.toldBy),
  };
}

export function linkTo(views: Views, lotId: string): LotLink {
  const { code, name } = views.workshop.book.holding(lotId);
  return { code, name };
}

/** Lots that were bought on a sample. */
export const boughtOn = (views: Views, sampleId: string): LotLink[] =>
  [...views.workshop.lots].filter(([, facts]) => facts.sampleId === sampleId).map(([id]) => linkTo(views, id));

export const lastLookAt = (records: readonly BeanRecord[]): number | null =>
  Math.max(newestOf(records, 'look')?.at ?? 0, newestOf(records, 'inspection')?.at ?? 0) || null;

/** Everything on one lot's page. */
export function beanLotView(views: Views, lotId: string): BeanLotView {
  const { workshop } = views;
  const { book } = workshop;
  const facts = factsOf(views, lotId);
  const records = workshop.beans.of(lotId);
  const holding = book.holding(lotId);
  const receipt = receiptOf(views, lotId);
  const route = workshop.routes.get(holding.routeId ?? '');
  if (!route) throw new DomainError('http/not-found', 'The route of this lot is gone.');
  const { standing, decision, hold } = workshop.standing(lotId);
  const leftG = book.balance(lotId).massMg / 1000;
  const receivedG = greenMg(book, lotId) / 1000;
  const weighed = newestOf(records, 'sacks');
  const inspections = ofKind(records, 'inspection').map((row) => inspectionView(views, row, records, facts, receivedG));
  const looked = lastLookAt(records);
  const sort = sortView(views, lotId);
  const count = countOf(views, records, facts);
  const papers = papersOf(records);
  const harvest = harvestView(views, lotId);
  return {
    id: lotId,
    code: holding.code,
    name: holding.name,
    family: views.family(lotId),
    facts,
    route,
    receiptId: receipt.id,
    receivedAt: receipt.at,
    receivedG,
    leftG,
    landedPerKgMilli: workshop.valuation.perKgMilli(lotId),
    papers,
    standing,
    decision: decision && { at: decision.at, person: views.person(decision.personId), value: decision.value },
    hold: hold && holdView(views, hold),
    sackRows: weighed?.value.sacks ?? [],
    sacks: sacksOf(views, lotId),
    count,
    inspections,
    harvest,
    files: workshop.beans.filesOf(lotId).map((file) => fileView(views, file)),
    records: recordLog(views, lotId),
    expected: expectedFrom(
      views,
      lotId,
      standing === 'wet' ? (harvest?.forecast?.targetG ?? leftG * DRY_OF_WET) : leftG,
    ),
    sort,
    claim: claimSheet({
      netG: facts.invoiceNetG ?? receivedG,
      perKg: priceHere(receipt),
      currency: workshop.settings.currency,
      massSystem: workshop.settings.massSystem,
      arrival: inspections.at(-1)?.arrival ?? null,
      count,
      limits: papers.limits,
      sort: { ...sort.summary, flatShare: sort.flatShare },
    }),
    lastLookAt: looked,
    lookDueAt: leftG > 0 ? (looked ?? receipt.at) + workshop.settings.lookDays * DAY_MS : null,
    sampleOf: facts.sampleId && book.holdings.has(facts.sampleId) ? linkTo(views, facts.sampleId) : null,
    boughtAs: facts.sample ? boughtOn(views, lotId) : [],
  };
}

/** Invoice price in the workshop's currency. */
function priceHere(receipt: Step): number {
  const { pricePerKg, rate } = receipt.command as CommandOf<'receive'>;
  return pricePerKg * rate;
}

/** What is left in each sack that was weighed. */
export function sacksOf(views: Views, lotId: string): BeanLotView['sacks'] {
  const { book, beans } = views.workshop;
  const records = beans.of(lotId);
  const weighed = newestOf(records, 'sacks');
  if (!weighed) return [];
  const net = new Map(weighed.value.sacks.map((row) => [row.no, row.grossG - row.tareG]));
  const taken = new Map<number, number>();
  for (const entry of book.entriesOf(lotId)) {
    const step = book.steps.get(entry.stepId);
    if (step?.kind !== 'sort' || entry.massMg >= 0) continue;
    let grams = -entry.massMg / 1000;
    for (const no of (step.command as CommandOf<'sort'>).sacks ?? []) {
      const room = Math.max(0, (net.get(no) ?? 0) - (taken.get(no) ?? 0));
      const drawn = Math.min(room, grams);
      taken.set(no, (taken.get(no) ?? 0) + drawn);
      grams -= drawn;
    }
  }
  const moved = new Map(
    ofKind(records, 'look').flatMap((row) => row.value.moved.map(({ no, place }) => [no, place] as const)),
  );
  // Weighed net and book differ by what was sorted before the weighing, or by a count: the book decides.
  const booked = Math.min(book.balance(lotId).massMg / 1000, netOf(weighed.value.sacks));
  return sackStock(weighed.value.sacks, booked, taken, moved);
}

function recordLog(views: Views, lotId: string): BeanRecordView[] {
  const { beans } = views.workshop;
  const counts = new Set(beans.of(lotId));
  return beans
    .all(lotId)
    .filter(({ value }) => !(value.kind === 'core' && value.by === 'probe'))
    .map((row) => ({
      id: row.id,
      at: row.at,
      person: views.person(row.personId),
      value: row.value,
      takenBack: row.value.kind !== 'taken-back' && !counts.has(row),
    }))
    .sort((a, b) => b.at - a.at);
}

function harvestView(views: Views, lotId: string): HarvestView | null {
  const { workshop } = views;
  const records = workshop.beans.of(lotId);
  const written = newestOf(records, 'harvest');
  if (!written) return null;
  const now = workshop.now();
  const openedAt = Date.parse(written.value.openedAt);
  const wetG = (workshop.book.firstEntry(lotId)?.massMg ?? 0) / 1000;
  const row = <T extends RecordWith<'ferment'> | RecordWith<'drying'>>(record: T) => ({
    recordId: record.id,
    at: record.at,
    person: views.person(record.personId),
    value: record.value as T['value'],
  });
  const ferment = ofKind(records, 'ferment').map(row);
  const drying = ofKind(records, 'drying').map(row);
  const forecast =
    drying.length > 0
      ? dryingForecast(
          drying.map(({ at, value }) => ({ at, moisturePct: value.moisturePct, massG: value.massG })),
          now,
        )
      : null;
  return {
    value: written.value,
    openedAt,
    wetG,
    dryG: workshop.isDried(lotId) ? greenMg(workshop.book, lotId) / 1000 : null,
    ferment,
    drying,
    advice:
      forecast?.advice ??
      fermentAdvice(
        { openedAt, wetG, ambientC: written.value.ambientC, now },
        ferment.map(({ at, value }) => ({ ...value, at })),
        workshop.settings,
      ),
    forecast,
  };
}

/** Samples side by side. */
export function samplesView(views: Views): SampleView[] {
  const { workshop } = views;
  return [...workshop.lots]
    .filter(([id, facts]) => facts.sample === true && workshop.book.entriesOf(id).length > 0)
    .map(([id, facts]) => sampleView(views, id, facts))
    .sort((a, b) => b.receivedAt - a.receivedAt);
}

function sampleView(views: Views, id: string, facts: LotFacts): SampleView {
  const { workshop } = views;
  const records = workshop.beans.of(id);
  const newest = newestOf(records, 'inspection');
  const sort = sortView(views, id);
  const winnowed = views.yields.ofLot('winnow', id);
  const nibs = winnowed.reduce((sum, { goodMg }) => sum + goodMg, 0);
  const cracked = winnowed.reduce((sum, { inMg }) => sum + inMg, 0);
  const batches = [...new Set(views.yields.ofLot('discharge', id).map(({ step }) => step?.batchId))]
    .filter((batchId) => batchId !== null && batchId !== undefined)
    .map((batchId) => {
      const scores = views
        .stepsOfBatch(batchId)
        .filter(({ kind }) => kind === 'taste')
        .map((step) => (step.command as CommandOf<'taste'>).score);
      return { code: workshop.batches.get(batchId)?.code ?? '', score: mean(scores) };
    });
  return {
    id,
    ...linkTo(views, id),
    family: views.family(id),
    facts,
    papers: papersOf(records),
    leftG: workshop.book.balance(id).massMg / 1000,
    receivedAt: receiptOf(views, id).at,
    landedPerKgMilli: workshop.valuation.perKgMilli(id),
    inspection: newest ? inspectionView(views, newest, records, facts, greenMg(workshop.book, id) / 1000) : null,
    sortRejectShare: sort.summary.inG > 0 ? sort.summary.rejectShare : null,
    nibYield: cracked > 0 ? nibs / cracked : null,
    batches,
    score: mean(batches.flatMap(({ score }) => (score === null ? [] : [score]))),
    boughtAs: boughtOn(views, id),
  };
}

const mean = (values: readonly number[]): number | null =>
  values.length === 0 ? null : values.reduce((a, b) => a + b, 0) / values.length;
