import type { GrinderView, GrindHits, GrindRunView, RestBenefit, RestShelf } from '@wunsch/core/api/grind';
import { tonight, type GrindStudy, type GrindTonight } from '@wunsch/core/grind/tonight';
import { thinned } from '@wunsch/core/run/log';
import { AGEING, BowlProbes } from '../src/devices/bowl-probe';
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
    { machineId: 'stone' },
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
  const { id } = await bowl();
  const before = await server.call('POST', '/api/ledger/steps', {
    personId: 'ann',
    at: new Date(clock - 20 * HOUR).toISOString(),
    command: { kind: 'reading', batchId: id, what: 'micron', value: 40, note: '' },
  });
  expect(asProblem(before).code).toBe('grind/before-start');
  expect(asProblem(await reading(id, 'micron', 0)).errors[0]?.message).toContain('at least 1 µm');
  expect(asProblem(await reading(id, 'bowl-temperature', 180)).code).toBe('grind/not-a-bowl');
  expect(asProblem(await reading(id, 'felt', 9)).errors[0]?.message).toContain('five words');
});

test('coarser than before is asked about, kept with its word, and explained', async () => {
  const { id, code } = await bowl();
  clock += 4 * HOUR;
  for (const micron of [70, 52, 40]) {
    await reading(id, 'micron', micron);
    clock += 5 * HOUR;
  }
  // Within what a gauge is off by.
  expect((await reading(id, 'micron', 41)).status).toBe(201);
  clock += HOUR;
  const asked = await reading(id, 'micron', 55);
  expect(asked.status).toBe(409);
  expect(asProblem(asked).detail).toContain('coarser than the 41 µm read before, and nothing went in since');
  const kept = await server.call('POST', '/api/ledger/steps', {
    personId: 'ann',
    command: { kind: 'reading', batchId: id, what: 'micron', value: 55, note: '' },
    overrides: [{ gate: 'grind/coarser', word: 'A scratch on the gauge' }],
  });
  expect(kept.status).toBe(201);
  const study = await studyOf(code);
  expect(study.readings).toHaveLength(5);
  expect(tonight(study).because.join(' ')).toContain('The 55 µm at 28 h stand off from the other readings');
  // What goes in starts coarse: then nobody asks.
  const more = madeBy(
    await server.step({
      kind: 'buy',
      materialId: 'sugar',
      supplier: 'Mill',
      supplierBatch: '',
      massG: 500,
      price: 1,
      note: '',
    } as never),
  );
  await server.step({ kind: 'charge', batchId: id, sources: [{ holdingId: more, massG: 500 }], note: '' } as never);
  clock += HOUR;
  expect((await reading(id, 'micron', 90)).status).toBe(201);
});

test('acts wait for hours, readings and each other; of the night they are offered earlier or later; stones up is said once', async () => {
  const { id, code } = await bowl();
  const plan = (body: object) => server.call('POST', `/api/grind/batches/${id}/acts`, { personId: 'ann', ...body });
  const run = async (): Promise<GrindRunView> =>
    (await server.call('GET', `/api/grind/batches/${code}/run`)).body as GrindRunView;
  expect(asProblem(await plan({ what: 'Nothing said of when' })).errors[0]?.path).toBe('at');
  expect(asProblem(await plan({ what: 'Too much', waits: { by: 'running', hours: 2000 } })).status).toBe(422);
  expect((await server.call('POST', `/api/grind/batches/${code}/usual`, { personId: 'ann' })).body).toEqual({
    planned: 3,
  });
  expect((await server.call('POST', `/api/grind/batches/${code}/usual`, { personId: 'ann' })).body).toEqual({
    planned: 0,
  });
  const up = (await run()).acts.find(({ kind }) => kind === 'stones-up');
  await plan({ what: 'Look again', waits: { by: 'act', actId: up?.id, minutes: 30 } });
  expect((await run()).acts.map(({ dueAt }) => dueAt === null)).toEqual([false, true, true, true]);
  clock += 10 * HOUR;
  await reading(id, 'micron', 26);
  const lecithin = (await run()).acts.find(({ kind }) => kind === 'lecithin');
  // Read at midnight, due while nobody is here.
  expect(lecithin?.dueAt).toBe(clock);
  const later = await plan({ what: 'Lid off', at: new Date(clock + 3 * HOUR).toISOString() });
  expect(later.status).toBe(201);
  const night = (await run()).acts.find(({ what }) => what === 'Lid off')?.night;
  expect(night).toEqual({ before: null, after: Date.UTC(2026, 8, 2, 7) });
  const done = (personId: string) =>
    server.call('POST', `/api/grind/batches/${id}/acts/${up?.id ?? ''}`, { personId, done: true });
  await done('ann');
  clock += HOUR;
  await done('ann');
  expect((await run()).state).toBe('lifted');
  const raised = server.workshop.book.timeline.filter(
    ({ command }) => (command as { what?: string }).what === 'stones-up',
  );
  expect(raised).toHaveLength(1);
  expect((await run()).acts.find(({ what }) => what === 'Look again')?.dueAt).toBe(clock - HOUR / 2);
  clock += 4 * HOUR;
  expect(await studyOf(code)).toMatchObject({ nowH: 18, state: 'lifted', conche: { nowH: 23 } });
});

test('sugar that is planned is in the forecast, and out of the plan once it is charged', async () => {
  const { id, code } = await bowl();
  const more = madeBy(
    await server.step({
      kind: 'buy',
      materialId: 'sugar',
      supplier: 'Mill',
      supplierBatch: '',
      massG: 500,
      price: 1,
      note: '',
    } as never),
  );
  const before = tonight(await studyOf(code)).p50.hours;
  await server.call('POST', `/api/grind/batches/${id}/acts`, {
    personId: 'ann',
    what: 'The rest of the sugar',
    kind: 'sugar',
    at: new Date(clock + 12 * HOUR).toISOString(),
  });
  const planned = await studyOf(code);
  expect(planned.planned).toMatchObject([{ solid: 'sugar' }]);
  expect(tonight(planned).p50.hours).toBeGreaterThan(before + 6);
  clock += 10 * HOUR;
  await server.step({ kind: 'charge', batchId: id, sources: [{ holdingId: more, massG: 500 }], note: '' } as never);
  const charged = await studyOf(code);
  expect(charged.planned).toEqual([]);
  expect(charged.populations.at(-1)).toEqual({ solid: 'sugar', atH: 18 });
});

test('a probe in the bowl is logged, thinned by age, kept over a restart, and refused what it cannot read', async () => {
  const { id, code } = await bowl();
  const post = (body: object) => server.call('POST', `/api/grind/batches/${code}/temperature`, body);
  const run = async (): Promise<GrindRunView> =>
    (await server.call('GET', `/api/grind/batches/${code}/run`)).body as GrindRunView;
  expect(asProblem(await post({ tempC: 44 })).code).toBe('grind/no-probe');
  await server.call('POST', `/api/grind/batches/${code}/probe`, { personId: 'ann', probe: 'sent' });
  expect(asProblem(await post({ tempC: 180 })).errors[0]?.message).toContain('hotter than any bowl');
  expect(asProblem(await post({ tempC: 44, at: new Date(clock - 20 * HOUR).toISOString() })).code).toBe(
    'grind/before-start',
  );
  expect(asProblem(await post({ tempC: 44, at: new Date(clock + HOUR).toISOString() })).code).toBe('ledger/future');
  for (const tempC of [44, 45, 46]) {
    expect((await post({ tempC })).status).toBe(200);
    clock += 5 * 60_000;
  }
  expect((await run()).probe).toMatchObject({ kind: 'sent', silentMin: null });
  expect((await run()).probe?.rows.map(({ tempC }) => tempC)).toEqual([44, 45, 46]);
  expect((await studyOf(code)).conche.heat).toHaveLength(3);
  clock += HOUR;
  expect((await run()).probe?.silentMin).toBe(65);
  // Another server over the same workshop reads what was kept.
  const other = new BowlProbes(server.workshop, () => null);
  await other.open(id);
  expect(other.read(id)).toHaveLength(3);
  expect(
    thinned(
      [0, 1, 2, 11, 20].map((minute) => ({ at: minute * 60_000, tempC: 40 })),
      20 * HOUR,
      AGEING,
    ),
  ).toHaveLength(2);
});

test('a machine is known by its own bowls: spills, hours, upkeep, what stays in it', async () => {
  const { id } = await bowl();
  server.workshop.putMachine({ ...server.workshop.machines.get('stone'), dressEveryH: 10 } as never);
  await reading(id, 'spilled');
  clock += 12 * HOUR;
  await server.step({ kind: 'discharge', batchId: id, outsG: [9700], holdUpG: 150, sievedG: 50, note: '' } as never);
  const view = async (): Promise<GrinderView> =>
    (await server.call('GET', '/api/grind/machines/stone')).body as GrinderView;
  const found = await view();
  expect(found.hours).toEqual({ run: 20, sinceDressed: 20, sinceServiced: 20 });
  expect(found.due).toEqual(['Dressing the stones of Ten kilo stone: due, 20 of 10 running hours.']);
  expect(found.fill.sentence).toContain('1 of 1 stalled or spilled');
  expect(found.holdUpsG).toEqual([250]);
  const due = async (): Promise<string[]> =>
    ((await server.call('GET', '/api/ledger/floor')).body as { due: { text: string }[] }).due.map(({ text }) => text);
  expect(await due()).toContain('Dressing the stones of Ten kilo stone');
  // What is no longer used is dressed no more; its bowls stay as they were.
  const facts = { name: 'Ten kilo stone', station: 'grind', dressEveryH: 10 };
  expect((await server.call('PUT', '/api/workshop/machines/stone', { ...facts, retired: true })).status).toBe(200);
  expect(await due()).not.toContain('Dressing the stones of Ten kilo stone');
  expect((await view()).hours.run).toBe(20);
  expect((await server.call('PUT', '/api/workshop/machines/stone', { ...facts, retired: false })).status).toBe(200);
  expect(await due()).toContain('Dressing the stones of Ten kilo stone');
  const dressed = await server.call('POST', '/api/workshop/machines/stone/services', {
    personId: 'ann',
    what: 'dressed',
  });
  expect(dressed.status).toBe(201);
  expect((await view()).due).toEqual([]);
  expect(
    (await server.call('POST', '/api/workshop/machines/stone/services', { personId: 'ann', what: 'polished' })).status,
  ).toBe(422);
});

test('a machine counts the hours that it had a mass in it, bowl by bowl; what is corrected moves them', async () => {
  server.workshop.putMachine({ ...server.workshop.machines.get('stone'), id: 'other', name: 'Other stone' } as never);
  const hours = async (machine: string) =>
    ((await server.call('GET', `/api/grind/machines/${machine}`)).body as GrinderView).hours;
  const emptied = (batchId: string) =>
    server.step({ kind: 'discharge', batchId, outsG: [9800], holdUpG: 200, note: '' } as never);
  const first = await bowl('First');
  clock = Date.UTC(2026, 8, 1, 6) + 20 * HOUR;
  const end = await emptied(first.id);
  const one = (await hours('stone')).run;
  expect(await hours('other')).toEqual({ run: 0, sinceDressed: 0, sinceServiced: 0 });
  await server.call('POST', '/api/workshop/machines/stone/services', { personId: 'ann', what: 'dressed' });
  // The second is moved on after four hours, while it runs.
  clock += 4 * HOUR;
  const began = clock;
  const second = await bowl('Second');
  clock = began + 10 * HOUR;
  const moved = await server.call('POST', '/api/ledger/steps', {
    personId: 'ann',
    machineId: 'other',
    command: { kind: 'reading', batchId: second.id, what: 'move', value: null, note: '' },
  });
  expect(moved.status).toBe(201);
  clock = began + 13 * HOUR;
  expect(await hours('other')).toEqual({ run: 3, sinceDressed: 3, sinceServiced: 3 });
  expect(await hours('stone')).toEqual({ run: one + 10, sinceDressed: 10, sinceServiced: one + 10 });
  // What has ended counts on as it was; what runs goes on.
  await emptied(second.id);
  clock += 50 * HOUR;
  expect((await hours('other')).run).toBe(3);
  const corrected = await server.call('POST', `/api/ledger/steps/${end.id}/correct`, {
    personId: 'ann',
    reason: 'it was emptied earlier',
    at: new Date(end.at - 5 * HOUR).toISOString(),
    command: { kind: 'discharge', batchId: first.id, outsG: [9800], holdUpG: 200, note: '' },
  });
  expect([corrected.status, (corrected.body as { detail?: string }).detail]).toEqual([201, undefined]);
  expect((await hours('stone')).run).toBe(one + 5);
});

test('what finished grinds teach is of the newest of that machine, oldest of them first, and none of another', async () => {
  const codes: string[] = [];
  for (let i = 0; i < 3; i += 1) {
    const { id, code } = await bowl(`Grind ${i}`);
    codes.push(code);
    for (const micron of [45, 30, 19]) {
      clock += 8 * HOUR;
      await reading(id, 'micron', micron);
    }
    clock += HOUR;
    await server.step({ kind: 'discharge', batchId: id, outsG: [9800], holdUpG: 200, micron: 19, note: '' } as never);
    clock += HOUR;
  }
  const hits = async (machine: string) =>
    ((await server.call('GET', `/api/grind/machines/${machine}/hits`)).body as GrindHits).grinds;
  expect((await hits('stone')).map(({ code }) => code)).toEqual(codes);
  server.workshop.putMachine({ ...server.workshop.machines.get('stone'), id: 'other', name: 'Other stone' } as never);
  expect(await hits('other')).toEqual([]);
  // One that is still on the stones teaches nothing yet.
  const { id } = await bowl('Running');
  clock += 8 * HOUR;
  await reading(id, 'micron', 40);
  expect((await hits('stone')).map(({ code }) => code)).toEqual(codes);
});

test('blocks are tasted on the shelf and meant to come off on a day of their own', async () => {
  const { id, code } = await bowl();
  clock += 30 * HOUR;
  const route = server.workshop.routes.get('from-nibs');
  if (route)
    server.workshop.putRoute({ ...route, stations: ['beans', 'grind', 'rest', 'temper', 'mould', 'pack', 'taste'] });
  await server.step({ kind: 'discharge', batchId: id, outsG: [9800], holdUpG: 200, note: '' } as never);
  clock += 3 * 24 * HOUR;
  const tasted = await server.call('POST', '/api/ledger/steps', {
    personId: 'ann',
    command: {
      kind: 'reading',
      batchId: id,
      what: 'rest-taste',
      value: 6.5,
      air: { tempC: 17, humidityPct: 52 },
      note: '',
    },
  });
  expect(tasted.status).toBe(201);
  expect(asProblem(await reading(id, 'rest-taste', 11)).errors[0]?.message).toBe('is 0 to 10');
  const until = new Date(clock + 21 * 24 * HOUR).toISOString();
  expect((await server.call('POST', `/api/rest/batches/${code}/until`, { personId: 'ann', until })).status).toBe(201);
  const { batches } = (await server.call('GET', '/api/rest/shelf')).body as RestShelf;
  expect(batches).toMatchObject([
    {
      code,
      restUntil: Date.parse(until),
      tastings: [{ score: 6.5, restedDays: 3, air: { tempC: 17, humidityPct: 52 } }],
    },
  ]);
  const floor = (await server.call('GET', '/api/ledger/floor')).body as { due: { station: string; at: number }[] };
  expect(floor.due.find(({ station }) => station === 'rest')?.at).toBe(Date.parse(until));
  // Until then it is too young, whatever is usual here; from then on it is not.
  const block = [...server.workshop.book.live].find((own) => server.workshop.book.holding(own).kind === 'block') ?? '';
  const off = () =>
    server.call('POST', '/api/ledger/steps', {
      personId: 'ann',
      command: { kind: 'rest', sources: [{ holdingId: block, massG: 1000 }], note: '' },
    });
  clock += 18 * 24 * HOUR;
  expect(asProblem(await off()).detail).toMatch(/has rested 21 of 24 days/u);
  clock += 3 * 24 * HOUR;
  expect((await off()).status).toBe(201);
  const { bars } = (await server.call('GET', '/api/rest/benefit')).body as RestBenefit;
  expect(bars[0]?.rows).toMatchObject([{ score: 6.5, of: 'shelf' }]);
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
