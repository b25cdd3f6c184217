import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import Ajv from 'ajv';
import addFormats from 'ajv-formats';
import type { EpcisDocument } from '@wunsch/core/trace/epcis';
import type { TraceDrawing } from '@wunsch/core/trace/branches';
import { asProblem, madeBy, testServer, type TestServer } from './harness';
import { bought, moulded, nibLot, poured } from './shop';

/* Events in the open standard of trade, held against its own schema (GS1, EPCIS 2.0, Apache licence); labels for all. */

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(() => server.close());

async function story(): Promise<void> {
  await server.reset();
  const lot = await nibLot(server, 'Alpha');
  const wrapper = await bought(server, 'wrapper', { pieces: 100 });
  const bars = await moulded(server, await poured(server, lot, 'Ridge'));
  const product = await server.call('POST', '/api/products', {
    personId: 'ann',
    facts: { name: 'Ridge bar', declaredG: 70, form: 'plain', gtin: '2000000000015' },
  });
  const pack = madeBy(
    await server.step({
      kind: 'pack',
      holdingId: bars,
      pieces: 40,
      labelCode: 'R-1',
      bestBefore: '2027-09-01',
      packaging: [{ holdingId: wrapper, pieces: 40 }],
      product: { id: (product.body as { id: string }).id, version: 1 },
      note: '',
    } as never),
    'packed',
  );
  const sale = await server.step({
    kind: 'sell',
    sources: [{ holdingId: pack, pieces: 10 }],
    takings: 50,
    to: 'Corner grocers',
    note: '',
  } as never);
  await server.step({
    kind: 'return',
    saleId: sale.id,
    holdingId: pack,
    pieces: 2,
    refund: 0,
    fate: 'back',
    why: '',
    note: '',
  } as never);
  await server.step({ kind: 'adjust', holdingId: pack, countedPieces: 31, cause: 'unaccounted', note: '' } as never);
}

test('every event is valid against the schema of the standard, and tells grams and pieces as they were', async () => {
  await story();
  const { body, status } = await server.call('GET', '/api/trace/epcis.json');
  expect(status).toBe(200);
  const ajv = addFormats(new Ajv({ strict: false, allErrors: true }));
  const valid = ajv.compile(JSON.parse(readFileSync(join(__dirname, 'epcis-json-schema.json'), 'utf8')) as object);
  expect(valid(body) ? [] : valid.errors).toEqual([]);
  const events = (body as EpcisDocument).epcisBody.eventList;
  expect(events.map((event) => event['wunsch:step'])).toEqual([
    'receive',
    'buy',
    'charge',
    'discharge',
    'temper',
    'mould',
    'pack',
    'sell',
    'return',
    'adjust',
  ]);
  const pack = events[6];
  expect(pack).toMatchObject({
    type: 'TransformationEvent',
    bizStep: 'packing',
    outputQuantityList: [{ epcClass: 'https://id.gs1.org/01/02000000000015/10/R-1', quantity: 40 }],
  });
  expect(pack?.inputQuantityList).toContainEqual({
    epcClass: expect.stringMatching(/^http:\/\/localhost(:\d+)?\/trace\/P\d+$/) as string,
    quantity: 40,
  });
  expect(events[2]?.inputQuantityList?.[0]).toMatchObject({ quantity: 3, uom: 'KGM' });
  expect(events[7]).toMatchObject({ bizStep: 'shipping', 'wunsch:to': 'Corner grocers' });
  expect(events[8]).toMatchObject({ bizStep: 'receiving', disposition: 'returned' });
});

test('a document that is none is refused by that schema', () => {
  const ajv = addFormats(new Ajv({ strict: false }));
  const valid = ajv.compile(JSON.parse(readFileSync(join(__dirname, 'epcis-json-schema.json'), 'utf8')) as object);
  expect(
    valid({ type: 'EPCISDocument', schemaVersion: '2.0', epcisBody: { eventList: [{ type: 'ObjectEvent' }] } }),
  ).toBe(false);
});

test('of one code only what has a part in it; an unknown one is refused', async () => {
  await story();
  const other = await nibLot(server, 'Beta');
  expect(other).not.toBe('');
  const { body } = await server.call('GET', '/api/trace/epcis.json?code=R-1');
  expect((body as EpcisDocument).epcisBody.eventList.map((event) => event['wunsch:step'])).toEqual([
    'receive',
    'charge',
    'discharge',
    'temper',
    'mould',
    'pack',
    'sell',
    'adjust',
  ]);
  expect(asProblem(await server.call('GET', '/api/trace/epcis.json?code=NONE')).code).toBe('trace/unknown-code');
});

test('a trace as places and bands: sacks behind, buyers ahead, what is lost drawn as one', async () => {
  await story();
  const { places, bands } = (await server.call('GET', '/api/trace/codes/R-1/drawing')).body as TraceDrawing;
  const kinds = places.map(({ kind, depth }) => [kind, Math.sign(depth)]);
  expect(kinds).toContainEqual(['lot', -1]);
  expect(kinds).toContainEqual(['packed', 0]);
  expect(kinds).toContainEqual(['buyer', 1]);
  expect(places.find(({ kind }) => kind === 'buyer')).toMatchObject({ name: 'Corner grocers', pieces: 10 });
  const depth = new Map(places.map((row) => [row.id, row.depth]));
  for (const { from, to, massMg } of bands) {
    expect(massMg).toBeGreaterThan(0);
    expect(depth.get(from) ?? 0).toBeLessThan(depth.get(to) ?? 0);
  }
});

test('what a scanner reads leads to its page: tub, lot, sack, the number on a wrapper', async () => {
  await story();
  const open = async (code: string) =>
    ((await server.call('GET', `/api/trace/open/${encodeURIComponent(code)}`)).body as { link: string | null }).link;
  const lot = [...server.workshop.lots.keys()][0] ?? '';
  const code = server.workshop.book.holding(lot).code;
  expect(await open('r-1')).toBe('/tub/R-1');
  expect(await open(code)).toBe(`/lot/${code}`);
  expect(await open(`${code}/1`)).toBe(`/lot/${code}`);
  expect(await open('02000000000015')).toBe('/products');
  expect(await open('NOPE')).toBeNull();
});

test('labels for tubs, sacks and moulds; a sack that is not there is refused', async () => {
  await story();
  const lot = [...server.workshop.lots.keys()][0] ?? '';
  const { code } = server.workshop.book.holding(lot);
  const mould = await server.call('POST', '/api/mould/moulds', {
    personId: 'ann',
    facts: { name: 'Tablet', cavities: 3, cavityG: 70, owned: 10 },
  });
  const [{ id = '' } = {}] = (mould.body as { moulds: { id: string }[] }).moulds;
  for (const asked of ['R-1', `${code}/1`, id]) {
    const answer = await server.app.inject(`/api/pack/tags/${encodeURIComponent(asked)}/tag.pdf?copies=2`);
    expect([answer.statusCode, answer.rawPayload.subarray(0, 5).toString()]).toEqual([200, '%PDF-']);
  }
  const sacks = await server.app.inject(`/api/pack/tags/${code}/tag.pdf?sacks=yes`);
  expect(sacks.statusCode).toBe(200);
  const none = await server.call('GET', `/api/pack/tags/${encodeURIComponent(`${code}/9`)}/tag.pdf`);
  expect(asProblem(none).errors[0]?.message).toBe('has no such sack');
});

test('words of labels are typed over, language by language; without the figure they are refused', async () => {
  await story();
  const wrong = await server.call('PUT', '/api/pack/words/en', { personId: 'ann', words: { cocoa: 'Cocoa inside' } });
  expect(asProblem(wrong).errors[0]?.message).toBe('has no {pct} for the figure');
  const kept = await server.call('PUT', '/api/pack/words/en', {
    personId: 'ann',
    words: { cocoa: 'At least {pct} % cocoa', net: 'Weighs' },
  });
  expect(kept.status).toBe(200);
  const label = (await server.call('GET', '/api/pack/labels/R-1')).body as {
    cocoa: string;
    words: { net: string; may: string };
    nutrition: [string, string][];
  };
  expect(label).toMatchObject({ cocoa: 'At least 100 % cocoa', words: { net: 'Weighs', may: 'May contain' } });
  expect(label.nutrition.map(([name]) => name)).toContain('of which saturates');
  const german = (await server.call('GET', '/api/pack/labels/R-1?market=de')).body as { words: { net: string } };
  expect(german.words.net).toBe('Nettofüllmenge');
});

test('a label printer prints, keeps what it has no labels for, and says when it is unplugged', async () => {
  await story();
  const print = () => server.call('POST', '/api/pack/print', { personId: 'ann', code: 'R-1', copies: 3 });
  expect((await print()).body).toMatchObject({ what: 'R-1', copies: 3, state: 'printed' });
  await server.call('POST', '/api/devices/printer/mood', { empty: true, unplugged: false });
  expect((await print()).body).toMatchObject({ state: 'waiting' });
  await server.call('POST', '/api/devices/printer/mood', { empty: false, unplugged: true });
  expect(asProblem(await print())).toMatchObject({ code: 'pack/printer' });
  await server.call('POST', '/api/devices/printer/mood', { empty: false, unplugged: false });
  const { jobs } = (await server.call('GET', '/api/devices/printer')).body as { jobs: { state: string }[] };
  expect(jobs.map(({ state }) => state)).toEqual(['printed', 'printed']);
  const tag = await server.call('POST', '/api/pack/print', { personId: 'ann', code: 'R-1', what: 'tag' });
  expect(tag.body).toMatchObject({ what: 'R-1', copies: 1 });
});
