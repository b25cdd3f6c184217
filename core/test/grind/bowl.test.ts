import { compositionOf, type Composition } from '../../src/composition/composition';
import type { GateContext } from '../../src/gates/gate';
import { readingGates, chargeGates } from '../../src/grind/gates';
import type { ReadingCommand } from '../../src/grind/reading-command';
import type { DomainError } from '../../src/errors/domain-error';
import type { Step } from '../../src/ledger/types';
import { ROUTE_TEMPLATES } from '../../src/workshop/routes';
import { chargeCommand, dischargeCommand } from '../commands';
import { Bench, HOUR, made, refusal, START } from '../fixtures';

/* What goes into a bowl, is read there and comes out. */

const LATER = START + 1e6 * HOUR;

const bowlOf = (bench: Bench, massG: number): { sugar: string; charge: Step; bowl: string } => {
  const sugar = made(bench.buy('sugar', 20_000, 20));
  const charge = bench.do(chargeCommand([{ holdingId: sugar, massG }]));
  return { sugar, charge, bowl: made(charge) };
};

const readingOf = (batchId: string, value: number, what: ReadingCommand['what'] = 'micron'): ReadingCommand => ({
  kind: 'reading',
  batchId,
  what,
  value,
  note: '',
});

const at = (bench: Bench, moment: number, more: Partial<GateContext> = {}): GateContext => ({
  at: moment,
  order: 1e9,
  book: bench.book,
  lots: new Map(),
  settings: { restDays: 0, timeZone: 'Europe/Lisbon', temperatureUnit: 'C' },
  route: (id) => ROUTE_TEMPLATES.find((route) => route.id === id),
  batch: (id) => bench.batches.get(id),
  composition: () => compositionOf(new Map(), () => undefined),
  keeps: new Map(),
  ...more,
});

/** The field that a refusal is told at. */
const fieldOf = (deed: () => unknown): string | undefined => {
  try {
    deed();
  } catch (error) {
    return (error as DomainError).fields[0]?.path;
  }
  return undefined;
};

describe('what goes in', () => {
  test('the first charge begins the batch, others add to it; all of it is in the bowl', () => {
    const bench = new Bench();
    const { sugar, charge, bowl } = bowlOf(bench, 4000);
    expect(bench.batches.get(bowl)).toMatchObject({ id: bowl, name: 'Dark', routeId: 'whole-bean', targetMicron: 20 });
    expect(bench.book.holding(bowl)).toMatchObject({ kind: 'mass', place: 'grind', batchId: bowl });
    const more = bench.do({ kind: 'charge', batchId: bowl, sources: [{ holdingId: sugar, massG: 500.5 }], note: '' });
    expect([charge.batchId, more.batchId]).toEqual([bowl, bowl]);
    expect(bench.book.balance(bowl).massMg).toBe(4_500_500);
    expect(bench.book.balance(sugar).massMg).toBe(15_499_500);
  });

  test('a bowl does not go into itself, needs a name, and is not added to before it began', () => {
    const bench = new Bench();
    const { sugar, charge, bowl } = bowlOf(bench, 4000);
    const more = (holdingId: string) => ({
      kind: 'charge' as const,
      batchId: bowl,
      sources: [{ holdingId, massG: 10 }],
      note: '',
    });
    expect(refusal(() => bench.do(more(bowl)))).toBe('grind/into-itself');
    const nameless = { kind: 'charge' as const, sources: [{ holdingId: sugar, massG: 10 }], note: '' };
    expect(refusal(() => bench.do(nameless))).toBe('grind/no-batch');
    expect(fieldOf(() => bench.do(nameless))).toBe('batch.name');
    expect(refusal(() => bench.do(more(sugar), { at: charge.at - 1 }))).toBe('grind/before-start');
    expect(fieldOf(() => bench.do(more(sugar), { at: charge.at - 1 }))).toBe('at');
  });

  test('beans that were cracked off and husk are no ingredients of a bowl', () => {
    const bench = new Bench();
    const lot = made(bench.lot(5000));
    const winnowed = bench.do({
      kind: 'winnow',
      sources: [{ holdingId: lot, massG: 5000 }],
      nibsG: 4000,
      huskG: 900,
      dustG: 100,
      setting: '',
      note: '',
    });
    const husk = made(winnowed, 'husk');
    expect(refusal(() => bench.do(chargeCommand([{ holdingId: husk, massG: 10 }])))).toBe('ledger/wrong-kind');
    expect(bench.do(chargeCommand([{ holdingId: made(winnowed), massG: 4000 }])).station).toBe('grind');
  });

  test('over twelve parts of water in a hundred an ingredient stops at the bowl, by its name and its field', () => {
    const bench = new Bench();
    const [sugar, butter] = [made(bench.buy('sugar', 9000, 5)), made(bench.buy('butter', 9000, 50))];
    const water = new Map([
      [sugar, 12],
      [butter, 12.4],
    ]);
    const composition = (id: string): Composition => {
      const nothing = compositionOf(new Map(), () => undefined);
      return { ...nothing, figures: { ...nothing.figures, waterPct: water.get(id) ?? 0 } };
    };
    const gates = (ids: string[]) =>
      chargeGates(chargeCommand(ids.map((holdingId) => ({ holdingId, massG: 10 }))), at(bench, LATER, { composition }));
    expect(gates([sugar])).toEqual([]);
    expect(gates([sugar, butter])).toMatchObject([
      {
        id: 'grind/watery',
        sentence: 'Cocoa butter (12 % water) would go into the bowl.',
        path: 'sources.1.holdingId',
      },
    ]);
    water.set(sugar, 80);
    expect(gates([sugar, butter])).toMatchObject([
      {
        sentence: 'Sugar (80 % water), Cocoa butter (12 % water) would go into the bowl.',
        path: 'sources.0.holdingId',
      },
    ]);
  });
});

describe('what is read', () => {
  test('two readings may differ by what a gauge does; beyond that one is coarser, with nothing put in since', () => {
    const bench = new Bench();
    const { sugar, bowl } = bowlOf(bench, 4000);
    const first = bench.do(readingOf(bowl, 20));
    const gates = (value: number, moment = LATER) => readingGates(readingOf(bowl, value), at(bench, moment));
    // 2.4 standard deviations of both: 2.4 · √(0.88² + (0.0215·24)² + 0.88² + (0.0215·20)²) = 3.4 µm.
    expect(gates(23.3)).toEqual([]);
    expect(gates(23.5)).toMatchObject([{ id: 'grind/coarser', path: 'value' }]);
    expect(gates(23.5)[0]?.sentence).toBe('23.5 µm is coarser than the 20 µm read before, and nothing went in since.');
    // What came earlier is not held against what was read later.
    expect(gates(60, first.at - 1)).toEqual([]);
    bench.do({ kind: 'charge', batchId: bowl, sources: [{ holdingId: sugar, massG: 500 }], note: '' });
    expect(gates(60)).toEqual([]);
  });

  test('only readings of the same bowl count, and the newest of them', () => {
    const bench = new Bench();
    const [one, other] = [bowlOf(bench, 4000).bowl, bowlOf(bench, 4000).bowl];
    bench.do(readingOf(one, 60));
    bench.do(readingOf(other, 18));
    const gates = (value: number) => readingGates(readingOf(one, value), at(bench, LATER));
    expect(gates(62)).toEqual([]);
    bench.do(readingOf(one, 30));
    bench.do(readingOf(one, 42, 'bowl-temperature'));
    expect(gates(62)).toMatchObject([{ id: 'grind/coarser' }]);
  });

  test('a reading that is put right is not held against what it was', () => {
    const bench = new Bench();
    const { bowl } = bowlOf(bench, 4000);
    bench.do(readingOf(bowl, 30));
    const wrong = bench.do(readingOf(bowl, 12));
    const again = readingOf(bowl, 29);
    expect(readingGates(again, at(bench, LATER))).toMatchObject([{ id: 'grind/coarser' }]);
    expect(readingGates(again, at(bench, wrong.at, { order: wrong.order }))).toEqual([]);
  });

  test('no bowl is at 121 °C, and nothing is read before the bowl began', () => {
    const bench = new Bench();
    const { charge, bowl } = bowlOf(bench, 4000);
    expect(bench.do(readingOf(bowl, 120, 'bowl-temperature')).postings).toEqual([]);
    expect(refusal(() => bench.do(readingOf(bowl, 121, 'bowl-temperature')))).toBe('grind/not-a-bowl');
    expect(refusal(() => bench.do(readingOf(bowl, 20), { at: charge.at - 1 }))).toBe('grind/before-start');
    const moved = { ...readingOf(bowl, 0, 'move'), value: null };
    expect(refusal(() => bench.do(moved))).toBe('grind/no-machine');
  });
});

describe('what comes out', () => {
  test('each tub is weighed; what was scraped off, what the sieve kept and what nobody knows are losses apart', () => {
    const bench = new Bench();
    const { bowl } = bowlOf(bench, 10_000);
    const out = bench.do({
      ...dischargeCommand(bowl, 0),
      outsG: [5000, 3000, 1500],
      holdUpG: 300,
      sievedG: 120,
    });
    const tubs = [made(out), made(out, 'good2'), made(out, 'good3')];
    expect(tubs.map((id) => bench.book.balance(id).massMg)).toEqual([5_000_000, 3_000_000, 1_500_000]);
    expect(tubs.map((id) => bench.book.holding(id))).toMatchObject(
      Array<object>(3).fill({ batchId: bowl, routeId: 'whole-bean', name: 'Dark' }),
    );
    const lost = Object.fromEntries(
      out.postings.flatMap(({ loss, massMg }) => (loss === null ? [] : [[loss, massMg]])),
    );
    expect(lost).toEqual({ 'hold-up': 300_000, trimming: 120_000, unaccounted: 80_000 });
    expect(bench.book.balance(bowl).massMg).toBe(0);
  });

  test('a part is poured and the rest runs on; as much as there was cannot stay', () => {
    const bench = new Bench();
    const { bowl } = bowlOf(bench, 10_000);
    const part = bench.do({ ...dischargeCommand(bowl, 3950), leftG: 6000 });
    expect(bench.book.balance(made(part)).massMg).toBe(3_950_000);
    expect(bench.book.balance(bowl).massMg).toBe(6_000_000);
    const stays = { ...dischargeCommand(bowl, 10), leftG: 6000 };
    expect(refusal(() => bench.do(stays))).toBe('grind/nothing-poured');
    expect(fieldOf(() => bench.do(stays))).toBe('leftG');
    bench.do(dischargeCommand(bowl, 6000));
    expect(refusal(() => bench.do(dischargeCommand(bowl, 10)))).toBe('grind/empty');
  });

  test('where the route rests, it comes out as blocks on the shelf; elsewhere as tubs at the next station', () => {
    const bench = new Bench();
    const sugar = made(bench.buy('sugar', 20_000, 20));
    const placeOf = (routeId: string): [string, string] => {
      const charge = chargeCommand([{ holdingId: sugar, massG: 1000 }]);
      const begun = bench.do({ ...charge, batch: { name: 'It', routeId, targetMicron: 20, cocoaTargetPct: null } });
      const { kind, place } = bench.book.holding(made(bench.do(dischargeCommand(made(begun), 1000))));
      return [kind, place];
    };
    for (const { id, stations } of ROUTE_TEMPLATES.filter((route) => route.stations.includes('grind'))) {
      const next = stations[stations.indexOf('grind') + 1] ?? 'temper';
      expect([id, ...placeOf(id)]).toEqual([id, next === 'rest' ? 'block' : 'mass', next]);
    }
  });
});
