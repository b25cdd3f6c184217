import { canBeWorked } from '../src/beans/state';
import { individuals } from '../src/stats/individuals';
import { airOf, makeReady, priorOf, roasterOf, said, value, type LoggedLoad } from '../src/roast/logged';
import type { Command } from '../src/commands';
import { isCounted, knownGoods } from '../src/money/opening';
import { OPENING_KINDS } from '../src/money/opening-command';
import { Bench, made, refusal } from './fixtures';

/* Where things begin: a workshop with goods in the house, wet beans that are dried, a load made ready to be fitted. */

const opened = (bench: Bench, what: string, rest: object = {}) =>
  bench.do({
    kind: 'open',
    what,
    name: 'Of before',
    routeId: 'whole-bean',
    massG: 3000,
    value: 30,
    producer: '',
    country: '',
    roasted: null,
    cocoaPct: null,
    withoutButterPct: null,
    sugarPct: null,
    allergens: [],
    targetMicron: 20,
    note: '',
    ...(isCounted(what as never) ? { pieces: 40 } : {}),
    ...rest,
  } as Command);

test.each([
  ['beans', 'roast', 'T'],
  ['roasted', 'winnow', 'T'],
  ['nibs', 'grind', 'T'],
  ['husk', 'store', 'H'],
  ['block', 'rest', 'K'],
  ['remelt', 'temper', 'T'],
  ['bars', 'pack', 'T'],
  ['seconds', 'store', 'T'],
  ['packed', 'store', 'T'],
])('%s that are in the house wait at %s, under a code of their kind', (what, place, letter) => {
  const bench = new Bench();
  const step = opened(bench, what);
  const goods = bench.book.holding(made(step));
  expect(goods).toMatchObject({ kind: what, place, name: 'Of before' });
  expect(goods.code.startsWith(letter)).toBe(true);
  expect(bench.book.balance(goods.id)).toMatchObject({ massMg: 3_000_000, pieces: isCounted(what as never) ? 40 : 0 });
  expect(step.money.purchaseMilli).toBe(30 * 100_000);
});

test('on a route that goes another way they wait at another station, without one where they usually do', () => {
  const at = (what: string, routeId: string | null) => {
    const bench = new Bench();
    return bench.book.holding(made(opened(bench, what, { routeId }))).place;
  };
  expect(at('block', 'straight-through')).toBe('temper');
  expect(at('nibs', 'nib-roast')).toBe('roast');
  expect(at('beans', 'unroasted')).toBe('winnow');
  expect([at('beans', null), at('nibs', null), at('block', null), at('bars', null)]).toEqual([
    'roast',
    'grind',
    'rest',
    'pack',
  ]);
});

test('a mass is a batch that runs; without a route there is none', () => {
  const bench = new Bench();
  const step = opened(bench, 'mass');
  expect(step.batchId).toBe(made(step));
  expect(bench.batches.get(step.batchId ?? '')).toMatchObject({ name: 'Of before', targetMicron: 20 });
  expect(refusal(() => opened(new Bench(), 'mass', { routeId: null }))).toBe('grind/no-batch');
});

test('what is weighed has a weight, what is counted a count, a code stands on one thing only', () => {
  const bench = new Bench();
  expect(refusal(() => opened(bench, 'nibs', { massG: undefined }))).toBe('money/amount');
  expect(refusal(() => opened(bench, 'bars', { pieces: undefined }))).toBe('money/amount');
  opened(bench, 'packed', { code: 'OLD-1' });
  expect(refusal(() => opened(bench, 'bars', { code: 'old-1' }))).toBe('pack/code-taken');
});

test('what is known of goods from before: cacao until it is ground', () => {
  const known = OPENING_KINDS.map((what) => {
    const command = { what, name: 'X', cocoaPct: 70, withoutButterPct: null, sugarPct: 30, allergens: ['milk'] };
    return [what, knownGoods(command as never)] as const;
  });
  expect(known.filter(([, { cacao }]) => cacao).map(([what]) => what)).toEqual(['beans', 'roasted', 'nibs', 'husk']);
  for (const [, goods] of known) expect(goods).toMatchObject({ cocoaPct: 70, sugarPct: 30, allergens: ['milk'] });
});

test('wet beans are dried in their own lot, to less than they were; the rest was water', () => {
  const bench = new Bench();
  const wet = bench.do({ ...(bench.lot(100).command as object), form: 'wet', netG: 20_000 } as Command);
  const lot = made(wet);
  const dry = (outG: number) => bench.do({ kind: 'dry', lotId: lot, outG, note: '' });
  expect(refusal(() => dry(20_000))).toBe('beans/not-lighter');
  const step = dry(7600);
  expect(made(step)).toBe(lot);
  expect(bench.book.balance(lot).massMg).toBe(7_600_000);
  expect(step.postings.find(({ loss }) => loss === 'water')?.massMg).toBe(12_400_000);
});

test('a lot that nobody may work is not sorted: it is on hold, refused, or wet', () => {
  const route = { id: 'whole-bean', name: '', note: '', stations: ['beans', 'sort', 'roast'] } as never;
  const may = (standing: string) => canBeWorked({ standing, hold: null } as never, 'sort', route);
  expect(may('taken in')).toBe(true);
  for (const standing of ['refused', 'wet']) expect(may(standing)).toBe(false);
});

test('limits of single values: by hand', () => {
  expect(individuals([5])).toBeNull();
  // Mean 10, moving ranges 2, 4, 2: mean 8/3.
  expect(individuals([10, 12, 8, 10])).toEqual({
    n: 4,
    mean: 10,
    meanRange: 8 / 3,
    lower: 10 - 2.66 * (8 / 3),
    upper: 10 + 2.66 * (8 / 3),
  });
});

/** A load of an hour and a half of readings, one every so many seconds. */
function load(everyS: number, more: Partial<LoggedLoad> = {}): LoggedLoad {
  const minutes = Array.from({ length: Math.floor(1500 / everyS) }, (_, i) => (i * everyS) / 60);
  return {
    code: 'T1',
    massG: 5000,
    layerMm: 12,
    moisture: 0.07,
    beanStartC: 20,
    weightLeft: 0.945,
    settings: [{ second: 0, setC: 150, step: 0 }],
    preheatC: 150,
    minutes,
    beanC: minutes.map((m) => 120 - 100 * Math.exp(-m / 7)),
    airC: minutes.map(() => 146),
    ...more,
  };
}

test('of a load sixty readings are looked at at the most, and too few are none', () => {
  const ready = makeReady(load(1));
  expect(ready?.bean.minutes.length).toBeLessThanOrEqual(60);
  expect(ready?.bean.minutes.length).toBeGreaterThan(40);
  expect(makeReady(load(150))).toBeNull();
  // Readings that close together share their error: twice as many do not say twice as much.
  const [often, seldom] = [makeReady(load(1)), makeReady(load(60))];
  // One reading in half a minute is fresh, and counts by the error of a probe alone: 1.5 °C.
  expect(seldom?.beanWeight).toBeCloseTo(1 / 1.5, 10);
  expect(often?.beanWeight).toBeLessThan(1 / 1.5);
});

test('without a measured start the first reading is it where it came at once, else the room', () => {
  expect(makeReady(load(10, { beanStartC: null }))?.startC).toBeCloseTo(20, 5);
  const late = load(10);
  const from = late.minutes as number[];
  expect(makeReady({ ...late, beanStartC: null, minutes: from.map((m) => m + 2) })?.startC).toBe(20);
  expect(makeReady(load(10, { beanStartC: 31 }))?.startC).toBe(31);
});

test('air that was not read comes from the settings', () => {
  const air = { lagMin: 3, dipC: 25, underC: 4 };
  const read = load(10);
  expect(airOf(read, air).tempC[0]).toBe(146);
  const silent = load(10, { airC: [] });
  const foreseen = airOf(silent, air);
  expect(foreseen.minutes).toBe(silent.minutes);
  // It ends a few degrees under its setting.
  expect(foreseen.tempC[foreseen.tempC.length - 1]).toBeCloseTo(146, 0);
  expect(makeReady(silent)?.air.minutes).toEqual([]);
});

test('what a roaster would have said stands beside what was heard, reading by reading', () => {
  const ready = makeReady(load(10));
  if (!ready) throw new Error('ready');
  const common = priorOf('oven');
  const [expected, real] = [said(ready, common, [0, 0]), ready.heard];
  expect(expected).toHaveLength(real.length);
  expect(real.length).toBe(ready.bean.minutes.length + ready.air.minutes.length + 1);
  // Faster warming says warmer beans early on.
  const faster = said(ready, common, [0.4, 0]);
  const early = Math.floor(ready.bean.minutes.length / 4);
  expect(faster[early]).toBeGreaterThan(expected[early] ?? Infinity);
  // Not weighed: nothing of weight is compared.
  const unweighed = makeReady(load(10, { weightLeft: null }));
  expect(unweighed && unweighed.heard).toHaveLength(real.length - 1);
});

test('figures of a roaster stay where roasters are, however far a fit looks', () => {
  const common = priorOf('drum');
  expect(Math.exp(value(common, 'warming'))).toBeCloseTo(0.24, 10);
  const wild = common.map((x) => x + 50);
  const { beans, probe } = roasterOf(wild, 0, [0, 0]);
  expect(beans.fade).toBe(0.8);
  expect(probe?.airShare).toBe(0.6);
  const low = roasterOf(
    common.map((x) => x - 50),
    0,
    [0, 0],
  );
  expect([low.beans.fade, low.probe?.airShare]).toEqual([-0.3, 0]);
  // A larger load warms by its slope: half as fast at four times the size.
  const of = (x: number): number => roasterOf(priorOf('oven'), x, [0, 0]).beans.warmingPerMin;
  expect(of(Math.log(4)) / of(0)).toBeCloseTo(0.5, 10);
});
