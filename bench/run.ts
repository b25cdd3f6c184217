import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { compositionOf } from '@wunsch/core/composition/composition';
import { barsFrom } from '@wunsch/core/mould/mould';
import { watch } from '../scripts/machine.mjs';
import { grindSums } from './grind';
import { measureRecipes, solveSums } from './recipe';
import { measureRoasting } from './roast';
import { Table, type Note } from './table';
import { measureTasting } from './taste';
import { measureTempering } from './temper';
import { Workshop } from './workshop';
import { Years } from './years';

/** Measures what the budgets speak of, on the demo and on ten years of work, and prints a table. */
const root = join(import.meta.dirname, '..');
const years = Number(process.argv[2] ?? 10);

function scripts(note: Note): void {
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

function sums(note: Note): void {
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

const took = watch();
const table = new Table();
const demo = new Workshop('demo', ['--demo'], join(root, 'data-bench'));
const many = new Workshop(`${years} years`, ['--demo', '--years', String(years)], join(root, `data-bench-${years}`));
try {
  await table.look(scripts);
  await table.look(sums);
  await table.look(solveSums);
  await table.look(grindSums);
  const measured = await Years.begin(table, demo, many);
  await measured.reads();
  await measured.entries();
  for (const measure of [measureRoasting, measureRecipes, measureTempering, measureTasting])
    await table.look((note) => measure(demo.address, note));
  await measured.memory();
} finally {
  await demo.stop();
  await many.stop();
}
const isWithin = table.print();
process.stdout.write(`${took()}\n`);
process.exit(isWithin ? 0 : 1);
