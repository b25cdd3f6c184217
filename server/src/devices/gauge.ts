import {
  grindSizes,
  readGauge,
  someStones,
  type SimulatedGrind,
  type SimulatedStones,
} from '@wunsch/core/grind/simulated-stones';
import type { Population } from '@wunsch/core/grind/fineness';
import { normals, seeded } from '@wunsch/core/stats/chance';

/** A number that is the same for the same word. */
export const seedOf = (word: string): number =>
  [...word].reduce((sum, letter) => (Math.imul(sum, 31) + letter.charCodeAt(0)) >>> 0, 7);

/** Share of each of the solids, roughly: the gauge only knows that they are there. */
const SHARE = { cocoa: 0.65, sugar: 0.3, milk: 0.2 };

/** Stones of a machine as the simulated instruments have them. */
export const stonesOf = (machineId: string): SimulatedStones => ({
  ...someStones(seedOf(machineId)),
  pace: 0.05,
  bias: 0.01,
  readTo: 1,
});

export const simulatedGrind = (
  machineId: string,
  batchId: string,
  massG: number,
  populations: readonly Population[],
  own = 1,
): SimulatedGrind => ({
  stones: { ...stonesOf(machineId), usualG: massG },
  number: 0,
  massG,
  fed: populations.map(({ solid, atH }) => ({ solid, atH, share: SHARE[solid] })),
  own,
  seed: seedOf(batchId),
});

/** What a gauge shows of a draw-down: the mean, and in each channel the dense band and where single streaks begin, µm. */
export interface GaugeReading {
  micron: number | null;
  channels: number[];
  streaks: number[];
}

const CHANNELS = 2;
/** Single grains stand out over the band by so many parts. */
const STREAKS = 1.35;

/** A fineness gauge that reads a made-up mass: other stones than the forecast knows, read by eye. */
export class SimulatedGauge {
  /** What its reader says; nothing where nothing was ground yet. @param hours running hours @param at moment, for the eye */
  read(
    run: { batch: { id: string }; machineId: string | null; massG: number; populations: readonly Population[] },
    hours: number,
    at: number,
  ): GaugeReading {
    const none = { micron: null, channels: [], streaks: [] };
    if (run.populations.length === 0) return none;
    const grind = simulatedGrind(run.machineId ?? 'stones', run.batch.id, Math.max(1, run.massG), run.populations);
    const size = grindSizes(grind, hours).at(-1);
    if (size === undefined || !Number.isFinite(size)) return none;
    const normal = normals(seeded(seedOf(run.batch.id) + Math.floor(at / 60_000)));
    const channels = Array.from({ length: CHANNELS }, () => readGauge(grind.stones, size, normal));
    return {
      micron: Math.round((10 * channels.reduce((sum, value) => sum + value, 0)) / CHANNELS) / 10,
      channels,
      streaks: channels.map((band) => Math.max(band, readGauge(grind.stones, size * STREAKS, normal))),
    };
  }
}
