import { Readable } from 'node:stream';
import { z } from 'zod';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { recipeRecord } from '@wunsch/core/recipe/records';
import { isRoom, ROOM_RECORDS } from '@wunsch/core/records';
import { roastRecord } from '@wunsch/core/roast/records';
import { beanRecord } from '@wunsch/core/beans/records';
import { Book } from '@wunsch/core/ledger/book';
import { firstMisfit } from '@wunsch/core/workshop/rows';
import { settings } from '@wunsch/core/workshop/schemas';
import { sniff } from '../beans/sniff';
import { MOST_READINGS } from '../roast/import';
import type { Router } from '../http/router';
import { noChanges, write, type Changes, type FileMeta } from '../store/records';
import { exportPieces } from './export';
import type { Workshop } from './workshop';

const row = z.record(z.string(), z.unknown()).and(z.object({ id: z.string().min(1) }));
const bundle = z.object({
  format: z.literal('wunsch-workshop'),
  version: z.literal(1),
  settings: z.record(z.string(), z.unknown()),
  people: z.array(row),
  machines: z.array(row),
  materials: z.array(row),
  routes: z.array(row),
  holdings: z.array(row),
  lots: z.array(row),
  batches: z.array(row),
  steps: z.array(row.and(z.object({ postings: z.array(z.unknown()) }))),
  works: z.array(row),
  /** Absent in files from before beans had records. */
  beanRecords: z.array(row.and(z.object({ value: z.unknown() }))).default([]),
  files: z.array(row.and(z.object({ data: z.base64() }))).default([]),
  /** Absent in files from before roasts had programs and curves. */
  roastRecords: z.array(row.and(z.object({ value: z.unknown() }))).default([]),
  /** Absent in files from before there were recipes. */
  recipeRecords: z.array(row.and(z.object({ value: z.unknown() }))).default([]),
  /** Absent in files from before there were records of other rooms. */
  roomRecords: z.array(row.and(z.object({ room: z.string(), value: z.unknown() }))).default([]),
  curves: z
    .array(
      row.and(
        z.object({
          seconds: z.array(z.number()).max(MOST_READINGS),
          beanC: z.array(z.number().nullable()).max(MOST_READINGS),
          airC: z.array(z.number().nullable()).max(MOST_READINGS),
        }),
      ),
    )
    .default([]),
});

export { exportWorkshop } from './export';

/** A document as it is uploaded or read back. @throws ZodError where it is no export */
export const readBundle = (document: unknown): z.infer<typeof bundle> => bundle.parse(document);

/**
 * Restores an export into an empty workshop: every step is checked by the ledger first; all or nothing.
 *
 * @param replacing whether it may stand in the place of what is here: a backup of that was made before
 */
export async function restoreWorkshop(
  workshop: Workshop,
  input: z.infer<typeof bundle>,
  replacing = false,
): Promise<void> {
  const furnished =
    workshop.people.size + workshop.machines.size + workshop.materials.size + workshop.works.size > 0 ||
    [...workshop.beans.everything()].length +
      [...workshop.roasts.everything()].length +
      workshop.recipes.everything().length +
      workshop.records.everything().length >
      0;
  if (!replacing && (workshop.book.steps.size > 0 || furnished)) {
    throw new DomainError(
      'workshop/not-empty',
      'A restore goes into an empty workshop only, without team, machines or records. Start one with another WUNSCH_DATA directory.',
    );
  }
  const changes = {
    ...noChanges(),
    ...(input as unknown as Omit<Changes, 'files' | 'curves'>),
    files: input.files.map(readFile),
    beanRecords: input.beanRecords.map(readRecord),
    roastRecords: input.roastRecords.map(readRoastRecord),
    recipeRecords: input.recipeRecords.map((row, index) => {
      const value = recipeRecord.safeParse(row.value);
      if (!value.success) throw badRestore(`recipeRecords.${index}`, `Recipe record ${index + 1} cannot be read.`);
      return { ...(row as unknown as Changes['recipeRecords'][number]), value: value.data };
    }),
    roomRecords: input.roomRecords.map((row, index) => {
      const value = isRoom(row.room) ? ROOM_RECORDS[row.room].safeParse(row.value) : null;
      if (value?.success !== true) throw badRestore(`roomRecords.${index}`, `Record ${index + 1} cannot be read.`);
      return { ...(row as unknown as Changes['roomRecords'][number]), value: value.data };
    }),
    curves: input.curves.map(readCurveRow),
  };
  const misfit = firstMisfit(changes);
  if (misfit)
    throw badRestore(`${misfit.table}.${misfit.index}`, `${misfit.table}, row ${misfit.index + 1}: ${misfit.detail}.`);
  checkReferences(changes);
  checkByLedger(changes);
  const { format: _f, version: _v, ...rest } = changes as typeof changes & { format: string; version: number };
  const own = settings.safeParse(input.settings);
  if (!own.success) throw badRestore('settings', 'The settings cannot be read.');
  const whole = { ...rest, settings: own.data };
  try {
    await write(workshop.db, whole, true);
  } catch {
    throw badRestore('', 'Some row of the file lacks what it needs.');
  }
  await workshop.reload();
}

function readFile({ data, ...file }: z.infer<typeof bundle>['files'][number], index: number): Changes['files'][number] {
  const bytes = Buffer.from(data, 'base64');
  if (sniff(bytes).type !== file['type'])
    throw badRestore(`files.${index}`, `File ${index + 1} is not what it says it is.`);
  return { ...(file as unknown as FileMeta), bytes };
}

function readRecord(row: z.infer<typeof bundle>['beanRecords'][number], index: number): Changes['beanRecords'][number] {
  const value = beanRecord.safeParse(row.value);
  if (!value.success) throw badRestore(`beanRecords.${index}`, `Bean record ${index + 1} cannot be read.`);
  return { ...(row as unknown as Changes['beanRecords'][number]), value: value.data };
}

function readRoastRecord(
  row: z.infer<typeof bundle>['roastRecords'][number],
  index: number,
): Changes['roastRecords'][number] {
  const value = roastRecord.safeParse(row.value);
  if (!value.success) throw badRestore(`roastRecords.${index}`, `Roast record ${index + 1} cannot be read.`);
  return { ...(row as unknown as Changes['roastRecords'][number]), value: value.data };
}

function readCurveRow(
  { seconds, beanC, airC, ...meta }: z.infer<typeof bundle>['curves'][number],
  index: number,
): Changes['curves'][number] {
  if (beanC.length !== seconds.length || airC.length !== seconds.length)
    throw badRestore(`curves.${index}`, `Curve ${index + 1} has columns of different lengths.`);
  const floats = (values: (number | null)[]): Float64Array => Float64Array.from(values, (value) => value ?? NaN);
  const curve = { seconds: Float64Array.from(seconds), beanC: floats(beanC), airC: floats(airC) };
  return { ...(meta as unknown as Changes['curves'][number]), readings: seconds.length, curve };
}

const badRestore = (path: string, detail: string): DomainError =>
  new DomainError('workshop/bad-restore', `The file does not fit: ${detail} Nothing was restored.`, [
    { path, message: detail },
  ]);

/** Whatever one row says of another has to be in the file too. */
function checkReferences(changes: Changes): void {
  const ids = (rows: readonly { id: string }[]): Set<string> => new Set(rows.map(({ id }) => id));
  const [holdings, people, routes, batches, machines] = [
    ids(changes.holdings),
    ids(changes.people),
    ids(changes.routes),
    ids(changes.batches),
    ids(changes.machines),
  ];
  const known = (set: Set<string>, id: string | null, path: string, what: string): void => {
    if (id !== null && !set.has(id))
      throw badRestore(path, `${path.replace('.', ', row ')} names ${what} that is not in it.`);
  };
  changes.holdings.forEach((row, i) => known(routes, row.routeId, `holdings.${i}`, 'a route'));
  changes.batches.forEach((row, i) => {
    known(holdings, row.id, `batches.${i}`, 'a holding');
    known(routes, row.routeId, `batches.${i}`, 'a route');
  });
  changes.lots.forEach((row, i) => known(holdings, row.id, `lots.${i}`, 'a holding'));
  changes.steps.forEach((row, i) => {
    known(people, row.personId, `steps.${i}`, 'somebody');
    known(batches, row.batchId, `steps.${i}`, 'a batch');
    known(machines, row.machineId, `steps.${i}`, 'a machine');
    for (const id of Object.values(row.slots)) known(holdings, id, `steps.${i}`, 'a holding');
  });
  changes.recipeRecords.forEach((row, i) => {
    known(people, row.personId, `recipeRecords.${i}`, 'somebody');
    if (row.value.kind === 'weighed') known(holdings, row.value.holdingId, `recipeRecords.${i}`, 'a holding');
  });
  changes.roomRecords.forEach((row, i) => known(people, row.personId, `roomRecords.${i}`, 'somebody'));
  changes.works.forEach((row, i) => {
    known(people, row.personId, `works.${i}`, 'somebody');
    for (const { holdingId } of row.sources) known(holdings, holdingId, `works.${i}`, 'a holding');
  });
}

/** Every step of the file, entered in a book of its own. */
function checkByLedger(changes: Pick<ReturnType<typeof noChanges>, 'holdings' | 'steps'>): void {
  const trial = new Book();
  changes.holdings.forEach((holding, index) => {
    if (typeof holding.code !== 'string') throw badRestore(`holdings.${index}`, `Holding ${index + 1} has no code.`);
    trial.addHolding(holding);
  });
  try {
    for (const step of changes.steps) trial.insert(step);
    trial.checkWhole();
  } catch (error) {
    const detail = error instanceof DomainError ? error.message : 'A step cannot be read.';
    throw badRestore('steps', detail);
  }
}

/** A restore is one document: ten years of work are some hundred megabytes. */
const RESTORE_LIMIT = 256 * 1024 * 1024;

export function dataRoutes(router: Router): void {
  const { workshop } = router;
  router.download('/api/workshop/export.json', 'Everything, as one JSON document', () =>
    Promise.resolve({ type: 'application/json; charset=utf-8', stream: Readable.from(exportPieces(workshop)) }),
  );
  router.write(
    'POST',
    '/api/workshop/restore',
    'Restore an export into an empty workshop',
    bundle,
    async (body) => {
      await restoreWorkshop(workshop, body);
      return { steps: workshop.book.steps.size };
    },
    RESTORE_LIMIT,
  );
}
