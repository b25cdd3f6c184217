import { setImmediate as breathe } from 'node:timers/promises';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { settings } from '@wunsch/core/workshop/schemas';
import { noChanges, write } from '../store/records';
import { writeCurve } from '../store/curves';
import { badRestore, type Rows } from './bundle';
import type { Incoming } from './incoming';
import { bookOf, Damaged } from './whole';
import type { Workshop } from './workshop';

/** Rows that are looked at before others get their turn. */
const AT_ONCE = 500;
/** What a row takes on the disk, times what it takes in memory as text: indices, and the log of the database. */
const ON_DISK = 6;

/** @throws DomainError `workshop/not-empty` */
export function checkEmpty(workshop: Workshop): void {
  const { people, machines, materials, works, beans, roasts, recipes, records, book } = workshop;
  const there =
    people.size + machines.size + materials.size + works.size + book.steps.size > 0 ||
    [...beans.everything()].length + beans.files.size > 0 ||
    roasts.everything().length + roasts.curves.size > 0 ||
    recipes.everything().length + records.everything().length > 0;
  if (!there) return;
  throw new DomainError(
    'workshop/not-empty',
    'A restore goes into an empty workshop only, without team, machines or records. Start one with another WUNSCH_DATA directory.',
  );
}

/**
 * Puts an export in the place of what is here: every row is held against the others and every step against the laws of
 * the ledger, what was written is read once, and only then it counts. All or nothing.
 *
 * @throws DomainError `workshop/bad-restore` naming the row, `store/disk-full`
 */
export async function restoreWorkshop(workshop: Workshop, incoming: Incoming): Promise<void> {
  const own = settings.safeParse(incoming.settings);
  if (!own.success)
    throw badRestore('settings', `The settings cannot be read: ${own.error.issues[0]?.path.join('.') ?? ''}.`);
  const { rows } = incoming;
  await checkReferences(rows);
  try {
    await bookOf(rows);
  } catch (error) {
    if (error instanceof DomainError) throw badRestore('steps', error.message);
    throw error;
  }
  workshop.ready(rows.steps.length * 2000 * ON_DISK);
  try {
    await workshop.replace(async (tx) => {
      await write(tx, { ...noChanges(), ...rows, curves: [], settings: own.data });
      for (const [index, meta] of rows.curves.entries()) {
        await writeCurve(tx, { ...meta, curve: await incoming.readings(index) });
        await breathe();
      }
    });
  } catch (error) {
    if (error instanceof DomainError) throw error;
    if (error instanceof Damaged) throw badRestore('', error.message);
    throw badRestore('', 'Some row of the file lacks what it needs.');
  }
}

/** Whatever one row says of another has to be in the file too. */
async function checkReferences(rows: Rows): Promise<void> {
  const ids = (list: readonly { id: string }[]): Set<string> => new Set(list.map(({ id }) => id));
  const [holdings, people, routes, batches, machines, lots] = [
    ids(rows.holdings),
    ids(rows.people),
    ids(rows.routes),
    ids(rows.batches),
    ids(rows.machines),
    ids(rows.lots),
  ];
  const known = (set: Set<string>, id: string | null, path: string, what: string): void => {
    if (id !== null && !set.has(id))
      throw badRestore(
        path,
        `${path.replace(/\.(\d+)$/, (_, i) => `, row ${Number(i) + 1},`)} names ${what} that is not in it.`,
      );
  };
  const each = async <R>(list: readonly R[], name: string, look: (row: R, path: string) => void): Promise<void> => {
    for (const [index, row] of list.entries()) {
      if (index % AT_ONCE === AT_ONCE - 1) await breathe();
      look(row, `${name}.${index}`);
    }
  };
  const once = async (name: string, list: readonly { id: string }[], seen: Set<string>): Promise<void> => {
    await each(list, name, ({ id }, path) => {
      if (seen.has(id)) throw badRestore(path, `${path.replace('.', ', row ')} is there twice.`);
      seen.add(id);
    });
  };
  // Records lie together, whichever list they are in.
  const recordIds = new Set<string>();
  for (const [name, list] of Object.entries(rows))
    await once(name, list, /Records$/.test(name) ? recordIds : new Set());
  await each(rows.holdings, 'holdings', (row, path) => known(routes, row.routeId, path, 'a route'));
  await each(rows.batches, 'batches', (row, path) => {
    known(holdings, row.id, path, 'a holding');
    known(routes, row.routeId, path, 'a route');
  });
  await each(rows.lots, 'lots', (row, path) => known(holdings, row.id, path, 'a holding'));
  await each(rows.steps, 'steps', (row, path) => {
    known(people, row.personId, path, 'somebody');
    known(batches, row.batchId, path, 'a batch');
    known(machines, row.machineId, path, 'a machine');
    for (const id of Object.values(row.slots)) known(holdings, id, path, 'a holding');
    for (const { holdingId } of row.postings) known(holdings, holdingId, path, 'a holding');
  });
  await each(rows.beanRecords, 'beanRecords', (row, path) => {
    known(people, row.personId, path, 'somebody');
    known(lots, row.lotId, path, 'a lot');
  });
  await each(rows.files, 'files', (row, path) => {
    known(people, row.personId, path, 'somebody');
    known(lots, row.lotId, path, 'a lot');
  });
  await each(rows.curves, 'curves', (row, path) => known(holdings, row.loadId, path, 'a holding'));
  await each(rows.roastRecords, 'roastRecords', (row, path) => known(people, row.personId, path, 'somebody'));
  await each(rows.recipeRecords, 'recipeRecords', (row, path) => {
    known(people, row.personId, path, 'somebody');
    if (row.value.kind === 'weighed') known(holdings, row.value.holdingId, path, 'a holding');
  });
  await each(rows.roomRecords, 'roomRecords', (row, path) => known(people, row.personId, path, 'somebody'));
  await each(rows.works, 'works', (row, path) => {
    known(people, row.personId, path, 'somebody');
    known(machines, row.machineId, path, 'a machine');
    for (const { holdingId } of row.sources) known(holdings, holdingId, path, 'a holding');
  });
}
