import { z } from 'zod/mini';
import type { MadeView, TrialView, UsualLevels } from '@wunsch/core/api/trials';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { id } from '@wunsch/core/fields/fields';
import { ROAST_WORDS } from '@wunsch/core/roast/trial';
import { median } from '@wunsch/core/stats/spread';
import { judgeArms, type TrialWords } from '@wunsch/core/trials/judge';
import { FACTOR_KEYS, FACTORS, trialPlan, type Level, type TrialPlan } from '@wunsch/core/trials/records';
import { formatTemperature } from '@wunsch/core/units/temperature';
import { param } from '../http/param';
import type { Router } from '../http/router';
import type { Views } from '../ledger/views';
import { loadRow } from '../roast/loads';
import { batchFacts } from '../taste/facts';
import { sessionsOf } from '../taste/sessions';
import { trialCalculators } from './calculators';
import { roastTrialRoutes } from './roast-trials';
import { trialsOf, type KeptTrial } from './book';
import { scoresFor } from './scores';

const ARM_WORDS = (arms: readonly string[]): TrialWords => ({
  arm: (index) => arms[index] ?? `arm ${index + 1}`,
  one: 'batch',
  many: 'batches',
});

/** Levels of an arm as they are said. */
function armWords(views: Views, { factors }: Pick<TrialPlan, 'factors'>, levels: readonly Level[]): string {
  const { temperatureUnit } = views.workshop.settings;
  return factors
    .map(({ factor }, i) => {
      const value = levels[i];
      if (factor === 'beans') return views.workshop.book.holdings.get(String(value))?.name ?? String(value);
      const { unit, name } = FACTORS[factor];
      const figure = unit === '°C' ? formatTemperature(Number(value), temperatureUnit) : `${value} ${unit}`.trim();
      return factors.length > 1 ? `${name.toLowerCase()} ${figure}` : figure;
    })
    .join(', ');
}

/** What was made under a code: a batch, or a roast load. @throws DomainError where neither is */
function made(views: Views, code: string): { batchId: string | null; loadId: string | null; at: number; link: string } {
  const { book, batches } = views.workshop;
  const batch = [...batches.values()].find((row) => row.code === code);
  if (batch)
    return { batchId: batch.id, loadId: null, at: views.stepsOfBatch(batch.id)[0]?.at ?? 0, link: `/batch/${code}` };
  const load = book.byCode(code);
  const row = load?.kind === 'roasted' ? loadRow(views, load.id) : null;
  if (load && row) return { batchId: null, loadId: load.id, at: row.at, link: `/roasting/load/${code}` };
  throw new DomainError('http/not-found', `${code} is neither a batch nor a roast load here.`, [
    { path: 'code', message: 'is neither a batch nor a load' },
  ]);
}

function really(views: Views, { factors }: TrialPlan, thing: ReturnType<typeof made>): (number | string | null)[] {
  if (thing.loadId !== null) {
    const row = loadRow(views, thing.loadId);
    return factors.map(({ factor }) =>
      factor === 'peakC' ? (row?.endC ?? null) : factor === 'roastMin' ? (row?.minutes ?? null) : null,
    );
  }
  const batchId = thing.batchId ?? '';
  const facts = batchFacts(views, batchId);
  const lot = views.lotsIn(
    Object.values(views.stepsOfBatch(batchId).find(({ kind }) => kind === 'discharge')?.slots ?? {})[0] ?? batchId,
  )[0];
  return factors.map(({ factor }) => (factor === 'beans' ? (lot?.code ?? null) : (facts[factor] ?? null)));
}

function trialView(views: Views, kept: KeptTrial): TrialView {
  const { trial } = kept;
  const arms = trial.arms.map((levels) => armWords(views, trial, levels));
  const rows = [...kept.made].flatMap(([code, arm]): MadeView[] => {
    try {
      const thing = made(views, code);
      return [
        {
          arm,
          code,
          link: thing.link,
          at: thing.at,
          scores: scoresFor(views, kept.id, thing),
          really: really(views, trial, thing),
        },
      ];
    } catch {
      return [];
    }
  });
  return {
    id: kept.id,
    at: kept.at,
    person: views.person(kept.personId),
    link: kept.roast ? `/roasting/trial/${kept.id}` : `/trial/${kept.id}`,
    trial,
    arms,
    made: rows,
    verdict: judgeArms(
      trial.factors,
      trial.arms.map((levels, arm) => ({
        levels,
        made: rows.flatMap((row) =>
          row.arm === arm && row.scores.length > 0
            ? [{ score: row.scores.reduce((a, b) => a + b, 0) / row.scores.length, tasters: row.scores.length }]
            : [],
        ),
      })),
      kept.roast ? ROAST_WORDS : ARM_WORDS(arms),
    ),
    sessions: [...sessionsOf(views).values()].flatMap((row) =>
      row.session.trialId === kept.id ? [{ id: row.id, name: row.session.name, state: row.state }] : [],
    ),
  };
}

/** So many of the last batches say what is usual. */
const LAST = 16;

/** The middle and the range of each fact over the last batches; left out where it was not logged. */
function usualLevels(views: Views): UsualLevels {
  const facts = [...views.workshop.batches.values()].slice(-LAST).map(({ id: batchId }) => batchFacts(views, batchId));
  return Object.fromEntries(
    FACTOR_KEYS.flatMap((factor) => {
      const values = facts.flatMap((row) => row[factor] ?? []);
      if (values.length < 3) return [];
      return [[factor, { middle: median(values), low: Math.min(...values), high: Math.max(...values) }]];
    }),
  );
}

/** Trials of anything that is varied: planned, made through the ledger, tasted, read. */
export function trialRoutes(router: Router, views: Views): void {
  const { workshop } = router;
  const at = (trialId: string): KeptTrial => {
    const found = trialsOf(views).get(trialId);
    if (!found) throw new DomainError('http/not-found', 'There is no such trial.');
    return found;
  };
  router.still('/api/trials', 'Trials of every kind, the newest first', () => ({
    trials: [...trialsOf(views).values()].map((kept) => trialView(views, kept)).sort((a, b) => b.at - a.at),
  }));
  router.read(
    '/api/trials/usual',
    'What is usual here of everything that can be varied, from the last batches',
    () => ({
      usual: usualLevels(views),
    }),
  );
  router.read('/api/trials/:id', 'One trial, and what its facts say so far', (request) =>
    trialView(views, at(param(request.params, 'id'))),
  );
  trialCalculators(router);
  roastTrialRoutes(router, views);
  router.write(
    'POST',
    '/api/trials',
    'Plan a trial',
    z.object({ personId: id, trial: trialPlan }),
    ({ personId, trial }) => ({ id: workshop.addRecord('trials', { kind: 'trial', trial }, { personId }).id }),
  );
  router.write(
    'POST',
    '/api/trials/:id/made',
    'Say which arm a batch or load was',
    z.object({
      personId: id,
      arm: z.number().check(z.int(), z.minimum(0), z.maximum(23)),
      code: z.string().check(z.trim(), z.minLength(1, 'is missing'), z.maxLength(40)),
    }),
    ({ personId, arm, code }, request) => {
      const kept = at(param(request.params, 'id'));
      if (kept.trial.arms[arm] === undefined)
        throw new DomainError('trials/no-arm', 'The plan has no such arm.', [
          { path: 'arm', message: 'is not in the plan' },
        ]);
      made(views, code);
      if (kept.made.has(code))
        throw new DomainError('trials/in-trial', `${code} is in this trial already.`, [
          { path: 'code', message: 'is in it already' },
        ]);
      workshop.addRecord('trials', { kind: 'made', trialId: kept.id, arm, code }, { personId });
      return trialView(views, at(kept.id));
    },
  );
  router.write(
    'DELETE',
    '/api/trials/:id/made/:code',
    'Take a batch or load out of a trial',
    z.object({ personId: z.optional(id) }),
    (_, request) => {
      const kept = at(param(request.params, 'id'));
      const code = param(request.params, 'code');
      if (!kept.made.has(code)) throw new DomainError('http/not-found', `${code} is not in this trial.`);
      workshop.addRecord('trials', { kind: 'not-made', trialId: kept.id, code }, { personId: kept.personId });
      return trialView(views, at(kept.id));
    },
  );
}
