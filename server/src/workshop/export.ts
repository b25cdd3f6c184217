import { setImmediate as breathe } from 'node:timers/promises';
import { curveData } from '../roast/loads';
import type { Workshop } from './workshop';

const byId = <T extends { id: string }>(rows: Iterable<T>): T[] => [...rows].sort((a, b) => (a.id < b.id ? -1 : 1));

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

/** Rows that are written before others get their turn. */
const AT_ONCE = 200;

async function* list(rows: readonly unknown[]): AsyncGenerator<string> {
  yield '[';
  for (let i = 0; i < rows.length; i += AT_ONCE) {
    yield (
      (i > 0 ? ',' : '') +
      rows
        .slice(i, i + AT_ONCE)
        .map(text)
        .join(',')
    );
    await breathe();
  }
  yield ']';
}

/** Rows that are fetched one by one, as they are large. */
async function* fetched<T>(ids: readonly T[], fetch: (id: T) => Promise<unknown>): AsyncGenerator<string> {
  yield '[';
  let first = true;
  for (const id of ids) {
    const row = await fetch(id);
    if (row === null) continue;
    yield (first ? '' : ',') + text(row);
    first = false;
    await breathe();
  }
  yield ']';
}

/**
 * The whole workshop as one JSON document, in pieces: pictures and curves are read one at a time, and others are
 * answered in between. What is entered while it runs is not in it.
 */
export async function* exportPieces(workshop: Workshop): AsyncGenerator<string> {
  const { book, beans, recipes, records, roasts } = workshop;
  // Taken together now: holdings are the only rows that change in place.
  const files = byId(beans.files.values());
  const curves = byId(roasts.curves.values());
  const rows: Record<string, readonly unknown[]> = {
    batches: byId(workshop.batches.values()),
    beanRecords: byId(beans.everything()),
    holdings: byId(book.holdings.values()).map((row) => ({ ...row })),
    lots: byId([...workshop.lots].map(([id, facts]) => ({ id, facts }))),
    machines: byId(workshop.machines.values()),
    materials: byId(workshop.materials.values()),
    people: byId(workshop.people.values()),
    recipeRecords: byId(recipes.everything()),
    roastRecords: byId(roasts.everything()),
    roomRecords: byId(records.everything()),
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
      yield* fetched(files, async (file) => ({
        ...file,
        data: Buffer.from((await workshop.fileBytes(file.id)) ?? []).toString('base64'),
      }));
    else if (key === 'curves')
      yield* fetched(curves, async (meta) => {
        const curve = await workshop.readCurve(meta.id);
        return curve ? { ...meta, ...curveData(curve) } : null;
      });
    else yield text(single[key]);
  }
  yield '}';
}

/** The same in one string, where it is small enough for one. */
export async function exportWorkshop(workshop: Workshop): Promise<string> {
  let whole = '';
  for await (const piece of exportPieces(workshop)) whole += piece;
  return whole;
}
