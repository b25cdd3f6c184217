import { z } from 'zod/mini';
import { param } from '../http/param';
import type { Router } from '../http/router';
import type { Views } from '../ledger/views';
import { winnowPast } from './views';

/** What winnowing has taught. */
export function winnowRoutes(router: Router, views: Views): void {
  router.read(
    '/api/winnow/past/:code',
    'What winnowing has taught about what is in a tub; up to a session, with `before`',
    (request, { before }) => winnowPast(views, param(request.params, 'code'), before),
    z.object({ before: z.optional(z.string().check(z.maxLength(64))) }),
  );
}
