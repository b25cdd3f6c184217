import { z } from 'zod/mini';
import { massG } from '@wunsch/core/fields/fields';
import { readMeter } from '@wunsch/core/temper/inflection';
import { judgePour } from '@wunsch/core/temper/judge';
import { seed, silk, slab } from '@wunsch/core/temper/sums';
import { CHOCOLATES, USUAL_WINDOWS, windows as own } from '@wunsch/core/temper/windows';
import type { Calculators } from '../http/calculating';

const degrees = z
  .number()
  .check(z.minimum(-30, 'is colder than any room'), z.maximum(120, 'is hotter than any chocolate'));
const share = z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(1, 'is more than all of it'));
const readings = z
  .array(
    z.object({
      second: z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(200_000, 'is too late')),
      tempC: degrees,
    }),
  )
  .check(z.maxLength(20_000, 'are too many'));

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
      bowl: z.optional(
        z.object({
          heatJperK: z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(1e6, 'is too much')),
          tempC: degrees,
        }),
      ),
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
      chocolate: z._default(z.enum(CHOCOLATES), 'dark'),
      windows: z.optional(own),
      seeded: z._default(z.boolean(), false),
      mouldC: z._default(z.nullable(degrees), null),
      setC: z._default(z.nullable(degrees), null),
      dewPointC: z._default(z.nullable(degrees), null),
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
