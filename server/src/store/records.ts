import { setImmediate as breathe } from 'node:timers/promises';
import { eq, isNotNull, sql } from 'drizzle-orm';
import type { BeanRecord } from '@wunsch/core/beans/records';
import type { Batch, Holding, LotFacts, Material, Step } from '@wunsch/core/ledger/types';
import type { RecipeRecord } from '@wunsch/core/recipe/records';
import { OWN_LISTS, recordVersion, type RoomRecord } from '@wunsch/core/records';
import type { RoastRecord } from '@wunsch/core/roast/records';
import type { CurveMeta, FileMeta } from '@wunsch/core/workshop/kept';
import type { Route } from '@wunsch/core/work/stations';
import type { Machine, Person, Settings } from '@wunsch/core/workshop/schemas';
import type { Work } from '@wunsch/core/workshop/work';
import { writeCommit, type Commit } from './commits';
import { writeCurve, type CurveRow } from './curves';
import { packStep } from './step-text';
import type { Database, Tx } from './types';
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

/** What one transaction adds or changes. */
export interface Changes extends Omit<Records, 'settings' | 'curves'> {
  settings?: Settings;
  closedWorks: { id: string; at: number; stepId: string | null }[];
  /** Papers of lots whose receipt was corrected. */
  lotFacts: { id: string; facts: LotFacts; name: string; routeId: string }[];
  /** Holdings of which something else is said now. */
  restated: Holding[];
  answers: (typeof t.answers.$inferInsert)[];
  removedFiles: string[];
  curves: CurveRow[];
  removedCurves: string[];
}

/** No rows in any list. */
export const noRows = (): Omit<Records, 'settings'> => ({
  people: [],
  machines: [],
  materials: [],
  routes: [],
  holdings: [],
  lots: [],
  batches: [],
  steps: [],
  works: [],
  beanRecords: [],
  files: [],
  roastRecords: [],
  recipeRecords: [],
  roomRecords: [],
  curves: [],
});

export const noChanges = (): Changes => ({
  ...noRows(),
  curves: [],
  closedWorks: [],
  lotFacts: [],
  restated: [],
  answers: [],
  removedFiles: [],
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

/** Writes everything of one unit of work, or nothing. @param commit the state that the database is in with it */
export async function write(db: Database | Tx, changes: Changes, commit?: Commit): Promise<void> {
  await db.transaction(async (tx) => {
    if (commit) await writeCommit(tx, commit);
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
    await writeRecords(tx, changes);
    await writeFiles(tx, changes);
    await writeCurves(tx, changes);
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

async function writeFiles(tx: Tx, changes: Changes): Promise<void> {
  await inChunks(changes.files, (rows) => tx.insert(t.files).values(rows));
  for (const id of changes.removedFiles) await tx.update(t.files).set({ removed: true }).where(eq(t.files.id, id));
}

async function writeRecords(tx: Tx, changes: Changes): Promise<void> {
  type Row = Omit<RoomRecord, 'room'> & Record<string, unknown>;
  const own = Object.entries(OWN_LISTS).flatMap(([list, { room, subject }]) =>
    (changes[list as keyof typeof OWN_LISTS] as unknown as Row[]).map(
      ({ id, at, recordedAt, personId, value, ...row }) => ({
        ...{ id, at, recordedAt, personId, value, room },
        subject: subject === null ? null : (row[subject] as string | null),
      }),
    ),
  );
  const rows = [...own, ...changes.roomRecords].map((row) => ({
    ...row,
    kind: row.value.kind,
    v: recordVersion(row.room, row.value.kind),
  }));
  await inChunks(rows, (chunk) => tx.insert(t.records).values(chunk));
}

async function writeCurves(tx: Tx, changes: Changes): Promise<void> {
  for (const row of changes.curves) await writeCurve(tx, row);
  for (const id of changes.removedCurves) {
    await tx.delete(t.curves).where(eq(t.curves.id, id));
    await tx.delete(t.curveParts).where(eq(t.curveParts.curveId, id));
  }
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
    sql`truncate answers, curve_parts, curves, records, files, works, steps, batches, lots, holdings, routes, materials, machines, people, settings`,
  );
}
