import { bestReading, forecastGrind, type GrindQuestion } from '../src/grind/forecast';
import { priorFrom, type GrindEvidence } from '../src/grind/prior';
import { someStones } from '../src/grind/simulated-stones';
import { foreignGrind, foreignPast, lookTimes, TARGET, type ForeignGrind } from './foreign-stones';

export interface Held {
  held: number;
  tooSoon: number;
  /** Middle width of the intervals, as a share of the time it took. */
  width: number;
  of: number;
}

/** Machines are apart from each other by so much. */
const STRIDE = 17;
/** Grinds that share a machine and its past, where learning it takes long. */
const SHARED = 6;

const known = new Map<string, GrindEvidence[]>();
function pastOf(machine: number, count: number): GrindEvidence[] {
  const key = `${machine}.${count}`;
  const found = known.get(key) ?? foreignPast(someStones(machine), count, machine * 7);
  known.set(key, found);
  return found;
}

/** A foreign grind with so many readings before it is at target; null where that is not so. */
function question(n: number, readings: number, past: number): { one: ForeignGrind; asked: GrindQuestion } | null {
  const machine = 1000 + STRIDE * (past > 10 ? Math.floor(n / SHARED) : n);
  const one = foreignGrind(someStones(machine), past, 15_485_863 + 982_451 * n);
  if (!Number.isFinite(one.outcomeH)) return null;
  const times = lookTimes(readings, one.outcomeH, n).filter((time) => time < one.outcomeH);
  if (times.length < readings) return null;
  const prior = priorFrom(past === 0 ? [] : pastOf(machine, past), one.grind.massG, 'a');
  return {
    one,
    asked: {
      populations: one.populations,
      readings: one.read(times),
      targetMicron: TARGET,
      prior,
      nowH: times.at(-1) ?? 0,
    },
  };
}

/** How often what came lay between the sooner and the later end of a forecast. */
export function heldForecasts(grinds: number, readings: number, past: number): Held {
  let [held, tooSoon, of] = [0, 0, 0];
  const widths: number[] = [];
  for (let n = 0; of < grinds && n < 4 * grinds; n += 1) {
    const found = question(n, readings, past);
    if (!found) continue;
    const { one, asked } = found;
    const { p10, p90 } = forecastGrind(asked);
    of += 1;
    if (one.outcomeH >= p10 && one.outcomeH <= p90) held += 1;
    if (one.outcomeH < p10) tooSoon += 1;
    widths.push((p90 - p10) / one.outcomeH);
  }
  const middle = widths.sort((a, b) => a - b)[Math.floor(widths.length / 2)] ?? NaN;
  return { held: held / of, tooSoon: tooSoon / of, width: middle, of };
}

/** Width of the forecast after one more reading: chosen by what it would tell, against the next morning. */
export function chosenAgainstDaily(grinds: number): { chosen: number; daily: number; of: number } {
  let [chosen, daily, of] = [0, 0, 0];
  for (let n = 0; of < grinds && n < 4 * grinds; n += 1) {
    const found = question(n, 1, 3);
    if (!found) continue;
    const { one, asked } = found;
    const forecast = forecastGrind(asked);
    const tomorrow = asked.nowH + 24;
    const candidates = Array.from({ length: 24 }, (_, i) => asked.nowH + 2 + 2 * i).filter(
      (hour) => hour < one.outcomeH,
    );
    const best = bestReading(forecast, asked, candidates);
    if (!best || tomorrow >= one.outcomeH) continue;
    const after = (atH: number): number => {
      const { p10, p90 } = forecastGrind({ ...asked, readings: [...asked.readings, ...one.read([atH])], nowH: atH });
      return Math.min(p90, 400) - p10;
    };
    of += 1;
    chosen += after(best.atH);
    daily += after(tomorrow);
  }
  return { chosen: chosen / of, daily: daily / of, of };
}
