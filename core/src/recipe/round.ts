import { figuresOfLines } from './ingredient';
import { planeOf, toleranceOf, valueOf } from './limits';
import { solveProgram, type LinearSolver, type Row } from './linear';
import type { Question } from './solve';

/** Up to so many ways of rounding are weighed against each other. */
const MOST_WAYS = 4096;
/** Parts of a step that are nothing. */
const CRUMB = 0.02;
/** Seconds that an exact search may take where no rounding nearby keeps the bounds. */
const EXACT_SECONDS = 0.4;

/**
 * Grams in whole steps of the scale, as near to the exact ones as the bounds allow: of all roundings up and down the
 * one that breaks no bound, misses the aims least and is nearest to the size; where none keeps the bounds, an exact
 * search in whole steps; where there is none at all, the one that breaks them least.
 *
 * @param exact grams of each choice; @param wantedG the size asked for, null: whatever it is
 */
export function roundToStep(
  question: Question,
  exact: readonly number[],
  wantedG: number | null,
  solver: LinearSolver,
): { grams: number[] } {
  const { choices, stepG } = question;
  const room = choices.map(({ stockG, fixedG, thereG = 0 }) =>
    fixedG !== undefined ? 0 : stockG === null ? Infinity : Math.floor((stockG + 1e-9) / stepG) * stepG + thereG,
  );
  const base = choices.map(({ thereG = 0 }) => thereG);
  const options = choices.map(({ fixedG }, index) => {
    const grams = exact[index] ?? 0;
    if (fixedG !== undefined) return [fixedG];
    const own = base[index] ?? 0;
    const steps = (grams - own) / stepG;
    // Crumbs that the solver leaves are none.
    if (steps < CRUMB) return [own];
    const near = Math.round(steps);
    const whole =
      Math.abs(steps - near) < 1e-3
        ? near === 0
          ? [0]
          : [near, near - 1, near + 1]
        : [Math.floor(steps), Math.ceil(steps)];
    const list = [...new Set(whole)]
      .filter((n) => n >= 0)
      .map((n) => own + n * stepG)
      .filter((value) => value <= (room[index] ?? 0) + 1e-9);
    return list.length > 0 ? list : [Math.min(own, room[index] ?? own)];
  });
  let ways = options.reduce((product, list) => product * list.length, 1);
  // The largest amounts can do without their further neighbours: a step of them says least.
  for (let index = 0; ways > MOST_WAYS && index < options.length; index += 1) {
    const list = options[index] ?? [];
    ways = (ways / list.length) * Math.min(2, list.length);
    options[index] = list.slice(0, 2);
  }
  while (ways > MOST_WAYS) {
    const index = options.findIndex((list) => list.length > 1);
    ways /= options[index]?.length ?? 1;
    options[index] = (options[index] ?? []).slice(0, 1);
  }
  let best: { grams: number[]; score: Score } | null = null;
  const grams: number[] = [];
  const visit = (index: number): void => {
    const list = options[index];
    if (list === undefined) {
      const score = scoreOf(question, grams, wantedG);
      if (best === null || isBetter(score, best.score)) best = { grams: [...grams], score };
      return;
    }
    for (const value of list) {
      grams[index] = value;
      visit(index + 1);
    }
  };
  visit(0);
  const found = best as { grams: number[]; score: Score } | null;
  if (found !== null && found.score.broken <= 1e-9) return found;
  const whole = inWholeSteps(question, exact, wantedG, room, solver);
  const better = whole === null ? null : { grams: whole, score: scoreOf(question, whole, wantedG) };
  if (better !== null && (found === null || isBetter(better.score, found.score))) return better;
  return found ?? { grams: [...exact] };
}

interface Score {
  /** How far bounds are broken, in parts of their size. */
  broken: number;
  /** Missed of the aims and of the size. */
  missed: number;
  cost: number;
}

const isBetter = (a: Score, b: Score): boolean =>
  Math.abs(a.broken - b.broken) > 1e-9
    ? a.broken < b.broken
    : Math.abs(a.missed - b.missed) > 1e-6
      ? a.missed < b.missed
      : a.cost < b.cost;

function scoreOf(
  { choices, limits, leastG, mostG }: Question,
  grams: readonly number[],
  wantedG: number | null,
): Score {
  const figures = figuresOfLines(choices.map(({ ingredient }, index) => ({ ingredient, grams: grams[index] ?? 0 })));
  const gramsOf = (id: string): number => grams[choices.findIndex(({ ingredient }) => ingredient.id === id)] ?? 0;
  let [broken, missed] = [0, 0];
  const part = (value: number, wanted: number): number =>
    Math.min(100, (100 * Math.abs(value - wanted)) / Math.max(Math.abs(wanted), 1));
  for (const { of, aim, least, most, weight } of limits) {
    const value = valueOf(of, figures, gramsOf);
    if (least !== null && value < least - toleranceOf(of, least) / 10) broken += part(value, least);
    if (most !== null && value > most + toleranceOf(of, most) / 10) broken += part(value, most);
    if (aim !== null)
      missed +=
        weight * (of === 'flow' || of === 'cost' || of.startsWith('grams:') ? part(value, aim) : Math.abs(value - aim));
  }
  const total = figures.grams;
  if (mostG !== null && total > mostG + 1e-6) broken += part(total, mostG);
  if (leastG !== null && total < leastG - 1e-6) broken += part(total, leastG);
  if (wantedG !== null) missed += part(total, wantedG);
  return { broken, missed, cost: figures.perKgMilli };
}

/** Steps by which an exact search may leave the size asked for. */
const SIZE_STEPS = 3;

function inWholeSteps(
  { choices, limits, stepG, leastG, mostG }: Question,
  exact: readonly number[],
  wantedG: number | null,
  room: readonly number[],
  solver: LinearSolver,
): number[] | null {
  const ingredients = choices.map(({ ingredient }) => ingredient);
  const totalG = wantedG ?? exact.reduce((sum, grams) => sum + grams, 0);
  const thereG = choices.map(({ fixedG, thereG: own = 0 }) => fixedG ?? own);
  const rows: Row[] = [];
  /** Σ factor · grams compared with `right` · total, moved so that only the whole steps are unknown. */
  const row = (factors: readonly number[], right: number, sense: Row['sense'], more: Row['terms'] = []): void => {
    const constant = factors.reduce((sum, factor, index) => sum + (factor - right) * (thereG[index] ?? 0), 0);
    rows.push({
      terms: [...factors.map((factor, index) => [`n${index}`, ((factor - right) * stepG) / totalG] as const), ...more],
      sense,
      right: -constant / totalG,
    });
  };
  const least: [string, number][] = [];
  limits.forEach((limit, index) => {
    for (const side of ['least', 'most', 'aim'] as const) {
      const value = limit[side];
      if (value === null) continue;
      const { factors, right, perInverse } = planeOf(limit.of, value, ingredients);
      // A limit on grams is not one on a share: its right side does not grow with the total.
      const against = perInverse ? (1000 * right) / totalG : right;
      if (side !== 'aim') row(factors, against, side === 'least' ? '>=' : '<=');
      else {
        row(factors, against, '=', [
          [`p${index}`, -1],
          [`m${index}`, 1],
        ]);
        least.push([`p${index}`, limit.weight], [`m${index}`, limit.weight]);
      }
    }
  });
  const thereSum = thereG.reduce((sum, grams) => sum + grams, 0);
  const steps = choices.map((_, index) => [`n${index}`, stepG] as const);
  const low = Math.max(leastG ?? 0, wantedG === null ? totalG / 2 : wantedG - SIZE_STEPS * stepG);
  const high = Math.min(mostG ?? Infinity, wantedG === null ? totalG * 1.5 : wantedG + SIZE_STEPS * stepG);
  rows.push(
    { terms: steps, sense: '>=', right: low - thereSum },
    { terms: steps, sense: '<=', right: high - thereSum },
  );
  const found = solveProgram(
    solver,
    {
      least,
      rows,
      bounds: choices.map(({ fixedG }, index) => {
        const most = fixedG !== undefined ? 0 : ((room[index] ?? 0) - (thereG[index] ?? 0)) / stepG;
        return {
          variable: `n${index}`,
          ...(Number.isFinite(most) ? { most: Math.max(0, Math.floor(most + 1e-9)) } : {}),
        };
      }),
      whole: choices.map((_, index) => `n${index}`),
    },
    { time_limit: EXACT_SECONDS },
  );
  return found && choices.map((_, index) => (thereG[index] ?? 0) + Math.round(found.get(`n${index}`) ?? 0) * stepG);
}
