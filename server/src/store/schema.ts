import type { Channel } from '@wunsch/core/run/readings';
import { bigint, boolean, customType, index, integer, jsonb, pgTable, primaryKey, text } from 'drizzle-orm/pg-core';

const instant = (name: string) => bigint(name, { mode: 'number' });

const bytea = customType<{ data: Uint8Array }>({ dataType: () => 'bytea' });

/** One row: name, currency, time zone, wages and prices, units. */
export const settings = pgTable('settings', {
  id: text('id').primaryKey(),
  value: jsonb('value').notNull(),
});

export const people = pgTable('people', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  active: boolean('active').notNull().default(true),
});

export const machines = pgTable('machines', {
  id: text('id').primaryKey(),
  value: jsonb('value').notNull(),
});

export const materials = pgTable('materials', {
  id: text('id').primaryKey(),
  value: jsonb('value').notNull(),
});

export const routes = pgTable('routes', {
  id: text('id').primaryKey(),
  value: jsonb('value').notNull(),
});

export const holdings = pgTable('holdings', {
  id: text('id').primaryKey(),
  code: text('code').notNull().unique(),
  kind: text('kind').notNull(),
  name: text('name').notNull(),
  place: text('place').notNull(),
  routeId: text('route_id'),
  batchId: text('batch_id'),
  materialId: text('material_id'),
  madeBy: text('made_by').notNull(),
});

export const lots = pgTable('lots', {
  id: text('id')
    .primaryKey()
    .references(() => holdings.id),
  facts: jsonb('facts').notNull(),
});

export const batches = pgTable('batches', {
  id: text('id')
    .primaryKey()
    .references(() => holdings.id),
  value: jsonb('value').notNull(),
});

/**
 * Steps, one row each with its postings inside: PGlite spends its time per row, and a start reads them all.
 * The columns beside `value` are for queries and for keeping order; the text is the step as JSON.
 */
export const steps = pgTable('steps', {
  id: text('id').primaryKey(),
  seq: integer('seq').notNull().unique(),
  kind: text('kind').notNull(),
  station: text('station').notNull(),
  at: instant('at').notNull(),
  personId: text('person_id')
    .notNull()
    .references(() => people.id),
  batchId: text('batch_id'),
  supersedes: text('supersedes').unique(),
  value: text('value').notNull(),
});

/** Work under way: what is in a machine now and not yet weighed out. */
export const works = pgTable('works', {
  id: text('id').primaryKey(),
  value: jsonb('value').notNull(),
  closedAt: instant('closed_at'),
  closedBy: text('closed_by'),
});

/** First answers to writes that carried an Idempotency-Key. */
export const answers = pgTable('answers', {
  key: text('key').primaryKey(),
  fingerprint: text('fingerprint').notNull(),
  status: integer('status').notNull(),
  body: jsonb('body').notNull(),
  at: instant('at').notNull(),
});

/** Photos and papers: of a lot, or of anything else by its kind and id, as `batch:…`. */
export const files = pgTable('files', {
  id: text('id').primaryKey(),
  lotId: text('lot_id').references(() => lots.id),
  subject: text('subject'),
  name: text('name').notNull(),
  caption: text('caption').notNull(),
  type: text('type').notNull(),
  size: integer('size').notNull(),
  width: integer('width'),
  height: integer('height'),
  sha256: text('sha256').notNull(),
  at: instant('at').notNull(),
  personId: text('person_id')
    .notNull()
    .references(() => people.id),
  /** Once it was removed the row stays and the picture goes. */
  removed: boolean('removed').notNull().default(false),
  /** Where it was kept before there was a folder for it; null since. */
  bytes: bytea('bytes'),
});

/**
 * What rooms write down beside the grams (papers, inspections, programs, recipes, panels) about any subject. Only ever
 * added to; the room's schema reads the value, which an older version of its kind is upgraded to first.
 */
export const records = pgTable(
  'records',
  {
    id: text('id').primaryKey(),
    room: text('room').notNull(),
    /** What it is about: of beans, the lot. */
    subject: text('subject'),
    kind: text('kind').notNull(),
    /** Of its kind, when it was written. */
    v: integer('v').notNull().default(1),
    at: instant('at').notNull(),
    recordedAt: instant('recorded_at').notNull(),
    personId: text('person_id')
      .notNull()
      .references(() => people.id),
    value: jsonb('value').notNull(),
  },
  (table) => [index('records_room').on(table.room), index('records_subject').on(table.subject)],
);

/**
 * A logged run, one row: its seconds, and one after another the values of its channels, packed as little-endian 32-bit
 * floats, NaN for silence.
 */
export const curves = pgTable('curves', {
  id: text('id').primaryKey(),
  /** The tub that the load became; null while it roasts, and for a curve without a load. */
  loadId: text('load_id').references(() => holdings.id),
  name: text('name').notNull(),
  source: text('source').notNull(),
  startedAt: instant('started_at').notNull(),
  readings: integer('readings').notNull(),
  channels: jsonb('channels').$type<readonly Channel[]>().notNull(),
  seconds: bytea('seconds').notNull(),
  values: bytea('values').notNull(),
});

/**
 * What a growing curve gained since its row was written: from the `from`th reading on it is as it stands here, later
 * parts over earlier ones. Rewriting the whole row at every reading would leave a dead copy of it each time.
 */
export const curveParts = pgTable(
  'curve_parts',
  {
    curveId: text('curve_id').notNull(),
    part: integer('part').notNull(),
    from: integer('from').notNull(),
    seconds: bytea('seconds').notNull(),
    values: bytea('values').notNull(),
  },
  (table) => [primaryKey({ columns: [table.curveId, table.part] })],
);

/**
 * How often something was written here, in one row. What is kept beside the database says which count it belongs to;
 * `lineage` is another for every workshop that takes the place of one.
 */
export const commits = pgTable('commits', {
  id: integer('id').primaryKey(),
  number: integer('number').notNull(),
  lineage: text('lineage').notNull(),
});
