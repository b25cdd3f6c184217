import { eachAhead, workAhead, type Ahead } from '../src/ledger/ahead';

const busy = (ms: number): void => {
  for (const until = performance.now() + ms; performance.now() < until;);
};
const until = async (done: () => boolean): Promise<void> => {
  for (const latest = Date.now() + 10_000; !done() && Date.now() < latest;)
    await new Promise((resolve) => setTimeout(resolve, 5));
};

test('each thing is worked out once, in its order, so many at a time as are asked for', () => {
  const done: number[] = [];
  let asked = 0;
  const ahead = eachAhead(
    () => {
      asked += 1;
      return [1, 2, 3, 4, 5];
    },
    2,
    (one) => done.push(one),
  );
  expect(asked).toBe(0);
  expect([ahead.catchUp(), done]).toEqual([false, [1, 2]]);
  expect([ahead.catchUp(1), done]).toEqual([false, [1, 2, 3]]);
  expect([ahead.catchUp(32), done]).toEqual([false, [1, 2, 3, 4, 5]]);
  expect([ahead.catchUp(32), done, asked]).toEqual([true, [1, 2, 3, 4, 5], 1]);
});

test('one after another is caught up, and others get their turn between', async () => {
  const done: string[] = [];
  const work = (name: string): Ahead =>
    eachAhead(
      () => [1, 2, 3, 4],
      1,
      (part) => {
        busy(5);
        done.push(`${name}${part}`);
      },
    );
  let turns = 0;
  const others = setInterval(() => (turns += 1), 1);
  const stop = workAhead([work('a'), work('b')], () => undefined);
  await until(() => done.length === 8);
  clearInterval(others);
  stop();
  expect(done).toEqual(['a1', 'a2', 'a3', 'a4', 'b1', 'b2', 'b3', 'b4']);
  expect(turns).toBeGreaterThan(4);
});

test.each([
  ['while somebody asks, little at a time', 0, 0, 5],
  ['while nobody does, more', 1000, 6, Infinity],
])('%s', async (_, quietMs, least, most) => {
  const slices: number[] = [];
  const all = Array.from({ length: 60 }, (__, i) => i);
  const work = eachAhead(
    () => all,
    1,
    () => {
      busy(0.4);
      slices[slices.length - 1] = (slices.at(-1) ?? 0) + 1;
    },
  );
  const stop = workAhead(
    [work],
    () => undefined,
    () => {
      slices.push(0);
      return quietMs;
    },
  );
  await until(() => slices.reduce((sum, n) => sum + n, 0) === all.length);
  stop();
  expect(Math.max(...slices)).toBeGreaterThanOrEqual(least);
  expect(Math.max(...slices)).toBeLessThanOrEqual(most);
});

test('what fails is told and left; stopped, nothing more is worked out', async () => {
  const [told, done]: [unknown[], number[]] = [[], []];
  const wrong: Ahead = {
    catchUp: () => {
      throw new Error('no');
    },
  };
  const endless = eachAhead(
    function* () {
      for (let n = 0; ; n += 1) yield n;
    },
    1,
    (n) => done.push(n),
  );
  const stop = workAhead([wrong, endless], (error) => told.push(error));
  await until(() => done.length > 0);
  stop();
  const then = done.length;
  await new Promise((resolve) => setTimeout(resolve, 40));
  expect([told.length, done.length]).toEqual([1, then]);
});
