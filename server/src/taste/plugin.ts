import { z } from 'zod/mini';
import type { SameTestView } from '@wunsch/core/api/taste';
import { id } from '@wunsch/core/fields/fields';
import { tasteRecord } from '@wunsch/core/taste/records';
import { isItTheSame } from '@wunsch/core/taste/same';
import { found } from '../http/found';
import type { Router } from '../http/router';
import type { Views } from '../ledger/views';
import { tasteCalculators } from './calculators';
import { sessionRoutes } from './session-routes';
import { sheetRoutes } from './sheet-routes';

const [same] = tasteRecord.def.options;

/** Whether two are the same: planned, served in balanced orders, read exactly, kept. */
export function tasteRoutes(router: Router, views: Views): void {
  const { workshop } = router;
  sheetRoutes(router, views);
  sessionRoutes(router, views);
  tasteCalculators(router);
  const all = (): SameTestView[] =>
    workshop.records
      .of('taste')
      .flatMap(({ id: testId, at, personId, value }): SameTestView[] => {
        if (value.kind !== 'same') return [];
        const { kind: _, ...rest } = value;
        return [
          {
            id: testId,
            at,
            person: views.person(personId),
            ...rest,
            result: isItTheSame(value.test, value.right, value.tries, value.tasters),
          },
        ];
      })
      .reverse();
  router.read('/api/taste/same', 'Tests of whether two are the same, the newest first', () => ({ tests: all() }));
  router.write(
    'POST',
    '/api/taste/same',
    'Keep a test of whether two are the same, with what it says',
    z.object({ personId: id, test: same }),
    ({ personId, test: value }) => {
      workshop.addRecord('taste', value, { personId });
      return found(all()[0], 'There is no such test.');
    },
  );
}
