import fc from 'fast-check';
import { correctBowl, judgeLabel, originAfter } from '../src/recipe/correct';
import { changesBetween, lineChanges, meanScore } from '../src/recipe/compare';
import { forward, needsOf, whichSacks } from '../src/recipe/forward';
import { figuresOfLines, type Ingredient } from '../src/recipe/ingredient';
import { labelLine, labelParts } from '../src/recipe/ingredient-line';
import { ladderOf } from '../src/recipe/ladder';
import { writeProgram } from '../src/recipe/linear';
import { feedPlan } from '../src/recipe/order';
import { READY_MADE_RECIPES } from '../src/recipe/ready-made';
import { recipe, recipeRecord, type RecipeRecord, type RecipeRecordValue } from '../src/recipe/records';
import { referenceClasses } from '../src/recipe/reference';
import { replan } from '../src/recipe/replan';
import { mostFrom, scaleTo, splitAmong } from '../src/recipe/scale';
import { drawAll, drawFrom, type StockLine } from '../src/recipe/stock';
import { swapIngredients } from '../src/recipe/swap';
import { placeAmong } from '../src/recipe/thickness';
import { formatMass, gramsFrom, massUnitFor, parseMass } from '../src/units/mass';
import { weighedOut, weighingOf } from '../src/recipe/weighing';
import {
  BUTTER,
  EUR,
  gramsOf,
  HAZELNUT,
  LEAN,
  LIQUOR,
  loadSolver,
  MILK,
  NIBS,
  OAT,
  POWDER,
  question,
  solve,
  some,
  SUGAR,
  want,
} from './recipe-fixtures';

const lines = (...rows: [Ingredient, number][]) => rows.map(([ingredient, grams]) => ({ ingredient, grams }));
const mixed = (...rows: [Ingredient, number][]) => figuresOfLines(lines(...rows));

test('classes of the references: dark is chocolate, milk is milk, white is white, and what lacks is said', () => {
  const names = (figures: ReturnType<typeof mixed>) =>
    referenceClasses(figures)
      .filter(({ lacks }) => lacks.length === 0)
      .map(({ name, source }) => `${name} ${source.slice(0, 5)}`);
  expect(names(mixed([NIBS, 638], [BUTTER, 62], [SUGAR, 300]))).toContain('Chocolate Codex');
  expect(names(mixed([NIBS, 305], [BUTTER, 175], [SUGAR, 293], [MILK, 227]))).toContain('Milk chocolate Codex');
  expect(names(mixed([BUTTER, 340], [SUGAR, 400], [MILK, 260]))).toEqual(
    expect.arrayContaining(['White chocolate Codex', 'White chocolate 21 CF']),
  );
  const thin = referenceClasses(mixed([NIBS, 200], [SUGAR, 800])).find(
    ({ name, source }) => name === 'Chocolate' && source.startsWith('Codex'),
  );
  expect(thin?.lacks[0]).toContain('wants 35 %');
});

test('the label’s line: falling order, nibs are cocoa beans, compound ones opened, allergens with what brings them', () => {
  const praline: Ingredient = {
    ...HAZELNUT,
    id: 'praline',
    name: 'hazelnut paste',
    madeOf: [
      { name: 'sugar', pct: 40, allergens: [] },
      { name: 'hazelnuts', pct: 60, allergens: ['hazelnut'] },
    ],
  };
  const two: Ingredient = { ...NIBS, id: 'lot:b', name: 'Nibs B' };
  const rows = lines([SUGAR, 250], [NIBS, 200], [two, 300], [praline, 100], [BUTTER, 0]);
  expect(labelLine(labelParts(rows))).toBe('cocoa beans, sugar, hazelnut paste (hazelnuts, sugar)');
  expect(forward(rows, 50).allergens).toEqual([{ allergen: 'hazelnut', from: ['hazelnut paste'] }]);
});

test('bars: 50 kg said to hold 750 of 66 g give 742 with what stays in machines', () => {
  expect(forward(lines([NIBS, 35_000], [SUGAR, 15_000]), 66).bars).toBe(742);
  expect(forward(lines([NIBS, 35_000], [SUGAR, 15_000]), 70, 0).bars).toBe(714);
});

test('beans for nibs with the interval of the yields, in whole loads and sacks', () => {
  const needs = needsOf(16_000, { nibsPerKg: { mean: 800, low: 780, high: 820 }, loadG: 7000, sackG: 62_000 });
  expect(needs.green.mean).toBe(20_000);
  expect(needs.green.low).toBeLessThan(needs.green.mean);
  expect([needs.loads.low, needs.loads.mean, needs.loads.high]).toEqual([3, 3, 3]);
  expect(needs.sacks?.mean).toBe(1);
  const sack = (no: number, leftG: number, open = false) => ({ no, leftG, place: '', open });
  // The open one first, then by number; no more than it takes.
  expect(whichSacks(70_000, [sack(1, 62_000), sack(2, 62_000), sack(5, 20_000, true)]).map(({ no }) => no)).toEqual([
    5, 1,
  ]);
});

test('cautions: watery things, oats to be dried, coconut milk, sweeteners, no flow', () => {
  const honey: Ingredient = {
    ...SUGAR,
    id: 'honey',
    name: 'Honey',
    contents: { ...(SUGAR.contents as NonNullable<typeof SUGAR.contents>), sugarPct: 80, waterPct: 18 },
  };
  expect(forward(lines([NIBS, 700], [honey, 300]), 70).cautions[0]).toContain('seizes');
  expect(forward(lines([NIBS, 700], [OAT, 100], [SUGAR, 200]), 70).cautions[0]).toContain('dry it');
  expect(forward(lines([POWDER, 500], [SUGAR, 500]), 70).cautions.join(' ')).toContain('does not flow');
});

test('order: a little butter first, nibs in portions, sugar after, and nothing is lost in portions', () => {
  const plan = feedPlan(
    [
      ['nibs', 'nibs', 6808],
      ['butter', 'butter', 392],
      ['sugar', 'sugar', 2800],
      ['lec', 'lecithin', 30],
    ].map(([ingredient, role, grams]) => ({
      ingredient: String(ingredient),
      name: String(ingredient),
      role: role as never,
      grams: Number(grams),
      atMinutes: null,
      portions: null,
    })),
  );
  expect(plan[0]).toMatchObject({ ingredient: 'butter', part: '1 of 2' });
  expect(plan.at(-1)?.ingredient).toBe('lec');
  const sum = (id: string): number =>
    plan.filter((row) => row.ingredient === id).reduce((total, { grams }) => total + grams, 0);
  expect(sum('nibs')).toBeCloseTo(6808, 6);
  expect(sum('butter')).toBeCloseTo(392, 6);
});

test('scaling keeps the sum in whole steps; splitting keeps every bowl between its least and its most', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 0, max: 9000 }), { minLength: 1, maxLength: 8 }),
      fc.integer({ min: 10, max: 4000 }),
      (grams, steps) => {
        if (grams.reduce((a, b) => a + b, 0) === 0) return;
        const scaled = scaleTo(grams, steps * 5, 5);
        expect(scaled.reduce((a, b) => a + b, 0)).toBeCloseTo(steps * 5, 6);
        grams.forEach((own, i) => own === 0 && expect(scaled[i]).toBe(0));
      },
    ),
  );
  const bowls = [
    { id: 'a', name: 'A', minG: 14_000, maxG: 34_000 },
    { id: 'b', name: 'B', minG: 5000, maxG: 15_000 },
  ];
  expect(splitAmong(30_000, bowls)?.map(({ grams }) => grams)).toEqual([30_000, 0]);
  const both = splitAmong(45_000, bowls);
  expect(both?.reduce((sum, { grams }) => sum + grams, 0)).toBeCloseTo(45_000, 6);
  expect(splitAmong(60_000, bowls)).toBeNull();
  expect(splitAmong(3000, bowls)).toBeNull();
});

test('stock is drawn by what keeps least, then by age, with a part of the last; what lacks is said', () => {
  const line = (code: string, freeG: number, since: number, bestBefore: string | null = null): StockLine => ({
    holdingId: code,
    code,
    freeG,
    since,
    bestBefore,
    perKgMilli: null,
  });
  const { taken, missingG } = drawFrom(
    [line('new', 500, 3), line('old', 200, 1), line('dated', 100, 2, '2027-01-01')],
    600,
  );
  expect(taken.map((row) => [row.line.code, row.grams])).toEqual([
    ['dated', 100],
    ['old', 200],
    ['new', 300],
  ]);
  expect(missingG).toBe(0);
  expect(drawFrom([line('a', 5, 1)], 7).missingG).toBe(2);
  // Of two bowls the second gets what the first left.
  const two = drawAll([[{ ingredient: 'x', grams: 600 }], [{ ingredient: 'x', grams: 600 }]], () => [
    line('a', 1000, 1),
  ]);
  expect(two.map(([draw]) => [draw?.taken[0]?.grams, draw?.missingG])).toEqual([
    [600, 0],
    [400, 200],
  ]);
});

test('a label may say less than there is, not more', () => {
  expect(judgeLabel(70, 70.02).tone).toBe('good');
  expect(judgeLabel(70, 69.98).tone).toBe('good');
  expect(judgeLabel(72, 70.4)).toMatchObject({ tone: 'watch' });
  expect(judgeLabel(72, 70.4).todo).toContain('call it 70 %');
  expect(judgeLabel(70, 72.6).sentence).toContain('72 % would be true');
});

test('nibs of another lot end the single origin, and how much of them there is', () => {
  const bowl = [{ lotId: 'a', share: 1 }];
  expect(originAfter(bowl, 4000, [{ lotId: 'a', name: 'A', grams: 500 }])).toBeNull();
  expect(originAfter(bowl, 4000, [{ lotId: 'b', name: 'Nibs B', grams: 1000 }])).toContain('20.0 % of its cacao');
  expect(originAfter(bowl, 4000, [{ lotId: 'b', name: 'Nibs B', grams: 1000 }], 'imperial')).toMatch(
    /^With Nibs B \(35\.27\soz,/,
  );
});

test('a correction never asks to remove, whatever is wanted, and takes no more than there is', async () => {
  const solver = await loadSolver();
  fc.assert(
    fc.property(
      fc.integer({ min: 40, max: 95 }),
      fc.integer({ min: 20, max: 95 }),
      fc.integer({ min: 0, max: 1500 }),
      (cocoa, wanted, stock) => {
        const ingredient: Ingredient = { ...NIBS, id: 'bowl', role: 'bowl', cocoaPct: cocoa, withoutButterPct: cocoa };
        const answer = correctBowl(
          { ingredient, grams: 5000, minG: null, maxG: 9000, machine: 'stone' },
          [some(NIBS, stock), some(SUGAR, stock)],
          [want('cocoa', { aim: wanted })],
          1,
          EUR,
          solver,
        );
        expect(answer.lines.find(({ id }) => id === 'bowl')?.grams).toBe(5000);
        for (const { id, grams } of answer.lines) {
          expect(grams).toBeGreaterThanOrEqual(0);
          if (id !== 'bowl') expect(grams).toBeLessThanOrEqual(stock);
        }
      },
    ),
    { numRuns: 60, seed: 3 },
  );
});

test('swaps: liquor for nibs keeps the chocolate; powder and butter nearly; oat for milk says what goes', async () => {
  const solver = await loadSolver();
  const dark = lines([NIBS, 638], [BUTTER, 62], [SUGAR, 300]);
  const liquor = swapIngredients(dark, ['nibs'], [LIQUOR], 1, EUR, solver);
  expect(liquor.lost.filter(({ of }) => ['cocoa', 'sugar', 'fat'].includes(of))).toEqual([]);
  const powder = swapIngredients(dark, ['nibs'], [POWDER], 1, EUR, solver);
  expect(powder.answer.figures?.cocoaPct).toBeCloseTo(70, 0);
  expect(gramsOf(powder.answer.lines)['nibs']).toBeUndefined();
  const milk = lines([NIBS, 305], [BUTTER, 175], [SUGAR, 293], [MILK, 227]);
  const oat = swapIngredients(milk, ['milk'], [OAT], 1, EUR, solver);
  expect(oat.goes).toEqual(['milk']);
  expect(oat.comes).toEqual(['gluten']);
  expect(oat.lost.map(({ of }) => of)).toContain('milk');
  const lean = swapIngredients(lines([NIBS, 720], [SUGAR, 280]), ['nibs'], [LEAN, BUTTER], 1, EUR, solver);
  expect(lean.answer.figures?.fatPct).toBeCloseTo(mixed([NIBS, 720], [SUGAR, 280]).fatPct, 0);
});

test('versions: what changed in words, and what that did', () => {
  const [before, after] = [lines([NIBS, 720], [SUGAR, 280]), lines([NIBS, 700], [BUTTER, 20], [SUGAR, 280])];
  expect(lineChanges(before, after)).toEqual(['nibs 72.0 % → 70.0 %', 'butter new, 2.0 %']);
  expect(changesBetween(figuresOfLines(before), figuresOfLines(after), EUR).map(({ of }) => of)).toEqual(
    expect.arrayContaining(['withoutButter', 'fat', 'flow']),
  );
});

const RUN: RecipeRecordValue = recipeRecord.parse({
  kind: 'weighing',
  weighingId: 'w',
  recipe: null,
  name: 'Run',
  batchId: null,
  machineId: null,
  routeId: null,
  targetMicron: 20,
  stepG: 1,
  lines: [
    { ingredient: 'nibs', grams: 720 },
    { ingredient: 'sugar', grams: 280 },
  ],
});
const record = (value: RecipeRecordValue, id: string): RecipeRecord => ({
  id,
  at: 1,
  recordedAt: 1,
  personId: 'ann',
  value,
});
const weighed = (id: string, ingredient: string, massG: number): RecipeRecord =>
  record({ kind: 'weighed', weighingId: 'w', ingredient, holdingId: `h-${ingredient}`, massG, by: 'hand' }, id);

test('a weighing run is read from its records: open, begun, done, over; taken back; ended frees the tubs', () => {
  const states = (...rows: RecipeRecord[]) => weighingOf([record(RUN, '0'), ...rows])?.lines.map(({ state }) => state);
  expect(states()).toEqual(['open', 'open']);
  expect(states(weighed('1', 'nibs', 300))).toEqual(['begun', 'open']);
  expect(states(weighed('1', 'nibs', 300), weighed('2', 'nibs', 415))).toEqual(['done', 'open']);
  expect(states(weighed('1', 'nibs', 740))).toEqual(['over', 'open']);
  expect(states(weighed('1', 'nibs', 740), record({ kind: 'unweighed', weighingId: 'w', recordId: '1' }, '2'))).toEqual(
    ['open', 'open'],
  );
  const open = weighingOf([record(RUN, '0'), weighed('1', 'nibs', 300), weighed('2', 'nibs', 100)]);
  expect(open && weighedOut([open])).toEqual(new Map([['h-nibs', 400]]));
  const ended = weighingOf([
    record(RUN, '0'),
    weighed('1', 'nibs', 300),
    record({ kind: 'weighing-ended', weighingId: 'w', stepId: null }, '2'),
  ]);
  expect(ended && weighedOut([ended]).size).toBe(0);
  expect(weighingOf([weighed('1', 'nibs', 1)])).toBeNull();
});

test('after an overshoot the rest grows so that the shares hold; where it cannot, the nearest and why', async () => {
  const solver = await loadSolver();
  const state = weighingOf([record(RUN, '0'), weighed('1', 'sugar', 300)]);
  const input = {
    lines: state?.lines ?? [],
    ingredients: new Map([NIBS, SUGAR].map((row) => [row.id, row])),
    stepG: 1,
    bowl: null,
    mostG: null,
    machine: '',
    ...EUR,
  };
  const grown = replan({ ...input, freeG: () => 5000 }, solver);
  expect(gramsOf(grown.lines)).toEqual({ nibs: 771, sugar: 300 });
  const short = replan({ ...input, freeG: (id) => (id === 'nibs' ? 730 : 5000) }, solver);
  expect(short.outcome).not.toBe('met');
  expect(gramsOf(short.lines)['nibs']).toBeLessThanOrEqual(730);
  expect(short.conflict.map(({ id }) => id)).toContain('stock:nibs');
});

test('ready-made recipes are recipes; crossing bounds and doubled lines are refused', () => {
  const base = { name: 'x', kind: 'dark', lines: [{ ingredient: 'nibs', grams: 1 }] };
  for (const { limits, kind } of READY_MADE_RECIPES)
    expect(recipe.safeParse({ ...base, kind, limits }).success).toBe(true);
  const paths = (more: object) =>
    recipe.safeParse({ ...base, ...more }).error?.issues.map(({ path }) => path.join('.'));
  expect(paths({ limits: [{ of: 'cocoa', least: 80, most: 70 }] })).toEqual(['limits.0.least']);
  expect(paths({ limits: [{ of: 'cocoa', aim: 120 }] })).toEqual(['limits.0.aim']);
  expect(
    paths({
      lines: [
        { ingredient: 'nibs', grams: 1 },
        { ingredient: 'nibs', grams: 2 },
      ],
    }),
  ).toEqual(['lines.1.ingredient']);
  expect(paths({ lines: [] })).toEqual(['lines']);
  expect(paths({ name: '' })).toEqual(['name']);
});

test('a program is written in the format that the solver reads', () => {
  expect(
    writeProgram({
      least: [
        ['x', 1],
        ['x', 0.5],
      ],
      rows: [
        {
          terms: [
            ['x', 2],
            ['y', -1],
          ],
          sense: '>=',
          right: 3,
        },
      ],
      whole: ['x'],
    }),
  ).toBe(
    ['Minimize', ' goal: + 1.5 x', 'Subject To', ' r0: + 2 x - 1 y >= 3', 'Bounds', 'General', ' x', 'End'].join('\n'),
  );
});

describe('a ladder', () => {
  const lines = [
    { ingredient: NIBS, grams: 700 },
    { ingredient: SUGAR, grams: 300 },
  ];
  test('is evenly apart around the recipe and keeps all else', () => {
    const variants = ladderOf(lines, 'cocoa', 5, 2);
    expect(variants.map(({ value }) => value)).toEqual([66, 68, 70, 72, 74]);
    expect(variants[0]?.limits.map(({ of, aim }) => [of, aim])).toEqual([
      ['cocoa', 66],
      ['fat', 37.1],
      ['sugar', 30],
    ]);
  });
  test('stays between nothing and all of it', () => {
    expect(ladderOf(lines, 'milk', 3, 2).map(({ value }) => value)).toEqual([0, 2, 4]);
    expect(
      ladderOf(
        [
          { ingredient: NIBS, grams: 99 },
          { ingredient: SUGAR, grams: 1 },
        ],
        'cocoa',
        3,
        2,
      ).map(({ value }) => value),
    ).toEqual([96, 98, 100]);
    expect(ladderOf([], 'cocoa', 3, 2)).toEqual([]);
  });
});

test('the largest batch that the nibs allow', () => {
  const lines = [
    { ingredient: 'a', grams: 500 },
    { ingredient: 'b', grams: 200 },
    { ingredient: 'sugar', grams: 300 },
  ];
  const there = (id: string): number => ({ a: 4000, b: 1000 })[id] ?? 0;
  // Of a eight batches, of b five: five kilograms.
  expect(mostFrom(lines, ({ ingredient }) => ingredient !== 'sugar', there)).toBe(5000);
  expect(mostFrom(lines, () => false, there)).toBe(Infinity);
});

test('thickness has a place among own batches from three on', () => {
  const past = [3, 9, 5, 7].map((flow, index) => ({ code: `B${index}`, name: '', flow }));
  expect(placeAmong(6.5, past)).toMatchObject({ thinner: 2, thinnest: 3, thickest: 9, nearest: { code: 'B3' } });
  expect(placeAmong(6, past.slice(0, 2))).toBeNull();
});

test('the mean score is that of the batches that were tasted', () => {
  expect(meanScore([{ score: 6 }, { score: null }, { score: 9 }])).toEqual({ mean: 7.5, of: 2 });
  expect(meanScore([{ score: null }])).toBeNull();
});

test('in ounces and pounds: what is shown reads back as what is weighed, and sums stay sums', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 1, max: 4000 }), { minLength: 2, maxLength: 6 }),
      fc.integer({ min: 200, max: 30_000 }),
      fc.constantFrom(0.1, 1, 5),
      (grams, toG, stepG) => {
        const scaled = scaleTo(grams, toG, stepG);
        const sum = scaled.reduce((total, value) => total + value, 0);
        expect(Math.abs(sum - toG)).toBeLessThanOrEqual(stepG / 2 + 1e-6);
        for (const value of scaled) {
          const unit = massUnitFor(toG * 1000, 'imperial');
          const shown = formatMass(value * 1000, 'imperial', unit);
          const read = parseMass(shown, unit, '.') ?? NaN;
          // Off by half of the last figure that is shown, at most.
          const decimals = /\.(\d+)/.exec(shown)?.[1]?.length ?? 0;
          expect(Math.abs(read - value)).toBeLessThanOrEqual(0.501 * gramsFrom(10 ** -decimals, unit));
        }
      },
    ),
    { numRuns: 200, seed: 3 },
  );
});

test('limits and stocks speak in ounces and pounds where the workshop does', async () => {
  const asked = question([some(NIBS, 400), some(SUGAR)], [want('cocoa', { least: 72 })], {
    size: { grams: 4535.9237 },
    mostG: 9071.8474,
    massSystem: 'imperial',
  });
  const answer = await solve(asked);
  expect(answer.conflict.map(({ words }) => words.replaceAll('\u00a0', ' '))).toEqual([
    'A batch of 10.00 lb',
    'Only 14.11 oz of nibs',
    'Cocoa at least 72 %',
  ]);
});
