import { changeRoast } from './work';
import { ROAST_CHANNELS, roastCurve, type Curve } from '@wunsch/core/roast/curve';
import { isDue, nextSetting, roastClock } from '@wunsch/core/roast/live';
import type { LiveRoast } from '@wunsch/core/roast/records';
import { elapsedS, momentOfS, type RunClock } from '@wunsch/core/run/clock';
import { addReading, isSilent, type LogRow } from '@wunsch/core/run/log';
import type { Work } from '@wunsch/core/workshop/work';
import type { RoastReading, SimulatedRoastProbe } from '../devices/roast-probe';
import type { Workshop } from '../journal/workshop';
import { Follower } from '../run/follower';
import { logRow, readingsOfLog, RunLogs, type RunLog } from '../run/logs';
import type { CurveRow } from '../store/curves';

/** Milliseconds between two looks at the probes. */
const TICK_MS = 250;
/** Milliseconds between two times that the readings become durable. */
const KEEP_MS = 3000;
/** The probe is asked for what it would have said within so many milliseconds, no further back: that is a gap. */
const BACK_MS = 2500;
/** A forgotten roast is not logged for ever. */
const LONGEST_S = 4 * 3600;
/** A probe that sent nothing for so long is silent, milliseconds. */
const SILENT_MS = 4000;

/** Work that is a roast. */
export type RoastWork = Work & { roast: LiveRoast };

const clockOf = ({ roast, startedAt }: RoastWork): RunClock => roastClock(roast, startedAt);
export const isRoast = (work: Work): work is RoastWork => work.roast != null;

/**
 * Follows every roast that is live: asks the simulated probe, takes what real ones send, keeps it all in memory and in
 * the database, and moves a roaster that sets itself on to its next step.
 */
export class LiveRoasts {
  private readonly logs: RunLogs;
  private readonly heardAt = new Map<string, number>();
  private readonly follower: Follower<RoastWork>;

  constructor(
    private readonly workshop: Workshop,
    private readonly probe: SimulatedRoastProbe,
    log: (error: unknown) => void = () => undefined,
  ) {
    this.logs = new RunLogs(workshop, ROAST_CHANNELS);
    this.follower = new Follower({
      everyMs: TICK_MS,
      keepMs: KEEP_MS,
      now: workshop.now,
      runs: () => [...workshop.works.values()].filter(isRoast),
      idOf: ({ id }) => id,
      look: (work, now) => this.follow(work, now),
      keep: (work) => this.keepOne(work),
      after: (isUnderWay) => this.forget(isUnderWay),
      log,
    });
  }

  private open(work: RoastWork): Promise<RunLog> {
    return this.logs.open(work.roast.curveId, clockOf(work));
  }

  private rowsOf({ roast }: Work): readonly LogRow[] {
    return roast ? this.logs.read(roast.curveId) : [];
  }

  /** Readings so far. */
  async curve(work: RoastWork): Promise<Curve> {
    await this.open(work);
    return this.since(work, 0);
  }

  /** How many readings there are, without asking the database. */
  count(work: Work): number {
    return this.rowsOf(work).length;
  }

  /** Readings from the `from`th on. */
  since(work: Work, from: number): Curve {
    const clock = isRoast(work) ? clockOf(work) : { startedAt: 0, speed: 1, seconds: null };
    return roastCurve(readingsOfLog(ROAST_CHANNELS, this.rowsOf(work).slice(from), clock));
  }

  isSilent(work: Work): boolean {
    return isSilent(this.heardAt.get(work.id) ?? null, work.startedAt, this.workshop.now(), SILENT_MS);
  }

  /** What went wrong with a roast's readings behind the scenes, in words; null while all is well. */
  trouble(workId: string): string | null {
    return this.follower.trouble(workId);
  }

  onTick(listener: () => void): () => void {
    return this.follower.onLook(listener);
  }

  /** A live roast's curve as it stands, to be kept with its load; null where nothing was read. */
  row(work: Work): CurveRow | null {
    return isRoast(work) && this.count(work) > 0 ? this.rowOf(work) : null;
  }

  private rowOf(work: RoastWork): CurveRow {
    const name = work.sources.map(({ holdingId }) => this.workshop.book.holding(holdingId).code).join(' + ');
    const { curveId, probe } = work.roast;
    return logRow({ id: curveId, loadId: null, name, source: probe }, ROAST_CHANNELS, this.rowsOf(work), clockOf(work));
  }

  /** Takes a reading. @returns whether it was taken: not where the clock of this machine was set back */
  async take(work: RoastWork, { second, beanC, airC }: RoastReading): Promise<boolean> {
    const log = await this.open(work);
    const row = { at: momentOfS(clockOf(work), second), values: [beanC ?? NaN, airC ?? NaN] };
    if (!addReading(log.rows, row, work.roast.speed)) return false;
    this.heardAt.set(work.id, this.workshop.now());
    log.dirty = true;
    return true;
  }

  /** One look at everything. */
  tick(): Promise<void> {
    return this.follower.look();
  }

  private forget(isUnderWay: (workId: string) => boolean): void {
    const curves = new Set([...this.workshop.works.values()].map(({ roast }) => roast?.curveId));
    this.logs.forget((curveId) => curves.has(curveId));
    for (const workId of this.heardAt.keys()) {
      if (isUnderWay(workId)) continue;
      this.heardAt.delete(workId);
      this.probe.forget(workId);
    }
  }

  private async follow(work: RoastWork, now: number): Promise<void> {
    const { roast } = work;
    if (roast.seconds !== null) return;
    const { rows } = await this.open(work);
    const second = Math.floor(elapsedS(clockOf(work), now));
    if (second > LONGEST_S) return;
    if (roast.probe === 'simulated') {
      const massG = work.sources.reduce((sum, { massMg }) => sum + massMg, 0) / 1000;
      const last = rows.at(-1);
      const lastS = last ? Math.round(elapsedS(clockOf(work), last.at)) : -1;
      for (let s = Math.max(lastS + 1, second - Math.ceil((BACK_MS / 1000) * roast.speed)); s <= second; s += 1) {
        const reading = this.probe.read(work.id, roast, massG, s);
        if (reading) await this.take(work, reading);
        if (await this.stepOn(work, s, reading?.beanC ?? null)) break;
      }
    } else await this.stepOn(work, second, rows.at(-1)?.values[0] ?? null);
  }

  /** Goes on to the next step on a roaster that sets itself. @returns whether it did */
  private async stepOn(work: RoastWork, second: number, beanC: number | null): Promise<boolean> {
    const { roast } = work;
    if (!setsItself(this.workshop, work) || !isDue(roast, second, beanC)) return false;
    const next = nextSetting(roast, second);
    if (!next) return false;
    await this.workshop.exclusively(async () => {
      if (!this.workshop.works.has(work.id)) return;
      changeRoast(this.workshop, work.id, (now) => ({ ...now, settings: [...now.settings, next] }));
      await this.workshop.commit();
    });
    return true;
  }

  private async keepOne(work: RoastWork): Promise<void> {
    const log = await this.open(work);
    // What was weighed out meanwhile keeps the curve that it was weighed out with.
    if (log.dirty && this.workshop.works.has(work.id)) await this.logs.keep(log, this.rowOf(work));
  }

  /** Makes what was read durable. */
  keep(): Promise<void> {
    return this.follower.keep();
  }

  /** Looks after the probes until stopped. @returns stop, which keeps what was read */
  watch(): () => Promise<void> {
    return this.follower.watch();
  }
}

const setsItself = (workshop: Workshop, { machineId }: Work): boolean =>
  machineId !== null && workshop.machines.get(machineId)?.roaster?.setBy === 'itself';
