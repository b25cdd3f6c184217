import { nanoid } from 'nanoid';
import { z } from 'zod/mini';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { ACTS, changeAct, planAct, usualActs } from '@wunsch/core/grind/acts';
import { momentReached, runningHours } from '@wunsch/core/run/stretches';
import { momentOf } from '@wunsch/core/run/attended';
import { id } from '@wunsch/core/fields/fields';
import { ACT_KINDS, type ActKind } from '@wunsch/core/ledger/types';
import { waits } from '@wunsch/core/work/grinding';
import { localIn } from '@wunsch/core/units/zone';
import { param } from '../http/param';
import type { Router } from '../http/router';
import type { GrindRun, GrindRuns } from './study';

const instant = z.iso.datetime({ offset: true, message: 'is a time like 2027-05-31T06:10:00Z' });

/** What doing an act says of the stones. */
const SAYS: Partial<Record<ActKind, 'stones-up' | 'stones-down'>> = {
  'stones-up': 'stones-up',
  'stones-down': 'stones-down',
};

/** Acts planned for a bowl: each is due by the clock, by running hours, by a reading or after another, and is done by one press. */
export function actRoutes(router: Router, runs: GrindRuns, runOf: (request: { params: unknown }) => GrindRun): void {
  const { workshop } = router;
  /** When an act that does not go by the clock is expected, as far as running hours say; now, where they do not. */
  const expectedAt = (run: GrindRun, own: z.infer<typeof waits> | undefined, at: string | undefined): number => {
    const now = workshop.now();
    if (at !== undefined) return Date.parse(at);
    if (own?.by !== 'running') return now;
    const { settings } = workshop;
    return (
      momentReached(run.stretches, own.hours, now) ??
      momentOf(
        own.hours,
        { at: now, hours: runningHours(run.stretches, now) },
        settings.unattended,
        settings.attended,
        localIn(settings.timeZone),
      ) ??
      now
    );
  };
  const byId = (request: { params: unknown }): GrindRun => {
    const batch = workshop.batches.get(param(request.params, 'id'));
    const run = batch && runs.run(batch);
    if (!run) throw new DomainError('http/not-found', 'There is no such batch.');
    return run;
  };
  router.write(
    'POST',
    '/api/grind/batches/:id/acts',
    'Plan an act for a batch',
    z
      .object({
        personId: id,
        what: z
          .string()
          .check(z.trim(), z.minLength(2, 'says what is to be done'), z.maxLength(80, 'is longer than 80 letters')),
        at: z.optional(instant),
        kind: z.optional(z.enum(ACT_KINDS)),
        waits: z.optional(waits),
      })
      .check(
        z.refine((act) => act.at !== undefined || act.waits !== undefined, { message: 'is missing', path: ['at'] }),
      ),
    ({ personId, what, at, kind, waits: own }, request) => {
      workshop.checkPerson(personId);
      const run = byId(request);
      return workshop.changeBatch(run.batch.id, (batch) =>
        planAct(batch, {
          id: nanoid(8),
          what,
          at: expectedAt(run, own, at),
          personId,
          plannedAt: workshop.now(),
          ...(kind === undefined ? {} : { kind }),
          ...(own === undefined ? {} : { waits: own }),
        }),
      );
    },
  );
  router.write(
    'POST',
    '/api/grind/batches/:id/acts/:act',
    'An act is done, moved to another time, or dropped',
    z.object({
      personId: id,
      done: z.optional(z.boolean()),
      at: z.optional(instant),
      dropped: z.optional(z.boolean()),
    }),
    ({ personId, at, done, dropped }, request) => {
      workshop.checkPerson(personId);
      const { batch } = byId(request);
      const actId = param(request.params, 'act');
      const before = batch.acts?.find((act) => act.id === actId);
      const changed = workshop.changeBatch(batch.id, (row) =>
        changeAct(row, actId, { done, dropped, at: at === undefined ? undefined : Date.parse(at) }, workshop.now()),
      );
      const says = before?.kind === undefined ? undefined : SAYS[before.kind];
      // Lifting the stones is an act and a fact at once; said twice it is one.
      if (done === true && before?.doneAt === null && says !== undefined)
        workshop.record(
          { kind: 'reading', batchId: batch.id, what: says, value: null, note: '' },
          { personId, machineId: null, minutes: 0, energyKwh: 0 },
        );
      return changed;
    },
  );
  router.write(
    'POST',
    '/api/grind/batches/:code/usual',
    'Plan the acts that most bowls see',
    z.object({ personId: id }),
    ({ personId }, request) => {
      workshop.checkPerson(personId);
      const run = runOf(request);
      const has = new Set((run.batch.acts ?? []).map(({ kind }) => kind));
      const missing = usualActs(run.batch.targetMicron).filter(({ kind }) => !has.has(kind));
      const hours = runningHours(run.stretches, workshop.now());
      // What is long past was done or left out.
      const due = missing.filter(({ waits: own }) => own.by !== 'running' || own.hours >= hours - 1);
      for (const { kind, waits: own } of due)
        workshop.changeBatch(run.batch.id, (batch) =>
          planAct(batch, {
            id: nanoid(8),
            what: ACTS[kind].words,
            at: expectedAt(run, own, undefined),
            personId,
            plannedAt: workshop.now(),
            kind,
            waits: own,
          }),
        );
      return { planned: due.length };
    },
  );
}
