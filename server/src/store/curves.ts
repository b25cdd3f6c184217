import { eq, inArray, sql } from 'drizzle-orm';
import { withPart, type Channel, type Readings } from '@wunsch/core/run/readings';
import type { CurveMeta } from '@wunsch/core/workshop/kept';
import { packFloats, unpackFloats } from './floats';
import * as t from './schema';
import type { Database, Tx } from './types';

export type CurveRow = CurveMeta & { curve: Readings };

/** A curve as it is kept: what it is called, and its readings. */
export const curveRow = (
  { id, loadId, name, source, startedAt }: Pick<CurveMeta, 'id' | 'loadId' | 'name' | 'source' | 'startedAt'>,
  curve: Readings,
): CurveRow => ({
  id,
  loadId,
  name,
  source,
  startedAt,
  readings: curve.seconds.length,
  channels: curve.channels,
  curve,
});

/** Seconds and values of a run as bytes, those of one channel after another. */
export const packReadings = ({ seconds, values }: Readings): { seconds: Uint8Array; values: Uint8Array } => ({
  seconds: packFloats(seconds),
  values: Buffer.concat(values.map(packFloats)),
});

function unpackReadings(channels: readonly Channel[], row: { seconds: Uint8Array; values: Uint8Array }): Readings {
  const seconds = unpackFloats(row.seconds);
  const all = unpackFloats(row.values);
  const n = seconds.length;
  return { channels, seconds, values: channels.map((_, index) => all.subarray(index * n, (index + 1) * n)) };
}

/** Writes a whole curve, or its newest state over the one before and over its parts. */
export async function writeCurve(tx: Tx, { curve, ...meta }: CurveRow): Promise<void> {
  const row = { ...meta, readings: curve.seconds.length, channels: [...curve.channels], ...packReadings(curve) };
  // The bytes are sent once.
  const set = { ...row, seconds: sql`excluded."seconds"`, values: sql`excluded."values"` };
  await tx.insert(t.curves).values(row).onConflictDoUpdate({ target: t.curves.id, set });
  await tx.delete(t.curveParts).where(eq(t.curveParts.curveId, row.id));
}

export const readCurve = async (db: Database, id: string): Promise<Readings | null> =>
  (await readCurves(db, [id])).get(id) ?? null;

/** Several curves at once, by id. */
export async function readCurves(db: Database, ids: readonly string[]): Promise<Map<string, Readings>> {
  if (ids.length === 0) return new Map();
  const { id, channels, seconds, values } = t.curves;
  const rows = await db
    .select({ id, channels, seconds, values })
    .from(t.curves)
    .where(inArray(id, [...ids]));
  const parts = await db
    .select()
    .from(t.curveParts)
    .where(inArray(t.curveParts.curveId, [...ids]))
    .orderBy(t.curveParts.curveId, t.curveParts.part);
  const curves = new Map(rows.map((row) => [row.id, unpackReadings(row.channels, row)]));
  for (const part of parts) {
    const whole = curves.get(part.curveId);
    if (whole) curves.set(part.curveId, withPart(whole, part.from, unpackReadings(whole.channels, part)));
  }
  return curves;
}
