import { mkdtempSync, writeFileSync } from 'node:fs';
import { connect, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildApp } from '../src/app';
import { away, stopWork, workOn } from '../src/heavy/away';
import { testServer, type TestServer } from './harness';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(() => server.close());

/** Sends the head of a request and a letter of its body now and then. @returns what was answered, and after how long */
async function drip(port: number, path: string, everyMs: number): Promise<{ answer: string; ms: number }> {
  const began = performance.now();
  return new Promise((resolve) => {
    const socket = connect(port, '127.0.0.1');
    let answer = '';
    socket.write(
      `POST ${path} HTTP/1.1\r\nhost: 127.0.0.1\r\ncontent-type: application/json\r\ncontent-length: 100000\r\n\r\n{`,
    );
    const timer = setInterval(() => socket.write(' '), everyMs);
    socket.on('data', (chunk) => (answer += chunk.toString()));
    socket.on('error', () => undefined);
    socket.on('close', () => {
      clearInterval(timer);
      resolve({ answer, ms: performance.now() - began });
    });
  });
}

test('nobody keeps a request open by sending it a letter at a time; an upload goes on as long as it comes', async () => {
  const app = await buildApp({ workshop: server.workshop, patience: { wholeMs: 400, stillMs: 400 } });
  await app.listen({ port: 0, host: '127.0.0.1' });
  const { port } = app.server.address() as AddressInfo;
  const slow = await drip(port, '/api/ledger/steps', 50);
  expect(slow.answer).toMatch(/^HTTP\/1.1 408/);
  expect(slow.answer).toContain('http/too-slow');
  expect(slow.ms).toBeLessThan(20_000);
  await server.workshop.empty();
  const stopped = await drip(port, '/api/workshop/restore', 60_000);
  expect(stopped.answer).toMatch(/^HTTP\/1.1 408/);
  await app.close();
});

test('what takes too long away from everybody is ended with a word, and the next is done', async () => {
  const script = join(mkdtempSync(join(tmpdir(), 'wunsch-thread-')), 'thread.cjs');
  writeFileSync(
    script,
    `const { worker } = require(${JSON.stringify(require.resolve('workerpool'))});
     worker({ perform: (task, args) => {
       if (args[0] === 'forever') for (;;) {}
       if (args[0] === 'refuse') return { refused: { code: 'a/b', message: 'No.', fields: [{ path: 'x', message: 'is y' }], facts: {} } };
       return { value: args[1] };
     } });`,
  );
  workOn(script);
  try {
    await expect(away('calculate', ['forever', {}], 500)).rejects.toMatchObject({ code: 'http/too-long' });
    await expect(away('calculate', ['refuse', {}])).rejects.toMatchObject({ code: 'a/b', fields: [{ path: 'x' }] });
    expect(await away('calculate', ['echo', { a: 1 }])).toEqual({ a: 1 });
  } finally {
    await stopWork();
  }
});
