import { eq, inArray } from 'drizzle-orm';
import type { Curve } from '@wunsch/core/roast/curve';
import type { CurveMeta } from '@wunsch/core/workshop/kept';
import { packFloats, unpackFloats } from './floats';
import * as t from './schema';
import type { Database, Tx } from './types';

export type CurveRow = CurveMeta & { curve: Curve };

/** Writes a whole curve, or its newest state over the one before and over its parts. */
export async function writeCurve(tx: Tx, { curve, ...meta }: CurveRow): Promise<void> {
  const row = {
    ...meta,
    readings: curve.seconds.length,
    seconds: packFloats(curve.seconds),
    beanC: packFloats(curve.beanC),
    airC: packFloats(curve.airC),
  };
  await tx.insert(t.roastCurves).values(row).onConflictDoUpdate({ target: t.roastCurves.id, set: row });
  await tx.delete(t.curveParts).where(eq(t.curveParts.curveId, row.id));
}

export const readCurve = async (db: Database, id: string): Promise<Curve | null> =>
  (await readCurves(db, [id])).get(id) ?? null;

/** Several curves at once, by id. */
export async function readCurves(db: Database, ids: readonly string[]): Promise<Map<string, Curve>> {
  if (ids.length === 0) return new Map();
  const { id, seconds, beanC, airC } = t.roastCurves;
  const rows = await db
    .select({ id, seconds, beanC, airC })
    .from(t.roastCurves)
    .where(inArray(id, [...ids]));
  const parts = await db
    .select()
    .from(t.curveParts)
    .where(inArray(t.curveParts.curveId, [...ids]))
    .orderBy(t.curveParts.curveId, t.curveParts.part);
  const curves = new Map(rows.map((row) => [row.id, unpackCurve(row)]));
  for (const part of parts) {
    const whole = curves.get(part.curveId);
    if (whole) curves.set(part.curveId, joined(whole, part.from, unpackCurve(part)));
  }
  return curves;
}

const unpackCurve = ({ seconds, beanC, airC }: Record<keyof Curve, Uint8Array>): Curve => ({
  seconds: unpackFloats(seconds),
  beanC: unpackFloats(beanC),
  airC: unpackFloats(airC),
});

/** A curve as it is with a part of it, which stands for everything from its first reading on. */
function joined(curve: Curve, from: number, part: Curve): Curve {
  const join = (a: Float64Array, b: Float64Array): Float64Array => {
    const whole = new Float64Array(from + b.length);
    whole.set(a.subarray(0, from));
    whole.set(b, from);
    return whole;
  };
  return {
    seconds: join(curve.seconds, part.seconds),
    beanC: join(curve.beanC, part.beanC),
    airC: join(curve.airC, part.airC),
  };
}
