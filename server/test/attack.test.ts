import { routesOf, send, Storm, type Attack } from '../../attack/hostile';
import { seeded } from '@wunsch/core/stats/chance';
import { exportWorkshop } from '../src/journal/export';
import { testServer, type TestServer } from './harness';
import { bought, moulded, nibLot, poured } from './shop';

/** Beside other tests on a busy machine: what takes longer hangs. `npm run attack` asks for more. */
const HANGS_MS = 30_000;

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(() => server.close());

/** Some goods, so that what is sent meets something. */
async function shop(): Promise<void> {
  const lot = await nibLot(server, 'Alpha');
  await bought(server, 'wrapper', { pieces: 200 });
  await moulded(server, await poured(server, lot, 'Ridge'));
}

/** Ids and codes that the book has. */
function known(): string[] {
  const { book, batches } = server.workshop;
  return [...book.holdings.values()]
    .flatMap(({ id, code }) => [id, code])
    .concat([...batches.values()].flatMap(({ id, code }) => [id, code]))
    .concat([...book.steps.ids()].slice(-20), ['ann', 'sugar', 'wrapper', 'whole-bean']);
}

test.each([1, 2, 3])(
  'a storm of hostile requests, seed %i: nothing fails, nothing hangs, the book restores to itself',
  async (seed) => {
    await server.reset();
    await shop();
    // What prints is loaded when something is printed first: that is waited for here.
    await server.call('GET', '/api/pack/tags/L001/tag.pdf');
    const { body } = await server.call('GET', '/api/openapi.json');
    const routes = routesOf(body as Parameters<typeof routesOf>[0]);
    expect(routes.length).toBeGreaterThan(200);
    const attacked = async ({ method, url, body: sent }: Attack) => {
      const began = performance.now();
      const { statusCode } = await server.app.inject({
        method,
        url,
        ...(sent === null ? {} : { payload: sent, headers: { 'content-type': 'application/json' } }),
      });
      return { status: statusCode, ms: performance.now() - began };
    };
    const tally = await send(new Storm(routes, seeded(seed), known), 700, attacked, HANGS_MS);
    expect(tally.faults).toEqual([]);
    expect(tally.tried).toBe(700);
    expect(tally.taken).toBeGreaterThan(50);
    // What was taken of it is a book like any other.
    const bytes = await exportWorkshop(server.workshop);
    const other = await testServer();
    try {
      await other.workshop.empty();
      const restored = await other.call('POST', '/api/workshop/restore', bytes);
      expect(restored.body).not.toHaveProperty('errors');
      expect(restored.status).toBe(201);
      expect(await exportWorkshop(other.workshop)).toBe(bytes);
    } finally {
      await other.close();
    }
  },
);
