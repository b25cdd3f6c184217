import { spawn, type ChildProcess } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { SERVER } from '../../scripts/server.mjs';
import { openDatabase } from '../src/store/database';
import { WriteAheadLog } from '../src/store/durable';
import { people } from '../src/store/schema';
import { MIGRATIONS, TEMPLATE } from './harness';

const ROOT = join(__dirname, '../..');

interface Running {
  child: ChildProcess;
  base: string;
  output: () => string;
}

/** Starts the real server on a free port and waits for its ready line. */
function start(directory: string): Promise<Running> {
  const child = spawn(process.execPath, SERVER, {
    cwd: ROOT,
    env: { ...process.env, WUNSCH_DATA: directory, PORT: '0', WUNSCH_LOG: 'off', NODE_OPTIONS: '' },
  });
  let output = '';
  return new Promise((resolve, reject) => {
    const hear = (chunk: Buffer): void => {
      output += chunk.toString();
      const base = /ready at (http:\/\/\S+)/.exec(output)?.[1];
      if (base) resolve({ child, base, output: () => output });
    };
    child.stdout.on('data', hear);
    child.stderr.on('data', hear);
    child.on('exit', (code) => reject(new Error(`exit ${code}: ${output}`)));
  });
}

const gone = (child: ChildProcess): Promise<number | null> =>
  new Promise((resolve) =>
    child.exitCode !== null || child.signalCode !== null ? resolve(child.exitCode) : child.on('exit', resolve),
  );

const lot = (n: number) => ({
  kind: 'receive',
  name: `Lot ${n}`,
  producer: 'Ridge Growers',
  country: 'Uganda',
  routeId: 'whole-bean',
  sacks: 1,
  netG: 1000 + n,
  pricePerKg: 5,
  currency: 'EUR',
  note: '',
});

async function post(
  base: string,
  path: string,
  body: unknown,
): Promise<{ status: number; body: { step?: { id: string } } }> {
  const response = await fetch(base + path, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
  return { status: response.status, body: (await response.json()) as { step?: { id: string } } };
}

const directory = mkdtempSync(join(tmpdir(), 'wunsch-kill-'));
afterAll(() => rmSync(directory, { recursive: true, force: true }));

test('four kills in a stream of writes: every acknowledged write is there, the ledger balances, it starts by itself', async () => {
  expect(existsSync(join(ROOT, SERVER.at(-1) ?? ''))).toBe(true);
  const acknowledged: string[] = [];
  let people = '';
  for (let round = 0; round < 4; round += 1) {
    const { child, base } = await start(directory);
    if (people === '') people = ((await post(base, '/api/workshop/people', { name: 'Ann' })).body as { id: string }).id;
    const deadline = Date.now() + 120 + 60 * round;
    let killed = false;
    const writers = [0, 1, 2].map(async (writer) => {
      for (let n = 0; !killed; n += 1) {
        try {
          const { status, body } = await post(base, '/api/ledger/steps', {
            personId: people,
            command: lot(round * 1000 + writer * 100 + n),
          });
          if (status === 201 && body.step) acknowledged.push(body.step.id);
        } catch {
          return;
        }
      }
    });
    // On a slow machine not before something was written: a kill of nothing shows nothing.
    const before = acknowledged.length;
    const latest = deadline + 20_000;
    while (Date.now() < deadline || (acknowledged.length < before + 3 && Date.now() < latest))
      await new Promise((resolve) => setTimeout(resolve, 5));
    child.kill('SIGKILL');
    killed = true;
    await Promise.all([gone(child), ...writers]);
  }
  const { child, base } = await start(directory);
  expect(acknowledged.length).toBeGreaterThan(10);
  const dump = (await (await fetch(`${base}/api/workshop/export.json`)).json()) as {
    steps: { id: string; postings: { massMg: number }[] }[];
  };
  const known = new Set(dump.steps.map(({ id }) => id));
  expect(acknowledged.filter((id) => !known.has(id))).toEqual([]);
  for (const step of dump.steps) expect(step.postings.reduce((sum, { massMg }) => sum + massMg, 0)).toBe(0);

  // A second server on the same directory is refused, and says who has it.
  await expect(start(directory)).rejects.toThrow(`(process ${child.pid})`);
  expect((await fetch(`${base}/api/health`)).status).toBe(200);

  // SIGTERM stops it gracefully, with the lock given back.
  child.kill('SIGTERM');
  expect(await gone(child)).toBe(0);
  const again = await start(directory);
  again.child.kill('SIGTERM');
  expect(await gone(again.child)).toBe(0);
}, 240_000);

test('of many servers that want one directory at once, one gets it; a killed one leaves it free', async () => {
  const shared = mkdtempSync(join(tmpdir(), 'wunsch-lock-'));
  try {
    const first = await start(shared);
    const others = await Promise.allSettled(Array.from({ length: 2 }, () => start(shared)));
    expect(others.map(({ status }) => status)).toEqual(['rejected', 'rejected']);
    for (const other of others)
      expect(String((other as PromiseRejectedResult).reason)).toContain('in use by another server');
    first.child.kill('SIGKILL');
    await gone(first.child);
    // The kernel gives the lock back with the process: whoever comes next has it, and nobody else.
    const next = await Promise.allSettled(Array.from({ length: 3 }, () => start(shared)));
    const won = next.filter(({ status }) => status === 'fulfilled') as PromiseFulfilledResult<Running>[];
    expect(won).toHaveLength(1);
    won[0]?.value.child.kill('SIGTERM');
    await gone(won[0]?.value.child as ChildProcess);
    expect(statSync(shared).mode & 0o777).toBe(0o700);
  } finally {
    rmSync(shared, { recursive: true, force: true });
  }
});

test('where something else is, or a database was lost, nothing begins anew', async () => {
  const elsewhere = mkdtempSync(join(tmpdir(), 'wunsch-else-'));
  try {
    writeFileSync(join(elsewhere, 'holiday.txt'), 'photos');
    await expect(start(elsewhere)).rejects.toThrow(/holds no workshop/);
    rmSync(join(elsewhere, 'holiday.txt'));
    mkdirSync(join(elsewhere, 'pg'));
    await expect(start(elsewhere)).rejects.toThrow(/missing or damaged/);
  } finally {
    rmSync(elsewhere, { recursive: true, force: true });
  }
});

test('what is committed has been brought to the disk, segment by segment', async () => {
  const own = mkdtempSync(join(tmpdir(), 'wunsch-sync-'));
  const opened = await openDatabase(own, MIGRATIONS, { prepared: new Blob([readFileSync(TEMPLATE)]) });
  try {
    const log = new WriteAheadLog(own);
    expect(await log.sync()).toBeGreaterThan(0);
    expect(await log.sync()).toBe(0);
    await opened.db.insert(people).values({ id: 'ann', name: 'Ann' });
    expect(await log.sync()).toBe(1);
    log.close();
  } finally {
    await opened.close();
    rmSync(own, { recursive: true, force: true });
  }
});
