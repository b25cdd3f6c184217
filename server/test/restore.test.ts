import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { exportStream, exportWorkshop } from '../src/journal/export';
import { asProblem, lotCommand, sortCommand, testServer, type TestServer } from './harness';
import { bought, moulded, nibLot, poured } from './shop';

type Row = Record<string, unknown>;
type Document = Record<string, Row[]>;

let server: TestServer;
let empty: TestServer;
beforeAll(async () => {
  server = await testServer();
  empty = await testServer();
});
afterAll(async () => {
  await server.close();
  await empty.close();
});
beforeEach(async () => {
  await server.reset();
  await empty.workshop.empty();
});

const PICTURE = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);

async function shop(): Promise<void> {
  const lot = await nibLot(server, 'Alpha');
  await bought(server, 'wrapper', { pieces: 200 });
  await moulded(server, await poured(server, lot, 'Ridge'));
  const held = await server.step(lotCommand());
  const code = held.lines[0]?.code ?? '';
  const kept = await server.call('POST', `/api/beans/lots/${code}/files`, {
    personId: 'ann',
    name: 'Bag “one”.png',
    caption: '"data":""',
    data: PICTURE.toString('base64'),
  });
  expect(kept.status).toBe(201);
}

const restore = (body: string | Buffer, type = 'application/json') =>
  empty.app.inject({ method: 'POST', url: '/api/workshop/restore', payload: body, headers: { 'content-type': type } });

test('the JSON document, packed or not, and the ZIP restore to the same workshop, pictures and all', async () => {
  await shop();
  const json = await exportWorkshop(server.workshop);
  const zip = (await server.app.inject('/api/workshop/export.zip')).rawPayload;
  const again = (await server.app.inject('/api/workshop/export.zip')).rawPayload;
  expect(zip.equals(again)).toBe(true);
  for (const [body, type] of [
    [json, 'application/json'],
    [zip, 'application/zip'],
  ] as const) {
    await empty.workshop.empty();
    expect((await restore(body, type)).statusCode).toBe(201);
    expect(await exportWorkshop(empty.workshop)).toBe(json);
    expect((await empty.app.inject('/api/workshop/export.zip')).rawPayload.equals(zip)).toBe(true);
    const [file] = [...empty.workshop.beans.files.values()];
    const got = await empty.app.inject(`/api/beans/files/${file?.id}`);
    expect(got.rawPayload.equals(PICTURE)).toBe(true);
  }
});

interface Written {
  v?: number;
  value: { kind: string; signs?: object };
}

/** Records say their version since 0.16, and an inspection whether somebody looked. */
const written = (row: Written): Written =>
  row.value.kind === 'inspection'
    ? { ...row, v: 2, value: { ...row.value, signs: { looked: true, ...row.value.signs } } }
    : { ...row, v: 1 };

interface WrittenCurve {
  source: string;
  seconds: number[];
  beanC?: unknown[];
  airC?: unknown[];
}

/** Curves name their channels since 0.17; what was read of a bowl stood in the column of beans. */
function curve({ beanC, airC, ...written }: WrittenCurve): object {
  // One that grew while it was written out had more than it said.
  const row = { ...written, readings: written.seconds.length };
  if (beanC === undefined) return row;
  const isBowl = written.source === 'bowl' || written.source.startsWith('pour ');
  const channels = (isBowl ? ['bowl'] : ['bean', 'air']).map((name) => ({ name, unit: '°C' }));
  return { ...row, v: 2, channels, values: isBowl ? [beanC] : [beanC, airC] };
}

test.each(readdirSync(join(__dirname, 'exports')))('the export %s restores, and means the same', async (name) => {
  const packed = readFileSync(join(__dirname, 'exports', name));
  await empty.workshop.empty();
  expect((await restore(packed, 'application/gzip')).statusCode).toBe(201);
  const before = JSON.parse(gunzipSync(packed).toString()) as Document;
  const after = JSON.parse(await exportWorkshop(empty.workshop)) as Document;
  const plain = (document: Document): Document => ({
    ...document,
    ...Object.fromEntries(
      Object.entries(document).flatMap(([list, rows]) =>
        list.endsWith('Records') ? [[list, (rows as unknown as Written[]).map(written)]] : [],
      ),
    ),
    curves: (document['curves'] as unknown as WrittenCurve[]).map(curve) as never,
    // Pictures go by their content.
    files: document['files']?.map((row) => ({ ...row, sha256: '' })) ?? [],
  });
  const [was, is] = [plain(before), plain(after)];
  expect(Object.keys(is)).toEqual(Object.keys(was));
  // List by list: a difference in one is told without the others.
  for (const list of Object.keys(was)) expect({ [list]: is[list] }).toEqual({ [list]: was[list] });
});

test('an export of every release is kept, but for those before the first and for the newest', () => {
  const log = readFileSync(join(__dirname, '../../CHANGELOG.md'), 'utf8');
  const releases = [...log.matchAll(/^## 0\.(\d+)\.0 /gm)].map(([, minor]) => Number(minor));
  const kept = new Set(readdirSync(join(__dirname, 'exports')));
  expect(releases.slice(1).filter((minor) => minor >= 12 && !kept.has(`0.${minor}.json.gz`))).toEqual([]);
});

test('while a workshop is written and read, others get their turn', async () => {
  let turns = 0;
  const beat = setInterval(() => (turns += 1), 0);
  expect((await restore(readFileSync(join(__dirname, 'exports/0.12.json.gz')), 'application/gzip')).statusCode).toBe(
    201,
  );
  const whileRead = turns;
  for await (const piece of exportStream(empty.workshop)) expect(piece).not.toBe('');
  clearInterval(beat);
  // Six hundred steps and a few hundred other rows: some pages, each with a turn after it.
  expect(whileRead).toBeGreaterThan(20);
  expect(turns - whileRead).toBeGreaterThan(20);
});

describe('what is no workshop is refused with the row and the field, and nothing is restored', () => {
  const spoiled: [name: string, spoil: (document: Document) => unknown, says: RegExp][] = [
    ['a number of a step below nothing', (d) => ((d['steps']?.[0] as Row)['seq'] = -5), /steps, row 1: seq/],
    ['one after which none fits', (d) => ((d['steps']?.[0] as Row)['seq'] = 2_147_483_647), /steps, row 1: seq/],
    ['a holding that nobody made', (d) => ((d['holdings']?.[0] as Row)['madeBy'] = 'ghost'), /made by a step that/],
    ['a holding twice', (d) => d['holdings']?.push(d['holdings'][0] as Row), /holdings, row \d+ is there twice/],
    [
      'a correction before what it corrects',
      (d) => ((d['steps']?.[0] as Row)['supersedes'] = d['steps']?.[1]?.['id']),
      /corrects one that does not come before/,
    ],
    ['grams from nowhere', (d) => (((d['steps']?.[0] as Row)['postings'] as Row[]).pop(), undefined), /add up/],
    ['money that is none', (d) => delete (d['steps']?.[0] as Row)['money'], /steps, row 1: money/],
    [
      'work on what is not there',
      (d) =>
        d['works']?.push({
          id: 'w',
          station: 'sort',
          sources: [{ holdingId: 'ghost', massMg: 1, pieces: 0 }],
          machineId: null,
          personId: 'ann',
          startedAt: 0,
          dueAt: null,
          note: '',
        }),
      /works, row 1, names a holding/,
    ],
    ['a picture that is none', (d) => ((d['files']?.[0] as Row)['data'] = 'AAAA'), /File 1 is not what/],
    ['a picture that is missing', (d) => delete (d['files']?.[0] as Row)['data'], /File 1 is not in it/],
    ['a list of another version', (d) => (d['dreams'] = [{ id: 'x' }]), /“dreams”.*newer/],
    ['text that is none', (d) => ((d['people']?.[0] as Row)['name'] = 'A\u0000'), /cannot be kept/],
    ['a currency that is none', (d) => ((d['settings'] as unknown as Row)['currency'] = 7), /settings.*currency/],
    ['another format', (d) => ((d as Record<string, unknown>)['format'] = 'other'), /does not say/],
  ];
  test.each(spoiled)('%s', async (_, spoil, says) => {
    await shop();
    const document = JSON.parse(await exportWorkshop(server.workshop)) as Document;
    spoil(document);
    const answer = await restore(JSON.stringify(document));
    expect(answer.statusCode).toBe(422);
    expect(answer.json<{ detail: string }>().detail).toMatch(says);
    expect(empty.workshop.book.steps.size).toBe(0);
    expect(empty.workshop.people.size).toBe(0);
    expect(await empty.workshop.store.files.sweep(new Set())).toEqual([]);
  });

  test.each([
    ['nothing', ''],
    ['no JSON', 'format: wunsch'],
    ['half of it', '{"format":"wunsch-workshop","version":1,"people":[{"id":"a"'],
    ['lists in lists', `{"format":"wunsch-workshop","steps":[${'['.repeat(20_000)}${']'.repeat(20_000)}]}`],
    ['half of a ZIP', 'PK\u0003\u0004 and no more'],
  ])('%s', async (_, body) => {
    const answer = await restore(body);
    expect([400, 422]).toContain(answer.statusCode);
    expect(empty.workshop.people.size).toBe(0);
  });
});

test('a workshop that has anything takes no restore; what failed half-way leaves it as it was', async () => {
  await shop();
  const json = await exportWorkshop(server.workshop);
  expect(asProblem(await server.call('POST', '/api/workshop/restore', json)).code).toBe('workshop/not-empty');
  expect(await exportWorkshop(server.workshop)).toBe(json);
  await server.step(sortCommand([...server.workshop.lots.keys()].at(-1) ?? '', 100, 95));
});
