import type { ScaleReading } from '@wunsch/core/api/devices';
import { seeded } from '@wunsch/core/stats/chance';

export interface ScaleDriver {
  read(): ScaleReading;
}

export interface ScaleMood {
  noiseG: number;
  stuck: boolean;
  unplugged: boolean;
}

/** Seconds after which a load on the simulated platform has settled to 5 %. */
const SETTLE_S = 0.9;

/**
 * A simulated bench scale: a load settles exponentially, with noise, in steps of 1 g; it can be stuck or
 * unplugged. A real instrument posts its readings over HTTP instead and takes over for a while.
 */
export class SimulatedScale implements ScaleDriver {
  private target = 0;
  private from = 0;
  private since: number;
  private outside: { massG: number; at: number } | null = null;
  mood: ScaleMood = { noiseG: 0.6, stuck: false, unplugged: false };
  private readonly random: () => number;
  private frozen: number | null = null;

  constructor(
    private readonly now: () => number,
    seed = 7,
  ) {
    this.random = seeded(seed);
    this.since = now();
  }

  /** Puts a load on the platform. */
  place(massG: number): void {
    this.from = this.mass();
    this.target = massG;
    this.since = this.now();
    this.outside = null;
  }

  /** A reading from an instrument outside; it counts for five seconds. */
  post(massG: number): void {
    this.outside = { massG, at: this.now() };
  }

  private mass(): number {
    const share = Math.exp((-3 * (this.now() - this.since)) / 1000 / SETTLE_S);
    return this.target + (this.from - this.target) * share;
  }

  read(): ScaleReading {
    const at = this.now();
    if (this.outside && at - this.outside.at < 5000) {
      return { massG: this.outside.massG, stable: true, simulated: false, unplugged: false, at };
    }
    const noise = (this.random() - 0.5) * 2 * this.mood.noiseG;
    const live = Math.round(this.mass() + noise);
    if (this.mood.stuck) this.frozen ??= live;
    else this.frozen = null;
    const stable = (at - this.since) / 1000 > SETTLE_S * 1.4 && this.mood.noiseG < 3;
    return { massG: this.frozen ?? live, stable, simulated: true, unplugged: this.mood.unplugged, at };
  }
}
