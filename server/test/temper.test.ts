import type { BatchLooks, FaultsView, LearnedView, PouredView, PourView, SilkView } from '@wunsch/core/api/temper';
import type { BenchView, StepView } from '@wunsch/core/api/types';
import { silkNow } from '@wunsch/core/temper/silk';
import { simulatedMeter } from '@wunsch/core/temper/simulated-meter';
import { asProblem, lotCommand, madeBy, testServer, type TestServer } from './harness';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(() => server.close());

test('slab, seed and silk for scripts; what cannot be is refused in words', async () => {
  const slab = await server.call('POST', '/api/calc/temper/slab', { massG: 3000, warmC: 40, coldC: 27, wantedC: 31.5 });
  expect((slab.body as { share: number }).share).toBeCloseTo(4.5 / 13, 9);
  const cold = await server.call('POST', '/api/calc/temper/slab', { massG: 3000, warmC: 30, coldC: 27, wantedC: 40 });
  expect(cold.status).toBe(422);
  expect(asProblem(cold).detail).toContain('warm it more');
  const seed = await server.call('POST', '/api/calc/temper/seed', {
    massG: 2000,
    fromC: 40,
    toC: 33,
    seedC: 20,
    fatShare: 0.35,
    melts: 0.7,
  });
  expect((seed.body as { seedG: number }).seedG).toBeCloseTo(423.11, 2);
  const silk = await server.call('POST', '/api/calc/temper/silk', { massG: 5000, softShare: 0 });
  expect(silk.body).toEqual({ pct: 1, silkG: 50, atC: 33.5 });
  const nonsense = await server.call('POST', '/api/calc/temper/silk', { massG: 5000, softShare: 3 });
  expect(asProblem(nonsense).errors[0]?.path).toBe('softShare');
});

test('a pour is judged from hand readings; a meter from a table', async () => {
  const readings = [47, 30.5, 31.5].map((tempC, i) => ({ second: 900 * i, tempC }));
  const judged = await server.call('POST', '/api/calc/temper/judge', { readings });
  expect(judged.body).toMatchObject({ first: { id: 'not-cooled' }, sure: 'likely' });
  const silk = await server.call('POST', '/api/calc/temper/judge', { readings, seeded: true });
  expect(silk.body).toMatchObject({ first: null });
  const hot = await server.call('POST', '/api/calc/temper/judge', { readings: [{ second: 0, tempC: 300 }] });
  expect(asProblem(hot).errors[0]?.path).toBe('readings.0.tempC');
  expect((await server.call('POST', '/api/calc/temper/meter', { readings: [] })).body).toEqual({ found: null });
});

describe('a pour under way', () => {
  let clock = Date.UTC(2026, 10, 25, 9);
  let live: TestServer;
  beforeAll(async () => {
    live = await testServer(() => clock);
  });
  afterAll(() => live.close());

  async function begun(): Promise<{ workId: string; tub: string }> {
    await live.reset();
    const nibs = madeBy(
      await live.step({
        ...lotCommand(),
        name: 'Alpha',
        form: 'nibs',
        roasted: true,
        routeId: 'from-nibs',
        netG: 3000,
      } as never),
    );
    const batch = { name: 'Ridge 100', routeId: 'from-nibs' };
    const bowl = madeBy(
      await live.step({ kind: 'charge', batch, sources: [{ holdingId: nibs, massG: 3000 }], note: '' } as never),
      'mass',
    );
    clock += 30 * 3_600_000;
    const tub = madeBy(
      await live.step({ kind: 'discharge', batchId: bowl, outsG: [2900], holdUpG: 100, note: '' } as never),
    );
    const work = await live.call('POST', '/api/ledger/works', {
      station: 'temper',
      personId: 'ann',
      sources: [{ holdingId: tub, massG: 2900 }],
      note: '',
    });
    return { workId: (work.body as { id: string }).id, tub };
  }
  const view = async (workId: string): Promise<PourView> =>
    (await live.call('GET', `/api/temper/works/${workId}/pour`)).body as PourView;

  test('is read by hand and kept; nonsense is refused; saved, it is judged from its curve', async () => {
    const { workId, tub } = await begun();
    expect(await view(workId)).toMatchObject({
      probe: null,
      readings: [],
      windows: { work: { from: 31.5, to: 32.5 } },
    });
    const read = (tempC: number) => live.call('POST', `/api/temper/works/${workId}/readings`, { tempC });
    expect(asProblem(await read(300)).errors[0]?.message).toContain('hotter than any bowl');
    for (const tempC of [46, 38, 31, 30.4, 31.4, 31.5]) {
      expect((await read(tempC)).status).toBe(200);
      clock += 5 * 60_000;
    }
    expect((await view(workId)).readings).toHaveLength(6);
    const done = await live.call('POST', `/api/ledger/works/${workId}/finish`, {
      personId: 'ann',
      command: {
        kind: 'temper',
        sources: [{ holdingId: tub, massG: 2900 }],
        method: 'bath',
        meltC: 46,
        coolC: 30.4,
        workC: 31.5,
        test: 'slow',
        note: '',
      },
    });
    expect([done.status, done.status === 201 ? null : done.body]).toEqual([201, null]);
    const stepId = (done.body as { step: { id: string } }).step.id;
    const poured = (await live.call('GET', `/api/temper/steps/${stepId}`)).body as PouredView;
    expect(poured).toMatchObject({ byHand: false, verdict: { first: { id: 'not-cooled' } } });
    expect(poured.readings).toHaveLength(6);
    // What is seen of its bars later points to it.
    const { batchId } = live.workshop.book.holding(tub);
    const code = live.workshop.batches.get(batchId ?? '')?.code ?? '';
    const see = (seen: string[], bloom: string | null = null) =>
      live.call('POST', '/api/ledger/steps', {
        personId: 'ann',
        command: { kind: 'reading', batchId, what: 'seen', seen, bloom, note: '' },
      });
    const looks = async (): Promise<BatchLooks> =>
      (await live.call('GET', `/api/temper/batches/${code}/looks`)).body as BatchLooks;
    expect((await looks()).cause.sentence).toBe('Nobody has said yet how it looks.');
    expect((await see([])).status).toBe(422);
    expect((await see(['veil', 'streaks'], 'fat')).status).toBe(201);
    expect(await looks()).toMatchObject({
      pours: [{ stepId }],
      sights: [{ seen: ['veil', 'streaks'], bloom: 'fat' }],
      cause: { tone: 'watch', pour: poured.code },
    });
    expect((await live.call('GET', `/api/temper/works/${workId}/pour`)).status).toBe(404);
  });

  test('a simulated probe follows it as fast as was asked; taken out, what it said stays', async () => {
    const { workId } = await begun();
    const probe = (body: object) =>
      live.call('POST', `/api/temper/works/${workId}/probe`, { personId: 'ann', ...body });
    expect((await probe({ probe: 'simulated', speed: 60 })).status).toBe(200);
    clock += 40_000;
    const seen = await view(workId);
    expect(seen).toMatchObject({ probe: 'simulated', speed: 60 });
    // Forty minutes of it in forty seconds.
    expect(seen.readings.at(-1)?.second).toBe(2400);
    expect(Math.max(...seen.readings.map(({ tempC }) => tempC))).toBeGreaterThan(45);
    const mood = (stuck: boolean, unplugged: boolean) =>
      live.call('POST', '/api/devices/pour/mood', { stuck, unplugged });
    await mood(true, false);
    clock += 5000;
    const stuck = (await view(workId)).readings.slice(-5).map(({ tempC }) => tempC);
    expect(new Set(stuck).size).toBe(1);
    await mood(false, true);
    clock += 25_000;
    expect(await view(workId)).toMatchObject({ silent: true, readings: { length: seen.readings.length + 5 } });
    await mood(false, false);
    const again = await view(workId);
    expect(again.silent).toBe(false);
    // What it did not hear it does not make up.
    expect(again.readings).toHaveLength(seen.readings.length + 6);
    expect((await probe({ probe: null })).status).toBe(200);
    clock += 40_000;
    expect((await view(workId)).readings).toHaveLength(again.readings.length);
    expect((await probe({ probe: 'simulated', speed: 5000 })).status).toBe(422);
    expect((await live.call('DELETE', `/api/ledger/works/${workId}`)).status).toBe(200);
    expect((await live.call('GET', `/api/temper/works/${workId}/pour`)).status).toBe(404);
  });

  test('is planned by a school for its bowl, led act by act, marked by one press; what was marked goes into the book', async () => {
    const { workId, tub } = await begun();
    const say = (way: string, body: object) =>
      live.call('POST', `/api/temper/works/${workId}/${way}`, { personId: 'ann', ...body });
    expect(asProblem(await say('plan', { school: 'oven' })).errors[0]?.path).toBe('school');
    expect((await say('plan', { school: 'silk' })).status).toBe(201);
    const planned = (await view(workId)).pour;
    expect(planned).toMatchObject({ school: 'silk', marks: [] });
    expect(planned.acts.find(({ grams }) => grams !== null)?.grams).toBe(29);
    // Typed over, it is as it was typed.
    const acts = planned.acts.map((act) => (act.grams === null ? act : { ...act, grams: 45 }));
    expect((await say('plan', { school: 'silk', acts })).status).toBe(201);
    expect((await view(workId)).pour.acts.find(({ grams }) => grams !== null)?.grams).toBe(45);
    expect((await say('acts/zz', { done: true })).status).toBe(404);
    clock += 60_000;
    await say('acts/a1', { done: true });
    clock += 60_000;
    await say('acts/a1', { done: true });
    expect((await view(workId)).pour.acts[0]?.doneS).toBe(60);
    await say('acts/a1', { done: false });
    expect((await view(workId)).pour.acts[0]?.doneS).toBeNull();
    await say('marks', { what: 'still' });
    clock += 6 * 60_000;
    await say('marks', { what: 'stirred' });
    await say('marks', { what: 'thick' });
    expect((await live.call('DELETE', `/api/temper/works/${workId}/marks/last`)).status).toBe(200);
    expect((await view(workId)).pour.marks).toEqual([
      { second: 120, what: 'still' },
      { second: 480, what: 'stirred' },
    ]);
    expect(asProblem(await say('marks', { what: 'sung to' })).status).toBe(422);
    await live.workshop.reload();
    expect((await view(workId)).pour.marks).toHaveLength(2);
    const done = await live.call('POST', `/api/ledger/works/${workId}/finish`, {
      personId: 'ann',
      command: {
        kind: 'temper',
        sources: [{ holdingId: tub, massG: 2900 }],
        method: 'silk',
        meltC: 46,
        coolC: 33,
        workC: 31.5,
        test: 'set',
        meter: { tempC: 26.1, slopeCperMin: -0.1, verdict: 'well' },
        note: '',
      },
    });
    expect((done.body as { step: { command: object } }).step.command).toMatchObject({
      marks: [{ what: 'still' }, { what: 'stirred' }],
      meter: { verdict: 'well' },
    });
  });

  test('a meter is read from the table of a logger, or from the simulated one', async () => {
    const { workId } = await begun();
    const meter = (body: object) => live.call('POST', `/api/temper/works/${workId}/meter`, body);
    expect(asProblem(await meter({})).code).toBe('temper/nothing-read');
    expect((await meter({ text: 'nothing, of the kind' })).status).toBe(422);
    const rows = simulatedMeter(0.025, 5).map(({ second, tempC }) => `${second},${tempC}`);
    const table = (await meter({ text: ['seconds,temperature', ...rows].join('\n') })).body as { found: object };
    expect(table).toMatchObject({ simulated: false, badCount: 0, found: { verdict: 'well' } });
    await live.call('POST', `/api/temper/works/${workId}/probe`, { personId: 'ann', probe: 'simulated', speed: 60 });
    clock += 40_000;
    expect((await meter({})).body).toMatchObject({ simulated: true, found: { verdict: expect.any(String) as string } });
  });

  test('own windows: out of order they are refused, kept they count for pours to come and not for those before', async () => {
    const { workId, tub } = await begun();
    await live.call('DELETE', `/api/ledger/works/${workId}`);
    const { code } = live.workshop.book.holding(tub);
    const path = `/api/temper/windows/${code}`;
    const own = { melt: { from: 44, to: 47 }, cool: { from: 30, to: 31 }, work: { from: 32, to: 33 } };
    const give = (windows: object | null) => live.call('POST', path, { personId: 'ann', windows, why: 'its bean' });
    expect((await live.call('GET', path)).body).toMatchObject({ own: false, chocolate: 'two' });
    const wrong = asProblem(await give({ ...own, work: { from: 25, to: 26 } }));
    expect(wrong.errors[0]?.message).toBe('is not over what it is cooled to');
    const pour = async (): Promise<string> => {
      const step = await live.step({
        kind: 'temper',
        sources: [{ holdingId: tub, massG: 500 }],
        method: 'bath',
        meltC: 46,
        coolC: 30.5,
        workC: 32.2,
        test: 'set',
        note: '',
      } as never);
      return step.id;
    };
    const firstOf = async (id: string): Promise<string | undefined> =>
      ((await live.call('GET', `/api/temper/steps/${id}`)).body as PouredView).verdict.first?.id;
    const before = await pour();
    expect(await firstOf(before)).toBe('not-cooled');
    clock += 60_000;
    expect((await give(own)).status).toBe(201);
    clock += 60_000;
    expect(await firstOf(await pour())).toBeUndefined();
    expect(await firstOf(before)).toBe('not-cooled');
    expect((await live.call('GET', path)).body).toMatchObject({ own: true, windows: own });
    expect((await live.call('GET', path)).body).toMatchObject({ because: 'Its own, set by Ann: its bean.' });
    // Kept through an export, a new start, and taken back.
    const file = (await live.call('GET', '/api/workshop/export.json')).body as object;
    await live.workshop.empty();
    expect((await live.call('POST', '/api/workshop/restore', file)).status).toBe(201);
    expect((await live.call('GET', path)).body).toMatchObject({ own: true });
    expect((await live.call('GET', '/api/workshop/export.json')).body).toEqual(file);
    clock += 60_000;
    expect((await give(null)).status).toBe(201);
    expect((await live.call('GET', path)).body).toMatchObject({ own: false });
    const faults = (await live.call('GET', '/api/temper/faults')).body as FaultsView;
    expect(faults.benches).toEqual([
      { bench: 'the bench, by bath', pours: 2, good: 1, faults: [{ id: 'not-cooled', times: 1 }] },
    ]);
    const learned = (await live.call('GET', `/api/temper/learned/${code}`)).body as LearnedView;
    expect(learned.pours.map(({ coolC, test: how }) => [coolC, how])).toEqual([
      [30.5, 'set'],
      [30.5, 'set'],
    ]);
    expect(learned.settings).toEqual([]);
  });

  test('silk is made of butter: its own code, its cost, its day; anything else is refused', async () => {
    await live.reset();
    live.workshop.putMaterial({
      id: 'butter',
      name: 'Cocoa butter',
      kind: 'ingredient',
      cocoa: 'butter',
      sugar: false,
      allergens: [],
    });
    await live.workshop.commit();
    const buy = async (materialId: string, price: number): Promise<string> =>
      madeBy(
        await live.step({
          kind: 'buy',
          materialId,
          supplier: 'Quay',
          supplierBatch: 'x',
          massG: 1000,
          price,
          note: '',
        } as never),
      );
    const [butter, sugar] = [await buy('butter', 20), await buy('sugar', 2)];
    const silk = { kind: 'silk', heldC: 33.6, hours: 24, bestBefore: '2027-02-01', note: '' };
    const wrong = await live.call('POST', '/api/ledger/steps', {
      personId: 'ann',
      command: { ...silk, sources: [{ holdingId: sugar, massG: 100 }] },
    });
    expect(asProblem(wrong)).toMatchObject({ code: 'temper/no-butter' });
    const work = await live.call('POST', '/api/ledger/works', {
      station: 'temper',
      silk: true,
      personId: 'ann',
      sources: [{ holdingId: butter, massG: 500 }],
      note: '',
    });
    const workId = (work.body as { id: string }).id;
    const path = `/api/temper/works/${workId}`;
    await live.call('POST', `${path}/probe`, { personId: 'ann', probe: 'simulated', speed: 1440 });
    clock += 90_000;
    const run = (await live.call('GET', `${path}/silk`)).body as SilkView;
    expect(silkNow(run.readings)?.phase).toBe('ready');
    // It does not end as a pour.
    const finish = (command: object) =>
      live.call('POST', `/api/ledger/works/${workId}/finish`, { personId: 'ann', command });
    const sources = [{ holdingId: butter, massG: 500 }];
    const asPour = { kind: 'temper', sources, method: 'silk', meltC: 46, coolC: 33, workC: 32, test: 'none', note: '' };
    expect(asProblem(await finish(asPour)).code).toBe('ledger/other-kind');
    const done = await finish({ ...silk, sources, outG: 490 });
    expect(done.status).toBe(201);
    const made = madeBy((done.body as { step: StepView }).step);
    const { book, valuation } = live.workshop;
    expect(book.holding(made)).toMatchObject({
      kind: 'ingredient',
      name: 'Silk of Cocoa butter',
      materialId: 'butter',
      place: 'pantry',
    });
    expect(book.holding(made).code).not.toBe(book.holding(butter).code);
    expect(book.balance(made).massMg).toBe(490_000);
    // Ten euro of butter are in it, whatever stayed in the pot.
    expect(valuation.worth(made).valueMilli).toBe(1_000_000);
    const bench = (await live.call('GET', '/api/temper/bench')).body as BenchView;
    expect(bench.pantry.find(({ id }) => id === made)).toMatchObject({ bestBefore: '2027-02-01' });
    expect(live.workshop.compositions.of(made).cocoaPct).toBe(100);
  });

  test('bars that bloomed are photographed, and melted again in one press with what they cost', async () => {
    const { workId, tub } = await begun();
    await live.call('DELETE', `/api/ledger/works/${workId}`);
    const at = (hours: number) => ({ at: new Date((clock += hours * 3_600_000)).toISOString() });
    const sources = [{ holdingId: tub, massG: 2900 }];
    const poured = madeBy(
      await live.step(
        { kind: 'temper', sources, method: 'bath', meltC: 46, coolC: 30.8, workC: 32, test: 'slow', note: '' } as never,
        at(1),
      ),
    );
    const bars = madeBy(
      await live.step(
        {
          kind: 'mould',
          sources: [{ holdingId: poured, massG: 2900 }],
          barG: 70,
          cavities: 24,
          goodPieces: 40,
          mouldC: 14,
          setC: 16,
          air: { tempC: 24, humidityPct: 70 },
          holdUpG: 100,
          note: '',
        } as never,
        at(1),
      ),
    );
    const { batchId } = live.workshop.book.holding(bars);
    const { code } = live.workshop.batches.get(batchId ?? '') ?? { code: '' };
    const looks = async () => (await live.call('GET', `/api/temper/batches/${code}/looks`)).body as BatchLooks;
    // The moulds and the air of its moulding are held against it as well.
    const [pour] = (await looks()).pours;
    const found = [pour?.verdict.first, ...(pour?.verdict.others ?? [])].map((fault) => fault?.id);
    expect(found).toEqual(['not-cooled', 'cold-mould', 'damp']);
    const png = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==';
    const photo = (subject: string, data: string) =>
      live.call('POST', '/api/pictures', { personId: 'ann', subject, name: 'bar.png', caption: 'veil', data });
    expect((await photo('batch:nobody', png)).status).toBe(404);
    expect(asProblem(await photo(`batch:${batchId ?? ''}`, 'bm90IGEgcGljdHVyZQ==')).status).toBe(422);
    expect((await photo(`batch:${batchId ?? ''}`, png)).status).toBe(201);
    const before = await looks();
    expect(before.photos).toMatchObject([{ caption: 'veil', person: 'Ann' }]);
    expect(before.here).toEqual([]);
    await live.step({ kind: 'reading', batchId, what: 'seen', seen: ['veil'], bloom: 'fat', note: '' } as never);
    expect((await looks()).here).toMatchObject([{ holdingId: bars, pieces: 40 }]);
    const worth = live.workshop.valuation.worth(bars).valueMilli;
    const back = madeBy(
      await live.step(
        { kind: 'remelt', sources: [{ holdingId: bars, pieces: 40 }], why: 'bloom', note: '' } as never,
        at(1),
      ),
    );
    expect(live.workshop.valuation.worth(back).valueMilli).toBe(worth);
    expect((await looks()).here).toEqual([]);
    const file = (await live.call('GET', '/api/workshop/export.json')).body as object;
    await live.workshop.empty();
    expect((await live.call('POST', '/api/workshop/restore', file)).status).toBe(201);
    expect((await looks()).photos).toHaveLength(1);
  });
});
