import { Valuation } from '../src/ledger/valuation';
import { compositionOf, originVerdict } from '../src/composition/composition';
import { flowByStation } from '../src/trace/by-station';
import { downstream, upstream } from '../src/trace/flow';
import { majorFromMilli } from '../src/units/money';
import { Bench, made, MATERIALS } from './fixtures';

/** One batch by hand: every expected figure below was worked out on paper. */
function oneBatch() {
  const bench = new Bench();
  const lot = bench.lot(60_000, 5, 30); // 60 kg at 5.00 and 30.00 freight: 330.00, 5.50 a kg
  const sugar = bench.buy('sugar', 10_000, 20); // 2.00 a kg
  const butter = bench.buy('butter', 2_000, 40); // 20.00 a kg
  const wrappers = bench.buy('wrapper', 200, 20); // 0.10 each
  const sort = bench.do(
    {
      kind: 'sort',
      sources: [{ holdingId: made(lot), massG: 10_000 }],
      rejects: [
        { reason: 'flat', massG: 300 },
        { reason: 'broken', massG: 150 },
      ],
      goodG: 9_500,
      note: '',
    },
    { minutes: 30 },
  );
  const roast1 = bench.do({
    kind: 'roast',
    sources: [{ holdingId: made(sort), massG: 5_000 }],
    program: [],
    endBeanC: null,
    outG: 4_700,
    note: '',
  });
  const roast2 = bench.do({
    kind: 'roast',
    sources: [{ holdingId: made(sort), massG: 4_500 }],
    program: [],
    endBeanC: null,
    outG: 4_230,
    note: '',
  });
  const winnow = bench.do({
    kind: 'winnow',
    sources: [
      { holdingId: made(roast1), massG: 4_700 },
      { holdingId: made(roast2), massG: 4_230 },
    ],
    nibsG: 7_200,
    huskG: 1_500,
    dustG: 100,
    setting: '',
    note: '',
  });
  const charge = bench.do({
    kind: 'charge',
    batch: { name: 'Seventy', routeId: 'whole-bean', targetMicron: 20, cocoaTargetPct: 72 },
    sources: [
      { holdingId: made(winnow), massG: 7_000 },
      { holdingId: made(sugar), massG: 2_600 },
    ],
    note: '',
  });
  const late = bench.do({
    kind: 'charge',
    batchId: charge.batchId ?? '',
    sources: [{ holdingId: made(butter), massG: 400 }],
    note: '',
  });
  const pour = bench.do({
    kind: 'discharge',
    batchId: charge.batchId ?? '',
    outsG: [9_800],
    holdUpG: 150,
    micron: 19,
    note: '',
  });
  const rest = bench.do({ kind: 'rest', sources: [{ holdingId: made(pour), massG: 9_800 }], note: '' });
  const temper = bench.do({
    kind: 'temper',
    sources: [{ holdingId: made(rest), massG: 9_800 }],
    method: 'slab',
    meltC: 47,
    coolC: 27.5,
    workC: 31.5,
    test: 'set',
    note: '',
  });
  const mould = bench.do({
    kind: 'mould',
    sources: [{ holdingId: made(temper), massG: 9_800 }],
    barG: 70,
    cavities: 24,
    goodPieces: 136,
    goodG: 9_520,
    secondsPieces: 2,
    remeltG: 0,
    trimmingsG: 60,
    holdUpG: 80,
    note: '',
  });
  const pack = bench.do({
    kind: 'pack',
    holdingId: made(mould),
    pieces: 136,
    labelCode: 'BAR-1',
    bestBefore: '2027-06-30',
    packaging: [{ holdingId: made(wrappers), pieces: 136 }],
    note: '',
  });
  return { bench, lot, sugar, butter, sort, roast1, winnow, charge, late, pour, mould, pack };
}

const rootOf = (book: ReturnType<typeof oneBatch>['bench']['book']) => (id: string) => {
  const holding = book.holding(id);
  if (holding.kind === 'lot') return { kind: 'cacao' as const, lotId: id };
  const material = MATERIALS.find((row) => row.id === holding.materialId);
  return material ? { kind: 'ingredient' as const, material } : undefined;
};

test('grams: every station leaves what was weighed, and what is missing is unaccounted', () => {
  const { bench, lot, sort, winnow, pour, mould } = oneBatch();
  const loss = (step: typeof sort, cause: string): number =>
    step.postings.reduce((sum, p) => (p.loss === cause ? sum + p.massMg : sum), 0);
  expect(bench.book.balance(made(lot)).massMg).toBe(50_000_000);
  expect(loss(sort, 'reject')).toBe(450_000);
  expect(loss(sort, 'unaccounted')).toBe(50_000);
  expect(loss(winnow, 'dust')).toBe(100_000);
  expect(loss(winnow, 'unaccounted')).toBe(130_000);
  expect(loss(pour, 'unaccounted')).toBe(50_000);
  expect(loss(mould, 'unaccounted')).toBe(0); // 9800 − 9520 − 140 − 60 − 80
  expect(bench.book.balance(made(winnow)).massMg).toBe(200_000);
});

test('cocoa percent moves when butter goes in late: 74.0 % with it, 70.0 % without', () => {
  const { bench, charge } = oneBatch();
  const figures = compositionOf(new Valuation(bench.book).makeUp(charge.batchId ?? ''), rootOf(bench.book));
  expect(figures.cocoaPct).toBeCloseTo(74, 10);
  expect(figures.withoutButterPct).toBeCloseTo(70, 10);
  expect(figures.sugarPct).toBeCloseTo(26, 10);
});

test('cost: beans and half an hour of labour, spread by mass over what is good', () => {
  const { bench, sort, winnow, charge, pack } = oneBatch();
  const valuation = new Valuation(bench.book);
  // 10 kg at 5.50 and half an hour at 12.00 over 9.5 kg.
  expect(majorFromMilli(valuation.perKgMilli(made(sort)))).toBeCloseTo(61 / 9.5, 6);
  // The husk fetched nothing, so the nibs bear all of it.
  expect(majorFromMilli(valuation.perKgMilli(made(winnow)))).toBeCloseTo(61 / 7.2, 6);
  // 7 kg of nibs, 2.6 kg sugar at 2.00, 0.4 kg butter at 20.00, in 10 kg.
  const bowl = (61 * 7) / 7.2 + 5.2 + 8;
  expect(majorFromMilli(valuation.perKgMilli(charge.batchId ?? ''))).toBeCloseTo(bowl / 10, 6);
  // Good bars and seconds share it by mass; a wrapper is 0.10.
  expect(majorFromMilli(valuation.perPieceMilli(made(pack)))).toBeCloseTo((bowl * 9_520) / 9_660 / 136 + 0.1, 5);
});

test('husk sold later lowers the cost of the nibs by what it fetched', () => {
  const { bench, winnow } = oneBatch();
  const before = new Valuation(bench.book).perKgMilli(made(winnow));
  bench.do({
    kind: 'sell',
    sources: [{ holdingId: made(winnow, 'husk'), massG: 1_000 }],
    takings: 3.6,
    to: 'garden',
    note: '',
  });
  const after = new Valuation(bench.book);
  expect(majorFromMilli(before - after.perKgMilli(made(winnow)))).toBeCloseTo(3.6 / 7.2, 6);
  expect(after.worth(made(winnow, 'husk')).valueMilli).toBe(0);
});

test('a bar traces back to its sack, and the sack forward to the bar', () => {
  const { bench, lot, sort, pack } = oneBatch();
  const back = upstream(bench.book, new Map([[pack.id, 1]]));
  // 7.0 of 7.2 kg of nibs went in; 9.8 of 9.66 kg poured became bars and seconds, of which 9.52 were good.
  expect(back.get(sort.id)).toBeCloseTo((7_000 / 7_200) * (9_520 / 9_660), 9);
  expect((back.get(lot.id) ?? 0) * 60_000).toBeCloseTo(10_000 * (7_000 / 7_200) * (9_520 / 9_660), 4);
  const forward = downstream(bench.book, [made(lot)]);
  expect(forward.holdings.get(made(pack))).toBeCloseTo(1, 12);
});

test('a stream adds up at every station', () => {
  const { bench, charge, pack } = oneBatch();
  const rows = flowByStation(
    bench.book,
    new Map([
      ...upstream(bench.book, new Map([[charge.id, 1]])),
      ...downstream(bench.book, [charge.batchId ?? '']).steps,
    ]),
  );
  expect(rows.map(({ station }) => station)).toEqual([
    'beans',
    'sort',
    'roast',
    'winnow',
    'grind',
    'rest',
    'temper',
    'mould',
    'pack',
  ]);
  for (const row of rows.filter(({ station }) => station !== 'beans' && station !== 'grind')) {
    const lost = row.losses.reduce((sum, { mg }) => sum + mg, 0);
    expect(row.goodMg + row.byProductMg + lost).toBeCloseTo(row.inMg, 3);
  }
  expect(rows.at(-1)?.goodMg).toBeCloseTo(
    9_520_000 * (downstream(bench.book, [charge.batchId ?? '']).steps.get(pack.id) ?? 0),
    3,
  );
});

test('bars that bloomed and went back are counted once', () => {
  const { bench, mould, charge } = oneBatch();
  const back = bench.do({
    kind: 'remelt',
    sources: [{ holdingId: made(mould, 'seconds'), pieces: 2 }],
    why: 'bloom',
    note: '',
  });
  const again = bench.do({
    kind: 'temper',
    sources: [{ holdingId: made(back), massG: 140 }],
    method: 'slab',
    meltC: 47,
    coolC: 27,
    workC: 31,
    test: 'set',
    note: '',
  });
  bench.do({
    kind: 'mould',
    sources: [{ holdingId: made(again), massG: 140 }],
    barG: 65,
    cavities: 2,
    goodPieces: 2,
    secondsPieces: 0,
    remeltG: 0,
    trimmingsG: 10,
    holdUpG: 0,
    note: '',
  });
  const rows = flowByStation(
    bench.book,
    new Map([
      ...upstream(bench.book, new Map([[charge.id, 1]])),
      ...downstream(bench.book, [charge.batchId ?? '']).steps,
    ]),
  );
  const at = (station: string) => rows.find((row) => row.station === station);
  expect(at('temper')).toMatchObject({ inMg: 9_800_000, goodMg: 9_800_000, reworkMg: 140_000 });
  // 9,520 g of bars and 2 × 65 g made of the seconds.
  expect(at('mould')).toMatchObject({ inMg: 9_800_000, goodMg: 9_650_000 });
});

test('two lots in one bowl: the origin verdict says so', () => {
  const bench = new Bench();
  const a = bench.lot(10_000, 5, 0, 'Ridge Growers');
  const b = bench.lot(10_000, 7, 0, 'Bay Farmers');
  const sort = bench.do({
    kind: 'sort',
    sources: [
      { holdingId: made(a), massG: 3_000 },
      { holdingId: made(b), massG: 1_000 },
    ],
    rejects: [],
    goodG: 4_000,
    note: '',
  });
  const { lots } = compositionOf(new Valuation(bench.book).makeUp(made(sort)), rootOf(bench.book));
  expect(lots.map(({ share }) => share)).toEqual([0.75, 0.25]);
  const facts = (share: number, code: string, producer: string) => ({
    code,
    producer,
    country: 'Uganda',
    region: 'west',
    share,
  });
  expect(originVerdict([facts(0.75, 'L1', 'Ridge Growers'), facts(0.25, 'L2', 'Bay Farmers')])).toEqual({
    kind: 'blend',
    sentence: 'No longer single-origin: 75 % L1, 25 % L2.',
  });
  expect(originVerdict([facts(0.6, 'L1', 'Ridge Growers'), facts(0.4, 'L3', 'Ridge Growers')]).kind).toBe(
    'single-origin',
  );
  expect(originVerdict([facts(1, 'L1', 'Ridge Growers')]).kind).toBe('single-lot');
});
