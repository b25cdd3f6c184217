import type { LiveRoast, Setting } from '@wunsch/core/roast/records';
import {
  loadedOven,
  secondLater,
  seededLoad,
  type OvenLoad,
  type OvenState,
  type SimulatedOven,
} from '@wunsch/core/roast/simulated-oven';
import { seedOf } from './gauge';

export interface RoastReading {
  second: number;
  beanC: number | null;
  airC: number | null;
}

export interface RoastProbeMood {
  noiseC: number;
  stuck: boolean;
  unplugged: boolean;
  /** Roast seconds in a second of the clock, for the next roast that is started. */
  speed: number;
}

/** The simulated oven; nothing else knows these figures, and the fit has to do with a simpler law. */
export const SIMULATED_OVEN: SimulatedOven = {
  underC: 5,
  lagMin: 3.4,
  dipC: 28,
  shellPerMin: 1.1,
  kernelPerMin: 0.66,
  loadPower: 0.5,
  dryFade: 0.22,
  waterPerMin: 0.105,
  activation: 38_000,
  stirEveryMin: 9,
  stirDipC: 8,
  probeLagS: 20,
  probeShell: 0.35,
  scatter: 0.035,
};
/** A drum for a few hundred grams: quicker in everything, turned by itself. */
export const SIMULATED_DRUM: SimulatedOven = {
  ...SIMULATED_OVEN,
  underC: 7,
  lagMin: 1.6,
  dipC: 40,
  kernelPerMin: 0.8,
  loadPower: 0.35,
  stirDipC: 0,
  probeLagS: 14,
};
const ROOM_C = 20;

interface State {
  second: number;
  load: OvenLoad;
  oven: OvenState;
  /** How many stirrings it has felt. */
  stirs: number;
}

/** Chance that is the same for the same second of the same roast: between −1 and 1, roughly normal. */
function ripple(second: number, salt: number): number {
  let sum = 0;
  for (let k = 1; k <= 3; k += 1) {
    const x = Math.sin((second + 1) * 12.9898 * k + salt * 78.233) * 43758.5453;
    sum += x - Math.floor(x);
  }
  return (sum - 1.5) / 0.87;
}

/**
 * Bean and air probe of a simulated roaster. It follows the settings as they are made, a function of the roast's
 * seconds alone: after a restart it goes on where the roast would be.
 */
export class SimulatedRoastProbe {
  mood: RoastProbeMood = { noiseC: 0.4, stuck: false, unplugged: false, speed: 1 };
  private readonly states = new Map<string, State>();
  private readonly held = new Map<string, RoastReading>();

  /** @param key which roast; @param second whole roast seconds, rising; @param massG in the roaster */
  read(key: string, roast: LiveRoast, massG: number, second: number): RoastReading | null {
    const state = this.advanceTo(key, roast, massG, second);
    if (this.mood.unplugged) return null;
    const { noiseC } = this.mood;
    const live: RoastReading = {
      second,
      beanC: round(state.oven.probeC + noiseC * ripple(second, 1)),
      airC: round(state.oven.airC + 1.5 * noiseC * ripple(second, 2)),
    };
    if (!this.mood.stuck) {
      this.held.set(key, live);
      return live;
    }
    return { ...(this.held.get(key) ?? live), second };
  }

  forget(key: string): void {
    this.states.delete(key);
    this.held.delete(key);
  }

  private advanceTo(key: string, roast: LiveRoast, massG: number, second: number): State {
    const before = this.states.get(key);
    const state = before && before.second <= second ? before : begun(key, roast, massG);
    for (let s = state.second; s < second; s += 1) {
      const stirs = roast.stirs.filter((at) => at <= s).length;
      const setC = settingAt(roast.settings, s) ?? state.oven.airC;
      state.oven = secondLater(SIMULATED_OVEN, state.load, state.oven, { setC, stirred: stirs > state.stirs });
      state.stirs = stirs;
    }
    state.second = second;
    this.states.set(key, state);
    return state;
  }
}

/** A load at the moment it goes in; the same load has the same ways after a restart. */
function begun(key: string, roast: LiveRoast, massG: number): State {
  const load = seededLoad(
    SIMULATED_OVEN,
    {
      massG: Math.max(50, massG),
      moisture: (roast.moisturePct ?? 7) / 100,
      beanStartC: roast.beanStartC ?? ROOM_C,
      preheatC: roast.plan?.preheatC ?? roast.settings[0]?.setC ?? 140,
    },
    seedOf(key),
  );
  return { second: 0, load, oven: loadedOven(SIMULATED_OVEN, load), stirs: 0 };
}

const round = (value: number): number => Math.round(value * 10) / 10;

function settingAt(settings: readonly Setting[], second: number): number | null {
  let setC: number | null = null;
  for (const row of settings) if (row.second <= second) setC = row.setC;
  return setC;
}
