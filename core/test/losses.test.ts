import { lossHeadline } from '../src/losses/headline';
import { lossWay, onePointBetter } from '../src/losses/losses';
import { WAY } from '../src/stations';
import { differenceWords, usualDifference } from '../src/ledger/stock-take';
import { Valuation } from '../src/ledger/valuation';
import type { Book } from '../src/ledger/book';
import type { Step } from '../src/ledger/types';
import { addTotals, flowByStation, StationSums } from '../src/trace/by-station';
import { Bench, made } from './fixtures';

const bench = new Bench();
const lot = made(bench.lot(10_000, 5));
const sorted = bench.do({
  kind: 'sort',
  sources: [{ holdingId: lot, massG: 10_000 }],
  rejects: [{ reason: 'flat', massG: 400 }],
  goodG: 9_500,
  note: '',
});
const roasted = bench.do({
  kind: 'roast',
  sources: [{ holdingId: made(sorted), massG: 9_500 }],
  program: [],
  endBeanC: null,
  outG: 8_930,
  note: '',
});
const winnowed = bench.do(
  {
    kind: 'winnow',
    sources: [{ holdingId: made(roasted), massG: 8_930 }],
    nibsG: 7_200,
    huskG: 1_600,
    dustG: 50,
    setting: '',
    note: '',
  },
  { minutes: 60 },
);
const flows = flowByStation(bench.book, new Map([...bench.book.steps.ids()].map((id) => [id, 1])));
const way = lossWay(flows, WAY);

function sumsOf(book: Book, steps: readonly Step[]): StationSums {
  const sums = new StationSums();
  for (const step of steps) sums.add(book, step);
  return sums;
}

describe('the way of a kilogram of green beans', () => {
  it('loses at every station what that station lost, and the rest goes on', () => {
    expect(way.map(({ station, goesOnG }) => [station, Math.round(goesOnG * 10) / 10])).toEqual([
      ['sort', 950],
      ['roast', 893],
      ['winnow', 720],
    ]);
    expect(way[0]?.losses.map(({ cause, g }) => [cause, Math.round(g * 10) / 10])).toEqual([
      ['reject', 40],
      ['unaccounted', 10],
    ]);
    expect(way[2]?.byProductG).toBeCloseTo(160, 9);
  });

  it('is said in a sentence, of a kilogram or a pound: what ends where, what is kept, what is lost most', () => {
    const said = [lossHeadline(way, false), lossHeadline(way, true, 'imperial'), lossHeadline(way.slice(0, 1), false)];
    expect(said.map((words) => words.replaceAll('\u00a0', ' '))).toEqual([
      // 160 g of husk are kept; water at the roast is the largest loss: 57 of 950 g.
      'Of a kilogram of green beans 720 g are left after Winnow. 160 g is husk, which is kept. Most is lost as water and volatiles at Roast: 57 g.',
      // 0.72, 0.16 and 0.057 of sixteen ounces.
      'Of a pound of green beans 11.52 oz end in bars. 2.56 oz is husk, which is kept. Most is lost as water and volatiles at Roast: 0.91 oz.',
      'Of a kilogram of green beans 950 g are left after Sort. Most is lost as rejects at Sort: 40 g.',
    ]);
    expect(lossHeadline([], false)).toBe('The loss book is empty.');
  });

  it('keeps every gram: what arrives goes on, leaves or is lost', () => {
    for (const row of way) {
      const lost = row.losses.reduce((sum, { g }) => sum + g, 0);
      expect(row.goesOnG + row.byProductG + lost).toBeCloseTo(row.arrivesG, 6);
    }
  });

  it('one point better at the winnower: 0.01 × 1 t a year, 49 g of cacao a bar', () => {
    const winnow = way.find(({ station }) => station === 'winnow');
    if (!winnow) throw new Error('no winnow');
    const better = onePointBetter(winnow, way, 1_000_000, 11, 49);
    expect(better.gramsAYear).toBe(10_000);
    expect(better.bars).toBeCloseTo(10_000 / 49, 9);
    expect(better.money).toBeCloseTo(110, 9);
    const sort = way[0];
    if (!sort) throw new Error('no sort');
    expect(onePointBetter(sort, way, 1_000_000, 6, 49).bars).toBeCloseTo((10_000 * 0.94 * (7200 / 8930)) / 49, 6);
  });
});

describe('husk as by-product', () => {
  it('lowers the cost of the nibs by what it fetched: €50 beans and €12 hands, €3.20 of husk', () => {
    const before = new Valuation(bench.book).perKgMilli(made(winnowed)) / 100_000;
    expect(before).toBeCloseTo(62 / 7.2, 6);
    bench.do({
      kind: 'sell',
      sources: [{ holdingId: made(winnowed, 'husk'), massG: 1_600 }],
      takings: 3.2,
      to: 'Gardens',
      note: '',
    });
    expect(new Valuation(bench.book).perKgMilli(made(winnowed)) / 100_000).toBeCloseTo(58.8 / 7.2, 6);
  });
});

describe('stock-take', () => {
  it('learns what is usual from the counts before', () => {
    expect(usualDifference([{ booked: 100, counted: 99 }])).toBeNull();
    const usual = usualDifference([
      { booked: 1000, counted: 990 },
      { booked: 2000, counted: 1990 },
      { booked: 500, counted: 496 },
      { booked: 800, counted: 795 },
    ]);
    expect(usual?.mean).toBeCloseTo(-0.0073, 3);
    expect(differenceWords(1000, 993, usual)).toMatchObject({ tone: 'good', sentence: '0.7 % short, as usual' });
    expect(differenceWords(1000, 900, usual).tone).toBe('watch');
    expect(differenceWords(1000, 1000, usual).sentence).toBe('as booked');
    expect(differenceWords(1000, 950, null).tone).toBe('watch');
  });
});

describe('nibs roasted after the winnowing', () => {
  it('pass both stations once: the order is another, nothing goes round again', () => {
    const nibBench = new Bench();
    const beans = made(nibBench.lot(10_000));
    const cracked = nibBench.do({
      kind: 'winnow',
      sources: [{ holdingId: beans, massG: 10_000 }],
      nibsG: 8_000,
      huskG: 1_900,
      dustG: 100,
      setting: '',
      note: '',
    });
    nibBench.do({
      kind: 'roast',
      sources: [{ holdingId: made(cracked), massG: 8_000 }],
      program: [],
      endBeanC: null,
      outG: 7_600,
      note: '',
    });
    const rows = sumsOf(nibBench.book, [...nibBench.book.steps.values()]).totals();
    expect(rows.map(({ station, inMg, goodMg, reworkMg }) => [station, inMg / 1e6, goodMg / 1e6, reworkMg])).toEqual([
      ['beans', 10, 10, 0],
      ['roast', 8, 7.6, 0],
      ['winnow', 10, 8, 0],
    ]);
  });

  it('whole sums are the sums of their parts', () => {
    const steps = [...bench.book.steps.values()];
    const whole = sumsOf(bench.book, steps).totals();
    // Wherever they are cut, also between bars that go round again and the station that they came from.
    for (let cut = 0; cut <= steps.length; cut += 1) {
      const parts = [steps.slice(0, cut), steps.slice(cut)].map((some) => sumsOf(bench.book, some).parts());
      expect(addTotals(parts)).toEqual(whole);
    }
  });
});
