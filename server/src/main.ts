import { existsSync, readFileSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { setFlagsFromString } from 'node:v8';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { buildApp } from './app';
import { brief } from './http/brief';
import { clockOf } from './devices/clock';
import { isUnfinished, makeDemo, STANDARD_DEMO, yearsOf } from './demo/generator';
import { stopWork, workOn } from './heavy/away';
import { hostsFrom, isLoopback } from './http/hosts';
import { useFontsFrom } from './print/paper';
import { Backups } from './store/backups';
import { openDatabase } from './store/database';
import { hashOf } from './store/files';
import { Disk } from './store/disk';
import { BACKUPS, checkDirectory, DirectoryInUse, lockDirectory, NoWorkshop } from './store/lock';
import { exportPieces } from './journal/export';
import { Damaged } from './journal/whole';
import { readAnswers } from './http/openapi';
import { Workshop } from './journal/workshop';

const here = dirname(fileURLToPath(import.meta.url));
const root = resolve(here, '../..');

function option(name: string): string | undefined {
  const index = process.argv.indexOf(`--${name}`);
  return index < 0 ? undefined : process.argv[index + 1];
}

const OPEN =
  'This workshop is open to its network: whoever reaches it may read and change everything, as there are no accounts yet. Keep it among people you trust.';

/** How far the heap may grow over what is in use before it is swept, percent: what is let go of is given back soon. */
const HEAP_GROWS_PCT = 30;

/** So long after a start it is checked what that read only in part: first the maker is answered. */
const CHECKED_MS = 20_000;

async function main(): Promise<void> {
  setFlagsFromString(`--heap-growing-percent=${HEAP_GROWS_PCT}`);
  const demo = process.argv.includes('--demo');
  const years = Number(option('years') ?? 0);
  const port = Number(process.env['PORT'] ?? 4610);
  const host = process.env['HOST'] ?? '127.0.0.1';
  const directory = resolve(
    process.env['WUNSCH_DATA'] ?? join(root, demo ? (years > 0 ? `data-demo-${years}` : 'data-demo') : 'data'),
  );
  useFontsFrom(root);
  workOn(join(here, 'thread.js'));
  const unlock = await lockDirectory(directory);
  checkDirectory(directory);
  const copies = resolve(process.env['WUNSCH_BACKUPS'] ?? join(directory, BACKUPS));
  const opened = await openDatabase(directory, join(root, 'server/migrations'), {
    empty: join(here, 'database/empty'),
    copies,
  });
  const clock = clockOf(process.env['WUNSCH_CLOCK_SPEED']);
  const workshop = await Workshop.open(opened, clock.now, hashOf(readFileSync(fileURLToPath(import.meta.url))));
  if (demo && isUnfinished(directory)) await workshop.empty();
  if (demo && workshop.book.steps.size === 0) {
    process.stdout.write('Making up the demo workshop …\n');
    let shown = -10;
    await makeDemo(workshop, {
      ...(years > 0 ? yearsOf(years) : STANDARD_DEMO),
      progress: (share) => {
        if (share * 100 - shown < 10) return;
        shown = share * 100;
        process.stdout.write(`  ${Math.round(shown)} %\n`);
      },
    });
    workshop.settle();
  }
  const backups = new Backups(copies, Date.now, () => exportPieces(workshop), new Disk(directory));
  const web = join(root, 'web/dist');
  const app = await buildApp({
    workshop,
    backups,
    clock,
    answers: readAnswers(join(here, 'answers.json')),
    log: process.env['WUNSCH_LOG'] !== 'off',
    hosts: [host.toLowerCase(), ...hostsFrom(process.env['WUNSCH_HOSTS'])],
    ...(existsSync(web) ? { web } : {}),
  });
  if (!isLoopback(host)) {
    workshop.trouble('open', OPEN);
    process.stdout.write(`${OPEN}\n`);
  }
  await app.listen({ port, host });
  // Nothing that fails in the background may take the workshop down with it.
  process.on('unhandledRejection', (reason) => app.log.error(reason));
  setTimeout(() => void workshop.checkKept().catch((error: unknown) => app.log.error(error)), CHECKED_MS).unref();
  let stopping = false;
  const stop = async (): Promise<void> => {
    if (stopping) return;
    stopping = true;
    await app.close();
    await workshop.rest();
    await opened.close();
    await stopWork();
    unlock();
    process.exit(0);
  };
  process.on('SIGTERM', () => void stop());
  process.on('SIGINT', () => void stop());
  const address = app.server.address();
  const bound = typeof address === 'object' && address !== null ? address.port : port;
  process.stdout.write(`Wunsch is ready at http://${host}:${bound}\n`);
}

main().catch((error: unknown) => {
  const { code } = error as { code?: string };
  if (code === 'EADDRINUSE') process.stderr.write('That port is in use by another server. Set PORT to another one.\n');
  else if (
    error instanceof DirectoryInUse ||
    error instanceof Damaged ||
    error instanceof NoWorkshop ||
    error instanceof DomainError
  )
    process.stderr.write(`${error.message}\n`);
  else
    process.stderr.write(
      `Wunsch could not start: ${brief(error instanceof Error ? (error.stack ?? error.message) : String(error))}\n`,
    );
  process.exit(1);
});
