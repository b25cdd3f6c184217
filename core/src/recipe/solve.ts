import type { Answer, Choice, Kept, Question } from './question';
import { conflictsIn, type Conflicts, type Constraint } from './conflict';
import { formatMass } from '../units/mass';
import { figuresOfLines } from './ingredient';
import { aimTolerance, planeOf, sideWords, toleranceOf, valueOf } from './limits';
import { solveProgram, type LinearSolver, type Row } from './linear';
import type { Limit } from './records';
import { dearest, namesOf, priceWords, roundingWords, smallStocks } from './notes';
import { roundToStep } from './round';

export type { Answer, Choice, Kept, Question, Size } from './question';

/** Percent points within which an aim counts as kept when contradictions are looked for. */
const AIM_SLACK = 0.004;
const INVERSE = 't';
/** No bowl holds more, g. */
const LARGEST_G = 20_000_000;
const share = (index: number): string => `y${index}`;

/**
 * Grams for what is wanted: least weighted deviation from the aims, within all bounds; then the size that is wanted; ties
 * to the cheapest; then rounded to the scale's step. Shares and the inverse of the batch are the variables, which keeps
 * every percentage linear whatever the size (Charnes and Cooper 1962).
 */
export function solveRecipe(asked: Question, solver: LinearSolver): Answer {
  const question = priced(asked);
  const { choices, size } = question;
  const notes = [...smallStocks(question), ...priceWords(asked)];
  const constraints = constraintsOf(question);
  const frame = frameOf(question);
  const aims = question.limits.filter(({ aim }) => aim !== null);
  const deviation = aims.map((limit, index) => deviationRow(limit, index, choices));
  const cost = deviation.flatMap((_, index): [string, number][] => {
    const weight = aims[index]?.weight ?? 1;
    return [
      [`p${index}`, weight],
      [`m${index}`, weight],
    ];
  });
  const hard = constraints.flatMap(({ rows }) => rows);
  let found = inTurn(solver, [...frame, ...hard, ...deviation], goalsOf(question, cost));
  let outcome: Answer['outcome'] = 'met';
  let conflicts: Conflicts = { sets: [], giveUp: [] };
  if (!found) {
    outcome = 'contradiction';
    conflicts = conflictsIn(solver, frame, constraints);
    found = nearest(solver, frame, constraints, deviation, cost, question);
    if (!found) return { outcome, lines: [], figures: null, kept: [], ...saidOf(conflicts), notes };
  }
  const totalG = 1000 / Math.max(found.get(INVERSE) ?? 0, 1e-12);
  const exact = choices.map((_, index) => Math.max(0, found.get(share(index)) ?? 0) * totalG);
  const rounded = roundToStep(question, exact, typeof size === 'object' ? size.grams : null, solver);
  const lines = choices.map(({ ingredient }, index) => ({
    id: ingredient.id,
    grams: rounded.grams[index] ?? 0,
    exactG: exact[index] ?? 0,
  }));
  const kept = keptOf(question, exact, rounded.grams);
  if (
    outcome === 'met' &&
    kept.some((row) => row.side === 'aim' && Math.abs(row.exact - row.wanted) > aimTolerance(row.of, row.wanted))
  ) {
    outcome = 'near';
    conflicts = conflictsIn(solver, frame, [...aimsAsBounds(question, kept), ...constraints]);
  }
  notes.push(...roundingWords(question, kept, lines));
  return {
    outcome,
    lines,
    figures: figuresOfLines(
      asked.choices.map(({ ingredient }, index) => ({ ingredient, grams: rounded.grams[index] ?? 0 })),
    ),
    kept,
    ...saidOf(conflicts),
    notes,
  };
}

const saidOf = ({
  sets: [conflict = [], ...further],
  giveUp,
}: Conflicts): Pick<Answer, 'conflict' | 'further' | 'giveUp'> => ({
  conflict,
  further,
  giveUp,
});

/** What has no price is never taken for free: it counts as the dearest of the others. */
function priced(question: Question): Question {
  const most = dearest(question.choices) ?? 1;
  return {
    ...question,
    choices: question.choices.map((choice) =>
      choice.ingredient.perKgMilli === null
        ? { ...choice, ingredient: { ...choice.ingredient, perKgMilli: most } }
        : choice,
    ),
  };
}

/** What holds in any case: the shares are all there is, of some size, and nobody takes anything out of a bowl. */
function frameOf({ choices, stepG }: Question): Row[] {
  return [
    { terms: [[INVERSE, 1]], sense: '<=', right: 1000 / stepG },
    { terms: [[INVERSE, 1]], sense: '>=', right: 1000 / LARGEST_G },
    { terms: choices.map((_, index) => [share(index), 1] as const), sense: '=', right: 1 },
    ...choices.flatMap(({ fixedG, thereG }, index): Row[] => {
      if (fixedG !== undefined)
        return [
          {
            terms: [
              [share(index), 1],
              [INVERSE, -fixedG / 1000],
            ],
            sense: '=',
            right: 0,
          },
        ];
      return thereG
        ? [
            {
              terms: [
                [share(index), 1],
                [INVERSE, -thereG / 1000],
              ],
              sense: '>=',
              right: 0,
            },
          ]
        : [];
    }),
  ];
}

function constraintsOf(question: Question): Constraint[] {
  const { choices, leastG, mostG, machine, size, limits, massSystem } = question;
  const mass = (grams: number): string => formatMass(grams * 1000, massSystem);
  const nameOf = namesOf(choices);
  const inverse = (sense: Row['sense'], grams: number): Row[] => [
    { terms: [[INVERSE, 1]], sense, right: 1000 / grams },
  ];
  const found: Constraint[] = [];
  if (mostG !== null)
    found.push({
      id: 'machine-most',
      words: `${machine || 'The bowl'} takes ${mass(mostG)} at most`,
      rows: inverse('>=', mostG),
      soft: false,
    });
  if (leastG !== null && leastG > 0)
    found.push({
      id: 'machine-least',
      words: `${machine || 'The bowl'} needs ${mass(leastG)} at least`,
      rows: inverse('<=', leastG),
      soft: true,
    });
  if (typeof size === 'object')
    found.push({
      id: 'size',
      words: `A batch of ${mass(size.grams)}`,
      rows: inverse('=', size.grams),
      soft: true,
    });
  choices.forEach(({ ingredient, stockG, fixedG, thereG = 0 }, index) => {
    if (stockG === null || fixedG !== undefined) return;
    found.push({
      id: `stock:${ingredient.id}`,
      words:
        stockG > 0
          ? `${thereG > 0 ? 'Another ' : 'Only '}${mass(stockG)} of ${ingredient.name}`
          : `No ${ingredient.name} in the house`,
      rows: [
        {
          terms: [
            [share(index), 1],
            [INVERSE, -(stockG + thereG) / 1000],
          ],
          sense: '<=',
          right: 0,
        },
      ],
      soft: false,
    });
  });
  for (const limit of limits)
    for (const side of ['least', 'most'] as const) {
      const value = limit[side];
      if (value === null) continue;
      const { terms, right } = plane(limit.of, value, choices);
      found.push({
        id: `${limit.of}:${side}`,
        words: sideWords(limit, side, nameOf, question),
        rows: [{ terms, sense: side === 'least' ? '>=' : '<=', right }],
        soft: true,
      });
    }
  return found;
}

function plane(
  of: string,
  value: number,
  choices: readonly Choice[],
): { terms: (readonly [string, number])[]; right: number } {
  const { factors, right, perInverse } = planeOf(
    of,
    value,
    choices.map(({ ingredient }) => ingredient),
  );
  const terms = factors.map((factor, index) => [share(index), factor] as const);
  return perInverse ? { terms: [...terms, [INVERSE, -right] as const], right: 0 } : { terms, right };
}

function deviationRow(limit: Limit, index: number, choices: readonly Choice[]): Row {
  const { terms, right } = plane(limit.of, limit.aim ?? 0, choices);
  return { terms: [...terms, [`p${index}`, -1], [`m${index}`, 1]], sense: '=', right };
}

/** Aims as bounds that can contradict others: those that are kept, and those that could not be. */
function aimsAsBounds(question: Question, kept: readonly Kept[]): Constraint[] {
  const { limits, choices } = question;
  const nameOf = namesOf(choices);
  return limits
    .filter(({ aim, of }) => aim !== null && kept.some((row) => row.of === of))
    .map((limit) => {
      const { terms, right } = plane(limit.of, limit.aim ?? 0, choices);
      return {
        id: `${limit.of}:aim`,
        words: sideWords(limit, 'aim', nameOf, question),
        rows: [
          { terms, sense: '>=', right: right - AIM_SLACK },
          { terms, sense: '<=', right: right + AIM_SLACK },
        ],
        soft: true,
      };
    });
}

/** What is looked for, the most important first. */
function goalsOf({ size, choices }: Question, deviation: [string, number][]): [string, number][][] {
  const bySize: [string, number][][] = size === 'most' ? [[[INVERSE, 1]]] : size === 'least' ? [[[INVERSE, -1]]] : [];
  const cheapest = choices.map(({ ingredient }, index): [string, number] => [
    share(index),
    (ingredient.perKgMilli ?? 0) / 100_000,
  ]);
  return [deviation, ...bySize, cheapest].filter((goal) => goal.some(([, factor]) => factor !== 0));
}

/** One goal after the other, each without giving up what the earlier ones reached. */
function inTurn(solver: LinearSolver, rows: readonly Row[], goals: [string, number][][]): Map<string, number> | null {
  const kept = [...rows];
  let found: Map<string, number> | null = null;
  for (const least of goals.length > 0 ? goals : [[]]) {
    const next = solveProgram(solver, { least, rows: kept });
    if (!next) return found;
    found = next;
    const reached = least.reduce((sum, [name, factor]) => sum + factor * (next.get(name) ?? 0), 0);
    kept.push({ terms: least, sense: '<=', right: reached + 1e-7 * Math.max(1, Math.abs(reached)) });
  }
  return found;
}

/** The least that has to be given up of what is wanted, with the house's own bounds kept. */
function nearest(
  solver: LinearSolver,
  frame: readonly Row[],
  constraints: readonly Constraint[],
  deviation: readonly Row[],
  cost: [string, number][],
  question: Question,
): Map<string, number> | null {
  const given: [string, number][] = [];
  const rows = constraints.flatMap(({ rows: own, soft }, index) =>
    !soft
      ? own
      : own.map((row): Row => {
          const [over, under] = [`o${index}`, `u${index}`];
          // An inverse of kilograms, brought to percent.
          const scale = row.terms.length === 1 && row.terms[0]?.[0] === INVERSE ? row.right / 100 : 1;
          const terms = [...row.terms];
          if (row.sense !== '<=') {
            terms.push([under, scale]);
            given.push([under, 1]);
          }
          if (row.sense !== '>=') {
            terms.push([over, -scale]);
            given.push([over, 1]);
          }
          return { ...row, terms };
        }),
  );
  return inTurn(solver, [...frame, ...rows, ...deviation], [given, ...goalsOf(question, cost)]);
}

function keptOf(question: Question, exactG: readonly number[], roundedG: readonly number[]): Kept[] {
  const { choices, limits } = question;
  const nameOf = namesOf(choices);
  const of = (grams: readonly number[]) => ({
    figures: figuresOfLines(choices.map(({ ingredient }, index) => ({ ingredient, grams: grams[index] ?? 0 }))),
    gramsOf: (id: string) => grams[choices.findIndex(({ ingredient }) => ingredient.id === id)] ?? 0,
  });
  const [exact, rounded] = [of(exactG), of(roundedG)];
  return limits.flatMap((limit) =>
    (['aim', 'least', 'most'] as const).flatMap((side): Kept[] => {
      const wanted = limit[side];
      if (wanted === null) return [];
      const [before, after] = [exact, rounded].map(({ figures, gramsOf }) => valueOf(limit.of, figures, gramsOf)) as [
        number,
        number,
      ];
      const slack = (side === 'aim' ? aimTolerance : toleranceOf)(limit.of, wanted);
      const kept =
        side === 'aim'
          ? Math.abs(after - wanted) <= slack
          : side === 'least'
            ? after >= wanted - slack
            : after <= wanted + slack;
      return [
        {
          id: `${limit.of}:${side}`,
          words: sideWords(limit, side, nameOf, question),
          of: limit.of,
          side,
          wanted,
          exact: before,
          rounded: after,
          kept,
        },
      ];
    }),
  );
}
