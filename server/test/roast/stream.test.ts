import type { LiveTick } from '@wunsch/core/api/roast';
import { testServer, type TestServer } from '../harness';
import { FALLING, furnishKitchen, press, startRoast } from './kitchen';

let server: TestServer;
let base = '';
beforeAll(async () => {
  server = await testServer();
  base = await server.app.listen({ port: 0, host: '127.0.0.1' });
});
afterAll(() => server.close());

/** Reads a stream of server-sent events, one after another. */
async function* events<T>(url: string, signal: AbortSignal): AsyncGenerator<T> {
  const answer = await fetch(url, { signal });
  if (!answer.body) throw new Error('no stream');
  let text = '';
  for await (const chunk of answer.body as unknown as AsyncIterable<Uint8Array>) {
    text += new TextDecoder().decode(chunk);
    for (let end = text.indexOf('\n\n'); end >= 0; end = text.indexOf('\n\n')) {
      yield JSON.parse(text.slice('data: '.length, end)) as T;
      text = text.slice(end + 2);
    }
  }
}

test('a screen gets every reading once, in order; taken up again it goes on where it broke; a press is told', async () => {
  const kitchen = await furnishKitchen(server);
  const work = await startRoast(server, kitchen, { plan: FALLING, probe: 'simulated' });
  const url = `${base}/api/roast/live/${work.id}/stream`;

  const first = new AbortController();
  const seconds: number[] = [];
  for await (const tick of events<LiveTick>(url, first.signal)) {
    expect(tick.from).toBe(seconds.length);
    expect(tick.over).toBe(false);
    seconds.push(...tick.curve.seconds);
    if (seconds.length >= 3) break;
  }
  first.abort();
  expect(seconds).toEqual(seconds.map((_, i) => i));

  const second = new AbortController();
  const more: number[] = [];
  let [version, told] = [-1, false];
  for await (const tick of events<LiveTick>(`${url}?from=${seconds.length}`, second.signal)) {
    more.push(...tick.curve.seconds);
    if (version < 0) {
      version = tick.version;
      await press(server, work.id, 'signs', { what: 'bread' });
    } else told ||= tick.version > version;
    if (told && more.length > 0) break;
  }
  second.abort();
  expect(told).toBe(true);
  expect(more[0]).toBe(seconds.length);

  // When it is put back the screens are told that it is over.
  const third = new AbortController();
  let over = false;
  for await (const tick of events<LiveTick>(url, third.signal)) {
    if (tick.over) {
      over = true;
      break;
    }
    if (server.workshop.works.size > 0) await server.call('DELETE', `/api/ledger/works/${work.id}`);
  }
  third.abort();
  expect(over).toBe(true);
}, 30_000);

test('a stream of a roast that is none is refused, not left open', async () => {
  const answer = await fetch(`${base}/api/roast/live/nothing/stream`);
  expect(answer.status).toBe(409);
  expect(answer.headers.get('content-type')).toContain('problem+json');
});
