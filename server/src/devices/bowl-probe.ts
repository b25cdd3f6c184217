import type { Batch } from '@wunsch/core/ledger/types';
import type { Life } from '@wunsch/core/grind/running';
import { simulatedBowlC } from '@wunsch/core/grind/simulated-bowl';
import type { BowlTemp } from '@wunsch/core/grind/warming';
import { curveOf } from '@wunsch/core/roast/curve';
import { ceilingOf } from '@wunsch/core/workshop/stations';
import type { CurveRow } from '../store/records';
import type { Workshop } from '../workshop/workshop';
import { seedOf, stonesOf } from './gauge';

const MINUTE_MS = 60_000;
const HOUR_MS = 60 * MINUTE_MS;
/** A probe in a bowl is heard once a minute. */
const EVERY_MS = MINUTE_MS;
/** What is older than so much is kept every ten minutes: weeks of a conche stay small. */
const FINE_MS = 12 * HOUR_MS;
const COARSE_MS = 10 * MINUTE_MS;
/** A probe that sent nothing for so long is silent. */
export const SILENT_MS = 15 * MINUTE_MS;
/** A made-up bowl of a route with a ceiling comes a little over it: there is something to watch. */
const OVER_C = 0.8;

interface Recording {
  rows: BowlTemp[];
  dirty: boolean;
}

/**
 * Probes in the bowls that grind: the simulated one is asked every minute, real ones post what they read. All is kept in
 * memory and in the database as one growing curve a batch, thinned as it ages.
 */
export class BowlProbes {
  private readonly recordings = new Map<string, Recording>();

  constructor(
    private readonly workshop: Workshop,
    private readonly lifeOf: (batch: Batch) => Life | null,
  ) {}

  /** What a batch's probe logged, oldest first; nothing before it was first asked for. */
  read(batchId: string): readonly BowlTemp[] {
    return this.recordings.get(batchId)?.rows ?? [];
  }

  /** Brings a batch's log in from the database. */
  async open(batchId: string): Promise<Recording> {
    const known = this.recordings.get(batchId);
    if (known) return known;
    const meta = this.workshop.roasts.curveOf(batchId);
    const kept = meta ? await this.workshop.readCurve(meta.id) : null;
    const rows =
      meta && kept
        ? Array.from(kept.seconds, (second, i) => ({ at: meta.startedAt + second * 1000, tempC: kept.beanC[i] ?? NaN }))
        : [];
    const recording = this.recordings.get(batchId) ?? { rows, dirty: false };
    this.recordings.set(batchId, recording);
    return recording;
  }

  /** Takes a reading of a real probe and makes it durable. @param at UTC ms */
  async take(batch: Batch, tempC: number, at: number): Promise<void> {
    const recording = await this.open(batch.id);
    add(recording, { at, tempC });
    await this.keep(batch, recording);
  }

  /** One look at every simulated probe. */
  async tick(): Promise<void> {
    for (const batchId of this.recordings.keys())
      if (!this.workshop.book.live.has(batchId)) this.recordings.delete(batchId);
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
    if (life) add(recording, { at: now, tempC: this.simulate(batch, life, now) });
    return recording;
  }

  private simulate(batch: Batch, life: Life, at: number): number {
    const route = this.workshop.routes.get(batch.routeId);
    const ceiling = route ? ceilingOf(route) : null;
    const { bowlC } = stonesOf(life[0]?.machineId ?? batch.id);
    return simulatedBowlC(life, ceiling === null ? bowlC : Math.min(bowlC, ceiling + OVER_C), at, seedOf(batch.id));
  }

  private async keep(batch: Batch, recording: Recording): Promise<void> {
    recording.dirty = false;
    try {
      await this.workshop.keepCurve(rowOf(batch, thinned(recording.rows, this.workshop.now())));
    } catch (error) {
      recording.dirty = true;
      throw error;
    }
  }

  /** Looks after the probes until stopped; a look that fails is told and tried again. @param speed of the clock @returns stop */
  watch(log: (error: unknown) => void, speed = 1): () => void {
    const look = (): void => void this.tick().catch(log);
    look();
    const timer = setInterval(look, Math.max(500, EVERY_MS / 4 / speed));
    return () => clearInterval(timer);
  }
}

function add(recording: Recording, row: BowlTemp): void {
  const last = recording.rows.at(-1);
  if (last && row.at <= last.at) {
    // A late one takes its place in the order.
    const place = recording.rows.findIndex(({ at }) => at >= row.at);
    recording.rows.splice(place < 0 ? recording.rows.length : place, recording.rows[place]?.at === row.at ? 1 : 0, row);
  } else recording.rows.push(row);
  recording.dirty = true;
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

/** A bowl's log as it is stored: the temperature of the mass where a roast has that of its beans. */
export function rowOf(batch: Batch, rows: readonly BowlTemp[]): CurveRow {
  const startedAt = rows[0]?.at ?? 0;
  const curve = curveOf(rows.map(({ at, tempC }): [number, number, number] => [(at - startedAt) / 1000, tempC, NaN]));
  return {
    id: `bowl-${batch.id}`,
    loadId: batch.id,
    name: batch.code,
    source: 'bowl',
    startedAt,
    readings: rows.length,
    curve,
  };
}
