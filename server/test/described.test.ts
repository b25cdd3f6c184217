import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { answerAt } from '../src/http/openapi';
import { ANSWERS, notAsDescribed } from './described';
import { asProblem, lotCommand, testServer, type TestServer } from './harness';

/* The document of the interface for programs: what it says is answered, at every address. */

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(() => server.close());

interface Document {
  paths: Record<string, Record<string, { responses: { '2XX': { content?: object } } }>>;
}

test('every answer in JSON is described, but the document itself and events of another standard', async () => {
  const { paths } = (await server.call('GET', '/api/openapi.json')).body as Document;
  const all = Object.entries(paths).flatMap(([path, methods]) =>
    Object.entries(methods).flatMap(([method, { responses }]) =>
      responses['2XX'].content === undefined ? [] : [`${method.toUpperCase()} ${path.replace(/\{(\w+)\}/g, ':$1')}`],
    ),
  );
  expect(all.length).toBeGreaterThan(290);
  const open = all.filter((address) => answerAt(ANSWERS, address) === undefined);
  expect(open.sort()).toEqual(['GET /api/openapi.json', 'GET /api/trace/epcis.json']);
});

test('nothing is described that is not answered', async () => {
  const { paths } = (await server.call('GET', '/api/openapi.json')).body as Document;
  const served = Object.entries(paths).flatMap(([path, methods]) =>
    Object.keys(methods).map((method) => `${method.toUpperCase()} ${path.replace(/\{\w+\}/g, ':')}`),
  );
  const plain = (address: string): string => address.replace(/:\w+/g, ':');
  const gone = Object.keys(ANSWERS).filter((address) => !served.includes(plain(address)));
  // Of several benches at once; copies are kept only beside a directory; a clock is set only where it can be.
  expect(gone.filter((address) => !/:station|backups|devices\/clock/.test(address))).toEqual([]);
});

test('an address with its parts filled in is found, by name before by shape', () => {
  expect(answerAt(ANSWERS, 'GET /api/trials/usual')).toBe(ANSWERS['GET /api/trials/usual']);
  expect(answerAt(ANSWERS, 'GET /api/trials/abc')).toBe(ANSWERS['GET /api/trials/:id']);
  expect(answerAt(ANSWERS, 'POST /api/mould/works/w1/fills/f2/out')).toBe(
    ANSWERS['POST /api/mould/works/:id/fills/:fill/out'],
  );
  expect(answerAt(ANSWERS, 'PUT /api/trials/abc')).toBeUndefined();
});

test('an answer that is otherwise is found: a field that lacks, one of another kind, a word that is none', async () => {
  const { body } = await server.call('POST', '/api/ledger/steps', { command: lotCommand(), personId: 'ann' });
  const entered = body as { step: Record<string, unknown> };
  const said = (step: object) => notAsDescribed('POST', '/api/ledger/steps?x=1', { ...entered, step });
  expect(said(entered.step)).toBeNull();
  const { at: _at, ...lacking } = entered.step;
  expect(said(lacking)).toMatch(/must have required property 'at'/);
  expect(said({ ...entered.step, at: 'noon' })).toMatch(/\/step\/at must be number/);
  expect(said({ ...entered.step, kind: 'bake' })).toMatch(/\/step\/kind must be equal to one of the allowed values/);
  // Of an address that is not in it, nothing is said.
  expect(notAsDescribed('GET', '/elsewhere', 5)).toBeNull();
});

test('a refusal is as it is described too', async () => {
  const refused = await server.call('POST', '/api/ledger/steps', { command: { kind: 'bake' }, personId: 'ann' });
  expect(refused.status).toBe(422);
  const { type, title, status, code, detail, errors } = asProblem(refused);
  expect([typeof type, typeof title, status, typeof code, typeof detail, errors.length > 0]).toEqual([
    'string',
    'string',
    422,
    'string',
    'string',
    true,
  ]);
});

test('the release is the newest of the changelog, in every package', async () => {
  const { info } = (await server.call('GET', '/api/openapi.json')).body as { info: { version: string } };
  const root = join(__dirname, '../..');
  const [, newest] = /^## (\S+)/m.exec(readFileSync(join(root, 'CHANGELOG.md'), 'utf8')) ?? [];
  expect(info.version).toBe(newest);
  for (const room of ['.', 'core', 'server', 'web', 'e2e', 'bench'])
    expect(JSON.parse(readFileSync(join(root, room, 'package.json'), 'utf8'))).toMatchObject({ version: newest });
});
