import type { SameTestView } from '@wunsch/core/api/taste';
import type { SameRound } from '@wunsch/core/taste/serving';
import { asProblem, testServer, type TestServer } from './harness';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(() => server.close());

test('a triangle test: planned with its power, served, read exactly, kept with who read it', async () => {
  const plan = await server.call('POST', '/api/calc/taste/power', { tries: 12 });
  expect(plan.body).toMatchObject({ triesFor: expect.any(Number) as number });
  const sheet = await server.call('POST', '/api/calc/taste/rounds', { tasters: 12, seed: 4 });
  const rows = (sheet.body as { rounds: SameRound[] }).rounds;
  expect(rows).toHaveLength(12);
  const kept = await server.call('POST', '/api/taste/same', {
    personId: 'ann',
    test: { kind: 'same', test: 'triangle', a: 'B010', b: 'B011', tasters: 12, tries: 12, right: 9, note: '' },
  });
  expect(kept.body).toMatchObject({ person: 'Ann', result: { differs: true, fewest: 8 } });
  const { tests } = (await server.call('GET', '/api/taste/same')).body as { tests: SameTestView[] };
  expect(tests[0]?.result.sentence).toMatch(/^They are not the same: 9 of 12 were right/);
});

test('more right answers than answers, and half a taster, are refused at their fields', async () => {
  const wrong = await server.call('POST', '/api/taste/same', {
    personId: 'ann',
    test: { kind: 'same', test: 'triangle', a: 'B010', b: 'B011', tasters: 12, tries: 12, right: 13, note: '' },
  });
  expect(asProblem(wrong).errors[0]).toMatchObject({ path: 'test.right', message: 'are more than answers' });
  const half = await server.call('POST', '/api/calc/taste/same', { right: 2.5, tries: 12 });
  expect(asProblem(half).errors[0]).toMatchObject({ path: 'right', message: 'must be whole' });
  const many = await server.call('POST', '/api/calc/taste/servings', { bars: 13, tasters: 4 });
  expect(many.status).toBeGreaterThanOrEqual(400);
});
