import { bigint, boolean, doublePrecision, index, integer, jsonb, pgTable, text } from 'drizzle-orm/pg-core';

const mg = (name: string) => bigint(name, { mode: 'number' });
const instant = (name: string) => bigint(name, { mode: 'number' });

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

export const steps = pgTable('steps', {
  id: text('id').primaryKey(),
  seq: integer('seq').notNull().unique(),
  order: integer('order_seq').notNull(),
  kind: text('kind').notNull(),
  station: text('station').notNull(),
  at: instant('at').notNull(),
  recordedAt: instant('recorded_at').notNull(),
  personId: text('person_id')
    .notNull()
    .references(() => people.id),
  batchId: text('batch_id'),
  machineId: text('machine_id'),
  supersedes: text('supersedes').unique(),
  reason: text('reason'),
  withdrawn: boolean('withdrawn').notNull().default(false),
  command: jsonb('command').notNull(),
  slots: jsonb('slots').notNull(),
  minutes: doublePrecision('minutes').notNull(),
  energyKwh: doublePrecision('energy_kwh').notNull(),
  money: jsonb('money').notNull(),
});

export const postings = pgTable(
  'postings',
  {
    stepId: text('step_id')
      .notNull()
      .references(() => steps.id),
    line: integer('line').notNull(),
    holdingId: text('holding_id').references(() => holdings.id),
    loss: text('loss'),
    outside: text('outside'),
    reason: text('reason'),
    massMg: mg('mass_mg').notNull(),
    pieces: integer('pieces').notNull(),
  },
  (table) => [index('postings_step').on(table.stepId)],
);

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
