import { execFileSync } from 'node:child_process';
import { join } from 'node:path';
import type { Label } from '@wunsch/core/pack/label';
import { asProblem, lotCommand, madeBy, testServer, type TestServer } from './harness';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(() => server.close());

const textOf = (pdf: Buffer): string =>
  execFileSync('node', [join(__dirname, 'pdf-text.mjs')], { input: pdf }).toString();

/** Bars of nibs, sugar and milk under a code. */
async function packed(): Promise<void> {
  await server.reset();
  server.workshop.putMaterial({
    id: 'milk',
    name: 'Whole milk powder',
    kind: 'ingredient',
    cocoa: 'none',
    sugar: false,
    allergens: ['milk'],
  });
  await server.workshop.commit();
  const lot = { ...lotCommand(), name: 'Alpha', form: 'nibs', roasted: true, routeId: 'from-nibs', netG: 5000 };
  const nibs = madeBy(await server.step(lot as never));
  const buy = async (materialId: string): Promise<string> =>
    madeBy(
      await server.step({
        kind: 'buy',
        materialId,
        supplier: 'Quay',
        supplierBatch: '',
        massG: 5000,
        price: 9,
        note: '',
      } as never),
    );
  const sources = [
    { holdingId: nibs, massG: 1000 },
    { holdingId: await buy('sugar'), massG: 800 },
    { holdingId: await buy('milk'), massG: 400 },
  ];
  const batch = { name: 'Harbour milk', routeId: 'from-nibs' };
  const bowl = madeBy(await server.step({ kind: 'charge', batch, sources, note: '' } as never), 'mass');
  const tub = madeBy(
    await server.step({ kind: 'discharge', batchId: bowl, outsG: [2200], holdUpG: 0, note: '' } as never),
  );
  const pour = madeBy(
    await server.step({
      kind: 'temper',
      sources: [{ holdingId: tub, massG: 2200 }],
      method: 'bath',
      meltC: 43,
      coolC: 26.5,
      workC: 29.5,
      test: 'set',
      note: '',
    } as never),
  );
  const bars = madeBy(
    await server.step({
      kind: 'mould',
      sources: [{ holdingId: pour, massG: 2200 }],
      barG: 70,
      cavities: 24,
      goodPieces: 30,
      goodG: 2130,
      holdUpG: 70,
      note: '',
    } as never),
  );
  await server.step({
    kind: 'pack',
    holdingId: bars,
    pieces: 30,
    labelCode: 'HM-1',
    bestBefore: '2027-06-01',
    packaging: [],
    note: '',
  } as never);
}

test('a label says what the ledger says; more cocoa or weight than there is cannot be declared', async () => {
  await packed();
  const label = (query = '') => server.call('GET', `/api/pack/labels/HM-1${query}`);
  const found = (await label()).body as Label;
  expect(found.cocoa).toBe('Cocoa solids: 45 % minimum');
  expect(found.ingredients.map(({ text, strong }) => (strong ? text.toUpperCase() : text)).join('')).toBe(
    'Ingredients: cocoa beans, sugar, WHOLE MILK POWDER.',
  );
  expect(found).toMatchObject({ net: '70 g', origin: 'Uganda, west', batch: 'HM-1', bestBefore: '2027-06-01' });
  expect(((await label('?declaredPct=40&market=de')).body as Label).cocoa).toBe('Kakao: 40 % mindestens');
  expect(asProblem(await label('?declaredPct=50'))).toMatchObject({
    code: 'pack/percent-too-high',
    errors: [{ path: 'declaredPct' }],
  });
  expect(asProblem(await label('?netG=72')).code).toBe('pack/net-too-high');
  expect(asProblem(await server.call('GET', '/api/pack/labels/NOPE')).code).toBe('trace/unknown-code');
});

test('labels are printed several a sheet or one a page, and read back as they were written', async () => {
  const print = (query: string) =>
    server.app.inject({
      method: 'GET',
      url: `/api/pack/labels/HM-1/label.pdf?${query}`,
      headers: { host: '127.0.0.1:4610' },
    });
  const sheet = await print('copies=5');
  expect(sheet.headers['content-type']).toBe('application/pdf');
  const [page = '', ...more] = textOf(sheet.rawPayload).trim().split('\n');
  expect(more).toEqual([]);
  expect(page.match(/Cocoa solids: 45 % minimum/g)).toHaveLength(5);
  expect(page).toContain('whole milk powder');
  expect(page).toMatch(/Net weight: 70 g\s+Best before: 2027-06-01\s+Batch: HM-1/);
  const roll = await print('copies=3&sheet=no&widthMm=60&heightMm=80&market=fr');
  const pages = textOf(roll.rawPayload).trim().split('\n');
  expect(pages).toHaveLength(3);
  expect(pages[0]).toContain('Poids net: 70 g');
  // What does not fit is refused, not cut off.
  const small = await print('widthMm=30&heightMm=20');
  expect(small.json()).toMatchObject({ code: 'pack/label-too-small' });
  expect((await print('widthMm=5')).json()).toMatchObject({ errors: [{ path: 'widthMm' }] });
  expect((await print('copies=2.5')).statusCode).toBe(422);
});
