import { z } from 'zod/mini';
import { DomainError } from '@wunsch/core/errors/domain-error';
import type { Router } from '../http/router';
import { makeDemo } from './generator';

/** Begins the demo again; refused in a real workshop. */
export function demoRoutes(router: Router): void {
  const { workshop } = router;
  router.write(
    'POST',
    '/api/demo/reset',
    'Begin the demo again',
    z.object({ confirm: z.literal('begin again') }),
    async () => {
      if (!workshop.settings.demo) throw new DomainError('demo/real', 'This is a real workshop: it is not reset.');
      await workshop.empty();
      await makeDemo(workshop);
      return { steps: workshop.book.steps.size };
    },
  );
}
