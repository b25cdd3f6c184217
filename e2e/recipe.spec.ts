import { expect, test, type Page } from './test';
import { formatMass } from '@wunsch/core/units/mass';
import { ann, bought, charged, enter, madeBy, material, nibs, post, readout, somebody } from './maker';
import { choose } from './choose';

/* From what is wanted to what is weighed, and back. */

test.use({ workshop: 'makers', locale: 'en-IE' });
test.beforeEach(async ({ page }) => {
  await somebody(page);
  await page.addInitScript((id) => localStorage.setItem('wunsch.person', id), ann);
});

const materialOf = async (page: Page, name: string, more: object = {}): Promise<string> => {
  const { materials } = (await (await page.request.get('/api/workshop')).json()) as {
    materials: { id: string; name: string }[];
  };
  return materials.find((row) => row.name === name)?.id ?? material(page, name, more);
};
const codeOf = async (page: Page, holdingId: string): Promise<string> => {
  const { rows } = (await (await page.request.get('/api/recipe/pantry')).json()) as {
    rows: { stock: { holdingId: string; code: string }[] }[];
  };
  return rows.flatMap(({ stock }) => stock).find((row) => row.holdingId === holdingId)?.code ?? '';
};
const addIngredient = (page: Page, name: RegExp): Promise<void> =>
  choose(page.getByLabel('Another ingredient'), { label: name });
const onScale = async (page: Page, massG: number): Promise<void> => {
  await page.request.post('/api/devices/scale/place', { data: { massG } });
};

test('72 % of two ingredients for a ten kilo grinder from two part sacks; weighed by the scale, with a wrong tub and an overshoot', async ({
  page,
}) => {
  const stone = await post<{ id: string }>(page, '/api/workshop/machines', {
    name: 'Ten kilo stone',
    station: 'grind',
    minG: 4000,
    maxG: 10_000,
  });
  const sugar = await materialOf(page, 'Plain sugar', { sugar: true });
  const bag = await bought(page, sugar, 6000);
  const [alpha, beta] = [await nibs(page, 'Alpha sack', 4300), await nibs(page, 'Beta sack', 3100)];

  await page.goto('/recipes');
  await page.getByRole('link', { name: /Dark 72\s%, two ingredients/ }).click();
  await page.getByRole('button', { name: 'Leave out Nibs' }).click();
  await addIngredient(page, /Alpha sack/);
  await addIngredient(page, /Beta sack/);
  // The shop's other sugars stay out of it.
  for (const button of await page.getByRole('button', { name: /^Leave out (?!Nibs|Plain)/ }).all())
    await button.click();
  if (!(await page.getByLabel('Plain sugar, weighed').isVisible())) await addIngredient(page, /Plain sugar/);
  await choose(page.getByLabel('Grinder'), stone.id);
  await page.getByLabel('only from what is here').check();
  await page.getByLabel('Batch', { exact: true }).fill('10 kg');
  await expect(page.getByText('All that is wanted is met.')).toBeVisible();
  await expect(page.getByLabel('Plain sugar, weighed')).toHaveValue('2.8');

  // Seven kilos too many contradict the sacks, in words.
  await page.getByLabel('Batch', { exact: true }).fill('10.4 kg');
  await expect(page.getByText('Ten kilo stone takes 10.00 kg at most')).toBeVisible();
  await page.getByLabel('Batch', { exact: true }).fill('10 kg');

  await page.getByLabel('Name', { exact: true }).fill('Two sacks 72');
  await page.getByRole('button', { name: 'Save the recipe' }).click();
  await expect(page.getByText('Version 1')).toBeVisible();
  await page.getByRole('button', { name: 'Weigh it now' }).click();
  await expect(page.getByRole('heading', { name: /Weighing Two sacks 72/ })).toBeVisible();

  const [alphaCode, betaCode, bagCode] = [await codeOf(page, alpha), await codeOf(page, beta), await codeOf(page, bag)];
  // The wrong tub is stopped before anything is weighed.
  await page.getByRole('button', { name: /Alpha sack/ }).click();
  await page.getByLabel('Code of the tub').fill(bagCode);
  await page.getByRole('button', { name: 'Check' }).click();
  await expect(page.getByText(`Stop: ${bagCode} is Plain sugar, not`)).toBeVisible();
  await page.getByLabel('Code of the tub').fill(alphaCode);
  await page.getByRole('button', { name: 'Check' }).click();
  await expect(page.getByText('From this tub')).toBeVisible();
  const planned = (await (await page.request.get('/api/recipe/weighings')).json()) as {
    weighings: { name: string; lines: { name: string; plannedG: number }[] }[];
  };
  const lines = planned.weighings.find(({ name }) => name === 'Two sacks 72')?.lines ?? [];
  const grams = (name: string): number => lines.find((line) => line.name.includes(name))?.plannedG ?? 0;
  await onScale(page, grams('Alpha'));
  // The scale is not quite steady: it takes what it showed when it was pressed.
  const about = (name: string): string =>
    `(${[-1, 0, 1].map((off) => formatMass((grams(name) + off) * 1000, 'metric', 'g').replace(/\s/g, '\\s')).join('|')})`;
  await page.getByRole('button', { name: new RegExp(`^Take ${about('Alpha')}$`) }).click();
  await expect(page.getByText(new RegExp(`${alphaCode} ${about('Alpha')}`))).toBeVisible();

  // Sugar by a heavy hand, poured on top of the nibs: 200 g too many.
  await page.getByRole('button', { name: /Plain sugar/ }).click();
  await page.getByRole('button', { name: new RegExp(`^${bagCode}`) }).click();
  await onScale(page, grams('Alpha') + 3000);
  await expect(page.getByText('Too much by')).toBeVisible();
  await page.getByRole('button', { name: /^Take (2.999|3.00[01]) g/ }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'over' })).toBeVisible();
  await page.getByRole('button', { name: 'Work out the rest again' }).click();
  await expect(page.getByText(/went over/)).toBeVisible();
  await page.getByRole('button', { name: /Beta sack/ }).click();
  await page.getByRole('button', { name: new RegExp(`^${betaCode}`) }).click();
  await page.getByLabel('Or by hand').fill('2.9 kg');
  await page.reload();
  // A weight typed by hand and not taken is still there; its tub is asked for again.
  await page.getByRole('button', { name: /Beta sack/ }).click();
  await expect(page.getByLabel('Or by hand')).toHaveValue(/^2[.,]900|^2900/);
  await page.getByRole('button', { name: new RegExp(`^${betaCode}`) }).click();
  await page.getByRole('button', { name: /^Take 2.900 g/ }).click();
  await expect(page.getByText(new RegExp(`${betaCode} 2.900`))).toBeVisible();
  await page.reload();
  await expect(page.getByText(new RegExp(`${betaCode} 2.900`))).toBeVisible();
  await page.getByRole('button', { name: /^Into the bowl/ }).click();
  await expect(page).toHaveURL(/\/station\/grind\?batch=B\d+/);
  await expect(page.getByText('Two sacks 72').first()).toBeVisible();
});

test('butter in late: what the bowl is now, what its label may say, and the sugar that puts it right', async ({
  page,
}) => {
  const sugar = await materialOf(page, 'Plain sugar', { sugar: true });
  const butter = await materialOf(page, 'Late butter', { cocoa: 'butter' });
  const lot = await nibs(page, 'Late nibs', 1500);
  const bowl = await charged(page, 'Late 70 %', [
    { holdingId: lot, massG: 1400 },
    { holdingId: await bought(page, sugar, 900), massG: 600 },
  ]);
  await enter(page, {
    kind: 'charge',
    batchId: madeBy(bowl, 'mass'),
    sources: [{ holdingId: await bought(page, butter, 200), massG: 100 }],
  });
  await page.goto(`/station/grind?batch=${bowl.batchCode}`);
  await expect(page.getByRole('region', { name: 'Forecast' })).toBeVisible();
  await page.getByRole('link', { name: 'Put it right' }).click();
  await expect(page.getByText('It is 71.4 %: the label’s 70 % is kept, and 71 % would be true.')).toBeVisible();
  await choose(page.getByLabel('Ask for'), 'cocoa');
  await choose(page.getByLabel('Cocoa: how'), 'aim');
  await page.getByLabel('Cocoa', { exact: true }).fill('70');
  // 1500 g of cocoa are 70 % of 2143 g.
  await expect(page.getByRole('complementary').getByText('43 g', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Weigh the addition' }).click();
  await expect(page.getByRole('heading', { name: /Addition to/ })).toBeVisible();
  await page.getByRole('button', { name: /^P\d+/ }).first().click();
  await page.getByLabel('Or by hand').fill('43');
  await page.getByRole('button', { name: 'Take 43 g' }).click();
  await expect(page.getByText('All of it is weighed.')).toBeVisible();
  await page.getByRole('button', { name: 'Into the bowl' }).click();
  await expect(page.getByText('70.0 % cocoa', { exact: true })).toBeVisible();
});

test('an 80 % kilo by a kitchen maker on a phone', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  const sugar = await materialOf(page, 'Plain sugar', { sugar: true });
  await bought(page, sugar, 500);
  await nibs(page, 'Kitchen nibs', 1200, 'unroasted', false);
  await page.goto('/recipe/new?from=5');
  await page.getByRole('button', { name: 'Leave out Nibs' }).click();
  await addIngredient(page, /Kitchen nibs/);
  for (const button of await page.getByRole('button', { name: /^Leave out (?!Nibs|Plain)/ }).all())
    await button.click();
  if (!(await page.getByLabel('Plain sugar, weighed').isVisible())) await addIngredient(page, /Plain sugar/);
  await page.getByLabel('Batch', { exact: true }).fill('1 kg');
  await expect(page.getByLabel(/Kitchen nibs, weighed/)).toHaveValue('800');
  await expect(page.getByLabel('Plain sugar, weighed')).toHaveValue('200');
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);

  // What cannot be is said at once, and nothing is lost.
  await page.getByLabel('Cocoa', { exact: true }).fill('180');
  await page.getByLabel('Name', { exact: true }).fill('Kitchen 80');
  await page.getByRole('button', { name: 'Save the recipe' }).click();
  await expect(page.getByText('is more than 100').first()).toBeVisible();
  await page.getByLabel('Cocoa', { exact: true }).fill('80');
  await choose(page.getByLabel('Route'), 'unroasted');
  await page.reload();
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Kitchen 80');
  await page.getByRole('button', { name: 'Save the recipe' }).click();
  await page.getByRole('button', { name: 'Weigh it now' }).click();
  await expect(page.getByRole('heading', { name: /Weighing Kitchen 80/ })).toBeVisible();
  for (const [name, text, take] of [
    [/Kitchen nibs/, '800', 'Take 800 g'],
    [/Plain sugar/, '200', 'Take 200 g'],
  ] as const) {
    await page.getByRole('button', { name }).first().click();
    await page
      .getByRole('button', { name: /· use first|^[LP]\d+/ })
      .first()
      .click();
    await readout(page, 'Or by hand').fill(text);
    await page.getByRole('button', { name: take }).click();
    await expect(page.getByRole('img', { name: 'weighed' }).or(page.getByLabel('weighed'))).not.toHaveCount(0);
  }
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await page.getByRole('button', { name: 'Into the bowl' }).click();
  await expect(page).toHaveURL(/\/station\/grind\?batch=B/);
  await expect(page.getByRole('button', { name: /Kitchen 80/ })).toBeVisible();
  await expect(page.getByText('80.0 % cocoa', { exact: true })).toBeVisible();
});

test('a slider dragged is followed at once; a version says what changed; a swap says what cannot be kept; a ladder is planned', async ({
  page,
}) => {
  await materialOf(page, 'Plain sugar', { sugar: true });
  await materialOf(page, 'Test liquor', { cocoa: 'liquor' });
  const { id } = await post<{ id: string }>(page, '/api/recipe/recipes', {
    personId: ann,
    recipe: {
      name: 'Slid 70',
      kind: 'two-ingredient',
      labelPct: 70,
      lines: [
        { ingredient: 'nibs', grams: 700 },
        { ingredient: await materialOf(page, 'Plain sugar'), grams: 300 },
      ],
      limits: [{ of: 'cocoa', aim: 70 }],
    },
  });
  await page.goto(`/recipe/${id}`);
  const slider = page.getByRole('slider', { name: 'Cocoa, about, slider' });
  await slider.focus();
  for (let i = 0; i < 4; i += 1) await page.keyboard.press('ArrowRight');
  await expect(page.getByLabel('Nibs, weighed')).toHaveValue('720');
  await page.getByLabel('Why it changed').fill('less sweet');
  await page.getByRole('button', { name: 'Save as version 2' }).click();
  await expect(page.getByText('Version 2', { exact: true })).toBeVisible();
  // Somebody else saves the next one while this screen is changed: both are kept apart.
  await page.getByLabel('Nibs, weighed').fill('715');
  const { versions } = (await (await page.request.get(`/api/recipe/recipes/${id}`)).json()) as {
    versions: { recipe: object }[];
  };
  await post(page, `/api/recipe/recipes/${id}/versions`, { personId: ann, recipe: versions[0]?.recipe, after: 2 });
  await expect(page.getByText(/saved version 3 meanwhile/)).toBeVisible();
  await expect(page.getByLabel('Nibs, weighed')).toHaveValue('715');
  await page.getByRole('button', { name: 'Throw mine away, show theirs' }).click();
  await expect(page.getByText('Version 3', { exact: true })).toBeVisible();
  await page.getByRole('tab', { name: 'Versions' }).click();
  await expect(page.getByText(/Nibs 70\.0\s% → 72\.0\s%/)).toBeVisible();
  await expect(page.getByText('“less sweet”')).toBeVisible();

  await page.getByRole('tab', { name: 'Swap' }).click();
  await page
    .getByRole('group', { name: /not to be had/ })
    .getByRole('button', { name: 'Nibs' })
    .click();
  await page
    .getByRole('group', { name: /stand in/ })
    .getByRole('button', { name: 'Test liquor' })
    .click();
  await expect(page.getByRole('button', { name: 'Take it into the recipe' })).toBeVisible();

  await page.getByRole('tab', { name: 'Ladder' }).click();
  await page.getByRole('button', { name: 'Plan the ladder' }).click();
  await expect(page.getByText('0 of 3 are on the stones or made.')).toBeVisible();
});

test('an ingredient gets figures of its own; what cannot be is refused in red', async ({ page }) => {
  await page.goto('/ingredients');
  await page.getByRole('button', { name: 'Another one' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Cream powder');
  await page.getByLabel('I have its own figures, from its label or an analysis').check();
  await page.getByLabel('Fat', { exact: true }).fill('140');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('is more than all of it').first()).toBeVisible();
  await page.getByLabel('Fat', { exact: true }).fill('42');
  await page.getByLabel('of it milk fat').fill('42');
  await page.getByLabel('Fat-free milk solids').fill('54');
  await page.getByLabel('Allergens, apart by commas').fill('milk');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Cream powder')).toBeVisible();
});

test('a workshop that weighs in pounds and ounces', async ({ page }) => {
  const { settings } = (await (await page.request.get('/api/workshop')).json()) as { settings: object };
  const put = async (massSystem: string): Promise<void> => {
    const answer = await page.request.put('/api/workshop/settings', { data: { ...settings, massSystem } });
    expect(answer.ok(), await answer.text()).toBe(true);
  };
  await put('imperial');
  try {
    const sugar = await materialOf(page, 'Plain sugar', { sugar: true });
    await bought(page, sugar, 6000);
    await nibs(page, 'Gamma sack', 4000);
    await page.goto('/recipes');
    await page.getByRole('link', { name: /Dark 72\s%, two ingredients/ }).click();
    await page.getByRole('button', { name: 'Leave out Nibs' }).click();
    await addIngredient(page, /Gamma sack/);
    for (const button of await page.getByRole('button', { name: /^Leave out (?!Nibs|Plain)/ }).all())
      await button.click();
    if (!(await page.getByLabel('Plain sugar, weighed').isVisible())) await addIngredient(page, /Plain sugar/);
    await page.getByLabel('The scale’s step').fill('0.1');
    await page.getByLabel('Batch', { exact: true }).fill('5 lb');
    await expect(page.getByText('All that is wanted is met.')).toBeVisible();
    // 28 % of 80 oz.
    await expect(page.getByLabel('Plain sugar, weighed')).toHaveValue('22.4');
    await expect(page.getByText(/^€\d+\.\d\d a pound,/)).toBeVisible();
    await page.getByLabel('Plain sugar, weighed').fill('24 oz');
    await expect(page.getByText(/^7\d\.\d\s%/).first()).toBeVisible();
    await page.getByLabel('Plain sugar, weighed').fill('24 stone');
    await expect(page.getByText('is not a figure that can be weighed or meant').first()).toBeVisible();
  } finally {
    await put('metric');
  }
});
