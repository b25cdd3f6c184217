import type { Readings } from '@wunsch/core/run/readings';
import { CURVE_VERSION, curveOfAnyVersion, readingsOfRow } from './curve-versions';
import { z } from 'zod/mini';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { id } from '@wunsch/core/fields/fields';
import { isRoom, readRecord, type AnyRoom } from '@wunsch/core/records';
import { instant, misfitOf, ROWS, words, type Table } from '@wunsch/core/rows';
import { sniff } from '../store/sniff';
import type { Records } from '../store/records';
import type { CurveMeta, FileMeta } from '@wunsch/core/workshop/kept';

/*
 * The rows of an export: what each has to look like. `incoming.ts` reads them from a document, `restore.ts` holds them
 * against one another.
 */

/** The lists of an export, each with its rows. */
export type Rows = Omit<Records, 'settings'>;
export type ListName = keyof Rows;

export const badRestore = (path: string, detail: string): DomainError =>
  new DomainError('workshop/bad-restore', `The file does not fit: ${detail} Nothing was restored.`, [
    { path, message: detail },
  ]);

const record = z.object({
  id,
  at: instant,
  recordedAt: instant,
  personId: id,
  /** Of its kind, when it was written; absent in exports from before kinds had versions. */
  v: z._default(z.number().check(z.int(), z.minimum(1)), 1),
  value: z.unknown(),
});
const inRoom = z.extend(record, { room: z.string() });
const ofLot = z.extend(record, { lotId: z.nullable(id) });

const file = z.object({
  id,
  lotId: z.nullable(id),
  /** Absent in files from before anything but lots had pictures. */
  subject: z._default(z.nullable(z.string().check(z.maxLength(80))), null),
  name: words,
  caption: words,
  type: z.string().check(z.maxLength(100)),
  size: z.number().check(z.int(), z.minimum(0)),
  width: z.nullable(z.number().check(z.int())),
  height: z.nullable(z.number().check(z.int())),
  sha256: z.string().check(z.maxLength(64)),
  at: instant,
  personId: id,
  data: z.optional(z.base64()),
});

export interface ReadRow {
  row: unknown;
  /** The readings of a curve. */
  curve?: Readings;
  /** Bytes of a file that came in its row. */
  data?: Buffer;
}

/** Says of a row what is wrong with it. */
function fitting<T>(list: ListName, index: number, schema: z.ZodMiniType<T>, value: unknown): T {
  const read = schema.safeParse(value);
  if (read.success) return read.data;
  const issue = read.error.issues[0];
  const path = issue?.path.join('.') ?? '';
  throw badRestore(
    `${list}.${index}`,
    `${list}, row ${index + 1}: ${`${path} ${issue?.message ?? 'cannot be read'}`.trim()}.`,
  );
}

/** A record of any version, as it is written now. */
function recordOf(room: AnyRoom, { v, ...row }: z.infer<typeof record>, list: ListName, index: number): ReadRow {
  const read = readRecord(room, v, row.value);
  if ('misfit' in read) throw badRestore(`${list}.${index}`, `${list}, row ${index + 1}: ${read.misfit}.`);
  return { row: { ...row, value: read.value } };
}

/** Reads one row of a list. @throws DomainError `workshop/bad-restore` naming row and field */
export function readRow(list: ListName, value: unknown, index: number): ReadRow {
  if (Object.hasOwn(ROWS, list)) {
    const misfit = misfitOf(list as Table, value, index);
    if (misfit) throw badRestore(`${list}.${index}`, `${list}, row ${index + 1}: ${misfit.detail}.`);
    return { row: value };
  }
  const fits = <T>(schema: z.ZodMiniType<T>, part: unknown = value): T => fitting(list, index, schema, part);
  switch (list) {
    case 'beanRecords':
      return recordOf('beans', fits(ofLot), list, index);
    case 'roastRecords':
      return recordOf('roast', fits(record), list, index);
    case 'recipeRecords':
      return recordOf('recipe', fits(record), list, index);
    case 'roomRecords': {
      const row = fits(inRoom);
      if (!isRoom(row.room)) throw badRestore(`${list}.${index}`, `${list}, row ${index + 1}: room is none.`);
      return recordOf(row.room, row, list, index);
    }
    case 'files': {
      const { data, ...row } = fits(file);
      return { row, ...(data === undefined ? {} : { data: Buffer.from(data, 'base64') }) };
    }
    default: {
      const { v: _, seconds, values, ...meta } = curveOfAnyVersion(value, fits);
      const curve = readingsOfRow({ ...meta, v: CURVE_VERSION, seconds, values });
      if (!curve)
        throw badRestore(`${list}.${index}`, `${list}, row ${index + 1}: its columns have different lengths.`);
      const row: CurveMeta = { ...meta, readings: seconds.length };
      return { row, curve };
    }
  }
}

/** The bytes of a file, when they are what its row says. @throws DomainError `workshop/bad-restore` */
export function checkedBytes(bytes: Uint8Array, { type }: FileMeta, index: number): Uint8Array {
  let found: string | null = null;
  try {
    found = sniff(bytes).type;
  } catch {
    // Told below.
  }
  if (found !== type) throw badRestore(`files.${index}`, `File ${index + 1} is not what it says it is.`);
  return bytes;
}
