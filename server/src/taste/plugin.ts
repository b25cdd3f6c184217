import { z } from 'zod';
import type { SameTestView } from '@wunsch/core/api/taste';
import { id } from '@wunsch/core/ledger/commands';
import { seeded } from '@wunsch/core/stats/chance';
import { tasteRecord } from '@wunsch/core/taste/records';
import { isItTheSame, power, SAME_TESTS, triesFor } from '@wunsch/core/taste/same';
import { sameRounds, servings } from '@wunsch/core/taste/serving';
import type { Router } from '../http/router';
import type { Views } from '../ledger/views';
import { sessionRoutes } from './session-routes';
import { sheetRoutes } from './sheet-routes';

const tries = z.number().int('must be whole').min(1, 'must be at least 1').max(2000, 'are too many');
const seed = z.number().int('must be whole').min(0).max(2_147_483_647).default(1);
const test = z.enum(SAME_TESTS).default('triangle');
const [same] = tasteRecord.options;

/** Whether two are the same: planned, served in balanced orders, read exactly, kept. */
export function tasteRoutes(router: Router, views: Views): void {
  const { workshop } = router;
  sheetRoutes(router, views);
  sessionRoutes(router, views);
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
      return all()[0];
    },
  );
  router.calc(
    '/api/calc/taste/same',
    'What answers say of whether two are the same: exact',
    z.object({ test, right: z.number().int('must be whole').min(0), tries, tasters: tries.optional() }),
    (body) => isItTheSame(body.test, body.right, body.tries, body.tasters),
  );
  router.calc(
    '/api/calc/taste/power',
    'How often a difference that a share of people can taste is noticed; and how many tasters it wants',
    z.object({
      test,
      tries,
      share: z.number().min(0.01, 'is nobody').max(1, 'is more than everybody').default(0.5),
      wanted: z.number().min(0.5).max(0.99).default(0.8),
    }),
    (body) => ({
      power: power(body.test, body.tries, body.share),
      triesFor: triesFor(body.test, body.share, body.wanted),
    }),
  );
  const tasters = z.number().int('must be whole').min(1, 'must be at least 1').max(200, 'are too many');
  router.calc(
    '/api/calc/taste/servings',
    'Orders of bars for tasters, balanced for place and for what came before',
    z.object({ bars: z.number().int('must be whole').min(2).max(12), tasters, seed }),
    (body) => ({ servings: servings(body.bars, body.tasters, seeded(body.seed)) }),
  );
  router.calc(
    '/api/calc/taste/rounds',
    'Rounds of a triangle, tetrad or pair for tasters, with three-digit codes',
    z.object({ test, tasters, rounds: z.number().int('must be whole').min(1).max(4).default(1), seed }),
    (body) => ({ rounds: sameRounds(body.test, body.tasters, body.rounds, seeded(body.seed)) }),
  );
}
