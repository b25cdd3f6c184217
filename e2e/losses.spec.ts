import { expect, test } from './test';
import { choose } from './choose';

test.use({ workshop: 'demo' });

test.beforeEach(async ({ page }) => {
  await page.addInitScript(() => localStorage.setItem('wunsch.person', 'ilse'));
});

test('a winnowing with two passes and three samples comes to advice before it is saved', async ({ page }) => {
  await page.goto('/station/winnow?work=new');
  await page.getByRole('button', { name: 'Enter winnowing that is done' }).click();
  const tub = page.getByRole('group', { name: 'What goes in' }).getByRole('button').first();
  const code = (await tub.innerText()).slice(0, 4);
  await tub.click();
  await page.getByLabel(new RegExp(`^${code}, of`)).fill('4,5 kg');
  await page.getByRole('button', { name: 'Suction column' }).click();
  await page.getByLabel('Air (dial)').fill('4,5');

  await page.getByText('Several passes').click();
  await page.getByLabel(/^Nibs from it/).fill('3.5 kg');
  await page.getByLabel('Minutes', { exact: true }).fill('15');
  await page.getByRole('button', { name: 'Add the pass' }).click();
  await page.getByLabel(/^Nibs from it/).fill('100 g');
  await page.getByLabel('Minutes', { exact: true }).fill('4');
  await page.getByRole('button', { name: 'Add the pass' }).click();
  await expect(page.getByLabel('Nibs', { exact: true })).toHaveValue(/^(3\.6|3600)$/);
  await page.getByLabel('Husk', { exact: true }).fill('0.8 kg');

  const advice = page.getByRole('region', { name: 'What the samples say' });
  await expect(advice).toContainText('Pick a sample of nibs and one of husk');
  await page.getByLabel('Shell in it (g)').fill('300');
  await page.getByRole('button', { name: 'Add a sample: shell in nibs' }).click();
  await expect(page.getByText('is more than the sample weighs')).toBeVisible();
  for (const found of ['1,0', '1.2', '1.1']) {
    await page.getByLabel('Shell in it (g)').fill(found);
    await page.getByRole('button', { name: 'Add a sample: shell in nibs' }).click();
  }
  for (const found of ['24', '26', '25']) {
    await page.getByLabel('Nib in it (g)').fill(found);
    await page.getByRole('button', { name: 'Add a sample: nib in husk' }).click();
  }
  await expect(advice).toContainText('Turn the air down a little: nib leaves with the husk.');
  // 800 g of husk, a quarter of it nib, seven tenths of that come back: 140 g.
  await expect(advice).toContainText('about 140 g of nib');
  await page.reload();
  await expect(advice).toContainText('Turn the air down a little');
  await page.getByRole('button', { name: 'Save nibs and husk' }).click();
  await expect(page.getByRole('status')).toContainText('Saved.');
});

test('the drifting winnower, from the floor in three presses', async ({ page }) => {
  await page.goto('/');
  await page.locator('main a[href^="/losses?station=winnow&metric=yield"]').first().click();
  await expect(page.getByText(/has been drifting down by \d\.\d points/)).toBeVisible();
  await expect(page.getByText(/It began about/)).toContainText('with 95 %');
  // Whoever knows better says so; it stays under the verdict, and can be taken back.
  await page.getByRole('button', { name: 'You know better?' }).first().click();
  await page.getByLabel('What you know better').fill('New cracker since May');
  await page.reload();
  await expect(page.getByLabel('What you know better')).toHaveValue('New cracker since May');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText('“New cracker since May”')).toBeVisible();
  await page.getByRole('button', { name: 'take it back' }).click();
  await expect(page.getByText('“New cracker since May”')).toBeHidden();
  await page.getByRole('heading', { name: 'Where a rule fires' }).locator('..').getByRole('link').first().click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Winnowed');
});

test('a stock-take: a count that is off is in the book, with its cause and its word', async ({ page }) => {
  await page.goto('/store');
  await page.getByRole('link', { name: 'Stock-take' }).click();
  const sugar = page.getByRole('listitem').filter({ hasText: 'Raw cane sugar' }).first();
  const field = sugar.getByRole('textbox');
  await field.fill('lots');
  await page.getByRole('button', { name: /^Book / }).click();
  await expect(page.getByRole('alert')).toContainText('is not a number');
  await field.fill('1');
  await expect(sugar.getByText(/short/)).toBeVisible();
  await choose(sugar.getByRole('combobox'), 'write-off');
  await page.reload();
  await expect(field).toHaveValue('1');
  await page.getByLabel('A word with it').fill('a sack got wet');
  await page.getByRole('button', { name: 'Book one count' }).click();
  await expect(page.getByRole('status')).toContainText('One count is in the book.');
  const { steps } = (await (await page.request.get('/api/ledger/steps?station=pantry&limit=1')).json()) as {
    steps: {
      kind: string;
      command: { cause: string; note: string };
      lines: { loss: string | null; massMg: number }[];
    }[];
  };
  expect(steps[0]).toMatchObject({ kind: 'adjust', command: { cause: 'write-off', note: 'a sack got wet' } });
  expect(steps[0]?.lines.find(({ loss }) => loss === 'write-off')?.massMg).toBeGreaterThan(0);
});

test('husk: sold with its price, and the caution stands beside it', async ({ page }) => {
  await page.goto('/station/winnow');
  await page.getByRole('button', { name: 'What becomes of it' }).first().click();
  await expect(page.getByText(/heavy metals and pesticide residues/)).toBeVisible();
  await page.getByRole('button', { name: 'Book it' }).click();
  await expect(page.getByRole('alert')).toContainText('Say what it fetched');
  await page.getByLabel('Fetched (EUR)').fill('3,50');
  await page.getByLabel('To whom').fill('Gull Street Gardens');
  await page.getByRole('button', { name: 'Book it' }).click();
  await expect(page.getByText(/heavy metals and pesticide residues/)).toHaveCount(0);
});
