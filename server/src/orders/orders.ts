import type { CustomerView, DeliveryView, OrderLineView, OrdersView, OrderView } from '@wunsch/core/api/orders';
import { DomainError } from '@wunsch/core/errors/domain-error';
import type { CommandOf } from '@wunsch/core/commands';
import type { HoldingKind } from '@wunsch/core/ledger/types';
import { firstVersion, newestVersion } from '@wunsch/core/ledger/versions';
import { orderTotalMilli } from '@wunsch/core/orders/order';
import { promise, type ComingRow, type OpenLine, type StockRow } from '@wunsch/core/orders/stock';
import type { OrderRecordValue } from '@wunsch/core/orders/records';
import { pieceParts } from '@wunsch/core/products/product';
import type { RoomRecord } from '@wunsch/core/records';
import { majorFromMilli, milliFromMajor } from '@wunsch/core/units/money';
import { formatMass } from '@wunsch/core/units/mass';
import { dayText } from '@wunsch/core/units/zone';
import type { Views } from '../ledger/views';
import { productsOf } from '@wunsch/core/products/book';
import { bestBeforeOf, productOf } from '../products/products';
import { blocksOf } from '@wunsch/core/trace/blocks';
import { linesOf } from '../products/sales';

type Of<K extends OrderRecordValue['kind']> = RoomRecord<'orders'> & { value: Extract<OrderRecordValue, { kind: K }> };

export function ofKind<K extends OrderRecordValue['kind']>(views: Views, kind: K): Of<K>[] {
  return views.workshop.records.of('orders').filter((row): row is Of<K> => row.value.kind === kind);
}

export function customersOf(views: Views): Map<string, CustomerView> {
  return new Map(
    ofKind(views, 'customer').map(({ value }) => [value.customerId, { id: value.customerId, ...value.facts }]),
  );
}

/** @throws DomainError `http/not-found` */
export function orderRecord(views: Views, orderId: string): Of<'order'> {
  const found = ofKind(views, 'order').findLast(({ value }) => value.orderId === orderId);
  if (!found) throw new DomainError('http/not-found', 'There is no such order.');
  return found;
}

const today = (views: Views): string => dayText(views.workshop.now(), views.workshop.settings.timeZone);

/** Packed goods of products that are free to go: not blocked, not in work. */
export function stockRows(views: Views): StockRow[] {
  const { book, records } = views.workshop;
  const blocked = blocksOf(records);
  const reserved = views.workshop.reserved();
  return book.standing.flatMap(({ id: holdingId, kind, code }): StockRow[] => {
    if (kind !== 'packed' || blocked.has(holdingId) || reserved.has(holdingId)) return [];
    const product = productOf(views, holdingId);
    if (!product) return [];
    const { pieces } = book.balance(holdingId);
    return [{ holdingId, code, productId: product.id, pieces, bestBefore: bestBeforeOf(views, holdingId) }];
  });
}

/** Chocolate that becomes bars, and how much of it usually does. */
const ON_ITS_WAY: readonly HoldingKind[] = ['tempered', 'mass', 'block', 'remelt'];
const GIVES = 0.95;

/** Bars that wait to be packed, then chocolate on its way, of recipes that a product is made from. */
function comingRows(views: Views): ComingRow[] {
  const { book, batches, records } = views.workshop;
  const blocked = blocksOf(records);
  const current = productsOf(records).current();
  const bars: ComingRow[] = [];
  const chocolate: ComingRow[] = [];
  for (const { id: holdingId, kind, code, batchId } of book.standing) {
    if (blocked.has(holdingId)) continue;
    const { pieces, massMg } = book.balance(holdingId);
    if (kind === 'bars') {
      const product = productOf(views, holdingId);
      if (product)
        bars.push({
          productId: product.id,
          pieces,
          words: `${code}, to be packed`,
          link: `/tub/${code}`,
          at: views.workshop.now(),
        });
      continue;
    }
    if (!ON_ITS_WAY.includes(kind)) continue;
    const batch = batches.get(batchId ?? '');
    const recipeId = batch?.recipe?.id;
    if (batch === undefined || recipeId === undefined) continue;
    // What several products could be made from is promised to the first of them only.
    const product = current.find(({ facts }) => facts.recipeIds.includes(recipeId));
    if (!product) continue;
    const each = pieceParts(product.facts).chocolateG;
    const made = Math.floor((GIVES * massMg) / 1000 / each);
    if (made > 0)
      chocolate.push({
        productId: product.id,
        pieces: made,
        words: `${code} of ${batch.code}, still to be moulded`,
        link: `/batch/${batch.code}`,
        at: kind === 'block' ? (batch.restUntil ?? null) : null,
      });
  }
  return [...bars, ...chocolate];
}

/** What went out for each order, in one look at the book. */
function deliveriesByOrder(views: Views): Map<string, DeliveryView[]> {
  const { book } = views.workshop;
  const back = new Map<string, number>();
  for (const step of book.timeline) {
    if (step.kind !== 'return' || step.withdrawn) continue;
    const { saleId, holdingId, pieces = 0 } = step.command as CommandOf<'return'>;
    const key = `${firstVersion(book, saleId)} ${holdingId}`;
    back.set(key, (back.get(key) ?? 0) + pieces);
  }
  const rows = new Map<string, DeliveryView[]>();
  for (const { value, personId } of ofKind(views, 'delivered')) {
    const step = newestVersion(book, value.stepId);
    if (!step) continue;
    const lines = step.withdrawn ? [] : linesOf(views, step);
    const delivery: DeliveryView = {
      stepId: step.id,
      at: step.at,
      person: views.person(personId),
      note: value.note,
      withdrawn: step.withdrawn,
      lines: lines.map(({ holdingId, product, pieces, revenueMilli }) => ({
        holdingId,
        code: book.holding(holdingId).code,
        product,
        pieces,
        returned: back.get(`${firstVersion(book, value.stepId)} ${holdingId}`) ?? 0,
        milli: revenueMilli,
      })),
    };
    const list = rows.get(value.orderId);
    if (list) list.push(delivery);
    else rows.set(value.orderId, [delivery]);
  }
  return rows;
}

/** Every order with what it is served with; open ones first, by their day. */
export function ordersView(views: Views): OrdersView {
  const { workshop } = views;
  const { records } = workshop;
  const products = productsOf(records);
  const customers = customersOf(views);
  const gone = new Map(ofKind(views, 'cancelled').map(({ value }) => [value.orderId, value.why]));
  const newest = new Map<string, { first: Of<'order'>; row: Of<'order'> }>();
  for (const row of ofKind(views, 'order')) {
    const { first } = newest.get(row.value.orderId) ?? { first: row };
    newest.set(row.value.orderId, { first, row });
  }
  const sentOut = deliveriesByOrder(views);
  const parts = [...newest.values()].map(({ first, row }) => {
    const { orderId, facts } = row.value;
    const deliveries = sentOut.get(orderId) ?? [];
    const sent = new Map<string, number>();
    const returned = new Map<string, number>();
    for (const { lines } of deliveries)
      for (const line of lines) {
        const id = productOf(views, line.holdingId)?.id ?? '';
        sent.set(id, (sent.get(id) ?? 0) + line.pieces);
        returned.set(id, (returned.get(id) ?? 0) + line.returned);
      }
    return { first, row, facts, deliveries, sent, returned };
  });
  const openLines = parts.flatMap(({ row, facts, sent }): OpenLine[] =>
    gone.has(row.value.orderId)
      ? []
      : facts.lines.flatMap(({ productId, pieces }) => {
          const open = pieces - (sent.get(productId) ?? 0);
          return open > 0 ? [{ orderId: row.value.orderId, productId, pieces: open, dueDate: facts.dueDate }] : [];
        }),
  );
  const promised = new Map(
    promise(openLines, stockRows(views), comingRows(views), today(views)).map((row) => [
      `${row.orderId} ${row.productId}`,
      row,
    ]),
  );
  const orders = parts.map(({ first, row, facts, deliveries, sent, returned }): OrderView => {
    const { orderId, number } = row.value;
    const lines = facts.lines.map(({ productId, pieces, price }): OrderLineView => {
      const there = promised.get(`${orderId} ${productId}`);
      return {
        productId,
        product: products.newest(productId)?.facts.name ?? 'gone',
        pieces,
        price,
        sent: sent.get(productId) ?? 0,
        returned: returned.get(productId) ?? 0,
        open: there?.pieces ?? 0,
        picks: there?.picks ?? [],
        coming: there?.coming ?? [],
        missing: there?.missing ?? 0,
      };
    });
    const open = lines.some((line) => line.open > 0);
    const state = gone.has(orderId) ? 'cancelled' : open ? 'open' : 'sent';
    return {
      id: orderId,
      number,
      at: first.at,
      person: views.person(first.personId),
      facts,
      customer: customers.get(facts.customerId) ?? {
        id: facts.customerId,
        name: 'gone',
        channel: '',
        address: '',
        contact: '',
        retired: true,
      },
      state,
      why: gone.get(orderId) ?? '',
      lines,
      promise: state === 'open' ? promiseWords(views, lines) : '',
      ready: state === 'open' && lines.every((line) => line.coming.length === 0 && line.missing === 0),
      late: state === 'open' && facts.dueDate < today(views),
      totalMilli: orderTotalMilli(lines),
      deliveries,
    };
  });
  const rank = { open: 0, sent: 1, cancelled: 2 } as const;
  const channels = new Set(products.all().flatMap(({ facts }) => facts.prices.map(({ channel }) => channel)));
  for (const { channel } of customers.values()) channels.add(channel);
  return {
    orders: orders.sort(
      (a, b) =>
        rank[a.state] - rank[b.state] ||
        (a.state === 'open' ? a.facts.dueDate.localeCompare(b.facts.dueDate) : b.at - a.at),
    ),
    customers: [...customers.values()].filter(({ retired }) => !retired),
    channels: [...channels].sort(),
  };
}

/** When an order can go out, and what it still wants. */
function promiseWords(views: Views, lines: readonly OrderLineView[]): string {
  const open = lines.filter((line) => line.open > 0);
  const packed = open.reduce((sum, { picks }) => sum + picks.reduce((all, { pieces }) => all + pieces, 0), 0);
  const wanted = open.reduce((sum, line) => sum + line.open, 0);
  if (packed === wanted) return 'All of it stands packed: it can go today.';
  const parts: string[] = [packed === 0 ? 'Nothing of it stands packed.' : `${packed} of ${wanted} stand packed.`];
  for (const { coming } of open)
    for (const { pieces, words, at } of coming)
      parts.push(
        `${pieces} from ${words}${at === null || at <= views.workshop.now() ? '' : ` after ${dayText(at, views.workshop.settings.timeZone)}`}.`,
      );
  for (const { missing, product, productId } of open) {
    if (missing === 0) continue;
    const facts = productsOf(views.workshop.records).newest(productId)?.facts;
    const grams = facts ? missing * pieceParts(facts).chocolateG : 0;
    parts.push(
      `${missing} of ${product} are neither here nor on their way: ${formatMass(Math.round(1000 * grams), views.workshop.settings.massSystem)} of chocolate more.`,
    );
  }
  return parts.join(' ');
}

export const orderAt = (views: Views, orderId: string): OrderView => {
  const found = ordersView(views).orders.find(({ id }) => id === orderId);
  if (!found) throw new DomainError('http/not-found', 'There is no such order.');
  return found;
};

/** Sends goods out for an order: a sale in the book, at the prices of the order. */
export function deliver(
  views: Views,
  order: OrderView,
  { personId, picks, note }: { personId: string; picks: { holdingId: string; pieces: number }[]; note: string },
): string {
  const { workshop } = views;
  const left = new Map(order.lines.map(({ productId, open, price }) => [productId, { open, price }]));
  const sources = picks.map(({ holdingId, pieces }, index) => {
    const path = `picks.${index}.pieces`;
    const holding = workshop.book.holdings.get(holdingId);
    const product = holding ? productOf(views, holdingId) : undefined;
    const line = left.get(product?.id ?? '');
    if (!holding || !line)
      throw new DomainError(
        'orders/not-ordered',
        `${holding?.code ?? 'That'} is ${product?.facts.name ?? 'no product'}: it was not ordered.`,
        [{ path: `picks.${index}.holdingId`, message: 'was not ordered' }],
      );
    const bestBefore = bestBeforeOf(views, holdingId);
    if (bestBefore !== null && bestBefore < today(views))
      throw new DomainError('orders/expired', `${holding.code} is past its date, ${bestBefore}.`, [
        { path: `picks.${index}.holdingId`, message: 'is past its date' },
      ]);
    if (pieces > line.open)
      throw new DomainError(
        'orders/too-many',
        `${line.open} more of ${product?.facts.name ?? ''} were ordered: ${pieces} are too many.`,
        [{ path, message: 'is more than was ordered' }],
      );
    line.open -= pieces;
    return { holdingId, pieces, takings: majorFromMilli(pieces * milliFromMajor(line.price)) };
  });
  const takings = majorFromMilli(sources.reduce((sum, row) => sum + milliFromMajor(row.takings), 0));
  const command: CommandOf<'sell'> = {
    kind: 'sell',
    sources,
    takings,
    to: order.customer.name,
    ...(order.customer.channel === '' ? {} : { channel: order.customer.channel }),
    orderId: order.id,
    note,
  };
  const step = workshop.record(command, { personId, machineId: null, minutes: 0, energyKwh: 0 });
  workshop.addRecord('orders', { kind: 'delivered', orderId: order.id, stepId: step.id, note }, { personId });
  return step.id;
}
