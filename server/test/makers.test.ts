import type { BenchView, FloorView, SearchHit } from '@wunsch/core/api/types';
import type { Command } from '@wunsch/core/commands';
import { asProblem, lotCommand, madeBy, sortCommand, testServer, type TestServer } from './harness';

let server: TestServer;
let clock = Date.UTC(2026, 8, 1, 8);
const HOUR = 3_600_000;

beforeAll(async () => {
  server = await testServer(() => clock);
});
afterAll(() => server.close());
beforeEach(() => server.reset());

const charge = (sources: { holdingId: string; massG: number }[]): Command => ({
  kind: 'charge',
  batch: { name: 'Dark', routeId: 'straight-through', targetMicron: 20, cocoaTargetPct: null },
  sources,
  note: '',
});
async function bowl(massG = 2000): Promise<string> {
  const lot = madeBy(await server.step(lotCommand()));
  return madeBy(await server.step(charge([{ holdingId: lot, massG }])), 'mass');
}
const reading = (batchId: string, what: string, value: number | null, more: object = {}) =>
  server.call('POST', '/api/ledger/steps', {
    command: { kind: 'reading', batchId, what, value, note: '', ...more },
    personId: 'ann',
    ...more,
  });

test('a part of the bowl leaves, the rest runs on under the same code; more than there is cannot stay', async () => {
  const batchId = await bowl();
  await server.step({ kind: 'discharge', batchId, outsG: [780], leftG: 1200, holdUpG: 0, micron: null, note: '' });
  expect(server.workshop.book.balance(batchId).massMg).toBe(1_200_000);
  const { body } = await server.call('GET', '/api/grind/bench');
  expect((body as BenchView).grinds.map((grind) => grind.massMg)).toEqual([1_200_000]);
  const refused = await server.call('POST', '/api/ledger/steps', {
    command: { kind: 'discharge', batchId, outsG: [10], leftG: 1200, holdUpG: 0, micron: null, note: '' },
    personId: 'ann',
  });
  expect(asProblem(refused).errors[0]?.path).toBe('leftG');
});

test('a batch moves on to another machine under its own code; where it is follows from what was logged', async () => {
  server.workshop.putMachine({ id: 'stone', name: 'Stone', station: 'grind', minG: null, maxG: null, kw: 0 });
  server.workshop.putMachine({ id: 'conche', name: 'Conche', station: 'grind', minG: null, maxG: null, kw: 0 });
  const batchId = await bowl();
  expect(asProblem(await reading(batchId, 'move', null)).code).toBe('grind/no-machine');
  clock += HOUR;
  const moved = await server.call('POST', '/api/ledger/steps', {
    command: { kind: 'reading', batchId, what: 'move', value: null, note: '' },
    personId: 'ann',
    machineId: 'conche',
  });
  expect(moved.status).toBe(201);
  const where = async () => ((await server.call('GET', '/api/grind/bench')).body as BenchView).grinds[0]?.machine?.name;
  expect(await where()).toBe('Conche');
  const { step } = moved.body as { step: { id: string } };
  await server.call('POST', `/api/ledger/steps/${step.id}/withdraw`, { personId: 'ann', reason: 'not yet' });
  expect(await where()).toBeUndefined();
});

test('a gauge is read channel by channel: each is kept, their mean is the reading', async () => {
  const batchId = await bowl();
  expect((await reading(batchId, 'micron', 20, { channels: [18, 20, 22] })).status).toBe(201);
  const grind = ((await server.call('GET', '/api/grind/bench')).body as BenchView).grinds[0];
  expect(grind?.readings[0]).toMatchObject({ value: 20, channels: [18, 20, 22] });
  expect((await reading(batchId, 'micron', 20, { channels: [0] })).status).toBe(422);
});

test('acts planned ahead stand on the due line, are moved, done and dropped; a correction keeps them', async () => {
  const batchId = await bowl();
  const at = new Date(clock + HOUR).toISOString();
  const plan = (what: string) =>
    server.call('POST', `/api/grind/batches/${batchId}/acts`, { personId: 'ann', what, at });
  await plan('Sugar in');
  await plan('Lid on');
  const acts = () => server.workshop.batches.get(batchId)?.acts ?? [];
  const due = async () =>
    ((await server.call('GET', '/api/ledger/floor')).body as FloorView).due.filter(({ id }) => id.startsWith('act-'));
  expect((await due()).map(({ text }) => text.split(',')[0])).toEqual(['Sugar in', 'Lid on']);
  const [sugar, lid] = acts();
  const press = (id: string | undefined, body: object) =>
    server.call('POST', `/api/grind/batches/${batchId}/acts/${id}`, { personId: 'ann', ...body });
  await press(sugar?.id, { done: true });
  await press(lid?.id, { at: new Date(clock + 3 * HOUR).toISOString() });
  expect((await due()).map((row) => row.at)).toEqual([clock + 3 * HOUR]);
  const begun = [...server.workshop.book.timeline].find(({ kind }) => kind === 'charge');
  const lotId = begun?.postings.find((p) => p.massMg < 0)?.holdingId ?? '';
  await server.call('POST', `/api/ledger/steps/${begun?.id}/correct`, {
    command: charge([{ holdingId: lotId, massG: 2010 }]),
    personId: 'ann',
    reason: 'scale was off',
  });
  expect(acts()).toHaveLength(2);
  await press(lid?.id, { dropped: true });
  expect(await due()).toEqual([]);
  expect((await press(lid?.id, { done: true })).status).toBe(404);
  expect(
    (await server.call('POST', `/api/grind/batches/${batchId}/acts`, { personId: 'ann', what: '', at })).status,
  ).toBe(422);
});

test('a workshop’s own piles are sorted out by name; a pile that nobody knows is refused', async () => {
  const lot = madeBy(await server.step(lotCommand()));
  const sorted = (reason: string): Command => ({
    ...(sortCommand(lot, 1000, 950) as Extract<Command, { kind: 'sort' }>),
    rejects: [{ reason, massG: 40 }],
  });
  const refused = await server.call('POST', '/api/ledger/steps', { command: sorted('slaty'), personId: 'ann' });
  expect(asProblem(refused).code).toBe('sort/unknown-pile');
  server.workshop.putSettings({ ...server.workshop.settings, rejectReasons: ['slaty'] });
  const step = await server.step(sorted('slaty'));
  expect(step.lines.find((line) => line.reason === 'slaty')?.massMg).toBe(40_000);
});

test('words that goods are marked with, and words of notes, are found', async () => {
  const lot = madeBy(await server.step(lotCommand()));
  await server.call('POST', `/api/beans/lots/${server.workshop.book.holding(lot).code}/records`, {
    personId: 'ann',
    record: { kind: 'decision', action: 'hold', word: 'moth in two sacks' },
  });
  const batchId = await bowl();
  await reading(batchId, 'sourness', 7);
  await server.step({
    ...(sortCommand(madeBy(await server.step(lotCommand())), 100, 95) as Extract<Command, { kind: 'sort' }>),
    note: 'One stone as large as a walnut',
  });
  const find = async (q: string) =>
    ((await server.call('GET', `/api/trace/search?q=${encodeURIComponent(q)}`)).body as SearchHit[]).map(
      ({ kind, detail, name }) => `${kind}: ${detail} ${name}`,
    );
  expect((await find('sour'))[0]).toContain('batch: sour: Sourness 7 of 10');
  expect((await find('moth')).some((row) => row.startsWith('lot:'))).toBe(true);
  expect((await find('walnut'))[0]).toContain('One stone as large as a walnut');
  expect(await find('nobody wrote this')).toEqual([]);
});

test('a lot needs a name and a weight; two people or machines of one name are refused, and a least over the most', async () => {
  const bare = await server.call('POST', '/api/ledger/steps', {
    command: { kind: 'receive', name: 'Some beans', routeId: 'whole-bean', netG: 1000, currency: 'EUR' },
    personId: 'ann',
  });
  expect(bare.status).toBe(201);
  const code = (bare.body as { step: { lines: { code: string | null }[] } }).step.lines.find((line) => line.code)?.code;
  expect((await server.call('GET', `/api/trace/lots/${code}`)).status).toBe(200);
  expect((await server.call('GET', '/api/beans/store')).status).toBe(200);
  expect(asProblem(await server.call('POST', '/api/workshop/people', { name: ' ann ' })).code).toBe(
    'workshop/same-name',
  );
  const machine = { name: 'Mill', station: 'grind', minG: 3000, maxG: 1000 };
  expect(asProblem(await server.call('POST', '/api/workshop/machines', machine)).errors[0]?.path).toBe('minG');
});

test('work that somebody else has ended says how it ended', async () => {
  const lot = madeBy(await server.step(lotCommand()));
  const start = { station: 'sort', sources: [{ holdingId: lot, massG: 1000 }], personId: 'ann', note: '' };
  const { id } = (await server.call('POST', '/api/ledger/works', start)).body as { id: string };
  expect((await server.call('GET', `/api/ledger/works/${id}`)).status).toBe(404);
  await server.call('POST', `/api/ledger/works/${id}/finish`, { command: sortCommand(lot, 1000, 950), personId: 'bo' });
  const closed = (await server.call('GET', `/api/ledger/works/${id}`)).body as { step: { person: string } };
  expect(closed.step.person).toBe('Bo');
});
