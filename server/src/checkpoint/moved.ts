import { ends } from './columns';
import { bytesOf, numbersIn, type Sections } from './sections';
import { WITHDRAWN, type StepTables } from './step-columns';

/** What steps come to, worked out when they are sealed: a start has no need to go through them. */
export interface Moved {
  /** Rows of those in force, in the order of the work. */
  inForce: Uint32Array;
  /** Of those, rows that moved something in a holding, from `entryStart` of its number to that of the next. */
  entryRows: Uint32Array;
  entryStart: Uint32Array;
  /** Numbers of holdings with something in them, and what that is. */
  holding: Uint32Array;
  mass: Float64Array;
  pieces: Float64Array;
}

const KINDS = {
  inForce: Uint32Array,
  entryRows: Uint32Array,
  entryStart: Uint32Array,
  holding: Uint32Array,
  mass: Float64Array,
  pieces: Float64Array,
} as const;

type Tables = Pick<StepTables, 'steps' | 'postings'>;

/** @param words how many there are: holdings are numbered among them */
export function movedIn(tables: Tables, words: number): Moved {
  const inForce = rowsInForce(tables);
  const [entryStart, entryRows] = entriesOf(tables, inForce, words);
  return { inForce, entryStart, entryRows, ...balancesOf(tables, inForce, words) };
}

export const movedSections = (moved: Moved): Sections =>
  Object.fromEntries(Object.keys(KINDS).map((name) => [`moved.${name}`, bytesOf(moved[name as keyof Moved])]));

/** @throws Error where something of it is not there */
export const openMoved = (sections: Sections): Moved =>
  Object.fromEntries(
    Object.entries(KINDS).map(([name, kind]) => [
      name,
      kind === Uint32Array
        ? numbersIn(Uint32Array, sections, `moved.${name}`)
        : numbersIn(Float64Array, sections, `moved.${name}`),
    ]),
  ) as unknown as Moved;

/** Says of a row whether it is in force: neither replaced nor taken back. */
export function inForce({ supersedes, flags }: StepTables['steps']): (row: number) => boolean {
  const replaced = new Uint8Array(flags.length);
  for (const [, old] of supersedes.entries()) replaced[old - 1] = 1;
  return (row) => replaced[row] === 0 && ((flags[row] ?? 0) & WITHDRAWN) === 0;
}

function rowsInForce({ steps }: Tables): Uint32Array {
  const { flags, at, order } = steps;
  const isInForce = inForce(steps);
  const rows: number[] = [];
  for (let row = 0; row < flags.length; row += 1) if (isInForce(row)) rows.push(row);
  rows.sort((a, b) => at.at(a) - at.at(b) || order.at(a) - order.at(b));
  return Uint32Array.from(rows);
}

function entriesOf(
  { steps: { postingEnd }, postings: { holding } }: Tables,
  rows: Uint32Array,
  words: number,
): [start: Uint32Array, rows: Uint32Array] {
  const start = new Uint32Array(words + 1);
  let next: Uint32Array | null = null;
  let list = new Uint32Array(0);
  // Counted first, then put in its place.
  for (const pass of ['count', 'place']) {
    const last = new Int32Array(words).fill(-1);
    if (pass === 'place') {
      for (let i = 1; i <= words; i += 1) start[i] = (start[i] ?? 0) + (start[i - 1] ?? 0);
      next = start.slice();
      list = new Uint32Array(start[words] ?? 0);
    }
    for (const row of rows) {
      const [from, to] = ends(postingEnd, row);
      for (let i = from; i < to; i += 1) {
        const number = holding[i] ?? 0;
        // A step may name one holding twice.
        if (number === 0 || last[number] === row) continue;
        last[number] = row;
        if (next === null) start[number + 1] = (start[number + 1] ?? 0) + 1;
        else {
          const at = next[number] ?? 0;
          list[at] = row;
          next[number] = at + 1;
        }
      }
    }
  }
  return [start, list];
}

function balancesOf(
  { steps: { postingEnd }, postings: { holding, mass, pieces } }: Tables,
  rows: Uint32Array,
  words: number,
): Pick<Moved, 'holding' | 'mass' | 'pieces'> {
  const [masses, counts] = [new Float64Array(words), new Float64Array(words)];
  for (const row of rows) {
    const [from, to] = ends(postingEnd, row);
    for (let i = from; i < to; i += 1) {
      const number = holding[i] ?? 0;
      masses[number] = (masses[number] ?? 0) + mass.at(i);
      counts[number] = (counts[number] ?? 0) + pieces.at(i);
    }
  }
  // Number 0 is what no holding has.
  const found = Uint32Array.from(masses.keys()).filter(
    (number) => number > 0 && (masses[number] !== 0 || counts[number] !== 0),
  );
  const of = (all: Float64Array): Float64Array => Float64Array.from(found, (number) => all[number] ?? 0);
  return { holding: found, mass: of(masses), pieces: of(counts) };
}
