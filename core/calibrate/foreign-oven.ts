import type { LoggedLoad } from '../src/roast/fit';
import type { ProgramStep, Setting } from '../src/roast/records';
import { normals, seeded } from '../src/stats/chance';

const { exp, max, min, round, floor } = Math;

/**
 * An oven with a physics of its own, to hold the fit against: beans of a shell and a kernel that exchange heat, water
 * that leaves the kernel, heat transfer that falls with the load and with the water that is left, air that stays
 * under its setting and dips when the load is stirred, a probe that lags. Nothing here is shared with the model that
 * the product fits.
 */
export interface ForeignOven {
  underC: number;
  lagMin: number;
  dipC: number;
  /** W-like: shell to air per minute at 5 kg. */
  shellPerMin: number;
  kernelPerMin: number;
  loadPower: number;
  dryFade: number;
  waterPerMin: number;
  activation: number;
  stirEveryMin: number;
  stirDipC: number;
  probeLagS: number;
  /** How much of the reading is the shell. */
  probeShell: number;
  scatter: number;
}

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

export function someOven(seed: number): ForeignOven {
  const { between } = stream(seed);
  return {
    underC: between(3, 8),
    lagMin: between(1.8, 5),
    dipC: between(15, 45),
    shellPerMin: between(0.55, 1.1),
    kernelPerMin: between(0.28, 0.5),
    loadPower: between(0.3, 0.8),
    dryFade: between(0.15, 0.45),
    waterPerMin: between(0.05, 0.12),
    activation: between(28_000, 46_000),
    stirEveryMin: between(4, 9),
    stirDipC: between(5, 14),
    probeLagS: 20,
    probeShell: between(0.2, 0.6),
    scatter: between(0.03, 0.08),
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
  what: 'door' | 'element';
  atMin: number;
  minutes: number;
}

/**
 * Roasts one load; `normal` makes this load unlike the next.
 *
 * @param everyS seconds between what is written down
 */
export function roastForeign(
  oven: ForeignOven,
  load: ForeignLoad,
  normal: Normal,
  trouble?: ForeignTrouble,
  everyS = 10,
): ForeignCurve {
  const h = 1 / 60;
  const written = max(1, round(everyS / 60 / h));
  const total = load.steps.reduce((sum, { minutes }) => sum + minutes, 0);
  const size = (load.massG / 5000) ** -oven.loadPower;
  const own = exp(oven.scatter * normal());
  const dryOwn = exp(1.2 * oven.scatter * normal());
  const under = oven.underC + 0.8 * normal();
  const moisture = max(0.03, load.moisture + 0.003 * normal());
  const water0 = moisture / (1 - moisture);
  let [shell, kernel, water] = [20, 20, water0];
  let air = load.preheatC - under - oven.dipC * (load.massG / 5000) ** 0.5;
  let probe = 20;
  let stirAt = oven.stirEveryMin;
  const curve: ForeignCurve = { minutes: [], beanC: [], airC: [], weightLeft: 0 };
  const n = round(total / h);
  for (let i = 0; i <= n; i += 1) {
    const minute = i * h;
    if (i % written === 0) {
      curve.minutes.push(minute);
      curve.beanC.push(probe);
      curve.airC.push(air);
    }
    let [setC, until] = [load.steps[0]?.setC ?? 150, 0];
    for (const step of load.steps) {
      setC = step.setC;
      until += step.minutes;
      if (minute < until - 1e-9) break;
    }
    if (minute >= stirAt) {
      air -= oven.stirDipC;
      stirAt += oven.stirEveryMin;
    }
    const wet = min(1, water / water0);
    const toShell = oven.shellPerMin * size * own * (1 - oven.dryFade * (1 - wet)) * (air - shell);
    const toKernel = oven.kernelPerMin * (shell - kernel);
    const drying =
      oven.waterPerMin *
      dryOwn *
      exp((-oven.activation / 8.314) * (1 / (kernel + 273.15) - 1 / 393.15)) *
      max(0, water - 0.006);
    const wrong = trouble && minute >= trouble.atMin && minute < trouble.atMin + trouble.minutes ? trouble.what : null;
    // An open door lets the room in at once; an oven without heat cools as slowly as its walls.
    if (wrong === 'door') air += (h * (70 - air)) / 0.4;
    else if (wrong === 'element') air += (h * (25 - air)) / (4 * oven.lagMin);
    else air += (h * (setC - under - air)) / oven.lagMin;
    // The shell is a sixth of the bean's heat; the kernel pays for most of the water.
    shell += h * (toShell - 1.6 * toKernel - 200 * drying);
    kernel += h * (0.55 * toKernel - 1100 * drying);
    water -= h * drying;
    const felt = oven.probeShell * shell + (1 - oven.probeShell) * kernel;
    probe += (h * (felt - probe)) / (oven.probeLagS / 60);
  }
  const volatiles = 0.006 + 0.001 * normal();
  curve.weightLeft = (1 - moisture) * (1 + water - volatiles) + 0.001 * normal();
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
  oven: ForeignOven,
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
