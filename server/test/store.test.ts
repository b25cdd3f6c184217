import { spawnSync } from 'node:child_process';
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statfsSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { curveOf, roastReadings } from '@wunsch/core/roast/curve';
import { curveRow } from '../src/store/curves';
import { buildApp } from '../src/app';
import { isUnfinished, makeDemo, STANDARD_DEMO } from '../src/demo/generator';
import { onward } from '../src/devices/clock';
import { openDatabase, type OpenDatabase } from '../src/store/database';
import { Disk } from '../src/store/disk';
import { checkDirectory } from '../src/store/lock';
import { Workshop } from '../src/journal/workshop';
import { EMPTY, lotCommand, MIGRATIONS, TEMPLATE, testServer, type TestServer } from './harness';

const template = (): Blob => new Blob([readFileSync(TEMPLATE)]);
const folder = (): string => mkdtempSync(join(tmpdir(), 'wunsch-store-'));

const lotEntry = { command: lotCommand(), personId: 'ann' };

/** A workshop with one person in a directory, behind its server. */
async function served(opened: OpenDatabase) {
  const workshop = await Workshop.open(opened);
  if (!workshop.people.has('ann')) {
    workshop.putPerson({ id: 'ann', name: 'Ann', active: true });
    await workshop.commit();
  }
  return { workshop, app: await buildApp({ workshop }) };
}

describe('a curve that grows', () => {
  let server: TestServer;
  beforeAll(async () => {
    server = await testServer();
  });
  afterAll(() => server.close());

  test('is written in parts, read whole, and now and then written together', async () => {
    const { workshop } = server;
    const rows: [number, number, number][] = [];
    const row = () =>
      curveRow({ id: 'c', loadId: null, name: 'x', source: 'sent', startedAt: 1000 }, roastReadings(curveOf(rows)));
    const count = async (table: string): Promise<number> =>
      (await workshop.store.db.execute<{ n: number }>(`select count(*)::int as n from ${table}` as never)).rows[0]?.n ??
      -1;
    for (let i = 0; i < 150; i += 1) {
      rows.push([3 * i, 20 + i / 4, NaN], [3 * i + 1, 20.25 + i / 4, 200]);
      // A reading that came late takes its place among the others.
      if (i === 40) rows.splice(10, 0, [13.5, 21.5, NaN]);
      await workshop.keepCurve(row());
      if (i === 60) expect(await count('curve_parts')).toBe(60);
    }
    expect(await count('curves')).toBe(1);
    expect(await count('curve_parts')).toBeLessThan(60);
    expect(await workshop.readCurve('c')).toEqual(roastReadings(curveOf(rows)));
    const read = await Workshop.open(workshop.store);
    expect(read.roasts.curves.get('c')?.readings).toBe(rows.length);
    workshop.removeCurve('c');
    await workshop.commit();
    expect(await count('curve_parts')).toBe(0);
  });

  test('does not fill the database: an hour of readings leaves less than their twentyfold behind', async () => {
    const { workshop } = server;
    const size = async (): Promise<number> =>
      (
        await workshop.store.db.execute<{ n: number }>(
          `select (pg_total_relation_size('curves') + pg_total_relation_size('curve_parts'))::int as n`,
        )
      ).rows[0]?.n ?? 0;
    const before = await size();
    const rows: [number, number, number][] = [];
    for (let i = 0; i < 3600; i += 1) {
      rows.push([i, 100 + Math.sin(i), 200 + Math.cos(i)]);
      if (i % 3 === 0)
        await workshop.keepCurve(
          curveRow({ id: 'd', loadId: null, name: 'x', source: 'sent', startedAt: 1 }, roastReadings(curveOf(rows))),
        );
    }
    await workshop.upkeep();
    expect((await size()) - before).toBeLessThan(20 * rows.length * 12);
  });
});

test('a database begins whole: what was left of one half copied is thrown away, and one that is there stays', async () => {
  const directory = folder();
  const half = join(directory, 'pg.new');
  mkdirSync(half);
  writeFileSync(join(half, 'PG_VERSION'), '17');
  expect(() => checkDirectory(directory)).not.toThrow();
  const first = await openDatabase(directory, MIGRATIONS, { empty: EMPTY });
  expect(existsSync(half)).toBe(false);
  const { app } = await served(first);
  expect((await app.inject({ method: 'POST', url: '/api/ledger/steps', payload: lotEntry })).statusCode).toBe(201);
  await app.close();
  await first.close();
  const again = await openDatabase(directory, MIGRATIONS, { empty: EMPTY });
  expect((await Workshop.open(again)).book.steps.size).toBe(1);
  await again.close();
  // Only a database is a workshop: half of one beside a lost one is none.
  rmSync(join(directory, 'pg'), { recursive: true });
  mkdirSync(half);
  expect(() => checkDirectory(directory)).toThrow(/holds no workshop/);
  rmSync(directory, { recursive: true });
});

test('a database that ends before what was saved is not gone on with', async () => {
  const directory = folder();
  const first = await openDatabase(directory, MIGRATIONS, { prepared: template() });
  const { app } = await served(first);
  expect((await app.inject({ method: 'POST', url: '/api/ledger/steps', payload: lotEntry })).statusCode).toBe(201);
  await app.close();
  await first.close();
  expect(statSync(join(directory, 'last-step')).mode & 0o777).toBe(0o600);
  const again = await openDatabase(directory, MIGRATIONS);
  expect((await Workshop.open(again)).book.steps.size).toBe(1);
  await again.close();
  writeFileSync(join(directory, 'last-step'), '7');
  const late = await openDatabase(directory, MIGRATIONS);
  await expect(Workshop.open(late)).rejects.toThrow(/ends at step 1, and step 7 had been saved/);
  await late.db.execute(`update holdings set made_by = 'nobody'`);
  rmSync(join(directory, 'last-step'));
  await expect(Workshop.open(late)).rejects.toThrow(/L001 was made by a step that is not there/);
  await late.close();
  rmSync(directory, { recursive: true });
});

test('photos lie beside the database, those of before are moved there, and what is missing is told', async () => {
  const directory = folder();
  const opened = await openDatabase(directory, MIGRATIONS, { prepared: template() });
  const { workshop, app } = await served(opened);
  await app.inject({ method: 'POST', url: '/api/ledger/steps', payload: lotEntry });
  const bytes = Buffer.concat([Buffer.from('%PDF-1.4\n'), Buffer.alloc(2000, 7)]);
  const sent = { personId: 'ann', name: 'a.pdf', caption: '', data: bytes.toString('base64') };
  for (let i = 0; i < 2; i += 1)
    expect((await app.inject({ method: 'POST', url: '/api/beans/lots/L001/files', payload: sent })).statusCode).toBe(
      201,
    );
  const names = readdirSync(join(directory, 'files'));
  expect(names).toHaveLength(1);
  expect(statSync(join(directory, 'files', names[0] ?? '')).mode & 0o777).toBe(0o600);
  // One that is removed is gone at once.
  const another = Buffer.concat([Buffer.from('%PDF-1.4\n'), Buffer.alloc(700, 5)]);
  const added = await app.inject({
    method: 'POST',
    url: '/api/beans/lots/L001/files',
    payload: { ...sent, data: another.toString('base64') },
  });
  expect(readdirSync(join(directory, 'files'))).toHaveLength(2);
  await app.inject({ method: 'DELETE', url: `/api/beans/files/${added.json<{ id: string }>().id}` });
  expect(readdirSync(join(directory, 'files'))).toEqual(names);
  // One of them as an older version kept it.
  const [old] = [...workshop.beans.files.keys()];
  const older = Buffer.concat([Buffer.from('%PDF-1.4\n'), Buffer.alloc(900, 9)]);
  await opened.db.execute(
    `update files set bytes = decode('${older.toString('hex')}', 'hex'), sha256 = '' where id = '${old}'` as never,
  );
  await app.close();
  await opened.close();
  const again = await openDatabase(directory, MIGRATIONS);
  const next = await Workshop.open(again);
  expect(readdirSync(join(directory, 'files'))).toHaveLength(2);
  expect(Buffer.from((await next.fileBytes(old ?? '')) ?? []).equals(older)).toBe(true);
  expect(next.troubles).toEqual([]);
  rmSync(join(directory, 'files', names[0] ?? ''));
  const third = await Workshop.open(again);
  expect(third.troubles[0]).toMatch(/1 photo or paper is missing from the data directory: a.pdf/);
  await again.close();
  rmSync(directory, { recursive: true });
});

test('a demo that was ended while it was made is known to be unfinished', async () => {
  const directory = folder();
  const opened = await openDatabase(directory, MIGRATIONS, { prepared: template() });
  const workshop = await Workshop.open(opened);
  await workshop.empty();
  expect(isUnfinished(directory)).toBe(false);
  const progress = (): void => {
    throw new Error('killed');
  };
  await expect(makeDemo(workshop, { ...STANDARD_DEMO, progress })).rejects.toThrow('killed');
  expect(workshop.book.steps.size).toBeGreaterThan(100);
  expect(isUnfinished(directory)).toBe(true);
  await opened.close();
  rmSync(directory, { recursive: true });
});

test('a clock that is set back goes on, slower, until the machine’s has caught up', () => {
  let real = 1_000_000;
  const now = onward(() => real);
  expect(now()).toBe(1_000_000);
  real -= 3_600_000;
  expect(now()).toBe(1_000_000);
  real += 10_000;
  expect(now()).toBe(1_005_000);
  real += 7_300_000;
  expect(now()).toBe(real);
});

/** A small disk of its own: only root can make one. */
function smallDisk(): string | null {
  const directory = folder();
  const made = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=260m', 'tmpfs', directory]);
  return made.status === 0 ? directory : null;
}

test('a full disk: a clear word, reads go on, writes come back by themselves', async () => {
  const disk = smallDisk();
  const directory = disk ?? folder();
  const opened = await openDatabase(directory, MIGRATIONS, { prepared: template() });
  const { workshop, app } = await served(opened);
  const enter = () => app.inject({ method: 'POST', url: '/api/ledger/steps', payload: lotEntry });
  try {
    expect((await enter()).statusCode).toBe(201);
    workshop.watchDisk();
    // Somebody else fills it, all but a little; where no disk can be made, more is asked for than there is.
    const ballast = join(directory, 'ballast');
    const { bavail, bsize } = statfsSync(directory);
    const store = opened as { disk: Disk };
    const { disk: usual } = store;
    if (disk === null) store.disk = new Disk(directory, 2 * bavail * bsize);
    else writeFileSync(ballast, Buffer.alloc(bavail * bsize - 20 * 1024 * 1024));
    const refused = await enter();
    expect(refused.statusCode).toBe(507);
    expect(refused.json<{ code: string; detail: string }>()).toMatchObject({ code: 'store/disk-full' });
    expect(refused.json<{ detail: string }>().detail).toMatch(/disk is full: \d+ MB are left/);
    workshop.watchDisk();
    expect(workshop.troubles[0]).toMatch(/disk is full/);
    expect((await app.inject('/api/beans/lots/L001')).statusCode).toBe(200);
    expect(workshop.book.steps.size).toBe(1);
    await expect(
      workshop.keepCurve(
        curveRow(
          { id: 'c', loadId: null, name: 'x', source: 'sent', startedAt: 1 },
          roastReadings(curveOf([[1, 2, 3]])),
        ),
      ),
    ).rejects.toThrow(/disk is full/);
    const restored = await app.inject({
      method: 'POST',
      url: '/api/workshop/restore',
      payload: '{}',
      headers: { 'content-type': 'application/json' },
    });
    expect(restored.statusCode).toBe(409);
    if (disk === null) store.disk = usual;
    else rmSync(ballast);
    expect((await enter()).statusCode).toBe(201);
    workshop.watchDisk();
    expect(workshop.troubles.filter((words) => words.includes('is full'))).toEqual([]);
  } finally {
    await app.close();
    await opened.close();
    if (disk !== null) spawnSync('umount', [directory]);
    if (existsSync(directory)) rmSync(directory, { recursive: true, force: true });
  }
});
