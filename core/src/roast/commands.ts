import { z } from 'zod/mini';
import { field } from '../fields/registry';
import { sources } from '../fields/sources';
import { loadFacts } from '../work/roasting';
import { massG, tempC, id, note, word } from '../fields/fields';

export const roastStep = z.object({
  setC: field(tempC, { label: 'Set temperature' }),
  minutes: field(z.number().check(z.minimum(0), z.maximum(1440)), { label: 'Minutes', unit: 'min' }),
  note: word,
});

export const roast = z.object({
  kind: z.literal('roast'),
  sources,
  program: field(z._default(z.array(roastStep).check(z.maxLength(40)), []), {
    label: 'Program, one step a line',
    hint: '150 °C 6 min load cold beans',
  }),
  endBeanC: field(z._default(z.nullable(tempC), null), { label: 'Bean temperature at the end' }),
  outG: field(massG, { label: 'Out of the roaster' }),
  /** How it was roasted: program, settings, signs. */
  how: field(z.optional(loadFacts), { label: 'How it was done' }),
  /** The logged curve, if there is one. */
  curveId: z.optional(z.nullable(id)),
  note,
});
export type RoastCommand = z.infer<typeof roast>;
