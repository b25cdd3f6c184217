import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { seeded } from '@wunsch/core/stats/chance';
import { routesOf, send, SLOWEST_MS, Storm, type Tally } from './hostile';

/*
 * npm run attack [-- --seed 1 --requests 3000 --kills 10 --writers 40]: a server of its own is stormed with hostile
 * requests, killed while it writes, written to by many at once, and asked after each round whether its book restores to
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
  const child = spawn(process.execPath, ['server/dist/main.js', ...flags], {
    cwd: root,
    env: { ...process.env, PORT: '0', WUNSCH_LOG: 'off', WUNSCH_DATA: data },
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
  beanC: (number | null)[];
  airC: (number | null)[];
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
  const other = first.findIndex(({ seconds, beanC, airC, readings: _, ...rest }, i) => {
    const { seconds: s = [], beanC: b = [], airC: c = [], readings: __, ...others } = then[i] ?? ({} as Curve);
    return !(JSON.stringify(rest) === JSON.stringify(others) && grew(seconds, s) && grew(beanC, b) && grew(airC, c));
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

const server = await start(directory(), ['--demo']);
try {
  await storm(server.base);
  await sameAgain(server.base, 'After the storm');
  await writers(server.base);
  await sameAgain(server.base, 'After the writers');
} finally {
  await stop(server);
}
await kills();
for (const made of directories) rmSync(made, { recursive: true, force: true });
process.stdout.write(faults.length === 0 ? 'No fault.\n' : `${faults.length} faults.\n`);
process.exitCode = faults.length === 0 ? 0 : 1;
