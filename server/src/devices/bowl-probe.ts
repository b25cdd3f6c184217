import type { Batch } from '@wunsch/core/ledger/types';
import type { Life } from '@wunsch/core/grind/running';
import { takeReading, thinned, type LogRow, type Thinning } from '@wunsch/core/run/log';
import { BOWL_CHANNELS } from '@wunsch/core/grind/warming';
import { simulatedBowlC } from '@wunsch/core/grind/simulated-bowl';
import type { BowlTemp } from '@wunsch/core/grind/warming';
import { ceilingOf } from '@wunsch/core/work/stations';
import { Follower } from '../run/follower';
import { logRow, RunLogs, type RunLog } from '../run/logs';
import type { CurveRow } from '../store/curves';
import type { Workshop } from '../journal/workshop';
import { seedOf, stonesOf } from './gauge';

const MINUTE_MS = 60_000;
const HOUR_MS = 60 * MINUTE_MS;
/** A probe in a bowl is heard once a minute. */
const EVERY_MS = MINUTE_MS;
/** What is older than half a day is kept every ten minutes: weeks of a conche stay small. */
export const AGEING: Thinning = { fineMs: 12 * HOUR_MS, everyMs: 10 * MINUTE_MS };
const MOST_ROWS = 40_000;
/** A probe that sent nothing for so long is silent. */
export const SILENT_MS = 15 * MINUTE_MS;
/** A made-up bowl of a route with a ceiling comes a little over it: there is something to watch. */
const OVER_C = 0.8;

const curveId = (batchId: string): string => `bowl-${batchId}`;

/**
 * Probes in the bowls that grind: the simulated one is asked every minute, real ones post what they read; thinned as it
 * ages.
 */
export class BowlProbes {
  private readonly logs: RunLogs;
  private readonly follower: Follower<Batch>;

  constructor(
    private readonly workshop: Workshop,
    private readonly lifeOf: (batch: Batch) => Life | null,
    log: (error: unknown) => void = () => undefined,
  ) {
    this.logs = new RunLogs(workshop, BOWL_CHANNELS);
    this.follower = new Follower({
      everyMs: EVERY_MS / 4,
      keepMs: 0,
      now: workshop.now,
      runs: () => [...workshop.batches.values()].filter(({ id, probe }) => probe != null && workshop.book.live.has(id)),
      idOf: ({ id }) => id,
      look: async (batch) => {
        await this.hear(batch);
      },
      keep: (batch) => this.keepOne(batch),
      after: () => this.logs.forget((id) => workshop.book.live.has(id.replace(/^bowl-/, ''))),
      log,
    });
  }

  /** What a batch's probe logged, oldest first; nothing before it was first asked for. */
  read(batchId: string): readonly BowlTemp[] {
    return this.logs.read(curveId(batchId)).map(({ at, values: [tempC = NaN] }) => ({ at, tempC }));
  }

  /** What goes wrong with a batch's readings behind the scenes, in words; null while all is well. */
  trouble(batchId: string): string | null {
    return this.follower.trouble(batchId);
  }

  /** Brings a batch's log in from the database. */
  open(batchId: string): Promise<RunLog> {
    return this.logs.open(curveId(batchId));
  }

  /** Takes a reading of a real probe and makes it durable. @param at UTC ms */
  async take(batch: Batch, tempC: number, at: number): Promise<void> {
    const log = await this.open(batch.id);
    takeReading(log.rows, { at, values: [tempC] });
    log.dirty = true;
    await this.keepOne(batch);
  }

  /** One look at every simulated probe. */
  tick(): Promise<void> {
    return this.follower.look();
  }

  /** What a batch's probe says now, if it is a simulated one and its minute is over; kept with the next look. */
  async hear(batch: Batch): Promise<RunLog> {
    const now = this.workshop.now();
    const log = await this.open(batch.id);
    const last = log.rows.at(-1)?.at ?? 0;
    const life = batch.probe === 'simulated' && now - last >= EVERY_MS ? this.lifeOf(batch) : null;
    if (life) {
      takeReading(log.rows, { at: now, values: [this.simulate(batch, life, now)] });
      log.dirty = true;
    }
    return log;
  }

  private simulate(batch: Batch, life: Life, at: number): number {
    const route = this.workshop.routes.get(batch.routeId);
    const ceiling = route ? ceilingOf(route) : null;
    const { bowlC } = stonesOf(life[0]?.machineId ?? batch.id);
    return simulatedBowlC(life, ceiling === null ? bowlC : Math.min(bowlC, ceiling + OVER_C), at, seedOf(batch.id));
  }

  private async keepOne(batch: Batch): Promise<void> {
    const log = await this.open(batch.id);
    if (!log.dirty) return;
    // In steps of half a day, so that what was written stays as it was in between.
    const thin = thinned(log.rows, Math.floor(this.workshop.now() / AGEING.fineMs) * AGEING.fineMs, AGEING);
    // One that nobody looks after for months loses its beginning.
    if (log.rows.length > MOST_ROWS) log.rows = thin.slice(-MOST_ROWS / 2);
    await this.logs.keep(log, rowOf(batch, thin.slice(-MOST_ROWS)));
  }

  /** Looks after the probes until stopped. @param speed of the clock @returns stop, which keeps what was read */
  watch(speed = 1): () => Promise<void> {
    void this.tick();
    return this.follower.watch(Math.max(500, EVERY_MS / 4 / speed));
  }
}

/** A bowl's log as it is stored. */
export const rowOf = (batch: Batch, rows: readonly LogRow[]): CurveRow =>
  logRow({ id: curveId(batch.id), loadId: batch.id, name: batch.code, source: 'bowl' }, BOWL_CHANNELS, rows);
