import { z } from 'zod';
import { massG } from '@wunsch/core/ledger/commands';
import { readMeter } from '@wunsch/core/temper/inflection';
import { judgePour } from '@wunsch/core/temper/judge';
import { seed, silk, slab } from '@wunsch/core/temper/sums';
import { CHOCOLATES, USUAL_WINDOWS, windows as own } from '@wunsch/core/temper/windows';
import type { Calculators } from '../http/calculating';

const degrees = z.number().min(-30, 'is colder than any room').max(120, 'is hotter than any chocolate');
const share = z.number().min(0, 'cannot be below 0').max(1, 'is more than all of it');
const readings = z
  .array(z.object({ second: z.number().min(0, 'cannot be below 0').max(200_000, 'is too late'), tempC: degrees }))
  .max(20_000, 'are too many');

/** The arithmetic of tempering, for scripts. */
export function temperCalculators(router: Calculators): void {
  router.calc(
    '/api/calc/temper/slab',
    'What stays warm and what is spread, from the heat balance',
    z.object({
      massG,
      warmC: degrees,
      coldC: degrees,
      wantedC: degrees,
      bowl: z
        .object({ heatJperK: z.number().min(0, 'cannot be below 0').max(1e6, 'is too much'), tempC: degrees })
        .optional(),
    }),
    ({ massG: grams, warmC, coldC, wantedC, bowl }) =>
      slab(grams, warmC, coldC, wantedC, bowl ?? { heatJperK: 0, tempC: warmC }),
  );
  router.calc(
    '/api/calc/temper/seed',
    'Grams of seed that bring a mass down to a temperature',
    z.object({ massG, fromC: degrees, toC: degrees, seedC: degrees, fatShare: share, melts: share }),
    ({ massG: grams, fromC, toC, seedC, fatShare, melts }) => seed(grams, fromC, toC, seedC, fatShare, melts),
  );
  router.calc(
    '/api/calc/temper/silk',
    'Grams of silk for a mass',
    z.object({ massG, softShare: share }),
    ({ massG: grams, softShare }) => silk(grams, softShare),
  );
  router.away(
    '/api/calc/temper/judge',
    'What went wrong with a pour, from its temperatures: the first fault first',
    z.object({
      readings,
      chocolate: z.enum(CHOCOLATES).default('dark'),
      windows: own.optional(),
      seeded: z.boolean().default(false),
      mouldC: degrees.nullable().default(null),
      setC: degrees.nullable().default(null),
      dewPointC: degrees.nullable().default(null),
    }),
    ({ readings: rows, chocolate, windows, ...facts }) =>
      judgePour(rows, { ...facts, windows: windows ?? USUAL_WINDOWS[chocolate] }),
  );
  router.away(
    '/api/calc/temper/meter',
    'What a cooling-curve meter says: the bend of the curve and its slope',
    z.object({ readings }),
    ({ readings: rows }) => ({ found: readMeter(rows) }),
  );
}
