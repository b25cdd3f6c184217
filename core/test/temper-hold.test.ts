import { lookDue, looksOf } from '../src/temper/bloom';
import { learnedSetting } from '../src/temper/learned';
import { LESSONS, type Lesson } from '../src/temper/lessons';
import { beginPractice, carryOn, lessonWith, tauOf, withSeed } from '../src/temper/practice';
import { holdOf, USUAL_WINDOWS, windows, windowsOf } from '../src/temper/windows';

/* Where a bowl may stand while it is poured, one's own bowl to practise with, and looks at bars later on. */

const DARK = USUAL_WINDOWS.dark;

test('a window to hold in belongs to each kind; without one it is a little around the work', () => {
  expect(holdOf(DARK)).toEqual({ from: 30.5, to: 32.5, minutes: 75 });
  expect(holdOf(USUAL_WINDOWS.milk)).toEqual({ from: 28.5, to: 30.5, minutes: 60 });
  const { hold: _, ...bare } = DARK;
  const around = holdOf(windows.parse(bare));
  expect(around.from).toBeCloseTo(30.7);
  expect(around.to).toBeCloseTo(32.3);
  expect(around.minutes).toBe(75);
});

test('a hold that leaves a part of the work out is refused, with where it is wrong', () => {
  const wrong = windows.safeParse({ ...DARK, hold: { from: 31.5, to: 33, minutes: 60 } });
  expect(wrong.error?.issues[0]).toMatchObject({ path: ['hold', 'from'], message: 'leaves a part of the work out' });
  expect(windows.safeParse({ ...DARK, hold: { from: 30, to: 33, minutes: 2 } }).success).toBe(false);
});

test('soft fat lowers where it is held together with the work', () => {
  const parts = { cocoaButterPct: 24, milkFatPct: 0, otherFatPct: 16, dryCocoaPct: 20, milkPct: 0 };
  const { windows: own } = windowsOf(parts);
  expect(own.work.to).toBeLessThan(USUAL_WINDOWS.plant.work.to);
  expect(holdOf(own).from).toBeCloseTo(own.work.from - 0.5);
  expect(holdOf(own).to).toBeCloseTo(own.work.to + 0.5);
});

test('how long a bar bears to be kept is learned from pours that were kept and set', () => {
  const pour = (heldMin: number | null, test: 'set' | 'failed' = 'set') => ({
    meltC: 46,
    coolC: 27.5,
    workC: 31.5,
    test,
    heldMin,
  });
  const learned = learnedSetting([pour(40), pour(88), pour(52), pour(90, 'failed')], 'the slab');
  // The longest but one: 52 min.
  expect(learned?.windows.hold).toEqual({ from: 30.5, to: 32.5, minutes: 50 });
  expect(learnedSetting([pour(null), pour(40), pour(60)], 'the slab')?.windows.hold).toBeUndefined();
  if (learned) expect(windows.parse(learned.windows)).toEqual(learned.windows);
});

describe('one’s own bowl', () => {
  const first = LESSONS[0] as Lesson;
  const cooled = (massKg: number, minutes: number): number => {
    const lesson = lessonWith(first, { massKg, fatShare: 0.36 });
    const hands = { around: 'bath' as const, bathC: 26, shear: 1 };
    return carryOn(beginPractice(lesson), lesson, hands, minutes).bowl.tempC;
  };
  test('two kilograms are as the lesson; eight take twice a half times as long in the bath, four times on the slab', () => {
    expect(tauOf('bath', 2)).toBe(6);
    expect(tauOf('bath', 16)).toBeCloseTo(12);
    expect(tauOf('marble', 8)).toBeCloseTo(16);
    expect(lessonWith(first, { massKg: 2, fatShare: 0.36 }).bestMin).toBe(first.bestMin);
    expect(lessonWith(first, { massKg: 16, fatShare: 0.36 }).bestMin).toBe(2 * first.bestMin);
  });
  test('a larger one cools later', () => {
    expect(cooled(16, 4)).toBeGreaterThan(cooled(2, 4) + 3);
    // As warm after twice the minutes: no crystal is made so warm.
    expect(cooled(16, 4)).toBeCloseTo(cooled(2, 2), 1);
  });
  test('the same share of silk is more of the crystal where there is less fat', () => {
    const v = (fatShare: number): number => {
      const lesson = lessonWith(first, { massKg: 2, fatShare });
      return withSeed(beginPractice(lesson), lesson, 'silk', 0.02).bowl.v;
    };
    expect(v(0.3)).toBeGreaterThan(v(0.5));
  });
});

describe('looks at bars', () => {
  const HOUR = 3_600_000;
  const row = (at: number, seen: 'dull' | 'veil', more: object = {}) => ({
    at,
    days: 1,
    seen: [seen],
    bloom: null,
    person: 'Ann',
    apart: 1,
    ...more,
  });
  test('presses of one sitting are one look; another day, another person or bars moulded again are another', () => {
    const looks = looksOf([
      row(0, 'dull'),
      row(HOUR, 'veil', { bloom: 'fat' }),
      row(2 * HOUR, 'veil', { person: 'Bo' }),
      row(3 * HOUR, 'dull', { person: 'Bo', apart: 2 }),
      row(30 * HOUR, 'dull', { person: 'Bo', apart: 2 }),
    ]);
    expect(looks.map(({ seen }) => seen)).toEqual([['dull', 'veil'], ['veil'], ['dull'], ['dull']]);
    expect(looks[0]?.bloom).toBe('fat');
  });
  test('they are due after a day, a week and a month, until somebody looked or it is too late', () => {
    expect(lookDue(0.5, [])).toBeNull();
    expect(lookDue(1.2, [0])).toMatchObject({ words: 'a day' });
    expect(lookDue(1.2, [0.9])).toBeNull();
    expect(lookDue(5, [])).toBeNull();
    expect(lookDue(8, [1])).toMatchObject({ words: 'a week', untilDay: 13 });
    expect(lookDue(8, [6])).toBeNull();
    expect(lookDue(31, [7])).toMatchObject({ words: 'a month' });
    expect(lookDue(46, [])).toBeNull();
  });
});
