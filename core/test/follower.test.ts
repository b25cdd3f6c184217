import fc from 'fast-check';
import { Follower } from '../src/ledger/follower';
import type { Step } from '../src/ledger/types';
import { Bench, HOUR, START } from './fixtures';

const buy = (bench: Bench, massG: number, extra: { at?: number; supersedes?: string } = {}): Step =>
  bench.do({ kind: 'buy', materialId: 'sugar', supplier: 'Shop', supplierBatch: '', note: '', price: 1, massG }, extra);

/** What a follower was given of a book, and how often it began. */
function listener(bench: Bench, standsOn?: () => unknown) {
  const heard: string[] = [];
  const state = { begun: 0 };
  const follower = new Follower(
    () => bench.book,
    () => {
      heard.length = 0;
      state.begun += 1;
    },
    (step, book, place) => {
      expect(book.timeline.at(place)).toBe(step);
      expect(heard).toHaveLength(place);
      heard.push(step.id);
    },
    standsOn,
  );
  return { follower, heard, state };
}

const deed = fc.oneof(
  fc.record({ what: fc.constant('next' as const) }),
  fc.record({ what: fc.constant('late' as const), hours: fc.nat({ max: 40 }) }),
  fc.record({ what: fc.constant('corrected' as const), which: fc.nat() }),
  fc.record({ what: fc.constant('withdrawn' as const), which: fc.nat() }),
  fc.record({ what: fc.constant('dropped' as const) }),
);

test('whatever is entered, late, corrected or dropped half-way, a follower has what the order of the work has', () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(deed, fc.nat({ max: 5 })), { maxLength: 25 }), (deeds) => {
      const bench = new Bench();
      const { follower, heard } = listener(bench);
      for (const [what, most] of deeds) {
        const there = [...bench.book.timeline];
        const old = 'which' in what ? there[what.which % Math.max(1, there.length)] : undefined;
        if (what.what === 'late') buy(bench, 5, { at: START - what.hours * HOUR });
        else if (what.what === 'corrected' && old) buy(bench, 7, { supersedes: old.id });
        else if (what.what === 'withdrawn' && old) bench.withdraw(old);
        else if (what.what === 'dropped' && there.length > 0)
          bench.book.takeBack([...bench.book.steps.values()].at(-1) as Step);
        else buy(bench, 9);
        const all = follower.catchUp(most);
        expect(all).toBe(heard.length === bench.book.timeline.length);
      }
      while (!follower.catchUp(2));
      expect(heard).toEqual(Array.from(bench.book.timeline, ({ id }) => id));
    }),
    { seed: 18 },
  );
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
