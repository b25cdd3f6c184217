import { flowByStation } from '../src/trace/by-station';
import { upstream } from '../src/trace/flow';
import { chargeCommand, dischargeCommand, mouldCommand } from './commands';
import { Bench, made } from './fixtures';

test('a second pass over the stones is no loss of half: grind lets through what left it of what came to it', () => {
  const bench = new Bench();
  const sugar = made(bench.buy('sugar', 12_000, 9));
  const first = bench.do(chargeCommand([{ holdingId: sugar, massG: 10_000 }]));
  const tub = made(bench.do(dischargeCommand(first.batchId ?? '', 9_800)));
  const second = bench.do(chargeCommand([{ holdingId: tub, massG: 9_800 }]));
  const out = bench.do(dischargeCommand(second.batchId ?? '', 9_700));
  const grind = flowByStation(bench.book, upstream(bench.book, new Map([[out.id, 1]]))).find(
    ({ station }) => station === 'grind',
  );
  expect(grind?.inMg).toBe(10_000_000);
  expect(grind?.goodMg).toBe(9_700_000);
});

test('a part of the bowl poured, the rest later: the two pours are one passage', () => {
  const bench = new Bench();
  const sugar = made(bench.buy('sugar', 12_000, 9));
  const begun = bench.do(chargeCommand([{ holdingId: sugar, massG: 10_000 }]));
  const part = bench.do({ ...dischargeCommand(begun.batchId ?? '', 3_900), leftG: 6_000 });
  const rest = bench.do(dischargeCommand(begun.batchId ?? '', 5_900));
  const grind = flowByStation(
    bench.book,
    upstream(
      bench.book,
      new Map([
        [part.id, 1],
        [rest.id, 1],
      ]),
    ),
  ).find(({ station }) => station === 'grind');
  expect([grind?.inMg, grind?.goodMg]).toEqual([10_000_000, 9_800_000]);
  // Of a moment in between: four kilograms left, six still in the bowl.
  const before = flowByStation(bench.book, upstream(bench.book, new Map([[part.id, 1]]))).find(
    ({ station }) => station === 'grind',
  );
  expect(before?.goodMg).toBe(3_900_000);
  expect(before?.inMg).toBe(4_000_000);
});

test('bars that are melted and moulded again are called by one weight, the new one', () => {
  const bench = new Bench();
  const sugar = made(bench.buy('sugar', 12_000, 9));
  const begun = bench.do(chargeCommand([{ holdingId: sugar, massG: 10_000 }]));
  const tub = made(bench.do(dischargeCommand(begun.batchId ?? '', 10_000)));
  const bars = made(bench.do(mouldCommand([{ holdingId: tub, massG: 10_000 }], 140, 70)));
  expect(bench.book.holding(bars).name).toBe('Dark, 70 g');
  const back = made(bench.do({ kind: 'remelt', sources: [{ holdingId: bars, pieces: 140 }], why: 'bloom', note: '' }));
  expect(bench.book.holding(back).name).toBe('Dark');
  const again = bench.do({
    kind: 'temper',
    sources: [{ holdingId: back, massG: 9_800 }],
    method: 'slab',
    meltC: 46,
    coolC: 27,
    workC: 31,
    test: 'set',
    note: '',
  });
  const other = made(bench.do(mouldCommand([{ holdingId: made(again), massG: 9_800 }], 190, 50)));
  expect(bench.book.holding(other).name).toBe('Dark, 50 g');
});
