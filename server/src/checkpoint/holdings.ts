import type { PastHoldings } from '@wunsch/core/ledger/holdings';
import type { Holding } from '@wunsch/core/ledger/types';
import { columnSections, Growing, openColumns, type Columns } from './columns';
import type { SealedSteps } from './sealed-steps';
import { bytesOf, type Sections } from './sections';
import type { Words } from './words';

/** Holdings in columns, numbers of words but for the step that made each: that is a row. */
const HOLDING = {
  id: 'u32',
  code: 'u32',
  kind: 'few',
  name: 'few',
  place: 'few',
  route: 'few',
  batch: 'u32',
  material: 'few',
  madeBy: 'u32',
} as const;
/** Rows in the order of their codes. */
const BY_CODE = { row: 'u32' } as const;

const capitals = (code: string): string => code.toUpperCase();

/**
 * @param words grows by what they say
 * @param rowOf the row of a step
 */
export function sealHoldings(words: Words, holdings: Iterable<Holding>, rowOf: (stepId: string) => number): Sections {
  const columns = new Growing(HOLDING, null);
  const codes: { code: string; row: number }[] = [];
  for (const { id, code, kind, name, place, routeId, batchId, materialId, madeBy } of holdings) {
    codes.push({ code: capitals(code), row: codes.length });
    columns.add({
      id: words.number(id),
      code: words.number(code),
      kind: words.number(kind),
      name: words.number(name),
      place: words.number(place),
      route: words.number(routeId),
      batch: words.number(batchId),
      material: words.number(materialId),
      madeBy: rowOf(madeBy),
    });
  }
  codes.sort((a, b) => (a.code < b.code ? -1 : a.code > b.code ? 1 : 0));
  return {
    ...columnSections('holding', columns.whole()),
    'by-code.row': bytesOf(Uint32Array.from(codes, ({ row }) => row)),
  };
}

/** The holdings of a checkpoint, as the book takes them in. */
export class SealedHoldings implements PastHoldings {
  /** Row of a holding, plus one, by the number of its id. */
  private readonly rows: Uint32Array;

  constructor(
    private readonly words: Words,
    /** Those that made them. */
    private readonly steps: SealedSteps,
    private readonly columns: Columns<typeof HOLDING>,
    private readonly byCode: Columns<typeof BY_CODE>,
  ) {
    this.rows = new Uint32Array(words.length);
    for (const [row, id] of columns.id.entries()) this.rows[id] = row + 1;
  }

  get size(): number {
    return this.columns.id.length;
  }

  holding(row: number): Holding {
    const { id, kind, name, place, route, batch, material, madeBy } = this.columns;
    const shared = (number: number): string | null => this.words.text(number);
    return {
      id: this.words.read(id[row] ?? 0) ?? '',
      code: this.code(row),
      kind: shared(kind.at(row)) as Holding['kind'],
      name: shared(name.at(row)) ?? '',
      place: shared(place.at(row)) as Holding['place'],
      routeId: shared(route.at(row)),
      batchId: shared(batch[row] ?? 0),
      materialId: shared(material.at(row)),
      madeBy: this.steps.idOf(madeBy[row] ?? 0),
    };
  }

  codeOf(row: number): Pick<Holding, 'code' | 'kind'> {
    return { code: this.code(row), kind: this.words.text(this.columns.kind.at(row)) as Holding['kind'] };
  }

  rowOf(id: string): number | undefined {
    const row = this.rows[this.words.find(id) ?? 0] ?? 0;
    return row === 0 ? undefined : row - 1;
  }

  private code(row: number): string {
    return this.words.read(this.columns.code[row] ?? 0) ?? '';
  }

  *startingWith(beginning: string): Generator<number> {
    const { row: rows } = this.byCode;
    let [low, high] = [0, rows.length];
    while (low < high) {
      const middle = (low + high) >>> 1;
      if (capitals(this.code(rows[middle] ?? 0)) < beginning) low = middle + 1;
      else high = middle;
    }
    for (const row of rows.subarray(low)) {
      if (!capitals(this.code(row)).startsWith(beginning)) return;
      yield row;
    }
  }
}

/** The holdings of a checkpoint. @param steps those that made them. @throws Error where it is no whole one */
export const openHoldings = (words: Words, steps: SealedSteps, sections: Sections): SealedHoldings =>
  new SealedHoldings(
    words,
    steps,
    openColumns('holding', HOLDING, sections),
    openColumns('by-code', BY_CODE, sections),
  );
