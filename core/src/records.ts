import type { z } from 'zod/mini';
import { judgementRecord } from './judgement/records';
import { mouldRecord } from './mould/records';
import { orderRecord } from './orders/records';
import { packRecord } from './pack/records';
import { productRecord } from './products/records';
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
