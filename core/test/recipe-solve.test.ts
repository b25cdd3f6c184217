import fc from 'fast-check';
import { figuresOfLines, type Ingredient } from '../src/recipe/ingredient';
import type { Limit } from '../src/recipe/records';
import type { Choice, Question } from '../src/recipe/solve';
import {
  BUTTER,
  ERYTHRITOL,
  gramsOf,
  LECITHIN,
  LEAN,
  LIQUOR,
  loadSolver,
  MILK,
  NIBS,
  question,
  solve,
  some,
  SUGAR,
  want,
} from './recipe-fixtures';

beforeAll(async () => void (await loadSolver()));

test('72 % of two ingredients for a kilogram: 720 g and 280 g', async () => {
  const answer = await solve(question([some(NIBS), some(SUGAR)], [want('cocoa', { aim: 72 })]));
  expect(answer.outcome).toBe('met');
  expect(gramsOf(answer.lines)).toEqual({ nibs: 720, sugar: 280 });
});

test('the bounds of the machine hold, and as much as there is of the nibs goes in', async () => {
  const most = question([some(NIBS, 6480), some(SUGAR)], [want('cocoa', { aim: 72 })], {
    size: 'most',
    mostG: 10_000,
    stepG: 5,
  });
  const answer = await solve(most);
  expect(gramsOf(answer.lines)).toEqual({ nibs: 6480, sugar: 2520 });
});

test('ties go to the cheapest: liquor costs more than nibs and does nothing that they do not', async () => {
  const answer = await solve(question([some(LIQUOR), some(NIBS), some(SUGAR)], [want('cocoa', { aim: 70 })]));
  expect(gramsOf(answer.lines)).toEqual({ liquor: 0, nibs: 700, sugar: 300 });
});

test('two aims at once: cocoa 72 % with 40 % fat', async () => {
  const answer = await solve(
    question([some(NIBS), some(BUTTER), some(SUGAR)], [want('cocoa', { aim: 72 }), want('fat', { aim: 40 })], {
      size: { grams: 10_000 },
    }),
  );
  // n + b = 7200; 0.53 n + b = 4000: n = 6808.5, b = 391.5.
  expect(gramsOf(answer.lines)['nibs']).toBeCloseTo(6809, -0.5);
  expect(answer.figures?.cocoaPct).toBeCloseTo(72, 1);
  expect(answer.figures?.fatPct).toBeCloseTo(40, 1);
});

test('what cannot be met is said with the limits that contradict each other, and the nearest that can', async () => {
  const answer = await solve(
    question([some(NIBS), some(SUGAR)], [want('cocoa', { least: 80 }), want('sugar', { least: 30 })]),
  );
  expect(answer.outcome).toBe('contradiction');
  expect(answer.conflict.map(({ words }) => words)).toEqual(['Cocoa at least 80 %', 'Sugar at least 30 %']);
  const { nibs = 0, sugar = 0 } = gramsOf(answer.lines);
  expect(nibs + sugar).toBe(1000);
  expect(nibs).toBeGreaterThanOrEqual(700);
  expect(nibs).toBeLessThanOrEqual(800);
});

test('stock, size and percent contradict each other; with the nearest the stock is not overdrawn', async () => {
  const answer = await solve(question([some(NIBS, 500), some(SUGAR)], [want('cocoa', { least: 72 })]));
  expect(answer.conflict.map(({ id }) => id).sort()).toEqual(['cocoa:least', 'size', 'stock:nibs']);
  expect(gramsOf(answer.lines)['nibs']).toBeLessThanOrEqual(500);
});

test('an aim that is missed says what stands against it', async () => {
  const answer = await solve(
    question([some(NIBS), some(SUGAR)], [want('cocoa', { aim: 72 }), want('fat', { least: 45 })]),
  );
  expect(answer.outcome).toBe('near');
  expect(answer.conflict.map(({ id }) => id)).toEqual(['cocoa:aim', 'fat:least']);
  expect(answer.figures?.fatPct).toBeGreaterThanOrEqual(44.99);
});

test('a single impossible wish stands alone', async () => {
  const answer = await solve(question([some(NIBS)], [want('sugar', { least: 10 }), want('cocoa', { least: 50 })]));
  expect(answer.conflict.map(({ id }) => id)).toEqual(['sugar:least']);
});

test('two contradictions that have nothing to do with each other are both named', async () => {
  const answer = await solve(
    question(
      [some(NIBS), some(SUGAR), some(MILK)],
      [want('cocoa', { least: 90 }), want('sugar', { least: 20 }), want('milk', { least: 95 })],
    ),
  );
  expect(answer.conflict).toHaveLength(2);
});

test('the bowl is never emptied: what is in it stays, what is added is the least that does it', async () => {
  const bowl: Ingredient = {
    ...NIBS,
    id: 'bowl',
    name: 'in the bowl',
    role: 'bowl',
    cocoaPct: 80,
    withoutButterPct: 80,
  };
  const answer = await solve(
    question([some(bowl, null, { fixedG: 5000 }), some(NIBS), some(SUGAR)], [want('cocoa', { aim: 70 })], {
      size: 'least',
      mostG: 10_000,
    }),
  );
  const { bowl: stays, nibs, sugar = 0 } = gramsOf(answer.lines);
  expect(stays).toBe(5000);
  expect(nibs).toBe(0);
  // 4000 g of cocoa are 70 % of 5714 g.
  expect(sugar).toBeCloseTo(714, -0.5);
});

test('rounding to a coarse scale is said, with the percent that it makes', async () => {
  const answer = await solve(
    question([some(NIBS), some(SUGAR)], [want('cocoa', { aim: 73 })], { size: { grams: 1000 }, stepG: 50 }),
  );
  const total = answer.lines.reduce((sum, { grams }) => sum + grams, 0);
  expect(total % 50).toBe(0);
  expect(answer.notes.join(' ')).toContain('steps of 50 g');
});

test('a bound that no whole step keeps is named as not kept', async () => {
  const answer = await solve(
    question([some(NIBS), some(SUGAR)], [want('cocoa', { least: 72.4, most: 72.6 })], {
      size: { grams: 1000 },
      stepG: 100,
    }),
  );
  expect(answer.kept.some(({ kept }) => !kept)).toBe(true);
  expect(answer.notes.join(' ')).toContain('is not kept');
});

test('a stock below the step of the scale is said and not used', async () => {
  const answer = await solve(
    question([some(NIBS), some(SUGAR), some(LECITHIN, 3)], [want('cocoa', { aim: 70 })], { stepG: 5 }),
  );
  expect(answer.notes[0]).toContain('less than the scale’s step');
  expect(gramsOf(answer.lines)['lecithin']).toBe(0);
});

test('thickness is a bound like any other', async () => {
  const thick = figuresOfLines([
    { ingredient: LEAN, grams: 700 },
    { ingredient: SUGAR, grams: 300 },
  ]).flow;
  const answer = await solve(
    question(
      [some(LEAN), some(BUTTER), some(SUGAR)],
      [want('cocoa', { aim: 72 }), want('flow', { most: (thick ?? 0) / 2 })],
    ),
  );
  expect(answer.figures?.flow).toBeLessThanOrEqual(((thick ?? 0) / 2) * 1.011);
  expect(gramsOf(answer.lines)['butter']).toBeGreaterThan(0);
});

/** Small questions of two to four ingredients on a coarse grid, as a workshop might ask them. */
const pools = [
  [NIBS, SUGAR],
  [NIBS, BUTTER, SUGAR],
  [LEAN, BUTTER, SUGAR, MILK],
  [LIQUOR, SUGAR, ERYTHRITOL],
  [NIBS, LEAN, SUGAR],
];
const asked: fc.Arbitrary<Question> = fc
  .record({
    pool: fc.constantFrom(...pools),
    cocoa: fc.integer({ min: 35, max: 90 }),
    fat: fc.option(fc.integer({ min: 20, max: 50 }), { nil: null }),
    leastSugar: fc.option(fc.integer({ min: 5, max: 40 }), { nil: null }),
    stock: fc.option(fc.integer({ min: 100, max: 900 }), { nil: null }),
  })
  .map(({ pool, cocoa, fat, leastSugar, stock }) => {
    const choices: Choice[] = pool.map((ingredient, index) => some(ingredient, index === 0 ? stock : null));
    const limits: Limit[] = [want('cocoa', { aim: cocoa })];
    if (fat !== null) limits.push(want('fat', { aim: fat, weight: 0.5 }));
    if (leastSugar !== null) limits.push(want('sugar', { least: leastSugar }));
    return question(choices, limits, { stepG: 50 });
  });

/** Least weighted deviation over every way to weigh a kilogram in whole steps; null where none is allowed. */
function bruteForce({ choices, limits, stepG }: Question): number | null {
  let best: number | null = null;
  const total = 1000 / stepG;
  const visit = (index: number, left: number, grams: number[]): void => {
    if (index === choices.length - 1) {
      const all = [...grams, left * stepG];
      if (choices.some(({ stockG }, i) => stockG !== null && (all[i] ?? 0) > stockG)) return;
      const figures = figuresOfLines(choices.map(({ ingredient }, i) => ({ ingredient, grams: all[i] ?? 0 })));
      const value = (of: string): number =>
        of === 'cocoa' ? figures.cocoaPct : of === 'fat' ? figures.fatPct : figures.sugarPct;
      if (limits.some(({ of, least }) => least !== null && value(of) < least - 1e-9)) return;
      const missed = limits.reduce(
        (sum, { of, aim, weight }) => sum + (aim === null ? 0 : weight * Math.abs(value(of) - aim)),
        0,
      );
      if (best === null || missed < best) best = missed;
      return;
    }
    for (let n = 0; n <= left; n += 1) visit(index + 1, left - n, [...grams, n * stepG]);
  };
  visit(0, total, []);
  return best;
}

const missedOf = (
  limits: readonly Limit[],
  kept: { of: string; side: string; wanted: number; rounded: number; exact: number }[],
  which: 'rounded' | 'exact',
): number =>
  kept
    .filter(({ side }) => side === 'aim')
    .reduce(
      (sum, row) => sum + (limits.find(({ of }) => of === row.of)?.weight ?? 1) * Math.abs(row[which] - row.wanted),
      0,
    );

test('100 random questions: never worse than every way of weighing it in whole steps', async () => {
  const solver = await loadSolver();
  expect(solver).toBeDefined();
  const { solveRecipe } = await import('../src/recipe/solve');
  fc.assert(
    fc.property(asked, (one) => {
      const brute = bruteForce(one);
      const answer = solveRecipe(one, solver);
      if (brute === null) return;
      const weights = one.limits.reduce((sum, { aim, weight }) => (aim === null ? sum : sum + weight), 0);
      expect(answer.outcome).not.toBe('contradiction');
      // Exact grams are at least as good as any whole steps.
      expect(missedOf(one.limits, answer.kept, 'exact')).toBeLessThanOrEqual(brute + 1e-4);
      // Rounded, they are the size that was asked for, keep every bound that can be kept, and the aims as well as can be.
      expect(answer.kept.filter(({ side, kept }) => side !== 'aim' && !kept)).toEqual([]);
      expect(answer.lines.reduce((sum, { grams }) => sum + grams, 0)).toBe(1000);
      expect(missedOf(one.limits, answer.kept, 'rounded')).toBeLessThanOrEqual(brute + 0.0501 * weights);
    }),
    { numRuns: 100, seed: 11 },
  );
});

/** Bounds on anything that bounds can be on, tight enough to be in each other's way. */
const bounded: fc.Arbitrary<Question> = fc
  .record({
    nibs: fc.option(fc.integer({ min: 100, max: 900 }), { nil: null }),
    butter: fc.option(fc.integer({ min: 0, max: 200 }), { nil: null }),
    leastG: fc.option(fc.integer({ min: 500, max: 1500 }), { nil: null }),
    mostG: fc.option(fc.integer({ min: 600, max: 2000 }), { nil: null }),
    size: fc.constantFrom<Question['size']>({ grams: 1000 }, { grams: 1400 }, 'most', 'least'),
    sides: fc.uniqueArray(
      fc.record({
        of: fc.constantFrom('cocoa', 'withoutButter', 'fat', 'sugar', 'milk', 'flow', 'share:sugar', 'grams:nibs'),
        side: fc.constantFrom('least' as const, 'most' as const),
        at: fc.integer({ min: 0, max: 20 }),
      }),
      { minLength: 2, maxLength: 5, selector: ({ of, side }) => of + side },
    ),
  })
  .map(({ nibs, butter, leastG, mostG, size, sides }) => {
    const value = (of: string, at: number): number =>
      of === 'flow' ? 3 + at / 2 : of === 'grams:nibs' ? 100 + 50 * at : of === 'milk' ? 2 * at : 20 + 3.5 * at;
    return question(
      [some(NIBS, nibs), some(SUGAR), some(BUTTER, butter), some(MILK)],
      sides.map(({ of, side, at }) => want(of, { [side]: value(of, at) })),
      { size, leastG: leastG ?? null, mostG: size === 'most' ? (mostG ?? 2000) : mostG },
    );
  });

/** A question with only those of its limits whose names are among some. */
function only(whole: Question, ids: ReadonlySet<string>): Question {
  const sized = typeof whole.size === 'object' && ids.has('size');
  return {
    ...whole,
    choices: whole.choices.map((choice) =>
      ids.has(`stock:${choice.ingredient.id}`) ? choice : { ...choice, stockG: null },
    ),
    limits: whole.limits.map((one) => ({
      ...one,
      aim: null,
      least: ids.has(`${one.of}:least`) ? one.least : null,
      most: ids.has(`${one.of}:most`) ? one.most : null,
    })),
    leastG: ids.has('machine-least') ? whole.leastG : null,
    mostG: ids.has('machine-most') ? whole.mostG : null,
    size: sized ? whole.size : 'least',
    stepG: 0.001,
  };
}

test('contradictions are true, and the smallest there are: every smaller set of limits can be kept', async () => {
  const solver = await loadSolver();
  const { solveRecipe } = await import('../src/recipe/solve');
  let contradictions = 0;
  const sizes = new Set<number>();
  const groupSizes = new Set<number>();
  fc.assert(
    fc.property(bounded, (whole) => {
      const answer = solveRecipe(whole, solver);
      if (answer.outcome !== 'contradiction') return;
      contradictions += 1;
      const set = answer.conflict.map(({ id }) => id);
      sizes.add(set.length);
      const fits = (ids: readonly string[]): boolean =>
        solveRecipe(only(whole, new Set(ids)), solver).outcome !== 'contradiction';
      expect(fits(set)).toBe(false);
      for (const id of set) expect(fits(set.filter((other) => other !== id))).toBe(true);
      const all = [
        ...(whole.leastG === null ? [] : ['machine-least']),
        ...(whole.mostG === null ? [] : ['machine-most']),
        ...(typeof whole.size === 'object' ? ['size'] : []),
        ...whole.choices.flatMap(({ ingredient, stockG }) => (stockG === null ? [] : [`stock:${ingredient.id}`])),
        ...whole.limits.map(({ of, least }) => `${of}:${least === null ? 'most' : 'least'}`),
      ];
      for (const smaller of subsets(all, set.length - 1)) if (!fits(smaller)) expect(smaller).toEqual(set);
      // What is said to be enough to give up is, all others kept; and no fewer are.
      const without = (out: readonly string[]): boolean => fits(all.filter((id) => !out.includes(id)));
      const groups = answer.giveUp.map((group) => group.map(({ id }) => id));
      expect(groups.length).toBeGreaterThan(0);
      for (const group of groups) expect(without(group)).toBe(true);
      const alone = all.filter((id) => without([id]));
      if (groups[0]?.length === 1) expect(groups.flat().sort()).toEqual(alone.sort());
      else for (const fewer of subsets(all, (groups[0]?.length ?? 0) - 1)) expect(without(fewer)).toBe(false);
      groupSizes.add(groups[0]?.length ?? 0);
    }),
    { numRuns: 24, seed: 5 },
  );
  expect(contradictions).toBeGreaterThan(10);
  expect(Math.max(...sizes)).toBeGreaterThanOrEqual(3);
  expect([...groupSizes].sort()).toEqual(expect.arrayContaining([1, 2]));
});

/** All choices of so many. */
function subsets<T>(all: readonly T[], size: number): T[][] {
  if (size <= 0) return size === 0 ? [[]] : [];
  return all.flatMap((first, index) => subsets(all.slice(index + 1), size - 1).map((rest) => [first, ...rest]));
}

test('what has no price is not taken for free', async () => {
  const unpriced = { ...LIQUOR, perKgMilli: null };
  const cheap = await solve(question([some(unpriced), some(NIBS), some(SUGAR)], [want('cocoa', { aim: 70 })]));
  expect(gramsOf(cheap.lines)).toEqual({ liquor: 0, nibs: 700, sugar: 300 });
  const asked = [want('cocoa', { least: 70 }), want('cost', { most: 5 })];
  const bound = await solve(question([some(unpriced), some(NIBS), some(SUGAR)], asked));
  expect(bound.outcome).toBe('contradiction');
  expect(bound.notes.join(' ')).toContain('no price yet, counted as the dearest here');
});

test('a question of five ingredients is answered within a few programs', async () => {
  const solver = await loadSolver();
  let programs = 0;
  const counting = { solve: ((...of) => ((programs += 1), solver.solve(...of))) as typeof solver.solve };
  const { solveRecipe } = await import('../src/recipe/solve');
  const one = question(
    [some(NIBS, 8000), some(BUTTER, 2000), some(SUGAR), some(MILK), some(LECITHIN)],
    [want('cocoa', { aim: 45 }), want('milk', { aim: 22 }), want('fat', { aim: 38 }), want('lecithin', { most: 0.4 })],
    { size: { grams: 10_000 } },
  );
  expect(solveRecipe(one, counting).outcome).toBe('met');
  // A drag of a slider waits for them: the bench holds the whole to ten milliseconds.
  expect(programs).toBeLessThanOrEqual(4);
});
