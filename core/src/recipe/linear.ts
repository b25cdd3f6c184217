/* Linear programs, and the solver they are handed to: HiGHS, loaded by whoever has the thread for it. */

/** What of HiGHS is used here. */
export interface LinearSolver {
  solve(
    problem: string,
    options?: Record<string, never>,
  ): {
    Status: string;
    Columns: Record<string, { Primal?: number }>;
  };
}

export interface Row {
  terms: readonly (readonly [variable: string, factor: number])[];
  sense: '<=' | '>=' | '=';
  right: number;
}

export interface LinearProgram {
  least: readonly (readonly [variable: string, factor: number])[];
  rows: readonly Row[];
  /** Every variable is at least 0; these have other bounds, or are whole numbers. */
  bounds?: readonly { variable: string; least?: number; most?: number }[];
  whole?: readonly string[];
}

/** Factors below it are rounding: they would only trouble the solver. */
const NOTHING = 1e-12;

const figure = (value: number): string => (Math.abs(value) < NOTHING ? '0' : String(Number(value.toPrecision(15))));

function sum(terms: Row['terms']): string {
  const merged = new Map<string, number>();
  for (const [variable, factor] of terms) merged.set(variable, (merged.get(variable) ?? 0) + factor);
  const text = [...merged]
    .filter(([, factor]) => Math.abs(factor) > NOTHING)
    .map(([variable, factor]) => `${factor < 0 ? '-' : '+'} ${figure(Math.abs(factor))} ${variable}`)
    .join(' ');
  return text === '' ? `0 ${terms[0]?.[0] ?? 'none'}` : text;
}

/** The program in the CPLEX LP format, which HiGHS reads. */
export function writeProgram({ least, rows, bounds = [], whole = [] }: LinearProgram): string {
  return [
    'Minimize',
    ` goal: ${least.length === 0 ? '0 none' : sum(least)}`,
    'Subject To',
    ...rows.map(({ terms, sense, right }, index) => ` r${index}: ${sum(terms)} ${sense} ${figure(right)}`),
    'Bounds',
    ...bounds.map(
      ({ variable, least: low = 0, most }) =>
        ` ${figure(low)} <= ${variable}${most === undefined ? '' : ` <= ${figure(most)}`}`,
    ),
    ...(whole.length > 0 ? ['General', ` ${whole.join(' ')}`] : []),
    'End',
  ].join('\n');
}

/** How HiGHS says that it stopped before it was sure: the best it had found still holds. */
const STOPPED = ['Time limit reached', 'Iteration limit reached', 'Solution limit reached'];

/**
 * Solves a linear program.
 *
 * @param options of HiGHS, such as a limit on branches
 * @returns the variables that are not 0; null where nothing fits
 */
export function solveProgram(
  solver: LinearSolver,
  program: LinearProgram,
  options: Record<string, unknown> = {},
): Map<string, number> | null {
  // Programs of a few rows are done before a presolve has looked at them.
  const small = program.whole === undefined ? { presolve: 'off', solver: 'simplex' } : {};
  const answer = solver.solve(writeProgram(program), {
    output_flag: false,
    ...small,
    ...options,
  } as unknown as Record<string, never>);
  const found = answer.Status === 'Optimal' || (STOPPED.includes(answer.Status) && hasValues(answer.Columns));
  if (!found) return null;
  return new Map(Object.entries(answer.Columns).map(([name, { Primal = 0 }]) => [name, Primal]));
}

const hasValues = (columns: Record<string, { Primal?: number }>): boolean =>
  Object.values(columns).some(({ Primal }) => Primal !== undefined && Number.isFinite(Primal));
