import { z } from 'zod';
import { seeded } from '@wunsch/core/stats/chance';
import { judgePanel } from '@wunsch/core/taste/panel';
import { isItTheSame, power, SAME_TESTS, triesFor } from '@wunsch/core/taste/same';
import { sameRounds, servings } from '@wunsch/core/taste/serving';
import type { Calculators } from '../http/calculating';

const tries = z.number().int('must be whole').min(1, 'must be at least 1').max(2000, 'are too many');
const seed = z.number().int('must be whole').min(0).max(2_147_483_647).default(1);
const test = z.enum(SAME_TESTS).default('triangle');

/** The arithmetic of tasting, scriptable. */
export function tasteCalculators(router: Calculators): void {
  router.calc(
    '/api/calc/taste/same',
    'What answers say of whether two are the same: exact',
    z.object({ test, right: z.number().int('must be whole').min(0), tries, tasters: tries.optional() }),
    (body) => isItTheSame(body.test, body.right, body.tries, body.tasters),
  );
  router.away(
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
  router.away(
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
  router.away(
    '/api/calc/taste/panel',
    'What scores of a panel say of its bars',
    z.object({
      scores: z
        .array(
          z.object({
            bar: z.string().min(1).max(120),
            taster: z.string().min(1).max(120),
            session: z.string().max(120).default(''),
            place: z.number().int().min(0).max(40).default(0),
            score: z.number().min(0, 'is 0 to 10').max(10, 'is 0 to 10'),
          }),
        )
        .min(2)
        .max(2000, 'are more than 2,000'),
    }),
    ({ scores }) => judgePanel(scores),
  );
}
