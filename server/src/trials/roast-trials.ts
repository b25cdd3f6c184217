import { nanoid } from 'nanoid';
import { z } from 'zod/mini';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { entryHead } from '@wunsch/core/work/start';
import { id } from '@wunsch/core/fields/fields';
import type { TrialView } from '@wunsch/core/api/roast';
import { trial } from '@wunsch/core/roast/records';
import { judgeTrial } from '@wunsch/core/roast/trial';
import { param } from '../http/param';
import type { Router } from '../http/router';
import type { Views } from '../ledger/views';
import { loadRow, roastStep } from '../roast/loads';
import { scoresFor } from './scores';

const head = z.object({ personId: id, at: entryHead.shape.at });

/** Trials: a plan of roasts on one lot, the loads that were made of it, and what they say. */
export function roastTrialRoutes(router: Router, views: Views): void {
  const { workshop } = router;
  router.read('/api/roast/trials', 'Trials, newest first', () => ({
    trials: workshop.roasts
      .allTrials()
      .sort((a, b) => b.at - a.at)
      .map(({ value }) => trialView(views, value.trialId)),
  }));
  router.read('/api/roast/trials/:id', 'One trial, and what it says so far', (request) =>
    trialView(views, param(request.params, 'id')),
  );
  router.write(
    'POST',
    '/api/roast/trials',
    'Plan a trial on a lot',
    z.extend(head, { trial }),
    ({ trial: as, ...by }) => {
      if (!workshop.lots.has(as.lotId))
        throw new DomainError('http/not-found', 'There is no such lot.', [
          { path: 'trial.lotId', message: 'is not known here' },
        ]);
      const trialId = nanoid(10);
      workshop.addRoastRecord({ kind: 'trial', trialId, trial: as }, by);
      return { id: trialId };
    },
  );
  router.write(
    'POST',
    '/api/roast/trials/:id/loads',
    'Say which roast of the plan a load was',
    z.extend(head, {
      cell: z.number().check(z.int(), z.minimum(0), z.maximum(15)),
      code: z.string().check(z.minLength(1), z.maxLength(20)),
    }),
    ({ cell, code, ...by }, request) => {
      const trialId = param(request.params, 'id');
      const { value } = workshop.roasts.trial(trialId);
      const { loadId } = roastStep(views, code);
      if (value.trial.cells[cell] === undefined)
        throw new DomainError('roast/no-cell', 'The plan has no such roast.', [
          { path: 'cell', message: 'is not in the plan' },
        ]);
      if (workshop.roasts.loadsOf(trialId).some((row) => row.value.loadId === loadId))
        throw new DomainError('roast/in-trial', `${code} is in this trial already.`);
      if (!views.lotsIn(loadId).some((lot) => lot.id === value.trial.lotId))
        throw new DomainError('roast/other-lot', `${code} is not from the lot of this trial.`, [
          { path: 'code', message: 'is from another lot' },
        ]);
      workshop.addRoastRecord({ kind: 'trial-load', trialId, cell, loadId }, by);
      return { trialId, cell, code };
    },
  );
}

function trialView(views: Views, trialId: string): TrialView {
  const { roasts, book } = views.workshop;
  const { value, at, personId } = roasts.trial(trialId);
  const { trial } = value;
  const loads = roasts.loadsOf(trialId).flatMap(({ value: { cell, loadId } }) => {
    const row = loadRow(views, loadId);
    if (!row) return [];
    return [
      {
        cell,
        code: row.code,
        loadId,
        at: row.at,
        endC: row.endC,
        minutes: row.minutes,
        // A blind session of the trial comes first, then the panel on the load, then the bars made of it.
        scores: scoresFor(views, trialId, { batchId: null, loadId }),
      },
    ];
  });
  const lot = book.holdings.get(trial.lotId);
  return {
    id: trialId,
    at,
    person: views.person(personId),
    trial,
    lotCode: lot?.code ?? '',
    lotName: lot?.name ?? '',
    loads,
    verdict: judgeTrial(
      trial.cells.map((roast, cell) => ({
        ...roast,
        loads: loads
          .filter((load) => load.cell === cell && load.scores.length > 0)
          .map(({ scores }) => ({
            score: scores.reduce((sum, score) => sum + score, 0) / scores.length,
            tasters: scores.length,
          })),
      })),
    ),
  };
}
