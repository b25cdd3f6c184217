import type { Command } from '@wunsch/core/commands';
import { lotCommand, testServer, type TestServer } from './harness';

/* Answers that are kept while nothing changes are never older than what was entered, nor than a minute. */

let at = Date.parse('2026-11-26T09:00:10Z');
let server: TestServer;
beforeAll(async () => {
  server = await testServer(() => at);
});
afterAll(() => server.close());

const lot = (name: string): Command => ({ ...lotCommand(), name }) as Command;
const get = async (url: string): Promise<string> => (await server.app.inject(url)).body;
const lots = async (): Promise<{ code: string; name: string }[]> =>
  (JSON.parse(await get('/api/trace/lots')) as { lots: { code: string; name: string }[] }).lots;

test('a read says what was entered last, however often it was asked before', async () => {
  expect(await lots()).toEqual([]);
  await server.step(lot('First lot'));
  expect(await get('/api/trace/lots')).toBe(await get('/api/trace/lots'));
  expect((await lots()).map(({ name }) => name)).toEqual(['First lot']);
  await server.step(lot('Second lot'));
  expect((await lots()).map(({ name }) => name).sort()).toEqual(['First lot', 'Second lot']);
});

test('each address has its own answer, its query among it', async () => {
  const first = await get('/api/trace/search?q=first');
  const second = await get('/api/trace/search?q=second');
  expect(first).toContain('First lot');
  expect(second).not.toContain('First lot');
  expect(await get('/api/trace/search?q=first')).toBe(first);
});

test('what is not committed is answered as it is and not kept', async () => {
  const before = await get('/api/trace/lots/L001');
  await server.workshop.exclusively(async () => {
    const lotId = [...server.workshop.lots.keys()][0] ?? '';
    server.workshop.addBeanRecord(
      lotId,
      { kind: 'decision', action: 'refuse', proposed: null, allowance: 0, word: 'smells of smoke' },
      { personId: 'ann' },
    );
    expect(server.workshop.isDirty).toBe(true);
    expect(await get('/api/trace/lots/L001')).toContain('smells of smoke');
    server.workshop.discard();
  });
  expect(await get('/api/trace/lots/L001')).toBe(before);
});

test('a refusal is not kept: what comes to be later is found', async () => {
  expect((await server.app.inject('/api/trace/lots/L003')).statusCode).toBe(404);
  await server.step(lot('Third lot'));
  expect((await server.app.inject('/api/trace/lots/L003')).statusCode).toBe(200);
});

test('what the clock changes shows within a minute', async () => {
  const url = '/api/losses/book?months=1';
  const sorted = (await lots()).find(({ name }) => name === 'First lot');
  const holdingId = [...server.workshop.book.holdings.values()].find(({ code }) => code === sorted?.code)?.id ?? '';
  await server.step({
    kind: 'sort',
    sources: [{ holdingId, massG: 1000 }],
    rejects: [],
    goodG: 950,
    note: '',
  });
  const now = await get(url);
  at += 20_000;
  expect(await get(url)).toBe(now);
  at += 40 * 86_400_000;
  expect(await get(url)).not.toBe(now);
});

test('an answer that takes its time is waited for', async () => {
  const { benches } = JSON.parse(await get('/api/temper/faults')) as { benches: unknown[] };
  expect(benches).toEqual([]);
  expect(JSON.parse(await get('/api/temper/faults'))).toHaveProperty('benches');
});
