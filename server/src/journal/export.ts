import { recordVersion, type AnyRoom } from '@wunsch/core/records';
import { Readable } from 'node:stream';
import { setImmediate as breathe } from 'node:timers/promises';
import type { CurveMeta, FileMeta } from '@wunsch/core/workshop/kept';
import { SealedStep } from '../checkpoint/sealed-steps';
import { CURVE_VERSION } from './curve-versions';
import type { Workshop } from './workshop';

const byId = <T extends { id: string }>(rows: Iterable<T>): T[] => [...rows].sort((a, b) => (a.id < b.id ? -1 : 1));

/** Records with the version of their kind. @param room of all of them; null where each names its own */
const versioned = (
  room: AnyRoom | null,
  rows: Iterable<{ id: string; value: { kind: string }; room?: AnyRoom }>,
): { id: string }[] =>
  byId(rows).map((row) => ({ ...row, v: recordVersion(room ?? row.room ?? 'beans', row.value.kind) }));

/** Keys in one order everywhere, so that the same workshop always gives the same bytes. */
function ordered(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(ordered);
  if (value === null || typeof value !== 'object') return value;
  return Object.fromEntries(
    Object.entries(value)
      .filter(([, v]) => v !== undefined)
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([k, v]) => [k, ordered(v)]),
  );
}

const text = (value: unknown): string => JSON.stringify(ordered(value));

/** A row with its fields its own: steps of the past have them from elsewhere. */
const plain = (row: unknown): unknown => (row instanceof SealedStep ? row.toJSON() : row);

/** Rows that are written before others get their turn. */
const AT_ONCE = 200;

async function* list(rows: readonly unknown[]): AsyncGenerator<string> {
  yield '[';
  for (let i = 0; i < rows.length; i += AT_ONCE) {
    yield (
      (i > 0 ? ',' : '') +
      rows
        .slice(i, i + AT_ONCE)
        .map((row) => text(plain(row)))
        .join(',')
    );
    await breathe();
  }
  yield ']';
}

/** Rows that are fetched one by one, as they are large; each in pieces, nothing where there is none. */
async function* fetched<T>(rows: readonly T[], pieces: (row: T) => AsyncGenerator<string>): AsyncGenerator<string> {
  yield '[';
  let first = true;
  for (const row of rows) {
    let begun = false;
    for await (const piece of pieces(row)) {
      yield begun || first ? piece : `,${piece}`;
      begun = true;
      first = false;
    }
    await breathe();
  }
  yield ']';
}

/** A photo or paper with its bytes as Base64. */
async function* fileWithin(workshop: Workshop, file: FileMeta): AsyncGenerator<string> {
  const { files } = workshop.store;
  if (!(await files.has(file.sha256))) return;
  // Nothing else in a row reads like this: within a text the quotes would be escaped.
  const [head = '', tail = ''] = text({ ...file, data: '' }).split('"data":""');
  yield `${head}"data":"`;
  let over = Buffer.alloc(0);
  for await (const chunk of files.open(file.sha256)) {
    const bytes = Buffer.concat([over, chunk as Buffer]);
    // Three bytes make four letters; what is over waits for the next.
    const whole = bytes.length - (bytes.length % 3);
    yield bytes.toString('base64', 0, whole);
    over = bytes.subarray(whole);
  }
  yield `${over.toString('base64')}"${tail}`;
}

async function* fileBeside(workshop: Workshop, file: FileMeta): AsyncGenerator<string> {
  if (await workshop.store.files.has(file.sha256)) yield text(file);
}

async function* curveRow(workshop: Workshop, meta: CurveMeta): AsyncGenerator<string> {
  const curve = await workshop.readCurve(meta.id);
  if (!curve) return;
  const plain = (of: Float64Array): (number | null)[] => Array.from(of, (it) => (Number.isFinite(it) ? it : null));
  const seconds = Array.from(curve.seconds);
  // It may have grown since its head was read.
  const head = { ...meta, v: CURVE_VERSION, readings: seconds.length };
  yield text({ ...head, seconds, values: curve.values.map(plain) });
}

/**
 * The whole workshop as one JSON document, in pieces: pictures and curves are read one at a time, and others are
 * answered in between. What is entered while it runs is not in it.
 *
 * @param within whether photos and papers are in it, as Base64; else they go beside it
 */
export async function* exportPieces(workshop: Workshop, within = true): AsyncGenerator<string> {
  const { book, beans, recipes, records, roasts } = workshop;
  // Taken together now: holdings are the only rows that change in place.
  const files = byId(beans.files.values());
  const curves = byId(roasts.curves.values());
  const rows: Record<string, readonly unknown[]> = {
    batches: byId(workshop.batches.values()),
    beanRecords: versioned('beans', beans.everything()),
    holdings: byId(book.holdings.values()).map((row) => ({ ...row })),
    lots: byId([...workshop.lots].map(([id, facts]) => ({ id, facts }))),
    machines: byId(workshop.machines.values()),
    materials: byId(workshop.materials.values()),
    people: byId(workshop.people.values()),
    recipeRecords: versioned('recipe', recipes.everything()),
    roastRecords: versioned('roast', roasts.everything()),
    roomRecords: versioned(null, records.everything()),
    routes: byId(workshop.routes.values()),
    steps: [...book.steps.values()].sort((a, b) => a.seq - b.seq),
    works: byId(workshop.works.values()),
  };
  const single: Record<string, unknown> = { format: 'wunsch-workshop', settings: workshop.settings, version: 1 };
  const keys = [...Object.keys(rows), ...Object.keys(single), 'curves', 'files'].sort();
  for (const [index, key] of keys.entries()) {
    yield `${index === 0 ? '{' : ','}${JSON.stringify(key)}:`;
    const own = rows[key];
    if (own) yield* list(own);
    else if (key === 'files')
      yield* fetched(files, (file) => (within ? fileWithin(workshop, file) : fileBeside(workshop, file)));
    else if (key === 'curves') yield* fetched(curves, (meta) => curveRow(workshop, meta));
    else yield text(single[key]);
  }
  yield '}';
}

export const exportStream = (workshop: Workshop): Readable => Readable.from(exportPieces(workshop));

/** The same in one string, where it is small enough for one. */
export async function exportWorkshop(workshop: Workshop): Promise<string> {
  let whole = '';
  for await (const piece of exportPieces(workshop)) whole += piece;
  return whole;
}
