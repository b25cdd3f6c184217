import { nanoid } from 'nanoid';
import { z } from 'zod';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { entryHead, id } from '@wunsch/core/ledger/commands';
import { trial } from '@wunsch/core/roast/records';
import { param } from '../http/param';
import type { Router } from '../http/router';
import type { Views } from '../ledger/views';
import { roastStep } from './loads';
import { trialView } from './views';

const head = z.object({ personId: id, at: entryHead.shape.at });

/** Trials: a plan of roasts on one lot, the loads that were made of it, and what they say. */
export function trialRoutes(router: Router, views: Views): void {
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
  router.write('POST', '/api/roast/trials', 'Plan a trial on a lot', head.extend({ trial }), ({ trial: as, ...by }) => {
    if (!workshop.lots.has(as.lotId))
      throw new DomainError('http/not-found', 'There is no such lot.', [
        { path: 'trial.lotId', message: 'is not known here' },
      ]);
    const trialId = nanoid(10);
    workshop.addRoastRecord({ kind: 'trial', trialId, trial: as }, by);
    return { id: trialId };
  });
  router.write(
    'POST',
    '/api/roast/trials/:id/loads',
    'Say which roast of the plan a load was',
    head.extend({ cell: z.number().int().min(0).max(15), code: z.string().min(1).max(20) }),
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
