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

/** Rounds after which the search for the smallest set gives up and takes a minimal one. */
const MOST_ROUNDS = 60;
/** Slack of the solver that counts as none. */
const NO_SLACK = 1e-6;

/** What contradicts each other, and what would end it. */
export interface Conflicts {
  /** Each the smallest there is: without any one of them the rest of the set can be kept. No limit is in two of them. */
  sets: Named[][];
  /** Every limit without which all the others can be kept; where no single one is enough, the fewest that together are. */
  giveUp: Named[][];
}

/** Contradictions that are looked for. */
const MOST_SETS = 4;

/** Sets of limits that cannot be kept together, and the fewest to give up; none where all can be kept. */
export function conflictsIn(solver: LinearSolver, frame: readonly Row[], all: readonly Constraint[]): Conflicts {
  const without = (out: readonly Constraint[]): Constraint[] => all.filter((row) => !out.includes(row));
  const sets: Constraint[][] = [];
  while (sets.length < MOST_SETS) {
    const left = without(sets.flat());
    const set = feasible(solver, frame, left) ? [] : smallestIn(solver, frame, left);
    if (set.length === 0) break;
    sets.push(set);
  }
  const [first = []] = sets;
  const alone = first.filter((row) => feasible(solver, frame, without([row])));
  const groups = alone.length > 0 ? alone.map((row) => [row]) : [fewest(solver, frame, all, sets)];
  const named = (rows: readonly Constraint[]): Named[] => rows.map(({ id, words }) => ({ id, words }));
  return { sets: sets.map(named), giveUp: groups.filter((group) => group.length > 0).map(named) };
}

/** The fewest limits without which the others can be kept: they are in every contradiction, of which more are found as needed. */
function fewest(
  solver: LinearSolver,
  frame: readonly Row[],
  all: readonly Constraint[],
  known: readonly (readonly Constraint[])[],
): Constraint[] {
  const sets = known.map((set) => set.map((row) => all.indexOf(row)));
  for (let round = 0; round < MOST_ROUNDS && sets.length > 0; round += 1) {
    const out = smallestHitting(sets);
    const left = all.filter((_, index) => !out.includes(index));
    if (feasible(solver, frame, left)) return all.filter((_, index) => out.includes(index));
    sets.push(smallestIn(solver, frame, left).map((row) => all.indexOf(row)));
  }
  return [];
}

/**
 * The smallest set that cannot be kept, by implicit hitting sets (Ignatiev, Previti, Liffiton and Marques-Silva 2015):
 * whatever can be kept together leaves out at least one of every contradiction, so a smallest set that meets all that
 * was left out so far is either the smallest contradiction, or can be kept and shows what else is left out.
 */
function smallestIn(solver: LinearSolver, frame: readonly Row[], all: readonly Constraint[]): Constraint[] {
  const leftOut: number[][] = [];
  for (let round = 0; round < MOST_ROUNDS; round += 1) {
    const hitting = smallestHitting(leftOut);
    const set = all.filter((_, index) => hitting.includes(index));
    if (!feasible(solver, frame, set)) return filter(solver, frame, set);
    const out = outsideOf(solver, frame, all, new Set(hitting));
    if (out.length === 0 || out.some((index) => hitting.includes(index))) break;
    leftOut.push(out);
  }
  return filter(solver, frame, all);
}

/** What is not kept where `hard` is and as much of the rest as goes: their places in `all`. */
function outsideOf(
  solver: LinearSolver,
  frame: readonly Row[],
  all: readonly Constraint[],
  hard: ReadonlySet<number>,
): number[] {
  const least: [string, number][] = [];
  const slacks = new Map<string, number>();
  const rows = all.flatMap((constraint, index) =>
    constraint.rows.map((row, part): Row => {
      if (hard.has(index)) return row;
      const scale = Math.max(1e-9, ...row.terms.map(([, factor]) => Math.abs(factor)));
      const [under, over] = [`a${index}_${part}`, `z${index}_${part}`];
      const terms = [...row.terms];
      for (const [name, sign, open] of [
        [under, 1, row.sense !== '<='],
        [over, -1, row.sense !== '>='],
      ] as const) {
        if (!open) continue;
        terms.push([name, sign * scale]);
        least.push([name, 1]);
        slacks.set(name, index);
      }
      return { ...row, terms };
    }),
  );
  const found = solveProgram(solver, { least, rows: [...frame, ...rows] });
  if (!found) return [];
  const out = new Set<number>();
  for (const [name, index] of slacks) if ((found.get(name) ?? 0) > NO_SLACK) out.add(index);
  return [...out].sort((a, b) => a - b);
}

/** A smallest set of numbers that has one of every list, by depth-first search with a bound. */
function smallestHitting(lists: readonly (readonly number[])[]): number[] {
  const found: { best: number[] | null } = { best: null };
  const visit = (taken: readonly number[]): void => {
    if (found.best !== null && taken.length >= found.best.length) return;
    const open = lists.filter((list) => !list.some((index) => taken.includes(index)));
    const next = open.reduce<readonly number[] | null>(
      (shortest, list) => (shortest === null || list.length < shortest.length ? list : shortest),
      null,
    );
    if (next === null) found.best = [...taken];
    else for (const index of next) visit([...taken, index]);
  };
  visit([]);
  return found.best ?? [];
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
