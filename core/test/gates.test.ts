import { compositionOf } from '../src/composition/composition';
import { passGates, type GateContext } from '../src/gates/gate';
import { isRaw } from '../src/grind/raw';
import type { Command } from '../src/commands';
import type { LotFacts, Step } from '../src/ledger/types';
import { gatesOf, MARKING } from '../src/stations';
import { marksOf } from '../src/trace/marks';
import { ROUTE_TEMPLATES } from '../src/workshop/routes';
import { chargeCommand, dischargeCommand } from './commands';
import { Bench, HOUR, made, refusal } from './fixtures';

const DAY = 24 * HOUR;

class Gated {
  readonly bench = new Bench();
  readonly lots = new Map<string, LotFacts>();
  restDays = 14;
  temperatureUnit: 'C' | 'F' = 'C';

  context(at: number): GateContext {
    const { bench } = this;
    return {
      at,
      order: 1e9,
      book: bench.book,
      lots: this.lots,
      settings: { restDays: this.restDays, timeZone: 'Europe/Lisbon', temperatureUnit: this.temperatureUnit },
      route: (id) => ROUTE_TEMPLATES.find((route) => route.id === id),
      batch: (id) => bench.batches.get(id),
      composition: () => compositionOf(new Map(), () => undefined),
      keeps: new Map(),
    };
  }

  sentences(command: Command): string[] {
    const at = Number.MAX_SAFE_INTEGER / 4;
    return gatesOf(command, this.context(at)).map(({ sentence }) => sentence.replaceAll('\u00a0', ' '));
  }

  gates(command: Command, at = Number.MAX_SAFE_INTEGER / 4): string[] {
    return gatesOf(command, this.context(at)).map(({ id }) => id);
  }
}

const winnowed = (gated: Gated, from: string, massG: number): string =>
  made(
    gated.bench.do({
      kind: 'winnow',
      sources: [{ holdingId: from, massG }],
      nibsG: massG * 0.8,
      huskG: massG * 0.2,
      dustG: 0,
      setting: '',
      note: '',
    }),
  );

test('raw beans, raw nibs and nibs that nobody called roasted do not go into a bowl of a roasting route', () => {
  const gated = new Gated();
  const lot = made(gated.bench.lot(10_000));
  const roasted = made(
    gated.bench.do({
      kind: 'roast',
      sources: [{ holdingId: lot, massG: 5000 }],
      program: [],
      endBeanC: null,
      outG: 4700,
      note: '',
    }),
  );
  const good = winnowed(gated, roasted, 4700);
  const raw = winnowed(gated, lot, 2000);
  expect(gated.gates(chargeCommand([{ holdingId: good, massG: 100 }]))).toEqual([]);
  expect(gated.gates(chargeCommand([{ holdingId: raw, massG: 100 }]))).toEqual(['grind/raw']);
  expect(gated.gates(chargeCommand([{ holdingId: lot, massG: 100 }]))).toEqual(['grind/raw']);
  const unroasted = { ...chargeCommand([{ holdingId: raw, massG: 100 }]) };
  expect(
    gated.gates({ ...unroasted, batch: { name: 'Raw', routeId: 'unroasted', targetMicron: 20, cocoaTargetPct: null } }),
  ).toEqual([]);
  // A raw batch's mass stays raw in another bowl.
  const raws = gated.bench.do({
    ...unroasted,
    batch: { name: 'Raw', routeId: 'unroasted', targetMicron: 20, cocoaTargetPct: null },
  });
  const tub = made(gated.bench.do(dischargeCommand(raws.batchId ?? '', 100)));
  expect(gated.gates(chargeCommand([{ holdingId: tub, massG: 50 }]))).toEqual(['grind/raw']);
  // Said on the receipt, it is known.
  gated.lots.set(lot, { roasted: true } as LotFacts);
  expect(isRaw(gated.bench.book, gated.lots, lot)).toBe(false);
});

test('the mass of an unroasted batch is not over its ceiling in silence', () => {
  const gated = new Gated();
  const lot = made(gated.bench.lot(5_000));
  const nibs = winnowed(gated, lot, 5000);
  const charge = chargeCommand([{ holdingId: nibs, massG: 4000 }]);
  const batch = made(
    gated.bench.do({ ...charge, batch: { name: 'Raw', routeId: 'unroasted', targetMicron: 20, cocoaTargetPct: null } }),
  );
  const read = (value: number): Command => ({
    kind: 'reading',
    batchId: batch,
    what: 'bowl-temperature',
    value,
    note: '',
  });
  expect(gated.gates(read(46.9))).toEqual([]);
  expect(gated.gates(read(55))).toEqual(['grind/too-hot']);
  const tub = made(gated.bench.do(dischargeCommand(batch, 4000)));
  const melt = (meltC: number): Command => ({
    kind: 'temper',
    sources: [{ holdingId: tub, massG: 4000 }],
    method: 'slab',
    meltC,
    coolC: 27,
    workC: 31,
    test: 'set',
    note: '',
  });
  // From the shelf too early, and too hot.
  gated.restDays = 0;
  expect(gated.gates(melt(45))).toEqual([]);
  expect(gated.gates(melt(50))).toEqual(['temper/too-hot']);
  // Said in the degrees that the maker reads.
  gated.temperatureUnit = 'F';
  const said = [read(55), melt(50)].flatMap((command) => gated.sentences(command));
  expect(said).toEqual([
    '131 °F is over the 116.6 °F that “Unroasted” keeps its mass under.',
    'Melted out at 122 °F: over the 116.6 °F that “Unroasted” keeps its mass under.',
  ]);
});

test('blocks leave the shelf when they have rested, a pour is moulded when it is in temper', () => {
  const gated = new Gated();
  const sugar = made(gated.bench.buy('sugar', 5000, 5));
  const begun = gated.bench.do(chargeCommand([{ holdingId: sugar, massG: 4000 }]));
  const poured = gated.bench.do(dischargeCommand(begun.batchId ?? '', 4000));
  const block = made(poured);
  const off: Command = { kind: 'rest', sources: [{ holdingId: block, massG: 1000 }], note: '' };
  expect(gated.gates(off, poured.at)).toEqual(['rest/too-young']);
  expect(gated.gates(off, poured.at + 13.6 * DAY)).toEqual([]);
  const temper = (test: 'set' | 'failed', workC: number): Step =>
    gated.bench.do({
      kind: 'temper',
      sources: [{ holdingId: block, massG: 500 }],
      method: 'slab',
      meltC: 45,
      coolC: 27,
      workC,
      test,
      note: '',
    });
  const mould = (pour: Step): string[] =>
    gated.gates({
      kind: 'mould',
      sources: [{ holdingId: made(pour), massG: 500 }],
      barG: 50,
      cavities: 10,
      goodPieces: 10,
      secondsPieces: 0,
      remeltG: 0,
      trimmingsG: 0,
      holdUpG: 0,
      note: '',
    });
  expect(mould(temper('set', 31.5))).toEqual([]);
  expect(mould(temper('set', 38))).toEqual(['mould/out-of-temper']);
  const failed = temper('failed', 31.5);
  expect(mould(failed)).toEqual(['mould/out-of-temper']);
  // It waits at Temper and can be tempered again; then it is a good pour.
  expect(gated.bench.book.holding(made(failed)).place).toBe('temper');
  const again = gated.bench.do({
    kind: 'temper',
    sources: [{ holdingId: made(failed), massG: 500 }],
    method: 'slab',
    meltC: 45,
    coolC: 27,
    workC: 31.5,
    test: 'set',
    note: '',
  });
  expect(mould(again)).toEqual([]);
  expect(marksOf([failed], null, MARKING).map(({ id }) => id)).toEqual(['out-of-temper']);
  expect(marksOf([failed, again], null, MARKING)).toEqual([]);
});

test('a date on a label is after the day of packing, and no later than what is inside keeps', () => {
  const gated = new Gated();
  const sugar = made(gated.bench.buy('sugar', 5000, 5));
  const begun = gated.bench.do(chargeCommand([{ holdingId: sugar, massG: 4000 }]));
  const tub = made(gated.bench.do(dischargeCommand(begun.batchId ?? '', 4000)));
  const bars = gated.bench.do({
    kind: 'mould',
    sources: [{ holdingId: tub, massG: 4000 }],
    barG: 50,
    cavities: 10,
    goodPieces: 80,
    secondsPieces: 0,
    remeltG: 0,
    trimmingsG: 0,
    holdUpG: 0,
    note: '',
  });
  const pack = (bestBefore: string): string[] =>
    gated.gates(
      { kind: 'pack', holdingId: made(bars), pieces: 10, labelCode: 'X-1', bestBefore, packaging: [], note: '' },
      bars.at + DAY,
    );
  expect(pack('2026-01-06')).toEqual(['pack/date-past']);
  expect(pack('2026-01-04')).toEqual(['pack/date-past']);
  expect(pack('2027-07-01')).toEqual([]);
  expect(pack('2028-02-01')).toEqual(['pack/date-long']);
});

test('a stop is gone past by name with a word, and one word answers one stop', () => {
  const gates = [
    { id: 'a/x', sentence: 'A.', why: '', todo: '', path: 'value' },
    { id: 'b/y', sentence: 'B.', why: '', todo: '', path: 'value' },
  ];
  expect(refusal(() => passGates(gates, [], 'ann'))).toBe('gate/closed');
  expect(refusal(() => passGates(gates, [{ gate: 'a/x', word: 'I know' }], 'ann'))).toBe('gate/closed');
  const kept = passGates(
    gates,
    [
      { gate: 'a/x', word: 'I know' },
      { gate: 'b/y', word: 'and this' },
    ],
    'ann',
  );
  expect(kept).toEqual([
    { gate: 'a/x', sentence: 'A.', word: 'I know', personId: 'ann' },
    { gate: 'b/y', sentence: 'B.', word: 'and this', personId: 'ann' },
  ]);
  // What was answered when the work began holds when it ends; what fires no more is not carried on.
  expect(passGates(gates.slice(0, 1), [], 'bo', kept)).toEqual(kept.slice(0, 1));
});
