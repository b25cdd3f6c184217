import { advance, dryBasis } from '@wunsch/core/roast/model';
import type { LiveRoast, Setting } from '@wunsch/core/roast/records';
import { airAfter, airAtStart } from '@wunsch/core/roast/simulate';

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

/** What the simulated roasters do; nothing else knows these figures, the fit has to find them. */
export const HIDDEN = {
  warmingPerMin: 0.19,
  dryingPerMin: 0.105,
  lagMin: 3.4,
  dipC: 28,
  underC: 5,
  massG: 5000,
  power: 0.5,
};
const ROOM_C = 20;
const STEP_S = 1;

interface State {
  second: number;
  beanC: number;
  water: number;
  airC: number;
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
      beanC: round(state.beanC + noiseC * ripple(second, 1)),
      airC: round(state.airC + 1.5 * noiseC * ripple(second, 2)),
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
    let state = this.states.get(key);
    if (!state || state.second > second) {
      state = {
        second: 0,
        beanC: roast.beanStartC ?? ROOM_C,
        water: dryBasis((roast.moisturePct ?? 7) / 100),
        airC: airAtStart(roast.plan?.preheatC ?? roast.settings[0]?.setC ?? 140, HIDDEN),
      };
    }
    const parameters = {
      warmingPerMin: HIDDEN.warmingPerMin * (HIDDEN.massG / Math.max(50, massG)) ** HIDDEN.power,
      dryingPerMin: HIDDEN.dryingPerMin,
    };
    let { beanC, water, airC } = state;
    for (let s = state.second; s < second; s += STEP_S) {
      const setC = settingAt(roast.settings, s) ?? airC;
      const from = airC;
      const airAt = (minute: number): number => airAfter(from, setC, minute - s / 60, HIDDEN);
      [beanC, water] = advance(beanC, water, s / 60, STEP_S / 60, airAt, parameters);
      airC = airAt((s + STEP_S) / 60);
    }
    state = { second, beanC, water, airC };
    this.states.set(key, state);
    return state;
  }
}

const round = (value: number): number => Math.round(value * 10) / 10;

function settingAt(settings: readonly Setting[], second: number): number | null {
  let setC: number | null = null;
  for (const row of settings) if (row.second <= second) setC = row.setC;
  return setC;
}
