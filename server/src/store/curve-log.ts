import { inCommon, readingsFrom, sameChannels } from '@wunsch/core/run/readings';
import type { Database } from './types';
import { packReadings, writeCurve, type CurveRow } from './curves';
import * as t from './schema';

/** Parts after which a curve is written whole again. */
const MOST_PARTS = 100;

interface Kept extends CurveRow {
  parts: number;
}

const sameHead = (a: CurveRow, b: CurveRow): boolean =>
  a.startedAt === b.startedAt &&
  a.loadId === b.loadId &&
  a.name === b.name &&
  a.source === b.source &&
  sameChannels(a.channels, b.channels);

/** Writes curves that grow: what came since the last time, and now and then the whole. */
export class CurveLog {
  private readonly kept = new Map<string, Kept>();

  constructor(private readonly db: Database) {}

  async grow(row: CurveRow): Promise<void> {
    const { id, curve } = row;
    const kept = this.kept.get(id);
    this.kept.delete(id);
    if (!kept || kept.parts >= MOST_PARTS || !sameHead(kept, row)) {
      await this.db.transaction((tx) => writeCurve(tx, row));
      this.kept.set(id, { ...row, parts: 0 });
      return;
    }
    const from = inCommon(kept.curve, curve);
    await this.db.insert(t.curveParts).values({
      curveId: id,
      part: kept.parts,
      from,
      ...packReadings(readingsFrom(curve, from)),
    });
    this.kept.set(id, { ...row, parts: kept.parts + 1 });
  }

  /** A curve that was written or taken off by other ways. */
  forget(id: string): void {
    this.kept.delete(id);
  }

  clear(): void {
    this.kept.clear();
  }
}
