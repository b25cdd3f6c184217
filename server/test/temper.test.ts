import { asProblem, testServer, type TestServer } from './harness';

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
