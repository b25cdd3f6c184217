import type { Curve } from '@wunsch/core/roast/curve';
import type { Database } from './types';
import { packFloats } from './floats';
import { writeCurve } from './curves';
import type { CurveRow } from './curves';
import * as t from './schema';

/** Parts after which a curve is written whole again. */
const MOST_PARTS = 100;

interface Kept extends CurveRow {
  parts: number;
}

const sameHead = (a: CurveRow, b: CurveRow): boolean =>
  a.startedAt === b.startedAt && a.loadId === b.loadId && a.name === b.name && a.source === b.source;

/** How many readings two curves begin with in common. */
function inCommon(a: Curve, b: Curve): number {
  const most = Math.min(a.seconds.length, b.seconds.length);
  for (let i = 0; i < most; i += 1)
    if (a.seconds[i] !== b.seconds[i] || !Object.is(a.beanC[i], b.beanC[i]) || !Object.is(a.airC[i], b.airC[i]))
      return i;
  return most;
}

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
      seconds: packFloats(curve.seconds.subarray(from)),
      beanC: packFloats(curve.beanC.subarray(from)),
      airC: packFloats(curve.airC.subarray(from)),
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
