import { dryingForecast, fermentAdvice, healthyBand, massAtMoisture, type FermentPoint } from '../../src/beans/harvest';
import { greenMg, upstream } from '../../src/trace/flow';
import { Valuation } from '../../src/ledger/valuation';
import { Bench, made, refusal } from '../fixtures';
import { flowByStation } from '../../src/trace/by-station';

const HOUR = 3_600_000;
const point = (hours: number, rest: Partial<FermentPoint>): FermentPoint => ({
  at: hours * HOUR,
  topC: null,
  coreC: null,
  turned: false,
  smell: '',
  cut: 0,
  cutBrown: 0,
  ph: null,
  ...rest,
});
const heap = (hours: number, rest: object = {}) => ({
  openedAt: 0,
  wetG: 400_000,
  ambientC: 27,
  now: hours * HOUR,
  ...rest,
});

describe('fermentation', () => {
  it('has a band of healthy warmth that rises on the second day and falls late', () => {
    expect(healthyBand(0)).toEqual({ low: 20, high: 34 });
    expect(healthyBand(36)).toEqual({ low: 32.5, high: 45 });
    expect(healthyBand(1000)).toEqual({ low: 34, high: 48 });
  });

  it('warns of a small heap in a cool room before the first reading', () => {
    const advice = fermentAdvice(heap(6, { wetG: 30_000, ambientC: 18 }), []);
    expect(advice.tone).toBe('watch');
    expect(advice.todo).toContain('Insulate');
  });

  it('calls a cold middle what it is, with the band as evidence', () => {
    const advice = fermentAdvice(heap(60), [point(58, { coreC: 33 })]);
    expect(advice.sentence).toContain('colder than a healthy run');
    expect(advice.todo).toContain('Turn it');
  });

  it('stops by cut beans and by smell, not by the calendar', () => {
    expect(fermentAdvice(heap(96), [point(95, { coreC: 46, cut: 10, cutBrown: 7 })]).tone).toBe('stop');
    expect(fermentAdvice(heap(60), [point(59, { coreC: 46, smell: 'ammonia' })]).tone).toBe('stop');
    expect(fermentAdvice(heap(200), [point(199, { coreC: 44, turned: true, cut: 10, cutBrown: 2 })]).tone).toBe('good');
  });

  it('asks for turning and for a cut', () => {
    expect(fermentAdvice(heap(55), [point(54, { coreC: 45 })]).sentence).toContain('Not turned for 55 h');
    expect(fermentAdvice(heap(70), [point(69, { coreC: 46, turned: true })]).todo).toContain('Cut ten beans');
  });
});

describe('drying', () => {
  it('keeps the dry matter: 100 kg at 55 % weigh 48.39 kg at 7 %', () => {
    expect(massAtMoisture(100_000, 55, 7)).toBeCloseTo(48_387.1, 1);
  });

  it('finds the hour of an exponential drying', () => {
    // w(t) = 5.5 + 49.5·exp(−t/30 h): 7 % when exp = 1.5/49.5, t = 30·ln 33.
    const at = (hours: number) => ({ at: hours * HOUR, moisturePct: 5.5 + 49.5 * Math.exp(-hours / 30), massG: null });
    const { readyAt } = dryingForecast([at(0), at(24), at(48)], 48 * HOUR);
    expect((readyAt ?? 0) / HOUR).toBeCloseTo(30 * Math.log(33), 6);
  });

  it('lets the scale tell the moisture once both were read', () => {
    const rows = [
      { at: 0, moisturePct: 50, massG: 100_000 },
      { at: 24 * HOUR, moisturePct: null, massG: 62_500 },
    ];
    const forecast = dryingForecast(rows, 25 * HOUR);
    expect(forecast.moisturePct).toBeCloseTo(20, 9);
    expect(forecast.targetG).toBeCloseTo(50_000 / 0.93, 6);
    expect(forecast.advice.sentence).toContain('too fast');
    expect(dryingForecast([{ at: 0, moisturePct: 7.1, massG: null }], 0).advice.tone).toBe('stop');
    expect(dryingForecast([], 0).advice.todo).toContain('Weigh');
  });
});

describe('own harvest in the ledger', () => {
  const bench = new Bench();
  const receipt = bench.do({
    ...(bench.lot(1).command as object),
    kind: 'receive',
    form: 'wet',
    netG: 100_000,
    pricePerKg: 1,
  } as never);
  const lot = made(receipt);
  const dry = bench.do({ kind: 'dry', lotId: lot, outG: 40_000, note: '' }, { minutes: 120 });
  const sorted = bench.do({
    kind: 'sort',
    sources: [{ holdingId: lot, massG: 20_000 }],
    rejects: [],
    goodG: 20_000,
    note: '',
  });

  it('loses its water, keeps its cost, and stays the same lot', () => {
    expect(bench.book.balance(lot).massMg).toBe(20_000_000);
    expect(dry.postings.find(({ loss }) => loss === 'water')?.massMg).toBe(60_000_000);
    // €100 of beans and two hours at €12 over 40 kg.
    expect(new Valuation(bench.book).perKgMilli(lot) / 100_000).toBeCloseTo(124 / 40, 6);
  });

  it('counts as green beans by its dry weight', () => {
    expect(greenMg(bench.book, lot)).toBe(40_000_000);
    const back = upstream(bench.book, new Map([[sorted.id, 1]]));
    expect(back.get(receipt.id)).toBeCloseTo(0.5, 12);
    expect(back.get(dry.id)).toBeCloseTo(0.5, 12);
    expect(flowByStation(bench.book, back)[0]).toMatchObject({ inMg: 50_000_000, goodMg: 20_000_000 });
  });

  it('cannot get heavier, nor dry what is gone', () => {
    expect(refusal(() => bench.do({ kind: 'dry', lotId: lot, outG: 21_000, note: '' }))).toBe('beans/not-lighter');
    const other = made(bench.lot(1000));
    bench.do({ kind: 'sort', sources: [{ holdingId: other, massG: 1000 }], rejects: [], goodG: 1000, note: '' });
    expect(refusal(() => bench.do({ kind: 'dry', lotId: other, outG: 10, note: '' }))).toBe('beans/nothing-to-dry');
  });
});
