import type { StepView } from '@wunsch/core/api/types';
import type { Command, CommandOf } from '@wunsch/core/commands';
import { exportWorkshop } from '../src/journal/export';
import { lotCommand, madeBy, testServer, type TestServer } from './harness';
import { chargeCommand, dischargeCommand, mouldCommand } from '../../core/test/commands';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
beforeEach(() => server.reset());
afterAll(() => server.close());

const correct = async (step: StepView, command: Command) => {
  const got = await server.call('POST', `/api/ledger/steps/${step.id}/correct`, {
    command,
    personId: 'bo',
    reason: 'entered wrong',
    at: new Date(step.at).toISOString(),
  });
  expect(got.body).toMatchObject({ step: { reason: 'entered wrong' } });
};

async function bars(): Promise<{ sugar: StepView; mould: StepView; pack: StepView }> {
  const lot = await server.step({ ...(lotCommand(5_000) as CommandOf<'receive'>), form: 'nibs' });
  const sugar = await server.step({
    kind: 'buy',
    materialId: 'sugar',
    supplier: 'Dry Goods',
    supplierBatch: '7',
    massG: 2_000,
    price: 4,
    note: '',
  });
  const bowl = await server.step(
    chargeCommand([
      { holdingId: madeBy(lot), massG: 700 },
      { holdingId: madeBy(sugar), massG: 300 },
    ]),
  );
  const poured = await server.step(dischargeCommand(madeBy(bowl), 1_000));
  const mould = await server.step(mouldCommand([{ holdingId: madeBy(poured), massG: 1_000 }], 20));
  const pack = await server.step({
    kind: 'pack',
    holdingId: madeBy(mould),
    pieces: 20,
    labelCode: 'DARK-1',
    bestBefore: '2028-01-01',
    packaging: [],
    note: '',
  });
  return { sugar, mould, pack };
}

test('a purchase corrected to another material changes what everything made of it holds', async () => {
  const { sugar, pack } = await bars();
  server.workshop.putMaterial({
    id: 'milk',
    name: 'Milk powder',
    kind: 'ingredient',
    cocoa: 'none',
    sugar: false,
    allergens: ['milk'],
  });
  await server.workshop.commit();
  const cocoa = async () =>
    ((await server.call('GET', '/api/ledger/holdings/DARK-1')).body as { composition: { allergens: string[] } })
      .composition;
  expect((await cocoa()).allergens).toEqual([]);
  await correct(sugar, { ...(sugar.command as CommandOf<'buy'>), materialId: 'milk' });
  expect((await cocoa()).allergens).toEqual(['milk']);
  expect(server.workshop.book.holding(madeBy(sugar)).name).toBe('Milk powder');
  expect(pack.kind).toBe('pack');
  // It is so after a restart, and in a restored copy.
  await server.workshop.reload();
  expect((await cocoa()).allergens).toEqual(['milk']);
});

test('a corrected label is found by its new code, and no more by the old one', async () => {
  const { pack } = await bars();
  await correct(pack, { ...(pack.command as CommandOf<'pack'>), labelCode: 'DARK-2' });
  expect((await server.call('GET', '/api/trace/codes/DARK-2')).status).toBe(200);
  expect((await server.call('GET', '/api/trace/codes/DARK-1')).status).toBe(404);
  await server.workshop.reload();
  expect((await server.call('GET', '/api/trace/codes/DARK-2')).status).toBe(200);
});

test('bars of another weight are called so, packed ones too', async () => {
  const { mould, pack } = await bars();
  await correct(mould, { ...(mould.command as CommandOf<'mould'>), barG: 48, goodPieces: 20 });
  expect(server.workshop.book.holding(madeBy(mould)).name).toBe('Dark, 48 g');
  expect(server.workshop.book.holding(madeBy(pack)).name).toBe('Dark, 48 g');
  const exported = await exportWorkshop(server.workshop);
  await server.workshop.empty();
  expect((await server.call('POST', '/api/workshop/restore', exported)).status).toBe(201);
  expect(await exportWorkshop(server.workshop)).toBe(exported);
});
