import { Valuation } from '../src/ledger/valuation';
import { BarsByBatch } from '../src/trace/bars';
import { downstream } from '../src/trace/flow';
import type { CommandOf } from '../src/commands';
import { Bench, HOUR, made, refusal, START } from './fixtures';
import { dischargeCommand, mouldCommand } from './commands';

const charge = (bench: Bench, holdingId: string, massG: number, batchId?: string) =>
  bench.do({
    kind: 'charge',
    ...(batchId === undefined
      ? { batch: { name: 'Dark', routeId: 'whole-bean', targetMicron: 20, cocoaTargetPct: null } }
      : { batchId }),
    sources: [{ holdingId, massG }],
    note: '',
  });
const empty = (bench: Bench, batchId: string, g: number, at?: number) =>
  bench.do(dischargeCommand(batchId, g), at === undefined ? {} : { at });
const left = (bench: Bench, id: string): number => bench.book.balance(id).massMg / 1000;

describe('recall shares', () => {
  test('a filling without the subject dilutes, in whatever order', () => {
    for (const first of ['a', 'c']) {
      const bench = new Bench();
      const a = made(bench.lot(5_000));
      const c = made(bench.lot(5_000));
      const [one, two] =
        first === 'a'
          ? ([
              [a, 900],
              [c, 300],
            ] as const)
          : ([
              [c, 300],
              [a, 900],
            ] as const);
      const bowl = made(charge(bench, one[0], one[1]));
      charge(bench, two[0], two[1], bowl);
      expect(downstream(bench.book, [a]).holdings.get(bowl)).toBeCloseTo(0.75, 12);
      expect(downstream(bench.book, [c]).holdings.get(bowl)).toBeCloseTo(0.25, 12);
    }
  });

  test('butter first or last, the cacao is all of one lot', () => {
    const bench = new Bench();
    const a = made(bench.lot(5_000));
    const butter = made(bench.buy('butter', 500, 9));
    const bowl = made(charge(bench, butter, 100));
    charge(bench, a, 900, bowl);
    expect(downstream(bench.book, [a]).holdings.get(bowl)).toBeCloseTo(1, 12);
    expect(downstream(bench.book, [butter]).holdings.get(bowl)).toBeCloseTo(0.1, 12);
  });

  test('a pour of a sweet and a bitter batch is shared by cacao for lots, by weight for batches', () => {
    const bench = new Bench();
    const a = made(bench.lot(5_000));
    const b = made(bench.lot(5_000));
    const sugar = made(bench.buy('sugar', 2_000, 4));
    const sweet = made(charge(bench, a, 700));
    charge(bench, sugar, 300, sweet);
    const bitter = made(charge(bench, b, 1_000));
    const poured = [empty(bench, sweet, 1_000), empty(bench, bitter, 1_000)].map((step) => made(step));
    const pour = made(
      bench.do({
        kind: 'temper',
        sources: poured.map((holdingId) => ({ holdingId, massG: 500 })),
        method: 'seed',
        meltC: 46,
        coolC: 27,
        workC: 31,
        test: 'set',
        note: '',
      }),
    );
    expect(downstream(bench.book, [a]).holdings.get(pour)).toBeCloseTo(0.7 / 1.7, 12);
    expect(downstream(bench.book, [sweet], 'goods').holdings.get(pour)).toBeCloseTo(0.5, 12);
  });
});

describe('a correction that moves a step', () => {
  test('a count stays a count an hour later', () => {
    const bench = new Bench();
    const lot = made(bench.lot(7_400));
    const count = bench.do({ kind: 'adjust', holdingId: lot, countedG: 6_900, cause: 'unaccounted', note: '' });
    bench.do(count.command as CommandOf<'adjust'>, { supersedes: count.id, at: count.at + HOUR });
    expect(left(bench, lot)).toBe(6_900);
  });

  test('an emptying moved later still empties', () => {
    const bench = new Bench();
    const bowl = made(charge(bench, made(bench.lot(5_000)), 5_000));
    const poured = empty(bench, bowl, 4_950);
    bench.do(poured.command as CommandOf<'discharge'>, { supersedes: poured.id, at: poured.at + HOUR });
    expect(left(bench, bowl)).toBe(0);
    expect(left(bench, made(poured))).toBe(4_950);
  });

  test('a count that agreed with the book speaks again when the book changes under it', () => {
    const bench = new Bench();
    const lot = bench.lot(7_400);
    bench.do({ kind: 'adjust', holdingId: made(lot), countedG: 7_400, cause: 'unaccounted', note: '' });
    const receipt = lot.command as CommandOf<'receive'>;
    bench.do({ ...receipt, netG: 7_600 }, { supersedes: lot.id });
    expect(left(bench, made(lot))).toBe(7_400);
  });
});

describe('no chocolate from nothing', () => {
  test('a charge cannot shrink under what was poured from it, nor go away', () => {
    const bench = new Bench();
    const lot = made(bench.lot(5_000));
    const first = charge(bench, lot, 5_000);
    empty(bench, made(first), 4_950);
    const smaller = { ...(first.command as CommandOf<'charge'>), sources: [{ holdingId: lot, massG: 500 }] };
    expect(refusal(() => bench.do(smaller, { supersedes: first.id }))).toBe('ledger/later-step');
    expect(refusal(() => bench.withdraw(first))).toBe('ledger/later-step');
    expect(left(bench, lot)).toBe(0);
    // Within what two scales differ by it is taken, and says so.
    const nearly = { ...smaller, sources: [{ holdingId: lot, massG: 4_930 }] };
    bench.do(nearly, { supersedes: first.id });
    expect(left(bench, made(first))).toBe(0);
    expect(left(bench, lot)).toBe(70);
  });

  test('a count does not find more than ever went in; what an earlier count lost it may find again', () => {
    const bench = new Bench();
    const lot = made(bench.lot(5_000));
    const count = (countedG: number): string =>
      refusal(() => bench.do({ kind: 'adjust', holdingId: lot, countedG, cause: 'unaccounted', note: '' }));
    expect(count(6_000)).toBe('ledger/more-out-than-in');
    expect(count(4_000)).toBe('not refused');
    expect(count(4_990)).toBe('not refused');
    expect(left(bench, lot)).toBe(4_990);
  });

  test('under half a kilogram a surplus of more than two scales differ by is refused', () => {
    const bench = new Bench();
    const lot = made(bench.lot(245));
    const roast = (outG: number): string =>
      refusal(() =>
        bench.do({
          kind: 'roast',
          sources: [{ holdingId: lot, massG: 245 }],
          program: [],
          endBeanC: null,
          outG,
          note: '',
        }),
      );
    expect(roast(260)).toBe('ledger/more-out-than-in');
    expect(roast(246)).toBe('not refused');
  });
});

test('a bowl filled, emptied and filled again: each emptying follows its own filling', () => {
  const bench = new Bench();
  const lot = made(bench.lot(20_000));
  const first = charge(bench, lot, 5_000);
  const bowl = made(first);
  empty(bench, bowl, 4_950);
  const second = charge(bench, lot, 3_000, bowl);
  empty(bench, bowl, 3_000);
  const corrected = { ...(second.command as CommandOf<'charge'>), sources: [{ holdingId: lot, massG: 3_020 }] };
  bench.do(corrected, { supersedes: second.id });
  expect(left(bench, bowl)).toBe(0);
  bench.do(
    { ...(first.command as CommandOf<'charge'>), sources: [{ holdingId: lot, massG: 5_010 }] },
    { supersedes: first.id },
  );
  expect(left(bench, bowl)).toBe(0);
});

test('in one and the same minute the order of entry decides', () => {
  const bench = new Bench();
  const lot = made(bench.lot(20_000));
  const bowl = made(charge(bench, lot, 5_000));
  const at = START + 400 * HOUR;
  empty(bench, bowl, 4_950, at);
  bench.do({ kind: 'charge', batchId: bowl, sources: [{ holdingId: lot, massG: 100 }], note: '' }, { at });
  expect(left(bench, bowl)).toBe(100);
});

test('a bar made heavier after all were sold leaves neither grams nor bars behind', () => {
  const bench = new Bench();
  const bowl = made(charge(bench, made(bench.lot(1_000)), 1_000));
  const tub = made(empty(bench, bowl, 1_000));
  const mould = bench.do(mouldCommand([{ holdingId: tub, massG: 1_000 }], 20, 46));
  const bars = made(mould);
  const sold = bench.do({ kind: 'sell', sources: [{ holdingId: bars, pieces: 20 }], takings: 100, to: '', note: '' });
  bench.do({ ...(mould.command as CommandOf<'mould'>), barG: 48 }, { supersedes: mould.id });
  expect(bench.book.balance(bars)).toEqual({ massMg: 0, pieces: 0 });
  const version = bench.book.steps.get(bench.book.successorOf(sold.id) ?? '');
  expect(version?.postings.find(({ holdingId }) => holdingId === bars)?.massMg).toBe(-960_000);
});

describe('takings', () => {
  test('things that weigh nothing are sold, and a late entry still finds the book whole', () => {
    const bench = new Bench();
    const box = made(bench.buy('wrapper', 1_000, 50));
    bench.do({ kind: 'sell', sources: [{ holdingId: box, pieces: 100 }], takings: 5, to: '', note: '' });
    bench.lot(1_000);
    expect(new Valuation(bench.book).worth(box).pieces).toBe(900);
  });

  test('a by-product brings its own money, not its share of the weight', () => {
    const bench = new Bench();
    const lot = made(bench.lot(3_000));
    const winnow = bench.do({
      kind: 'winnow',
      sources: [{ holdingId: lot, massG: 3_000 }],
      nibsG: 1_300,
      huskG: 1_700,
      dustG: 0,
      setting: '',
      note: '',
    });
    const [nibs, husk] = [made(winnow), made(winnow, 'husk')];
    const tub = made(empty(bench, made(charge(bench, nibs, 1_300)), 1_300));
    const bars = made(bench.do(mouldCommand([{ holdingId: tub, massG: 500 }], 10)));
    const sale = (takings: [number | undefined, number | undefined]) =>
      bench.do({
        kind: 'sell',
        sources: [
          { holdingId: bars, pieces: 10, ...(takings[0] === undefined ? {} : { takings: takings[0] }) },
          { holdingId: husk, massG: 1_700, ...(takings[1] === undefined ? {} : { takings: takings[1] }) },
        ],
        takings: 62,
        to: '',
        note: '',
      });
    expect(refusal(() => sale([undefined, undefined]))).toBe('money/whose-takings');
    sale([58.6, 3.4]);
    expect(new Valuation(bench.book).costOf(winnow.id)?.creditMilli).toBe(340_000);
  });
});

test('bars of a remelt are shared, not counted whole by both batches', () => {
  const bench = new Bench();
  const lot = made(bench.lot(20_000));
  const mould = (holdingIds: string[], goodPieces: number) =>
    bench.do(
      mouldCommand(
        holdingIds.map((holdingId) => ({ holdingId, massG: left(bench, holdingId) })),
        goodPieces,
      ),
    );
  const [one, two] = [made(charge(bench, lot, 4_500)), made(charge(bench, lot, 4_500))] as const;
  const bars = made(mould([made(empty(bench, one, 4_500))], 90));
  const back = made(bench.do({ kind: 'remelt', sources: [{ holdingId: bars, pieces: 20 }], why: 'bloom', note: '' }));
  const pour = made(
    bench.do({
      kind: 'temper',
      sources: [
        { holdingId: made(empty(bench, two, 4_500)), massG: 4_500 },
        { holdingId: back, massG: 1_000 },
      ],
      method: 'seed',
      meltC: 46,
      coolC: 27,
      workC: 31,
      test: 'set',
      note: '',
    }),
  );
  mould([pour], 110);
  const counted = new BarsByBatch(
    () => bench.book,
    (id) => id === one || id === two,
  );
  expect(counted.of(one).made).toBeCloseTo(70 + 20, 9);
  expect(counted.of(two).made).toBeCloseTo(90, 9);
});

test('bars of which the last has gone are still counted, not weighed: two found are two bars and their grams', () => {
  const bench = new Bench();
  const bowl = made(charge(bench, made(bench.lot(1_000)), 1_000));
  const tub = made(empty(bench, bowl, 1_000));
  const bars = made(bench.do(mouldCommand([{ holdingId: tub, massG: 1_000 }], 20)));
  bench.do({ kind: 'adjust', holdingId: bars, countedPieces: 18, cause: 'write-off', note: '' });
  bench.do({ kind: 'sell', sources: [{ holdingId: bars, pieces: 18 }], takings: 90, to: '', note: '' });
  const count = (found: object): string =>
    refusal(() => bench.do({ kind: 'adjust', holdingId: bars, cause: 'write-off', note: '', ...found }));
  expect(count({ countedG: 100 })).toBe('ledger/no-count');
  expect(count({ countedPieces: 5 })).toBe('ledger/more-out-than-in');
  expect(count({ countedPieces: 2 })).toBe('not refused');
  expect(bench.book.balance(bars)).toEqual({ massMg: 100_000, pieces: 2 });
});
