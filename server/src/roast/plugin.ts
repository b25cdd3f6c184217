import { nanoid } from 'nanoid';
import { z } from 'zod/mini';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { entryHead } from '@wunsch/core/work/start';
import { id } from '@wunsch/core/fields/fields';
import { program } from '@wunsch/core/roast/records';
import { param } from '../http/param';
import type { Router } from '../http/router';
import type { Views } from '../ledger/views';
import { curveRoutes } from './curve-routes';
import { coolingViews } from './due';
import type { LiveRoasts } from './live';
import { liveRoutes, sentReadings } from './live-routes';
import { loadRows, loadView, loggedLoads, roastStep } from './loads';
import { programViews, roasterViews } from './views';

const head = z.object({ personId: id, at: entryHead.shape.at });

/** Roasters, programs, live roasts, curves, judgement, trials. */
export function roastRoutes(router: Router, views: Views, live: LiveRoasts): void {
  programRoutes(router, views);
  liveRoutes(router, views, live);
  curveRoutes(router, views);
  sentReadings(router, live);
  const { workshop } = router;
  router.still('/api/roast/roasters', 'Roasters and what was logged on them', () => ({
    roasters: roasterViews(views),
  }));
  router.read(
    '/api/roast/roasters/:id/loads',
    'The newest logged loads of a roaster, as a fit takes them',
    async (request, { limit, nib }) => ({
      loads: await loggedLoads(views, param(request.params, 'id'), limit, nib === '1'),
    }),
    z.object({
      limit: z._default(z.coerce.number().check(z.int(), z.minimum(1), z.maximum(60)), 24),
      nib: z._default(z.enum(['0', '1']), '0'),
    }),
  );
  router.read('/api/roast/cooling', 'Roasted tubs that are still too warm to crack', () => ({
    cooling: coolingViews(views),
  }));
  router.still(
    '/api/roast/loads',
    'Roast loads, newest first; page with `before`',
    (_, query) => ({ loads: loadRows(views, query) }),
    z.object({
      limit: z._default(z.coerce.number().check(z.int(), z.minimum(1), z.maximum(400)), 40),
      family: z.optional(z.string().check(z.maxLength(200))),
      lot: z.optional(z.string().check(z.maxLength(20))),
      before: z.optional(z.coerce.number().check(z.int())),
    }),
  );
  router.read('/api/roast/loads/:code', 'One load with all that its judgement rests on', (request) =>
    loadView(views, param(request.params, 'code')),
  );
  router.write(
    'POST',
    '/api/roast/loads/:code/words',
    'Say otherwise than the judgement, and why',
    z.extend(head, {
      word: z.string().check(z.trim(), z.minLength(2, 'is missing'), z.maxLength(500, 'is longer than 500 letters')),
    }),
    ({ word, ...by }, request) => {
      const { loadId } = roastStep(views, param(request.params, 'code'));
      return workshop.addRoastRecord({ kind: 'word', loadId, word }, by);
    },
  );
  router.write(
    'POST',
    '/api/roast/loads/:code/scores',
    'A score of the panel on the load itself, 0 to 10',
    z.extend(head, {
      score: z.number().check(z.minimum(0, 'is 0 to 10'), z.maximum(10, 'is 0 to 10')),
      note: z._default(z.string().check(z.trim(), z.maxLength(300, 'is longer than 300 letters')), ''),
    }),
    ({ score, note, ...by }, request) => {
      const { loadId } = roastStep(views, param(request.params, 'code'));
      return workshop.addRoastRecord({ kind: 'score', loadId, score, note }, by);
    },
  );
}

function programRoutes(router: Router, views: Views): void {
  const { workshop } = router;
  router.still('/api/roast/programs', 'Programs, the last used first', () => ({ programs: programViews(views) }));
  router.read('/api/roast/programs/:id', 'One program with all its versions', (request) => {
    const { id: programId, versions, shelved } = workshop.roasts.program(param(request.params, 'id'));
    return {
      id: programId,
      shelved,
      versions: versions.map(({ version, program: as, record }) => ({
        version,
        at: record.at,
        person: views.person(record.personId),
        program: as,
      })),
    };
  });
  router.write(
    'POST',
    '/api/roast/programs',
    'A new program',
    z.extend(head, { program }),
    ({ program: as, ...by }) => {
      const programId = nanoid(10);
      workshop.addRoastRecord({ kind: 'program', programId, version: 1, program: as }, by);
      return { id: programId, version: 1 };
    },
  );
  router.write(
    'POST',
    '/api/roast/programs/:id/versions',
    'A new version of a program; the earlier ones stay readable',
    z.extend(head, { program, after: z.number().check(z.int(), z.minimum(1)) }),
    ({ program: as, after, ...by }, request) => {
      const { id: programId, versions } = workshop.roasts.program(param(request.params, 'id'));
      const newest = versions.at(-1)?.version ?? 0;
      if (after !== newest)
        throw new DomainError(
          'roast/version',
          `Version ${newest} was saved meanwhile, perhaps at another screen. Look at it first; yours is kept here.`,
        );
      workshop.addRoastRecord({ kind: 'program', programId, version: newest + 1, program: as }, by);
      return { id: programId, version: newest + 1 };
    },
  );
  router.write(
    'POST',
    '/api/roast/programs/:id/shelve',
    'Put a program aside, or take it back',
    z.extend(head, { shelved: z.boolean() }),
    ({ shelved, ...by }, request) => {
      const { id: programId } = workshop.roasts.program(param(request.params, 'id'));
      workshop.addRoastRecord({ kind: 'shelved', programId, shelved }, by);
      return { id: programId, shelved };
    },
  );
}
