import { inverse, Matrix } from 'ml-matrix';
import { normalQuantile, studentQuantile, studentShare } from '../stats/distributions';
import { mean } from '../stats/spread';

/*
 * Which logged facts go with the panel's score, over all batches of a bean: least squares on all facts together where
 * batches allow it, on one fact at a time where they do not; every effect pulled towards none by a prior; "found" only
 * what survives Benjamini and Hochberg's step-up at the stated rate (J. R. Stat. Soc. B 57, 1995). Nothing here was
 * randomised: what goes with a score need not be its cause.
 */

export interface MattersRow {
  code: string;
  /** Mean of the panel's scores, 0 to 10. */
  score: number;
  /** By fact; null: not logged. */
  facts: Readonly<Record<string, number | null>>;
}

export interface FactEffect {
  fact: string;
  /** Batches that have it logged. */
  n: number;
  /** One usual step of it: its standard deviation over the batches. */
  step: number;
  /** Points for one such step, pulled towards none, with nine in ten. */
  effect: number;
  low: number;
  high: number;
  /** Chance of as much from nothing, before all facts are counted; null: cannot be told. */
  p: number | null;
  says: 'found' | 'little' | 'unknown';
  /** With the other facts held: fact and score of each batch. */
  partial: { code: string; x: number; y: number }[];
  why: string;
}

export interface MattersVerdict {
  facts: FactEffect[];
  /** Whether the facts were held against each other. */
  together: boolean;
  batches: number;
  rate: number;
  sentence: string;
  /** How far it may be believed; empty: nothing was found. */
  caveat: string;
}

/** In one such table of nothing out of so many something is found. */
export const FALSE_RATE = 0.1;
const LEVEL = 0.9;
/** How far one usual step of a fact usually moves a score, points. */
const PRIOR_SD = 0.5;
const FEWEST = 8;
/** Batches over the number of facts that leave something to judge by. */
const SPARE = 6;
/** Points that nobody would act on. */
const LITTLE = 0.25;

const sdOf = (values: readonly number[]): number => {
  const middle = mean(values);
  return Math.sqrt(values.reduce((sum, value) => sum + (value - middle) ** 2, 0) / Math.max(1, values.length - 1));
};

/**
 * An estimate pulled towards none: posterior of a normal effect about zero.
 *
 * @param estimate and its standard error; @param priorSd what effects usually are
 * @returns mean = estimate · priorSd² ÷ (priorSd² + error²), sd² = 1 ÷ (1 ÷ priorSd² + 1 ÷ error²)
 */
export function pulled(estimate: number, error: number, priorSd = PRIOR_SD): { mean: number; sd: number } {
  const share = priorSd ** 2 / (priorSd ** 2 + error ** 2);
  return { mean: estimate * share, sd: Math.sqrt(share) * error };
}

/** Least squares of y on centred columns. @returns estimates, errors, residuals; null: columns hang together */
function fit(
  columns: readonly (readonly number[])[],
  y: readonly number[],
): { b: number[]; error: number[]; left: number[]; dof: number } | null {
  const n = y.length;
  const k = columns.length;
  const dof = n - k - 1;
  if (dof < 1) return null;
  const x = new Matrix(Array.from({ length: n }, (_, i) => columns.map((column) => column[i] ?? 0)));
  const square = x.transpose().mmul(x);
  const inverted = inverse(square, true);
  // Columns that say the same leave nothing to tell them apart by.
  for (let i = 0; i < k; i += 1) if (square.get(i, i) * inverted.get(i, i) > 40) return null;
  const b = inverted
    .mmul(x.transpose())
    .mmul(Matrix.columnVector([...y]))
    .to1DArray();
  const left = y.map((value, i) => value - columns.reduce((sum, column, j) => sum + (column[i] ?? 0) * (b[j] ?? 0), 0));
  const s2 = Math.max(1e-12, left.reduce((sum, value) => sum + value * value, 0) / dof);
  return { b, error: b.map((_, i) => Math.sqrt(s2 * Math.max(0, inverted.get(i, i)))), left, dof };
}

const standard = (values: readonly number[]): number[] => {
  const [middle, sd] = [mean(values), sdOf(values)];
  return values.map((value) => (value - middle) / sd);
};

/** Facts that survive at the rate, all looks counted. @param ps one a fact */
export function survivors(ps: readonly number[], rate: number): boolean[] {
  const order = ps.map((p, i) => ({ p, i })).sort((a, b) => a.p - b.p);
  const last = order.findLastIndex(({ p }, rank) => p <= (rate * (rank + 1)) / ps.length);
  const found = new Set(order.slice(0, last + 1).map(({ i }) => i));
  return ps.map((_, i) => found.has(i));
}

/**
 * What goes with the score.
 *
 * @param rows batches of one bean; @param names facts in words, by key
 */
export function judgeMatters(
  rows: readonly MattersRow[],
  names: Readonly<Record<string, string>>,
  rate = FALSE_RATE,
): MattersVerdict {
  const keys = Object.keys(names);
  const logged = (key: string): MattersRow[] => rows.filter(({ facts }) => facts[key] != null);
  const valuesOf = (key: string, of: readonly MattersRow[]): number[] => of.map(({ facts }) => facts[key] ?? 0);
  const usable = keys.filter((key) => {
    const own = logged(key);
    return own.length >= FEWEST && sdOf(valuesOf(key, own)) > 1e-9;
  });
  const complete = rows.filter(({ facts }) => usable.every((key) => facts[key] != null));
  const joint =
    usable.length > 1 && complete.length >= usable.length + SPARE
      ? fit(
          usable.map((key) => standard(valuesOf(key, complete))),
          complete.map(({ score }) => score - mean(complete.map((row) => row.score))),
        )
      : null;
  const read = keys.map((key): FactEffect => {
    const own = joint && usable.includes(key) ? complete : logged(key);
    const values = valuesOf(key, own);
    const step = sdOf(values);
    const unknown = (why: string): FactEffect => ({
      fact: key,
      n: own.length,
      step,
      effect: 0,
      low: -LEVEL_HALF * PRIOR_SD,
      high: LEVEL_HALF * PRIOR_SD,
      p: null,
      says: 'unknown',
      partial: own.map(({ code, score }, i) => ({ code, x: values[i] ?? 0, y: score })),
      why,
    });
    if (own.length < FEWEST)
      return unknown(`Logged for ${own.length} of ${rows.length} tasted batches: too few to tell.`);
    if (!(step > 1e-9)) return unknown('It was the same in all of them: nothing to compare.');
    const index = usable.indexOf(key);
    const level = mean(own.map(({ score }) => score));
    const column = standard(values);
    const found =
      joint ??
      fit(
        [column],
        own.map(({ score }) => score - level),
      );
    if (!found) return unknown('Too few batches to tell.');
    const at = joint ? index : 0;
    const [estimate, error] = [found.b[at] ?? 0, found.error[at] ?? 0];
    // Few batches know their own scatter badly: the error counts as wide as Student's interval.
    const wide = (error * studentQuantile(0.5 + LEVEL / 2, found.dof)) / LEVEL_HALF;
    const { mean: effect, sd } = pulled(estimate, wide);
    return {
      fact: key,
      n: own.length,
      step,
      effect,
      low: effect - LEVEL_HALF * sd,
      high: effect + LEVEL_HALF * sd,
      p: 2 * (1 - studentShare(Math.abs(estimate / error), found.dof)),
      says: 'unknown',
      partial: own.map(({ code }, i) => ({
        code,
        x: values[i] ?? 0,
        y: level + estimate * (column[i] ?? 0) + (found.left[i] ?? 0),
      })),
      why: '',
    };
  });
  const tested = read.filter(({ p }) => p !== null);
  const alive = survivors(
    tested.map(({ p }) => p ?? 1),
    rate,
  );
  tested.forEach((row, i) => {
    const wide = Math.max(Math.abs(row.low), Math.abs(row.high));
    row.says = alive[i] ? 'found' : wide <= LITTLE ? 'little' : 'unknown';
    row.why =
      row.says === 'found'
        ? joint
          ? 'With the other facts held.'
          : 'By itself: there are too few batches to hold the other facts.'
        : row.says === 'little'
          ? `At the most ${wide.toFixed(1)} points for a usual step.`
          : `Anything from ${row.low.toFixed(1)} to ${row.high.toFixed(1)} points for a usual step: cannot be told yet.`.replaceAll(
              '-',
              '−',
            );
  });
  read.sort((a, b) => (a.p ?? 2) - (b.p ?? 2));
  return {
    facts: read,
    together: joint !== null,
    batches: rows.length,
    rate,
    sentence: words(read, names, rows.length),
    caveat: read.some(({ says }) => says === 'found')
      ? `One such table in ${Math.round(1 / rate)} shows something where there is nothing; and nothing here was tried on purpose, so it need not be the cause.`
      : '',
  };
}

/** Half of nine in ten of a normal. */
const LEVEL_HALF = normalQuantile(0.5 + LEVEL / 2);

function words(read: readonly FactEffect[], names: Readonly<Record<string, string>>, batches: number): string {
  const found = read.filter(({ says }) => says === 'found');
  if (batches < FEWEST)
    return `${batches} tasted ${batches === 1 ? 'batch' : 'batches'}: from ${FEWEST} on facts are held against scores.`;
  if (found.length === 0)
    return `Cannot tell: none of what was logged goes with the score beyond chance in ${batches} batches.`;
  const each = found.map(
    ({ fact, effect }) => `${names[fact] ?? fact} (${effect > 0 ? 'more of it, better' : 'less of it, better'})`,
  );
  return `Goes with the score: ${each.join(', ')}.`;
}
