import fc from 'fast-check';
import { columnSections, ends, Growing, openColumns } from '../src/checkpoint/columns';
import { packSections, readSections, type Sections } from '../src/checkpoint/sections';
import { Few } from '../src/checkpoint/few';
import { Near } from '../src/checkpoint/near';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const SHAPE = { at: 'f64', kind: 'u32', flags: 'u8', milli: 'narrow', since: 'near', person: 'few' } as const;
type Row = Record<keyof typeof SHAPE, number>;

const row: fc.Arbitrary<Row> = fc.record({
  at: fc.double({ noNaN: true }).map((number) => number + 0),
  kind: fc.nat({ max: 2 ** 32 - 1 }),
  flags: fc.nat({ max: 255 }),
  since: fc.oneof(fc.integer({ min: 1e12, max: 1e12 + 9e9 }), fc.maxSafeInteger(), fc.double({ noNaN: true })),
  person: fc.oneof(fc.nat({ max: 3 }), fc.integer()).map((number) => number + 0),
  milli: fc.oneof(fc.constant(0), fc.integer(), fc.double({ noNaN: true })).map((number) => number + 0),
});
const rows = fc.array(row, { maxLength: 70 });

const directory = mkdtempSync(join(tmpdir(), 'wunsch-columns-'));
afterAll(() => rmSync(directory, { recursive: true, force: true }));
const path = join(directory, 'it');

function throughFile(sections: Sections): Sections | null {
  writeFileSync(path, Buffer.concat(packSections(sections)));
  return readSections(path);
}

test('rows that were kept and rows that came later are the rows of the next file', () => {
  fc.assert(
    fc.property(fc.array(rows, { maxLength: 4 }), (parts) => {
      let columns = new Growing(SHAPE, null).whole();
      for (const part of parts) {
        const growing = new Growing(SHAPE, columns);
        for (const one of part) growing.add(one);
        const sections = throughFile(columnSections('it', growing.whole()));
        columns = openColumns('it', SHAPE, sections ?? {});
        expect(growing.length).toBe(columns.kind.length);
      }
      const read = Array.from(columns.kind, (kind, i) => ({
        at: columns.at[i],
        kind,
        flags: columns.flags[i],
        milli: columns.milli.at(i),
        since: columns.since.at(i),
        person: columns.person.at(i),
      }));
      expect(read).toEqual(parts.flat());
    }),
    { seed: 91 },
  );
});

test('where the rows of each one stand in another table', () => {
  const column = Near.of([2, 2, 5]);
  expect([0, 1, 2].map((i) => ends(column, i))).toEqual([
    [0, 2],
    [2, 2],
    [2, 5],
  ]);
});

test('a column that is not there is told; a file that ends too soon or of which a byte is wrong is none', () => {
  const growing = new Growing(SHAPE, null);
  growing.add({ at: 1.5, kind: 7, flags: 1, milli: -3, since: 1e12, person: 4 });
  const sections = columnSections('it', growing.whole());
  const { 'it.kind': _, ...without } = sections;
  expect(() => openColumns('it', SHAPE, without)).toThrow('there is no section it.kind');
  const whole = Buffer.concat(packSections(sections));
  for (let at = 0; at < whole.length; at += 3) {
    const wrong = Buffer.from(whole);
    wrong[at] = (wrong[at] ?? 0) ^ 1;
    writeFileSync(path, wrong);
    expect([at, readSections(path)]).toEqual([at, null]);
  }
  for (const length of [0, 10, whole.length - 1]) {
    writeFileSync(path, whole.subarray(0, length));
    expect([length, readSections(path)]).toEqual([length, null]);
  }
});

const bytes = (sections: Sections): number => Object.values(sections).reduce((sum, { length }) => sum + length, 0);

test('neighbours that are alike take as many bytes as they differ, and a few different numbers one each', () => {
  const counting = Array.from({ length: 6400 }, (_, row) => 1_700_000_000_000 + 3 * row);
  expect(bytes(Near.of(counting).sections('it'))).toBe(6400 + 100 * 8);
  const minutes = counting.map((number, row) => number + 600 * (row % 64));
  expect(bytes(Near.of(minutes).sections('it'))).toBe(6400 * 2 + 100 * 8);
  const people = counting.map((_, row) => 87_000 + (row % 5));
  expect(bytes(Few.of(people).sections('it'))).toBe(6400 + 5 * 8);
  expect(bytes(Few.of(counting).sections('it'))).toBe(6400 * 2 + 6400 * 8);
});

test('outside of a column there is nothing; one that does not fit is none', () => {
  const [near, few] = [Near.of([5, 6]), Few.of([5, 6])];
  expect([near.at(-1), near.at(2), few.at(-1), few.at(2)]).toEqual([0, 0, 0, 0]);
  const { 'it.least': _, ...rest } = near.sections('it');
  expect(() => Near.open('it', rest)).toThrow('there is no section it.least');
  expect(() => Near.open('it', { ...rest, 'it.least': new Uint8Array(16) })).toThrow('2 numbers of it count from 2');
  expect(() => Few.open('it', { 'it.list': new Uint8Array(8) })).toThrow('there is no section it.places');
});
