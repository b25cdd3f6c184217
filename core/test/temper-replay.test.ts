import { normals, seeded } from '../src/stats/chance';
import { readMeter } from '../src/temper/inflection';
import { faultsByBench } from '../src/temper/faults';
import { judgePour, type TemperReading } from '../src/temper/judge';
import { learnedSetting } from '../src/temper/learned';
import { LESSONS } from '../src/temper/lessons';
import { beginPractice, carryOn, pourPractice, withSeed } from '../src/temper/practice';
import { replay, shifted, type Replayed } from '../src/temper/replay';
import { simulatedMeter } from '../src/temper/simulated-meter';
import { softLowersC, USUAL_WINDOWS, windows } from '../src/temper/windows';
import type { PourMark } from '../src/work/tempering';

const { dark, milk } = USUAL_WINDOWS;

/** A pour through some temperatures, with minutes between them. */
function through(...points: (readonly [tempC: number, minutes: number])[]): TemperReading[] {
  const rows: TemperReading[] = [];
  let [second, from] = [0, points[0]?.[0] ?? 20];
  for (const [to, minutes] of points) {
    const steps = Math.max(1, Math.round(6 * minutes));
    for (let i = 1; i <= steps; i += 1) {
      second += (60 * minutes) / steps;
      rows.push({ second, tempC: from + ((to - from) * i) / steps });
    }
    from = to;
  }
  return rows;
}
const asked = (readings: TemperReading[], rest: Partial<Replayed> = {}): Replayed => ({
  readings,
  marks: [],
  windows: dark,
  fatShare: 0.36,
  lowerC: 0,
  seed: null,
  ...rest,
});
const made = (readings: TemperReading[], rest: Partial<Replayed> = {}): string =>
  replay(asked(readings, rest))?.bar.verdict ?? 'none';
const good = through([30, 0.1], [47, 10], [47, 8], [27.3, 12], [27.3, 4], [31.5, 5], [31.5, 5]);

describe('a logged pour in the model', () => {
  test('the textbook: cooled and brought back it is good, not cooled it is not, overheated it is lost', () => {
    expect(made(good)).toBe('good');
    expect(made(through([47, 10], [47, 8], [31.5, 8], [31.5, 5]))).toBe('untempered');
    expect(made(through([47, 10], [47, 8], [27.3, 12], [27.3, 4], [36, 6], [36, 12], [31.5, 4]))).toBe('untempered');
  });

  test('silk needs no low point, and goes in when its mark says so', () => {
    const warm = through([47, 10], [47, 8], [33.4, 8], [31.5, 3], [31.5, 6]);
    expect(made(warm)).toBe('untempered');
    expect(made(warm, { seed: { kind: 'silk', share: 0.01 } })).toBe('good');
    const late: PourMark = { second: 60 * 600, what: 'silk' };
    expect(made(warm, { seed: { kind: 'silk', share: 0.01 }, marks: [late] })).toBe('untempered');
  });

  test('left standing it makes no seed', () => {
    expect(made(good, { marks: [{ second: 0, what: 'still' }] })).toBe('untempered');
    expect(
      made(good, {
        marks: [
          { second: 0, what: 'still' },
          { second: 1200, what: 'stirred' },
        ],
      }),
    ).toBe('good');
  });

  test('soft fat melts sooner: what is right for dark is too warm for milk', () => {
    const lowerC = softLowersC(0.2);
    expect(lowerC).toBe(2);
    const cool = through([43, 10], [43, 8], [26.3, 12], [25.3, 5], [29.5, 5], [29.5, 5]);
    expect(made(cool, { windows: milk, lowerC })).toBe('good');
    expect(made(through([43, 10], [43, 8], [30.5, 12], [30.5, 5]), { windows: milk, lowerC })).toBe('untempered');
  });

  test('a degree more or less is moved where it was asked for, and only there', () => {
    const moved = shifted(asked(good), { at: 'low', by: -1 }).readings;
    const lowest = (rows: readonly TemperReading[]): number => Math.min(...rows.slice(60).map(({ tempC }) => tempC));
    expect(lowest(moved)).toBeCloseTo(26.3, 6);
    expect(moved[0]?.tempC).toBe(good[0]?.tempC);
    expect(moved.at(-1)?.tempC).toBe(31.5);
    const worked = shifted(asked(good), { at: 'work', by: 1 }).readings;
    expect(worked.at(-1)?.tempC).toBe(32.5);
    expect(lowest(worked)).toBeCloseTo(27.3, 6);
    // Barely cooled, a degree colder would have done it.
    const barely = through([47, 10], [47, 8], [27.9, 12], [27.9, 3], [31.5, 4], [31.5, 3]);
    const before = replay(asked(barely))?.bar.shareV ?? 1;
    expect(replay(shifted(asked(barely), { at: 'low', by: -1 }))?.bar.shareV ?? 0).toBeGreaterThan(before);
  });

  test('too few readings are no pour', () => {
    expect(replay(asked(good.slice(0, 2)))).toBeNull();
  });
});

describe('a bowl that is practised with', () => {
  const lesson = LESSONS.find(({ id }) => id === 'first');
  if (!lesson) throw new Error('no first lesson');
  const hands = { around: 'bath' as const, bathC: 18, shear: 1 };

  test('it is logged, what is left standing is marked, and it is judged in the same words as a real pour', () => {
    let now = beginPractice(lesson);
    for (let i = 0; i < 40; i += 1) now = carryOn(now, lesson, { ...hands, shear: i < 20 ? 0 : 1 }, 0.25);
    expect(now.minute).toBeCloseTo(10, 6);
    expect(now.marks.map(({ what }) => what)).toEqual(['still', 'stirred']);
    expect(now.log.length).toBeGreaterThan(30);
    const { verdict } = pourPractice(now, lesson, 'C');
    expect([verdict.first, ...verdict.others].map((fault) => fault?.id)).toContain('not-stirred');
  });

  test('half the step makes the same bowl', () => {
    const run = (stepMin: number) => {
      let now = withSeed(beginPractice(lesson), lesson, 'silk', 0.01);
      for (let minute = 0; minute < 8 - 1e-9; minute += stepMin) now = carryOn(now, lesson, hands, stepMin);
      return now.bowl;
    };
    const [coarse, fine] = [run(0.1), run(0.05)];
    expect(coarse.tempC).toBeCloseTo(fine.tempC, 3);
    expect(coarse.v).toBeCloseTo(fine.v, 4);
  });

  test('every lesson says its story in the degrees of the house', () => {
    for (const { story } of LESSONS) expect(story(() => 'X')).not.toMatch(/\d °C/u);
    expect(lesson.story((c) => `${c * 1.8 + 32} °F`)).toContain('114.8 °F');
  });
});

test('standing still is found before what follows from it', () => {
  const marks: PourMark[] = [
    { second: 1200, what: 'still' },
    { second: 1700, what: 'stirred' },
  ];
  const verdict = judgePour(good, { windows: dark, seeded: false, marks });
  expect(verdict.first).toMatchObject({ id: 'not-stirred' });
  expect(verdict.first?.sentence).toBe('It was left standing for 8 min while it cooled.');
  expect(
    judgePour(good, { windows: dark, seeded: false, marks: [marks[1] ?? { second: 0, what: 'stirred' }] }).first,
  ).toBeNull();
});

test('the made-up meter shows too little seed, enough, and too much', () => {
  const verdicts = (crystal: number): (string | undefined)[] =>
    [1, 2, 3, 4, 5].map((seed) => readMeter(simulatedMeter(crystal, seed))?.verdict);
  expect(new Set(verdicts(0.001))).toEqual(new Set(['under']));
  expect(new Set(verdicts(0.025))).toEqual(new Set(['well']));
  expect(new Set(verdicts(0.12))).toEqual(new Set(['over']));
});

test('an over-tempered curve bends early and warm: its hump is found, not the flat tail of the well', () => {
  const found = readMeter(simulatedMeter(0.12, 9));
  expect(found?.tempC).toBeGreaterThan(25);
});

test('which fault came first, counted bench by bench', () => {
  const rows = faultsByBench([
    { bench: 'machine', first: null },
    { bench: 'slab', first: 'not-cooled' },
    { bench: 'machine', first: 'overheated' },
    { bench: 'machine', first: 'not-cooled' },
    { bench: 'machine', first: 'overheated' },
  ]);
  expect(rows.map(({ bench }) => bench)).toEqual(['machine', 'slab']);
  expect(rows[0]).toMatchObject({ pours: 4, good: 1 });
  expect(rows[0]?.faults).toEqual([
    { id: 'overheated', times: 2 },
    { id: 'not-cooled', times: 1 },
  ]);
});

test('learned windows lie around the middle of what set, and say how sure', () => {
  const normal = normals(seeded(4));
  const pours = Array.from({ length: 12 }, () => ({
    meltC: 47 + normal(),
    coolC: 27.4 + 0.1 * normal(),
    workC: 31.4 + 0.1 * normal(),
    test: 'set' as const,
  }));
  const found = learnedSetting([...pours, { meltC: 47, coolC: 29.5, workC: 31.4, test: 'slow' }], 'the machine');
  expect(found?.windows.work.from).toBeCloseTo(30.9, 0);
  expect(windows.safeParse(found?.windows).success).toBe(true);
  // Wilson, 12 of 13: 66.7 to 98.6.
  expect(found?.lowPct).toBeCloseTo(66.7, 0);
  expect(found?.highPct).toBeCloseTo(98.6, 0);
});

test('own windows have to be in their order', () => {
  const span = (from: number, to: number) => ({ from, to });
  expect(windows.safeParse(dark).success).toBe(true);
  expect(windows.safeParse({ ...dark, work: span(26, 27) }).error?.issues[0]?.message).toBe(
    'is not over what it is cooled to',
  );
  expect(windows.safeParse({ ...dark, melt: span(30, 31) }).error?.issues[0]?.path).toEqual(['melt', 'from']);
  expect(windows.safeParse({ ...dark, cool: span(28, 27) }).success).toBe(false);
});
