import { mkdtempSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import fc from 'fast-check';
import { buildApp } from '../src/app';
import { Backups, outdated, type Backup } from '../src/store/backups';
import { exportPieces, exportWorkshop } from '../src/journal/export';
import { lotCommand, testServer, type TestServer } from './harness';

const DAY = 86_400_000;
let server: TestServer;
let clock = Date.UTC(2026, 8, 1, 8);

beforeAll(async () => {
  server = await testServer(() => clock);
});
afterAll(() => server.close());
beforeEach(() => server.reset());

const folder = (): string => join(mkdtempSync(join(tmpdir(), 'wunsch-backups-')), 'copies');
const made = (directory = folder()): Backups =>
  new Backups(
    directory,
    () => clock,
    () => exportPieces(server.workshop),
  );

test('a backup is the export, packed, readable by nobody else; half-written ones are not there', async () => {
  await server.step(lotCommand());
  const directory = folder();
  const backups = made(directory);
  const { name } = await backups.make('asked');
  expect(gunzipSync(readFileSync(join(directory, name))).toString()).toBe(await exportWorkshop(server.workshop));
  expect(statSync(join(directory, name)).mode & 0o777).toBe(0o600);
  writeFileSync(join(directory, 'notes.txt'), 'mine');
  writeFileSync(join(directory, `${name}.part`), 'half');
  expect((await backups.list()).map((row) => row.name)).toEqual([name]);
  expect(await backups.read('../../etc/passwd')).toBeNull();

  const failing = new Backups(
    folder(),
    () => clock,
    async function* () {
      yield '{';
      await Promise.resolve();
      throw new Error('the disk is full');
    },
  );
  await expect(failing.make('daily')).rejects.toThrow('the disk is full');
  expect(await failing.list()).toEqual([]);
  expect(readdirSync(failing.directory)).toEqual([]);
});

test('put in place: the workshop is as it was, and what was there before can be brought back', async () => {
  const backups = made();
  const app = await buildApp({ workshop: server.workshop, backups });
  const call = async (method: 'GET' | 'POST', url: string, body?: object) => {
    const answer = await app.inject({ method, url, ...(body ? { payload: body } : {}) });
    return { status: answer.statusCode, body: answer.json<{ before: string; backups: Backup[]; name: string }>() };
  };
  await server.step(lotCommand());
  const first = await exportWorkshop(server.workshop);
  const { name } = (await call('POST', '/api/workshop/backups', {})).body;
  clock += DAY;
  await server.step(lotCommand());
  const second = await exportWorkshop(server.workshop);
  const path = `/api/workshop/backups/${name}/restore`;
  expect((await call('POST', path, { confirm: 'another name' })).status).toBe(422);
  expect(await exportWorkshop(server.workshop)).toBe(second);
  const { before } = (await call('POST', path, { confirm: ` ${server.workshop.settings.name} ` })).body;
  expect(await exportWorkshop(server.workshop)).toBe(first);
  clock += 1000;
  await call('POST', `/api/workshop/backups/${before}/restore`, { confirm: server.workshop.settings.name });
  expect(await exportWorkshop(server.workshop)).toBe(second);
  expect((await call('GET', '/api/workshop/backups')).body.backups).toHaveLength(3);
  expect(
    (await call('POST', '/api/workshop/backups/none/restore', { confirm: server.workshop.settings.name })).status,
  ).toBe(404);
  await app.close();
});

test('the rule keeps the newest, all of a week, and fewer the older they are', () => {
  const row = (at: number, reason: Backup['reason'] = 'daily'): Backup => ({
    name: `${reason} ${at}`,
    reason,
    at,
    bytes: 1,
  });
  const now = Date.UTC(2030, 0, 1);
  const daily = Array.from({ length: 1000 }, (_, i) => row(now - i * DAY));
  const gone = new Set(outdated(daily, now));
  const kept = daily.filter(({ name }) => !gone.has(name));
  expect(kept.filter(({ at }) => now - at < 7 * DAY)).toHaveLength(7);
  expect(kept.length).toBeGreaterThan(30);
  expect(kept.length).toBeLessThan(45);
  // The last of each month of two years, and nothing older.
  expect(kept.every(({ at }) => now - at < 733 * DAY)).toBe(true);
  expect(outdated([row(now - 3000 * DAY)], now)).toEqual([]);
  expect(outdated([row(now), row(now - 60 * DAY, 'before-restore'), row(now - 59 * DAY)], now)).toEqual([]);
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 0, max: 2000 }), { minLength: 1, maxLength: 60 }), (ages) => {
      const rows = [...new Set(ages)].map((age) => row(now - age * DAY));
      const lost = new Set(outdated(rows, now));
      const left = rows.filter(({ name }) => !lost.has(name));
      // Applied again it takes nothing more, and the newest always stays.
      expect(outdated(left, now)).toEqual([]);
      expect(left.some(({ at }) => at === Math.max(...rows.map((r) => r.at)))).toBe(true);
    }),
  );
});

test('an export in pieces lets others be answered in between', async () => {
  for (let i = 0; i < 40; i += 1) await server.step(lotCommand());
  let turns = 0;
  const tick = setInterval(() => (turns += 1), 0);
  let pieces = 0;
  for await (const piece of exportPieces(server.workshop)) pieces += piece.length > 0 ? 1 : 0;
  clearInterval(tick);
  expect(pieces).toBeGreaterThan(20);
  expect(turns).toBeGreaterThan(0);
});
