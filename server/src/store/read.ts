import { setImmediate as breathe } from 'node:timers/promises';
import { sql } from 'drizzle-orm';
import type { Step } from '@wunsch/core/ledger/types';
import { isRoom, OWN_LISTS, readRecord, type AnyRoom } from '@wunsch/core/records';
import type { CurveMeta, FileMeta } from '@wunsch/core/workshop/kept';
import type { Settings } from '@wunsch/core/workshop/schemas';
import type { Records } from './records';
import * as t from './schema';
import { unpackStep, type PackedStep } from './step-text';
import type { Database, Tx } from './types';

/** Rows of a page: enough to be quick, few enough that no page is a burden on memory or keeps others waiting. */
const PAGE = 1500;

/**
 * Reads rows packed as JSON arrays, a page after the other: the driver spends its time per row, not per byte.
 *
 * @param page the rows whose `id` comes after one, at most `PAGE` of them in the order of it, as one array `rows`
 */
async function paged<Row extends { id: string }>(
  db: Database | Tx,
  page: (after: string) => ReturnType<typeof sql>,
): Promise<Row[]> {
  const all: Row[] = [];
  for (;;) {
    const { rows } = await db.execute<{ rows: Row[] | null }>(page(all.at(-1)?.id ?? ''));
    const some = rows[0]?.rows ?? [];
    for (const row of some) all.push(row);
    if (some.length < PAGE) return all;
    await breathe();
  }
}

/** Records in the order in which they were so, and were written. */
function inOrder<Row extends { id: string; at: number; recordedAt: number }>(rows: Row[]): Row[] {
  return rows.sort((a, b) => a.at - b.at || a.recordedAt - b.recordedAt || (a.id < b.id ? -1 : 1));
}

const LIST_OF = new Map<string, { list: string; room: AnyRoom; subject: string | null }>(
  Object.entries(OWN_LISTS).map(([list, own]) => [own.room, { list, ...own }]),
);

/** A record as it lies in the database. */
interface Written {
  id: string;
  room: string;
  subject: string | null;
  v: number;
  at: number;
  recordedAt: number;
  personId: string;
  value: unknown;
}

/** A record that this program cannot read. */
export class UnreadableRecord extends Error {}

/** What a record says, whichever version wrote it. @throws UnreadableRecord */
function opened<R extends AnyRoom>(room: R, v: number, { id, value }: { id: string; value: unknown }) {
  const read = readRecord(room, v, value);
  if ('misfit' in read) throw new UnreadableRecord(`record ${id} of ${room}: ${read.misfit}`);
  return read.value;
}

/** Reads everything. @throws UnreadableRecord */
export async function read(db: Database | Tx): Promise<Records> {
  const values = <Row extends { id: string }>(table: string, where = sql`true`): Promise<Row[]> =>
    paged(
      db,
      (after) => sql`select json_agg(value order by id) as rows from (select id, value from ${sql.identifier(table)}
        where id > ${after} and ${where} order by id limit ${PAGE}) page`,
    );
  const written = inOrder(
    await paged<Written>(
      db,
      (after) => sql`select json_agg(json_build_object('id', id, 'room', room, 'subject', subject, 'v', v, 'at', at,
        'recordedAt', recorded_at, 'personId', person_id, 'value', value) order by id) as rows
        from (select * from records where id > ${after} order by id limit ${PAGE}) page`,
    ),
  );
  const lists: Record<string, object[]> & Pick<Records, keyof typeof OWN_LISTS | 'roomRecords'> = {
    beanRecords: [],
    roastRecords: [],
    recipeRecords: [],
    roomRecords: [],
  };
  for (const { room, subject, v, ...row } of written) {
    const own = LIST_OF.get(room);
    if (own)
      lists[own.list]?.push({
        ...row,
        ...(own.subject === null ? {} : { [own.subject]: subject }),
        value: opened(own.room, v, row),
      });
    else if (isRoom(room)) lists.roomRecords.push({ ...row, room, value: opened(room, v, row) });
  }
  const [setting] = await db.select().from(t.settings);
  return {
    settings: (setting?.value as Settings | undefined) ?? null,
    people: await db.select().from(t.people).orderBy(t.people.id),
    machines: await values('machines'),
    materials: await values('materials'),
    routes: await values('routes'),
    holdings: await paged(
      db,
      (
        after,
      ) => sql`select json_agg(json_build_object('id', id, 'code', code, 'kind', kind, 'name', name, 'place', place,
        'routeId', route_id, 'batchId', batch_id, 'materialId', material_id, 'madeBy', made_by) order by id) as rows
        from (select * from holdings where id > ${after} order by id limit ${PAGE}) page`,
    ),
    lots: await paged(
      db,
      (after) => sql`select json_agg(json_build_object('id', id, 'facts', facts) order by id) as rows
        from (select * from lots where id > ${after} order by id limit ${PAGE}) page`,
    ),
    batches: await values('batches'),
    steps: await readSteps(db),
    files: (
      await paged<FileMeta>(
        db,
        (after) => sql`select json_agg(json_build_object('id', id, 'lotId', lot_id, 'subject', subject, 'name', name,
          'caption', caption, 'type', type, 'size', size, 'width', width, 'height', height, 'sha256', sha256, 'at', at,
          'personId', person_id) order by id) as rows
          from (select * from files where id > ${after} and not removed order by id limit ${PAGE}) page`,
      )
    ).sort((a, b) => a.at - b.at || (a.id < b.id ? -1 : 1)),
    ...lists,
    curves: (
      await paged<CurveMeta>(
        db,
        (after) => sql`select json_agg(json_build_object('id', id, 'loadId', load_id, 'name', name, 'source', source,
          'startedAt', started_at, 'readings', coalesce((select "from" + length(seconds) / 4 from curve_parts
          where curve_id = page.id order by part desc limit 1), readings), 'channels', channels) order by id) as rows
          from (select id, load_id, name, source, started_at, readings, channels from curves
            where id > ${after} order by id limit ${PAGE}) page`,
      )
    ).sort((a, b) => a.startedAt - b.startedAt || (a.id < b.id ? -1 : 1)),
    works: await values('works', sql`closed_at is null`),
  };
}

async function readSteps(db: Database | Tx): Promise<Step[]> {
  const all: Step[] = [];
  for (;;) {
    const after = all.at(-1)?.seq ?? -1;
    const { rows } = await db.execute<{ page: string | null }>(sql`
      select string_agg(value, ',' order by seq) as page
      from (select seq, value from steps where seq > ${after} order by seq limit ${PAGE}) page`);
    const page = rows[0]?.page;
    if (!page) return all;
    for (const row of JSON.parse(`[${page}]`) as PackedStep[]) all.push(unpackStep(row));
    await breathe();
  }
}
