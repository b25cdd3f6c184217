import fc from 'fast-check';
import { Narrow } from '../src/checkpoint/narrow';

/** As most columns are: little but zeros, in runs that end anywhere in a word of bits. */
const numbers = fc
  .array(fc.tuple(fc.nat({ max: 70 }), fc.oneof(fc.integer(), fc.integer({ min: -9e9, max: 9e9 }), fc.double())), {
    maxLength: 40,
  })
  .map((runs) => runs.flatMap(([zeros, number]) => [...Array<number>(zeros).fill(0), number]));

test('every number of a column is the one that was put there, also as it comes from a file', () => {
  fc.assert(
    fc.property(numbers, (all) => {
      const plain = all.map((number) => (number === 0 ? 0 : number));
      const column = Narrow.of(all);
      for (const some of [column, Narrow.open('minutes', column.sections('minutes'))]) {
        expect([...some]).toEqual(plain);
        expect([...some.entries()]).toEqual([...plain.entries()].filter(([, number]) => number !== 0));
        expect(some).toHaveLength(all.length);
        expect(some.at(all.length + 32)).toBe(0);
      }
    }),
    { seed: 27 },
  );
});

const bytes = (all: readonly number[]): number =>
  Object.values(Narrow.of(all).sections('it')).reduce((sum, { length }) => sum + length, 0);

test('zeros take a bit each, whole numbers four bytes more, and others eight where they are more than a few', () => {
  const none = bytes(Array<number>(6400).fill(0));
  expect(none).toBeLessThan(6400 / 8 + 8);
  const put = (number: number): number => bytes(Array.from({ length: 6400 }, (_, i) => (i % 2 ? number : 0))) - none;
  expect(put(2 ** 31 - 1)).toBe(3200 * 4);
  expect(put(-(2 ** 31) + 1)).toBe(3200 * 4);
  expect(put(-(2 ** 31))).toBe(3200 * 8);
  expect(put(2 ** 31)).toBe(3200 * 8);
  expect(put(0.5)).toBe(3200 * 8);
  const heavy = Array.from({ length: 6400 }, (_, i) => (i % 100 === 7 ? 4e9 + i : 1));
  expect(bytes(heavy) - none).toBe(6400 * 4 + 64 * 16);
  expect([...Narrow.of(heavy)]).toEqual(heavy);
});

test('a column is missed by its name, and one whose numbers do not fit its bits is none', () => {
  expect(() => Narrow.open('minutes', {})).toThrow('there is no section minutes');
  const { 'it.i32': _, ...rest } = Narrow.of([0, 7]).sections('it');
  expect(() => Narrow.open('it', rest)).toThrow('there is no section it');
  const other = Narrow.of([1, 2, 3]).sections('it');
  expect(() => Narrow.open('it', { ...rest, 'it.i32': other['it.i32'] ?? new Uint8Array() })).toThrow(
    '3 numbers stand where there should be 1',
  );
});
