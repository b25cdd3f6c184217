import { Holdings, type PastHoldings } from '../src/ledger/holdings';
import type { Holding } from '../src/ledger/types';
import { tub } from './fixtures';

/** A past of tubs by their ids and codes, in that order; says which rows were read. */
function begun(rows: readonly (readonly [id: string, code: string])[]): { holdings: Holdings; reads: number[] } {
  const reads: number[] = [];
  const past: PastHoldings = {
    size: rows.length,
    holding: (row) => {
      reads.push(row);
      return tub(...(rows[row] ?? ['', '']));
    },
    codeOf: (row) => ({ code: rows[row]?.[1] ?? '', kind: 'roasted' }),
    rowOf: (id) => {
      const row = rows.findIndex(([own]) => own === id);
      return row < 0 ? undefined : row;
    },
    startingWith: (capitals) =>
      rows
        .map(([, code], row) => ({ code: code.toUpperCase(), row }))
        .filter(({ code }) => code.startsWith(capitals))
        .sort((a, b) => (a.code < b.code ? -1 : 1))
        .map(({ row }) => row),
  };
  const holdings = new Holdings();
  holdings.begin(past);
  return { holdings, reads };
}

const ids = (holdings: Iterable<Holding>): string[] => Array.from(holdings, ({ id }) => id);

test('a holding of the past is read once, when it is asked for', () => {
  const { holdings, reads } = begun([
    ['a', 'N-1'],
    ['b', 'N-2'],
  ]);
  expect(holdings.has('b')).toBe(true);
  expect(reads).toEqual([]);
  expect(holdings.get('b')).toEqual(tub('b', 'N-2'));
  expect(holdings.get('b')).toBe(holdings.get('b'));
  expect(reads).toEqual([1]);
  expect([holdings.get('c'), holdings.has('c')]).toEqual([undefined, false]);
});

test('so many that were asked for are kept, not all', () => {
  const { holdings, reads } = begun(Array.from({ length: 3001 }, (_, i) => [`h${i}`, `N-${i}`] as const));
  for (let i = 0; i <= 3000; i += 1) holdings.get(`h${i}`);
  holdings.get('h3000');
  expect(reads).toHaveLength(3001);
  holdings.get('h0');
  expect(reads).toHaveLength(3002);
});

test('what is said of a holding of the past counts from then on, and it keeps its place', () => {
  const { holdings } = begun([
    ['a', 'N-1'],
    ['b', 'N-2'],
  ]);
  holdings.get('a');
  holdings.set(tub('a', 'X-9'));
  holdings.set(tub('c', 'N-3'));
  expect(holdings.get('a')?.code).toBe('X-9');
  expect(ids(holdings.values())).toEqual(['a', 'b', 'c']);
  expect([...holdings.ids()]).toEqual(['a', 'b', 'c']);
  expect([holdings.byCode('n-1'), holdings.byCode('x-9')?.id, holdings.byCode('n-2')?.id]).toEqual([
    undefined,
    'a',
    'b',
  ]);
});

test('codes are found by their beginning in either case, the whole code first among those made since', () => {
  const { holdings } = begun([
    ['a', 'b12'],
    ['b', 'B1'],
    ['c', 'C1'],
  ]);
  holdings.set(tub('d', 'B123'));
  holdings.set(tub('e', 'B12-1'));
  expect(ids(holdings.startingWith('b1'))).toEqual(['b', 'a', 'd', 'e']);
  expect(ids(holdings.startingWith('b123'))).toEqual(['d']);
  expect(ids(holdings.startingWith('z'))).toEqual([]);
  expect(holdings.byCode('B12')?.id).toBe('a');
  expect(holdings.byCode('')).toBeUndefined();
});

test('a holding that was made since can be forgotten, its code with it', () => {
  const { holdings } = begun([['a', 'N-1']]);
  holdings.set(tub('b', 'N-2'));
  holdings.delete('b');
  expect([holdings.has('b'), holdings.byCode('N-2')]).toEqual([false, undefined]);
  holdings.set(tub('c', 'N-2'));
  holdings.set(tub('c', 'N-5'));
  expect([holdings.byCode('N-2'), holdings.byCode('N-5')?.id]).toEqual([undefined, 'c']);
});

test('what is only planned is there while somebody works with it, and takes no code from what is', () => {
  const { holdings } = begun([]);
  holdings.set(tub('a', 'N-1'));
  const seen = holdings.with([tub('plan', 'N-1')], () => [holdings.get('plan')?.id, holdings.byCode('N-1')?.id]);
  expect(seen).toEqual(['plan', 'a']);
  expect(() =>
    holdings.with([tub('plan')], () => {
      throw new Error('refused');
    }),
  ).toThrow('refused');
  expect([holdings.has('plan'), holdings.byCode('N-1')?.id]).toEqual([false, 'a']);
});

test('what stands on all of them is said without reading any of the past', () => {
  const { holdings, reads } = begun([
    ['a', 'T001'],
    ['b', 'T002'],
  ]);
  holdings.set(tub('c', 'T003'));
  expect(Array.from(holdings.codesWithKinds(), ({ code }) => code)).toEqual(['T001', 'T002', 'T003']);
  expect(reads).toEqual([]);
});
