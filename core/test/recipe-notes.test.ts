import { dearest, namesOf, priceWords, roundingWords, smallStocks } from '../src/recipe/notes';
import type { Kept } from '../src/recipe/question';
import { BUTTER, NIBS, question, some, SUGAR, want } from './recipe-fixtures';

/* What rounding, small stocks and missing prices mean, in sentences. */

const free = (ingredient: typeof SUGAR) => ({ ...ingredient, perKgMilli: null });

describe('prices', () => {
  const cost = [want('cost', { most: 9 })];

  test('where nothing is asked of the cost, or all have a price, nothing is said', () => {
    expect(priceWords(question([some(NIBS), some(free(SUGAR))], []))).toEqual([]);
    expect(priceWords(question([some(NIBS), some(SUGAR)], cost))).toEqual([]);
  });

  test('what has no price counts as the dearest there is, by name', () => {
    expect(priceWords(question([some(NIBS), some(free(SUGAR)), some(free(BUTTER))], cost))).toEqual([
      'sugar, butter: no price yet, counted as the dearest here, 12.00 EUR a kg.',
    ]);
  });

  test('where nothing has a price the limit says nothing', () => {
    expect(priceWords(question([some(free(NIBS)), some(free(SUGAR))], cost))).toEqual([
      'Nothing here has a price yet: the limit on cost says nothing.',
    ]);
  });

  test('the dearest of some, of one, of none', () => {
    expect(dearest([some(SUGAR), some(BUTTER), some(NIBS)])).toBe(1_800_000);
    expect(dearest([some(free(SUGAR)), some(NIBS)])).toBe(1_200_000);
    expect(dearest([some(free(SUGAR))])).toBeNull();
    expect(dearest([])).toBeNull();
  });
});

describe('stocks that the scale cannot weigh', () => {
  test('are named with what is there and the step; in the bowl, empty or enough they are not', () => {
    const asked = question(
      [some(NIBS, 4), some(SUGAR, 0), some(BUTTER, 5), some({ ...SUGAR, name: 'salt' }, 3, { fixedG: 3 })],
      [],
      { stepG: 5 },
    );
    expect(smallStocks(asked)).toEqual([
      'The 4\u00a0g of nibs are less than the scale’s step of 5 g: none of it can be weighed.',
    ]);
  });

  test('as much as is wanted is no small stock', () => {
    expect(smallStocks(question([some(NIBS, null)], [], { stepG: 5 }))).toEqual([]);
  });
});

describe('rounding', () => {
  const asked = question([some(NIBS), some(SUGAR)], [], { stepG: 5 });
  const row = (more: Partial<Kept>): Kept => ({
    id: 'x',
    of: 'cocoa',
    side: 'most',
    wanted: 70,
    exact: 70,
    rounded: 70,
    kept: true,
    words: 'cocoa at most 70 %',
    ...more,
  });

  test('what stays where it was is not spoken of', () => {
    expect(roundingWords(asked, [row({})], [])).toEqual([]);
  });

  test('a bound that rounding breaks is said, and what would keep it', () => {
    expect(roundingWords(asked, [row({ rounded: 70.9, kept: false })], [])).toEqual([
      'Cocoa is 70.9 % when weighed in steps of 5 g: cocoa at most 70 % is not kept. A finer scale or a larger batch would keep it.',
    ]);
  });

  test('an aim that rounding moves is said without reproach', () => {
    expect(roundingWords(asked, [row({ side: 'aim', rounded: 70.9, kept: false })], [])).toEqual([
      'Cocoa is 70.9 % when weighed in steps of 5 g.',
    ]);
  });

  test('what is less than one step of the scale is left out by name, its trace is not', () => {
    expect(
      roundingWords(
        asked,
        [],
        [
          { id: 'sugar', grams: 0, exactG: 1.26 },
          { id: 'nibs', grams: 0, exactG: 0.01 },
          { id: 'nibs', grams: 500, exactG: 501.2 },
        ],
      ),
    ).toEqual(['1.3 g of sugar would be wanted: less than the step of 5 g weighs.']);
  });

  test('the same thing is said once', () => {
    const moved = row({ rounded: 70.9, kept: false });
    expect(roundingWords(asked, [moved, { ...moved, side: 'most' }], [])).toHaveLength(1);
  });
});

test('names are those of the ingredients; what is none keeps its id', () => {
  const nameOf = namesOf([some({ ...NIBS, name: 'Nibs of L004' })]);
  expect([nameOf('nibs'), nameOf('butter')]).toEqual(['Nibs of L004', 'butter']);
});
