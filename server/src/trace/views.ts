import type { BatchView, CostView, LotView, StreamStation, TraceView } from '@wunsch/core/api/types';
import { DomainError } from '@wunsch/core/errors/domain-error';
import type { CommandOf } from '@wunsch/core/commands';
import type { Part } from '@wunsch/core/composition/composition';
import { CHOCOLATE_KINDS, isByProduct, type Batch, type Step } from '@wunsch/core/ledger/types';
import { flowByStation } from '@wunsch/core/trace/by-station';
import { downstream, fillingShares, greenMg, upstream, type Fractions } from '@wunsch/core/trace/flow';
import { STATIONS, type Station } from '@wunsch/core/work/stations';
import type { Views } from '../ledger/views';

/** Gives the stations of a stream what stands there now and the codes of what each step made. */
function asStream(views: Views, fractions: Fractions, holdings: Fractions): StreamStation[] {
  const { book } = views.workshop;
  const rows = flowByStation(book, fractions).map((row): StreamStation => ({
    ...row,
    standingMg: 0,
    codes: row.steps.map(({ stepId }) => {
      const made = book.steps.get(stepId)?.slots['good'];
      return { stepId, code: made === undefined ? '' : (book.holdings.get(made)?.code ?? '') };
    }),
  }));
  for (const [holdingId, share] of holdings) {
    if (!book.live.has(holdingId)) continue;
    const row = rows.find(({ station }) => station === book.holding(holdingId).place);
    if (row) row.standingMg += book.balance(holdingId).massMg * share;
  }
  return rows;
}

/** Everything about one batch: where its grams came from, went, and stand; what it costs. */
export function batchView(views: Views, batch: Batch): BatchView {
  const { book, valuation, routes } = views.workshop;
  const own = views.stepsOfBatch(batch.id);
  const charges = own.filter(({ kind }) => kind === 'charge');
  const emptying = own.find(({ kind }) => kind === 'discharge');
  const back = upstream(book, new Map(charges.map((step) => [step.id, 1])));
  const forward = downstream(book, [batch.id], 'goods');
  const fractions: Fractions = new Map([...forward.steps, ...back]);
  const stream = asStream(views, fractions, forward.holdings);
  const makeUp = valuation.makeUp(batch.id);
  const inBowl = book.entriesOf(batch.id).reduce((sum, { massMg }) => sum + Math.max(0, massMg), 0);
  const bars = views.bars(batch.id);
  const cacaoShare =
    views.cocoa(batch.id).lots.length > 0
      ? [...makeUp].reduce((sum, [root, share]) => (views.workshop.lots.has(root) ? sum + share : sum), 0)
      : 0;
  const green = stream[0]?.goodMg ?? 0;
  const route = routes.get(batch.routeId);
  if (!route) throw new DomainError('http/not-found', 'The route of this batch is gone.');
  const bowlMg = book.balance(batch.id).massMg;
  const standing = [...forward.holdings.keys()].filter((id) => book.live.has(id)).map((id) => views.holding(id));
  return {
    batch,
    route,
    state:
      bowlMg > 0
        ? 'grinding'
        : standing.length === 0
          ? 'gone'
          : standing.every(({ kind }) => kind === 'packed' || kind === 'seconds')
            ? 'bars'
            : 'in progress',
    marks: [...views.batchMarks(batch.id)],
    goods: goodsOf(views, batch.id, forward.holdings.keys()),
    startedAt: book.firstEntry(batch.id)?.at ?? 0,
    emptiedAt: emptying?.at ?? null,
    bowlMg,
    origin: views.origin(batch.id),
    chargedMg: inBowl,
    stream,
    yields: stream
      .filter(({ inMg, goodMg }) => inMg > 0 && goodMg > 0)
      .map(({ station, goodMg, inMg }) => ({ station, value: goodMg / inMg })),
    beanToBar: bars.massMg > 0 && green > 0 ? (bars.massMg * cacaoShare) / green : null,
    bars: { made: tenth(bars.made), standing: tenth(bars.standing), sold: tenth(bars.sold) },
    standing,
    cost: costView(views, batch.id, fractions, forward.holdings),
    readings: views.readings(batch.id),
    tastings: own
      .filter(({ kind }) => kind === 'taste')
      .map((step) => {
        const { score, note } = step.command as CommandOf<'taste'>;
        return { stepId: step.id, at: step.at, person: views.person(step.personId), score, note };
      }),
    steps: [...new Set([...fractions.keys(), ...own.map(({ id }) => id)])]
      .map((stepId) => book.steps.get(stepId))
      .filter((step) => step !== undefined)
      .sort((a, b) => a.at - b.at || a.order - b.order)
      .map((step) => views.step(step)),
  };
}

/** Shares closer than this are the same goods, whatever rounding did. */
const SAME = 1e-6;

/** What a batch's goods are: in the bowl, and wherever something joined or went later. */
function goodsOf(views: Views, batchId: string, ids: Iterable<string>): BatchView['goods'] {
  const { book } = views.workshop;
  const own = [...ids].filter(
    (id) => CHOCOLATE_KINDS.includes(book.holding(id).kind) && book.holding(id).batchId === batchId,
  );
  const order = (id: string): number => CHOCOLATE_KINDS.indexOf(book.holding(id).kind);
  const rows: BatchView['goods'] = [];
  for (const id of [...new Set([batchId, ...own])].sort((a, b) => order(a) - order(b))) {
    const { code, kind } = book.holding(id);
    const here = views.cocoa(id);
    const like = rows.find(({ composition }) => alike(composition.parts, here.parts));
    if (!like) rows.push({ codes: [code], what: kind, composition: views.composition(id) });
    else {
      like.codes.push(code);
      like.what = kind;
    }
  }
  return rows;
}

const alike = (a: readonly Part[], b: readonly Part[]): boolean =>
  a.length === b.length &&
  a.every(({ rootId, share }) => b.some((other) => other.rootId === rootId && Math.abs(other.share - share) < SAME));

/** To a tenth: shares of bars are no whole numbers, and binary fractions no news. */
export const tenth = (value: number): number => Math.round(value * 10) / 10;

function costView(views: Views, batchId: string, fractions: Fractions, holdings: Fractions): CostView {
  const { book, valuation } = views.workshop;
  const ofKind = (kind: string): string[] => [...holdings.keys()].filter((id) => book.holding(id).kind === kind);
  const last = ofKind('packed').at(-1) ?? ofKind('bars').at(-1);
  const perBarMilli = last === undefined ? null : valuation.perPieceMilli(last);
  return {
    perBarMilli,
    perKgMilli: valuation.perKgMilli(last ?? batchId),
    byStation: costByStation(views, fractions),
    parts: costParts(views, last, fractions),
  };
}

/** What a kilogram cost after each station, of what went the way of this batch. */
function costByStation(views: Views, fractions: Fractions): CostView['byStation'] {
  const { book, valuation } = views.workshop;
  const sums = new Map<Station, { milli: number; mg: number }>();
  for (const [stepId, fraction] of fractions) {
    const step = book.steps.get(stepId);
    const cost = valuation.costOf(stepId);
    const station = STATIONS.find((name) => name === step?.station);
    if (!step || !cost || !station || step.kind === 'charge') continue;
    const sum = sums.get(station) ?? { milli: 0, mg: 0 };
    for (const p of step.postings) {
      if (p.holdingId === null || p.massMg <= 0 || isByProduct(book.holding(p.holdingId).kind)) continue;
      sum.mg += p.massMg * fraction;
    }
    for (const [holdingId, milli] of cost.outputs) {
      if (!isByProduct(book.holding(holdingId).kind)) sum.milli += milli * fraction;
    }
    sums.set(station, sum);
  }
  return STATIONS.flatMap((station) => {
    const sum = sums.get(station);
    return sum && sum.mg > 0 ? [{ station, perKgMilli: (sum.milli / sum.mg) * 1e6 }] : [];
  });
}

/**
 * What the money went on: of one bar, following its grams back through every step; or of the whole batch
 * while there is no bar yet.
 */
function costParts(views: Views, bars: string | undefined, whole: Fractions): CostView['parts'] {
  const { book, valuation } = views.workshop;
  const fillings =
    bars === undefined
      ? []
      : book.entriesOf(bars).filter(({ pieces, kind }) => pieces > 0 && kind !== 'return' && kind !== 'adjust');
  const made = fillings.reduce((sum, { pieces }) => sum + pieces, 0);
  const fractions = made > 0 ? upstream(book, fillingShares(book, bars ?? '')) : whole;
  const parts = new Map<string, number>();
  const add = (name: string, milli: number): void => {
    if (milli !== 0) parts.set(name, (parts.get(name) ?? 0) + milli / Math.max(1, made));
  };
  for (const [stepId, fraction] of fractions) {
    const step = book.steps.get(stepId);
    const cost = valuation.costOf(stepId);
    if (!step || !cost || step.kind === 'sell' || step.kind === 'return' || step.kind === 'taste') continue;
    add('Labour', cost.labourMilli * fraction);
    add('Energy', cost.energyMilli * fraction);
    add('Husk sold', -cost.creditMilli * fraction);
    if (step.kind === 'receive') add('Beans', cost.purchaseMilli * fraction);
    if (step.kind === 'buy') add(book.holding(step.slots['good'] ?? '').name, cost.purchaseMilli * fraction);
    addPackaging(views, step, fraction, add);
  }
  return [...parts].map(([name, milli]) => ({ name, milli })).sort((a, b) => b.milli - a.milli);
}

/** Wrappers weigh nothing here, so their cost is followed by the piece. */
function addPackaging(views: Views, step: Step, fraction: number, add: (name: string, milli: number) => void): void {
  const { book, valuation } = views.workshop;
  if (step.kind !== 'pack') return;
  for (const p of step.postings) {
    if (p.holdingId !== null && book.holding(p.holdingId).kind === 'packaging') {
      add('Wrapping', -p.pieces * valuation.perPieceMilli(p.holdingId) * fraction);
    }
  }
}

/** A lot: its papers, its price, and everything it went into. */
export function lotView(views: Views, lotId: string): LotView {
  const { book, lots, routes, batches, valuation } = views.workshop;
  const holding = book.holding(lotId);
  const facts = lots.get(lotId);
  const receipt = book.steps.get(book.firstEntry(lotId)?.stepId ?? '');
  const route = routes.get(holding.routeId ?? '');
  if (!facts || !receipt || !route) throw new DomainError('http/not-found', 'There is no such lot.');
  const forward = downstream(book, [lotId]);
  const fractions: Fractions = new Map([[receipt.id, 1], ...forward.steps]);
  // Sugar and butter that went into its batches on their own belong to the picture, as far as the batch does.
  for (const [id, share] of forward.holdings) {
    if (!batches.has(id)) continue;
    for (const step of views.stepsOfBatch(id))
      if (step.kind === 'charge' && !fractions.has(step.id)) fractions.set(step.id, share);
  }
  const received = greenMg(book, lotId);
  return {
    id: lotId,
    code: holding.code,
    name: holding.name,
    facts,
    receiptId: receipt.id,
    receivedAt: receipt.at,
    receivedMg: received,
    holding: views.holding(lotId),
    route,
    landedPerKgMilli: valuation.perKgMilli(lotId),
    stream: asStream(views, fractions, forward.holdings),
    batches: [...forward.holdings]
      .filter(([id]) => batches.has(id))
      .flatMap(([id]) => {
        const batch = batches.get(id);
        if (!batch) return [];
        const steps = views.stepsOfBatch(id);
        const scores = steps
          .filter(({ kind }) => kind === 'taste')
          .map((step) => (step.command as CommandOf<'taste'>).score);
        const bars = tenth(views.bars(id).made);
        const share = views.cocoa(id).lots.find((lot) => lot.lotId === lotId)?.share ?? 0;
        return [
          { batch, share, bars, score: scores.length > 0 ? scores.reduce((a, b) => a + b, 0) / scores.length : null },
        ];
      }),
    steps: [...fractions.keys()]
      .map((stepId) => book.steps.get(stepId))
      .filter((step) => step !== undefined)
      .sort((a, b) => b.at - a.at || b.order - a.order)
      .slice(0, 80)
      .map((step) => views.step(step)),
  };
}

/** Both ways from any code: back to sacks, forward to bars and buyers. */
export function traceView(views: Views, code: string): TraceView {
  const { book, lots, batches, valuation } = views.workshop;
  const holding = book.byCode(code);
  if (!holding)
    throw new DomainError('trace/unknown-code', `Nothing here carries the code ${code}.`, [
      { path: 'code', message: 'is not known here' },
    ]);
  const back = upstream(book, fillingShares(book, holding.id));
  const forward = downstream(book, [holding.id]);
  const makeUp = valuation.makeUp(holding.id);
  const cacao = new Map(views.cocoa(holding.id).lots.map(({ lotId, share }) => [lotId, share]));
  const greenOf = (lotId: string): number => {
    const receipt = book.firstEntry(lotId);
    return receipt ? (back.get(receipt.stepId) ?? 0) * greenMg(book, lotId) : 0;
  };
  return {
    subject: { code: holding.code, name: holding.name, kind: holding.kind, marks: views.marks(holding.id) },
    composition: makeUp.size > 0 && holding.kind !== 'packaging' ? views.composition(holding.id) : null,
    back: {
      lots: [...cacao].map(([id, share]) => {
        const facts = lots.get(id);
        const lot = book.holding(id);
        return {
          id,
          code: lot.code,
          name: lot.name,
          producer: facts?.producer ?? '',
          country: facts?.country ?? '',
          sacks: facts?.sacks ?? 0,
          share,
          greenMg: greenOf(id),
        };
      }),
      ingredients: [...makeUp]
        .filter(([id]) => !lots.has(id))
        .map(([id, share]) => {
          const item = book.holding(id);
          const bought = book.steps.get(item.madeBy)?.command as CommandOf<'buy'> | undefined;
          return {
            code: item.code,
            name: item.name,
            share,
            supplier: bought?.supplier ?? '',
            supplierBatch: bought?.supplierBatch ?? '',
          };
        }),
      stream: asStream(views, back, new Map()),
    },
    forward: {
      batches: [...forward.holdings]
        .filter(([id]) => batches.has(id) && id !== holding.id)
        .map(([id]) => ({
          code: book.holding(id).code,
          name: book.holding(id).name,
          share: forward.holdings.get(id) ?? 0,
        })),
      goods: [...forward.holdings]
        .filter(
          ([id]) =>
            ['bars', 'packed', 'seconds'].includes(book.holding(id).kind) || (book.live.has(id) && id !== holding.id),
        )
        .map(([id, share]) => {
          const { code: own, name, kind, place } = book.holding(id);
          return {
            code: own,
            name,
            kind,
            place,
            share,
            ...book.balance(id),
            allergens: views.cocoa(id).allergens,
            marks: views.marks(id),
          };
        }),
      sales: [...forward.steps.keys()].flatMap((stepId) => {
        const step = book.steps.get(stepId);
        if (step?.kind !== 'sell') return [];
        return step.postings
          .filter((p) => p.holdingId !== null && forward.taken.get(stepId)?.has(p.holdingId))
          .map((p) => ({
            at: step.at,
            to: (step.command as CommandOf<'sell'>).to,
            code: book.holding(p.holdingId ?? '').code,
            pieces: -p.pieces,
            massMg: -p.massMg,
            share: forward.taken.get(stepId)?.get(p.holdingId ?? '') ?? 0,
          }));
      }),
    },
  };
}
