import { spawn, type ChildProcess } from 'node:child_process';
import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { barsFrom } from '@wunsch/core/mould/mould';
import { grindSums } from './grind';
import { measureRecipes, solveSums } from './recipe';
import { measureRoasting } from './roast';
import { measureTasting } from './taste';
import { measureTempering } from './temper';
import { compositionOf } from '@wunsch/core/composition/composition';
import { SERVER, SERVER_ENV } from '../scripts/server.mjs';

/** Measures what the budgets speak of, on the demo and on ten years of work, and prints a table. */
const root = join(import.meta.dirname, '..');
const years = Number(process.argv[2] ?? 10);
const rows: [what: string, measured: string, budget: string, ok: boolean][] = [];

/** What was measured on the demo, by what it is: ten years are held against it. */
const onDemo = new Map<string, number>();

/** Notes a figure of the demo, or one of many years that may be so many times that of the demo, and no more than the budget. */
function noteOf(name: string, what: string, value: number, budget: number, unit: string, times?: number): void {
  const demo = onDemo.get(what);
  if (name === 'demo') onDemo.set(what, value);
  const own = name === 'demo' || times === undefined || demo === undefined ? budget : Math.min(budget, times * demo);
  note(`${name}: ${what}`, value, Math.round(own * 100) / 100, unit);
}

/** A read of many years may take twice that of the demo; what is under this is quick whatever the demo's is, ms. */
const QUICK_MS = 20;
const noteRead = (name: string, what: string, value: number): void => {
  const demo = onDemo.get(what) ?? value;
  onDemo.set(what, name === 'demo' ? value : demo);
  note(`${name}: ${what}`, value, name === 'demo' ? 50 : Math.min(50, Math.max(QUICK_MS, Math.round(2 * demo))), 'ms');
};

function note(what: string, value: number, budget: number, unit: string): void {
  rows.push([
    what,
    `${value < 10 ? value.toFixed(2) : Math.round(value)} ${unit}`,
    `${budget} ${unit}`,
    value <= budget,
  ]);
}

interface Server {
  child: ChildProcess;
  base: string;
  /** Milliseconds from the start of the process to its first answer. */
  ready: number;
}

function start(flags: string[], directory: string): Promise<Server> {
  const began = performance.now();
  const child = spawn(process.execPath, [...SERVER, ...flags], {
    cwd: root,
    env: { ...process.env, ...SERVER_ENV, PORT: '0', WUNSCH_LOG: 'off', WUNSCH_DATA: directory },
  });
  return new Promise((resolve, reject) => {
    let output = '';
    child.stdout?.on('data', (chunk: Buffer) => {
      output += chunk.toString();
      const base = /ready at (http:\/\/\S+)/.exec(output)?.[1];
      if (base) void fetch(`${base}/api/health`).then(() => resolve({ child, base, ready: performance.now() - began }));
    });
    child.on('exit', (code) => reject(new Error(`server ended with ${code}`)));
  });
}

function stop({ child }: Server): Promise<void> {
  child.removeAllListeners('exit');
  return new Promise((resolve) => {
    child.on('exit', () => resolve());
    child.kill('SIGTERM');
  });
}

const rssMb = (pid: number): number =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024;

const at95 = (taken: number[]): number => taken.sort((a, b) => a - b)[Math.floor(taken.length * 0.95)] ?? 0;

/** @param times enough that a burst of something else on the machine is not most of what is left out */
async function p95(base: string, path: string, times = 120): Promise<number> {
  const taken: number[] = [];
  await fetch(base + path).then((r) => r.arrayBuffer());
  for (let i = 0; i < times; i += 1) {
    const began = performance.now();
    await fetch(base + path).then((r) => r.arrayBuffer());
    taken.push(performance.now() - began);
  }
  return at95(taken);
}

/** Starts whose time is taken: what else the machine does is most of a single one. */
const STARTS = 5;
/** Entries whose time is taken. */
const ENTRIES = 100;

/** One look that nobody took before. */
async function once(base: string, path: string): Promise<number> {
  const began = performance.now();
  await fetch(base + path).then((r) => r.arrayBuffer());
  return performance.now() - began;
}

async function measure(name: string, flags: string[], directory: string): Promise<void> {
  if (!existsSync(join(directory, 'pg'))) process.stdout.write(`Making ${name} …\n`);
  // The first start of a program reads everything, and keeps what the next ones read.
  await stop(await start(flags, directory));
  const starts: number[] = [];
  let server = await start(flags, directory);
  for (starts.push(server.ready); starts.length < STARTS; starts.push(server.ready)) {
    await stop(server);
    server = await start(flags, directory);
  }
  const { base } = server;
  noteOf(
    name,
    'start with existing data, to the first answer, median',
    (starts.sort((a, b) => a - b)[STARTS >> 1] ?? NaN) / 1000,
    name === 'demo' ? 3 : 3.75,
    's',
    1.25,
  );
  const json = async <T>(path: string): Promise<T> => (await (await fetch(base + path)).json()) as T;
  const { batches } = await json<{ batches: { batch: { code: string } }[] }>('/api/trace/batches?limit=60');
  const { lots } = await json<{ lots: { code: string }[] }>('/api/trace/lots');
  const batch = batches.at(-1)?.batch.code ?? '';
  const lot = lots[Math.floor(lots.length / 2)]?.code ?? '';
  const { loads } = await json<{ loads: { code: string }[] }>('/api/roast/loads?limit=60');
  const load = loads.at(-1)?.code ?? '';
  const { roasters } = await json<{ roasters: { id: string }[] }>('/api/roast/roasters');
  const roaster = roasters[0]?.id ?? '';
  for (const path of [
    '/api/ledger/floor',
    '/api/roast/bench',
    '/api/roast/loads?limit=400',
    '/api/roast/programs',
    '/api/roast/roasters',
    `/api/roast/loads/${load}`,
    `/api/roast/roasters/${roaster}/loads`,
    '/api/winnow/bench',
    '/api/temper/bench',
    '/api/temper/faults',
    '/api/taste/sessions',
    '/api/taste/matters',
    '/api/taste/history',
    '/api/trials',
    '/api/trace/batches?limit=300',
    `/api/trace/batches/${batch}`,
    `/api/trace/lots/${lot}`,
    `/api/beans/lots/${lot}`,
    `/api/sort/lots/${lot}`,
    '/api/beans/store',
    '/api/beans/samples',
    '/api/losses/series?station=winnow',
    '/api/losses/stock-take',
    '/api/trace/stock',
    '/api/recipe/pantry',
    '/api/recipe/recipes',
    '/api/recipe/recipes/dark-fiji',
    '/api/trace/search?q=b01',
    '/api/ledger/steps',
  ]) {
    noteRead(name, `GET ${path.replace(batch, 'B').replace(lot, 'L').replace(load, 'R')}, p95`, await p95(base, path));
  }
  for (const path of [`/api/trace/codes/${batch}-1`, `/api/trace/codes/${lot}`, `/api/trace/codes/${batch}-1/drawing`])
    note(`${name}: GET ${path}, p95`, await p95(base, path, 40), 100, 'ms');
  const posted = async (path: string, body: unknown): Promise<Response> =>
    fetch(base + path, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
  const packs = batches.slice(-6).map(({ batch: { code } }) => `${code}-1`);
  const shared: number[] = [];
  for (let i = 0; i < 10; i += 1) {
    const began = performance.now();
    await (await posted('/api/trace/shared', { codes: packs.slice(0, 3) })).arrayBuffer();
    shared.push(performance.now() - began);
  }
  note(`${name}: what three bars share, the median of ten`, shared.sort((a, b) => a - b)[5] ?? 0, 100, 'ms');
  const { recalls } = await json<{ recalls: { id: string }[] }>('/api/trace/recalls');
  const recall = recalls[0]?.id;
  if (recall !== undefined)
    note(`${name}: recall sheet, p95`, await p95(base, `/api/trace/recalls/${recall}`, 40), 300, 'ms');
  note(
    `${name}: composition of a pack, p95 with its way over HTTP`,
    await p95(base, `/api/trace/compositions/${batch}-1`),
    5,
    'ms',
  );
  note(`${name}: the loss book of a year, first look`, await once(base, '/api/losses/book?months=12'), 300, 'ms');
  note(`${name}: the loss book of all years, first look`, await once(base, '/api/losses/book?months=1200'), 300, 'ms');
  note(`${name}: trace back from ${batch}-1, p95`, await p95(base, `/api/trace/codes/${batch}-1`), 50, 'ms');
  note(`${name}: trace forward from ${lot}, p95`, await p95(base, `/api/trace/codes/${lot}`), 50, 'ms');
  const { people } = await json<{ people: { id: string }[] }>('/api/workshop');
  const { waiting } = await json<{ waiting: { id: string; freeMg: number }[] }>('/api/sort/bench');
  const sack = waiting.find(({ freeMg }) => freeMg > 1_000_000)?.id;
  const writes: number[] = [];
  const saved: number[] = [];
  for (let i = 0; i < ENTRIES; i += 1) {
    const began = performance.now();
    const answer = await fetch(`${base}/api/sort/sessions`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({
        personId: people[0]?.id,
        command: {
          kind: 'sort',
          sources: [{ holdingId: sack, massG: 10 }],
          rejects: [],
          goodG: 9.5,
          note: '',
        },
      }),
    });
    if (answer.status !== 201) throw new Error(await answer.text());
    saved.push(performance.now() - began);
    await fetch(`${base}/api/ledger/floor`).then((r) => r.arrayBuffer());
    writes.push(performance.now() - began);
  }
  note(`${name}: an entry saved, on the disk before it is answered, p95`, at95(saved), 50, 'ms');
  note(`${name}: an entry saved and the floor read again, p95`, at95(writes), 100, 'ms');
  if (flags.length === 1) {
    await measureRoasting(base, note);
    await measureRecipes(base, note);
    await measureTempering(base, note);
    await measureTasting(base, note);
  }
  noteOf(name, 'server memory', rssMb(server.child.pid ?? 0), name === 'demo' ? 450 : 562, 'MB', 1.25);
  await stop(server);
}

function scripts(): void {
  const dist = join(root, 'web/dist');
  const html = readFileSync(join(dist, 'index.html'), 'utf8');
  const first = [...html.matchAll(/(?:src|href)="\/(assets\/[^"]+\.js)"/g)].map(([, path]) => path ?? '');
  const size = first.reduce((sum, path) => sum + gzipSync(readFileSync(join(dist, path)), { level: 9 }).length, 0);
  note('first script for the first screen, gzip', size / 1000, 200, 'kB');
  const all = readdirSync(join(dist, 'assets')).reduce(
    (sum, file) => sum + statSync(join(dist, 'assets', file)).size,
    0,
  );
  process.stdout.write(`All of the interface, unpacked: ${Math.round(all / 1000)} kB\n`);
}

function sums(): void {
  const makeUp = new Map([
    ['a', 0.7],
    ['b', 0.04],
    ['c', 0.26],
  ]);
  const began = performance.now();
  for (let i = 0; i < 1000; i += 1) {
    compositionOf(makeUp, () => ({ kind: 'cacao', lotId: 'a' }));
    barsFrom(9800 + i, 80, 70, 24);
  }
  note('cocoa percent and bars of one bowl', (performance.now() - began) / 1000, 1, 'ms');
}

scripts();
sums();
await solveSums(note);
grindSums(note);
await measure('demo', ['--demo'], join(root, 'data-bench'));
await measure(`${years} years`, ['--demo', '--years', String(years)], join(root, `data-bench-${years}`));
const width = Math.max(...rows.map(([what]) => what.length));
for (const [what, measured, budget, ok] of rows)
  process.stdout.write(`${what.padEnd(width)}  ${measured.padStart(10)}  of ${budget.padEnd(8)} ${ok ? '' : 'OVER'}\n`);
process.exit(rows.every(([, , , ok]) => ok) ? 0 : 1);
