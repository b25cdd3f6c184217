import type { Batch } from '@wunsch/core/ledger/types';
import type { Life } from '@wunsch/core/grind/running';
import { simulatedBowlC } from '@wunsch/core/grind/simulated-bowl';
import type { BowlTemp } from '@wunsch/core/grind/warming';
import { ceilingOf } from '@wunsch/core/work/stations';
import type { CurveRow } from '../store/curves';
import type { Workshop } from '../journal/workshop';
import { seedOf, stonesOf } from './gauge';
import { curveRow, GrowingCurves, logReading, type Recording } from './growing-curves';

const MINUTE_MS = 60_000;
const HOUR_MS = 60 * MINUTE_MS;
/** A probe in a bowl is heard once a minute. */
const EVERY_MS = MINUTE_MS;
/** What is older than so much is kept every ten minutes: weeks of a conche stay small. */
const FINE_MS = 12 * HOUR_MS;
const COARSE_MS = 10 * MINUTE_MS;
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
  private readonly curves: GrowingCurves;

  constructor(
    private readonly workshop: Workshop,
    private readonly lifeOf: (batch: Batch) => Life | null,
  ) {
    this.curves = new GrowingCurves(workshop);
  }

  /** What a batch's probe logged, oldest first; nothing before it was first asked for. */
  read(batchId: string): readonly BowlTemp[] {
    return this.curves.read(curveId(batchId));
  }

  /** Brings a batch's log in from the database. */
  open(batchId: string): Promise<Recording> {
    return this.curves.open(curveId(batchId));
  }

  /** Takes a reading of a real probe and makes it durable. @param at UTC ms */
  async take(batch: Batch, tempC: number, at: number): Promise<void> {
    const recording = await this.open(batch.id);
    logReading(recording, { at, tempC });
    await this.keep(batch, recording);
  }

  /** One look at every simulated probe. */
  async tick(): Promise<void> {
    this.curves.forget((id) => this.workshop.book.live.has(id.replace(/^bowl-/, '')));
    for (const batch of this.workshop.batches.values()) {
      if (batch.probe == null || !this.workshop.book.live.has(batch.id)) continue;
      const recording = await this.hear(batch);
      if (recording.dirty) await this.keep(batch, recording);
    }
  }

  /** What a batch's probe says now, if it is a simulated one and its minute is over; kept with the next look. */
  async hear(batch: Batch): Promise<Recording> {
    const now = this.workshop.now();
    const recording = await this.open(batch.id);
    const last = recording.rows.at(-1)?.at ?? 0;
    const life = batch.probe === 'simulated' && now - last >= EVERY_MS ? this.lifeOf(batch) : null;
    if (life) logReading(recording, { at: now, tempC: this.simulate(batch, life, now) });
    return recording;
  }

  private simulate(batch: Batch, life: Life, at: number): number {
    const route = this.workshop.routes.get(batch.routeId);
    const ceiling = route ? ceilingOf(route) : null;
    const { bowlC } = stonesOf(life[0]?.machineId ?? batch.id);
    return simulatedBowlC(life, ceiling === null ? bowlC : Math.min(bowlC, ceiling + OVER_C), at, seedOf(batch.id));
  }

  private keep(batch: Batch, recording: Recording): Promise<void> {
    // In steps of half a day, so that what was written stays as it was in between.
    const thin = thinned(recording.rows, Math.floor(this.workshop.now() / FINE_MS) * FINE_MS);
    // One that nobody looks after for months loses its beginning.
    if (recording.rows.length > MOST_ROWS) recording.rows = thin.slice(-MOST_ROWS / 2);
    return this.curves.keep(recording, rowOf(batch, thin.slice(-MOST_ROWS)));
  }

  /** Looks after the probes until stopped; a look that fails is told and tried again. @param speed of the clock @returns stop */
  watch(log: (error: unknown) => void, speed = 1): () => void {
    const look = (): void => void this.tick().catch(log);
    look();
    const timer = setInterval(look, Math.max(500, EVERY_MS / 4 / speed));
    return () => clearInterval(timer);
  }
}

/** The newest as read; what is older every ten minutes. */
export function thinned(rows: readonly BowlTemp[], now: number): BowlTemp[] {
  let kept = -Infinity;
  return rows.filter(({ at }) => {
    if (at < now - FINE_MS && at - kept < COARSE_MS) return false;
    kept = at;
    return true;
  });
}

/** A bowl's log as it is stored. */
export const rowOf = (batch: Batch, rows: readonly BowlTemp[]): CurveRow =>
  curveRow({ id: curveId(batch.id), loadId: batch.id, name: batch.code, source: 'bowl' }, rows);
