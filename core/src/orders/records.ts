import { z } from 'zod/mini';
import { id, money, name, pieces, text } from '../fields/fields';
import { channelName } from '../products/records';

/* Who buys, what was ordered and what became of it; where finished goods stand. Only ever added to. */

export const customerFacts = z.object({
  name,
  channel: channelName,
  address: text(300),
  contact: text(120),
  retired: z._default(z.boolean(), false),
});
export type CustomerFacts = z.infer<typeof customerFacts>;

export const orderLine = z.object({
  productId: id,
  pieces: pieces.check(z.minimum(1, 'must be at least 1')),
  /** Of one piece, in the currency of the house. */
  price: money,
});
export type OrderLine = z.infer<typeof orderLine>;

export const orderFacts = z.object({
  customerId: id,
  lines: z.array(orderLine).check(
    z.minLength(1, 'names nothing'),
    z.maxLength(60, 'are too many'),
    z.refine((rows) => new Set(rows.map(({ productId }) => productId)).size === rows.length, 'name a product twice'),
  ),
  dueDate: z.iso.date('is a date like 2027-05-31'),
  note: text(500),
});
export type OrderFacts = z.infer<typeof orderFacts>;

export const orderRecord = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('customer'), customerId: id, facts: customerFacts }),
  /** Written again, it is changed. */
  z.object({
    kind: z.literal('order'),
    orderId: id,
    number: z.string().check(z.minLength(1), z.maxLength(20)),
    facts: orderFacts,
  }),
  z.object({ kind: z.literal('cancelled'), orderId: id, why: text(300) }),
  /** A sale that was sent out for it; the goods and the money are in that step. */
  z.object({ kind: z.literal('delivered'), orderId: id, stepId: id, note: text(500) }),
  /** A place where finished goods stand, and what its air was. */
  z.object({
    kind: z.literal('place'),
    placeId: id,
    facts: z.object({ name, retired: z._default(z.boolean(), false) }),
  }),
  z.object({
    kind: z.literal('climate'),
    placeId: id,
    tempC: z.number().check(z.minimum(-40, 'is colder than any store'), z.maximum(60, 'is hotter than any store')),
    humidityPct: z._default(
      z.nullable(z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(100, 'is more than wet'))),
      null,
    ),
  }),
  z.object({ kind: z.literal('stored'), holdingIds: z.array(id).check(z.minLength(1), z.maxLength(500)), placeId: id }),
]);
export type OrderRecordValue = z.infer<typeof orderRecord>;
