import { z } from 'zod';
import { command, newBatch } from '../ledger/commands';
import { id } from '../fields/fields';
import { ACT_KINDS, HOLDING_KINDS, LOSS_CAUSES, STEP_KINDS } from '../ledger/types';
import { waits } from '../run/due';
import { liveMould } from '../work/moulding';
import { liveRoast } from '../work/roasting';
import { machine, newMaterial, newRoute, person } from './schemas';
import { PLACES, STATIONS } from '../work/stations';
import { livePour } from '../work/tempering';

/*
 * Every kind of row that a workshop is kept in, as it has to look: what is restored, and what is read at a start, is
 * held against these first. They check; they change nothing.
 */

const whole = z.number().int();
/** UTC ms, in this century. */
export const instant = whole.min(0).max(Date.UTC(2100, 0, 1));
export const words = z.string().max(4000);
/** More steps than any workshop takes: the numbers after it must fit too. */
const MOST_STEPS = 1_000_000_000;
const idOrNone = id.nullable();

const holding = z.object({
  id,
  code: z.string().min(1).max(40),
  kind: z.enum(HOLDING_KINDS),
  name: words,
  place: z.enum(PLACES),
  routeId: idOrNone,
  batchId: idOrNone,
  materialId: idOrNone,
  madeBy: z.string().max(64),
});

const posting = z
  .object({
    holdingId: idOrNone,
    loss: z.enum(LOSS_CAUSES).nullable(),
    outside: z.enum(['supplier', 'customer']).nullable(),
    reason: words.nullable(),
    massMg: whole,
    pieces: whole,
  })
  .refine((p) => [p.holdingId, p.loss, p.outside].filter((account) => account !== null).length === 1, {
    message: 'names no account, or several',
  });

const milli = whole;
const step = z
  .object({
    id,
    seq: whole.min(0).max(MOST_STEPS),
    order: whole.min(0).max(MOST_STEPS),
    kind: z.enum(STEP_KINDS),
    station: z.enum(PLACES),
    at: instant,
    recordedAt: instant,
    personId: id,
    batchId: idOrNone,
    machineId: idOrNone,
    supersedes: idOrNone,
    reason: words.nullable(),
    withdrawn: z.boolean(),
    command,
    slots: z.record(z.string(), id),
    minutes: z.number().min(0),
    energyKwh: z.number().min(0),
    money: z.object({
      purchaseMilli: milli,
      labourMilli: milli,
      energyMilli: milli,
      revenueMilli: milli,
      takingsMilli: z.record(z.string(), milli).optional(),
    }),
    postings: z.array(posting).max(500),
    overrides: z
      .array(z.object({ gate: words, sentence: words, word: words, personId: id }))
      .max(20)
      .optional(),
  })
  .refine((row) => row.command.kind === row.kind, { message: 'is not what its command says', path: ['kind'] });

const lot = z.object({
  id,
  facts: z.object({
    producer: words,
    country: words,
    region: words,
    variety: words,
    harvest: words,
    form: z.enum(['beans', 'nibs', 'wet']),
    sacks: whole.min(0),
    moisturePct: z.number().nullable(),
    note: words,
  }),
});

const work = z.object({
  id,
  station: z.enum(STATIONS),
  sources: z.array(z.object({ holdingId: id, massMg: whole.min(0), pieces: whole.min(0) })).max(60),
  machineId: idOrNone,
  personId: id,
  startedAt: instant,
  dueAt: instant.nullable(),
  note: words,
  pausedAt: instant.nullable().optional(),
  pausedMs: z.number().min(0).optional(),
  roast: liveRoast.nullable().optional(),
  pour: livePour.optional(),
  mould: liveMould.optional(),
  silk: z.boolean().optional(),
  overrides: z
    .array(z.object({ gate: words, sentence: words, word: words, personId: id }))
    .max(20)
    .optional(),
});

/** What one row of each table has to be. */
export const ROWS = {
  people: person,
  machines: machine,
  materials: newMaterial.extend({ id }),
  routes: newRoute.extend({ id }),
  holdings: holding,
  lots: lot,
  batches: newBatch.extend({
    id,
    code: z.string().min(1).max(40),
    machineId: idOrNone,
    acts: z
      .array(
        z.object({
          id,
          what: words,
          at: instant,
          personId: id,
          doneAt: instant.nullable(),
          plannedAt: instant.optional(),
          kind: z.enum(ACT_KINDS).optional(),
          waits: waits.optional(),
        }),
      )
      .max(200)
      .optional(),
    probe: z.enum(['simulated', 'sent']).nullable().optional(),
    restUntil: instant.nullable().optional(),
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
