import { asProblem, lotCommand, madeBy, sortCommand, testServer, type TestServer } from './harness';

let server: TestServer;
let lot: string;
beforeAll(async () => {
  server = await testServer();
  lot = madeBy(await server.step(lotCommand()));
});
afterAll(() => server.close());

const enter = (command: unknown, head: Record<string, unknown> = {}) =>
  server.call('POST', '/api/ledger/steps', { command, personId: 'ann', ...head });
const sort = (change: Record<string, unknown>) => ({ ...sortCommand(lot, 1000, 950), ...change });

/** Every refusal leaves the book as it was. */
async function refused(answer: ReturnType<typeof enter>, status: number, path?: string): Promise<void> {
  const before = server.workshop.book.steps.size;
  const got = await answer;
  expect(got.status).toBe(status);
  expect(String(got.headers['content-type'])).toContain('application/problem+json');
  const problem = asProblem(got);
  expect(problem.detail.length).toBeGreaterThan(5);
  if (path !== undefined) expect(problem.errors.map((error) => error.path)).toContain(path);
  expect(server.workshop.book.steps.size).toBe(before);
  expect(server.workshop.book.balance(lot).massMg).toBe(10_000_000);
}

test.each<[string, () => unknown, string | undefined]>([
  ['negative', () => sort({ goodG: -5 }), 'command.goodG'],
  ['a word for a number', () => sort({ goodG: 'much' }), 'command.goodG'],
  ['nothing', () => sort({ goodG: undefined }), 'command.goodG'],
  ['null', () => sort({ goodG: null }), 'command.goodG'],
  ['beyond any sack', () => sort({ goodG: 1e9 }), 'command.goodG'],
  ['no source', () => sort({ sources: [] }), 'command.sources'],
  ['unknown reason', () => sort({ rejects: [{ reason: 'ugly', massG: 5 }] }), 'rejects.0.reason'],
  ['more than there is', () => ({ ...sortCommand('x', 1, 1), sources: [] }), 'command.sources'],
  ['an unknown tub', () => sortCommand('nowhere', 10, 9), 'sources.0.holdingId'],
  ['more out than in', () => sortCommand(lot, 1000, 1500), 'goodG'],
  ['an unknown kind', () => ({ kind: 'dance' }), 'command.kind'],
  ['moisture of 70', () => ({ ...lotCommand(), moisturePct: 70 }), 'command.moisturePct'],
  ['half a sack', () => ({ ...lotCommand(), sacks: 1.5 }), 'command.sacks'],
  ['an unknown route', () => ({ ...lotCommand(), routeId: 'nowhere' }), 'routeId'],
  ['an unknown batch', () => ({ kind: 'taste', batchId: 'none', score: 5, note: '' }), 'batchId'],
  ['a score of 11', () => ({ kind: 'taste', batchId: 'none', score: 11, note: '' }), 'command.score'],
  [
    'a date that is none',
    () => ({ kind: 'pack', holdingId: lot, pieces: 1, labelCode: 'A1', bestBefore: '2027-02-31', note: '' }),
    'command.bestBefore',
  ],
])('%s is refused, naming the field', async (_, command, path) => {
  await refused(enter(command()), 422, path);
});

test('more than there is', () => refused(enter(sortCommand(lot, 10_001, 9_000)), 422));
test('a date before the beans came', () =>
  refused(enter(sortCommand(lot, 100, 95), { at: '2020-01-01T06:00:00Z' }), 422));
test('a time still to come', () =>
  refused(enter(sortCommand(lot, 100, 95), { at: '2999-01-01T06:00:00Z' }), 422, 'at'));
test('a time that is none', () => refused(enter(sortCommand(lot, 100, 95), { at: 'yesterday' }), 422, 'at'));
test('nobody at the bench', () => refused(enter(sortCommand(lot, 100, 95), { personId: 'ghost' }), 422, 'personId'));
test('an unknown machine', () => refused(enter(sortCommand(lot, 100, 95), { machineId: 'ghost' }), 422, 'machineId'));
test('broken JSON', () => refused(server.call('POST', '/api/ledger/steps', '{"command": {'), 400));
test('NaN in JSON', () => refused(server.call('POST', '/api/ledger/steps', '{"command": NaN}'), 400));
test('no body', () => refused(server.call('POST', '/api/ledger/steps', ''), 400));
test('a list for an object', () => refused(server.call('POST', '/api/ledger/steps', [1, 2]), 422));
test('ten megabytes', () =>
  refused(server.call('POST', '/api/ledger/steps', JSON.stringify({ note: 'x'.repeat(10_000_000) })), 413));
test('another media type', () =>
  refused(
    server.call('POST', '/api/ledger/steps', 'a=1', { 'content-type': 'application/x-www-form-urlencoded' }),
    415,
  ));
test('a page from elsewhere', () =>
  refused(
    server.call(
      'POST',
      '/api/ledger/steps',
      { command: lotCommand(), personId: 'ann' },
      { origin: 'http://evil.example', host: 'localhost' },
    ),
    403,
  ));
test('an unknown address', async () => expect((await server.call('GET', '/api/nothing')).status).toBe(404));
test('a prototype in the body does no harm', async () => {
  const got = await server.call('POST', '/api/ledger/steps', '{"__proto__": {"x": 1}, "command": {}}');
  expect(got.status).toBeGreaterThanOrEqual(400);
  expect(({} as Record<string, unknown>)['x']).toBeUndefined();
});

test.each([
  ['POST', '/api/workshop/people', { name: '' }, 'name'],
  ['POST', '/api/workshop/machines', { name: 'M', station: 'moon' }, 'station'],
  ['POST', '/api/workshop/materials', { name: 'S', kind: 'gold' }, 'kind'],
  ['POST', '/api/workshop/routes', { name: 'R', stations: ['roast', 'beans'] }, 'stations'],
  ['POST', '/api/ledger/works', { station: 'roast', sources: [], personId: 'ann' }, 'sources'],
  ['PUT', '/api/workshop/settings', { name: 'W', currency: 'euro' }, 'currency'],
  ['POST', '/api/devices/scale/place', { massG: -1 }, 'massG'],
  ['POST', '/api/calc/mould/bars', { chocolateG: 0, barG: 70, cavities: 1 }, 'chocolateG'],
] as const)('%s %s refuses what it cannot take', async (method, url, body, path) => {
  const got = await server.call(method, url, body);
  expect(got.status).toBe(422);
  expect(asProblem(got).errors.map((error) => error.path)).toContain(path);
});
