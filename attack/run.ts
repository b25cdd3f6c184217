import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { connect } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { seeded } from '@wunsch/core/stats/chance';
import { routesOf, send, SLOWEST_MS, spoiled, Storm, type Tally } from './hostile';
import { SERVER, SERVER_ENV } from '../scripts/server.mjs';

/*
 * npm run attack [-- --seed 1 --requests 3000 --kills 10 --writers 40 --restores 30 --slow 30]: a server of its own is
 * stormed with hostile requests, slow ones among them, killed while it writes, written to by many at once, given spoiled
 * exports to restore, and asked after each round whether its book restores to
 * itself. Prints what was tried, refused and at fault; ends with 1 where anything was.
 */

const root = join(import.meta.dirname, '..');
const asked = (name: string, usual: number): number => {
  const at = process.argv.indexOf(`--${name}`);
  return at < 0 ? usual : Number(process.argv[at + 1]);
};
const SEED = asked('seed', 1);
const REQUESTS = asked('requests', 3000);
const KILLS = asked('kills', 10);
const WRITERS = asked('writers', 40);
const RESTORES = asked('restores', 30);
const SLOW = asked('slow', 30);
/** Nothing that comes a letter at a time is kept open for longer. */
const LATEST_MS = 120_000;

interface Server {
  base: string;
  child: ChildProcess;
}

const directories: string[] = [];
const directory = (): string => {
  const made = mkdtempSync(join(tmpdir(), 'wunsch-attack-'));
  directories.push(made);
  return made;
};

function start(data: string, flags: string[] = []): Promise<Server> {
  const child = spawn(process.execPath, [...SERVER, ...flags], {
    cwd: root,
    env: { ...process.env, ...SERVER_ENV, PORT: '0', WUNSCH_LOG: 'off', WUNSCH_DATA: data },
  });
  return new Promise((resolve, reject) => {
    let output = '';
    const heard = (chunk: Buffer): void => {
      output += chunk.toString();
      const base = /ready at (http:\/\/\S+)/.exec(output)?.[1];
      if (base !== undefined) resolve({ base, child });
    };
    child.stdout?.on('data', heard);
    child.stderr?.on('data', heard);
    child.on('exit', () => reject(new Error(output)));
  });
}

const stop = ({ child }: Server, signal: NodeJS.Signals = 'SIGTERM'): Promise<void> =>
  new Promise((done) => {
    child.once('exit', () => done());
    child.kill(signal);
  });

const json = async <T>(base: string, path: string): Promise<T> => (await (await fetch(base + path)).json()) as T;
const post = (base: string, path: string, body: unknown, key?: string): Promise<Response> =>
  fetch(base + path, {
    method: 'POST',
    headers: { 'content-type': 'application/json', ...(key === undefined ? {} : { 'idempotency-key': key }) },
    body: typeof body === 'string' ? body : JSON.stringify(body),
  });

const faults: string[] = [];
const told = (what: string, { tried, taken, refused, faults: wrong }: Tally): void => {
  process.stdout.write(`${what}: ${tried} tried, ${taken} taken, ${refused} refused, ${wrong.length} at fault\n`);
  for (const fault of wrong) process.stdout.write(`  ${fault}\n`);
  faults.push(...wrong);
};

interface Curve {
  /** How many; grows with them. */
  readings: number;
  seconds: number[];
  /** Of each channel. */
  values: (number | null)[][];
}
type Export = Record<string, unknown> & { curves?: Curve[] };

/**
 * Where two exports are not one book; null: they are. Curves of what still runs have grown meanwhile, and agree as far as the
 * first went.
 */
function differs(before: string, after: string): string | null {
  if (before === after) return null;
  const [{ curves: first = [], ...one }, { curves: then = [], ...two }] = [
    JSON.parse(before) as Export,
    JSON.parse(after) as Export,
  ];
  const part = Object.keys(one).find((key) => JSON.stringify(one[key]) !== JSON.stringify(two[key]));
  if (part !== undefined) return part;
  if (first.length !== then.length) return `${first.length} curves are ${then.length}`;
  const grew = (a: readonly unknown[], b: readonly unknown[]): boolean =>
    b.length >= a.length && JSON.stringify(b.slice(0, a.length)) === JSON.stringify(a);
  const other = first.findIndex(({ seconds, values, readings: _, ...rest }, i) => {
    const { seconds: s = [], values: v = [], readings: __, ...others } = then[i] ?? ({} as Curve);
    const grown = grew(seconds, s) && values.every((channel, n) => grew(channel, v[n] ?? []));
    return !(JSON.stringify(rest) === JSON.stringify(others) && grown);
  });
  return other < 0
    ? null
    : `curve ${other}, ${first[other]?.seconds.length} and ${then[other]?.seconds.length} readings`;
}

/** The export of a server, restored into another one, has to be exported again to the same bytes. */
async function sameAgain(base: string, round: string): Promise<void> {
  const tally: Tally = { tried: 1, taken: 0, refused: 0, faults: [] };
  const bytes = await (await fetch(`${base}/api/workshop/export.json`)).text();
  const other = await start(directory());
  try {
    const answer = await post(other.base, '/api/workshop/restore', bytes);
    if (answer.status !== 201) tally.faults.push(`restore: ${answer.status} ${(await answer.text()).slice(0, 600)}`);
    else {
      const unlike = differs(bytes, await (await fetch(`${other.base}/api/workshop/export.json`)).text());
      if (unlike === null) tally.taken = 1;
      else tally.faults.push(`the export of what was restored is another one: ${unlike}`);
    }
  } finally {
    await stop(other);
  }
  told(`${round}: export, restore, export`, tally);
}

async function storm(base: string): Promise<void> {
  const routes = routesOf(await json(base, '/api/openapi.json'));
  const stock = await json<{ holdings: { id: string; code: string; batchId: string | null }[] }>(
    base,
    '/api/trace/stock',
  );
  const known = stock.holdings.flatMap(({ id, code, batchId }) => [id, code, ...(batchId === null ? [] : [batchId])]);
  // What prints is loaded by the first press.
  await fetch(`${base}/api/pack/tags/${known[1] ?? ''}/tag.pdf`);
  const tally = await send(new Storm(routes, seeded(SEED), () => known), REQUESTS, async ({ method, url, body }) => {
    const began = performance.now();
    try {
      const answer = await fetch(base + url, {
        method,
        signal: AbortSignal.timeout(10 * SLOWEST_MS),
        ...(body === null ? {} : { body, headers: { 'content-type': 'application/json' } }),
      });
      await answer.arrayBuffer();
      return { status: answer.status, ms: performance.now() - began };
    } catch {
      return { status: 599, ms: performance.now() - began };
    }
  });
  told(`Storm over ${routes.length} routes, seed ${SEED}`, tally);
}

const lot = (name: string) => ({
  kind: 'receive',
  name,
  producer: 'Ridge',
  country: 'Uganda',
  form: 'beans',
  roasted: true,
  routeId: 'whole-bean',
  netG: 1000,
  currency: 'EUR',
});

async function person(base: string): Promise<string> {
  const { people } = await json<{ people: { id: string }[] }>(base, '/api/workshop');
  if (people[0]) return people[0].id;
  return ((await (await post(base, '/api/workshop/people', { name: 'Ann' })).json()) as { id: string }).id;
}

/** Kills in the middle of a stream of writes: what was acknowledged is there afterwards, once. */
async function kills(): Promise<void> {
  const data = directory();
  const chance = seeded(SEED + 1);
  const tally: Tally = { tried: 0, taken: 0, refused: 0, faults: [] };
  const promised: string[] = [];
  for (let round = 0; round < KILLS; round += 1) {
    const server = await start(data);
    const personId = await person(server.base);
    const names = new Map<string, number>();
    const { lots } = await json<{ lots: { name: string }[] }>(server.base, '/api/trace/lots');
    for (const { name } of lots) names.set(name, (names.get(name) ?? 0) + 1);
    for (const name of promised)
      if (names.get(name) !== 1) tally.faults.push(`${name} is there ${names.get(name) ?? 0} times after a kill`);
    const timer = setTimeout(() => server.child.kill('SIGKILL'), 150 + 500 * chance());
    for (let n = 0; ; n += 1) {
      const name = `kill ${round} ${n}`;
      tally.tried += 1;
      try {
        const answer = await post(server.base, '/api/ledger/steps', { command: lot(name), personId });
        if (answer.status !== 201) tally.refused += 1;
        else {
          promised.push(name);
          tally.taken += 1;
        }
      } catch {
        break;
      }
    }
    clearTimeout(timer);
  }
  told(`${KILLS} kills while it writes`, tally);
}

/** Many at once: one key wins once, and no gram is taken twice. */
async function writers(base: string): Promise<void> {
  const tally: Tally = { tried: WRITERS * 2, taken: 0, refused: 0, faults: [] };
  const personId = await person(base);
  const once = await Promise.all(
    Array.from({ length: WRITERS }, () =>
      post(base, '/api/ledger/steps', { command: lot('one key'), personId }, `attack-${SEED}`),
    ),
  );
  const codes = new Set(
    await Promise.all(once.map(async (answer) => ((await answer.json()) as { step?: { id: string } }).step?.id ?? '')),
  );
  if (codes.size !== 1) tally.faults.push(`one key made ${codes.size} steps`);
  const made = (await (await post(base, '/api/ledger/steps', { command: lot('one lot'), personId })).json()) as {
    step: { lines: { holdingId: string | null; massMg: number }[] };
  };
  const holdingId = made.step.lines.find(({ massMg, holdingId: id }) => massMg > 0 && id !== null)?.holdingId ?? '';
  const sort = { kind: 'sort', sources: [{ holdingId, massG: 600 }], rejects: [], goodG: 590, note: '' };
  const answers = await Promise.all(
    Array.from({ length: WRITERS }, () => post(base, '/api/ledger/steps', { command: sort, personId })),
  );
  const won = answers.filter(({ status }) => status === 201).length;
  tally.taken = won + 1;
  tally.refused = WRITERS - won;
  if (won !== 1) tally.faults.push(`${won} of ${WRITERS} took 600 g of 1,000 g`);
  if (answers.some(({ status }) => status >= 500)) tally.faults.push('a writer was answered by a failure');
  told(`${WRITERS} writers at once, twice`, tally);
}

/** Hostile restore files: an export with one field that is not as it should be. Taken or refused, but never a failure. */
async function restoreFiles(base: string): Promise<void> {
  const chance = seeded(SEED + 2);
  const bytes = await (await fetch(`${base}/api/workshop/export.json`)).text();
  const tally: Tally = { tried: 0, taken: 0, refused: 0, faults: [] };
  let empty = await start(directory());
  for (; tally.tried < RESTORES; tally.tried += 1) {
    const { where, file } = spoiled(bytes, chance);
    const began = performance.now();
    const beat = health(empty.base);
    const answer = await post(empty.base, '/api/workshop/restore', file);
    const slowest = await beat();
    if (slowest > SLOWEST_MS) tally.faults.push(`${where}: others waited for ${Math.round(slowest)} ms`);
    if (answer.status >= 500)
      tally.faults.push(`${where}: ${answer.status} after ${Math.round(performance.now() - began)} ms`);
    if (answer.status !== 201) {
      tally.refused += 1;
      continue;
    }
    tally.taken += 1;
    const again = await (await fetch(`${empty.base}/api/workshop/export.json`)).text();
    await stop(empty);
    empty = await start(directory());
    const twice = await post(empty.base, '/api/workshop/restore', again);
    if (twice.status !== 201)
      tally.faults.push(`${where}: was taken, and its own export was not: ${await twice.text()}`);
    await stop(empty);
    empty = await start(directory());
  }
  await stop(empty);
  told(`${RESTORES} hostile restore files`, tally);
}

/** Asks a server again and again whether it is up. @returns ends that, and says how long the longest answer took, ms */
function health(base: string): () => Promise<number> {
  let going = true;
  let slowest = 0;
  const asking = (async () => {
    while (going) {
      const began = performance.now();
      await (await fetch(`${base}/api/health`)).text();
      slowest = Math.max(slowest, performance.now() - began);
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
  })();
  return async () => {
    going = false;
    await asking;
    return slowest;
  };
}

/** Requests that come a letter at a time: others are answered meanwhile, and they are ended. */
async function slowInputs(base: string): Promise<void> {
  const { port, hostname } = new URL(base);
  const tally: Tally = { tried: SLOW, taken: 0, refused: 0, faults: [] };
  const beat = health(base);
  const ends = await Promise.all(
    Array.from(
      { length: SLOW },
      () =>
        new Promise<string>((resolve) => {
          const socket = connect(Number(port), hostname);
          let said = '';
          socket.write(
            `POST /api/ledger/steps HTTP/1.1\r\nhost: ${hostname}\r\ncontent-type: application/json\r\ncontent-length: 1000000\r\n\r\n{`,
          );
          const letter = setInterval(() => socket.write(' '), 1000);
          const late = setTimeout(() => socket.destroy(), LATEST_MS);
          socket.on('data', (chunk) => (said += chunk.toString()));
          socket.on('error', () => undefined);
          socket.on('close', () => {
            clearInterval(letter);
            clearTimeout(late);
            resolve(said);
          });
        }),
    ),
  );
  const slowest = await beat();
  tally.refused = ends.filter((said) => said.startsWith('HTTP/1.1 408')).length;
  if (tally.refused < SLOW) tally.faults.push(`${SLOW - tally.refused} were kept open`);
  if (slowest > SLOWEST_MS) tally.faults.push(`others waited for ${Math.round(slowest)} ms`);
  told(`${SLOW} slow requests`, tally);
}

const server = await start(directory(), ['--demo']);
try {
  const slow = slowInputs(server.base);
  await storm(server.base);
  await slow;
  await sameAgain(server.base, 'After the storm');
  await writers(server.base);
  await sameAgain(server.base, 'After the writers');
  await restoreFiles(server.base);
} finally {
  await stop(server);
}
await kills();
for (const made of directories) rmSync(made, { recursive: true, force: true });
process.stdout.write(faults.length === 0 ? 'No fault.\n' : `${faults.length} faults.\n`);
process.exitCode = faults.length === 0 ? 0 : 1;
