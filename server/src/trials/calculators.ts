import { z } from 'zod/mini';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { seeded } from '@wunsch/core/stats/chance';
import { fewestArms, fullDesign, inChanceOrder, ladderDesign, smallDesign } from '@wunsch/core/trials/design';
import { trialPlan } from '@wunsch/core/trials/records';
import type { Calculators } from '../http/calculating';

/** The arithmetic of trials, scriptable. */
export function trialCalculators(router: Calculators): void {
  const factors = trialPlan.shape.factors;
  router.away(
    '/api/calc/trials/design',
    'Which combinations to make, in an order by chance',
    z.object({
      factors,
      design: trialPlan.shape.design,
      count: z._default(
        z.nullable(
          z.number().check(z.int('must be whole'), z.minimum(2, 'must be at least 2'), z.maximum(24, 'are too many')),
        ),
        null,
      ),
      seed: z._default(z.number().check(z.int(), z.minimum(0), z.maximum(2_147_483_647)), 1),
    }),
    (body) => {
      const all = fullDesign(body.factors);
      const arms =
        body.design === 'ladder'
          ? ladderDesign(body.factors)
          : body.design === 'small'
            ? smallDesign(body.factors, body.count ?? fewestArms(body.factors) + 1)
            : all;
      if (arms.length > 24)
        throw new DomainError(
          'trials/too-many',
          `That would be ${arms.length} batches: take the small plan, or fewer levels.`,
          [{ path: 'factors', message: `make ${arms.length} combinations` }],
        );
      return {
        arms: body.design === 'ladder' ? arms : inChanceOrder(arms, seeded(body.seed)),
        all: all.length,
        fewest: fewestArms(body.factors),
      };
    },
  );
}
