import { z } from 'zod/mini';
import { seeded } from '@wunsch/core/stats/chance';
import { judgePanel } from '@wunsch/core/taste/panel';
import { isItTheSame, power, SAME_TESTS, triesFor } from '@wunsch/core/taste/same';
import { sameRounds, servings } from '@wunsch/core/taste/serving';
import type { Calculators } from '../http/calculating';

const tries = z
  .number()
  .check(z.int('must be whole'), z.minimum(1, 'must be at least 1'), z.maximum(2000, 'are too many'));
const seed = z._default(z.number().check(z.int('must be whole'), z.minimum(0), z.maximum(2_147_483_647)), 1);
const test = z._default(z.enum(SAME_TESTS), 'triangle');

/** The arithmetic of tasting, scriptable. */
export function tasteCalculators(router: Calculators): void {
  router.calc(
    '/api/calc/taste/same',
    'What answers say of whether two are the same: exact',
    z.object({
      test,
      right: z.number().check(z.int('must be whole'), z.minimum(0)),
      tries,
      tasters: z.optional(tries),
    }),
    (body) => isItTheSame(body.test, body.right, body.tries, body.tasters),
  );
  router.away(
    '/api/calc/taste/power',
    'How often a difference that a share of people can taste is noticed; and how many tasters it wants',
    z.object({
      test,
      tries,
      share: z._default(z.number().check(z.minimum(0.01, 'is nobody'), z.maximum(1, 'is more than everybody')), 0.5),
      wanted: z._default(z.number().check(z.minimum(0.5), z.maximum(0.99)), 0.8),
    }),
    (body) => ({
      power: power(body.test, body.tries, body.share),
      triesFor: triesFor(body.test, body.share, body.wanted),
    }),
  );
  const tasters = z
    .number()
    .check(z.int('must be whole'), z.minimum(1, 'must be at least 1'), z.maximum(200, 'are too many'));
  router.away(
    '/api/calc/taste/servings',
    'Orders of bars for tasters, balanced for place and for what came before',
    z.object({ bars: z.number().check(z.int('must be whole'), z.minimum(2), z.maximum(12)), tasters, seed }),
    (body) => ({ servings: servings(body.bars, body.tasters, seeded(body.seed)) }),
  );
  router.calc(
    '/api/calc/taste/rounds',
    'Rounds of a triangle, tetrad or pair for tasters, with three-digit codes',
    z.object({
      test,
      tasters,
      rounds: z._default(z.number().check(z.int('must be whole'), z.minimum(1), z.maximum(4)), 1),
      seed,
    }),
    (body) => ({ rounds: sameRounds(body.test, body.tasters, body.rounds, seeded(body.seed)) }),
  );
  router.away(
    '/api/calc/taste/panel',
    'What scores of a panel say of its bars',
    z.object({
      scores: z
        .array(
          z.object({
            bar: z.string().check(z.minLength(1), z.maxLength(120)),
            taster: z.string().check(z.minLength(1), z.maxLength(120)),
            session: z._default(z.string().check(z.maxLength(120)), ''),
            place: z._default(z.number().check(z.int(), z.minimum(0), z.maximum(40)), 0),
            score: z.number().check(z.minimum(0, 'is 0 to 10'), z.maximum(10, 'is 0 to 10')),
          }),
        )
        .check(z.minLength(2), z.maxLength(2000, 'are more than 2,000')),
    }),
    ({ scores }) => judgePanel(scores),
  );
}
