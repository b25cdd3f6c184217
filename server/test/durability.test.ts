import { spawn, type ChildProcess } from 'node:child_process';
import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const MAIN = join(__dirname, '../dist/main.js');

interface Running {
  child: ChildProcess;
  base: string;
  output: () => string;
}

/** Starts the real server on a free port and waits for its ready line. */
function start(directory: string): Promise<Running> {
  const child = spawn(process.execPath, [MAIN], {
    env: { ...process.env, WUNSCH_DATA: directory, PORT: '0', WUNSCH_LOG: 'off', NODE_OPTIONS: '' },
  });
  let output = '';
  return new Promise((resolve, reject) => {
    const hear = (chunk: Buffer): void => {
      output += chunk.toString();
      const base = /ready at (http:\/\/\S+)/.exec(output)?.[1];
      if (base) resolve({ child, base, output: () => output });
    };
    child.stdout?.on('data', hear);
    child.stderr?.on('data', hear);
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

test('ten kills in a stream of writes: every acknowledged write is there, the ledger balances, it starts by itself', async () => {
  expect(existsSync(MAIN)).toBe(true);
  const acknowledged: string[] = [];
  let people = '';
  for (let round = 0; round < 10; round += 1) {
    const { child, base } = await start(directory);
    if (people === '') people = ((await post(base, '/api/workshop/people', { name: 'Ann' })).body as { id: string }).id;
    const deadline = Date.now() + 120 + 40 * round;
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
    await new Promise((resolve) => setTimeout(resolve, Math.max(0, deadline - Date.now())));
    child.kill('SIGKILL');
    killed = true;
    await Promise.all([gone(child), ...writers]);
  }
  const { child, base } = await start(directory);
  expect(acknowledged.length).toBeGreaterThan(20);
  const dump = (await (await fetch(`${base}/api/workshop/export.json`)).json()) as {
    steps: { id: string; postings: { massMg: number }[] }[];
  };
  const known = new Set(dump.steps.map(({ id }) => id));
  expect(acknowledged.filter((id) => !known.has(id))).toEqual([]);
  for (const step of dump.steps) expect(step.postings.reduce((sum, { massMg }) => sum + massMg, 0)).toBe(0);

  // A second server on the same directory is refused, and says who has it.
  await expect(start(directory)).rejects.toThrow(`in use by process ${child.pid}`);
  expect((await fetch(`${base}/api/health`)).status).toBe(200);

  // SIGTERM stops it gracefully, with the lock given back.
  child.kill('SIGTERM');
  expect(await gone(child)).toBe(0);
  expect(existsSync(join(directory, 'wunsch.lock'))).toBe(false);
}, 240_000);
