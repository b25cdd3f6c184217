import fc from 'fast-check';
import type { Command } from '../src/commands';
import { CODE_LETTERS } from '../src/ledger/planner';
import type { Step } from '../src/ledger/types';
import { chargeCommand, dischargeCommand, mouldCommand } from './commands';
import { Bench, made, refusal } from './fixtures';

/* What each step moves: what it makes and where that goes, what is lost and why, what it refuses. */

const note = '';
const from = (holdingId: string, massG: number) => [{ holdingId, massG }];
const whole = (holdingId: string, pieces: number) => [{ holdingId, pieces }];

/** Grams lost by cause. */
function losses(step: Step): Record<string, number> {
  const lost: Record<string, number> = {};
  for (const { loss, massMg } of step.postings) if (loss !== null) lost[loss] = (lost[loss] ?? 0) + massMg / 1000;
  return lost;
}
const balances = (step: Step): number => step.postings.reduce((sum, { massMg }) => sum + massMg, 0);

/** A workshop on some route with a lot of ten kilograms. */
function withLot(routeId = 'whole-bean'): { bench: Bench; lot: string } {
  const bench = new Bench();
  const { command } = bench.lot(10_000);
  const own = bench.do({ ...(command as Command), routeId, name: 'Own' } as Command);
  return { bench, lot: made(own) };
}

const sorted = (
  bench: Bench,
  lot: string,
  inG: number,
  goodG: number,
  rejects: { reason: string; massG: number }[] = [],
) => bench.do({ kind: 'sort', sources: from(lot, inG), rejects, goodG, note });
const roasted = (bench: Bench, tub: string, inG: number, outG: number) =>
  bench.do({ kind: 'roast', sources: from(tub, inG), program: [], endBeanC: null, outG, note });
const winnowed = (bench: Bench, tub: string, inG: number, nibsG: number, huskG: number, dustG = 0) =>
  bench.do({ kind: 'winnow', sources: from(tub, inG), nibsG, huskG, dustG, setting: '', note });

/** A pour of some chocolate in temper. */
function poured(bench: Bench, lot: string, massG: number): { batchId: string; pour: string; massG: number } {
  const nibs = made(
    winnowed(bench, made(roasted(bench, lot, massG * 1.4, massG * 1.3)), massG * 1.3, massG, massG * 0.28),
  );
  const bowl = bench.do(chargeCommand(from(nibs, massG)));
  const out = bench.do(dischargeCommand(bowl.batchId ?? '', massG));
  const pour = bench.do({
    kind: 'temper',
    sources: from(made(out), massG),
    method: 'slab',
    meltC: 46,
    coolC: 27.5,
    workC: 32,
    test: 'set',
    note,
  });
  return { batchId: bowl.batchId ?? '', pour: made(pour), massG };
}

test('sorting: piles by their reason, the rest is explained by nobody', () => {
  const { bench, lot } = withLot();
  const step = sorted(bench, lot, 5000, 4600, [
    { reason: 'flat', massG: 250 },
    { reason: 'mould', massG: 100 },
  ]);
  expect(losses(step)).toEqual({ reject: 350, unaccounted: 50 });
  const good = bench.book.holding(made(step));
  expect(good).toMatchObject({ kind: 'beans', place: 'roast', code: expect.stringMatching(/^T/) });
  expect(bench.book.balance(made(step)).massMg).toBe(4_600_000);
  expect(bench.book.balance(lot).massMg).toBe(5_000_000);
});

test('sorting: more cannot come out than went in, nor more go in than there is', () => {
  const { bench, lot } = withLot();
  expect(refusal(() => sorted(bench, lot, 1000, 1100))).toBe('ledger/more-out-than-in');
  expect(refusal(() => sorted(bench, lot, 10_001, 9000))).toBe('ledger/short');
  expect(bench.book.balance(lot).massMg).toBe(10_000_000);
});

test.each([
  ['whole-bean', 'roast', 'winnow'],
  ['nib-roast', 'winnow', 'roast'],
  ['unroasted', 'winnow', 'grind'],
])('on the route %s sorted beans go to %s', (routeId, next, afterThat) => {
  const { bench, lot } = withLot(routeId);
  const beans = made(sorted(bench, lot, 5000, 5000));
  expect(bench.book.holding(beans).place).toBe(next);
  const on = next === 'roast' ? roasted(bench, beans, 5000, 4700) : winnowed(bench, beans, 5000, 3900, 1000);
  expect(bench.book.holding(made(on)).place).toBe(afterThat);
});

test('roasting: what is lost is water; nibs that are roasted stay nibs', () => {
  const { bench, lot } = withLot('nib-roast');
  const beans = roasted(bench, lot, 3000, 2850);
  expect(losses(beans)).toEqual({ water: 150 });
  expect(bench.book.holding(made(beans)).kind).toBe('roasted');
  const nibs = winnowed(bench, lot, 3000, 2400, 550, 30);
  const again = roasted(bench, made(nibs), 2400, 2340);
  expect(bench.book.holding(made(again))).toMatchObject({ kind: 'nibs', place: 'grind' });
});

test('winnowing: husk is kept for itself, dust is lost by name', () => {
  const { bench, lot } = withLot();
  const step = winnowed(bench, lot, 4000, 3100, 800, 60);
  expect(losses(step)).toEqual({ dust: 60, unaccounted: 40 });
  expect(bench.book.holding(made(step, 'husk'))).toMatchObject({ kind: 'husk', place: 'store' });
  expect(bench.book.holding(made(step, 'husk')).code.startsWith(CODE_LETTERS.husk)).toBe(true);
  // Where none was kept there is none.
  expect(winnowed(bench, lot, 1000, 900, 0).slots).not.toHaveProperty('husk');
});

test('buying: packaging is counted, ingredients are weighed, and each purchase is for itself', () => {
  const bench = new Bench();
  const one = bench.buy('sugar', 5000, 12);
  const two = bench.buy('sugar', 5000, 13);
  expect(made(one)).not.toBe(made(two));
  expect(bench.book.holding(made(one))).toMatchObject({ kind: 'ingredient', place: 'pantry', materialId: 'sugar' });
  const wrappers = bench.buy('wrapper', 200, 30);
  expect(bench.book.balance(made(wrappers))).toMatchObject({ pieces: 200, massMg: 0 });
  const buy = (materialId: string, amount: object) =>
    bench.do({ kind: 'buy', materialId, supplier: '', supplierBatch: '', note, price: 1, ...amount });
  expect(refusal(() => buy('wrapper', { massG: 100 }))).toBe('money/amount');
  expect(refusal(() => buy('sugar', { pieces: 100 }))).toBe('money/amount');
});

test('tempering: what failed its test waits for another; what stayed in the bowl is hold-up', () => {
  const { bench, lot } = withLot('straight-through');
  const { pour } = poured(bench, lot, 3000);
  expect(bench.book.holding(pour)).toMatchObject({ kind: 'tempered', place: 'mould' });
  const again = (test: string, outG?: number) =>
    bench.do({
      kind: 'temper',
      sources: from(pour, 1000),
      method: 'slab',
      meltC: 46,
      coolC: 27.5,
      workC: 32,
      test,
      note,
      ...(outG === undefined ? {} : { outG }),
    } as Command);
  expect(bench.book.holding(made(again('failed'))).place).toBe('temper');
  expect(losses(again('set', 960))).toEqual({ 'hold-up': 40 });
});

test('moulding: bars, seconds and what goes back are apart; nothing at all is refused', () => {
  const { bench, lot } = withLot('straight-through');
  const { pour } = poured(bench, lot, 3000);
  const step = bench.do({
    ...mouldCommand(from(pour, 2000), 34),
    secondsPieces: 3,
    remeltG: 60,
    trimmingsG: 20,
    holdUpG: 50,
  });
  expect(bench.book.balance(made(step))).toMatchObject({ pieces: 34, massMg: 1_700_000 });
  expect(bench.book.holding(made(step)).place).toBe('pack');
  expect(bench.book.balance(made(step, 'seconds'))).toMatchObject({ pieces: 3, massMg: 150_000 });
  expect(bench.book.holding(made(step, 'remelt'))).toMatchObject({ kind: 'remelt', place: 'temper' });
  expect(losses(step)).toMatchObject({ trimming: 20, 'hold-up': 50 });
  expect(balances(step)).toBe(0);
  expect(refusal(() => bench.do(mouldCommand(from(pour, 500), 0)))).toBe('mould/nothing');
});

/** Forty packed bars, and forty wrappers gone. */
function packed(): { bench: Bench; bars: string; pack: string; wrappers: string } {
  const { bench, lot } = withLot('straight-through');
  const { pour } = poured(bench, lot, 3000);
  const bars = made(bench.do(mouldCommand(from(pour, 2500), 50)));
  const wrappers = made(bench.buy('wrapper', 100, 10));
  const step = bench.do({
    kind: 'pack',
    holdingId: bars,
    pieces: 40,
    labelCode: 'R-1',
    bestBefore: '2027-06-30',
    packaging: [{ holdingId: wrappers, pieces: 40, damaged: 2 }],
    note,
  });
  return { bench, bars, pack: made(step), wrappers };
}

test('packing: bars go by the code that is printed on them, spoilt wrappers are used up too', () => {
  const { bench, bars, pack, wrappers } = packed();
  expect(bench.book.holding(pack)).toMatchObject({ kind: 'packed', code: 'R-1', place: 'store' });
  expect(bench.book.balance(bars).pieces).toBe(10);
  expect(bench.book.balance(wrappers).pieces).toBe(58);
  const again = () =>
    bench.do({
      kind: 'pack',
      holdingId: bars,
      pieces: 5,
      labelCode: 'R-1',
      bestBefore: '2027-06-30',
      packaging: [],
      note,
    });
  expect(refusal(again)).toBe('pack/code-taken');
});

const sold = (bench: Bench, pack: string, pieces: number, takings = 50) =>
  bench.do({ kind: 'sell', sources: whole(pack, pieces), takings, to: 'Corner grocers', note });
const back = (bench: Bench, saleId: string, holdingId: string, pieces: number, fate = 'back') =>
  bench.do({ kind: 'return', saleId, holdingId, pieces, refund: 5, fate, why: '', note } as Command);

test('what was sold comes back into the store or is thrown away, and never more than went out', () => {
  const { bench, pack } = packed();
  const sale = sold(bench, pack, 10);
  expect(sale.money.revenueMilli).toBeGreaterThan(0);
  back(bench, sale.id, pack, 4);
  expect(bench.book.balance(pack).pieces).toBe(34);
  expect(losses(back(bench, sale.id, pack, 2, 'thrown'))).toEqual({ 'write-off': 100 });
  expect(bench.book.balance(pack).pieces).toBe(34);
  expect(refusal(() => back(bench, sale.id, pack, 5))).toBe('money/more-than-sold');
  expect(refusal(() => back(bench, sale.id, sale.id, 1))).not.toBe('not refused');
  expect(refusal(() => back(bench, 'none', pack, 1))).toBe('money/not-sold');
  expect(back(bench, sale.id, pack, 4).money.revenueMilli).toBeLessThan(0);
});

test('a husk that is sold with bars has to say what it fetched itself', () => {
  const { bench, pack } = packed();
  const lot = made(bench.lot(4000));
  const husk = made(winnowed(bench, lot, 4000, 3100, 800), 'husk');
  const both = (lines: object[]) => bench.do({ kind: 'sell', sources: lines, takings: 60, to: '', note } as never);
  const lines = [
    { holdingId: pack, pieces: 5 },
    { holdingId: husk, massG: 300 },
  ];
  expect(refusal(() => both(lines))).toBe('money/whose-takings');
  const [bars, shell] = lines;
  const step = both([
    { ...bars, takings: 57.5 },
    { ...shell, takings: 2.5 },
  ]);
  const { takingsMilli = {} } = step.money;
  expect((takingsMilli[pack] ?? 0) + (takingsMilli[husk] ?? 0)).toBe(step.money.revenueMilli);
  expect((takingsMilli[pack] ?? 0) / (takingsMilli[husk] ?? 1)).toBeCloseTo(23, 5);
  // Of one by-product alone the takings are its own.
  const alone = bench.do({ kind: 'sell', sources: from(husk, 100), takings: 3, to: '', note } as never);
  expect(alone.money.takingsMilli).toEqual({ [husk]: alone.money.revenueMilli });
});

test('a count: the difference is booked, its agreement too, and more than ever came in is refused', () => {
  const { bench, pack } = packed();
  const counted = (holdingId: string, rest: object) =>
    bench.do({ kind: 'adjust', holdingId, cause: 'unaccounted', note, ...rest });
  expect(losses(counted(pack, { countedPieces: 38 }))).toEqual({ unaccounted: 100 });
  const agrees = counted(pack, { countedPieces: 38 });
  expect(agrees.postings.filter(({ holdingId }) => holdingId !== null)).toEqual([]);
  // Found again, as far as the earlier count lost it.
  expect(losses(counted(pack, { countedPieces: 40 }))).toEqual({ unaccounted: -100 });
  expect(refusal(() => counted(pack, { countedPieces: 60 }))).toBe('ledger/more-out-than-in');
  expect(refusal(() => counted(pack, { countedG: 500 }))).toBe('ledger/no-count');
  expect(refusal(() => counted(made(bench.lot(500)), { countedPieces: 3 }))).toBe('ledger/no-count');
});

test('blocks off the shelf keep the code that is written on them, with a number behind', () => {
  const { bench, lot } = withLot();
  const nibs = made(winnowed(bench, lot, 4000, 3100, 800));
  const bowl = bench.do(chargeCommand(from(nibs, 3000)));
  const out = bench.do({ ...dischargeCommand(bowl.batchId ?? '', 3000), outsG: [1800, 1200] });
  const [one, two] = [made(out), made(out, 'good2')];
  expect(bench.book.holding(one).place).toBe('rest');
  const step = bench.do({
    kind: 'rest',
    sources: [
      { holdingId: one, massG: 1800 },
      { holdingId: two, massG: 1200 },
    ],
    outG: 2970,
    note,
  });
  const [first, second] = [bench.book.holding(made(step)), bench.book.holding(made(step, 'good2'))];
  expect(first.code).toBe(`${bench.book.holding(one).code}-2`);
  expect(second.code).toBe(`${bench.book.holding(two).code}-2`);
  // What was cut away is shared out by weight, to the milligram.
  expect(bench.book.balance(first.id).massMg + bench.book.balance(second.id).massMg).toBe(2_970_000);
  expect(bench.book.balance(first.id).massMg / bench.book.balance(second.id).massMg).toBeCloseTo(1.5, 5);
  expect(losses(step)).toEqual({ trimming: 30 });
  expect(first.place).toBe('temper');
});

test('whatever is weighed, no step makes or swallows a milligram', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 100, max: 10_000 }),
      fc.double({ min: 0.5, max: 1, noNaN: true }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      (inG, kept, part) => {
        const { bench, lot } = withLot();
        const goodG = Math.round(inG * kept * 1000) / 1000;
        const reject = Math.round((inG - goodG) * part * 1000) / 1000;
        const step = sorted(bench, lot, inG, goodG, reject > 0 ? [{ reason: 'flat', massG: reject }] : []);
        expect(balances(step)).toBe(0);
        const lost = Object.values(losses(step)).reduce((sum, grams) => sum + grams, 0);
        expect(Math.round(1000 * (goodG + lost))).toBe(1000 * inG);
      },
    ),
    { numRuns: 60 },
  );
});
