import type { Channel } from '../run/readings';

/** A photo or paper, without its bytes: of a lot, or of anything else by its kind and id, as `batch:…`. */
export interface FileMeta {
  id: string;
  lotId: string | null;
  subject: string | null;
  name: string;
  caption: string;
  /** Media type, by its content. */
  type: string;
  /** Bytes. */
  size: number;
  /** Of a picture, pixels. */
  width: number | null;
  height: number | null;
  /** Of its bytes, as hexadecimal. */
  sha256: string;
  /** UTC ms. */
  at: number;
  personId: string;
}

/** A logged run without its readings. */
export interface CurveMeta {
  id: string;
  /** What the load became; null while it is in the machine, and for a curve without a load. */
  loadId: string | null;
  name: string;
  source: string;
  /** UTC ms. */
  startedAt: number;
  readings: number;
  /** What was read, in the order in which its values stand. */
  channels: readonly Channel[];
}
