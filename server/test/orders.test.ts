import { execFileSync } from 'node:child_process';
import { join } from 'node:path';
import type { FinishedGoodsView, MarginsView, OrdersView, OrderView, SalesPreview } from '@wunsch/core/api/orders';
import type { ProductPageView, ProductsView, ProductView } from '@wunsch/core/api/products';
import type { TraceView } from '@wunsch/core/api/types';
import { asProblem, madeBy, testServer, type TestServer } from './harness';
import { bought, moulded, nibLot, poured } from './shop';

/* From a product to what is ordered, sent, sent back and earned. */

const NOW = Date.parse('2026-10-05T09:00:00Z');
let server: TestServer;
beforeAll(async () => {
  server = await testServer(() => NOW);
});
afterAll(() => server.close());

const textOf = (pdf: Buffer): string =>
  execFileSync('node', [join(__dirname, 'pdf-text.mjs')], { input: pdf }).toString();

const FACTS = {
  name: 'Ridge bar',
  declaredG: 70,
  form: 'plain',
  packaging: [{ materialId: 'wrapper', perPiece: 1 }],
  keepsMonths: 18,
  gtin: '2000000000015',
  prices: [
    { channel: 'shops', price: 5 },
    { channel: 'market', price: 7 },
  ],
};
const made = async (facts: object = {}): Promise<ProductView> => {
  const { status, body } = await server.call('POST', '/api/products', {
    personId: 'ann',
    facts: { ...FACTS, ...facts },
  });
  if (status !== 201) throw new Error(JSON.stringify(body));
  return body as ProductView;
};

/** Two packings of one product: the younger one expires first. */
async function shelf(): Promise<{ product: ProductView; packs: string[]; wrapper: string }> {
  await server.reset();
  const lot = await nibLot(server, 'Alpha');
  const wrapper = await bought(server, 'wrapper', { pieces: 500 });
  const product = await made();
  const packs: string[] = [];
  for (const [n, bestBefore] of ['2027-09-01', '2027-05-01'].entries()) {
    const bars = await moulded(server, await poured(server, lot, `Ridge ${n}`));
    const step = await server.step({
      kind: 'pack',
      holdingId: bars,
      pieces: 40,
      labelCode: `R-${n}`,
      bestBefore,
      packaging: [{ holdingId: wrapper, pieces: 40, damaged: n === 0 ? 3 : 0 }],
      product: { id: product.id, version: 1 },
      note: '',
    } as never);
    packs.push(madeBy(step, 'packed'));
  }
  return { product, packs, wrapper };
}

async function ordered(productId: string, pieces: number, dueDate = '2026-10-09'): Promise<OrderView> {
  const customer = await server.call('POST', '/api/orders/customers', {
    personId: 'ann',
    facts: { name: 'Corner grocers', channel: 'shops', address: '3 Quay Row', contact: '' },
  });
  const { status, body } = await server.call('POST', '/api/orders', {
    personId: 'ann',
    facts: {
      customerId: (customer.body as { id: string }).id,
      lines: [{ productId, pieces, price: 5 }],
      dueDate,
      note: '',
    },
  });
  if (status !== 201) throw new Error(JSON.stringify(body));
  return body as OrderView;
}
const get = async <T>(url: string): Promise<T> => (await server.call('GET', url)).body as T;

describe('products', () => {
  test('each saving is the next version; packings keep theirs; what is not known here is refused at its field', async () => {
    const { product, packs } = await shelf();
    expect(product).toMatchObject({ version: 1, piece: { chocolateG: 70 } });
    const next = await server.call('PUT', `/api/products/${product.id}`, {
      personId: 'ann',
      facts: { ...FACTS, prices: [{ channel: 'shops', price: 5.5 }] },
      why: 'Beans got dearer',
    });
    expect(next.body).toMatchObject({ version: 2, why: 'Beans got dearer', packed: 80 });
    const page = await get<ProductPageView>(`/api/products/${product.id}`);
    expect(page.versions.map(({ version }) => version)).toEqual([2, 1]);
    expect(packs).toHaveLength(2);
    const wrong = await server.call('POST', '/api/products', {
      personId: 'ann',
      facts: { ...FACTS, name: 'ridge BAR', recipeIds: ['none'], packaging: [{ materialId: 'sugar', perPiece: 1 }] },
    });
    expect(
      asProblem(wrong)
        .errors.map(({ path }) => path)
        .sort(),
    ).toEqual(
      ['facts.gtin', 'facts.name', 'facts.packaging.0.materialId', 'facts.recipeIds.0'].map((path) =>
        path.replace('facts.', ''),
      ),
    );
    const digit = await server.call('POST', '/api/products', {
      personId: 'ann',
      facts: { ...FACTS, gtin: '2000000000016' },
    });
    expect(asProblem(digit).errors[0]?.message).toMatch(/last digit/);
    const hollow = await server.call('POST', '/api/products', {
      personId: 'ann',
      facts: { ...FACTS, name: 'Filled', gtin: null, form: 'filled' },
    });
    expect(asProblem(hollow).errors[0]).toMatchObject({ path: 'facts.parts', message: 'names no filling' });
  });

  test('wrappers that were spoilt are taken from the pantry too', async () => {
    const { wrapper } = await shelf();
    expect(server.workshop.book.balance(wrapper).pieces).toBe(500 - 40 - 3 - 40);
    const unknown = await server.call('POST', '/api/ledger/steps', {
      personId: 'ann',
      command: {
        kind: 'pack',
        holdingId: wrapper,
        pieces: 1,
        labelCode: 'X-1',
        bestBefore: '2027-05-01',
        product: { id: 'gone', version: 1 },
        note: '',
      },
    });
    expect(asProblem(unknown).code).toBe('products/unknown');
  });

  test('a filled bar: its parts are in the book, its label counts cocoa in the chocolate alone', async () => {
    await server.reset();
    server.workshop.putMaterial({
      id: 'almond',
      name: 'Almond paste',
      kind: 'ingredient',
      cocoa: 'none',
      sugar: false,
      allergens: ['almonds'],
    });
    await server.workshop.commit();
    const lot = await nibLot(server, 'Alpha');
    const paste = await bought(server, 'almond', { massG: 2000 });
    const pour = await poured(server, lot, 'Ridge');
    const product = await made({
      name: 'Almond shell',
      form: 'filled',
      gtin: null,
      declaredG: 80,
      parts: [{ materialId: 'almond', role: 'filling', grams: 20 }],
    });
    expect(product.piece).toMatchObject({ chocolateG: 60, partsPct: 25 });
    const bars = await moulded(server, pour, {
      barG: 80,
      goodPieces: 45,
      more: [{ holdingId: paste, massG: 900 }],
      goodG: 3690,
    });
    await server.step({
      kind: 'pack',
      holdingId: bars,
      pieces: 45,
      labelCode: 'F-1',
      bestBefore: '2027-01-05',
      packaging: [],
      product: { id: product.id, version: 1 },
      note: '',
    } as never);
    expect(server.workshop.book.balance(paste).massMg).toBe(1_100_000);
    const label = await get<{
      name: string;
      cocoa: string;
      ingredients: { text: string; strong: boolean }[];
      checks: string[];
      net: string;
    }>('/api/pack/labels/F-1');
    expect(label).toMatchObject({ name: 'Almond shell', cocoa: 'Cocoa solids: 100 % minimum', net: '80 g' });
    expect(label.checks[0]).toMatch(
      /^Cocoa is counted in its chocolate alone, 100\.0 %; of the whole piece it is 76\.\d %\.$/,
    );
    expect(label.ingredients.map(({ text }) => text).join('')).toMatch(/^Ingredients: cocoa beans, almond paste/);
  });
});

describe('orders', () => {
  test('promised from what expires first; sent out it is a sale at the order’s prices; the rest stays open', async () => {
    const { product } = await shelf();
    const order = await ordered(product.id, 100);
    expect(order.number).toBe('O1');
    expect(order.lines[0]?.picks.map(({ code, pieces }) => [code, pieces])).toEqual([
      ['R-1', 40],
      ['R-0', 40],
    ]);
    expect(order.promise).toMatch(/^80 of 100 stand packed\. 20 of Ridge bar are neither here nor on their way: 1\D?4/);
    expect(order.ready).toBe(false);
    const picks = order.lines[0]?.picks.map(({ holdingId }) => ({ holdingId, pieces: 30 })) ?? [];
    const sent = await server.call('POST', `/api/orders/${order.id}/deliver`, {
      personId: 'bo',
      picks,
      note: 'By bicycle',
    });
    expect(sent.status).toBe(201);
    const { order: after } = sent.body as { order: OrderView };
    expect(after.lines[0]).toMatchObject({ sent: 60, open: 40 });
    expect(after.deliveries[0]?.lines.map(({ pieces, milli }) => [pieces, milli])).toEqual([
      [30, 15_000_000],
      [30, 15_000_000],
    ]);
    // More than was ordered, and more than there is.
    const [first] = picks;
    const more = await server.call('POST', `/api/orders/${order.id}/deliver`, {
      personId: 'bo',
      picks: [{ holdingId: first?.holdingId, pieces: 41 }],
      note: '',
    });
    expect(asProblem(more)).toMatchObject({ code: 'orders/too-many' });
    const short = await server.call('POST', `/api/orders/${order.id}/deliver`, {
      personId: 'bo',
      picks: [{ holdingId: first?.holdingId, pieces: 20 }],
      note: '',
    });
    expect(short.status).toBeGreaterThanOrEqual(400);
    expect((await get<OrderView>(`/api/orders/${order.id}`)).lines[0]).toMatchObject({ sent: 60 });
    // Papers.
    const pick = await server.app.inject(`/api/orders/${order.id}/pick-list.pdf`);
    expect(textOf(pick.rawPayload)).toContain('R-1');
    const step = after.deliveries[0]?.stepId ?? '';
    const note = await server.app.inject(`/api/orders/${order.id}/deliveries/${step}/note.pdf`);
    expect(textOf(note.rawPayload)).toMatch(/Corner grocers[\s\S]*60 pieces/);
  });

  test('the earlier due is served first; what is past its date goes to nobody', async () => {
    const { product, packs } = await shelf();
    const late = await ordered(product.id, 60, '2026-11-20');
    const soon = await ordered(product.id, 60, '2026-10-06');
    const { orders } = await get<OrdersView>('/api/orders');
    const of = (id: string) => orders.find((row) => row.id === id)?.lines[0]?.picks.map(({ pieces }) => pieces);
    expect(of(soon.id)).toEqual([40, 20]);
    expect(of(late.id)).toEqual([20]);
    const { goods } = await get<FinishedGoodsView>('/api/orders/goods');
    expect(goods.map(({ code, promised, daysLeft }) => [code, promised, daysLeft])).toEqual([
      ['R-1', 40, 208],
      ['R-0', 40, 331],
    ]);
    // Blocked goods are promised to nobody, and cannot be sent.
    const recall = await server.call('POST', '/api/trace/recalls', {
      personId: 'ann',
      codes: ['R-1'],
      why: 'A hair in it',
    });
    expect(recall.status).toBe(201);
    expect((await get<OrderView>(`/api/orders/${soon.id}`)).lines[0]?.picks.map(({ code }) => code)).toEqual(['R-0']);
    const blocked = await server.call('POST', `/api/orders/${soon.id}/deliver`, {
      personId: 'bo',
      picks: [{ holdingId: packs[1], pieces: 1 }],
      note: '',
    });
    expect(asProblem(blocked).code).toBe('trace/blocked');
  });

  test('changed, cancelled: never under what went out', async () => {
    const { product } = await shelf();
    const order = await ordered(product.id, 20);
    const [pick] = order.lines[0]?.picks ?? [];
    await server.call('POST', `/api/orders/${order.id}/deliver`, {
      personId: 'bo',
      picks: [{ holdingId: pick?.holdingId, pieces: 12 }],
      note: '',
    });
    const facts = (pieces: number) => ({ ...order.facts, lines: [{ productId: product.id, pieces, price: 5 }] });
    const less = await server.call('PUT', `/api/orders/${order.id}`, { personId: 'ann', facts: facts(10) });
    expect(asProblem(less)).toMatchObject({ code: 'orders/sent-already' });
    await server.call('PUT', `/api/orders/${order.id}`, { personId: 'ann', facts: facts(12) });
    expect((await get<OrderView>(`/api/orders/${order.id}`)).state).toBe('sent');
    const other = await ordered(product.id, 5);
    expect(other.number).toBe('O2');
    await server.call('POST', `/api/orders/${other.id}/cancel`, { personId: 'ann', why: 'Closed for winter' });
    expect(await get<OrderView>(`/api/orders/${other.id}`)).toMatchObject({
      state: 'cancelled',
      why: 'Closed for winter',
    });
  });
});

describe('what comes back', () => {
  test('into the store at what it had cost; thrown away it stays paid for; never more than went out', async () => {
    const { product, packs } = await shelf();
    const [pack = ''] = packs;
    const before = server.workshop.valuation.worth(pack);
    const order = await ordered(product.id, 10);
    const sent = await server.call('POST', `/api/orders/${order.id}/deliver`, {
      personId: 'bo',
      picks: [{ holdingId: pack, pieces: 10 }],
      note: '',
    });
    const { stepId } = sent.body as { stepId: string };
    const back = (pieces: number, fate: string, refund = 0) =>
      server.call('POST', '/api/ledger/steps', {
        personId: 'ann',
        command: {
          kind: 'return',
          saleId: stepId,
          holdingId: pack,
          pieces,
          refund,
          fate,
          why: 'Melted on the way',
          note: '',
        },
      });
    expect((await back(4, 'back', 20)).status).toBe(201);
    expect(server.workshop.book.balance(pack).pieces).toBe(34);
    const now = server.workshop.valuation.worth(pack);
    expect(now.valueMilli / now.pieces).toBeCloseTo(before.valueMilli / before.pieces, -2);
    expect((await back(3, 'waste')).status).toBe(201);
    expect(server.workshop.book.balance(pack).pieces).toBe(34);
    const more = await back(4, 'back');
    expect(asProblem(more)).toMatchObject({ code: 'money/more-than-sold' });
    expect(asProblem(more).detail).toBe('10 of R-0 went out with that sale and 7 came back: 4 cannot come back.');
    const nothing = await server.call('POST', '/api/ledger/steps', {
      personId: 'ann',
      command: {
        kind: 'return',
        saleId: stepId,
        holdingId: packs[1],
        pieces: 1,
        refund: 0,
        fate: 'back',
        why: '',
        note: '',
      },
    });
    expect(asProblem(nothing)).toMatchObject({ code: 'money/not-sold' });
    const [delivery] = (await get<OrderView>(`/api/orders/${order.id}`)).deliveries;
    expect(delivery?.lines[0]).toMatchObject({ pieces: 10, returned: 7 });
    // The sale cannot be taken back under it, nor made smaller; corrected it keeps what came back.
    const gone = await server.call('POST', `/api/ledger/steps/${stepId}/withdraw`, {
      personId: 'ann',
      reason: 'Never sent',
    });
    expect(asProblem(gone)).toMatchObject({ code: 'money/came-back' });
    const corrected = (pieces: number) =>
      server.call('POST', `/api/ledger/steps/${stepId}/correct`, {
        personId: 'ann',
        reason: 'Counted wrong',
        command: {
          kind: 'sell',
          sources: [{ holdingId: pack, pieces, takings: 45 }],
          takings: 45,
          to: 'Corner grocers',
          channel: 'shops',
          orderId: order.id,
          note: '',
        },
      });
    expect(asProblem(await corrected(6))).toMatchObject({ code: 'money/came-back' });
    expect((await corrected(9)).status).toBe(201);
    const [after] = (await get<OrderView>(`/api/orders/${order.id}`)).deliveries;
    expect(after?.lines[0]).toMatchObject({ pieces: 9, returned: 7 });
    expect((await back(3, 'back')).status).toBeGreaterThanOrEqual(400);
    expect((await back(1, 'waste')).status).toBe(201);
    // A recall asks the buyer for one only: eight of nine are not there any more.
    const recall = await server.call('POST', '/api/trace/recalls', {
      personId: 'ann',
      codes: ['R-0'],
      why: 'To see',
      mock: true,
    });
    expect((recall.body as { buyers: { to: string; pieces: number }[] }).buyers).toMatchObject([
      { to: 'Corner grocers', pieces: 1 },
    ]);
    // All money is accounted for, and a trace finds the sacks whole.
    const { totals, states } = server.workshop.valuation;
    const held = [...states.values()].reduce((sum, { valueMilli }) => sum + valueMilli, 0);
    expect(held + totals.soldMilli + totals.lostMilli).toBe(
      totals.boughtMilli + totals.labourMilli + totals.energyMilli,
    );
    const trace = await get<TraceView>('/api/trace/codes/R-0');
    expect(trace.back.lots[0]?.share).toBeCloseTo(1, 6);
    // Three kilograms of nibs became 2,900 g of chocolate, of which 2,800 g are these bars.
    expect((trace.back.lots[0]?.greenMg ?? 0) / 1e6).toBeGreaterThan(2.7);
  });

  test('margins count what came back, and what was given away apart', async () => {
    const { product, packs } = await shelf();
    const [pack = ''] = packs;
    const order = await ordered(product.id, 10);
    const sent = await server.call('POST', `/api/orders/${order.id}/deliver`, {
      personId: 'bo',
      picks: [{ holdingId: pack, pieces: 10 }],
      note: '',
    });
    const { stepId } = sent.body as { stepId: string };
    await server.step({
      kind: 'sell',
      sources: [{ holdingId: pack, pieces: 6 }],
      takings: 0,
      to: 'School class',
      use: 'class',
      note: '',
    } as never);
    await server.step({
      kind: 'return',
      saleId: stepId,
      holdingId: pack,
      pieces: 2,
      refund: 10,
      fate: 'back',
      why: '',
      note: '',
    } as never);
    const { margins, given } = await get<MarginsView>('/api/orders/margins');
    expect(margins).toHaveLength(1);
    expect(margins[0]).toMatchObject({
      product: 'Ridge bar',
      channel: 'shops',
      pieces: 8,
      // Ten at five, ten of it given back.
      revenueMilli: 4_000_000,
    });
    const each = server.workshop.valuation.perPieceMilli(pack);
    expect(margins[0]?.costMilli).toBeCloseTo(8 * each, -3);
    expect(given).toEqual([{ use: 'class', pieces: 6, costMilli: expect.any(Number) }]);
    const table = (await server.call('GET', '/api/orders/sales.csv')).body as string;
    expect(table.split('\r\n')[0]).toBe('date,channel,product,code,pieces,massG,takings,cost,to,use,step');
    expect(table.trim().split('\r\n')).toHaveLength(4);
  });
});

describe('tables of sales', () => {
  const table = (...rows: string[]): string => ['Date,Channel,Product,Pieces,Takings', ...rows].join('\n');

  test('looked at first: each bad row with why; then all of it or nothing', async () => {
    await shelf();
    const bad = table(
      `${new Date(NOW).toISOString().slice(0, 10)},market,Ridge bar,5,35`,
      '2026-10-02,market,Moon bar,1,7',
      'yesterday,market,Ridge bar,2,x',
    );
    const look = await server.call('POST', '/api/orders/sales/preview', { text: bad });
    const { rows, bad: wrong } = look.body as SalesPreview;
    expect(wrong).toBe(2);
    expect(rows[0]?.picks).toMatchObject([{ code: 'R-1', pieces: 5 }]);
    expect(rows[1]?.problems).toEqual(['“Moon bar” is no product and no code here']);
    expect(rows[2]?.problems).toEqual(['“yesterday” is no date', '“x” is no money']);
    const refused = await server.call('POST', '/api/orders/sales', { personId: 'ann', text: bad });
    expect(asProblem(refused).code).toBe('orders/bad-rows');
    expect((await get<MarginsView>('/api/orders/margins')).margins).toEqual([]);
    const none = await server.call('POST', '/api/orders/sales/preview', { text: 'a,b\n1,2' });
    expect(asProblem(none).code).toBe('orders/columns');
  });

  test('a product by its name, code or number; over two packings; not twice', async () => {
    await shelf();
    const day = new Date(NOW).toISOString().slice(0, 10);
    const good = table(`${day},market,2000000000015,50,350`, `${day},web,R-0,5,35`);
    const taken = await server.call('POST', '/api/orders/sales', { personId: 'ann', text: good });
    expect(taken.status).toBe(201);
    const { margins } = await get<MarginsView>('/api/orders/margins');
    expect(margins.map(({ channel, pieces }) => [channel, pieces])).toEqual([
      ['market', 50],
      ['web', 5],
    ]);
    const again = await server.call('POST', '/api/orders/sales/preview', { text: good });
    expect((again.body as SalesPreview).rows[0]?.problems).toContain('is in the book already');
    const many = await server.call('POST', '/api/orders/sales/preview', {
      text: table(`${day},market,Ridge bar,300,1`),
    });
    expect((many.body as SalesPreview).rows[0]?.problems).toEqual([
      '25 of it were packed by then and are here: 300 cannot have been sold',
    ]);
  });
});

describe('what a table of sales says and what was there', () => {
  const table = (...rows: string[]): string => ['Date,Channel,Product,Pieces,Takings,Buyer', ...rows].join('\n');

  test('nothing is sold on a day before it was packed', async () => {
    await shelf();
    const { body } = await server.call('POST', '/api/orders/sales/preview', {
      text: table('2020-01-05,market,Ridge bar,5,35,'),
    });
    const [row] = (body as SalesPreview).rows;
    expect(row?.picks).toEqual([]);
    expect(row?.problems).toEqual(['0 of it were packed by then and are here: 5 cannot have been sold']);
  });

  test('the buyer is kept, and a sale of the day of packing is not earlier than its packing', async () => {
    await shelf();
    const day = new Date(NOW).toISOString().slice(0, 10);
    const text = table(`${day},shops,Ridge bar,5,35,Corner grocers`);
    const { steps } = (await server.call('POST', '/api/orders/sales', { personId: 'ann', text })).body as {
      steps: string[];
    };
    const { step } = (await server.call('GET', `/api/ledger/steps/${steps[0]}`)).body as {
      step: { at: number; command: { to: string } };
    };
    expect(step.command.to).toBe('Corner grocers');
    expect(step.at).toBeLessThanOrEqual(NOW + 60_000);
  });
});

describe('where goods stand', () => {
  test('a place, its air and its warning; put there, they are found there', async () => {
    const { packs } = await shelf();
    const place = (await server.call('POST', '/api/orders/places', { personId: 'ann', name: 'Shop shelf' })).body as {
      id: string;
    };
    const air = await server.call('POST', `/api/orders/places/${place.id}/climate`, {
      personId: 'ann',
      tempC: 23,
      humidityPct: 50,
    });
    expect(air.body).toMatchObject({ tempC: 23 });
    await server.call('POST', `/api/orders/places/${place.id}/goods`, { personId: 'ann', holdingIds: [packs[0]] });
    const { goods, places } = await get<FinishedGoodsView>('/api/orders/goods');
    expect(goods.find(({ code }) => code === 'R-0')?.placeId).toBe(place.id);
    expect(places[0]?.warning).toMatch(/^23\s°C: over 20\s°C fat bloom comes sooner/);
    const nowhere = await server.call('POST', '/api/orders/places/none/climate', { personId: 'ann', tempC: 17 });
    expect(nowhere.status).toBe(404);
  });

  test('everything of it comes back from an export', async () => {
    const { product } = await shelf();
    await ordered(product.id, 7);
    const whole = await server.app.inject('/api/workshop/export.json');
    await server.workshop.empty();
    const restored = await server.app.inject({
      method: 'POST',
      url: '/api/workshop/restore',
      payload: whole.rawPayload,
      headers: { 'content-type': 'application/json' },
    });
    expect(restored.statusCode).toBeLessThan(300);
    expect((await get<OrdersView>('/api/orders')).orders[0]?.lines[0]?.pieces).toBe(7);
    expect((await get<ProductsView>('/api/products')).products[0]?.facts.name).toBe('Ridge bar');
  });
});
