import { betaShare } from '../stats/distributions';
import { clumping } from '../stats/spread';
import { mondayOf } from '../units/zone';

export interface TrapCount {
  /** When the trap was emptied, UTC ms. */
  at: number;
  trap: string;
  moths: number;
  /** Days it had hung. */
  days: number;
}

export interface TrapWeek {
  /** Monday 00:00 of that week in the workshop's zone, UTC ms. */
  from: number;
  moths: number;
  trapDays: number;
  /** Moths per trap and week. */
  rate: number;
}

const DAY_MS = 86_400_000;
const WEEK_MS = 7 * DAY_MS;
/** So long after its Monday 00:00 it is still the same week, whatever its clocks do. */
const SURELY_IN_WEEK_MS = 5.5 * DAY_MS;

/** Adds counts up by week in the workshop's zone, oldest first; weeks without a count are left out. */
export function trapWeeks(counts: readonly TrapCount[], zone: string): TrapWeek[] {
  const weeks = new Map<number, TrapWeek>();
  let from = Infinity;
  for (const { at, moths, days } of counts) {
    // Traps are counted together: the week of one is mostly that of the next, and a zone's calendar takes its time.
    if (at < from || at >= from + SURELY_IN_WEEK_MS) from = mondayOf(at, zone);
    const week = weeks.get(from) ?? { from, moths: 0, trapDays: 0, rate: 0 };
    week.moths += moths;
    week.trapDays += days;
    weeks.set(from, week);
  }
  return [...weeks.values()]
    .map((week) => ({ ...week, rate: week.trapDays > 0 ? (7 * week.moths) / week.trapDays : 0 }))
    .sort((a, b) => a.from - b.from);
}

export interface TrapAlarm {
  tone: 'good' | 'watch' | 'unknown';
  week: TrapWeek | null;
  /** Moths per trap and week that the maker's own past lets expect. */
  expectedRate: number | null;
  /** Chance of so many or more if nothing has changed. */
  chance: number | null;
  basis: 'same season' | 'last weeks' | null;
  sentence: string;
  todo: string | null;
}

const ALARM = 0.01;
const SEASON_WEEKS = 3;
const RECENT_WEEKS = 8;
const ENOUGH_WEEKS = 3;

/**
 * The newest week against the maker's own past: the same season of earlier years where there is one, else the
 * last eight weeks. Moths hatch together, so counts scatter more than Poisson's: how much is estimated from those
 * weeks. With a rate known only from the past the newest count follows a negative binomial (gamma–Poisson
 * predictive, Jeffreys start); a chance under 1 % is an alarm.
 */
export function trapAlarm(weeks: readonly TrapWeek[]): TrapAlarm {
  const week = weeks.at(-1) ?? null;
  const nothing = { expectedRate: null, chance: null, basis: null, todo: null, week };
  if (!week || week.trapDays === 0)
    return {
      tone: 'unknown',
      ...nothing,
      sentence: 'No trap counted yet. Hang one in the bean store and count it every week.',
    };
  const earlier = weeks.slice(0, -1);
  const yearMs = 365.25 * DAY_MS;
  const sameSeason = earlier.filter(({ from }) => {
    const years = (week.from - from) / yearMs;
    return years > 0.5 && Math.abs(years - Math.round(years)) * yearMs <= SEASON_WEEKS * WEEK_MS;
  });
  const season = sameSeason.length >= ENOUGH_WEEKS;
  const past = season ? sameSeason : earlier.slice(-RECENT_WEEKS);
  if (past.length < ENOUGH_WEEKS)
    return {
      tone: 'unknown',
      ...nothing,
      sentence: `${week.moths} this week; too few weeks yet to know what is usual here.`,
    };
  const moths = past.reduce((sum, row) => sum + row.moths, 0);
  const trapDays = past.reduce((sum, row) => sum + row.trapDays, 0);
  const clumped = clumping(
    past.map((row) => ({ hits: row.moths, of: row.trapDays })),
    (expected) => expected,
    USUAL_CLUMPING,
  );
  // So many moths count as one: they hatch together.
  const shape = moths / clumped + 0.5;
  const p = trapDays / (trapDays + week.trapDays);
  const chance = week.moths === 0 ? 1 : atLeast(week.moths / clumped, shape, p);
  const expectedRate = (7 * (moths + 0.5 * clumped)) / trapDays;
  const basis = season ? 'same season' : 'last weeks';
  const than = `${expectedRate.toFixed(1)} a trap and week ${season ? 'at this season' : 'in the last weeks'}`;
  const alarm = chance < ALARM;
  return {
    tone: alarm ? 'watch' : 'good',
    week,
    expectedRate,
    chance,
    basis,
    sentence: alarm
      ? `${week.rate.toFixed(1)} moths a trap this week against ${than}: more than chance explains.`
      : `${week.rate.toFixed(1)} moths a trap this week, ${than}: as usual.`,
    todo: alarm
      ? 'Open the newest sacks and look along the seams for webbing; move what has it to quarantine; clean the floor and the corners; renew the lures.'
      : null,
  };
}

/** What is taken of moths that hatch together before the weeks have shown it. */
const USUAL_CLUMPING = { effect: 3.4, worth: 5, safe: 1.4 };

/** P(X ≥ k) of a negative binomial, its count and shape real: the regularised incomplete beta function. */
const atLeast = (k: number, shape: number, p: number): number => betaShare(1 - p, k, shape);
