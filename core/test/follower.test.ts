import fc from 'fast-check';
import { Follower, type Settled } from '../src/ledger/follower';
import { Layered } from '../src/ledger/layered';
import type { Step } from '../src/ledger/types';
import { Bench, HOUR, START } from './fixtures';

const buy = (bench: Bench, massG: number, extra: { at?: number; supersedes?: string } = {}): Step =>
  bench.do({ kind: 'buy', materialId: 'sugar', supplier: 'Shop', supplierBatch: '', note: '', price: 1, massG }, extra);

/** What a follower was given of a book, and how often it began. */
function listener(bench: Bench, standsOn?: () => unknown) {
  const heard: string[] = [];
  const state = { begun: 0 };
  const follower = new Follower({
    book: () => bench.book,
    begin: () => {
      heard.length = 0;
      state.begun += 1;
    },
    take: (step, book, place) => {
      expect(book.timeline.at(place)).toBe(step);
      expect(heard).toHaveLength(place);
      heard.push(step.id);
    },
    ...(standsOn ? { standsOn } : {}),
  });
  return { follower, heard, state };
}

const deed = fc.oneof(
  fc.record({ what: fc.constant('next' as const) }),
  fc.record({ what: fc.constant('late' as const), hours: fc.nat({ max: 40 }) }),
  fc.record({ what: fc.constant('corrected' as const), which: fc.nat() }),
  fc.record({ what: fc.constant('withdrawn' as const), which: fc.nat() }),
  fc.record({ what: fc.constant('dropped' as const) }),
);

type Deed = typeof deed extends fc.Arbitrary<infer D> ? D : never;

/** Enters what is late, corrected, withdrawn or dropped, else the next. */
function enter(bench: Bench, what: Deed): void {
  const there = [...bench.book.timeline];
  const old = 'which' in what ? there[what.which % Math.max(1, there.length)] : undefined;
  if (what.what === 'late') buy(bench, 5, { at: START - what.hours * HOUR });
  else if (what.what === 'corrected' && old) buy(bench, 7, { supersedes: old.id });
  else if (what.what === 'withdrawn' && old) bench.withdraw(old);
  else if (what.what === 'dropped' && there.length > 0)
    bench.book.takeBack([...bench.book.steps.values()].at(-1) as Step);
  else buy(bench, 9);
}

/** A sum by day and a list in two layers, which hold what was given and how often each was. */
function layered(bench: Bench, loose: number, holds?: (settled: Settled) => boolean) {
  const days = new Layered<number, string>();
  const given = new Map<string, number>();
  const state = { begun: 0, stand: {} };
  const follower = new Follower(
    {
      book: () => bench.book,
      begin: () => {
        days.begin();
        state.begun += 1;
      },
      take: ({ id, at }) => {
        const day = Math.floor(at / (24 * HOUR));
        days.set(day, `${days.get(day) ?? ''} ${id}`);
        given.set(id, (given.get(id) ?? 0) + 1);
      },
      standsOn: () => state.stand,
      layers: { settle: () => days.settle(), back: () => days.back(), ...(holds ? { holds } : {}) },
    },
    loose,
  );
  const said = (): string =>
    [...days]
      .sort(([a], [b]) => a - b)
      .map(([, ids]) => ids)
      .join('');
  return { follower, days, given, state, said };
}

test('whatever is entered, late, corrected or dropped half-way, a follower has what the order of the work has', () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(deed, fc.nat({ max: 5 })), { maxLength: 25 }), (deeds) => {
      const bench = new Bench();
      const { follower, heard } = listener(bench);
      const inLayers = layered(bench, 2);
      const order = (): string => Array.from(bench.book.timeline, ({ id }) => ` ${id}`).join('');
      for (const [what, most] of deeds) {
        enter(bench, what);
        const all = follower.catchUp(most);
        expect(all).toBe(heard.length === bench.book.timeline.length);
        if (inLayers.follower.catchUp(2 * most)) expect(inLayers.said()).toBe(order());
      }
      while (!follower.catchUp(2));
      expect(heard).toEqual(Array.from(bench.book.timeline, ({ id }) => id));
      while (!inLayers.follower.catchUp(1));
      expect(inLayers.said()).toBe(order());
    }),
    { seed: 18 },
  );
});

test('after a late entry only what is loose is gone through again; all of it where what is settled was changed', () => {
  const bench = new Bench();
  const { follower, given, state, said } = layered(bench, 3);
  const steps = Array.from({ length: 12 }, () => buy(bench, 10));
  follower.catchUp();
  expect(follower.settledUpTo?.place).toBe(9);
  const late = buy(bench, 5, { at: (steps[10]?.at ?? 0) + 1 });
  follower.catchUp();
  expect(steps.map(({ id }) => given.get(id))).toEqual([...Array.from({ length: 9 }, () => 1), 2, 2, 2]);
  expect(said()).toContain(`${steps[10]?.id} ${late.id} ${steps[11]?.id}`);
  expect(state.begun).toBe(1);
  buy(bench, 7, { supersedes: steps[4]?.id ?? '' });
  follower.catchUp();
  expect(state.begun).toBe(2);
  expect(given.get(steps[0]?.id ?? '')).toBe(2);
});

test('what grows is settled as it does: never more than three times as much is loose', () => {
  const bench = new Bench();
  const { follower, given } = layered(bench, 3);
  for (let n = 0; n < 60; n += 1) {
    buy(bench, 10);
    follower.catchUp();
    expect(bench.book.timeline.length - (follower.settledUpTo?.place ?? 0)).toBeLessThanOrEqual(10);
  }
  // Once when it came, once more among the last when others were settled, and once to be settled itself.
  expect(Math.max(...given.values())).toBe(3);
});

test('where what it stands on is another, what is settled stays only while it holds', () => {
  const bench = new Bench();
  let isGood = true;
  const { follower, given, state } = layered(bench, 3, () => isGood);
  const [first] = Array.from({ length: 12 }, () => buy(bench, 10));
  follower.catchUp();
  state.stand = {};
  follower.catchUp();
  expect([state.begun, given.get(first?.id ?? '')]).toEqual([1, 1]);
  isGood = false;
  state.stand = {};
  follower.catchUp();
  expect([state.begun, given.get(first?.id ?? '')]).toEqual([2, 2]);
});

test('one that goes on from what was kept is given only what came after, and begins again where that was changed', () => {
  const bench = new Bench();
  const before = layered(bench, 3);
  const steps = Array.from({ length: 12 }, () => buy(bench, 10));
  before.follower.catchUp();
  const settled = before.follower.settledUpTo as Settled;
  const { follower, days, given, said } = layered(bench, 3);
  days.begin(new Map(before.days.past));
  follower.resume(settled);
  follower.catchUp();
  expect([...given.keys()]).toEqual(steps.slice(9).map(({ id }) => id));
  expect(said()).toBe(before.said());
  const doubtful = layered(bench, 3, () => false);
  doubtful.days.begin(new Map(before.days.past));
  doubtful.follower.resume(settled);
  doubtful.follower.catchUp();
  expect([doubtful.given.size, doubtful.said()]).toEqual([12, before.said()]);
  bench.withdraw(steps[2] as Step);
  follower.catchUp();
  before.follower.catchUp();
  expect(said()).toBe(before.said());
  expect(said()).not.toContain(` ${steps[2]?.id} `);
});

test('what is added at the end is taken in alone; some at a time where that is asked', () => {
  const bench = new Bench();
  const { follower, heard, state } = listener(bench);
  for (let n = 0; n < 5; n += 1) buy(bench, 10);
  expect(follower.catchUp(2)).toBe(false);
  expect(heard).toHaveLength(2);
  expect(follower.catchUp(3)).toBe(true);
  const { id } = buy(bench, 10);
  expect(follower.catchUp()).toBe(true);
  expect([heard.length, heard.at(-1), state.begun]).toEqual([6, id, 1]);
});

test('a follower begins again where something else that it stands on is another', () => {
  const bench = new Bench();
  let price = {};
  const { follower, heard, state } = listener(bench, () => price);
  buy(bench, 10);
  follower.catchUp();
  follower.catchUp();
  expect(state.begun).toBe(1);
  price = {};
  follower.catchUp();
  expect([state.begun, heard.length]).toEqual([2, 1]);
});

test('one that was dropped after it was taken in is not there for the one that comes in its place', () => {
  const bench = new Bench();
  const { follower, heard } = listener(bench);
  const first = buy(bench, 10);
  const dropped = buy(bench, 10);
  follower.catchUp();
  bench.book.takeBack(dropped);
  const { id } = buy(bench, 20);
  follower.catchUp();
  expect(heard).toEqual([first.id, id]);
});
