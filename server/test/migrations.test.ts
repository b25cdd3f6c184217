import { cpSync, existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PGlite } from '@electric-sql/pglite';
import { drizzle } from 'drizzle-orm/pglite';
import { migrate } from 'drizzle-orm/pglite/migrator';
import { BARE, lotCommand, MIGRATIONS } from './harness';
import { buildApp } from '../src/app';
import { openDatabase } from '../src/store/database';
import { packFloats } from '../src/store/floats';
import { Workshop } from '../src/journal/workshop';

interface Journal {
  entries: { idx: number; tag: string }[];
}

/** The migrations as they were when only the first so many existed. */
function upTo(count: number, directory: string): string {
  cpSync(MIGRATIONS, directory, { recursive: true });
  const file = join(directory, 'meta/_journal.json');
  const journal = JSON.parse(readFileSync(file, 'utf8')) as Journal;
  journal.entries = journal.entries.slice(0, count);
  writeFileSync(file, JSON.stringify(journal));
  return directory;
}

/** A database as it was then, in a directory. */
async function databaseOf(count: number, directory: string): Promise<PGlite> {
  const client = await PGlite.create({
    dataDir: join(directory, 'pg'),
    loadDataDir: new Blob([readFileSync(BARE)]),
  });
  await migrate(drizzle(client), { migrationsFolder: upTo(count, join(directory, 'migrations')) });
  return client;
}

test('a workshop of the first version opens, keeps its lots, and can be written to', async () => {
  const directory = mkdtempSync(join(tmpdir(), 'wunsch-migrate-'));
  try {
    const client = await databaseOf(1, directory);
    // As the first version left it: settings and papers without what came later, a session without a pause.
    await client.exec(`
      insert into settings values ('workshop', '{"name":"Old","currency":"EUR","timeZone":"UTC","wagePerHour":12,"energyPerKwh":0.2,"massSystem":"metric","temperatureUnit":"C","restDays":14,"readingHours":24,"demo":false}');
      insert into people values ('ann', 'Ann', true);
      insert into routes values ('whole-bean', '{"id":"whole-bean","name":"Whole bean","note":"","stations":["beans","sort","roast","winnow","grind"]}');
      insert into holdings values ('h1', 'L001', 'lot', 'Old lot', 'beans', 'whole-bean', null, null, 's1');
      insert into lots values ('h1', '{"producer":"Ridge","country":"Uganda","region":"west","variety":"","harvest":"","form":"beans","sacks":1,"moisturePct":7,"note":""}');
      insert into steps values ('s1', 1, 'receive', 'beans', 1760000000000, 'ann', null, null, '${JSON.stringify({
        id: 's1',
        seq: 1,
        order: 1,
        kind: 'receive',
        station: 'beans',
        at: 1760000000000,
        recordedAt: 1760000000000,
        personId: 'ann',
        batchId: null,
        machineId: null,
        supersedes: null,
        reason: null,
        withdrawn: false,
        command: lotCommand(),
        slots: { good: 'h1' },
        minutes: 0,
        energyKwh: 0,
        money: { purchaseMilli: 5_000_000, labourMilli: 0, energyMilli: 0, revenueMilli: 0 },
        postings: [
          ['h1', null, null, null, 10_000_000, 0],
          [null, null, 'supplier', null, -10_000_000, 0],
        ],
      })}');
      insert into works values ('w1', '{"id":"w1","station":"sort","sources":[{"holdingId":"h1","massMg":1000000,"pieces":0}],"machineId":null,"personId":"ann","startedAt":1760000100000,"dueAt":null,"note":""}', null, null);
    `);
    await client.close();

    const opened = await openDatabase(directory, MIGRATIONS);
    const workshop = await Workshop.open(opened);
    expect(workshop.book.balance('h1').massMg).toBe(10_000_000);
    expect(workshop.settings).toMatchObject({ name: 'Old', wagePerHour: 12, lookDays: 14 });
    expect(workshop.standing('h1').standing).toBe('not looked at');
    workshop.pauseWork('w1', true);
    workshop.addBeanRecord('h1', { kind: 'look', moved: [], signs: false, note: '' }, { personId: 'ann' });
    await workshop.commit();
    await workshop.reload();
    expect(workshop.beans.of('h1')).toHaveLength(1);
    expect(workshop.works.get('w1')?.pausedAt).toEqual(expect.any(Number));
    await opened.close();
  } finally {
    rmSync(directory, { recursive: true, force: true });
  }
});

test('a workshop from before roasts were followed opens: its roasts stay, its oven is one set by hand, a roast can be followed', async () => {
  const directory = mkdtempSync(join(tmpdir(), 'wunsch-migrate-'));
  try {
    const client = await databaseOf(2, directory);
    const step = (id: string, seq: number, kind: string, station: string, rest: object): string => {
      const value = {
        id,
        seq,
        order: seq,
        kind,
        station,
        at: 1760000000000 + seq,
        recordedAt: 1760000000000 + seq,
        personId: 'ann',
        batchId: null,
        machineId: kind === 'roast' ? 'oven' : null,
        supersedes: null,
        reason: null,
        withdrawn: false,
        minutes: 0,
        energyKwh: 0,
        money: { purchaseMilli: 0, labourMilli: 0, energyMilli: 0, revenueMilli: 0 },
        ...rest,
      };
      return `insert into steps values ('${id}', ${seq}, '${kind}', '${station}', ${value.at}, 'ann', null, null, '${JSON.stringify(value)}');`;
    };
    await client.exec(`
      insert into settings values ('workshop', '{"name":"Old","currency":"EUR","timeZone":"UTC","wagePerHour":12,"energyPerKwh":0.2,"massSystem":"metric","temperatureUnit":"C","restDays":14,"readingHours":24,"demo":false}');
      insert into people values ('ann', 'Ann', true);
      insert into machines values ('oven', '{"id":"oven","name":"Old oven","station":"roast","minG":null,"maxG":6000,"kw":3}');
      insert into routes values ('whole-bean', '{"id":"whole-bean","name":"Whole bean","note":"","stations":["beans","sort","roast","winnow","grind"]}');
      insert into holdings values ('h1', 'L001', 'lot', 'Old lot', 'beans', 'whole-bean', null, null, 's1');
      insert into holdings values ('h2', 'T001', 'roasted', 'Old lot', 'winnow', 'whole-bean', null, null, 's2');
      insert into lots values ('h1', '{"producer":"Ridge","country":"Uganda","region":"west","variety":"","harvest":"","form":"beans","sacks":1,"moisturePct":7,"note":""}');
      ${step('s1', 1, 'receive', 'beans', {
        command: lotCommand(),
        slots: { good: 'h1' },
        postings: [
          ['h1', null, null, null, 10_000_000, 0],
          [null, null, 'supplier', null, -10_000_000, 0],
        ],
      })}
      ${step('s2', 2, 'roast', 'roast', {
        // As it was written then: no word of how.
        command: {
          kind: 'roast',
          sources: [{ holdingId: 'h1', massG: 4000 }],
          program: [{ setC: 150, minutes: 20, note: '' }],
          endBeanC: 119,
          outG: 3760,
          note: '',
        },
        slots: { good: 'h2' },
        postings: [
          ['h1', null, null, null, -4_000_000, 0],
          ['h2', null, null, null, 3_760_000, 0],
          [null, 'water', null, null, 240_000, 0],
        ],
      })}
    `);
    await client.close();

    const opened = await openDatabase(directory, MIGRATIONS);
    const workshop = await Workshop.open(opened);
    const app = await buildApp({ workshop });
    const get = async (url: string): Promise<unknown> => (await app.inject({ method: 'GET', url })).json();
    expect(await get('/api/roast/roasters')).toMatchObject({
      roasters: [{ name: 'Old oven', facts: { kind: 'oven', setBy: 'hand', kill: null }, loads: 1, curves: 0 }],
    });
    expect(await get('/api/roast/loads/T001')).toMatchObject({ weightLeft: 0.94, minutes: 20, how: null, endC: 119 });
    const begun = await app.inject({
      method: 'POST',
      url: '/api/ledger/works',
      payload: {
        station: 'roast',
        sources: [{ holdingId: 'h1', massG: 2000 }],
        machineId: 'oven',
        personId: 'ann',
        roast: { probe: 'hand' },
      },
    });
    expect(begun.statusCode).toBe(201);
    expect(await get(`/api/roast/live/${begun.json<{ id: string }>().id}`)).toMatchObject({
      roast: { probe: 'hand', seconds: null },
    });
    await app.close();
    await opened.close();
  } finally {
    rmSync(directory, { recursive: true, force: true });
  }
});

test('before migrations change a database it is packed into one file, which opens as it was', async () => {
  const directory = mkdtempSync(join(tmpdir(), 'wunsch-migrate-'));
  try {
    const client = await databaseOf(1, directory);
    await client.exec("insert into people values ('ann', 'Ann', true)");
    await client.close();
    const copies = join(directory, 'copies');
    const opened = await openDatabase(directory, MIGRATIONS, { copies });
    await opened.close();
    const [copy] = readdirSync(copies);
    expect(copy).toMatch(/^wunsch-.*-before-migration\.tar\.gz$/);
    const old = await PGlite.create({ loadDataDir: new Blob([readFileSync(join(copies, copy ?? ''))]) });
    expect((await old.query('select name from people')).rows).toEqual([{ name: 'Ann' }]);
    expect((await old.query("select to_regclass('bean_records')::text as there")).rows).toEqual([{ there: null }]);
    await old.close();
    // Up to date, nothing more is packed; nor for a new one.
    await (await openDatabase(directory, MIGRATIONS, { copies })).close();
    mkdirSync(join(directory, 'new'));
    const bare = new Blob([readFileSync(BARE)]);
    const fresh = await openDatabase(join(directory, 'new'), MIGRATIONS, {
      prepared: bare,
      copies: join(directory, 'none'),
    });
    await fresh.close();
    expect(readdirSync(copies)).toHaveLength(1);
    expect(existsSync(join(directory, 'none'))).toBe(false);
  } finally {
    rmSync(directory, { recursive: true, force: true });
  }
});

test('records of beans and roasts lie in one store with versions, and older ones are read as they are written now', async () => {
  const directory = mkdtempSync(join(tmpdir(), 'wunsch-migrate-'));
  const inspection = (looked: object) =>
    JSON.stringify({
      kind: 'inspection',
      smells: [],
      moisturePct: [7],
      per100g: [],
      signs: {
        webbing: false,
        droppings: false,
        larvae: 0,
        moths: 0,
        wetSacks: 0,
        tornSacks: 0,
        rodents: false,
        ...looked,
      },
      cut: null,
      note: 'dry and clean',
    });
  try {
    const client = await databaseOf(7, directory);
    await client.exec(`
      insert into people values ('ann', 'Ann', true);
      insert into bean_records values ('b1', null, 'trap', 1760000000000, 1760000000000, 'ann', '{"kind":"trap","trap":"door","moths":3,"days":7}');
      insert into bean_records values ('b2', null, 'inspection', 1760000001000, 1760000001000, 'ann', '${inspection({})}');
      insert into bean_records values ('b3', null, 'inspection', 1760000002000, 1760000002000, 'ann', '${inspection({ looked: false })}');
      insert into roast_records values ('r1', 'shelved', 1760000003000, 1760000003000, 'ann', '{"kind":"shelved","programId":"p1","shelved":true}');
    `);
    await client.close();
    const opened = await openDatabase(directory, MIGRATIONS);
    const workshop = await Workshop.open(opened, () => 1_760_100_000_000);
    const beans = [...workshop.beans.everything()];
    expect(beans.map(({ id, lotId, at }) => [id, lotId, at])).toEqual([
      ['b1', null, 1760000000000],
      ['b2', null, 1760000001000],
      ['b3', null, 1760000002000],
    ]);
    expect(beans.flatMap(({ value }) => (value.kind === 'inspection' ? [value.signs.looked] : []))).toEqual([
      true,
      false,
    ]);
    expect([...workshop.roasts.everything()].map(({ id, value }) => [id, value.kind])).toEqual([['r1', 'shelved']]);
    workshop.addBeanRecord(null, { kind: 'trap', trap: 'window', moths: 1, days: 7 }, { personId: 'ann' });
    await workshop.commit();
    const { rows } = await opened.db.execute<{ room: string; kind: string; v: number }>(
      'select room, kind, v from records order by at, id',
    );
    expect(rows).toHaveLength(5);
    expect(rows.filter(({ kind }) => kind === 'trap')).toEqual([
      { room: 'beans', kind: 'trap', v: 1 },
      { room: 'beans', kind: 'trap', v: 1 },
    ]);
    await opened.db.execute("update records set v = 7 where id = 'b1'");
    await expect(Workshop.open(opened)).rejects.toThrow(
      'record b1 of beans: is of version 7, written by a newer program',
    );
    await opened.close();
  } finally {
    rmSync(directory, { recursive: true, force: true });
  }
});

test('curves of two nameless columns get named channels, also what they gained since they were written', async () => {
  const directory = mkdtempSync(join(tmpdir(), 'wunsch-migrate-'));
  const packed = (...values: number[]): string =>
    `'\\x${Buffer.from(packFloats(Float64Array.from(values))).toString('hex')}'`;
  try {
    const client = await databaseOf(8, directory);
    const curve = (id: string, source: string, ...columns: number[][]): string =>
      `insert into roast_curves values ('${id}', null, 'x', '${source}', 1760000000000, 2, ${columns.map((of) => packed(...of)).join(', ')});`;
    const part = (id: string, ...columns: number[][]): string =>
      `insert into curve_parts values ('${id}', 0, 1, ${columns.map((of) => packed(...of)).join(', ')});`;
    await client.exec(`
      ${curve('roast', 'simulated', [0, 1], [20, 21.5], [140, NaN])}
      ${part('roast', [1, 2, 3], [22, 23, 24], [141, 142, 143])}
      ${curve('pour-1', 'pour sent 1', [0, 60], [45.25, 44], [NaN, NaN])}
      ${curve('bowl-1', 'bowl', [0, 60], [50, 51], [NaN, NaN])}
      ${part('gone', [1], [22], [141])}
    `);
    await client.close();
    const opened = await openDatabase(directory, MIGRATIONS);
    const workshop = await Workshop.open(opened);
    const read = async (id: string): Promise<object> => {
      const { channels, seconds, values } = (await workshop.readCurve(id)) ?? { channels: [], seconds: [], values: [] };
      return {
        seconds: [...seconds],
        ...Object.fromEntries(channels.map(({ name }, i) => [name, [...(values[i] ?? [])]])),
      };
    };
    expect(await read('roast')).toEqual({ seconds: [0, 1, 2, 3], bean: [20, 22, 23, 24], air: [140, 141, 142, 143] });
    expect(await read('pour-1')).toEqual({ seconds: [0, 60], bowl: [45.25, 44] });
    expect(await read('bowl-1')).toEqual({ seconds: [0, 60], bowl: [50, 51] });
    expect(workshop.roasts.curves.get('roast')).toMatchObject({
      readings: 4,
      channels: [{ name: 'bean' }, { name: 'air' }],
    });
    await opened.close();
  } finally {
    rmSync(directory, { recursive: true, force: true });
  }
});
