import fc from 'fast-check';
import { Valuation } from '../src/ledger/valuation';
import type { SellCommand } from '../src/money/commands';
import { checkReturns } from '../src/money/trade';
import { Bench, made, refusal } from './fixtures';

/* Selling, what is sent back, and counting: what leaves by the door, and what the book says of it afterwards. */

const sell = (sources: SellCommand['sources'], takings: number): SellCommand => ({
  kind: 'sell',
  sources,
  takings,
  to: '',
  note: '',
});

/** Nibs and husk of one winnowing, and bars. */
function shop() {
  const bench = new Bench();
  const lot = made(bench.lot(20_000));
  const roasted = made(
    bench.do({
      kind: 'roast',
      sources: [{ holdingId: lot, massG: 20_000 }],
      program: [],
      endBeanC: null,
      outG: 19_000,
      note: '',
    }),
  );
  const winnowed = bench.do({
    kind: 'winnow',
    sources: [{ holdingId: roasted, massG: 19_000 }],
    nibsG: 15_000,
    huskG: 3_500,
    dustG: 500,
    setting: '',
    note: '',
  });
  const [nibs, husk] = [made(winnowed, 'good'), made(winnowed, 'husk')];
  const charged = bench.do({
    kind: 'charge',
    batch: { name: 'b', routeId: 'whole-bean', targetMicron: 20, cocoaTargetPct: null },
    sources: [{ holdingId: nibs, massG: 10_000 }],
    note: '',
  });
  const poured = bench.do({
    kind: 'discharge',
    batchId: charged.batchId ?? '',
    outsG: [10_000],
    holdUpG: 0,
    micron: null,
    note: '',
  });
  const mass = poured.postings.find(({ holdingId, massMg }) => holdingId !== null && massMg > 0)?.holdingId ?? '';
  const pour = made(
    bench.do({
      kind: 'temper',
      sources: [{ holdingId: mass, massG: 10_000 }],
      method: 'seed',
      meltC: 46,
      coolC: 27,
      workC: 31,
      test: 'set',
      note: '',
    }),
  );
  const bars = made(
    bench.do({
      kind: 'mould',
      sources: [{ holdingId: pour, massG: 10_000 }],
      barG: 50,
      cavities: 10,
      goodPieces: 200,
      secondsPieces: 0,
      remeltG: 0,
      trimmingsG: 0,
      holdUpG: 0,
      note: '',
    }),
  );
  return { bench, nibs, husk, bars };
}

describe('what each thing fetched', () => {
  const takingsOf = (bench: Bench, command: SellCommand) => bench.do(command).money;

  test('as it was said, and the thousandths that rounding leaves with the largest', () => {
    const { bench, bars, nibs } = shop();
    const money = takingsOf(
      bench,
      sell(
        [
          { holdingId: bars, pieces: 2, takings: 3.333 },
          { holdingId: nibs, massG: 100, takings: 6.666 },
        ],
        10,
      ),
    );
    expect(money.revenueMilli).toBe(1_000_000);
    expect(money.takingsMilli).toEqual({ [bars]: 333_300, [nibs]: 666_700 });
  });

  test('of one thing it is all; of by-products together each has its part by weight', () => {
    const { bench, husk } = shop();
    expect(takingsOf(bench, sell([{ holdingId: husk, massG: 500 }], 4)).takingsMilli).toEqual({ [husk]: 400_000 });
    const other = shop();
    expect(takingsOf(other.bench, sell([{ holdingId: other.bars, pieces: 3 }], 12)).takingsMilli).toEqual({
      [other.bars]: 1_200_000,
    });
  });

  test('of husk with bars nobody can tell: that is asked, unless it was given away', () => {
    const { bench, bars, husk } = shop();
    const both = (takings: number) =>
      sell(
        [
          { holdingId: bars, pieces: 1 },
          { holdingId: husk, massG: 100 },
        ],
        takings,
      );
    expect(refusal(() => bench.do(both(9)))).toBe('money/whose-takings');
    expect(takingsOf(bench, both(0)).takingsMilli).toBeUndefined();
  });

  test('what husk fetched is taken off what was made with it, what bars fetched is not', () => {
    const { bench, husk, bars } = shop();
    const before = new Valuation(bench.book).worth(bars).valueMilli;
    bench.do(sell([{ holdingId: husk, massG: 1_000 }], 7));
    const after = new Valuation(bench.book).worth(bars).valueMilli;
    // Two thirds of the nibs became the bars.
    expect(before - after).toBeCloseTo(700_000 * (10 / 15), -1);
    bench.do(sell([{ holdingId: bars, pieces: 100 }], 400));
    expect(new Valuation(bench.book).worth(bars).valueMilli).toBeCloseTo(after / 2, -1);
  });

  test('however it is said, it adds up to what was taken', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 90_000 }), { minLength: 1, maxLength: 6 }),
        fc.integer({ min: 0, max: 500_000 }),
        (parts, takings) => {
          const bench = new Bench();
          const lots = parts.map(() => made(bench.lot(100)));
          const sources = lots.map((holdingId, i) => ({ holdingId, massG: 10, takings: (parts[i] ?? 0) / 1000 }));
          const { takingsMilli, revenueMilli } = takingsOf(bench, sell(sources, takings / 1000));
          expect(Object.values(takingsMilli ?? {}).reduce((sum, part) => sum + part, 0)).toBe(revenueMilli);
        },
      ),
      { numRuns: 100, seed: 71 },
    );
  });
});

describe('what is sent back', () => {
  const sold = (pieces: number) => {
    const all = shop();
    return { ...all, sale: all.bench.do(sell([{ holdingId: all.bars, pieces }], 4 * pieces)) };
  };
  const back = (saleId: string, holdingId: string, pieces: number, fate: 'back' | 'waste' = 'back') =>
    ({ kind: 'return', saleId, holdingId, pieces, fate, refund: 4 * pieces, why: 'bloomed', note: '' }) as never;

  test('into the store it is there again with its weight, and its money goes back', () => {
    const { bench, bars, sale } = sold(20);
    const step = bench.do(back(sale.id, bars, 5));
    expect(bench.book.balance(bars)).toEqual({ massMg: 185 * 50_000, pieces: 185 });
    expect(step.money.revenueMilli).toBe(-2_000_000);
  });

  test('thrown away it is a loss with its word', () => {
    const { bench, bars, sale } = sold(20);
    const step = bench.do(back(sale.id, bars, 5, 'waste'));
    expect(bench.book.balance(bars).pieces).toBe(180);
    expect(step.postings).toContainEqual(
      expect.objectContaining({ loss: 'write-off', reason: 'bloomed', massMg: 5 * 50_000 }),
    );
  });

  test('no more comes back than went out, all returns together', () => {
    const { bench, bars, nibs, sale } = sold(6);
    bench.do(back(sale.id, bars, 4));
    expect(refusal(() => bench.do(back(sale.id, bars, 3)))).toBe('money/more-than-sold');
    bench.do(back(sale.id, bars, 2));
    expect(refusal(() => bench.do(back(sale.id, bars, 1)))).toBe('money/more-than-sold');
    expect(refusal(() => bench.do(back(sale.id, nibs, 1)))).toBe('money/not-sold');
    expect(refusal(() => bench.do(back('nothing', bars, 1)))).toBe('money/not-sold');
    expect(bench.book.balance(bars).pieces).toBe(200);
  });

  test('a sale cannot shrink below what came back of it; by weight neither', () => {
    const { bench, bars, nibs, sale } = sold(10);
    bench.do(back(sale.id, bars, 4));
    const to = (pieces: number): SellCommand => sell([{ holdingId: bars, pieces }], 4);
    expect(refusal(() => checkReturns(bench.book, sale, to(3)))).toBe('money/came-back');
    expect(refusal(() => checkReturns(bench.book, sale, to(4)))).toBe('not refused');
    expect(refusal(() => checkReturns(bench.book, sale, null))).toBe('money/came-back');
    const byWeight = bench.do(sell([{ holdingId: nibs, massG: 500 }], 9));
    bench.do({
      kind: 'return',
      saleId: byWeight.id,
      holdingId: nibs,
      massG: 200,
      fate: 'back',
      refund: 0,
      why: '',
      note: '',
    } as never);
    const nibsTo = (massG: number): SellCommand => sell([{ holdingId: nibs, massG }], 4);
    expect(refusal(() => checkReturns(bench.book, byWeight, nibsTo(199)))).toBe('money/came-back');
    expect(refusal(() => checkReturns(bench.book, byWeight, nibsTo(200)))).toBe('not refused');
  });

  test('a return of weighed goods is weighed, of counted goods counted', () => {
    const { bench, bars, nibs, sale } = sold(2);
    const weighed = bench.do(sell([{ holdingId: nibs, massG: 500 }], 9));
    const uncounted = { kind: 'return', fate: 'back', refund: 0, why: '', note: '' };
    expect(refusal(() => bench.do({ ...uncounted, saleId: sale.id, holdingId: bars, massG: 50 } as never))).toBe(
      'money/amount',
    );
    expect(refusal(() => bench.do({ ...uncounted, saleId: weighed.id, holdingId: nibs, pieces: 1 } as never))).toBe(
      'money/amount',
    );
  });
});

describe('a count', () => {
  const count = (bench: Bench, holdingId: string, counted: object) =>
    bench.do({ kind: 'adjust', holdingId, cause: 'sample', note: '', ...counted } as never);

  test('of bars takes their weight along; one that agrees moves nothing and is kept', () => {
    const { bench, bars } = shop();
    expect(count(bench, bars, { countedPieces: 197 }).postings).toContainEqual(
      expect.objectContaining({ loss: 'sample', massMg: 3 * 50_000 }),
    );
    expect(bench.book.balance(bars)).toEqual({ massMg: 197 * 50_000, pieces: 197 });
    expect(count(bench, bars, { countedPieces: 197 }).postings).toEqual([]);
    expect(refusal(() => count(bench, bars, { countedG: 10 }))).toBe('ledger/no-count');
  });

  test('finds again what a count lost, under no cause but that it was unaccounted; never more than ever came in', () => {
    const { bench, nibs } = shop();
    count(bench, nibs, { countedG: 4_000 });
    const found = count(bench, nibs, { countedG: 4_900 });
    expect(found.postings).toContainEqual(expect.objectContaining({ loss: 'unaccounted', massMg: -900_000 }));
    expect(bench.book.balance(nibs).massMg).toBe(4_900_000);
    // 15 kg came in and 10 kg went into the bowl.
    expect(refusal(() => count(bench, nibs, { countedG: 6_000 }))).toBe('ledger/more-out-than-in');
  });

  test('bars that were all sold are still counted by the piece', () => {
    const { bench, bars } = shop();
    bench.do(sell([{ holdingId: bars, pieces: 200 }], 800));
    expect(refusal(() => count(bench, bars, { countedG: 100 }))).toBe('ledger/no-count');
    expect(count(bench, bars, { countedPieces: 0 }).postings).toEqual([]);
    expect(refusal(() => count(bench, bars, { countedPieces: 30 }))).toBe('ledger/more-out-than-in');
    // Two more than were counted in two hundred is a miscount.
    count(bench, bars, { countedPieces: 2 });
    expect(bench.book.balance(bars)).toEqual({ massMg: 100_000, pieces: 2 });
  });
});

test('packaging is bought by the piece, an ingredient by weight', () => {
  const bench = new Bench();
  const buy = (materialId: string, amount: object) =>
    bench.do({ kind: 'buy', materialId, supplier: '', supplierBatch: '', note: '', price: 10, ...amount } as never);
  expect(bench.book.balance(made(buy('wrapper', { pieces: 500 })))).toEqual({ massMg: 0, pieces: 500 });
  expect(bench.book.balance(made(buy('sugar', { massG: 2_000 })))).toEqual({ massMg: 2_000_000, pieces: 0 });
  expect(refusal(() => buy('wrapper', { massG: 100 }))).toBe('money/amount');
  expect(refusal(() => buy('sugar', { pieces: 3 }))).toBe('money/amount');
});
