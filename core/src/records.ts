import type { z } from 'zod/mini';
import { beanRecord } from './beans/records';
import { beanUpgrades } from './beans/upgrades';
import { judgementRecord } from './judgement/records';
import { mouldRecord } from './mould/records';
import { orderRecord } from './orders/records';
import { packRecord } from './pack/records';
import { productRecord } from './products/records';
import { recipeRecord } from './recipe/records';
import { upgraded, versionOf, type Upgrades } from './record/upgrades';
import { roastRecord } from './roast/records';
import { tasteRecord } from './taste/records';
import { temperRecord } from './temper/records';
import { traceRecord } from './trace/records';
import { trialRecord } from './trials/records';

/* The registry of what rooms write down beside the grams: each its own records, only ever added to. */

export const ROOM_RECORDS = {
  judgement: judgementRecord,
  mould: mouldRecord,
  orders: orderRecord,
  pack: packRecord,
  products: productRecord,
  taste: tasteRecord,
  temper: temperRecord,
  trace: traceRecord,
  trials: trialRecord,
} as const;
export type Room = keyof typeof ROOM_RECORDS;
export const isRoom = (name: string): name is Room => name in ROOM_RECORDS;

export type RecordValue<R extends Room> = z.infer<(typeof ROOM_RECORDS)[R]>;

/** One record of a room. */
export interface RoomRecord<R extends Room = Room> {
  id: string;
  room: R;
  /** When it was so, and when it was written down, UTC ms. */
  at: number;
  recordedAt: number;
  personId: string;
  value: RecordValue<R>;
}

/** Every room that writes records, those among them that have a list of their own. */
export const ALL_RECORDS = { ...ROOM_RECORDS, beans: beanRecord, roast: roastRecord, recipe: recipeRecord } as const;
export type AnyRoom = keyof typeof ALL_RECORDS;

/**
 * Rooms whose records are a list of their own, by its name, with what they call their subject; all others are
 * `roomRecords`.
 */
export const OWN_LISTS = {
  beanRecords: { room: 'beans', subject: 'lotId' },
  roastRecords: { room: 'roast', subject: null },
  recipeRecords: { room: 'recipe', subject: null },
} as const satisfies Record<string, { room: AnyRoom; subject: string | null }>;

const UPGRADES: Partial<Record<AnyRoom, Upgrades>> = { beans: beanUpgrades };

/** The version in which a room writes a kind of record now. */
export const recordVersion = (room: AnyRoom, kind: string): number => versionOf(UPGRADES[room] ?? {}, kind);

/**
 * Reads what a room wrote down, by this program or an older one.
 *
 * @param version of the record when it was written
 * @returns the value as it is written now, or what is wrong with it
 */
export function readRecord<R extends AnyRoom>(
  room: R,
  version: number,
  value: unknown,
): { value: z.infer<(typeof ALL_RECORDS)[R]> } | { misfit: string } {
  if (typeof value !== 'object' || value === null || !('kind' in value)) return { misfit: 'value is no record' };
  let now: unknown;
  try {
    now = upgraded(UPGRADES[room] ?? {}, String(value.kind), version, { ...value });
  } catch (error) {
    return { misfit: error instanceof RangeError ? error.message : 'value cannot be taken to this version' };
  }
  const read = (ALL_RECORDS[room] as unknown as z.ZodMiniType<z.infer<(typeof ALL_RECORDS)[R]>>).safeParse(now);
  if (read.success) return { value: read.data };
  const issue = read.error.issues[0];
  return { misfit: `${issue?.path.join('.') ?? ''} ${issue?.message ?? 'cannot be read'}`.trim() };
}
