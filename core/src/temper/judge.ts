import { median } from '../stats/spread';
import { formatTemperature, type TemperatureUnit } from '../units/temperature';
import type { PourMark } from '../work/tempering';
import { holdOf, type Span, type Windows } from './windows';

/** A temperature of a pour, seconds after it began. */
export interface TemperReading {
  second: number;
  tempC: number;
}

export const FAULTS = [
  'not-melted',
  'not-cooled',
  'too-cold',
  'not-stirred',
  'overheated',
  'worked-cold',
  'held-long',
  'cold-mould',
  'warm-set',
  'damp',
] as const;
export type FaultId = (typeof FAULTS)[number];

export interface Fault {
  id: FaultId;
  sentence: string;
  /** What it does to the bars. */
  effect: string;
  /** What to change next time. */
  todo: string;
  /** How far beyond its bound, in what the probe and the bound can be off by: over 1 it is sure. */
  clear: number;
}

/** What was read out of a curve, °C and minutes; null where it is not in it. */
export interface TemperFeatures {
  meltC: number;
  lowC: number;
  /** The warmest after the low point. */
  backC: number;
  workC: number;
  /** From the first time in the working window to the end. */
  heldMin: number;
  /** When it was warmest, and first in the working window after its low point, seconds; the latter null: never. */
  meltS: number;
  workS: number | null;
  /** Readings a minute; under one, hand readings. */
  dense: boolean;
}

export interface TemperVerdict {
  features: TemperFeatures | null;
  /** The first that went wrong, in the order of the work; null: nothing did. */
  first: Fault | null;
  others: Fault[];
  sentence: string;
  sure: 'sure' | 'likely' | 'not known';
}

/** What is known of a pour beside its curve. */
export interface PourFacts {
  windows: Windows;
  /** Seed, silk: it needs no low point. */
  seeded: boolean;
  /** What was marked while it was worked. */
  marks?: readonly PourMark[];
  /** That temperatures are said in; left out, °C. */
  unit?: TemperatureUnit;
  mouldC?: number | null;
  setC?: number | null;
  /** Of the place where it set, and its air: a mould colder than the dew point sweats. */
  dewPointC?: number | null;
}

/** °C by which a probe and a window may be off before it is a fault. */
const MARGIN = { melt: 1.5, low: 1, cold: 1.5, over: 1.4, work: 1.2 };
/** Moulds colder than that chill the skin; rooms warmer than that set too slowly, °C. */
const COLD_MOULD_C = 18;
const WARM_SET_C = 21;
/** Minutes without stirring on the way to the low point that a bowl bears. */
const STILL_MIN = 3;
const DENSE_A_MINUTE = 2;
/** Fewer were read by hand, however soon after each other. */
const FEWEST_DENSE = 30;
const SMOOTH = 9;

/** Reads a curve: melt, low point, the way back, the work. @returns null for fewer than three readings */
export function featuresOf(
  readings: readonly TemperReading[],
  { windows }: Pick<PourFacts, 'windows'>,
): TemperFeatures | null {
  const rows = readings.filter(({ tempC }) => Number.isFinite(tempC)).sort((a, b) => a.second - b.second);
  const last = rows.at(-1);
  const first = rows[0];
  if (!first || !last || rows.length < 3) return null;
  const minutes = Math.max(1 / 60, (last.second - first.second) / 60);
  const dense = rows.length >= FEWEST_DENSE && rows.length / minutes >= DENSE_A_MINUTE;
  const smooth = dense ? runningMedian(rows.map(({ tempC }) => tempC)) : rows.map(({ tempC }) => tempC);
  const peakAt = smooth.indexOf(Math.max(...smooth));
  const meltC = smooth[peakAt] ?? 0;
  // The low point comes after the melt and before the end; where nothing was cooled the end is it.
  let lowAt = peakAt;
  for (let i = peakAt; i < smooth.length; i += 1) if ((smooth[i] ?? 0) < (smooth[lowAt] ?? 0)) lowAt = i;
  const after = smooth.slice(lowAt);
  const tail = dense
    ? smooth.filter((_, i) => (rows[i]?.second ?? 0) >= last.second - 120 && i >= lowAt)
    : smooth.slice(Math.max(lowAt, smooth.length - 1));
  const reached = rows.find(({ tempC }, i) => i >= lowAt && tempC >= windows.work.from - 0.7);
  return {
    meltC,
    lowC: smooth[lowAt] ?? meltC,
    backC: Math.max(...after),
    workC: median(tail.length > 0 ? tail : [last.tempC]),
    heldMin: reached ? (last.second - reached.second) / 60 : 0,
    meltS: rows[peakAt]?.second ?? 0,
    workS: reached?.second ?? null,
    dense,
  };
}

function runningMedian(values: readonly number[]): number[] {
  const half = Math.floor(SMOOTH / 2);
  return values.map((_, i) => median(values.slice(Math.max(0, i - half), i + half + 1)));
}

/**
 * What went wrong with a pour, the first fault first: each has its bound, and every later one may only follow from it.
 * From hand readings the same, said with less certainty.
 */
export function judgePour(readings: readonly TemperReading[], facts: PourFacts): TemperVerdict {
  const features = featuresOf(readings, facts);
  if (!features)
    return {
      features: null,
      first: null,
      others: [],
      sentence: 'Too few temperatures to say anything: three at the least, the melt, the low point and the work.',
      sure: 'not known',
    };
  const c = (value: number): string => formatTemperature(value, facts.unit);
  const found = faultsOf(features, facts);
  const [first = null, ...others] = found;
  const sure = first === null || first.clear < 1 || !features.dense ? 'likely' : 'sure';
  return {
    features,
    first,
    others,
    sentence: first
      ? `${first.sentence} ${first.effect}`
      : `Nothing in it says why it should bloom: melted at ${c(features.meltC)}, ${facts.seeded ? '' : `cooled to ${c(features.lowC)}, `}worked at ${c(features.workC)}.`,
    sure: first === null && features.dense ? 'sure' : sure,
  };
}

/** Minutes between the melt and the work in which it was marked as left standing. */
function stillMin(marks: readonly PourMark[], fromS: number, toS: number): number {
  let sum = 0;
  let since: number | null = null;
  const end = (at: number): void => {
    if (since !== null) sum += Math.max(0, Math.min(at, toS) - Math.max(since, fromS)) / 60;
    since = null;
  };
  for (const { second, what } of [...marks].sort((a, b) => a.second - b.second)) {
    if (what === 'still') since ??= second;
    else if (what === 'stirred') end(second);
  }
  end(toS);
  return sum;
}

function faultsOf(features: TemperFeatures, facts: PourFacts): Fault[] {
  const { meltC, lowC, backC, workC, heldMin } = features;
  const { windows, seeded, unit } = facts;
  const c = (value: number): string => formatTemperature(value, unit);
  const span = ({ from, to }: Span): string => `${c(from)} to ${c(to)}`;
  const found: Fault[] = [];
  const add = (beyond: number, scale: number, fault: Omit<Fault, 'clear'>): void => {
    if (beyond > 0) found.push({ ...fault, clear: beyond / scale });
  };
  add(windows.melt.from - MARGIN.melt - meltC, 1, {
    id: 'not-melted',
    sentence: `Melted out at ${c(meltC)} only: under the ${c(windows.melt.from)} that takes the old crystal away.`,
    effect: 'Old crystal stays and grows as it likes: thick, spots, a coarse break.',
    todo: `Bring all of it to ${span(windows.melt)} and stir it there for ten minutes.`,
  });
  if (!seeded) {
    add(lowC - windows.cool.to - MARGIN.low, 0.7, {
      id: 'not-cooled',
      sentence: `Its lowest was ${c(lowC)}: over the ${c(windows.cool.to)} at which seed is made.`,
      effect: 'Too little seed: soft, dull, streaks, and a grey veil within days.',
      todo: `Cool to ${span(windows.cool)} and keep stirring for some minutes, or add seed.`,
    });
    add(windows.cool.from - MARGIN.cold - lowC, 0.7, {
      id: 'too-cold',
      sentence: `It was cooled to ${c(lowC)}: under the ${c(windows.cool.from)} meant.`,
      effect: 'Too much crystal, some of it unstable: thick, air bubbles, dull bars that stick.',
      todo: `Stop at ${c(windows.cool.from)}; if it went colder, warm it until it runs and begin the cooling again.`,
    });
  }
  const still = stillMin(facts.marks ?? [], features.meltS, features.workS ?? Infinity);
  if (Number.isFinite(still))
    add(still - STILL_MIN, 1, {
      id: 'not-stirred',
      sentence: `It was left standing for ${still.toFixed(0)} min while it cooled.`,
      effect: 'Seed is made at the walls only: lumps there, too little in the middle, streaks.',
      todo: 'Keep it moving from the melt to the moulds, and scrape the sides.',
    });
  add(backC - windows.work.to - MARGIN.over, 0.6, {
    id: 'overheated',
    sentence: `On the way back it reached ${c(backC)}: over the ${c(windows.work.to)} of the work.`,
    effect: 'The seed melts out again: as untempered, with streaks and veil, and bars that stick.',
    todo: `Warm it gently to ${span(windows.work)}; past ${c(windows.work.to + 2)} add seed or begin again.`,
  });
  add(windows.work.from - MARGIN.work - workC, 0.6, {
    id: 'worked-cold',
    sentence: `It was worked at ${c(workC)}: under the ${c(windows.work.from)} meant.`,
    effect: 'Thick, bubbles, tails, dull bars.',
    todo: `Warm it to ${span(windows.work)} before it is poured.`,
  });
  const longest = holdOf(windows).minutes;
  add(heldMin - longest, 15, {
    id: 'held-long',
    sentence: `It was kept in temper for ${heldMin.toFixed(0)} min: over the ${longest} that it bears.`,
    effect: 'Crystal goes on growing: it thickens, and bars come out dull and draw back little.',
    todo: 'Warm it by half a degree now and then, add fresh melted chocolate, or pour smaller bowls.',
  });
  if (facts.mouldC != null)
    add(COLD_MOULD_C - facts.mouldC, 2, {
      id: 'cold-mould',
      sentence: `The moulds were at ${c(facts.mouldC)}.`,
      effect: 'The skin is shocked: dull patches, marks of flow.',
      todo: `Warm the moulds to ${span({ from: 20, to: 26 })}, a little under the chocolate.`,
    });
  if (facts.setC != null) {
    add(facts.setC - WARM_SET_C, 2, {
      id: 'warm-set',
      sentence: `It set at ${c(facts.setC)}.`,
      effect: 'Too slow: crystal grows coarse, the middle streaks, bars stick.',
      todo: `Set at ${span({ from: 12, to: 18 })} in moving air.`,
    });
    if (facts.dewPointC != null)
      add(facts.dewPointC - facts.setC, 1, {
        id: 'damp',
        sentence: `It set at ${c(facts.setC)} in air whose dew point is ${c(facts.dewPointC)}.`,
        effect: 'Bars sweat when they come out: sugar bloom, rough and grey, that no warmth of a finger takes away.',
        todo: 'Dry the air, or set it warmer than the dew point and let bars come to the room in a closed box.',
      });
  }
  return found;
}
