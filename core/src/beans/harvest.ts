import type { Interval } from '../stats/intervals';
import { formatHeavy, type MassSystem } from '../units/mass';
import { fixedTemperature, type TemperatureUnit } from '../units/temperature';

const HOUR_MS = 3_600_000;

export interface FermentPoint {
  at: number;
  topC: number | null;
  coreC: number | null;
  turned: boolean;
  smell: string;
  cut: number;
  cutBrown: number;
  ph: number | null;
}

/** Core temperature of a healthy ferment by hours since the pods were opened, °C: low and high of the usual run. */
const HEALTHY: readonly (readonly [hours: number, low: number, high: number])[] = [
  [0, 20, 34],
  [24, 27, 42],
  [48, 38, 48],
  [72, 43, 51],
  [120, 42, 51],
  [168, 38, 50],
  [216, 34, 48],
];

/**
 * Core temperatures between which a ferment usually runs at an hour.
 *
 * After the ranges in Schwan & Wheals (2004), Crit. Rev. Food Sci. Nutr. 44, 205–221, and Wood & Lass, Cocoa
 * (4th ed.): 40–45 °C on the second day, 45–50 °C on the third, then slowly falling. Small heaps run below.
 *
 * @param hours since opening, at least 0
 */
export function healthyBand(hours: number): Interval {
  const last = HEALTHY[HEALTHY.length - 1] as (typeof HEALTHY)[number];
  const after = HEALTHY.findIndex(([at]) => at > hours);
  if (after <= 0) return after === 0 ? { low: 20, high: 34 } : { low: last[1], high: last[2] };
  const [a, b] = [HEALTHY[after - 1] as (typeof HEALTHY)[number], HEALTHY[after] as (typeof HEALTHY)[number]];
  const along = (hours - a[0]) / (b[0] - a[0]);
  return { low: a[1] + along * (b[1] - a[1]), high: a[2] + along * (b[2] - a[2]) };
}

export interface Advice {
  tone: 'good' | 'watch' | 'stop';
  sentence: string;
  why: string;
  todo: string | null;
}

export interface HarvestFacts {
  openedAt: number;
  wetG: number;
  ambientC: number | null;
  now: number;
}

/** Heaps under this lose their warmth faster than they make it. */
const SMALL_G = 60_000;
const COOL_C = 22;
const TURN_AFTER_H = 48;
const BROWN_ENOUGH = 0.6;

/**
 * What the ferment needs now, from the diary: by warmth, smell and cut beans, never by the calendar alone.
 *
 * @param facts with the wet mass, g; @param diary its readings, in any order; @param units what its words are said in
 */
export function fermentAdvice(
  facts: HarvestFacts,
  diary: readonly FermentPoint[],
  { temperatureUnit = 'C', massSystem = 'metric' }: { temperatureUnit?: TemperatureUnit; massSystem?: MassSystem } = {},
): Advice {
  const c = (celsius: number): string => fixedTemperature(celsius, temperatureUnit, 0);
  const heavy = (grams: number): string => formatHeavy(grams, massSystem, 0);
  const rows = [...diary].sort((a, b) => a.at - b.at);
  const newest = rows.at(-1);
  const hours = (facts.now - facts.openedAt) / HOUR_MS;
  const small = facts.wetG < SMALL_G;
  const cool = facts.ambientC !== null && facts.ambientC < COOL_C;
  const size = `${heavy(facts.wetG)}${facts.ambientC === null ? '' : ` in a room of ${c(facts.ambientC)}`}`;
  if (!newest) {
    return {
      tone: small || cool ? 'watch' : 'good',
      sentence: small || cool ? 'A small or cool heap: it will run slow.' : 'Opened; nothing read yet.',
      why: `${size}. ${small ? `Under ${heavy(SMALL_G)} the heap loses warmth faster than it makes it.` : ''}${cool ? ` A room under ${c(COOL_C)} takes more.` : ''}`.trim(),
      todo:
        small || cool
          ? 'Insulate it all round, cover it, put it in the warmest place, and read it twice a day.'
          : 'Read the middle of the heap today.',
    };
  }
  if (newest.smell === 'ammonia' || newest.smell === 'ham or rot')
    return {
      tone: 'stop',
      sentence: `It smells of ${newest.smell}: it has gone too far.`,
      why: 'That smell comes when the vinegar is used up and rot begins.',
      todo: 'Spread it to dry now. Keep the worst apart and taste it before it joins the rest.',
    };
  const cut = rows.filter((row) => row.cut >= 5).at(-1);
  if (cut && cut.cutBrown / cut.cut >= BROWN_ENOUGH)
    return {
      tone: 'stop',
      sentence: `${cut.cutBrown} of ${cut.cut} cut beans show a brown ring: ready to dry.`,
      why: `From ${100 * BROWN_ENOUGH} % on, more days add rot sooner than flavour. ${hours.toFixed(0)} h since opening.`,
      todo: 'Spread it to dry today.',
    };
  const warm = newest.coreC;
  const at = (newest.at - facts.openedAt) / HOUR_MS;
  const band = healthyBand(at);
  const lastTurn = rows.filter((row) => row.turned).at(-1)?.at ?? facts.openedAt;
  const sinceTurn = (facts.now - lastTurn) / HOUR_MS;
  if (warm !== null && warm < band.low)
    return {
      tone: 'watch',
      sentence: `${c(warm)} in the middle after ${at.toFixed(0)} h: colder than a healthy run (${c(band.low)} to ${c(band.high)}).`,
      why:
        small || cool
          ? `${size}: small or cool heaps run slow and may stay under-fermented.`
          : 'The heap is too wet, too airless, or losing warmth.',
      todo: `${sinceTurn > TURN_AFTER_H ? 'Turn it, to let air in. ' : ''}Insulate it, drain the sweatings, and go by cut beans: it may need days more.`,
    };
  if (warm !== null && warm > band.high + 1)
    return {
      tone: 'watch',
      sentence: `${c(warm)} in the middle: hotter than a healthy run (${c(band.low)} to ${c(band.high)}).`,
      why: `Over about ${c(52)} the beans cook and flavour flattens.`,
      todo: 'Turn it and spread it thinner.',
    };
  if (sinceTurn > TURN_AFTER_H)
    return {
      tone: 'watch',
      sentence: `Not turned for ${sinceTurn.toFixed(0)} h.`,
      why: 'Vinegar needs air: without turning, the middle stays behind the edge.',
      todo: 'Turn it today, outside in.',
    };
  return {
    tone: 'good',
    sentence:
      warm === null
        ? 'Going on; the middle has not been read.'
        : `${c(warm)} in the middle after ${at.toFixed(0)} h: a healthy run.`,
    why: `Usual at that hour: ${c(band.low)} to ${c(band.high)}.${cut ? ` ${cut.cutBrown} of ${cut.cut} cut beans brown so far.` : ''}`,
    todo:
      hours > 60 && !cut ? 'Cut ten beans: a brown ring and liquid within say when to stop, not the calendar.' : null,
  };
}

export interface DryingPoint {
  at: number;
  moisturePct: number | null;
  massG: number | null;
}

export interface DryingForecast {
  /** % by weight now, measured or worked out from the weight. */
  moisturePct: number | null;
  /** Grams to stop at, from weight and moisture read together. */
  targetG: number | null;
  /** When the target is reached at the pace so far, UTC ms. */
  readyAt: number | null;
  advice: Advice;
}

/** Water that beans hold in equilibrium in a dry place, % by weight: drying slows down towards it. */
const EQUILIBRIUM_PCT = 5.5;
const FAST_PCT_PER_DAY = 18;
/** Readings closer than this are one: the meter scatters more than beans dry. */
const LEAST_APART_MS = HOUR_MS;

/** Mass at which beans will have a moisture, dry matter staying: m·(100 − w)/(100 − w'). */
export const massAtMoisture = (massG: number, moisturePct: number, targetPct: number): number =>
  (massG * (100 - moisturePct)) / (100 - targetPct);

/** The newest reading; of several within the hour the wettest, for beans that are bagged too wet mould. */
function wettest<T extends { at: number; moisturePct: number }>(rows: readonly T[]): T | undefined {
  const last = rows.at(-1);
  return (
    last &&
    rows.filter(({ at }) => at > last.at - LEAST_APART_MS).reduce((a, b) => (b.moisturePct > a.moisturePct ? b : a))
  );
}

/**
 * Where a drying stands and when it will be done: moisture falls exponentially towards equilibrium, at the
 * pace of the last readings.
 *
 * @param targetPct 6 to 8
 */
export function dryingForecast(diary: readonly DryingPoint[], now: number, targetPct = 7): DryingForecast {
  const rows = [...diary].sort((a, b) => a.at - b.at);
  const both = rows.findLast((row) => row.moisturePct !== null && row.massG !== null);
  const dryG = both?.massG && both.moisturePct !== null ? both.massG * (1 - both.moisturePct / 100) : null;
  const wet = rows.flatMap((row) => {
    const moisturePct = row.moisturePct ?? (row.massG !== null && dryG !== null ? 100 * (1 - dryG / row.massG) : null);
    return moisturePct === null ? [] : [{ at: row.at, moisturePct }];
  });
  const newest = wettest(wet);
  const targetG = dryG === null ? null : dryG / (1 - targetPct / 100);
  if (!newest) {
    return {
      moisturePct: null,
      targetG: null,
      readyAt: null,
      advice: {
        tone: 'watch',
        sentence: 'No moisture read yet.',
        why: 'Weight and moisture read together once let the scale tell the rest.',
        todo: 'Weigh all of it and measure its moisture.',
      },
    };
  }
  const before = wet.findLast(({ at }) => at <= newest.at - LEAST_APART_MS);
  const fall = (a: number, b: number): number =>
    Math.log(Math.max(0.05, a - EQUILIBRIUM_PCT) / Math.max(0.05, b - EQUILIBRIUM_PCT));
  const pace = before ? fall(before.moisturePct, newest.moisturePct) / (newest.at - before.at) : 0;
  const readyAt =
    newest.moisturePct <= targetPct
      ? newest.at
      : pace > 0
        ? newest.at + fall(newest.moisturePct, targetPct) / pace
        : null;
  const perDay = before ? ((before.moisturePct - newest.moisturePct) / (newest.at - before.at)) * 24 * HOUR_MS : 0;
  return {
    moisturePct: newest.moisturePct,
    targetG,
    readyAt,
    advice: dryingAdvice(newest.moisturePct, targetPct, perDay, (now - newest.at) / HOUR_MS),
  };
}

function dryingAdvice(moisturePct: number, targetPct: number, perDay: number, agoHours: number): Advice {
  const at = `${moisturePct.toFixed(1)} %`;
  if (moisturePct < 5.8)
    return {
      tone: 'watch',
      sentence: `${at}: drier than it need be.`,
      why: 'Under 6 % the shell turns brittle.',
      todo: 'Bag it now.',
    };
  if (moisturePct <= targetPct + 0.3)
    return {
      tone: 'stop',
      sentence: `${at}: dry.`,
      why: `The aim is ${targetPct} %; 6 to 8 % keeps.`,
      todo: 'Let it cool in the shade, bag it, and weigh it in as dry.',
    };
  if (perDay > FAST_PCT_PER_DAY)
    return {
      tone: 'watch',
      sentence: `${at}, falling ${perDay.toFixed(0)} points a day: too fast.`,
      why: 'A shell that dries shut keeps the vinegar in: the bar will be sour.',
      todo: 'Heap it deeper or shade it at noon, and rake.',
    };
  if (agoHours > 20)
    return {
      tone: 'watch',
      sentence: `${at} when last read, ${agoHours.toFixed(0)} h ago.`,
      why: 'Wet beans mould within a day when nobody rakes.',
      todo: 'Rake it and read it.',
    };
  return {
    tone: 'good',
    sentence: `${at}: drying.`,
    why: `${(moisturePct - targetPct).toFixed(1)} points to go.`,
    todo: 'Rake through the day; cover it before rain and at night.',
  };
}
