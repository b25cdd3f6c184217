import type { BatchView, BenchView, FloorView, LotView } from '@wunsch/core/api/types';
import { Valuation } from '@wunsch/core/ledger/valuation';
import { STATIONS } from '@wunsch/core/workshop/stations';
import { makeDemo } from '../src/demo/generator';
import { exportWorkshop } from '../src/workshop/data';
import { testServer, type TestServer } from './harness';

const NOW = Date.UTC(2026, 4, 20, 10, 30);
let server: TestServer;
beforeAll(async () => {
  server = await testServer(() => NOW);
  await server.workshop.empty();
  await makeDemo(server.workshop);
});
afterAll(() => server.close());

test('fourteen months, sixty batches and more, up to this hour', () => {
  const { book, batches } = server.workshop;
  expect(batches.size).toBeGreaterThanOrEqual(60);
  const first = book.timeline[0]?.at ?? NOW;
  expect((NOW - first) / 86_400_000).toBeGreaterThan(400);
  expect(NOW - (book.timeline.at(-1)?.at ?? 0)).toBeLessThan(86_400_000);
});

test('something stands at every station but the table, and machines run', async () => {
  const floor = (await server.call('GET', '/api/ledger/floor')).body as FloorView;
  for (const station of STATIONS.filter((name) => name !== 'taste')) {
    expect(floor.stations.find((row) => row.station === station)?.standingMg).toBeGreaterThan(0);
  }
  expect(floor.works.map(({ station }) => station).sort()).toEqual(['mould', 'roast', 'sort', 'temper', 'winnow']);
  expect(floor.grinds.length).toBeGreaterThanOrEqual(2);
  expect(floor.due.length).toBeGreaterThan(5);
  const taste = (await server.call('GET', '/api/taste/bench')).body as BenchView;
  expect(taste.untasted.length).toBeGreaterThan(0);
});

test('its mistakes are there to be found', () => {
  const notes = server.workshop.book.timeline
    .map(({ command }) => String((command as { note?: string }).note ?? ''))
    .join('\n');
  for (const word of [
    'ON HOLD',
    'flat beans',
    'Written off',
    'Too thick to pour',
    'ran over',
    'Grey streaks',
    'conched too short',
  ])
    expect(notes).toContain(word);
  expect(server.workshop.batches.size).toBeGreaterThan(0);
});

test('its money adds up to the thousandth of a cent', () => {
  const { states, totals } = new Valuation(server.workshop.book);
  let standing = 0;
  for (const { valueMilli } of states.values()) standing += valueMilli;
  expect(standing + totals.soldMilli + totals.lostMilli).toBe(
    totals.boughtMilli + totals.labourMilli + totals.energyMilli,
  );
  expect(totals.revenueMilli).toBeGreaterThan(totals.soldMilli);
});

test('every lot and batch opens', async () => {
  for (const batch of server.workshop.batches.values()) {
    const { status, body } = await server.call('GET', `/api/trace/batches/${batch.code}`);
    expect(status).toBe(200);
    const { cost, beanToBar, yields } = body as BatchView;
    // Nothing comes out of nothing, also where bars went round again.
    if (beanToBar !== null) expect(beanToBar).toBeLessThan(0.85);
    for (const { value } of yields) expect(value).toBeLessThanOrEqual(1.001);
    if (cost.perBarMilli === null) continue;
    // The parts of a bar's cost are found another way than its cost: they have to meet.
    const sum = cost.parts.reduce((total, { milli }) => total + milli, 0);
    expect(Math.abs(sum - cost.perBarMilli) / cost.perBarMilli).toBeLessThan(0.002);
  }
  for (const id of server.workshop.lots.keys()) {
    const lot = (await server.call('GET', `/api/trace/lots/${server.workshop.book.holding(id).code}`)).body as LotView;
    expect(lot.receivedMg).toBeGreaterThan(0);
  }
});

test('the same hour and seed give the same work', async () => {
  const shape = (text: string): unknown =>
    (JSON.parse(text) as { steps: { at: number; kind: string; postings: { massMg: number }[] }[] }).steps.map(
      ({ at, kind, postings }) => [at, kind, postings.map(({ massMg }) => massMg)],
    );
  const before = shape(await exportWorkshop(server.workshop));
  expect((await server.call('POST', '/api/demo/reset', { confirm: 'begin again' })).status).toBe(201);
  expect(shape(await exportWorkshop(server.workshop))).toEqual(before);
});

test('the whole demo goes out and comes back in to the same bytes', async () => {
  const { body } = await server.call('GET', '/api/workshop/export.json');
  const other = await testServer();
  expect((await other.call('POST', '/api/workshop/restore', JSON.stringify(body))).status).toBe(201);
  expect(await exportWorkshop(other.workshop)).toBe(await exportWorkshop(server.workshop));
  await other.close();
});

test('a real workshop is never reset', async () => {
  const other = await testServer();
  expect((await other.call('POST', '/api/demo/reset', { confirm: 'begin again' })).status).toBe(422);
  await other.close();
});
