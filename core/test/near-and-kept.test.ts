import { nearbyOf } from '../src/entry/nearby';
import { compiledOf } from '../src/trace/compiled';
import { blocksOf, checkBlocks, type TraceRecords } from '../src/trace/blocks';
import { workedMs } from '../src/workshop/work';
import { checkPackedAs, productsOf, type ProductRecords } from '../src/products/book';
import { Bench, made, refusal } from './fixtures';
import { chargeCommand } from './commands';

/* What a figure should be near; what is kept of lists that only grow. */

test('what comes out weighs about as much as what went in', () => {
  for (const [kind, field] of [
    ['sort', 'goodG'],
    ['roast', 'outG'],
    ['winnow', 'nibsG'],
    ['temper', 'outG'],
  ] as const)
    expect(nearbyOf(kind, 4000, {})).toEqual({ [field]: { value: 4000, of: 'What went in' } });
  // What stays in the bowl does not come out.
  expect(nearbyOf('discharge', 4000, { leftG: 500 })).toMatchObject({ outsG: { value: 3500 } });
  expect(nearbyOf('discharge', 4000, { leftG: 5000 })).toEqual({});
  expect(nearbyOf('taste', 4000, {})).toEqual({});
  expect(nearbyOf('roast', 0, {})).toEqual({});
});

test('bars by their weight, an invoice by what it says', () => {
  expect(nearbyOf('mould', 2100, { barG: 70, goodPieces: 29 })).toEqual({
    goodPieces: { value: 30, of: 'Bars of that weight in what went in' },
    goodG: { value: 2030, of: 'That many bars of that weight' },
  });
  expect(nearbyOf('mould', 2100, { barG: 0 })).toEqual({});
  expect(nearbyOf('receive', 0, { invoiceNetG: 60_000 })).toEqual({
    netG: { value: 60_000, of: 'The invoice says' },
  });
});

test('hands are not at work while it is paused', () => {
  const work = { startedAt: 1000, pausedAt: null, pausedMs: 200 };
  expect(workedMs(work, 5000)).toBe(3800);
  expect(workedMs({ ...work, pausedAt: 3000 }, 5000)).toBe(1800);
  expect(workedMs({ startedAt: 1000 }, 900)).toBe(0);
});

const blocked = (ids: string[], recallId = 'r1') =>
  ({ kind: 'blocked', recallId, holdingIds: ids, why: 'a nail in it' }) as never;
const released = (ids: string[]) => ({ kind: 'released', recallId: 'r1', holdingIds: ids, word: 'x-rayed' }) as never;
const listOf = (...values: never[]): TraceRecords & { rows: { value: never }[] } => {
  const rows = values.map((value) => ({ value }));
  return { rows, of: () => rows };
};

test('the newest word on goods counts, and a list that grows is read on', () => {
  const records = listOf(blocked(['a', 'b']), released(['a']), blocked(['c'], 'r2'));
  expect([...blocksOf(records)]).toEqual([
    ['b', { recallId: 'r1', why: 'a nail in it' }],
    ['c', { recallId: 'r2', why: 'a nail in it' }],
  ]);
  expect(blocksOf(records)).toBe(blocksOf(records));
  records.rows.push({ value: blocked(['a'], 'r3') });
  expect(blocksOf(records).get('a')?.recallId).toBe('r3');
});

test('blocked goods do not leave the house nor hide; they may be weighed and counted', () => {
  const bench = new Bench();
  const lot = made(bench.lot(5000));
  const blocks = blocksOf(listOf(blocked([lot])));
  const check = (command: object) => refusal(() => checkBlocks(bench.book, blocks, command as never));
  expect(check(chargeCommand([{ holdingId: lot, massG: 100 }]))).toBe('trace/blocked');
  expect(check({ kind: 'pack', holdingId: lot })).toBe('trace/blocked');
  expect(check({ kind: 'sell', sources: [{ holdingId: 'other' }, { holdingId: lot }] })).toBe('trace/blocked');
  expect(check({ kind: 'adjust', holdingId: lot })).toBe('not refused');
  expect(check({ kind: 'sort', sources: [{ holdingId: lot }] })).toBe('not refused');
  expect(check({ kind: 'sell', sources: [{ holdingId: 'other' }] })).toBe('not refused');
});

test('a book in numbers goes on where it stood as it grows, and begins anew after a correction', () => {
  const bench = new Bench();
  const lot = made(bench.lot(5000));
  const sort = (inG: number, goodG: number, extra = {}) =>
    bench.do({ kind: 'sort', sources: [{ holdingId: lot, massG: inG }], rejects: [], goodG, note: '' }, extra);
  const first = sort(1000, 950);
  const compiled = compiledOf(bench.book);
  expect(compiled).toHaveLength(2);
  expect([...compiled.takeMg]).toEqual([1_000_000]);
  expect([...compiled.putMg]).toEqual([5_000_000, 950_000]);
  expect(compiled.ids[compiled.takeSlot.at(0)]).toBe(lot);
  sort(500, 480);
  expect(compiledOf(bench.book)).toBe(compiled);
  expect([...compiled.takeMg]).toEqual([1_000_000, 500_000]);
  expect([...compiled.takeEnd]).toEqual([0, 1, 2]);
  sort(1000, 900, { supersedes: first.id });
  const anew = compiledOf(bench.book);
  expect(anew).not.toBe(compiled);
  expect([...anew.putMg]).toEqual([5_000_000, 900_000, 480_000]);
});

test('packing as a product wants one that is known, in that version', () => {
  const rows: { value: never; at: number; personId: string }[] = [];
  const records: ProductRecords = { of: () => rows };
  const facts = { name: 'Ridge bar', declaredG: 70, form: 'plain', parts: [] };
  const say = (productId: string) =>
    rows.push({ value: { kind: 'product', productId, facts, why: '' } as never, at: 1, personId: 'p' });
  const pack = (id: string, version: number) =>
    refusal(() => checkPackedAs(records, { kind: 'pack', product: { id, version } } as never));
  expect(pack('a', 1)).toBe('products/unknown');
  say('a');
  expect(pack('a', 1)).toBe('not refused');
  expect(pack('a', 2)).toBe('products/unknown');
  say('a');
  expect(pack('a', 2)).toBe('not refused');
  expect(productsOf(records)).toBe(productsOf(records));
  expect(refusal(() => checkPackedAs(records, { kind: 'pack' } as never))).toBe('not refused');
  expect(refusal(() => checkPackedAs(records, { kind: 'sort' } as never))).toBe('not refused');
});
