import { solveProgram, type LinearSolver, type Row } from './linear';

/** A limit that has its say, with the words it is known by. */
export interface Named {
  id: string;
  words: string;
}

export interface Constraint extends Named {
  rows: Row[];
  /** Soft ones may be left when nothing fits; the house's own cannot. */
  soft: boolean;
}

const feasible = (solver: LinearSolver, frame: readonly Row[], constraints: readonly Constraint[]): boolean =>
  solveProgram(solver, {
    least: [],
    rows: [...frame, ...constraints.flatMap(({ rows }) => rows)],
  }) !== null;

/** Beyond so many limits pairs are not tried one by one. */
const MOST_PAIRS = 24;

/**
 * Sets of limits that cannot be kept together, each as small as can be: without any one of them the rest of the set can.
 * One alone and two together are looked for first; then a deletion filter (Chinneck 2008), forwards and backwards.
 *
 * @returns sets without a limit in common, until what is left fits; empty where all fit
 */
export function conflictsIn(solver: LinearSolver, frame: readonly Row[], all: readonly Constraint[]): Named[][] {
  const found: Constraint[][] = [];
  let left = [...all];
  while (found.length < 4 && !feasible(solver, frame, left)) {
    const set = smallestIn(solver, frame, left);
    if (set.length === 0) break;
    found.push(set);
    left = left.filter((row) => !set.includes(row));
  }
  return found.map((set) => set.map(({ id, words }) => ({ id, words })));
}

function smallestIn(solver: LinearSolver, frame: readonly Row[], all: readonly Constraint[]): Constraint[] {
  const alone = all.find((row) => !feasible(solver, frame, [row]));
  if (alone) return [alone];
  const filtered = [filter(solver, frame, all), filter(solver, frame, [...all].reverse())].sort(
    (a, b) => a.length - b.length,
  );
  const best = filtered[0] ?? [];
  if (best.length <= 2 || all.length > MOST_PAIRS) return best;
  for (const [index, one] of all.entries())
    for (const other of all.slice(index + 1)) if (!feasible(solver, frame, [one, other])) return [one, other];
  return best;
}

/** Takes out one limit after the other; those without which it fits stay in. */
function filter(solver: LinearSolver, frame: readonly Row[], all: readonly Constraint[]): Constraint[] {
  let set = [...all];
  for (const row of all) {
    const without = set.filter((other) => other !== row);
    if (!feasible(solver, frame, without)) set = without;
  }
  return set;
}
