/** @jest-environment jsdom */
import { ApiError, ask, getJson, send } from '../src/parts/api';
import { Server } from './page';

/* A write that gets no answer may have been entered: pressed again it carries the same key, and is entered once. */

const PATH = '/api/orders/o1/deliver';
const body = (pieces: number) => ({ personId: 'ilse', picks: [{ holdingId: 'h1', pieces }], note: '' });
const deliver = (pieces: number) => send('POST', PATH, body(pieces));
const refused = async (work: Promise<unknown>): Promise<ApiError> => {
  const reason: unknown = await work.then(
    () => null,
    (error: unknown) => error,
  );
  if (!(reason instanceof ApiError)) throw new Error('it went through');
  return reason;
};

test('every write has a key of its own', async () => {
  const server = new Server();
  await deliver(5);
  await deliver(5);
  const [first, second] = server.sent.map(({ key }) => key);
  expect(first).toMatch(/^[0-9a-f-]{32,36}$/u);
  expect(second).toMatch(/^[0-9a-f-]{32,36}$/u);
  expect(second).not.toBe(first);
});

test('one that got no answer goes with the same key until there is one', async () => {
  const server = new Server();
  server.vanish();
  server.vanish();
  const { problem } = await refused(deliver(7));
  expect(problem).toMatchObject({ code: 'http/offline', status: 0 });
  expect(problem.detail).toContain('What you typed is kept here');
  await refused(deliver(7));
  await deliver(7);
  await deliver(7);
  const [first, second, third, fourth] = server.sent.map(({ key }) => key);
  expect([second, third]).toEqual([first, first]);
  expect(fourth).not.toBe(first);
});

test('so does one that failed at the server, where nobody knows what was entered', async () => {
  const server = new Server();
  server.refuse('It broke.', [], 500);
  await refused(deliver(8));
  await deliver(8);
  expect(server.sent[1]?.key).toBe(server.sent[0]?.key);
});

test('what was refused was not entered: it begins anew', async () => {
  const server = new Server();
  server.refuse('There are not so many.');
  expect((await refused(deliver(9))).message).toBe('There are not so many.');
  await deliver(9);
  expect(server.sent[1]?.key).not.toBe(server.sent[0]?.key);
});

test('a refusal after no answer ends the matter too', async () => {
  const server = new Server();
  server.vanish();
  server.refuse('There are not so many.');
  await refused(deliver(10));
  await refused(deliver(10));
  await deliver(10);
  const [first, second, third] = server.sent.map(({ key }) => key);
  expect(second).toBe(first);
  expect(third).not.toBe(first);
});

test('other figures, another place and another verb are other writes', async () => {
  const server = new Server();
  server.vanish();
  await refused(deliver(11));
  await deliver(12);
  await send('POST', '/api/orders/o2/deliver', body(11));
  await send('PUT', '/api/workshop/machines/m1', body(11));
  const [first, ...others] = server.sent.map(({ key }) => key);
  expect(others).not.toContain(first);
  await deliver(11);
  expect(server.sent.at(-1)?.key).toBe(first);
});

test('a draft’s own key is its own: what has none does not go with it', async () => {
  const server = new Server();
  server.vanish();
  await refused(send('POST', PATH, body(21), 'draft-21'));
  await deliver(21);
  expect(server.sent[1]?.key).not.toBe('draft-21');
});

test('a draft’s own key is taken as it is', async () => {
  const server = new Server();
  await send('POST', PATH, body(1), 'draft-7');
  expect(server.sent[0]).toMatchObject({ method: 'POST', path: PATH, key: 'draft-7', body: body(1) });
});

test('a calculation carries no key, nor does a question', async () => {
  const server = new Server({ '/api/trials': { trials: [] } }, () => ({ massG: 12 }));
  await ask('/api/calc/temper/seed', { massG: 1000 });
  expect(server.sent[0]?.key).toBeUndefined();
  expect(await getJson('/api/trials')).toEqual({ trials: [] });
  expect((await refused(getJson('/api/workshop'))).problem.status).toBe(404);
});
