import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { PNG } from 'pngjs';
import type { BeanLotView, FileView, ImportPreview } from '@wunsch/core/api/beans';
import { NO_BEANS } from '@wunsch/core/beans/cut-test';
import { exportWorkshop } from '../../src/journal/export';
import { asProblem, lotCommand, madeBy, testServer, type Answer, type TestServer } from '../harness';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
beforeEach(async () => {
  await server.reset();
});
afterAll(() => server.close());

const png = (): Buffer => PNG.sync.write(new PNG({ width: 8, height: 6 }));
const attach = (data: Buffer, name = 'seam.png'): Promise<Answer> =>
  server.call('POST', '/api/beans/lots/L001/files', {
    personId: 'ann',
    name,
    caption: 'seam of sack 3',
    data: data.toString('base64'),
  });

/** All text of a PDF, sheet by sheet in one string. */
async function textOf(url: string): Promise<string> {
  const answer = await server.app.inject({ method: 'GET', url });
  expect(answer.statusCode).toBe(200);
  expect(answer.headers['content-type']).toContain('application/pdf');
  const { stdout, stderr } = spawnSync('node', [join(__dirname, '../pdf-text.mjs')], { input: answer.rawPayload });
  expect(stderr.toString()).toBe('');
  return stdout.toString().replace(/\s+/g, ' ');
}

describe('photos and papers', () => {
  it('are kept as they came, and served so that nothing in them runs', async () => {
    await server.step(lotCommand());
    const kept = (await attach(png())).body as FileView;
    expect(kept).toMatchObject({ type: 'image/png', width: 8, height: 6, person: 'Ann' });
    const answer = await server.app.inject({ method: 'GET', url: `/api/beans/files/${kept.id}` });
    expect(answer.rawPayload.equals(png())).toBe(true);
    expect(answer.headers).toMatchObject({ 'content-type': 'image/png', 'x-content-type-options': 'nosniff' });
    expect(String(answer.headers['content-security-policy'])).toContain('sandbox');
    await server.call('DELETE', `/api/beans/files/${kept.id}`);
    expect((await server.call('GET', `/api/beans/files/${kept.id}`)).status).toBe(404);
  });

  it.each([
    ['a script with a picture’s name', '<script>alert(1)</script>', 'seam.png'],
    [
      'a drawing that can carry scripts',
      '<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><script/></svg>',
      'seam.svg',
    ],
    ['a page', '<!doctype html><title>x</title>', 'seam.jpg'],
  ])('are refused when they are %s', async (_, text, name) => {
    await server.step(lotCommand());
    const answer = await attach(Buffer.from(text), name);
    expect(asProblem(answer).code).toBe('beans/not-a-picture');
    expect(server.workshop.beans.files.size).toBe(0);
  });

  it('are refused when they are 30 MB, and when empty', async () => {
    await server.step(lotCommand());
    expect((await attach(Buffer.alloc(30_000_000, 1))).status).toBe(413);
    expect(asProblem(await attach(Buffer.concat([png(), Buffer.alloc(6_500_000)]))).code).toBe('beans/file-too-large');
    expect((await attach(Buffer.alloc(0))).status).toBe(422);
  });

  it('go out with an export and come back to the same bytes', async () => {
    await server.step(lotCommand());
    await attach(png());
    await server.call('POST', '/api/beans/lots/L001/records', {
      personId: 'ann',
      record: { kind: 'look', note: 'dry' },
    });
    const bytes = await exportWorkshop(server.workshop);
    const other = await testServer();
    try {
      await other.workshop.empty();
      expect((await other.call('POST', '/api/workshop/restore', bytes)).status).toBe(201);
      expect(await exportWorkshop(other.workshop)).toBe(bytes);
      const spoiled = JSON.parse(bytes) as { files: { data: string }[] };
      if (spoiled.files[0]) spoiled.files[0].data = Buffer.from('<script>').toString('base64');
      const third = await testServer();
      await third.workshop.empty();
      expect((await third.call('POST', '/api/workshop/restore', spoiled)).status).toBe(422);
      expect(third.workshop.book.steps.size).toBe(0);
      await third.close();
    } finally {
      await other.close();
    }
  });
});

describe('sheets', () => {
  const record = (value: object): Promise<Answer> =>
    server.call('POST', '/api/beans/lots/L001/records', { personId: 'bo', record: value });

  it('claim exactly what the screen claims', async () => {
    const lotId = madeBy(
      await server.step({
        ...lotCommand(100_000),
        name: 'Thảo’s mûr lot',
        invoiceNetG: 101_000,
        invoiceSacks: 1,
      } as never),
    );
    await record({
      kind: 'papers',
      limits: { flatPct: 4, rejectPct: 8, mouldyPct: 3, slatyPct: 3, defectivePct: 3, moisturePct: 8, weightPct: 0.5 },
    });
    await record({ kind: 'sacks', sacks: [{ no: 1, grossG: 100_600, tareG: 600, place: 'A' }] });
    await record({
      kind: 'inspection',
      smells: ['clean cocoa'],
      moisturePct: [7.1],
      signs: {},
      cut: { planned: 300, tally: { ...NO_BEANS, brown: 272, flat: 28 } },
    });
    await server.step({
      kind: 'sort',
      sources: [{ holdingId: lotId, massG: 20_000 }],
      rejects: [{ reason: 'flat', massG: 1900 }],
      goodG: 18_000,
      note: '',
    });
    await attach(png());
    const { claim } = (await server.call('GET', '/api/beans/lots/L001')).body as BeanLotView;
    // Sorting found 9.5 % flat against 4 % by weight: 5.5 % of the 101 kg invoiced; the cut test 9.3 − 3 %.
    expect(claim.items.map(({ weight }) => weight)).toEqual(['1.0 kg', '6.3 kg']);
    const text = await textOf('/api/beans/lots/L001/claim.pdf');
    expect(text).toContain(claim.sentence);
    for (const row of claim.rows)
      for (const cell of [row.found, row.limit, row.interval, row.word]) expect(text).toContain(cell);
    for (const item of claim.items) expect(text).toContain(item.money);
    expect(text).toContain('Thảo’s mûr lot');
    expect(text).toContain('seam of sack 3');
  });

  it('hang on the sacks with code, place and address', async () => {
    await server.step(lotCommand());
    const text = await textOf('/api/beans/lots/L001/sheet.pdf');
    expect(text).toContain('L001');
    expect(text).toContain('/lot/L001');
    expect(text).toContain('not ready to eat');
  });
});

describe('a table of lots', () => {
  const table = [
    'Lot name;Supplier;Origin;Bags;Net weight (kg);Price / kg;Arrived',
    'Ridge 1;Ridge Growers;Uganda;2;124,5;5,10;14.3.2026',
    'Ridge 2;Ridge Growers;Uganda;1;62;5,30;',
  ].join('\n');
  const preview = (text: string): Promise<Answer> =>
    server.call('POST', '/api/beans/import/preview', { text, routeId: 'whole-bean' });
  const take = (text: string): Promise<Answer> =>
    server.call('POST', '/api/beans/import', { text, routeId: 'whole-bean', personId: 'ann' });

  it('is shown before it comes in, and comes in whole', async () => {
    const seen = (await preview(table)).body as ImportPreview;
    expect(seen).toMatchObject({ good: 2, bad: 0, unit: 'kg' });
    expect(server.workshop.lots.size).toBe(0);
    expect((await take(table)).body).toEqual({ codes: ['L001', 'L002'] });
    const lot = (await server.call('GET', '/api/beans/lots/L001')).body as BeanLotView;
    expect(lot).toMatchObject({ receivedG: 124_500, facts: { producer: 'Ridge Growers', sacks: 2 } });
    expect(new Date(lot.receivedAt).toISOString().slice(0, 10)).toBe('2026-03-14');
  });

  it('is in pounds and their price where the workshop is and no heading says otherwise; what is chosen counts', async () => {
    const settings = { ...server.workshop.settings, massSystem: 'imperial' };
    expect((await server.call('PUT', '/api/workshop/settings', settings)).status).toBe(200);
    const plain = table.replace('Net weight (kg)', 'Net weight').replace('Price / kg', 'Price');
    const seen = (await preview(plain)).body as ImportPreview;
    expect(seen).toMatchObject({ unit: 'lb', pricePer: 'lb' });
    expect(seen.rows[0]?.command?.netG).toBeCloseTo(56_472.25, 1);
    expect(seen.rows[0]?.command?.pricePerKg).toBeCloseTo(11.2436, 4);
    expect((await preview(table)).body).toMatchObject({ unit: 'kg', pricePer: 'kg' });
    const chosen = { text: plain, routeId: 'whole-bean', unit: 'kg', pricePer: 't' };
    const told = (await server.call('POST', '/api/beans/import/preview', chosen)).body as ImportPreview;
    expect(told.rows[0]?.command?.netG).toBe(124_500);
    expect(told.rows[0]?.command?.pricePerKg).toBeCloseTo(0.0051, 9);
  });

  it('names its bad rows and then takes in none', async () => {
    const bad = `${table}\nRidge 3;Ridge Growers;;two;0;5\n`;
    const problem = asProblem(await take(bad));
    expect(problem).toMatchObject({
      code: 'beans/bad-rows',
      detail: '1 of 3 rows cannot be read. Nothing was taken in.',
    });
    expect(problem.errors.map(({ path }) => path)).toEqual(['line 4, country', 'line 4, sacks']);
    expect(server.workshop.lots.size).toBe(0);
  });

  it('with a broken quote says in which line', async () => {
    const problem = asProblem(await preview('name,producer\nRidge,"never closed\nmore,rows\n'));
    expect(problem.code).toBe('beans/broken-csv');
    expect(problem.detail).toMatch(/never closed, line \d/);
    expect(asProblem(await preview('name,producer')).code).toBe('beans/empty-csv');
  });

  it('goes out with headings that it recognises when it comes back', async () => {
    await take(table);
    const { body } = await server.call('GET', '/api/beans/lots.csv');
    const again = (await preview(String(body))).body as ImportPreview;
    expect(again).toMatchObject({ good: 2, bad: 0 });
    expect(again.rows[0]?.command).toMatchObject({ name: 'Ridge 1', netG: 124_500, pricePerKg: 5.1 });
  });
});
