import { z } from 'zod/mini';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { id } from '@wunsch/core/fields/fields';
import { param } from '../http/param';
import type { Views } from '../ledger/views';
import type { Router } from '../http/router';
import { restBenefit, restShelf } from './benefit';

/** Blocks on the shelf: when they are meant to come off, how they taste on the way, whether resting helps. */
export function restRoutes(router: Router, views: Views): void {
  const { workshop } = router;
  router.read('/api/rest/benefit', 'Whether resting helps, bean by bean: scores against days', () =>
    restBenefit(views),
  );
  router.read('/api/rest/shelf', 'Blocks at rest: how long they are meant to, how they tasted on the way', () =>
    restShelf(views),
  );
  router.write(
    'POST',
    '/api/rest/batches/:code/until',
    'Say until when blocks are meant to rest',
    z.object({
      personId: id,
      until: z.nullable(z.iso.datetime({ offset: true, message: 'is a time like 2027-05-31T06:10:00Z' })),
    }),
    ({ personId, until }, request) => {
      workshop.checkPerson(personId);
      const code = param(request.params, 'code').toUpperCase();
      const batch = [...workshop.batches.values()].find((row) => row.code === code);
      if (!batch) throw new DomainError('trace/unknown-code', `There is no batch ${code}.`);
      workshop.changeBatch(batch.id, (row) => ({ ...row, restUntil: until === null ? null : Date.parse(until) }));
      return { until };
    },
  );
}
