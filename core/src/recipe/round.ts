import { majorFromMilli } from '../units/money';
import { figuresOfLines } from './ingredient';
import { deviationFrom, planeOf, toleranceOf, valueOf } from './limits';
import { solveProgram, type LinearSolver, type Row } from './linear';
import type { Question } from './question';

/** Up to so many ways of rounding are weighed against each other. */
const MOST_WAYS = 4096;
/** Percent points an aim within which a rounding is as good as the best: less than the screen shows. */
const GOOD_ENOUGH = 0.05;
/** Parts of a step that are nothing. */
const CRUMB = 0.02;
/** Percent points that are nothing. */
const SAME_POINTS = 1e-6;
/** Branches that an exact search may follow: a count, so that a busy machine finds what an idle one does. */
const EXACT_BRANCHES = 2000;

/**
 * Grams in whole steps of the scale: no bound broken, then the size that was asked for, then the aims missed least, then
 * the cheapest. All roundings up and down are looked at first; where the best of them misses the aims by more than
 * `GOOD_ENOUGH` beyond the exact grams, which nothing can better, whole steps are searched exactly. Where no whole
 * steps keep the bounds, those that break them least.
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
  const { distanceOf, scoreOf } = scorer(question, wantedG);
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
      // Once one keeps all bounds, what is further off the size or the aims cannot be better.
      if (best !== null && best.score.broken <= 1e-9 && isFurther(distanceOf(grams), best.score)) return;
      const score = scoreOf(grams);
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
  const bound =
    scoreOf(exact).missed +
    GOOD_ENOUGH * question.limits.reduce((sum, { aim, weight }) => (aim === null ? sum : sum + weight), 0);
  if (found !== null && found.score.broken <= 1e-9 && found.score.off === 0 && found.score.missed <= bound + 1e-9)
    return found;
  for (const sizeSteps of [0, SIZE_STEPS, null]) {
    const whole = inWholeSteps(question, exact, wantedG, room, sizeSteps, solver);
    if (whole === null) continue;
    const score = scoreOf(whole);
    return found === null || isBetter(score, found.score) ? { grams: whole } : found;
  }
  return found ?? { grams: [...exact] };
}

/** How far something is from what was asked for, before anybody looks at its bounds. */
interface Distance {
  /** Whole steps by which the size asked for is missed. */
  off: number;
  /** Weighted percent points by which the aims are missed. */
  missed: number;
}

interface Score extends Distance {
  /** How far bounds are broken, in parts of their size. */
  broken: number;
  cost: number;
}

const isFurther = (a: Distance, b: Distance): boolean =>
  a.off !== b.off ? a.off > b.off : a.missed > b.missed + SAME_POINTS;

const isBetter = (a: Score, b: Score): boolean =>
  Math.abs(a.broken - b.broken) > 1e-9
    ? a.broken < b.broken
    : a.off !== b.off
      ? a.off < b.off
      : Math.abs(a.missed - b.missed) > SAME_POINTS
        ? a.missed < b.missed
        : a.cost < b.cost;

/** Whole steps by which a size is missed: half a step is as near as the scale comes. */
const stepsOff = (totalG: number, wantedG: number | null, stepG: number): number =>
  wantedG === null ? 0 : Math.round(Math.max(0, Math.abs(totalG - wantedG) / stepG - 0.01));

/** Scores ways of rounding; what is the same for all of them is worked out once. */
function scorer(
  { choices, limits, leastG, mostG, stepG }: Question,
  wantedG: number | null,
): { distanceOf: (grams: readonly number[]) => Distance; scoreOf: (grams: readonly number[]) => Score } {
  const ingredients = choices.map(({ ingredient }) => ingredient);
  const placeOf = new Map(ingredients.map(({ id }, index) => [id, index]));
  const aims = limits.flatMap(({ of, aim, weight }) =>
    aim === null ? [] : [{ weight, off: deviationFrom(of, aim, ingredients) }],
  );
  const bounds = limits.filter(({ least, most }) => least !== null || most !== null);
  const part = (value: number, wanted: number): number =>
    Math.min(100, (100 * Math.abs(value - wanted)) / Math.max(Math.abs(wanted), 1));
  const distanceOf = (grams: readonly number[]): Distance => ({
    off: stepsOff(
      grams.reduce((sum, own) => sum + own, 0),
      wantedG,
      stepG,
    ),
    missed: aims.reduce((sum, { weight, off }) => sum + weight * off(grams), 0),
  });
  const scoreOf = (grams: readonly number[]): Score => {
    const figures = figuresOfLines(ingredients.map((ingredient, index) => ({ ingredient, grams: grams[index] ?? 0 })));
    const gramsOf = (id: string): number => grams[placeOf.get(id) ?? -1] ?? 0;
    const total = figures.grams;
    let broken = 0;
    for (const { of, least, most } of bounds) {
      const value = valueOf(of, figures, gramsOf);
      if (least !== null && value < least - toleranceOf(of, least) / 10) broken += part(value, least);
      if (most !== null && value > most + toleranceOf(of, most) / 10) broken += part(value, most);
    }
    if (mostG !== null && total > mostG + 1e-6) broken += part(total, mostG);
    if (leastG !== null && total < leastG - 1e-6) broken += part(total, leastG);
    return { ...distanceOf(grams), broken, cost: figures.perKgMilli };
  };
  return { distanceOf, scoreOf };
}

/** Steps by which an exact search may leave the size, where none of the size itself fits. */
const SIZE_STEPS = 3;
/** Percent points that a unit of money a kilogram is worth: it only breaks ties. */
const TIE = 1e-5;

/**
 * The whole steps that miss the aims least, as a mixed-integer program.
 *
 * @param sizeSteps how far the size may be left; 0: the nearest there is, null: as far as half of it
 */
function inWholeSteps(
  { choices, limits, stepG, leastG, mostG }: Question,
  exact: readonly number[],
  wantedG: number | null,
  room: readonly number[],
  sizeSteps: number | null,
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
  const reach = sizeSteps === null ? totalG / 2 : (sizeSteps + 0.5) * stepG + 1e-6;
  const low = Math.max(leastG ?? 0, totalG - reach);
  const high = Math.min(mostG ?? Infinity, totalG + reach);
  for (const [index, { perKgMilli }] of ingredients.entries())
    least.push([`n${index}`, (TIE * stepG * majorFromMilli(perKgMilli ?? 0)) / totalG]);
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
    { mip_max_nodes: EXACT_BRANCHES, mip_rel_gap: 0 },
  );
  return found && choices.map((_, index) => (thereG[index] ?? 0) + Math.round(found.get(`n${index}`) ?? 0) * stepG);
}
