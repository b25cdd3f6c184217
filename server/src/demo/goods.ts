import type { CustomerFacts } from '@wunsch/core/orders/records';
import type { ProductFacts } from '@wunsch/core/products/records';
import { dayText } from '@wunsch/core/units/zone';
import { seeded } from '@wunsch/core/stats/chance';
import { checkDigit } from '@wunsch/core/products/gtin';
import type { Workshop } from '../journal/workshop';
import { TABLET } from './moulds';
import { recipeId } from './recipes';
import { BUYERS, ORIGINS, type Origin } from './scenario';
import { Doors } from './schedule';

const DAY = 86_400_000;

const PRICES = [
  { channel: 'market', price: 7.5 },
  { channel: 'web', price: 7.5 },
  { channel: 'shops', price: 5.2 },
  { channel: 'cafés', price: 4.6 },
];

/** Numbers of a range that is kept for use within a house: they are on nobody's goods (GS1 General Specifications, 2.1). */
const ownNumber = (n: number): string => {
  const digits = `2000000000${String(n).padStart(2, '0')}`;
  return digits + String(checkDigit(digits));
};

/** The bar that is made from an origin. */
export const productId = (origin: Origin): string => `bar-${recipeId(origin)}`;
/** Day of the book on which bars got dearer. */
export const DEARER_DAY = 200;

/** What the house sells: a bar from each origin, its prices by channel. */
export function describeProducts(workshop: Workshop, began: number): void {
  const doors = new Doors(workshop.settings);
  const head = (at: number) => ({ personId: 'ilse', at: new Date(doors.beforeClosing(at)).toISOString() });
  ORIGINS.forEach((origin, index) => {
    const facts: ProductFacts = {
      name: `${origin.lot.country} bar`,
      recipeIds: [recipeId(origin)],
      mouldId: TABLET,
      declaredG: 70,
      form: 'plain',
      pack: 'retail',
      parts: [],
      shellSec: null,
      packaging: [{ materialId: 'wrapper', perPiece: 1 }],
      keepsMonths: 18,
      gtin: ownNumber(index + 1),
      prices: PRICES.map((row) => ({ ...row, price: row.channel === 'shops' ? 4.9 : row.price })),
      retired: false,
    };
    const ownId = productId(origin);
    workshop.addRecord('products', { kind: 'product', productId: ownId, facts, why: '' }, head(began));
    workshop.addRecord(
      'products',
      { kind: 'product', productId: ownId, facts: { ...facts, prices: PRICES }, why: 'Beans got dearer' },
      head(began + DEARER_DAY * DAY),
    );
  });
}

/** Who buys, what they ordered, and where the goods stand. */
export function takeOrders(workshop: Workshop, began: number, now: number): void {
  const chance = seeded(77);
  const doors = new Doors(workshop.settings);
  const head = (at: number, personId = 'perpetua') => ({
    personId,
    at: new Date(doors.beforeClosing(at)).toISOString(),
  });
  BUYERS.forEach(({ name, channel }, index) => {
    const facts: CustomerFacts = {
      name,
      channel,
      address: `${index + 3} Quay Row, Saltgarth`,
      contact: '',
      retired: false,
    };
    workshop.addRecord('orders', { kind: 'customer', customerId: `buyer-${index + 1}`, facts }, head(began));
  });
  const day = (at: number): string => dayText(at, workshop.settings.timeZone);
  const order = (
    n: number,
    buyer: number,
    lines: readonly [origin: number, pieces: number][],
    due: number,
    note = '',
  ): void => {
    const { channel } = BUYERS[buyer - 1] ?? { channel: '' };
    const price = PRICES.find((row) => row.channel === channel)?.price ?? 5;
    workshop.addRecord(
      'orders',
      {
        kind: 'order',
        orderId: `demo-order-${n}`,
        number: `O${n}`,
        facts: {
          customerId: `buyer-${buyer}`,
          lines: lines.flatMap(([origin, pieces]) => {
            const from = ORIGINS[origin];
            return from ? [{ productId: productId(from), pieces, price }] : [];
          }),
          dueDate: day(due),
          note,
        },
      },
      head(now - (6 - n) * DAY),
    );
  };
  order(
    1,
    2,
    [
      [0, 24],
      [1, 12],
    ],
    now + 2 * DAY,
  );
  order(2, 4, [[2, 30]], now + 4 * DAY, 'Leave it at the kitchen door');
  order(
    3,
    5,
    [
      [0, 60],
      [3, 900],
    ],
    now + 15 * DAY,
  );
  const places = [
    ['cool-room', 'Cool room', 17],
    ['shop-shelf', 'Shelf in the shop', 20.6],
  ] as const;
  for (const [placeId, name, tempC] of places) {
    workshop.addRecord('orders', { kind: 'place', placeId, facts: { name, retired: false } }, head(began));
    for (let weeks = 8; weeks >= 0; weeks -= 1)
      workshop.addRecord(
        'orders',
        {
          kind: 'climate',
          placeId,
          tempC: Math.round(10 * (tempC + chance() - 0.5)) / 10,
          humidityPct: Math.round(48 + 8 * chance()),
        },
        head(now - weeks * 7 * DAY, 'tomo'),
      );
  }
  const packed = [...workshop.book.live].filter((id) => workshop.book.holding(id).kind === 'packed');
  if (packed.length > 0)
    workshop.addRecord(
      'orders',
      { kind: 'stored', holdingIds: packed.slice(0, 500), placeId: 'cool-room' },
      head(now - DAY, 'tomo'),
    );
  const shelf = packed.slice(-3);
  if (shelf.length > 0)
    workshop.addRecord(
      'orders',
      { kind: 'stored', holdingIds: shelf, placeId: 'shop-shelf' },
      head(now - DAY / 2, 'tomo'),
    );
}
