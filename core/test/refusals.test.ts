import type { DomainError } from '../src/errors/domain-error';
import { checkEntering } from '../src/ledger/check';
import { plainStep } from '../src/ledger/plain-step';
import { Bench, HOUR, made, refusal, START } from './fixtures';

const sortOf = (holdingId: string, massG: number, goodG: number) => ({
  kind: 'sort' as const,
  sources: [{ holdingId, massG }],
  rejects: [],
  goodG,
  note: '',
});
const roastOf = (holdingId: string, massG: number, outG: number) => ({
  kind: 'roast' as const,
  sources: [{ holdingId, massG }],
  program: [],
  endBeanC: null,
  outG,
  note: '',
});

test('more than there is, is refused and changes nothing', () => {
  const bench = new Bench();
  const lot = bench.lot(1_000);
  expect(refusal(() => bench.do(sortOf(made(lot), 1_001, 1_000)))).toBe('ledger/short');
  expect(bench.book.timeline).toHaveLength(1);
  expect(bench.book.balance(made(lot)).massMg).toBe(1_000_000);
});

test('a step cannot use what did not exist yet', () => {
  const bench = new Bench();
  const lot = bench.lot(1_000);
  expect(refusal(() => bench.do(sortOf(made(lot), 500, 480), { at: START - HOUR }))).toBe('ledger/not-yet');
});

test('a late entry that starves a later step is refused, naming it', () => {
  const bench = new Bench();
  const lot = bench.lot(1_000);
  const sort = bench.do(sortOf(made(lot), 800, 780));
  try {
    bench.do(sortOf(made(lot), 300, 290), { at: sort.at - 1 });
    throw new Error('not refused');
  } catch (error) {
    expect(error).toMatchObject({ code: 'ledger/used-since', facts: { stepIds: [sort.id] } });
  }
});

test('a late entry that leaves enough is taken, in its place in the order', () => {
  const bench = new Bench();
  const lot = bench.lot(1_000);
  const second = bench.do(sortOf(made(lot), 400, 390));
  const first = bench.do(sortOf(made(lot), 300, 290), { at: second.at - 1 });
  expect([...bench.book.timeline].map(({ id }) => id)).toEqual([lot.id, first.id, second.id]);
});

test('a correction supersedes; what was made keeps its identity; the old version stays readable', () => {
  const bench = new Bench();
  const lot = bench.lot(10_000);
  const roast = bench.do(roastOf(made(lot), 5_000, 4_700));
  const fixed = bench.do(roastOf(made(lot), 5_000, 4_650), { supersedes: roast.id });
  expect(made(fixed)).toBe(made(roast));
  expect(bench.book.balance(made(roast)).massMg).toBe(4_650_000);
  expect(bench.book.steps.get(roast.id)?.postings).not.toHaveLength(0);
  expect(refusal(() => bench.do(roastOf(made(lot), 5_000, 4_600), { supersedes: roast.id }))).toBe('ledger/superseded');
});

test('a correction that would leave less than nothing is refused, naming the steps that used it', () => {
  const bench = new Bench();
  const lot = bench.lot(10_000);
  const roast = bench.do(roastOf(made(lot), 5_000, 4_700));
  const winnow = bench.do({
    kind: 'winnow',
    sources: [{ holdingId: made(roast), massG: 4_700 }],
    nibsG: 3_800,
    huskG: 700,
    dustG: 0,
    setting: '',
    note: '',
  });
  try {
    bench.do(roastOf(made(lot), 5_000, 4_650), { supersedes: roast.id });
    throw new Error('not refused');
  } catch (error) {
    expect(error).toMatchObject({ code: 'ledger/used-since', facts: { stepIds: [winnow.id] } });
  }
  expect(bench.book.balance(made(roast)).massMg).toBe(0);
});

test('more out than in: a scale’s worth is unaccounted, more is refused', () => {
  const bench = new Bench();
  const lot = bench.lot(10_000);
  const close = bench.do(sortOf(made(lot), 1_000, 1_010));
  expect(close.postings.find((p) => p.loss === 'unaccounted')?.massMg).toBe(-10_000);
  expect(refusal(() => bench.do(sortOf(made(lot), 1_000, 1_021)))).toBe('ledger/more-out-than-in');
});

test('a refusal says masses as the workshop weighs', () => {
  const said = (deed: () => unknown): unknown => {
    try {
      return deed();
    } catch (error) {
      const { message, fields } = error as DomainError;
      return [message, ...fields.map((field) => field.message)].join(' / ');
    }
  };
  const bench = new Bench();
  const lot = made(bench.lot(10_000));
  expect(said(() => bench.do(sortOf(lot, 1_000, 9_000)))).toMatch(/is 8[\s\u00a0]?000\sg more than went in$/);
  bench.massSystem = 'imperial';
  expect(said(() => bench.do(sortOf(lot, 1_000, 9_000)))).toMatch(
    /^2\.20\slb went in but 19\.84\slb came out: 17\.64\slb too much\..*is 17\.64\slb more than went in$/,
  );
  expect(said(() => bench.do(sortOf(lot, 11_000, 10_900)))).toMatch(/held 22\.05\slb then; 24\.25\slb asked for/);
  // Masses of one sentence are in one unit, the larger one's.
  bench.do(sortOf(lot, 9_000, 8_950));
  expect(said(() => bench.do(sortOf(lot, 6_000, 5_900)))).toMatch(/held 2\.20\slb then; 13\.23\slb asked for/);
});

test('work under way keeps its grams from others', () => {
  const bench = new Bench();
  const lot = bench.lot(1_000);
  const sort = bench.do(sortOf(made(lot), 400, 390));
  const draft = { ...plainStep(sort), id: 'x', seq: 99, order: 99, at: sort.at + 1, slots: {} };
  expect(() => checkEntering(bench.book, [draft], new Map([[made(lot), 200_000]]))).not.toThrow();
  expect(refusal(() => checkEntering(bench.book, [draft], new Map([[made(lot), 300_000]])))).toBe('ledger/reserved');
});

test('beans cannot be packed, and a batch cannot be charged before it began', () => {
  const bench = new Bench();
  const lot = bench.lot(10_000);
  const pack = {
    kind: 'pack' as const,
    holdingId: made(lot),
    pieces: 1,
    labelCode: 'X1',
    bestBefore: '2027-01-01',
    packaging: [],
    note: '',
  };
  expect(refusal(() => bench.do(pack))).toBe('ledger/wrong-kind');
  const sugar = bench.buy('sugar', 5_000, 10);
  const batch = bench.do({
    kind: 'charge',
    batch: { name: 'B', routeId: 'tablet', targetMicron: 30, cocoaTargetPct: null },
    sources: [{ holdingId: made(sugar), massG: 1_000 }],
    note: '',
  });
  const more = {
    kind: 'charge' as const,
    batchId: batch.batchId ?? '',
    sources: [{ holdingId: made(sugar), massG: 10 }],
    note: '',
  };
  expect(refusal(() => bench.do(more, { at: batch.at - 1 }))).toBe('grind/before-start');
});

test('postings that do not add up, and half milligrams, never enter', () => {
  const bench = new Bench();
  const lot = bench.lot(1_000);
  const step = bench.do(sortOf(made(lot), 400, 390));
  const [first, ...rest] = step.postings;
  if (!first) throw new Error('no posting');
  expect(
    refusal(() =>
      checkEntering(bench.book, [{ ...plainStep(step), postings: [{ ...first, massMg: first.massMg - 1 }, ...rest] }]),
    ),
  ).toBe('ledger/unbalanced');
  expect(
    refusal(() =>
      checkEntering(bench.book, [
        { ...plainStep(step), postings: [{ ...first, massMg: first.massMg - 0.5 }, ...rest] },
      ]),
    ),
  ).toBe('ledger/not-whole');
});
