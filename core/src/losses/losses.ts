import type { StationTotals } from '../trace/by-station';
import type { LossCause } from '../ledger/types';
import type { Station } from '../work/stations';

/** One station of the way from green bean to bar, in grams of each kilogram of green beans. */
export interface LossRow {
  station: Station;
  steps: number;
  /** What really went in over the time looked at, mg. */
  inMg: number;
  goodMg: number;
  /** Good over in, 0 to 1. */
  yield: number;
  /** Of a kilogram of green beans: what arrives here, goes on, leaves as by-product or is lost, g. */
  arrivesG: number;
  goesOnG: number;
  byProductG: number;
  losses: { cause: LossCause; g: number; share: number }[];
}

const GREEN_G = 1000;

/**
 * Follows a kilogram of green beans through the mean yields of a time: where its grams go.
 *
 * @param flows sums by station over that time; @param stations those on the way, in order
 */
export function lossWay(flows: readonly StationTotals[], stations: readonly Station[]): LossRow[] {
  let here = GREEN_G;
  return stations.flatMap((station) => {
    const flow = flows.find((row) => row.station === station);
    if (!flow || flow.inMg <= 0) return [];
    const out = flow.goodMg + flow.byProductMg + flow.losses.reduce((sum, { mg }) => sum + mg, 0);
    // A bowl still running has taken in what it has not given out: shares are of what came out.
    const whole = out > 0 ? out : flow.inMg;
    const share = (mg: number): number => mg / whole;
    const row: LossRow = {
      station,
      steps: flow.count,
      inMg: flow.inMg,
      goodMg: flow.goodMg,
      yield: share(flow.goodMg),
      arrivesG: here,
      goesOnG: here * share(flow.goodMg),
      byProductG: here * share(flow.byProductMg),
      losses: flow.losses
        .map(({ cause, mg }) => ({ cause, g: here * share(mg), share: share(mg) }))
        .filter(({ g }) => Math.abs(g) >= 0.05)
        .sort((a, b) => b.g - a.g),
    };
    here = row.goesOnG;
    return [row];
  });
}

export interface WhatIf {
  station: Station;
  /** More good grams a year at that station, and bars at the end. */
  gramsAYear: number;
  bars: number;
  /** What those grams cost to get by buying and working more beans, major units. */
  money: number;
}

/**
 * One point better at a station: what a year brings.
 *
 * @param row with the station's place on the way; @param way all of it
 * @param inGAYear grams into the station in a year; @param perKgAfter cost of a kilogram of its good output, major units
 * @param cacaoPerBarG cacao in a bar
 */
export function onePointBetter(
  row: LossRow,
  way: readonly LossRow[],
  inGAYear: number,
  perKgAfter: number,
  cacaoPerBarG: number,
): WhatIf {
  const gramsAYear = 0.01 * inGAYear;
  const after = way.slice(way.indexOf(row) + 1).reduce((product, next) => product * next.yield, 1);
  return {
    station: row.station,
    gramsAYear,
    bars: (gramsAYear * after) / cacaoPerBarG,
    money: (gramsAYear / 1000) * perKgAfter,
  };
}
