import { z } from 'zod/mini';
import { command } from './commands';
import { newBatch } from './ledger/batch';
import { id } from './fields/fields';
import { ACT_KINDS, HOLDING_KINDS, LOSS_CAUSES, STEP_KINDS } from './ledger/types';
import { waits } from './work/grinding';
import { liveMould } from './work/moulding';
import { liveRoast } from './work/roasting';
import { machine, newMaterial, newRoute, person } from './workshop/schemas';
import { PLACES, STATIONS } from './work/stations';
import { livePour } from './work/tempering';

/*
 * Every kind of row that a workshop is kept in, as it has to look: what is restored, and what is read at a start, is
 * held against these first. They check; they change nothing.
 */

const whole = z.number().check(z.int());
/** UTC ms, in this century. */
export const instant = whole.check(z.minimum(0), z.maximum(Date.UTC(2100, 0, 1)));
export const words = z.string().check(z.maxLength(4000));
/** More steps than any workshop takes: the numbers after it must fit too. */
const MOST_STEPS = 1_000_000_000;
const idOrNone = z.nullable(id);

const holding = z.object({
  id,
  code: z.string().check(z.minLength(1), z.maxLength(40)),
  kind: z.enum(HOLDING_KINDS),
  name: words,
  place: z.enum(PLACES),
  routeId: idOrNone,
  batchId: idOrNone,
  materialId: idOrNone,
  madeBy: z.string().check(z.maxLength(64)),
});

const posting = z
  .object({
    holdingId: idOrNone,
    loss: z.nullable(z.enum(LOSS_CAUSES)),
    outside: z.nullable(z.enum(['supplier', 'customer'])),
    reason: z.nullable(words),
    massMg: whole,
    pieces: whole,
  })
  .check(
    z.refine((p) => [p.holdingId, p.loss, p.outside].filter((account) => account !== null).length === 1, {
      message: 'names no account, or several',
    }),
  );

const milli = whole;
const step = z
  .object({
    id,
    seq: whole.check(z.minimum(0), z.maximum(MOST_STEPS)),
    order: whole.check(z.minimum(0), z.maximum(MOST_STEPS)),
    kind: z.enum(STEP_KINDS),
    station: z.enum(PLACES),
    at: instant,
    recordedAt: instant,
    personId: id,
    batchId: idOrNone,
    machineId: idOrNone,
    supersedes: idOrNone,
    reason: z.nullable(words),
    withdrawn: z.boolean(),
    command,
    slots: z.record(z.string(), id),
    minutes: z.number().check(z.minimum(0)),
    energyKwh: z.number().check(z.minimum(0)),
    money: z.object({
      purchaseMilli: milli,
      labourMilli: milli,
      energyMilli: milli,
      revenueMilli: milli,
      takingsMilli: z.optional(z.record(z.string(), milli)),
    }),
    postings: z.array(posting).check(z.maxLength(500)),
    overrides: z.optional(
      z.array(z.object({ gate: words, sentence: words, word: words, personId: id })).check(z.maxLength(20)),
    ),
  })
  .check(z.refine((row) => row.command.kind === row.kind, { message: 'is not what its command says', path: ['kind'] }));

const lot = z.object({
  id,
  facts: z.object({
    producer: words,
    country: words,
    region: words,
    variety: words,
    harvest: words,
    form: z.enum(['beans', 'nibs', 'wet']),
    sacks: whole.check(z.minimum(0)),
    moisturePct: z.nullable(z.number()),
    note: words,
  }),
});

const work = z.object({
  id,
  station: z.enum(STATIONS),
  sources: z
    .array(z.object({ holdingId: id, massMg: whole.check(z.minimum(0)), pieces: whole.check(z.minimum(0)) }))
    .check(z.maxLength(60)),
  machineId: idOrNone,
  personId: id,
  startedAt: instant,
  dueAt: z.nullable(instant),
  note: words,
  pausedAt: z.optional(z.nullable(instant)),
  pausedMs: z.optional(z.number().check(z.minimum(0))),
  roast: z.optional(z.nullable(liveRoast)),
  pour: z.optional(livePour),
  mould: z.optional(liveMould),
  silk: z.optional(z.boolean()),
  overrides: z.optional(
    z.array(z.object({ gate: words, sentence: words, word: words, personId: id })).check(z.maxLength(20)),
  ),
});

/** What one row of each table has to be. */
export const ROWS = {
  people: person,
  machines: machine,
  materials: z.extend(newMaterial, { id }),
  routes: z.extend(newRoute, { id }),
  holdings: holding,
  lots: lot,
  batches: z.extend(newBatch, {
    id,
    code: z.string().check(z.minLength(1), z.maxLength(40)),
    machineId: idOrNone,
    acts: z.optional(
      z
        .array(
          z.object({
            id,
            what: words,
            at: instant,
            personId: id,
            doneAt: z.nullable(instant),
            plannedAt: z.optional(instant),
            kind: z.optional(z.enum(ACT_KINDS)),
            waits: z.optional(waits),
          }),
        )
        .check(z.maxLength(200)),
    ),
    probe: z.optional(z.nullable(z.enum(['simulated', 'sent']))),
    restUntil: z.optional(z.nullable(instant)),
  }),
  steps: step,
  works: work,
} as const;
export type Table = keyof typeof ROWS;

/** The first row of a workshop that does not fit. */
export interface Misfit {
  table: Table;
  index: number;
  id: string;
  /** What is wrong with it, with the field. */
  detail: string;
}

/** Holds one row against what it has to be. @returns what does not fit, or null */
export function misfitOf(table: Table, row: unknown, index: number): Misfit | null {
  const read = ROWS[table].safeParse(row);
  if (read.success) return null;
  const issue = read.error.issues[0];
  const named = (row as { id?: unknown } | null)?.id;
  return {
    table,
    index,
    id: typeof named === 'string' ? named : '',
    detail: `${issue?.path.join('.') ?? ''} ${issue?.message ?? 'cannot be read'}`.trim(),
  };
}
