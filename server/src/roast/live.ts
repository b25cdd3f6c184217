import { changeRoast } from './work';
import { curveOf, type Curve } from '@wunsch/core/roast/curve';
import { elapsedS, isDue, nextSetting } from '@wunsch/core/roast/live';
import type { LiveRoast } from '@wunsch/core/roast/records';
import type { Work } from '@wunsch/core/workshop/work';
import type { RoastReading, SimulatedRoastProbe } from '../devices/roast-probe';
import type { CurveRow } from '../store/curves';
import type { Workshop } from '../journal/workshop';

/** Milliseconds between two looks at the probes. */
const TICK_MS = 250;
/** Milliseconds between two times that the readings become durable. */
const KEEP_MS = 3000;
/** The probe is asked for what it would have said within so many milliseconds, no further back: that is a gap. */
const BACK_MS = 2500;
/** A forgotten roast is not logged for ever. */
const LONGEST_S = 4 * 3600;
/** Readings this close are of one moment; and this far apart they are kept then, seconds. */
const SAME_S = 1;
const LEAST_S = 0.001;
/** A probe that sent nothing for so long is silent, milliseconds. */
const SILENT_MS = 4000;

const NOT_KEPT =
  'The readings cannot be written to disk. They are kept here in memory and tried again; look whether the disk is full.';
const NOT_FOLLOWED = 'The roast cannot be followed at the moment; it is tried again.';

interface Recording {
  readings: [second: number, beanC: number, airC: number][];
  heardAt: number;
  dirty: boolean;
}

/**
 * Follows every roast that is live: asks the simulated probe, takes what real ones send, keeps it all in memory and in
 * the database, and moves a roaster that sets itself on to its next step.
 */
export class LiveRoasts {
  private readonly recordings = new Map<string, Recording>();
  private readonly listeners = new Set<() => void>();
  private keptAt = 0;
  private busy = false;
  private keeping: Promise<void> | null = null;
  private readonly troubles = new Map<string, string>();

  constructor(
    private readonly workshop: Workshop,
    private readonly probe: SimulatedRoastProbe,
    /** Where failures in the background are told; nothing here may end the process. */
    private readonly log: (error: unknown) => void = () => undefined,
  ) {}

  /** Readings so far, from the `from`th. */
  async curve(work: Work): Promise<Curve> {
    return curveOf((await this.recording(work)).readings);
  }

  /** How many readings there are, without asking the database. */
  count(work: Work): number {
    return this.recordings.get(work.id)?.readings.length ?? 0;
  }

  since(work: Work, from: number): Curve {
    return curveOf(this.recordings.get(work.id)?.readings.slice(from) ?? []);
  }

  isSilent(work: Work): boolean {
    const heardAt = this.recordings.get(work.id)?.heardAt ?? 0;
    return this.workshop.now() - Math.max(heardAt, work.startedAt) > SILENT_MS;
  }

  /** What went wrong with a roast's readings behind the scenes, in words; null while all is well. */
  trouble(workId: string): string | null {
    return this.troubles.get(workId) ?? null;
  }

  private failed(workId: string, what: string, error: unknown): void {
    this.troubles.set(workId, what);
    this.log(error);
  }

  onTick(listener: () => void): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  private async recording(work: Work): Promise<Recording> {
    let recording = this.recordings.get(work.id);
    if (!recording) {
      const kept = work.roast ? await this.workshop.readCurve(work.roast.curveId) : null;
      const readings = kept
        ? Array.from(kept.seconds, (second, i): [number, number, number] => [
            second,
            kept.beanC[i] ?? NaN,
            kept.airC[i] ?? NaN,
          ])
        : [];
      recording = this.recordings.get(work.id) ?? { readings, heardAt: 0, dirty: false };
      this.recordings.set(work.id, recording);
    }
    return recording;
  }

  /** A live roast's curve as it stands, to be kept with its load; null where nothing was read. */
  row(work: Work): CurveRow | null {
    const readings = this.recordings.get(work.id)?.readings ?? [];
    if (!work.roast || readings.length === 0) return null;
    return rowOf(this.workshop, work, work.roast, curveOf(readings));
  }

  /**
   * Takes a reading. One that comes within the same moment as the newest stands right behind it; one that is older,
   * because the clock of this machine was set back, is not taken.
   *
   * @returns whether it was taken
   */
  async take(work: Work, reading: RoastReading): Promise<boolean> {
    const recording = await this.recording(work);
    const last = recording.readings.at(-1)?.[0] ?? -1;
    if (reading.second <= last - SAME_S) return false;
    const second = reading.second > last ? reading.second : Math.round((last + LEAST_S) * 1000) / 1000;
    recording.readings.push([second, reading.beanC ?? NaN, reading.airC ?? NaN]);
    recording.heardAt = this.workshop.now();
    recording.dirty = true;
    return true;
  }

  /** One look at everything. */
  async tick(): Promise<void> {
    if (this.busy) return;
    this.busy = true;
    try {
      const now = this.workshop.now();
      const live = [...this.workshop.works.values()].filter((work) => work.roast);
      for (const work of live) {
        try {
          await this.follow(work, now);
          if (this.troubles.get(work.id) === NOT_FOLLOWED) this.troubles.delete(work.id);
        } catch (error) {
          this.failed(work.id, NOT_FOLLOWED, error);
        }
      }
      for (const id of this.recordings.keys()) {
        if (this.workshop.works.has(id)) continue;
        this.recordings.delete(id);
        this.troubles.delete(id);
        this.probe.forget(id);
      }
      if (now - this.keptAt >= KEEP_MS) {
        this.keptAt = now;
        // What could not be written stays in memory and is tried again; the screen says so meanwhile.
        await this.keep().catch(() => undefined);
      }
      for (const listener of this.listeners) listener();
    } finally {
      this.busy = false;
    }
  }

  private async follow(work: Work, now: number): Promise<void> {
    const { roast } = work;
    if (!roast || roast.seconds !== null) return;
    const recording = await this.recording(work);
    const second = Math.floor(elapsedS(roast, work.startedAt, now));
    if (second > LONGEST_S) return;
    if (roast.probe === 'simulated') {
      const massG = work.sources.reduce((sum, { massMg }) => sum + massMg, 0) / 1000;
      const last = recording.readings.at(-1)?.[0] ?? -1;
      for (let s = Math.max(last + 1, second - Math.ceil((BACK_MS / 1000) * roast.speed)); s <= second; s += 1) {
        const reading = this.probe.read(work.id, roast, massG, s);
        if (reading) await this.take(work, reading);
        if (await this.stepOn(work, s, reading?.beanC ?? null)) break;
      }
    } else await this.stepOn(work, second, recording.readings.at(-1)?.[1] ?? null);
  }

  /** Goes on to the next step on a roaster that sets itself. @returns whether it did */
  private async stepOn(work: Work, second: number, beanC: number | null): Promise<boolean> {
    const { roast } = work;
    if (!roast || !setsItself(this.workshop, work) || !isDue(roast, second, beanC)) return false;
    const next = nextSetting(roast, second);
    if (!next) return false;
    await this.workshop.exclusively(async () => {
      if (!this.workshop.works.has(work.id)) return;
      changeRoast(this.workshop, work.id, (now) => ({ ...now, settings: [...now.settings, next] }));
      await this.workshop.commit();
    });
    return true;
  }

  /** Makes what was read durable. Who asks while it is being written waits for the next writing. */
  async keep(): Promise<void> {
    while (this.keeping) await this.keeping;
    this.keeping = this.writeAll().finally(() => (this.keeping = null));
    await this.keeping;
  }

  /** @throws the first failure, after everything was tried */
  private async writeAll(): Promise<void> {
    const failures: unknown[] = [];
    for (const work of this.workshop.works.values()) {
      const recording = this.recordings.get(work.id);
      if (!work.roast || !recording?.dirty) continue;
      recording.dirty = false;
      try {
        await this.workshop.keepCurve(rowOf(this.workshop, work, work.roast, curveOf(recording.readings)));
        if (this.troubles.get(work.id) === NOT_KEPT) this.troubles.delete(work.id);
      } catch (error) {
        recording.dirty = true;
        failures.push(error);
        this.failed(work.id, NOT_KEPT, error);
      }
    }
    if (failures.length > 0) throw failures[0];
  }

  /** Looks after the probes until stopped. @returns stop, which keeps what was read */
  watch(): () => Promise<void> {
    const timer = setInterval(() => void this.tick().catch(this.log), TICK_MS);
    return async () => {
      clearInterval(timer);
      while (this.busy) await new Promise((resolve) => setTimeout(resolve, 10));
      await this.keep().catch(this.log);
    };
  }
}

const setsItself = (workshop: Workshop, { machineId }: Work): boolean =>
  machineId !== null && workshop.machines.get(machineId)?.roaster?.setBy === 'itself';

/** A live roast's curve as it is kept. */
export const rowOf = (workshop: Workshop, work: Work, roast: LiveRoast, curve: Curve) => ({
  id: roast.curveId,
  loadId: null,
  name: work.sources.map(({ holdingId }) => workshop.book.holding(holdingId).code).join(' + '),
  source: roast.probe,
  startedAt: work.startedAt,
  readings: curve.seconds.length,
  curve,
});
