import { csv } from '../src/http/csv';
import { isLoopback } from '../src/http/hosts';
import { LiveRoasts } from '../src/roast/live';
import { SimulatedRoastProbe } from '../src/devices/roast-probe';
import { exportWorkshop } from '../src/journal/export';
import { Workshop } from '../src/journal/workshop';
import { asProblem, lotCommand, madeBy, sortCommand, testServer, type TestServer } from './harness';
import { FALLING, furnishKitchen, startRoast } from './roast/kitchen';
import { chargeCommand, dischargeCommand, mouldCommand } from '../../core/test/commands';

let now = Date.UTC(2026, 5, 2, 7);
let server: TestServer;
beforeAll(async () => {
  server = await testServer(() => now);
});
beforeEach(() => server.reset());
afterAll(() => server.close());

test('a name that is not ours is turned away, an address and localhost are not', async () => {
  const ask = async (host: string): Promise<number> =>
    (await server.call('GET', '/api/health', undefined, { host })).status;
  expect(await ask('localhost:4610')).toBe(200);
  expect(await ask('192.168.1.20:4610')).toBe(200);
  expect(await ask('[::1]:4610')).toBe(200);
  expect(await ask('evil.example:4610')).toBe(421);
});

test('characters that cannot be kept are refused at their field', async () => {
  for (const bad of ['Ann\u0000', '\ud800x', 'x\udc00']) {
    const got = await server.call('POST', '/api/workshop/people', { name: bad });
    expect(got.status).toBe(422);
    expect(asProblem(got).errors[0]?.path).toBe('name');
  }
  expect((await server.call('POST', '/api/workshop/people', { name: 'Zoë 🐸' })).status).toBe(201);
});

test('a label that looks like a number of the house does not stop its counting', async () => {
  const lot = await server.step({ ...(lotCommand(5_000) as object), form: 'nibs' } as never);
  const bowl = await server.step(chargeCommand([{ holdingId: madeBy(lot), massG: 1_000 }]));
  const poured = await server.step(dischargeCommand(madeBy(bowl), 1_000));
  const bars = await server.step(mouldCommand([{ holdingId: madeBy(poured), massG: 1_000 }], 20));
  await server.step({
    kind: 'pack',
    holdingId: madeBy(bars),
    pieces: 10,
    labelCode: 'T99999999999999999999',
    bestBefore: '2028-01-01',
    packaging: [],
    note: '',
  });
  await server.workshop.reload();
  const next = await server.step(sortCommand(madeBy(lot), 1_000, 990));
  expect(next.lines.find(({ massMg }) => massMg === 990_000)?.code).toMatch(/^T\d{3,4}$/);
});

test('a restore looks at every row, and says which does not fit', async () => {
  const lot = await server.step(lotCommand());
  await server.step(sortCommand(madeBy(lot), 1_000, 990));
  const whole = JSON.parse(await exportWorkshop(server.workshop)) as Record<string, Record<string, unknown>[]>;
  const spoilt: [string, (file: typeof whole) => void, RegExp][] = [
    [
      'a command that does not fit',
      (file) => ((file['steps']?.[1] as { command: object }).command = { kind: 'sort' }),
      /steps\.1/,
    ],
    [
      'a kind that is none',
      (file) => ((file['holdings']?.[0] as Record<string, unknown>)['kind'] = 'gold'),
      /holdings\.0/,
    ],
    [
      'somebody unknown',
      (file) => ((file['steps']?.[0] as Record<string, unknown>)['personId'] = 'nobody'),
      /steps\.0/,
    ],
    ['a route that is gone', (file) => (file['routes'] = []), /holdings\.0/],
    [
      'a wage that is text',
      (file) => ((file['settings'] as unknown as Record<string, unknown>)['wagePerHour'] = 'x'),
      /settings/,
    ],
  ];
  await server.workshop.empty();
  for (const [, spoil, path] of spoilt) {
    const file = structuredClone(whole);
    spoil(file);
    const got = await server.call('POST', '/api/workshop/restore', file);
    expect(got.status).toBe(422);
    expect(asProblem(got).errors[0]?.path).toMatch(path);
    expect(server.workshop.book.steps.size).toBe(0);
  }
  expect((await server.call('POST', '/api/workshop/restore', whole)).status).toBe(201);
});

test('damage is found at a start, not on a page', async () => {
  await server.step(lotCommand());
  const { store } = server.workshop;
  await store.db.execute(`update steps set value = replace(value, '"receive"', '"recieve"')`);
  await expect(Workshop.open(store)).rejects.toThrow(/damaged: steps/);
});

test('readings that cannot be written stay, are told, and are written later', async () => {
  const kitchen = await furnishKitchen(server);
  const errors: unknown[] = [];
  const live = new LiveRoasts(server.workshop, new SimulatedRoastProbe(), (error) => errors.push(error));
  const work = await startRoast(server, kitchen, { plan: FALLING, programId: 'p', version: 2, probe: 'simulated' });
  const keep = server.workshop.keepCurve.bind(server.workshop);
  server.workshop.keepCurve = () => Promise.reject(new Error('disk full'));
  const run = async (seconds: number): Promise<void> => {
    for (let s = 0; s < seconds; s += 1) {
      now += 1000;
      await live.tick();
    }
  };
  await run(8);
  expect(live.trouble(work.id)).toMatch(/cannot be written/);
  expect(errors.length).toBeGreaterThan(0);
  server.workshop.keepCurve = keep;
  await run(5);
  expect(live.trouble(work.id)).toBeNull();
  const kept = await server.workshop.readCurve(server.workshop.works.get(work.id)?.roast?.curveId ?? '');
  expect(kept?.seconds.length).toBeGreaterThan(8);
});

test('what could not be read at the next start is not taken: more stirs than a load keeps, a load of two days', async () => {
  const kitchen = await furnishKitchen(server);
  const work = await startRoast(server, kitchen, { plan: FALLING, programId: 'p', version: 2, probe: 'hand' });
  for (let n = 0; n < 200; n += 1)
    expect((await server.call('POST', `/api/roast/live/${work.id}/stirs`, {})).status).toBe(201);
  const refused = await server.call('POST', `/api/roast/live/${work.id}/stirs`, {});
  expect(refused.status).toBe(422);
  expect(asProblem(refused).code).toBe('workshop/unreadable');
  expect(server.workshop.works.get(work.id)?.roast?.stirs).toHaveLength(200);
  now += 2 * 86_400_000;
  expect((await server.call('POST', `/api/roast/live/${work.id}/stop`, {})).status).toBe(201);
  expect((await Workshop.open(server.workshop.store)).works.get(work.id)?.roast?.seconds).toBe(86_400);
});

test('beans in work cannot be taken back from under it; the work can still end', async () => {
  const receipt = await server.step(lotCommand());
  const lot = madeBy(receipt);
  const start = { station: 'sort', sources: [{ holdingId: lot, massG: 4000 }], personId: 'ann', note: '' };
  const { id } = (await server.call('POST', '/api/ledger/works', start)).body as { id: string };
  const taken = await server.call('POST', `/api/ledger/steps/${receipt.id}/withdraw`, {
    personId: 'ann',
    reason: 'wrong lot',
  });
  expect(asProblem(taken)).toMatchObject({ code: 'ledger/reserved' });
  const { status } = await server.call('POST', `/api/ledger/works/${id}/finish`, {
    command: sortCommand(lot, 4000, 3900),
    personId: 'ann',
  });
  expect(status).toBe(201);
});

test('a key that is too long is said to be; nothing but a table is a table; nothing weighs nothing', async () => {
  const key = { 'idempotency-key': 'k'.repeat(101) };
  const long = await server.call('POST', '/api/workshop/people', { name: 'Cy' }, key);
  expect(asProblem(long).code).toBe('http/long-key');
  const disguised = await server.call('GET', '/api/workshop?x=.csv');
  expect(String(disguised.headers['content-type'])).toContain('application/json');
  const light = await server.call('POST', '/api/ledger/steps', {
    command: { ...lotCommand(), netG: 1e-9 },
    personId: 'ann',
  });
  expect(asProblem(light).errors[0]?.path).toBe('command.netG');
});

test.each(['=1+1', ' =1+1', '"=1+1', '＝1+1', '\t=1', "'=1"])('%s stays text in a table', (value) => {
  expect(csv([[value]]).replace(/^"/, '')).toMatch(/^'/);
});

test('what is not so is refused at its field: a currency that is none, a hold told by nobody, a harvest of the year 1', async () => {
  const refused = async (command: object): Promise<string[]> =>
    asProblem(await server.call('POST', '/api/ledger/steps', { command, personId: 'ann' })).errors.map(
      ({ path }) => path,
    );
  expect(await refused({ ...lotCommand(), currency: 'ZZZ' })).toEqual(['currency']);
  await server.step(lotCommand());
  const record = async (value: object) => {
    const answer = await server.call('POST', '/api/beans/lots/L001/records', { personId: 'ann', record: value });
    return answer.status === 201 ? 'taken' : asProblem(answer).code;
  };
  const hold = { kind: 'hold', method: 'roast', thresholdC: 60, hours: 1, place: 'rack', why: 'moths' };
  expect(await record({ ...hold, toldBy: 'nobody' })).toBe('workshop/unknown-person');
  expect(await record({ kind: 'harvest', openedAt: '0001-01-01T00:00:00Z', note: '' })).toBe('ledger/too-early');
  expect(await record({ ...hold, toldBy: 'bo' })).toBe('taken');
});

test('a tablet some minutes ahead makes tubs that others can use at once', async () => {
  const at = new Date(now + 4 * 60_000).toISOString();
  const lot = madeBy(await server.step(lotCommand(), { at }));
  const step = await server.step(sortCommand(lot, 100, 95), { personId: 'bo' });
  expect(step.at).toBe(now);
});

test('a table is no wider than anybody keeps one, lists lie no deeper, an error is no table', async () => {
  await server.step(lotCommand());
  const wide = { text: `name${','.repeat(150_000)}`, routeId: 'whole-bean', personId: 'ann' };
  const began = performance.now();
  const refused = await server.call('POST', '/api/beans/import/preview', wide);
  expect(asProblem(refused).errors[0]?.message).toMatch(/more than 200 columns/);
  expect(performance.now() - began).toBeLessThan(2000);
  const deep = `{"command":${'['.repeat(20_000)}${']'.repeat(20_000)}}`;
  expect(asProblem(await server.call('POST', '/api/ledger/steps', deep)).code).toBe('http/unstorable');
  const missing = await server.call('GET', '/api/roast/loads/T999/curve.csv');
  expect(missing.status).toBe(404);
  expect(missing.headers['content-type']).toMatch(/problem\+json/);
  expect((await server.call('GET', '/api/health?x=.csv')).headers['content-type']).toMatch(/application\/json/);
});

test('an address of this machine is its own, others are open to the network', () => {
  expect(['127.0.0.1', '127.8.9.1', '::1', 'localhost'].every(isLoopback)).toBe(true);
  expect(['0.0.0.0', '192.168.1.4', '::', 'workshop.local', '127.evil.example'].some(isLoopback)).toBe(false);
});
