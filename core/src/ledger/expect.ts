import { projectMean, type Interval } from '../stats/intervals';
import type { Station } from '../work/stations';
import type { HoldingKind } from './types';

/** Good share of what goes into each station that lies before the bar, as logged. */
export interface StationYields {
  station: Station;
  /** What comes of it, where that is asked for. */
  gives?: HoldingKind | undefined;
  /** Yields of this lot, and those of its family (this lot left out), 0 to 1. */
  own: readonly number[];
  family: readonly number[];
  /** The trade's usual range, for a workshop without a past. */
  usual: readonly [number, number];
  /** Grams of one load, to tell how many are still to come. */
  loadG: number;
}

export interface Expected extends Interval {
  mean: number;
}

export interface ExpectedGoods {
  greenG: number;
  nibsG: Expected;
  /** Cacao that ends in bars, and bars of the given weight and cacao share. */
  bars: Expected;
  level: number;
  /** Whose yields these are, for each station. */
  basis: {
    station: Station;
    whose: 'this lot' | 'its family' | 'the trade';
    n: number;
    mean: number;
  }[];
}

const ENOUGH = 3;

/**
 * What the beans on hand will still give, with a prediction interval.
 *
 * Each station's future mean yield is projected on the logarithmic scale, where yields multiply, by Student's
 * prediction interval for the loads still to come; the half widths of independent stations add in quadrature.
 *
 * @param greenG grams on hand; @param chain stations in order; @param bar weight g and cacao share of 1
 * @param level two-sided, such as 0.8
 */
export function expectGoods(
  greenG: number,
  chain: readonly StationYields[],
  bar: { barG: number; cacao: number },
  level = 0.8,
): ExpectedGoods {
  let mean = greenG;
  let squares = 0;
  let nibs: Expected = { mean: 0, low: 0, high: 0 };
  const basis: ExpectedGoods['basis'] = [];
  const now = (): Expected => ({
    mean,
    low: mean * Math.exp(-Math.sqrt(squares)),
    high: mean * Math.exp(Math.sqrt(squares)),
  });
  for (const row of chain) {
    const next = Math.max(1, Math.round(mean / Math.max(1, row.loadG)));
    const { logMean, half, whose, n } = projectStation(row, next, level);
    mean *= Math.exp(logMean);
    squares += half ** 2;
    basis.push({ station: row.station, whose, n, mean: Math.exp(logMean) });
    if (row.gives === 'nibs') nibs = now();
  }
  const perBar = bar.barG * bar.cacao;
  const end = now();
  const bars = { mean: end.mean / perBar, low: end.low / perBar, high: end.high / perBar };
  return { greenG, nibsG: nibs, bars, level, basis };
}

function projectStation(
  row: StationYields,
  next: number,
  level: number,
): { logMean: number; half: number; whose: ExpectedGoods['basis'][number]['whose']; n: number } {
  const own = row.own.length >= ENOUGH;
  const values = own ? row.own : [...row.family, ...row.own];
  const logs = values.filter((value) => value > 0).map(Math.log);
  const projected = logs.length >= ENOUGH ? projectMean(logs, next, level) : null;
  if (projected) {
    return {
      logMean: projected.mean,
      half: (projected.high - projected.low) / 2,
      whose: own ? 'this lot' : 'its family',
      n: values.length,
    };
  }
  // The trade's range is taken as the middle nine tenths of lots.
  const [low, high] = row.usual;
  return {
    logMean: (Math.log(low) + Math.log(high)) / 2,
    half: (Math.log(high) - Math.log(low)) / 2,
    whose: 'the trade',
    n: 0,
  };
}
