import type { Holding } from '@wunsch/core/ledger/types';
import { columnSections, Growing, openColumns } from './columns';
import type { Sections } from './sections';
import type { Words } from './words';

/** Holdings in columns, numbers of words but for the step that made each: that is a row. */
const HOLDING = {
  id: 'u32',
  kind: 'u32',
  name: 'u32',
  place: 'u32',
  route: 'u32',
  batch: 'u32',
  material: 'u32',
  madeBy: 'u32',
} as const;

/**
 * @param words grows by what they say
 * @param rowOf the row of a step
 */
export function sealHoldings(
  words: Words,
  holdings: readonly Holding[],
  rowOf: (stepId: string) => number,
): { codes: string[]; sections: Sections } {
  const columns = new Growing(HOLDING, null);
  for (const { id, kind, name, place, routeId, batchId, materialId, madeBy } of holdings)
    columns.add({
      id: words.number(id),
      kind: words.number(kind),
      name: words.number(name),
      place: words.number(place),
      route: words.number(routeId),
      batch: words.number(batchId),
      material: words.number(materialId),
      madeBy: rowOf(madeBy),
    });
  return { codes: holdings.map(({ code }) => code), sections: columnSections('holding', columns.whole()) };
}

/** The holdings of a checkpoint. @param ids of the steps, by row */
export function openHoldings(
  words: Words,
  { codes, ids }: { codes: readonly string[]; ids: readonly string[] },
  sections: Sections,
): Holding[] {
  const { id, kind, name, place, route, batch, material, madeBy } = openColumns('holding', HOLDING, sections);
  const text = (column: Uint32Array, row: number): string | null => words.text(column[row] ?? 0);
  return codes.map((code, row) => ({
    id: text(id, row) ?? '',
    code,
    kind: text(kind, row) as Holding['kind'],
    name: text(name, row) ?? '',
    place: text(place, row) as Holding['place'],
    routeId: text(route, row),
    batchId: text(batch, row),
    materialId: text(material, row),
    madeBy: ids[madeBy[row] ?? 0] ?? '',
  }));
}
