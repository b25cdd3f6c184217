import fc from 'fast-check';
import { BeanBook } from '../../src/beans/book';
import { beanRecord, inForce, type BeanRecord } from '../../src/beans/records';
import type { FileMeta } from '../../src/workshop/kept';

const record = (id: string, lotId: string | null, at: number, value: Record<string, unknown>): BeanRecord => ({
  id,
  lotId,
  at,
  recordedAt: at,
  personId: 'p',
  value: beanRecord.parse(value),
});
const core = (id: string, lotId: string | null, at: number): BeanRecord =>
  record(id, lotId, at, { kind: 'core', tempC: -20 });
const back = (id: string, lotId: string | null, at: number, recordId: string): BeanRecord =>
  record(id, lotId, at, { kind: 'taken-back', recordId, word: 'another sack' });

const file = (id: string, at: number, about: Pick<FileMeta, 'lotId' | 'subject'>): FileMeta => ({
  id,
  name: `${id}.jpg`,
  caption: '',
  type: 'image/jpeg',
  size: 10,
  width: 4,
  height: 3,
  sha256: '',
  at,
  personId: 'p',
  ...about,
});
const ids = (rows: Iterable<{ id: string }>): string[] => Array.from(rows, ({ id }) => id);

test('records are kept by their lot, those of the store by themselves', () => {
  const book = new BeanBook();
  for (const row of [core('a', 'l1', 3), core('b', null, 1), core('c', 'l2', 2), core('d', 'l1', 1)]) book.add(row);
  expect(ids(book.of('l1'))).toEqual(['d', 'a']);
  expect(ids(book.of('l2'))).toEqual(['c']);
  expect(ids(book.of(null))).toEqual(['b']);
  expect(ids(book.of('l3'))).toEqual([]);
  expect(ids(book.everything()).sort()).toEqual(['a', 'b', 'c', 'd']);
  expect(['a', 'b', 'x'].map((id) => book.lotOfRecord(id))).toEqual(['l1', null, undefined]);
});

test('what is taken back counts no more, and stays readable', () => {
  const book = new BeanBook();
  book.add(core('a', 'l1', 1));
  book.add(core('b', 'l1', 2));
  expect(ids(book.of('l1'))).toEqual(['a', 'b']);
  book.add(back('c', 'l1', 3, 'a'));
  expect(ids(book.of('l1'))).toEqual(['b']);
  expect(ids(book.all('l1'))).toEqual(['a', 'b', 'c']);
});

test('a list that nothing was added to is the same list; let go of, there is none, and files stay', () => {
  const book = new BeanBook();
  book.add(core('a', 'l1', 1));
  book.files.set('f', file('f', 1, { lotId: 'l1', subject: null }));
  const before = book.of('l1');
  book.add(core('b', 'l2', 2));
  expect(book.of('l1')).toBe(before);
  book.clear();
  expect([ids(book.of('l1')), ids(book.everything()), book.lotOfRecord('a')]).toEqual([[], [], undefined]);
  expect(ids(book.filesOf('l1'))).toEqual(['f']);
});

test('pictures are found by their lot or by what they are of, oldest first', () => {
  const book = new BeanBook();
  for (const row of [
    file('late', 9, { lotId: 'l1', subject: null }),
    file('early', 2, { lotId: 'l1', subject: null }),
    file('pour', 5, { lotId: null, subject: 'batch b1' }),
    file('other', 4, { lotId: null, subject: 'batch b2' }),
    file('before', 1, { lotId: null, subject: 'batch b1' }),
  ])
    book.files.set(row.id, row);
  expect(ids(book.filesOf('l1'))).toEqual(['early', 'late']);
  expect(ids(book.picturesOf('batch b1'))).toEqual(['before', 'pour']);
  expect(ids(book.picturesOf('batch b3'))).toEqual([]);
});

test('in whatever order records come, a lot has those of its own that nobody took back, oldest first', () => {
  const rows = fc.array(
    fc.record({
      lot: fc.constantFrom('l1', 'l2', null),
      at: fc.nat({ max: 20 }),
      takes: fc.option(fc.nat({ max: 30 })),
    }),
    { maxLength: 30 },
  );
  fc.assert(
    fc.property(rows, fc.infiniteStream(fc.nat()), (made, order) => {
      const records = made.map(({ lot, at, takes }, i) =>
        takes !== null && takes < i && made[takes]?.lot === lot
          ? back(`r${i}`, lot, at, `r${takes}`)
          : core(`r${i}`, lot, at),
      );
      const mixed = records
        .map((row) => ({ row, place: order.next().value ?? 0 }))
        .sort((a, b) => a.place - b.place)
        .map(({ row }) => row);
      const book = new BeanBook();
      for (const row of mixed) {
        book.add(row);
        book.of(row.lotId);
      }
      for (const lot of ['l1', 'l2', null]) {
        const own = records.filter(({ lotId }) => lotId === lot);
        const found = book.of(lot);
        expect(ids(found).sort()).toEqual(ids(inForce(own)).sort());
        for (const [i, row] of found.entries()) expect(row.at).toBeGreaterThanOrEqual(found[i - 1]?.at ?? 0);
      }
    }),
    { seed: 5 },
  );
});
