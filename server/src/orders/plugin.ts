import { nanoid } from 'nanoid';
import { z } from 'zod/mini';
import type { PlaceView, MarginsView } from '@wunsch/core/api/orders';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { id } from '@wunsch/core/fields/fields';
import { pieces, text } from '@wunsch/core/fields/fields';
import { margins } from '@wunsch/core/products/margin';
import { customerFacts, orderFacts } from '@wunsch/core/orders/records';
import { majorFromMilli } from '@wunsch/core/units/money';
import { csv } from '../http/csv';
import { found } from '../http/found';
import { param } from '../http/param';
import type { Router } from '../http/router';
import type { Views } from '../ledger/views';
import { productsOf } from '@wunsch/core/products/book';
import { bestBeforeOf } from '../products/products';
import { finishedGoods, placesOf } from './finished';
import { importSales, previewSales } from './import';
import { customersOf, deliver, ofKind, orderAt, orderRecord, ordersView } from './orders';
import { deliveryNotePdf, pickListPdf } from './papers';
import { soldLines } from '../products/sales';

const YEAR_MS = 365 * 86_400_000;
const since = z.object({ from: z.optional(z.coerce.number().check(z.int(), z.minimum(0))) });

/** Customers, orders and what they are served with; finished goods and where they stand; sales as tables. */
export function orderRoutes(router: Router, views: Views): void {
  const { workshop } = router;
  router.read(
    '/api/orders',
    'Orders that are open, with what each can be served from, then the newest that are done',
    (_, { done }) => {
      const view = ordersView(views);
      const open = view.orders.filter(({ state }) => state === 'open');
      return { ...view, orders: [...open, ...view.orders.filter(({ state }) => state !== 'open').slice(0, done)] };
    },
    z.object({ done: z._default(z.coerce.number().check(z.int(), z.minimum(0), z.maximum(5000)), 100) }),
  );
  customerRoutes(router, views);
  goodsRoutes(router, views);
  salesRoutes(router, views);

  const save = z.object({ personId: id, facts: orderFacts });
  const check = (facts: z.infer<typeof orderFacts>): void => {
    if (!customersOf(views).has(facts.customerId))
      throw new DomainError('orders/customer', 'That customer is not known here.', [
        { path: 'facts.customerId', message: 'is not known here' },
      ]);
    const known = productsOf(workshop.records);
    facts.lines.forEach(({ productId }, index) => {
      if (!known.newest(productId))
        throw new DomainError('orders/product', 'That product is not known here.', [
          { path: `facts.lines.${index}.productId`, message: 'is not known here' },
        ]);
    });
  };
  router.write('POST', '/api/orders', 'Take an order', save, ({ personId, facts }) => {
    check(facts);
    const orderId = nanoid(10);
    const count = new Set(ofKind(views, 'order').map(({ value }) => value.orderId)).size;
    workshop.addRecord('orders', { kind: 'order', orderId, number: `O${count + 1}`, facts }, { personId });
    return orderAt(views, orderId);
  });
  router.read('/api/orders/:id', 'One order', (request) => orderAt(views, param(request.params, 'id')));
  router.write('PUT', '/api/orders/:id', 'Change an order', save, ({ personId, facts }, request) => {
    const { orderId, number } = orderRecord(views, param(request.params, 'id')).value;
    check(facts);
    const { lines } = orderAt(views, orderId);
    const less = lines.find(
      ({ productId, sent }) => sent > (facts.lines.find((row) => row.productId === productId)?.pieces ?? 0),
    );
    if (less)
      throw new DomainError('orders/sent-already', `${less.sent} of ${less.product} went out already.`, [
        { path: 'facts.lines', message: 'are fewer than went out' },
      ]);
    workshop.addRecord('orders', { kind: 'order', orderId, number, facts }, { personId });
    return orderAt(views, orderId);
  });
  router.write(
    'POST',
    '/api/orders/:id/cancel',
    'Cancel what of an order has not gone out',
    z.object({ personId: id, why: text(300) }),
    ({ personId, why }, request) => {
      const { orderId } = orderRecord(views, param(request.params, 'id')).value;
      workshop.addRecord('orders', { kind: 'cancelled', orderId, why }, { personId });
      return orderAt(views, orderId);
    },
  );
  router.write(
    'POST',
    '/api/orders/:id/deliver',
    'Send goods out for an order: a sale in the book, at the prices of the order',
    z.object({
      personId: id,
      picks: z
        .array(z.object({ holdingId: id, pieces: pieces.check(z.minimum(1, 'must be at least 1')) }))
        .check(z.minLength(1, 'name nothing'), z.maxLength(60)),
      note: text(500),
    }),
    (body, request) => {
      const order = orderAt(views, param(request.params, 'id'));
      if (order.state === 'cancelled') throw new DomainError('orders/cancelled', 'That order was cancelled.');
      const stepId = deliver(views, order, body);
      return { stepId, order: orderAt(views, order.id) };
    },
  );
  router.file(
    '/api/orders/:id/pick-list.pdf',
    'What is to be taken from the shelf, first-expired first',
    async (request) => {
      const order = orderAt(views, param(request.params, 'id'));
      const { goods, places } = finishedGoods(views);
      const placeOf = (holdingId: string): string =>
        places.find(({ id: own }) => own === goods.find((row) => row.holdingId === holdingId)?.placeId)?.name ?? '';
      return {
        type: 'application/pdf',
        name: `pick-list-${order.number}.pdf`,
        bytes: await pickListPdf(workshop.settings, order, placeOf, workshop.now()),
        inline: true,
      };
    },
  );
  router.file('/api/orders/:id/deliveries/:step/note.pdf', 'What goes with a delivery', async (request) => {
    const order = orderAt(views, param(request.params, 'id'));
    const delivery = order.deliveries.find(({ stepId }) => stepId === param(request.params, 'step'));
    if (!delivery || delivery.withdrawn) throw new DomainError('http/not-found', 'There is no such delivery.');
    const bestBefore = (holdingId: string): string => bestBeforeOf(views, holdingId) ?? '';
    return {
      type: 'application/pdf',
      name: `delivery-${order.number}.pdf`,
      bytes: await deliveryNotePdf(workshop.settings, order, delivery, bestBefore, workshop.now()),
      inline: true,
    };
  });
}

function customerRoutes(router: Router, views: Views): void {
  const { workshop } = router;
  const save = z.object({ personId: id, facts: customerFacts });
  router.write('POST', '/api/orders/customers', 'Add a customer', save, ({ personId, facts }) => {
    const customerId = nanoid(10);
    workshop.addRecord('orders', { kind: 'customer', customerId, facts }, { personId });
    return { id: customerId, ...facts };
  });
  router.write('PUT', '/api/orders/customers/:id', 'Change a customer', save, ({ personId, facts }, request) => {
    const customerId = param(request.params, 'id');
    if (!customersOf(views).has(customerId)) throw new DomainError('http/not-found', 'There is no such customer.');
    workshop.addRecord('orders', { kind: 'customer', customerId, facts }, { personId });
    return { id: customerId, ...facts };
  });
}

function goodsRoutes(router: Router, views: Views): void {
  const { workshop } = router;
  router.read('/api/orders/goods', 'Finished goods, what expires first on top, and where they stand', () =>
    finishedGoods(views),
  );
  const placeOf = (placeId: string): PlaceView =>
    found(
      placesOf(views).find((row) => row.id === placeId),
      'There is no such place.',
    );
  router.write(
    'POST',
    '/api/orders/places',
    'Add a place where finished goods stand',
    z.object({ personId: id, name: customerFacts.shape.name }),
    ({ personId, name }) => {
      const placeId = nanoid(8);
      workshop.addRecord('orders', { kind: 'place', placeId, facts: { name, retired: false } }, { personId });
      return placeOf(placeId);
    },
  );
  router.write(
    'POST',
    '/api/orders/places/:id/climate',
    'Say how the air of a place is; a sensor can post it too',
    z.object({
      personId: id,
      tempC: z.number().check(z.minimum(-40, 'is colder than any store'), z.maximum(60, 'is hotter than any store')),
      humidityPct: z._default(
        z.nullable(z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(100, 'is more than wet'))),
        null,
      ),
    }),
    ({ personId, ...air }, request) => {
      const placeId = placeOf(param(request.params, 'id')).id;
      workshop.addRecord('orders', { kind: 'climate', placeId, ...air }, { personId });
      return placeOf(placeId);
    },
  );
  router.write(
    'POST',
    '/api/orders/places/:id/goods',
    'Put finished goods in a place',
    z.object({
      personId: id,
      holdingIds: z.array(id).check(z.minLength(1, 'name nothing'), z.maxLength(500, 'are too many')),
    }),
    ({ personId, holdingIds }, request) => {
      const placeId = placeOf(param(request.params, 'id')).id;
      holdingIds.forEach((holdingId, index) => {
        if (!workshop.book.holdings.has(holdingId))
          throw new DomainError('ledger/unknown-holding', 'There are no such goods.', [
            { path: `holdingIds.${index}`, message: 'is not known here' },
          ]);
      });
      workshop.addRecord('orders', { kind: 'stored', holdingIds, placeId }, { personId });
      return finishedGoods(views);
    },
  );
}

function salesRoutes(router: Router, views: Views): void {
  const { workshop } = router;
  router.read(
    '/api/orders/margins',
    'What each product earned by each channel, from what it really cost; and what was given away',
    (_, { from = workshop.now() - YEAR_MS }): MarginsView => {
      const lines = soldLines(views, from);
      const given = new Map<string, { pieces: number; costMilli: number }>();
      for (const { use, pieces: count, costMilli } of lines) {
        if (use === null) continue;
        const row = given.get(use) ?? { pieces: 0, costMilli: 0 };
        row.pieces += count;
        row.costMilli += costMilli;
        given.set(use, row);
      }
      return {
        from,
        margins: margins(lines.filter(({ use }) => use === null)),
        given: [...given].map(([use, row]) => ({ use, ...row })),
      };
    },
    since,
  );
  router.read(
    '/api/orders/sales.csv',
    'What was sold, given and sent back, as CSV (RFC 4180)',
    (_, { from = 0 }) =>
      csv([
        ['date', 'channel', 'product', 'code', 'pieces', 'massG', 'takings', 'cost', 'to', 'use', 'step'],
        ...soldLines(views, from).map((row) => [
          new Date(row.at).toISOString(),
          row.channel,
          row.product,
          workshop.book.holding(row.holdingId).code,
          row.pieces,
          row.massMg / 1000,
          majorFromMilli(row.revenueMilli),
          majorFromMilli(row.costMilli),
          row.to,
          row.use,
          row.stepId,
        ]),
      ]),
    since,
  );
  const table = z.object({ text: z.string().check(z.minLength(1, 'is empty'), z.maxLength(1_000_000, 'is too long')) });
  router.calc('/api/orders/sales/preview', 'What a table of sales would book', table, (body) =>
    previewSales(views, body.text),
  );
  router.write(
    'POST',
    '/api/orders/sales',
    'Book a table of sales: all of it or nothing',
    z.extend(table, { personId: id }),
    (body) => ({ steps: importSales(views, body.text, body.personId) }),
  );
}
