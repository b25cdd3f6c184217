import { setImmediate as breathe } from 'node:timers/promises';
import { eq, inArray, isNotNull, sql } from 'drizzle-orm';
import type { BeanRecord } from '@wunsch/core/beans/records';
import type { Batch, Holding, LotFacts, Material, Posting, Step } from '@wunsch/core/ledger/types';
import type { RecipeRecord } from '@wunsch/core/recipe/records';
import { isRoom, type RoomRecord } from '@wunsch/core/records';
import type { RoastRecord } from '@wunsch/core/roast/records';
import type { Curve } from '@wunsch/core/roast/curve';
import type { CurveMeta, FileMeta } from '@wunsch/core/workshop/kept';
import type { Route } from '@wunsch/core/work/stations';
import type { Machine, Person, Settings } from '@wunsch/core/workshop/schemas';
import type { Work } from '@wunsch/core/workshop/work';
import type { Database, Tx } from './types';
import { packFloats, unpackFloats } from './floats';
import * as t from './schema';

/** Everything the workshop is, as it is read at start. */
export interface Records {
  settings: Settings | null;
  people: Person[];
  machines: Machine[];
  materials: Material[];
  routes: Route[];
  holdings: Holding[];
  lots: { id: string; facts: LotFacts }[];
  batches: Batch[];
  steps: Step[];
  works: Work[];
  beanRecords: BeanRecord[];
  files: FileMeta[];
  roastRecords: RoastRecord[];
  recipeRecords: RecipeRecord[];
  roomRecords: RoomRecord[];
  curves: CurveMeta[];
}

export type CurveRow = CurveMeta & { curve: Curve };

/** What one transaction adds or changes. */
export interface Changes {
  settings?: Settings;
  people: Person[];
  machines: Machine[];
  materials: Material[];
  routes: Route[];
  holdings: Holding[];
  lots: { id: string; facts: LotFacts }[];
  batches: Batch[];
  steps: Step[];
  works: Work[];
  closedWorks: { id: string; at: number; stepId: string | null }[];
  /** Papers of lots whose receipt was corrected. */
  lotFacts: { id: string; facts: LotFacts; name: string; routeId: string }[];
  /** Holdings of which something else is said now. */
  restated: Holding[];
  answers: (typeof t.answers.$inferInsert)[];
  beanRecords: BeanRecord[];
  files: FileMeta[];
  removedFiles: string[];
  roastRecords: RoastRecord[];
  recipeRecords: RecipeRecord[];
  roomRecords: RoomRecord[];
  curves: CurveRow[];
  removedCurves: string[];
}

export const noChanges = (): Changes => ({
  people: [],
  machines: [],
  materials: [],
  routes: [],
  holdings: [],
  lots: [],
  batches: [],
  steps: [],
  works: [],
  closedWorks: [],
  lotFacts: [],
  restated: [],
  answers: [],
  beanRecords: [],
  files: [],
  removedFiles: [],
  roastRecords: [],
  recipeRecords: [],
  roomRecords: [],
  curves: [],
  removedCurves: [],
});

/** Rows per INSERT: PostgreSQL takes 65,535 parameters, a holding has 9. */
const CHUNK = 120;

/** Inserts rows some hundred at a time; others get their turn between. */
async function inChunks<Row>(rows: readonly Row[], insert: (chunk: Row[]) => Promise<unknown>): Promise<void> {
  for (let i = 0; i < rows.length; i += CHUNK) {
    if (i > 0) await breathe();
    await insert(rows.slice(i, i + CHUNK));
  }
}

/** Writes everything of one unit of work, or nothing. */
export async function write(db: Database | Tx, changes: Changes): Promise<void> {
  await db.transaction(async (tx) => {
    await writeReference(tx, changes);
    await inChunks(changes.holdings, (rows) => insertHoldings(tx, rows));
    await inChunks(changes.lots, (rows) => tx.insert(t.lots).values(rows));
    // What changed several times in one transaction is written once, as it was last.
    const newest = <Row extends { id: string }>(rows: readonly Row[]): Row[] => [
      ...new Map(rows.map((row) => [row.id, row])).values(),
    ];
    await inChunks(newest(changes.batches), (rows) =>
      tx
        .insert(t.batches)
        .values(rows.map((b) => ({ id: b.id, value: b })))
        .onConflictDoUpdate({ target: t.batches.id, set: { value: sql`excluded.value` } }),
    );
    await inChunks(changes.steps, (rows) => insertSteps(tx, rows));
    await inChunks(newest(changes.works), (rows) =>
      tx
        .insert(t.works)
        .values(rows.map((w) => ({ id: w.id, value: w })))
        .onConflictDoUpdate({ target: t.works.id, set: { value: sql`excluded.value` } }),
    );
    await writeBeans(tx, changes);
    await writeRoasts(tx, changes);
    for (const { id, at, stepId } of changes.closedWorks) {
      await tx.update(t.works).set({ closedAt: at, closedBy: stepId }).where(eq(t.works.id, id));
    }
    for (const { id, facts, name, routeId } of changes.lotFacts) {
      await tx.update(t.lots).set({ facts }).where(eq(t.lots.id, id));
      await tx.update(t.holdings).set({ name, routeId }).where(eq(t.holdings.id, id));
    }
    for (const { id, ...facts } of changes.restated)
      await tx.update(t.holdings).set(facts).where(eq(t.holdings.id, id));
    await inChunks(changes.answers, (rows) => tx.insert(t.answers).values(rows));
  });
}

/*
 * The many rows go in as one JSON text: building a statement with a parameter for every field of every row takes longer
 * than all the rest.
 */

const insertHoldings = (tx: Tx, rows: readonly Holding[]): Promise<unknown> =>
  tx.execute(sql`insert into holdings (id, code, kind, name, place, route_id, batch_id, material_id, made_by)
    select id, code, kind, name, place, "routeId", "batchId", "materialId", "madeBy"
    from json_to_recordset(${JSON.stringify(rows)}::json) as row(id text, code text, kind text, name text, place text,
      "routeId" text, "batchId" text, "materialId" text, "madeBy" text)`);

const insertSteps = (tx: Tx, rows: readonly Step[]): Promise<unknown> =>
  tx.execute(sql`insert into steps (id, seq, kind, station, at, person_id, batch_id, supersedes, value)
    select id, seq, kind, station, at, "personId", "batchId", supersedes, value
    from json_to_recordset(${JSON.stringify(
      rows.map((step) => {
        const { id, seq, kind, station, at, personId, batchId, supersedes } = step;
        return { id, seq, kind, station, at, personId, batchId, supersedes, value: packStep(step) };
      }),
    )}::json) as row(id text, seq integer, kind text, station text, at bigint, "personId" text, "batchId" text,
      supersedes text, value text)`);

async function writeBeans(tx: Tx, changes: Changes): Promise<void> {
  await inChunks(changes.beanRecords, (rows) =>
    tx.insert(t.beanRecords).values(rows.map((row) => ({ ...row, kind: row.value.kind }))),
  );
  await inChunks(changes.files, (rows) => tx.insert(t.files).values(rows));
  for (const id of changes.removedFiles) await tx.update(t.files).set({ removed: true }).where(eq(t.files.id, id));
}

async function writeRoasts(tx: Tx, changes: Changes): Promise<void> {
  await inChunks(changes.roastRecords, (rows) =>
    tx.insert(t.roastRecords).values(rows.map((row) => ({ ...row, kind: row.value.kind }))),
  );
  await inChunks(changes.recipeRecords, (rows) =>
    tx.insert(t.records).values(rows.map((row) => ({ ...row, room: 'recipe', kind: row.value.kind }))),
  );
  await inChunks(changes.roomRecords, (rows) =>
    tx.insert(t.records).values(rows.map((row) => ({ ...row, kind: row.value.kind }))),
  );
  for (const row of changes.curves) await writeCurve(tx, row);
  for (const id of changes.removedCurves) {
    await tx.delete(t.roastCurves).where(eq(t.roastCurves.id, id));
    await tx.delete(t.curveParts).where(eq(t.curveParts.curveId, id));
  }
}

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

/** Photos and papers that still lie in the database, from before they had a folder. */
export async function* filesInside(db: Database): AsyncGenerator<{ id: string; bytes: Uint8Array }> {
  const rows = await db.select({ id: t.files.id }).from(t.files).where(isNotNull(t.files.bytes));
  for (const { id } of rows) {
    const [row] = await db.select({ bytes: t.files.bytes }).from(t.files).where(eq(t.files.id, id));
    if (row?.bytes) yield { id, bytes: row.bytes };
  }
}

/** Says that the bytes of a file are kept in the folder now, under their hash. */
export const movedOut = (db: Database, id: string, sha256: string): Promise<unknown> =>
  db.update(t.files).set({ bytes: null, sha256 }).where(eq(t.files.id, id));

async function writeReference(tx: Tx, changes: Changes): Promise<void> {
  if (changes.settings) {
    await tx
      .insert(t.settings)
      .values({ id: 'workshop', value: changes.settings })
      .onConflictDoUpdate({ target: t.settings.id, set: { value: changes.settings } });
  }
  for (const person of changes.people) {
    await tx.insert(t.people).values(person).onConflictDoUpdate({ target: t.people.id, set: person });
  }
  for (const [table, rows] of [
    [t.machines, changes.machines],
    [t.materials, changes.materials],
    [t.routes, changes.routes],
  ] as const) {
    for (const value of rows) {
      await tx.insert(table).values({ id: value.id, value }).onConflictDoUpdate({ target: table.id, set: { value } });
    }
  }
}

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

/** Reads everything. */
export async function read(db: Database | Tx): Promise<Records> {
  const values = <Row extends { id: string }>(table: string, where = sql`true`): Promise<Row[]> =>
    paged(
      db,
      (after) => sql`select json_agg(value order by id) as rows from (select id, value from ${sql.identifier(table)}
        where id > ${after} and ${where} order by id limit ${PAGE}) page`,
    );
  const recordsIn = async <Row extends { id: string; at: number; recordedAt: number }>(
    table: string,
    own = sql``,
    where = sql`true`,
  ): Promise<Row[]> =>
    inOrder(
      await paged<Row>(
        db,
        (after) => sql`select json_agg(json_build_object('id', id, 'at', at, 'recordedAt', recorded_at,
          'personId', person_id, 'value', value ${own}) order by id) as rows from (select * from ${sql.identifier(table)}
          where id > ${after} and ${where} order by id limit ${PAGE}) page`,
      ),
    );
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
    beanRecords: await recordsIn('bean_records', sql`, 'lotId', lot_id`),
    files: (
      await paged<FileMeta>(
        db,
        (after) => sql`select json_agg(json_build_object('id', id, 'lotId', lot_id, 'subject', subject, 'name', name,
          'caption', caption, 'type', type, 'size', size, 'width', width, 'height', height, 'sha256', sha256, 'at', at,
          'personId', person_id) order by id) as rows
          from (select * from files where id > ${after} and not removed order by id limit ${PAGE}) page`,
      )
    ).sort((a, b) => a.at - b.at || (a.id < b.id ? -1 : 1)),
    roastRecords: await recordsIn('roast_records'),
    recipeRecords: await recordsIn('records', sql``, sql`room = 'recipe'`),
    roomRecords: (await recordsIn<RoomRecord>('records', sql`, 'room', room`, sql`room <> 'recipe'`)).filter(
      ({ room }) => isRoom(room),
    ),
    curves: (
      await paged<CurveMeta>(
        db,
        (after) => sql`select json_agg(json_build_object('id', id, 'loadId', load_id, 'name', name, 'source', source,
          'startedAt', started_at, 'readings', coalesce((select "from" + length(seconds) / 4 from curve_parts
          where curve_id = page.id order by part desc limit 1), readings)) order by id) as rows
          from (select id, load_id, name, source, started_at, readings from roast_curves
            where id > ${after} order by id limit ${PAGE}) page`,
      )
    ).sort((a, b) => a.startedAt - b.startedAt || (a.id < b.id ? -1 : 1)),
    works: await values('works', sql`closed_at is null`),
  };
}

/** A posting without its field names: most of a ten-year start is reading these. */
type Line = [
  holdingId: Posting['holdingId'],
  loss: Posting['loss'],
  outside: Posting['outside'],
  reason: Posting['reason'],
  massMg: number,
  pieces: number,
];

const packStep = ({ postings, ...step }: Step): string =>
  JSON.stringify({
    ...step,
    postings: postings.map((p): Line => [p.holdingId, p.loss, p.outside, p.reason, p.massMg, p.pieces]),
  });

const unpackLine = ([holdingId, loss, outside, reason, massMg, pieces]: Line): Posting => ({
  holdingId,
  loss,
  outside,
  reason,
  massMg,
  pieces,
});

async function readSteps(db: Database | Tx): Promise<Step[]> {
  const all: Step[] = [];
  for (;;) {
    const after = all.at(-1)?.seq ?? -1;
    const { rows } = await db.execute<{ page: string | null }>(sql`
      select string_agg(value, ',' order by seq) as page
      from (select seq, value from steps where seq > ${after} order by seq limit ${PAGE}) page`);
    const page = rows[0]?.page;
    if (!page) return all;
    for (const row of JSON.parse(`[${page}]`) as (Omit<Step, 'postings'> & { postings: Line[] })[]) {
      const step = row as unknown as Step;
      step.postings = row.postings.map(unpackLine);
      all.push(step);
    }
    await breathe();
  }
}

/** How a piece of work ended; undefined while it runs, or where there never was one. */
export async function findClosedWork(
  db: Database,
  id: string,
): Promise<{ closedAt: number; closedBy: string | null } | undefined> {
  const { closedAt, closedBy } = t.works;
  const [row] = await db.select({ closedAt, closedBy }).from(t.works).where(eq(t.works.id, id));
  return row?.closedAt == null ? undefined : { closedAt: row.closedAt, closedBy: row.closedBy };
}

/** The first answer given to a write with that key. */
export async function findAnswer(db: Database, key: string): Promise<typeof t.answers.$inferSelect | undefined> {
  const [answer] = await db.select().from(t.answers).where(eq(t.answers.key, key));
  return answer;
}

/** Empties every table of the workshop, children first. */
export async function clear(db: Database | Tx): Promise<void> {
  await db.execute(
    sql`truncate answers, curve_parts, roast_curves, records, roast_records, files, bean_records, works, steps, batches, lots, holdings, routes, materials, machines, people, settings`,
  );
}
