import type { LoggedLoad } from '../src/roast/fit';
import type { ProgramStep, Setting } from '../src/roast/records';
import {
  loadedOven,
  ovenWeightLeft,
  secondLater,
  someLoad,
  type OvenSecond,
  type SimulatedOven,
} from '../src/roast/simulated-oven';
import { normals, seeded } from '../src/stats/chance';

const { max, round, floor } = Math;

/* Loads on simulated ovens, as they are logged, to hold the fit against. */

export interface ForeignLoad {
  massG: number;
  steps: readonly ProgramStep[];
  preheatC: number;
  moisture: number;
}

export type Normal = () => number;

/** A stream of chance and of normal deviates. */
export function stream(seed: number): {
  chance: () => number;
  normal: Normal;
  between: (a: number, b: number) => number;
} {
  const chance = seeded(seed);
  return {
    chance,
    normal: normals(chance),
    between: (a, b) => a + (b - a) * chance(),
  };
}

export interface ForeignCurve {
  minutes: number[];
  /** As the probe says it, without noise. */
  beanC: number[];
  airC: number[];
  weightLeft: number;
}

/** Something that goes wrong: the door stands open, or the heat fails. */
export interface ForeignTrouble {
  what: NonNullable<OvenSecond['wrong']>;
  atMin: number;
  minutes: number;
}

/**
 * Roasts one load; `normal` makes this load unlike the next.
 *
 * @param everyS seconds between what is written down
 */
export function roastForeign(
  oven: SimulatedOven,
  load: ForeignLoad,
  normal: Normal,
  trouble?: ForeignTrouble,
  everyS = 10,
): ForeignCurve {
  const written = max(1, round(everyS));
  const total = load.steps.reduce((sum, { minutes }) => sum + minutes, 0);
  const own = someLoad(oven, { ...load, beanStartC: 20 }, normal);
  let state = loadedOven(oven, own);
  let stirAt = oven.stirEveryMin;
  const curve: ForeignCurve = { minutes: [], beanC: [], airC: [], weightLeft: 0 };
  const n = round(60 * total);
  for (let i = 0; i <= n; i += 1) {
    const minute = i / 60;
    if (i % written === 0) {
      curve.minutes.push(minute);
      curve.beanC.push(state.probeC);
      curve.airC.push(state.airC);
    }
    let [setC, until] = [load.steps[0]?.setC ?? 150, 0];
    for (const step of load.steps) {
      setC = step.setC;
      until += step.minutes;
      if (minute < until - 1e-9) break;
    }
    const stirred = minute >= stirAt;
    if (stirred) stirAt += oven.stirEveryMin;
    const wrong = trouble && minute >= trouble.atMin && minute < trouble.atMin + trouble.minutes ? trouble.what : null;
    state = secondLater(oven, own, state, { setC, stirred, wrong });
  }
  curve.weightLeft = ovenWeightLeft(own, state, 0.006 + 0.001 * normal()) + 0.001 * normal();
  return curve;
}

export const settingsOf = (steps: readonly ProgramStep[]): Setting[] => {
  let second = 0;
  return steps.map(({ setC, minutes }, step) => {
    const row = { second, setC, step };
    second += 60 * minutes;
    return row;
  });
};

/** A load as it is logged: noise on the probes, every ten seconds. */
export function logForeign(
  oven: SimulatedOven,
  load: ForeignLoad,
  normal: Normal,
  { air = true, code = 'T1' }: { air?: boolean; code?: string } = {},
): LoggedLoad {
  const curve = roastForeign(oven, load, normal);
  return {
    code,
    massG: load.massG,
    layerMm: null,
    moisture: load.moisture,
    beanStartC: 20,
    weightLeft: curve.weightLeft,
    settings: settingsOf(load.steps),
    preheatC: load.preheatC,
    minutes: curve.minutes,
    beanC: curve.beanC.map((c) => c + 0.5 * normal()),
    airC: air ? curve.airC.map((c) => c + 0.7 * normal()) : [],
  };
}

/** A program as this workshop roasts: two to four steps, mostly falling. */
export function someProgram(
  { between, chance }: ReturnType<typeof stream>,
  shift = 0,
): { steps: ProgramStep[]; preheatC: number } {
  const top = between(148, 166) + shift;
  const count = 2 + floor(3 * chance());
  const steps = Array.from({ length: count }, (_, i) => ({
    setC: round(top - i * between(4, 12)),
    minutes: round(between(18, 30) / count),
    until: null,
    note: '',
  }));
  return { steps, preheatC: round(top + between(-2, 8)) };
}
