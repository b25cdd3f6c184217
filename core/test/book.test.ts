import { Book } from '../src/ledger/book';
import { checkWhole } from '../src/ledger/check';
import type { Balance, Entry, Past } from '../src/ledger/entries';
import type { PastHoldings } from '../src/ledger/holdings';
import type { Step } from '../src/ledger/types';
import { Bench, made, refusal, START, tub } from './fixtures';

const grams = (g: number): Balance => ({ massMg: 1000 * g, pieces: 0 });

/** A past of tubs and what moved in each, in grams, an hour apart; counts how often each is read. */
class Tubs implements Past {
  readonly size = 0;
  readonly inForce = new Uint32Array();
  readonly reads = new Map<string, number>();

  constructor(private readonly moved: Readonly<Record<string, readonly number[]>>) {}

  step(): Step {
    throw new Error('there is none');
  }
  rowOf = (): undefined => undefined;
  successors = (): [] => [];
  silent = (): [] => [];

  balances(): [string, Balance][] {
    return Object.entries(this.moved)
      .map(([id, rows]): [string, Balance] => [id, grams(rows.reduce((sum, g) => sum + g, 0))])
      .filter(([, { massMg }]) => massMg !== 0);
  }

  entriesOf(id: string): Entry[] {
    this.reads.set(id, (this.reads.get(id) ?? 0) + 1);
    return (this.moved[id] ?? []).map((g, i) => ({
      at: START + i,
      order: i,
      stepId: `${id}.${i}`,
      kind: 'winnow',
      ...grams(g),
    }));
  }

  firstEntry = (id: string): Entry | undefined => this.entriesOf(id)[0];
}

const NO_HOLDINGS: PastHoldings = {
  size: 0,
  holding: (row) => tub(String(row)),
  codeOf: (row) => tub(String(row)),
  rowOf: () => undefined,
  startingWith: () => [],
};

function begun(moved: Readonly<Record<string, readonly number[]>>): { book: Book; past: Tubs } {
  const book = new Book();
  const past = new Tubs(moved);
  book.begin(past, NO_HOLDINGS);
  for (const id of Object.keys(moved)) book.addHolding(tub(id));
  return { book, past };
}

const whole = (book: Book): void => void [...checkWhole(book)];

test('what stands here are the holdings with something in them, also as they change', () => {
  const bench = new Bench();
  const lot = made(bench.lot(1000));
  expect(bench.book.standing.map(({ id }) => id)).toEqual([lot]);
  const sorted = bench.do({
    kind: 'sort',
    sources: [{ holdingId: lot, massG: 1000 }],
    rejects: [],
    goodG: 990,
    note: '',
  });
  const names = bench.book.standing.map(({ id }) => id);
  expect(names).toEqual([made(sorted)]);
  expect(bench.book.standing).toBe(bench.book.standing);
  bench.withdraw(sorted);
  expect(bench.book.standing.map(({ id }) => id)).toEqual([lot]);
});

test('of the past only what is not empty stands here; what is empty weighs nothing and keeps what moved in it', () => {
  const { book } = begun({ full: [500, -200], empty: [500, -500] });
  expect(book.standing.map(({ id }) => id)).toEqual(['full']);
  expect(book.balance('full')).toEqual(grams(300));
  expect(book.balance('empty')).toEqual(grams(0));
  expect(book.balanceAt('empty', START, 1)).toEqual(grams(500));
  expect(book.entriesOf('empty').map(({ massMg }) => massMg)).toEqual([500_000, -500_000]);
});

test('a past in which something empty was once less than empty is not whole', () => {
  whole(begun({ good: [500, -500], full: [10] }).book);
  expect(refusal(() => whole(begun({ full: [10], wrong: [100, -300, 200] }).book))).toBe('ledger/used-since');
});

test('what moved in a holding of the past is read once for many who ask, and anew when many others were asked for', () => {
  const moved = Object.fromEntries(Array.from({ length: 2500 }, (_, i) => [`t${i}`, [i + 1]]));
  const { book, past } = begun(moved);
  for (let i = 0; i < 5; i += 1) expect(book.entriesOf('t7')[0]?.massMg).toBe(8000);
  expect(past.reads.get('t7')).toBe(1);
  for (const id of Object.keys(moved)) book.entriesOf(id);
  expect(book.entriesOf('t7')[0]?.massMg).toBe(8000);
  expect(past.reads.get('t7')).toBe(2);
});

test('what moved first in a holding is known of the past and of what is entered, and reads no more than that', () => {
  const { book, past } = begun({ t1: [500, -200], none: [] });
  expect(book.firstEntry('t1')?.stepId).toBe('t1.0');
  expect(book.firstEntry('none')).toBeUndefined();
  expect(book.firstEntry('nobody')).toBeUndefined();
  const read = past.reads.get('t1');
  expect(book.entriesOf('t1')).toHaveLength(2);
  expect(book.firstEntry('t1')?.stepId).toBe('t1.0');
  expect(past.reads.get('t1')).toBe((read ?? 0) + 1);
});

test('what is entered after the past is kept with it, though others are asked for', () => {
  const { book } = begun(Object.fromEntries(Array.from({ length: 2500 }, (_, i) => [`t${i}`, [i + 1]])));
  // Asked for before it is changed: the list of then is not gone on with.
  book.entriesOf('t3');
  book.insert({
    id: 'out',
    seq: 1,
    order: 1,
    kind: 'adjust',
    station: 'winnow',
    at: START + 10,
    recordedAt: START + 10,
    personId: 'p',
    batchId: null,
    machineId: null,
    supersedes: null,
    reason: null,
    withdrawn: false,
    command: {},
    slots: {},
    minutes: 0,
    energyKwh: 0,
    money: { purchaseMilli: 0, labourMilli: 0, energyMilli: 0, revenueMilli: 0 },
    postings: [
      { holdingId: 't3', loss: null, outside: null, reason: null, massMg: -4000, pieces: 0 },
      { holdingId: null, loss: 'unaccounted', outside: null, reason: null, massMg: 4000, pieces: 0 },
    ],
  });
  for (let i = 0; i < 2500; i += 1) book.entriesOf(`t${i}`);
  expect(book.entriesOf('t3').map(({ stepId, massMg }) => [stepId, massMg])).toEqual([
    ['t3.0', 4000],
    ['out', -4000],
  ]);
  expect(book.balance('t3')).toEqual(grams(0));
  expect(book.live.has('t3')).toBe(false);
  expect(book.standing).toHaveLength(2499);
});
