import type { GrindHits } from '@wunsch/core/api/grind';
import type { GrindStudy, GrindTonight } from '@wunsch/core/grind/tonight';
import { asProblem, lotCommand, madeBy, testServer, type TestServer } from './harness';

let server: TestServer;
let clock = Date.UTC(2026, 8, 1, 6);
const HOUR = 3_600_000;

beforeAll(async () => {
  server = await testServer(() => clock);
});
afterAll(() => server.close());
beforeEach(async () => {
  clock = Date.UTC(2026, 8, 1, 6);
  await server.reset();
  server.workshop.putMachine({
    id: 'stone',
    name: 'Ten kilo stone',
    station: 'grind',
    minG: 4000,
    maxG: 10_000,
    kw: 0.4,
  });
});

const reading = (batchId: string, what: string, value: number | null = null) =>
  server.call('POST', '/api/ledger/steps', {
    personId: 'ann',
    command: { kind: 'reading', batchId, what, value, note: '' },
  });

/** A bowl with nibs at once and sugar after eight hours. */
async function bowl(name = 'Ridge 70'): Promise<{ id: string; code: string }> {
  const nibs = madeBy(
    await server.step({
      ...lotCommand(),
      name: 'Alpha',
      form: 'nibs',
      roasted: true,
      routeId: 'from-nibs',
      netG: 7000,
    } as never),
  );
  const sugar = madeBy(
    await server.step({
      kind: 'buy',
      materialId: 'sugar',
      supplier: 'Mill',
      supplierBatch: '',
      massG: 3000,
      price: 6,
      note: '',
    } as never),
  );
  const batch = { name, routeId: 'from-nibs', targetMicron: 20, cocoaTargetPct: 70 };
  const charged = await server.step(
    { kind: 'charge', batch, sources: [{ holdingId: nibs, massG: 7000 }], note: '' } as never,
    { machineId: 'stone' } as never,
  );
  const id = madeBy(charged, 'mass');
  clock += 8 * HOUR;
  await server.step({ kind: 'charge', batchId: id, sources: [{ holdingId: sugar, massG: 3000 }], note: '' } as never);
  return { id, code: charged.batchCode ?? '' };
}
const studyOf = async (code: string): Promise<GrindStudy> =>
  (await server.call('GET', `/api/grind/batches/${code}/study`)).body as GrindStudy;

test('running hours leave out what the stones stood; what went in when is read from the charges', async () => {
  const { id, code } = await bowl();
  clock += 4 * HOUR;
  expect((await reading(id, 'stones-stop')).status).toBe(201);
  clock += 10 * HOUR;
  expect(await studyOf(code)).toMatchObject({ nowH: 12, running: false });
  await reading(id, 'stones-run');
  clock += 12 * HOUR;
  await reading(id, 'micron', 44);
  const study = await studyOf(code);
  expect(study).toMatchObject({
    nowH: 24,
    running: true,
    machine: 'Ten kilo stone',
    populations: [
      { solid: 'cocoa', atH: 0 },
      { solid: 'sugar', atH: 8 },
    ],
  });
  expect(study.readings).toMatchObject([{ kind: 'gauge', atH: 24, micron: 44 }]);
  expect(study.prior.grinds).toBe(0);
});

test('readings that cannot be are refused and lose nothing', async () => {
  const { id, code } = await bowl();
  const before = await server.call('POST', '/api/ledger/steps', {
    personId: 'ann',
    at: new Date(clock - 20 * HOUR).toISOString(),
    command: { kind: 'reading', batchId: id, what: 'micron', value: 40, note: '' },
  });
  expect(asProblem(before).code).toBe('grind/before-start');
  expect(asProblem(await reading(id, 'micron', 0)).errors[0]?.message).toContain('at least 1 µm');
  expect(asProblem(await reading(id, 'bowl-temperature', 180)).code).toBe('grind/not-a-bowl');
  expect(asProblem(await reading(id, 'felt', 9)).errors[0]?.message).toContain('five words');
  // Coarser than before is kept: the forecast takes it as it is.
  await reading(id, 'micron', 40);
  clock += HOUR;
  expect((await reading(id, 'micron', 48)).status).toBe(201);
  expect((await studyOf(code)).readings).toHaveLength(2);
});

test('finished grinds teach the next one, and hold its forecasts up to what came', async () => {
  for (const [index, sizes] of [
    [60, 38, 26, 19.5],
    [64, 40, 27, 19],
    [58, 37, 25, 20],
  ].entries()) {
    const { id } = await bowl(`Ridge ${index}`);
    for (const micron of sizes) {
      clock += 11 * HOUR;
      await reading(id, 'micron', micron);
    }
    await server.step({ kind: 'discharge', batchId: id, outsG: [9800], holdUpG: 150, note: '' } as never);
    clock += 12 * HOUR;
  }
  const { code } = await bowl();
  const study = await studyOf(code);
  expect(study.prior.grinds).toBe(3);
  const hits = (await server.call('GET', '/api/grind/machines/stone/hits')).body as GrindHits;
  expect(hits.grinds).toHaveLength(3);
  // What was foretold of a grind knew only the grinds before it.
  expect(hits.grinds.map(({ studies }) => studies[0]?.prior.grinds)).toEqual([0, 1, 2]);
  expect(hits.grinds[0]?.studies.map(({ readings }) => readings.length)).toEqual([1, 2, 3]);
  expect(asProblem(await server.call('GET', '/api/grind/machines/none/hits')).status).toBe(404);
});

test('the forecast is there for scripts, seeded and in words; nonsense is named', async () => {
  const body = {
    populations: [
      { solid: 'cocoa', atH: 0 },
      { solid: 'sugar', atH: 8 },
    ],
    readings: [
      { kind: 'gauge', atH: 24, micron: 50 },
      { kind: 'gauge', atH: 40, micron: 29 },
    ],
    targetMicron: 20,
    nowH: 41,
    now: Date.UTC(2026, 8, 3, 18),
  };
  const once = (await server.call('POST', '/api/calc/grind/forecast', body)).body as GrindTonight;
  expect((await server.call('POST', '/api/calc/grind/forecast', body)).body).toEqual(once);
  expect(once.p50.hours).toBeGreaterThan(45);
  expect(once.p50.hours).toBeLessThan(70);
  expect(once.sentence).toMatch(/^(Pull|At target) /);
  const wrong = await server.call('POST', '/api/calc/grind/forecast', {
    ...body,
    readings: [{ kind: 'gauge', atH: -1, micron: 0 }],
  });
  expect(asProblem(wrong).errors.map(({ path }) => path)).toEqual(['readings.0.atH', 'readings.0.micron']);
});

test('a sheet for the night comes as PDF; the simulated gauge reads finer by the hour', async () => {
  const { code } = await bowl();
  clock += 10 * HOUR;
  const gauge = async (): Promise<number> =>
    ((await server.call('GET', `/api/grind/batches/${code}/gauge`)).body as { micron: number }).micron;
  const coarse = await gauge();
  clock += 24 * HOUR;
  expect(await gauge()).toBeLessThan(coarse);
  const sheet = await server.app.inject({ method: 'GET', url: `/api/grind/batches/${code}/night.pdf` });
  expect(sheet.headers['content-type']).toContain('application/pdf');
  expect(sheet.rawPayload.subarray(0, 5).toString()).toBe('%PDF-');
});

test('the feed is planned by the recipe that a bowl was weighed by; an act is done once', async () => {
  const { id, code } = await bowl();
  expect(asProblem(await server.call('POST', `/api/grind/batches/${code}/feed`, { personId: 'ann' })).code).toBe(
    'recipe/none',
  );
  const line = (ingredient: string, grams: number) => ({ ingredient, grams, atMinutes: null, portions: null });
  const recipe = {
    name: 'Ridge 70',
    kind: 'dark',
    labelPct: 70,
    lines: [line('nibs', 7000), line('sugar', 3000)],
    stepG: 5,
  };
  const kept = (await server.call('POST', '/api/recipe/recipes', { personId: 'ann', recipe })).body as { id: string };
  server.workshop.changeBatch(id, (batch) => ({ ...batch, recipe: { id: kept.id, version: 1 } }));
  clock -= 7.5 * HOUR;
  const planned = await server.call('POST', `/api/grind/batches/${code}/feed`, { personId: 'ann' });
  expect(planned.status).toBe(201);
  const twice = await server.call('POST', `/api/grind/batches/${code}/feed`, { personId: 'ann' });
  expect(asProblem(twice).code).toBe('grind/planned-already');
  const acts = server.workshop.batches.get(id)?.acts ?? [];
  expect(acts.map(({ what }) => what)).toEqual(expect.arrayContaining([expect.stringMatching(/^Sugar 3\D?000\sg/u)]));
  const [first] = acts;
  const done = () =>
    server.call('POST', `/api/grind/batches/${id}/acts/${first?.id ?? ''}`, { personId: 'ann', done: true });
  await done();
  const at = server.workshop.batches.get(id)?.acts?.[0]?.doneAt;
  clock += HOUR;
  await done();
  expect(server.workshop.batches.get(id)?.acts?.[0]?.doneAt).toBe(at);
});

test('how long to conche, and whether resting helps, are there for scripts', async () => {
  const conche = await server.call('POST', '/api/calc/grind/conche', {
    tastes: [
      { atH: 0, score: 7 },
      { atH: 12, score: 5 },
      { atH: 24, score: 3.5 },
    ],
    heat: [{ atH: 0, tempC: 60 }],
    wanted: 2.5,
    nowH: 24,
  });
  expect((conche.body as { sentence: string }).sentence).toMatch(/^\d+ to \d+ more hours at 60 °C\.$/);
  const hot = await server.call('POST', '/api/calc/grind/conche', {
    tastes: [],
    heat: [{ atH: 0, tempC: 180 }],
    wanted: 3,
    nowH: 1,
  });
  expect(asProblem(hot).errors[0]?.path).toBe('heat.0.tempC');
  expect((await server.call('GET', '/api/rest/benefit')).body).toEqual({ bars: [] });
});
