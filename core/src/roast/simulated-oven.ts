import { normals, seeded } from '../stats/chance';

const { exp, max, min } = Math;

/*
 * An oven that is made up, for simulated probes, the demo and the tests. Nothing is foretold with it: its beans have a
 * shell and a kernel that exchange heat, they take on less warmth as they dry, the air stays under its setting and dips
 * when the load is stirred, the probe lags. None of this is shared with the model that is fitted.
 */

/** An oven, as nobody can see it. */
export interface SimulatedOven {
  /** How far under its setting the air comes to rest, °C. */
  underC: number;
  /** Minutes in which the air comes two thirds of the way to a new setting. */
  lagMin: number;
  /** How far the air falls when 5 kg go in, °C. */
  dipC: number;
  /** Air to shell, 1/min, at 5 kg; it falls with the load to a power. */
  shellPerMin: number;
  kernelPerMin: number;
  loadPower: number;
  /** By how much less warmth dry beans take on, share. */
  dryFade: number;
  /** How fast water leaves the kernel at 120 °C, 1/min. */
  waterPerMin: number;
  /** J/mol. */
  activation: number;
  /** How often somebody stirs, minutes, and how far the air falls then, °C. */
  stirEveryMin: number;
  stirDipC: number;
  probeLagS: number;
  /** How much of the reading is the shell, 0 to 1. */
  probeShell: number;
  /** How unlike one load is to the next, as a deviation of the logarithm of its rates. */
  scatter: number;
}

/** A workshop's oven, by chance. */
export function someOven(seed: number): SimulatedOven {
  const chance = seeded(seed);
  const between = (a: number, b: number): number => a + (b - a) * chance();
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

/** A load as it goes in, and what makes it unlike the next. */
export interface OvenLoad {
  massG: number;
  /** Share of the wet weight. */
  moisture: number;
  beanStartC: number;
  preheatC: number;
  own: { warming: number; drying: number; underC: number };
}

/** A load with its own ways, drawn from how far one is from the next on this oven. */
export function someLoad(oven: SimulatedOven, load: Omit<OvenLoad, 'own'>, normal: () => number): OvenLoad {
  const own = {
    warming: exp(oven.scatter * normal()),
    drying: exp(1.2 * oven.scatter * normal()),
    underC: 0.8 * normal(),
  };
  return { ...load, moisture: max(0.03, load.moisture + 0.003 * normal()), own };
}

/** A load that a seed stands for. */
export const seededLoad = (oven: SimulatedOven, load: Omit<OvenLoad, 'own'>, seed: number): OvenLoad =>
  someLoad(oven, load, normals(seeded(seed)));

/** What goes on in the oven, °C; water in g per g dry. */
export interface OvenState {
  shellC: number;
  kernelC: number;
  water: number;
  airC: number;
  /** What the probe among the beans says, without noise. */
  probeC: number;
}

const waterOf = ({ moisture }: OvenLoad): number => moisture / (1 - moisture);

/** The moment at which a load goes in. */
export const loadedOven = (oven: SimulatedOven, load: OvenLoad): OvenState => ({
  shellC: load.beanStartC,
  kernelC: load.beanStartC,
  water: waterOf(load),
  airC: load.preheatC - oven.underC - load.own.underC - oven.dipC * (load.massG / 5000) ** 0.5,
  probeC: load.beanStartC,
});

/** What is done to an oven in a second, or goes wrong in it: the door stands open, the heat fails. */
export interface OvenSecond {
  setC: number;
  stirred?: boolean;
  wrong?: 'door' | 'element' | null;
}

const H_MIN = 1 / 60;
const GAS = 8.314;
const REFERENCE_K = 393.15;
/** Water that does not leave, g per g dry. */
const BOUND = 0.006;

/** An oven a second on. @returns the state after it; the one before is left as it was */
export function secondLater(
  oven: SimulatedOven,
  load: OvenLoad,
  { shellC, kernelC, water, airC: before, probeC }: OvenState,
  { setC, stirred = false, wrong = null }: OvenSecond,
): OvenState {
  const airC = stirred ? before - oven.stirDipC : before;
  const size = (load.massG / 5000) ** -oven.loadPower;
  const wet = min(1, water / waterOf(load));
  const toShell = oven.shellPerMin * size * load.own.warming * (1 - oven.dryFade * (1 - wet)) * (airC - shellC);
  const toKernel = oven.kernelPerMin * (shellC - kernelC);
  const drying =
    oven.waterPerMin *
    load.own.drying *
    exp((-oven.activation / GAS) * (1 / (kernelC + 273.15) - 1 / REFERENCE_K)) *
    max(0, water - BOUND);
  // An open door lets the room in at once; an oven without heat cools as slowly as its walls.
  const air =
    wrong === 'door'
      ? (70 - airC) / 0.4
      : wrong === 'element'
        ? (25 - airC) / (4 * oven.lagMin)
        : (setC - oven.underC - load.own.underC - airC) / oven.lagMin;
  // The shell is a sixth of the bean's heat; the kernel pays for most of the water.
  const shell = shellC + H_MIN * (toShell - 1.6 * toKernel - 200 * drying);
  const kernel = kernelC + H_MIN * (0.55 * toKernel - 1100 * drying);
  const felt = oven.probeShell * shell + (1 - oven.probeShell) * kernel;
  return {
    shellC: shell,
    kernelC: kernel,
    water: water - H_MIN * drying,
    airC: airC + H_MIN * air,
    probeC: probeC + (H_MIN * (felt - probeC)) / (oven.probeLagS / 60),
  };
}

/** Weight out over weight in: water and volatiles are gone. @param volatiles share of the dry weight */
export const ovenWeightLeft = ({ moisture }: OvenLoad, { water }: OvenState, volatiles: number): number =>
  (1 - moisture) * (1 + water - volatiles);
