import type { BatchLooks, PouredView, PourView } from '@wunsch/core/api/temper';
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
    expect(await view(workId)).toMatchObject({ probe: null, readings: [], windows: { work: { from: 31, to: 32 } } });
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
    expect((await probe({ probe: null })).status).toBe(200);
    clock += 40_000;
    expect((await view(workId)).readings).toHaveLength(seen.readings.length);
    expect((await probe({ probe: 'simulated', speed: 5000 })).status).toBe(422);
    expect((await live.call('DELETE', `/api/ledger/works/${workId}`)).status).toBe(200);
    expect((await live.call('GET', `/api/temper/works/${workId}/pour`)).status).toBe(404);
  });
});
