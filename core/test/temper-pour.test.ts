import { learnedSetting, type PastPour } from '../src/temper/learned';
import { bloomBy, whyIt, type Sight } from '../src/temper/bloom';
import { featuresOf, judgePour } from '../src/temper/judge';
import { isStuck, pourNow } from '../src/temper/pour';
import { simulatedPourC } from '../src/temper/simulated-pour';
import { USUAL_WINDOWS } from '../src/temper/windows';

const { dark } = USUAL_WINDOWS;
/** Readings a minute apart. */
const minutes = (...temps: number[]) => temps.map((tempC, i) => ({ second: 60 * i, tempC }));
const ask = (temps: number[], seeded = false) => pourNow(minutes(...temps), dark, seeded);

test('a pour is led: melted out, cooled, held low, brought back, kept in its window', () => {
  expect(pourNow([], dark, false)).toBeNull();
  expect(ask([30, 33, 36])).toMatchObject({ phase: 'melting', sentence: '9.0 °C to go until it is melted out.' });
  expect(ask([24, 25, 27])).toMatchObject({ phase: 'melting' });
  expect(ask([46, 42, 36, 30.1])).toMatchObject({ phase: 'cooling' });
  expect(ask([46, 36, 30.1])?.sentence).toBe('2.1 °C to go to the low point: keep it moving.');
  expect(ask([46, 36, 28, 27.4])).toMatchObject({ phase: 'low' });
  expect(ask([46, 36, 28, 27.4, 27.4, 27.4, 27.4, 29])).toMatchObject({ phase: 'warming', missingC: 2 });
  const there = ask([46, 36, 28, 27.4, 27.4, 27.4, 29, 31.5, 31.5, 31.5, 31.5, 31.5]);
  expect(there).toMatchObject({ phase: 'working', leavesMin: null, sentence: 'In its window.' });
  expect(there?.heldMin).toBeCloseTo(4, 1);
});

test('it says when it leaves the window, that it thickens, and that the seed is lost', () => {
  const back = [46, 36, 28, 27.4, 27.4, 27.4, 29];
  const cooling = ask([...back, 31.9, 31.7, 31.5, 31.3, 31.1]);
  // A fifth of a degree a minute from 31.1 to 30.5, where it is held at the coldest.
  expect(cooling?.leavesMin).toBeCloseTo(3, 0);
  expect(cooling?.sentence).toBe('In its window; leaves it in 3 min: warm it by 0.5 °C.');
  expect(ask([...back, 31.5, 31.6, 31.8, 32, 32.2])?.sentence).toContain('take the heat away');
  expect(ask([...back, 31.5, 31, 30])).toMatchObject({ phase: 'cold' });
  expect(ask([...back, 31.5, 33, 35])).toMatchObject({ phase: 'hot' });
  // Three minutes over the limit it is gone, and stays so when it has come down; cooled or seeded again it is not.
  const gone = [...back, 31.5, 33, 35, 35, 35, 35];
  expect(ask(gone)).toMatchObject({ phase: 'lost' });
  expect(ask([...gone, 33, 32, 31.5])).toMatchObject({ phase: 'lost' });
  expect(ask([...gone, 33, 30, 27.5, 27.5])).toMatchObject({ phase: 'low' });
  const seed = { second: 60 * gone.length, what: 'silk' as const };
  expect(pourNow(minutes(...gone, 33.5, 32.5, 31.5, 31.5), dark, false, 'C', [seed])).toMatchObject({
    phase: 'working',
  });
});

test('thickening in the window is crystal, not cold, until it was warmed', () => {
  const there = minutes(46, 36, 28, 27.4, 27.4, 27.4, 29, 31.4, 31.4, 31.4, 31.4);
  const thick = { second: 600, what: 'thick' as const };
  expect(pourNow(there, dark, false, 'C', [thick])).toMatchObject({ phase: 'thick' });
  expect(pourNow(there, dark, false, 'C', [thick])?.todo).toMatch(/^Warm it by 0\.5 °C, to 32\s°C/u);
  const hot = there.map((row) => (row.second > 400 ? { ...row, tempC: 32 } : row));
  expect(pourNow(hot, dark, false, 'C', [thick])?.todo).toContain('fresh melted chocolate');
  expect(pourNow(there, dark, false, 'C', [thick, { second: 600, what: 'warmed' }])).toMatchObject({
    phase: 'working',
  });
  // Colder than its window it is simply cold.
  const cold = there.map((row) => (row.second > 500 ? { ...row, tempC: 29.5 } : row));
  expect(pourNow(cold, dark, false, 'C', [thick])).toMatchObject({ phase: 'cold' });
});

test('a probe that says the very same all the time is stuck', () => {
  const same = Array.from({ length: 120 }, (_, second) => ({ second, tempC: 31.5 }));
  expect(isStuck(same)).toBe(true);
  expect(isStuck(same.slice(0, 60))).toBe(false);
  expect(isStuck([...same, { second: 120, tempC: 31.4 }])).toBe(false);
  // Four hand readings alike are no fault.
  expect(isStuck(minutes(31.5, 31.5, 31.5, 31.5))).toBe(false);
  expect(isStuck([])).toBe(false);
});

test('with silk no low point is waited for', () => {
  expect(ask([46, 40, 35], true)).toMatchObject({ phase: 'cooling', sentence: '3.0 °C over the working window.' });
  expect(ask([46, 36, 31.6, 31.5, 31.5], true)).toMatchObject({ phase: 'working' });
});

test.each([
  ['dark', false],
  ['dark', true],
  ['milk', false],
] as const)('a made-up pour of %s, silk %s, goes through its windows and is found without fault', (kind, seeded) => {
  const windows = USUAL_WINDOWS[kind];
  const readings = Array.from({ length: 4200 }, (_, second) => ({
    second,
    tempC: simulatedPourC(second, windows, seeded, 7),
  }));
  const phases = new Set<string>();
  for (let n = 20; n < readings.length; n += 60)
    phases.add(pourNow(readings.slice(0, n), windows, seeded)?.phase ?? '');
  for (const phase of seeded ? ['cooling', 'working'] : ['melting', 'cooling', 'low', 'warming', 'working'])
    expect([...phases]).toContain(phase);
  expect(phases).not.toContain('lost');
  expect(judgePour(readings.slice(0, 3900), { windows, seeded }).first).toBeNull();
  expect(featuresOf(readings, { windows })?.meltC).toBeGreaterThan(windows.melt.from);
  // The same seconds say the same.
  expect(simulatedPourC(1000, windows, seeded, 7)).toBe(readings[1000]?.tempC);
});

describe('why bars look as they do', () => {
  const judged = (...temps: number[]) =>
    judgePour(
      temps.map((tempC, i) => ({ second: 900 * i, tempC })),
      { windows: dark, seeded: false },
    );
  const good = { code: 'T1', verdict: judged(47, 27.5, 31.5) };
  const warm = { code: 'T2', verdict: judged(47, 30.5, 31.5) };
  const sight = (days: number, seen: Sight['seen'], bloom: Sight['bloom'] = null): Sight => ({ days, seen, bloom });

  test('the pour that goes with it is named; sugar bloom is damp, whatever the pour', () => {
    expect(whyIt([good, warm], [sight(7, ['veil', 'streaks'], 'fat')])).toMatchObject({ tone: 'watch', pour: 'T2' });
    expect(whyIt([good, warm], [sight(7, ['veil'], 'fat')]).sentence).toMatch(/Its lowest was 30\.5\s°C/u);
    expect(whyIt([warm], [sight(7, ['veil'], 'sugar')])).toMatchObject({ pour: null });
    expect(whyIt([warm], [sight(7, ['veil'], 'sugar')]).sentence).toContain('damp, not temper');
    // A finger takes fat away, a drop of water sugar.
    expect([bloomBy(true, false), bloomBy(false, true), bloomBy(true, true), bloomBy(false, false)]).toEqual([
      'sugar',
      'fat',
      'fat',
      null,
    ]);
  });

  test('good bars are good; what came late is storage; without a cause it says so', () => {
    expect(whyIt([good], [])).toMatchObject({ tone: 'quiet' });
    expect(whyIt([good], [sight(0, ['glossy', 'snaps'])])).toMatchObject({ tone: 'good' });
    const late = whyIt([good], [sight(0, ['glossy']), sight(30, ['veil'], 'fat')]);
    expect(late.sentence).toContain('right at first, and a grey veil after 30 days');
    expect(whyIt([good], [sight(0, ['dull'])]).sentence).toContain('no pour of it shows why');
  });
});

describe('what earlier pours teach', () => {
  const pour = (coolC: number, test: PastPour['test'], workC = 31.6): PastPour => ({ meltC: 47, coolC, workC, test });
  const set = [27.2, 27.4, 27.3, 27.6, 27.5].map((coolC) => pour(coolC, 'set'));

  test('the middle of those that set, and in what the others were different', () => {
    expect(learnedSetting(set.slice(0, 2), 'the slab', 'C')).toBeNull();
    expect(learnedSetting(set, 'the slab', 'C')).toMatchObject({ coolC: 27.4, workC: 31.6, good: 5, of: 5 });
    const found = learnedSetting([...set, pour(29.1, 'slow'), pour(29.4, 'failed'), pour(27, 'none')], 'the slab');
    expect(found).toMatchObject({ good: 5, of: 7 });
    expect(found?.sentence).toMatch(/Those that did not set were cooled 1\.[89]\s°C warmer\.$/u);
    // Half a degree in one pour is chance.
    expect(learnedSetting([...set, pour(27.7, 'slow')], 'the slab')?.sentence).not.toContain('Those that did not set');
    expect(learnedSetting(set, 'the slab', 'F')?.sentence).toMatch(/work 88\.9\s°F/u);
  });
});
