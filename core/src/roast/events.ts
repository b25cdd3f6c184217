import type { SmoothCurve, Stretch } from './curve';
import type { Setting } from './records';

export interface Stall extends Stretch {
  /** How much warmer the air (or the setting) was than the beans, °C, on the mean. */
  warmerC: number;
}

export interface Jump extends Stretch {
  /** Fastest climb in it, °C/min, and the climb a minute before it. */
  perMin: number;
  beforePerMin: number;
}

/** The first minutes are the load's own: a probe between cold beans and hot air says little. */
const SETTLED_S = 150;
const STILL_PER_MIN = 0.4;
const STILL_S = 60;
const WARMER_C = 15;
/** A stall is sudden: so long before it the beans still climbed so fast, and it was hardly warmer around them. */
const SUDDEN_S = 75;
const CLIMBING_PER_MIN = 2;
const STILL_WARM = 0.9;
const JUMP_TIMES = 1.8;
const JUMP_PER_MIN = 4;
const JUMP_S = 12;
const BEFORE_S = 60;
/** A setting that was raised explains a faster climb for so long. */
const RAISED_S = 300;

const settingAt = (settings: readonly Setting[], second: number): number | null => {
  let setC: number | null = null;
  for (const row of settings) if (row.second <= second) setC = row.setC;
  return setC;
};

/** Runs of points for which something holds, as stretches of at least `leastS` seconds. */
function runs(seconds: ArrayLike<number>, holds: (index: number) => boolean, leastS: number): [number, number][] {
  const found: [number, number][] = [];
  let from = -1;
  for (let i = 0; i <= seconds.length; i += 1) {
    if (i < seconds.length && holds(i)) {
      if (from < 0) from = i;
    } else if (from >= 0) {
      if ((seconds[i - 1] ?? 0) - (seconds[from] ?? 0) >= leastS) found.push([from, i - 1]);
      from = -1;
    }
  }
  return found;
}

/**
 * Where the beans stopped climbing though it stayed well warmer around them (by the air probe or the setting, whichever
 * is more): a door left open, an element that failed, a load that was wet in the middle. Beans that come to rest
 * slowly, as the water takes what the air gives, are no stall.
 */
export function stallsIn(curve: SmoothCurve, settings: readonly Setting[]): Stall[] {
  const { seconds, beanC, climb, airC } = curve;
  const warmer = (i: number): number => {
    const [air, set] = [airC[i] ?? NaN, settingAt(settings, seconds[i] ?? 0) ?? NaN];
    const around = Number.isFinite(air) ? Math.max(air, Number.isFinite(set) ? set : air) : set;
    return around - (beanC[i] ?? NaN);
  };
  const still = (i: number): boolean =>
    (seconds[i] ?? 0) >= SETTLED_S && (climb[i] ?? NaN) <= STILL_PER_MIN && warmer(i) >= WARMER_C;
  const back = stepsIn(seconds, SUDDEN_S);
  const sudden = (from: number): boolean =>
    (climb[from - back] ?? NaN) >= CLIMBING_PER_MIN && warmer(from) >= STILL_WARM * warmer(from - back);
  return runs(seconds, still, STILL_S)
    .filter(([from]) => sudden(from))
    .map(([from, to]) => {
      let sum = 0;
      for (let i = from; i <= to; i += 1) sum += warmer(i);
      return { fromS: seconds[from] ?? 0, toS: seconds[to] ?? 0, warmerC: sum / (to - from + 1) };
    });
}

/** How many points of an even grid make so many seconds. */
const stepsIn = (seconds: ArrayLike<number>, span: number): number =>
  Math.max(1, Math.round(span / ((seconds[1] ?? 1) - (seconds[0] ?? 0))));

/** Where the beans warmed far faster than a minute before, and no setting had been raised. */
export function jumpsIn(curve: SmoothCurve, settings: readonly Setting[]): Jump[] {
  const { seconds, climb } = curve;
  const back = stepsIn(seconds, BEFORE_S);
  const raised = settings.filter((row, i) => i > 0 && row.setC > (settings[i - 1]?.setC ?? row.setC));
  const explained = (second: number): boolean =>
    raised.some((row) => second >= row.second && second <= row.second + RAISED_S);
  const before = (i: number): number => Math.max(0, climb[i - back] ?? NaN);
  const jumps = (i: number): boolean => {
    const [now, then] = [climb[i] ?? NaN, before(i)];
    return (
      (seconds[i] ?? 0) >= SETTLED_S + BEFORE_S &&
      now - then >= JUMP_PER_MIN &&
      now >= JUMP_TIMES * then &&
      !explained(seconds[i] ?? 0)
    );
  };
  return runs(seconds, jumps, JUMP_S).map(([from, to]) => ({
    fromS: seconds[from] ?? 0,
    toS: seconds[to] ?? 0,
    perMin: Math.max(...Array.from({ length: to - from + 1 }, (_, i) => climb[from + i] ?? 0)),
    beforePerMin: before(from),
  }));
}
