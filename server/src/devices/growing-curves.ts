import { curveOf } from '@wunsch/core/roast/curve';
import type { CurveRow } from '../store/curves';
import type { Workshop } from '../journal/workshop';

/** A temperature at a moment, UTC ms. */
export interface Logged {
  at: number;
  tempC: number;
}

export interface Recording {
  rows: Logged[];
  dirty: boolean;
}

/** Temperatures that are being logged, in memory and in the database: one growing curve for each thing that is followed. */
export class GrowingCurves {
  private readonly recordings = new Map<string, Recording>();

  constructor(private readonly workshop: Workshop) {}

  /** What was logged, oldest first; nothing before it was first opened. */
  read(id: string): readonly Logged[] {
    return this.recordings.get(id)?.rows ?? [];
  }

  /** Brings a log in from the database. */
  async open(id: string): Promise<Recording> {
    const known = this.recordings.get(id);
    if (known) return known;
    const meta = this.workshop.roasts.curves.get(id);
    const kept = meta ? await this.workshop.readCurve(id) : null;
    const rows =
      meta && kept
        ? Array.from(kept.seconds, (second, i) => ({ at: meta.startedAt + second * 1000, tempC: kept.beanC[i] ?? NaN }))
        : [];
    const recording = this.recordings.get(id) ?? { rows, dirty: false };
    this.recordings.set(id, recording);
    return recording;
  }

  /** Forgets what nobody follows any more. @param follows whether a log still is */
  forget(follows: (id: string) => boolean): void {
    for (const id of this.recordings.keys()) if (!follows(id)) this.recordings.delete(id);
  }

  /** Makes a log durable; what could not be written is tried again. */
  async keep(recording: Recording, row: CurveRow): Promise<void> {
    recording.dirty = false;
    try {
      await this.workshop.keepCurve(row);
    } catch (error) {
      recording.dirty = true;
      throw error;
    }
  }
}

/** Takes a reading in; a late one takes its place in the order, one of the same moment that of the other. */
export function logReading(recording: Recording, row: Logged): void {
  const last = recording.rows.at(-1);
  if (last && row.at <= last.at) {
    const place = recording.rows.findIndex(({ at }) => at >= row.at);
    recording.rows.splice(place, recording.rows[place]?.at === row.at ? 1 : 0, row);
  } else recording.rows.push(row);
  recording.dirty = true;
}

/** A log as it is stored: its temperature where a roast has that of its beans. */
export function curveRow(
  { id, loadId, name, source }: Pick<CurveRow, 'id' | 'loadId' | 'name' | 'source'>,
  rows: readonly Logged[],
): CurveRow {
  const startedAt = Math.round(rows[0]?.at ?? 0);
  const curve = curveOf(rows.map(({ at, tempC }): [number, number, number] => [(at - startedAt) / 1000, tempC, NaN]));
  return { id, loadId, name, source, startedAt, readings: rows.length, curve };
}
