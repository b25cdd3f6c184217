import { nanoid } from 'nanoid';
import { z } from 'zod/mini';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { forecastConche } from '@wunsch/core/grind/conche';
import { ACTS, actsOfFeed, planAct } from '@wunsch/core/grind/acts';
import { FELT } from '@wunsch/core/grind/fineness';
import { TRADE_PRIOR } from '@wunsch/core/grind/forecast';
import { evidenceOf, priorFrom } from '@wunsch/core/grind/prior';
import { runningHours } from '@wunsch/core/run/stretches';
import { tonight } from '@wunsch/core/grind/tonight';
import { id } from '@wunsch/core/fields/fields';
import { feedPlan } from '@wunsch/core/recipe/order';
import { formatMass } from '@wunsch/core/units/mass';
import type { GrindHits, GrindRunView } from '@wunsch/core/api/grind';
import { attended as attendedSchema } from '@wunsch/core/workshop/schemas';
import { SILENT_MS, type BowlProbes } from '../devices/bowl-probe';
import type { SimulatedGauge } from '../devices/gauge';
import { param } from '../http/param';
import type { Views } from '../ledger/views';
import type { Router } from '../http/router';
import { Pantry } from '../recipe/pantry';
import { linesOf } from '../recipe/views';
import { nightSheet } from './night';
import { actRoutes } from './act-routes';
import { grinderRoutes } from './grinders';
import { grindRuns, type GrindRun, type GrindRuns } from './study';

const hours = z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(1000, 'is more than six weeks'));
const micron = z.number().check(z.minimum(1, 'must be at least 1 µm'), z.maximum(1000, 'is coarser than a grit'));
const population = z.object({ solid: z.enum(['cocoa', 'sugar', 'milk']), atH: hours });
const reading = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('gauge'), atH: hours, micron }),
  z.object({
    kind: z.literal('tongue'),
    atH: hours,
    felt: z.number().check(z.int(), z.minimum(0), z.maximum(FELT.length - 1)),
  }),
]);
const grams = z
  .number()
  .check(z.positive('must be more than 0'), z.maximum(1_000_000, 'is more than any stones carry'));

const DAY_MS = 86_400_000;

function runView(runs: GrindRuns, run: GrindRun, probes: BowlProbes, now: number): GrindRunView {
  const { batch } = run;
  const heat = probes.read(batch.id);
  const last = heat.at(-1);
  return {
    code: batch.code,
    state: runs.study(run, run.endedAt ?? now).state,
    groundH: runningHours(run.stretches, now),
    movedH: runningHours(run.moved, now),
    acts: runs.actViews(run, now),
    probe:
      batch.probe == null
        ? null
        : {
            kind: batch.probe,
            rows: heat.filter(({ at }) => at >= now - DAY_MS),
            silentMin:
              now - (last?.at ?? run.startedAt) > SILENT_MS
                ? Math.round((now - (last?.at ?? run.startedAt)) / 60_000)
                : null,
            trouble: probes.trouble(batch.id),
          },
    passes: runs.passes(run),
  };
}

/** As many finished grinds as the page of hits looks back on. */
const MOST_HITS = 16;
/** Portions that were due longer ago went in long since. */
const FEED_PAST_MS = 30 * 60_000;

/** Grinders at work: what the forecast is made from, how it did before, the sheet for the night. */
export function grindRoutes(router: Router, views: Views, gauge: SimulatedGauge, probes: BowlProbes): void {
  const { workshop } = router;
  const runs = grindRuns(views);
  const runOf = (request: { params: unknown }): GrindRun => {
    const code = param(request.params, 'code').toUpperCase();
    const batch = [...workshop.batches.values()].find((row) => row.code === code);
    const run = batch && runs.run(batch);
    if (!run) throw new DomainError('trace/unknown-code', `There is no batch ${code} on the stones.`);
    return run;
  };
  router.read('/api/grind/batches/:code/study', 'What the forecast of a grind is made from', (request) => {
    const run = runOf(request);
    return runs.study(run, run.endedAt ?? workshop.now(), probes.read(run.batch.id));
  });
  router.read('/api/grind/batches/:code/run', 'What a grind is doing now: its acts, its probe', async (request) => {
    const run = runOf(request);
    await probes.hear(run.batch);
    return runView(runs, run, probes, workshop.now());
  });
  actRoutes(router, runs, runOf);
  grinderRoutes(router, views, runs);
  router.write(
    'POST',
    '/api/grind/batches/:code/probe',
    'Say which probe hangs in a bowl',
    z.object({ personId: id, probe: z.nullable(z.enum(['simulated', 'sent'])) }),
    ({ personId, probe }, request) => {
      workshop.checkPerson(personId);
      workshop.changeBatch(runOf(request).batch.id, (batch) => ({ ...batch, probe }));
      return { probe };
    },
  );
  router.calc(
    '/api/grind/batches/:code/temperature',
    'Post what a real probe in a bowl reads',
    z.object({
      tempC: z.number().check(z.minimum(0, 'is colder than any bowl'), z.maximum(120, 'is hotter than any bowl')),
      at: z.optional(z.iso.datetime({ offset: true })),
    }),
    async ({ tempC, at }, request) => {
      const run = runOf(request);
      const moment = at === undefined ? workshop.now() : Date.parse(at);
      if (run.endedAt !== null) throw new DomainError('grind/empty', `${run.batch.code} has been emptied.`);
      if (moment < run.startedAt)
        throw new DomainError('grind/before-start', `${run.batch.code} had not been started at that time.`);
      if (moment > workshop.now() + 60_000) throw new DomainError('ledger/future', 'That time is still to come.');
      if (run.batch.probe == null)
        throw new DomainError('grind/no-probe', `No probe hangs in ${run.batch.code}: choose it at its bench first.`);
      await probes.take(run.batch, tempC, moment);
      return { kept: true };
    },
  );
  router.read('/api/grind/batches/:code/gauge', 'What the simulated gauge reads of a batch now', (request) => {
    const run = runOf(request);
    const now = workshop.now();
    return { simulated: true, ...gauge.read(run, runningHours(run.stretches, now), now) };
  });
  router.read(
    '/api/grind/machines/:id/hits',
    'Finished grinds of a machine, with what was known at each reading, to hold forecasts against',
    (request): GrindHits => {
      const machineId = param(request.params, 'id');
      const machine = workshop.machines.get(machineId);
      if (!machine) throw new DomainError('http/not-found', 'There is no such machine.');
      const past = runs.past(machineId, workshop.now()).slice(-MOST_HITS);
      return {
        machine: machine.name,
        grinds: past.flatMap(({ run }) => {
          const outcome = run.readings.find(
            (row) => row.kind === 'gauge' && row.micron <= run.batch.targetMicron + 0.5,
          );
          const before = run.readings.filter((row) => outcome !== undefined && row.atH < outcome.atH);
          if (!outcome || before.length === 0) return [];
          return [
            {
              code: run.batch.code,
              name: run.batch.name,
              endedAt: run.endedAt ?? 0,
              outcomeH: outcome.atH,
              outcomeAt: outcome.at,
              // The reading before it: the target was passed somewhere between the two.
              notBeforeH: before.at(-1)?.atH ?? 0,
              studies: before.map((row) => runs.study(run, row.at)),
            },
          ];
        }),
      };
    },
  );
  router.write(
    'POST',
    '/api/grind/batches/:code/feed',
    'Plan what goes in when, by the recipe that a batch was weighed by',
    z.object({ personId: id }),
    ({ personId }, request) => {
      const { batch, startedAt } = runOf(request);
      const version = batch.recipe ? workshop.recipes.version(batch.recipe.id, batch.recipe.version) : undefined;
      if (!version)
        throw new DomainError('recipe/none', `${batch.code} was not weighed by a recipe: plan its acts one by one.`);
      if ((batch.acts ?? []).some(({ kind = 'other' }) => ACTS[kind].solid !== null))
        throw new DomainError(
          'grind/planned-already',
          `What goes into ${batch.code} is planned already, perhaps at another screen. Nothing was planned twice.`,
        );
      const pantry = new Pantry(views);
      const lines = linesOf(pantry, version.recipe.lines).map(({ ingredient, grams: own }, index) => {
        const { atMinutes = null, portions = null } = version.recipe.lines[index] ?? {};
        return {
          ingredient: ingredient.id,
          name: ingredient.name,
          role: ingredient.role,
          grams: own,
          atMinutes,
          portions,
        };
      });
      const now = workshop.now();
      const total = lines.reduce((sum, line) => sum + line.grams, 0);
      const scale = workshop.book.balance(batch.id).massMg / 1000 / Math.max(1, total);
      const acts = actsOfFeed(feedPlan(lines), startedAt, scale, (mg) => formatMass(mg, workshop.settings.massSystem));
      const due = acts.filter(({ at }) => at > now - FEED_PAST_MS);
      for (const act of due)
        workshop.changeBatch(batch.id, (row) => planAct(row, { ...act, id: nanoid(8), personId, plannedAt: now }));
      return { planned: due.length };
    },
  );
  router.file('/api/grind/batches/:code/night.pdf', 'A sheet to hang by the machine for the night', async (request) => {
    const run = runOf(request);
    return {
      type: 'application/pdf',
      name: `${run.batch.code} tonight.pdf`,
      inline: true,
      bytes: await nightSheet(views, run, runs.actViews(run, workshop.now()), tonight(runs.study(run, workshop.now()))),
    };
  });
  router.calc(
    '/api/calc/grind/conche',
    'How long a mass has still to be conched, from sourness as it was tasted and its temperatures',
    z.object({
      tastes: z
        .array(z.object({ atH: hours, score: z.number().check(z.minimum(0), z.maximum(10, 'is more than 10')) }))
        .check(z.maxLength(60)),
      heat: z._default(
        z
          .array(
            z.object({
              atH: hours,
              tempC: z.number().check(z.minimum(0), z.maximum(120, 'is hotter than any conche')),
            }),
          )
          .check(z.maxLength(500)),
        [],
      ),
      wanted: z.number().check(z.minimum(0), z.maximum(10, 'is more than 10')),
      nowH: hours,
    }),
    ({ tastes, heat, wanted, nowH }) => forecastConche(tastes, heat, wanted, nowH),
  );
  router.calc(
    '/api/calc/grind/forecast',
    'When a grind will be at its target, from gauge readings and finished grinds of the same machine',
    z.object({
      populations: z
        .array(population)
        .check(z.minLength(1, 'needs something to grind'), z.maxLength(20, 'are too many')),
      readings: z._default(z.array(reading).check(z.maxLength(60, 'are too many')), []),
      targetMicron: micron,
      nowH: hours,
      massG: z._default(grams, 10_000),
      past: z._default(
        z
          .array(
            z.object({
              populations: z.array(population).check(z.minLength(1), z.maxLength(20)),
              readings: z.array(reading).check(z.minLength(1), z.maxLength(60)),
              massG: grams,
              group: z._default(z.string().check(z.maxLength(80)), ''),
            }),
          )
          .check(z.maxLength(60, 'are too many')),
        [],
      ),
      group: z._default(z.string().check(z.maxLength(80)), ''),
      now: z.optional(z.number().check(z.int())),
      running: z._default(z.boolean(), true),
      unattended: z._default(z.boolean(), true),
      attended: z.optional(attendedSchema),
    }),
    ({ past, group, massG, now, attended, ...question }) => {
      const { settings } = workshop;
      const prior = past.length === 0 ? TRADE_PRIOR : priorFrom(past.map(evidenceOf), massG, group);
      return tonight({
        ...question,
        prior: { ...prior, getsUnder: Number.isFinite(prior.getsUnder) ? prior.getsUnder : null },
        batchId: '',
        code: '',
        machine: null,
        now: now ?? workshop.now(),
        startedAt: now ?? workshop.now(),
        attended: attended ?? settings.attended,
        timeZone: settings.timeZone,
        state: question.running ? 'grinding' : 'standing',
        planned: [],
        acts: [],
        assumed: [],
        conche: { nowH: 0, tastes: [], astringency: [], aroma: [], heat: [], prior: null, past: [] },
      });
    },
  );
}
