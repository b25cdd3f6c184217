import { elapsedS, momentOfS, type RunClock } from '@wunsch/core/run/clock';
import type { LogRow } from '@wunsch/core/run/log';
import { readingsOf, rowsOf, type Channel, type ReadingRow, type Readings } from '@wunsch/core/run/readings';
import type { Workshop } from '../journal/workshop';
import { curveRow, type CurveRow } from '../store/curves';

/** The log of one run: what was read, oldest first, and whether all of it is durable. */
export interface RunLog {
  rows: LogRow[];
  dirty: boolean;
}

/** How a run's log is called where it is kept. */
export type LogHead = Pick<CurveRow, 'id' | 'loadId' | 'name' | 'source'>;

/** The clock of a run that goes as fast as any. @param startedAt UTC ms */
export const plainClock = (startedAt: number): RunClock => ({ startedAt, speed: 1, seconds: null });

/** Readings of a log at seconds of its run's clock, to a thousandth. */
export const readingsOfLog = (channels: readonly Channel[], rows: readonly LogRow[], clock: RunClock): Readings => {
  const running = { ...clock, seconds: null };
  return readingsOf(
    channels,
    rows.map(({ at, values }): ReadingRow => [Math.round(1000 * secondOf(running, at)) / 1000, ...values]),
  );
};

const secondOf = (clock: RunClock, at: number): number =>
  at < clock.startedAt ? ((at - clock.startedAt) / 1000) * clock.speed : elapsedS(clock, at);

/** A log as it is kept: its seconds are counted from its first reading on, where its run has no clock of its own. */
export function logRow(
  head: LogHead,
  channels: readonly Channel[],
  rows: readonly LogRow[],
  clock: RunClock = plainClock(Math.round(rows[0]?.at ?? 0)),
): CurveRow {
  return curveRow({ ...head, startedAt: clock.startedAt }, readingsOfLog(channels, rows, clock));
}

/** What is read of runs under way: in memory, and in the database as curves that grow. */
export class RunLogs {
  private readonly logs = new Map<string, RunLog>();

  /** @param channels what each of these runs reads, in the order of a row's values */
  constructor(
    private readonly workshop: Workshop,
    readonly channels: readonly Channel[],
  ) {}

  /** What was read, oldest first; nothing before it was first opened. */
  read(id: string): readonly LogRow[] {
    return this.logs.get(id)?.rows ?? [];
  }

  /** Brings a log in from the database. @param clock of its run, where it has one of its own */
  async open(id: string, clock?: RunClock): Promise<RunLog> {
    const known = this.logs.get(id);
    if (known) return known;
    const meta = this.workshop.roasts.curves.get(id);
    const kept = meta ? await this.workshop.readCurve(id) : null;
    const by = clock ?? plainClock(meta?.startedAt ?? 0);
    const rows = kept ? rowsOf(kept).map(([second, ...values]): LogRow => ({ at: momentOfS(by, second), values })) : [];
    const log = this.logs.get(id) ?? { rows, dirty: false };
    this.logs.set(id, log);
    return log;
  }

  /** Forgets what nobody follows any more. @param follows whether a log still is */
  forget(follows: (id: string) => boolean): void {
    for (const id of this.logs.keys()) if (!follows(id)) this.logs.delete(id);
  }

  /** Makes a log durable; what could not be written stays in memory and is tried again. */
  async keep(log: RunLog, row: CurveRow): Promise<void> {
    log.dirty = false;
    try {
      await this.workshop.keepCurve(row);
    } catch (error) {
      log.dirty = true;
      throw error;
    }
  }
}
