import { z } from 'zod/mini';
import { field } from '../fields/registry';
import { massG, money, id, note, name, word } from '../fields/fields';

export const receive = z.object({
  kind: z.literal('receive'),
  name: field(name, { label: 'Name of the lot', example: 'Viet Nam, Tam Lụa Growers' }),
  /** Where it is from can follow, as the rest of its papers. */
  producer: field(word, { label: 'Producer or co-operative' }),
  country: field(word, { label: 'Country' }),
  region: field(word, { label: 'Region' }),
  variety: field(word, { label: 'Variety' }),
  harvest: field(word, { label: 'Harvest' }),
  /** `wet` beans, in their pulp, are fermented and dried here before anything else. */
  form: field(z._default(z.enum(['beans', 'nibs', 'wet']), 'beans'), {
    label: 'What came',
    words: { beans: 'Dried beans', nibs: 'Nibs', wet: 'Wet beans in their pulp' },
  }),
  /** Nibs come raw or roasted; left out, nobody said. */
  roasted: z.optional(z.nullable(z.boolean())),
  routeId: field(id, { label: 'Route' }),
  sacks: field(
    z._default(
      z.number().check(z.int('must be whole'), z.minimum(1, 'must be at least 1'), z.maximum(5000, 'is too many')),
      1,
    ),
    { label: 'Sacks' },
  ),
  netG: field(massG, { label: 'Net weight, all sacks' }),
  /** What the invoice says, and is paid for; left out, what was weighed. */
  invoiceNetG: field(z.optional(z.nullable(massG)), { label: 'Net weight on the invoice' }),
  invoiceSacks: field(
    z.optional(
      z.nullable(
        z.number().check(z.int('must be whole'), z.minimum(1, 'must be at least 1'), z.maximum(5000, 'is too many')),
      ),
    ),
    { label: 'Sacks on the invoice' },
  ),
  pricePerKg: field(z._default(money, 0), { label: 'Price', unit: 'a kg', priced: true }),
  currency: field(z.string().check(z.regex(/^[A-Z]{3}$/, 'is a three-letter code')), {
    label: 'Currency of the invoice',
  }),
  /** Units of the workshop's currency for one of the invoice's. */
  rate: field(z._default(z.number().check(z.positive('must be more than 0'), z.maximum(100_000, 'is too much')), 1), {
    label: 'Rate to your currency',
  }),
  freight: field(z._default(money, 0), { label: 'Freight, all of it' }),
  /** Customs duty, in the workshop's currency. */
  duty: field(z.optional(money), { label: 'Duty, all of it' }),
  sample: z.optional(z.boolean()),
  /** The sample lot it was bought on. */
  sampleId: z.optional(z.nullable(id)),
  moisturePct: field(
    z._default(
      z.nullable(
        z
          .number()
          .check(z.minimum(0, 'cannot be below 0'), z.maximum(40, 'is wetter than fresh beans: check the reading')),
      ),
      null,
    ),
    { label: 'Moisture', usual: [6, 8], unit: '%' },
  ),
  note,
});
export type ReceiveCommand = z.infer<typeof receive>;

/** Wet beans become dry ones: the lot stays, the water leaves. */
export const dry = z.object({ kind: z.literal('dry'), lotId: id, outG: field(massG, { label: 'Dry beans' }), note });
export type DryCommand = z.infer<typeof dry>;
