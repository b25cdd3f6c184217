import { expect, test, type Page } from './test';
import { choose } from './choose';

test.use({ workshop: 'demo' });

test.beforeEach(async ({ page }) => {
  await page.addInitScript(() => localStorage.setItem('wunsch.person', 'ilse'));
});

const readout = (page: Page, label: string) => page.getByLabel(label, { exact: true });

test('the weigh pad: keys, unit, tare, several weighings, the scale; the draft survives a reload', async ({ page }) => {
  await page.goto('/station/winnow');
  const pad = page.getByRole('region', { name: 'Weigh pad' });
  const key = (name: string) => pad.getByRole('button', { name, exact: true });
  // The screen is in the unit of its tubs; it turns to grams and back as a whole.
  await expect(key('in g').or(key('in kg'))).toBeVisible();
  if (await key('in g').isVisible()) await key('in g').click();
  for (const digit of ['7', '2', '0', '0']) await key(digit).click();
  await expect(readout(page, 'Nibs')).toHaveValue('7200');
  await key('in kg').click();
  await expect(readout(page, 'Nibs')).toHaveValue('7.2');
  await key('Add').click();
  await key('1').click();
  await key('Delete the last digit').click();
  await key('3').click();
  await key('Tare').click();
  for (const digit of ['4']) await key(digit).click();
  await expect(page.getByText('= 8.20 kg')).toBeVisible();
  await page.reload();
  await expect(page.getByText('= 8.20 kg')).toBeVisible();

  await key('Next').click();
  await pad.getByRole('button', { name: 'Take from scale' }).click();
  await pad.getByLabel('Kilograms to put on the simulated scale').fill('0,75');
  await pad.getByRole('button', { name: 'Put on' }).click();
  await expect(pad.getByText('settled')).toBeVisible();
  await expect(pad.getByLabel('Scale reading')).toContainText(/0\.7(49|50|51)/);
  await pad.getByRole('button', { name: 'Take it' }).click();
  await expect(readout(page, 'Husk')).toHaveValue(/^0\.7(49|5|51)$/);
  await page.getByRole('button', { name: 'Throw this draft away' }).click();
  await expect(readout(page, 'Husk')).toHaveValue('');
});

test('bad input at the bench: told at the field, nothing lost, nothing saved', async ({ page, request }) => {
  const count = async (): Promise<number> =>
    ((await (await request.get('/api/health')).json()) as { steps: number }).steps;
  const before = await count();
  await page.goto('/station/winnow');
  await readout(page, 'Nibs').fill('lots');
  await readout(page, 'Husk').fill('100');
  await page.getByRole('button', { name: 'Save nibs and husk' }).click();
  await expect(page.getByText('Look at: Nibs.')).toBeVisible();
  await expect(readout(page, 'Nibs')).toBeFocused();
  await readout(page, 'Nibs').fill('30 kg');
  await page.getByRole('button', { name: 'Save nibs and husk' }).click();
  await expect(page.getByRole('alert')).toContainText('too much');
  await expect(page.getByText('more than went in').first()).toBeVisible();
  await expect(readout(page, 'Husk')).toHaveValue('100');
  expect(await count()).toBe(before);
  await page.getByRole('button', { name: 'Throw this draft away' }).click();
});

test('two tabs finish the same load: one wins, the other is told', async ({ page, context }) => {
  const other = await context.newPage();
  for (const tab of [page, other]) {
    await tab.goto('/station/roast');
    await expect(tab.getByText('In the roaster')).toBeVisible();
  }
  const weighed = await page.getByText(/g, simulated probe/).innerText();
  const found = /([\d.\u00a0]+)\s(k?g), simulated/.exec(weighed);
  const inKg = Number(found?.[1]?.replace(/\s/g, '')) / (found?.[2] === 'g' ? 1000 : 1);
  await page.getByRole('button', { name: 'It is out' }).click();
  await readout(page, 'Out of the roaster').fill(`${Math.round(inKg * 940)} g`);
  await readout(other, 'Out of the roaster').fill(`${Math.round(inKg * 938)} g`);
  // Both are about to save at the same moment: hold back the news that would refresh the second.
  await other.route('**/api/**/bench', (route) => route.abort());
  await page.getByRole('button', { name: 'Save the load' }).click();
  await expect(page).toHaveURL(/roasting\/load/);
  await other.getByRole('button', { name: 'Save the load' }).click();
  await expect(other.getByRole('alert')).toContainText(/finished or put back already|saved already/);
});

test('a step is corrected with a reason; both versions stay readable', async ({ page }) => {
  await page.goto('/station/sort');
  await page
    .getByRole('link', { name: /Sorted/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'Correct or take back' }).click();
  const why = page.getByLabel('Why is it corrected?');
  await why.fill('The bucket was on the scale');
  await page.reload();
  await page.getByRole('button', { name: 'Correct or take back' }).click();
  await expect(why).toHaveValue('The bucket was on the scale');
  const good = readout(page, 'Good beans');
  const was = Number(await good.inputValue());
  await good.fill(String(was - 0.01));
  await page.getByRole('button', { name: 'Save the correction' }).click();
  await expect(page.getByText('2 of them')).toBeVisible();
  await expect(page.getByText('“The bucket was on the scale”')).toBeVisible();
  await expect(why).toHaveValue('');
});

test('units: ounces and pounds, °F, everywhere, and back', async ({ page }) => {
  await page.goto('/workshop');
  await choose(page.getByLabel('Weights'), 'imperial');
  await choose(page.getByLabel('Temperatures'), 'F');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByRole('navigation', { name: 'Stations' })).toContainText('lb');
  await page.goto('/station/temper');
  await expect(page.getByText('°F').first()).toBeVisible();
  await page.goto('/workshop');
  await choose(page.getByLabel('Weights'), 'metric');
  await choose(page.getByLabel('Temperatures'), 'C');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByRole('navigation', { name: 'Stations' })).toContainText('kg');
});

test('find by part of a code, keys on ?, night theme', async ({ page }) => {
  await page.goto('/');
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('n');
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'night');
  await page.keyboard.press('Control+k');
  await page.keyboard.type('b04');
  await expect(page.getByRole('option').first()).toContainText('B04');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/batch\/B04/);
});

test('the server goes away: the bench says so and keeps what was typed', async ({ page }) => {
  await page.goto('/station/winnow');
  await readout(page, 'Nibs').fill('7000 g');
  await readout(page, 'Husk').fill('1200 g');
  await page.route('**/api/ledger/**', (route) => route.abort());
  await page.getByRole('button', { name: 'Save nibs and husk' }).click();
  await expect(page.getByRole('alert')).toContainText('does not answer');
  await expect(readout(page, 'Nibs')).toHaveValue('7000 g');
});

test('a code that is nowhere, a station that is none', async ({ page }) => {
  await page.goto('/trace/NOPE-9');
  await expect(page.getByRole('main')).toContainText('Nothing here carries the code NOPE-9');
  await page.goto('/station/moon');
  await expect(page.getByRole('main')).toContainText('There is no such station');
});

test('a wrong weight with later steps behind it: all of them are shown, and entered together', async ({ page }) => {
  const { steps } = (await (await page.request.get('/api/ledger/steps?station=sort&limit=40')).json()) as {
    steps: { id: string; lines: { holdingId: string | null; massMg: number }[] }[];
  };
  // A sorting whose beans were all roasted since.
  let chosen = '';
  for (const step of steps) {
    const made = step.lines.find(({ holdingId, massMg }) => holdingId !== null && massMg > 0);
    const stock = (await (await page.request.get('/api/trace/stock')).json()) as { holdings: { id: string }[] };
    if (made && !stock.holdings.some(({ id }) => id === made.holdingId)) chosen = step.id;
    if (chosen !== '') break;
  }
  await page.goto(`/step/${chosen}`);
  await page.getByRole('button', { name: 'Correct or take back' }).click();
  await page.getByLabel('Why is it corrected?').fill('The tray was on the scale');
  const good = readout(page, 'Good beans');
  await good.fill(String(Number(await good.inputValue()) - 0.04));
  await page.getByRole('button', { name: 'Save the correction' }).click();
  const later = page.getByRole('region', { name: 'Later steps' });
  await expect(later.getByRole('heading')).toContainText(/later steps? (go|goes) with it/);
  const enter = later.getByRole('button', { name: /Enter all \d+ corrections/ });
  await expect(enter).toBeEnabled();
  await enter.click();
  await expect(page.getByText('2 of them')).toBeVisible();
  await expect(page.getByText('“The tray was on the scale”')).toBeVisible();
});

test('a figure that cannot be read is refused at its field, minutes and times too', async ({ page }) => {
  await page.goto('/station/sort?work=new');
  await page.getByRole('button', { name: 'Enter sorting that is done' }).click();
  await page
    .getByRole('button', { name: /^[LT]\d+/ })
    .first()
    .click();
  await readout(page, 'Good beans').fill('100');
  await page.getByText(/Time and minutes|Machine, time and minutes/).click();
  await page.getByLabel('Hands-on minutes (min)').fill('2o');
  await page.getByRole('button', { name: /Save/ }).first().click();
  await expect(page.getByText('Look at: Hands-on minutes.')).toBeVisible();
  await expect(page.getByText('is not a number')).toBeVisible();
});

test('two things sold together: each has its takings, proposed from the last price', async ({ page }) => {
  await page.goto('/store');
  await page.getByRole('button', { name: 'Sell or give' }).click();
  await page.getByText('more that would fit').click();
  const goods = page.getByRole('group', { name: 'What goes' });
  await goods
    .getByRole('button', { name: /packed bars/ })
    .first()
    .click();
  await goods.getByRole('button', { name: /^H\d+/ }).first().click();
  const fields = page.locator('.readout').filter({ hasText: 'Takings for' });
  await expect(fields).toHaveCount(2);
  await fields.nth(0).getByRole('textbox').fill('58,60');
  await fields.nth(1).getByRole('textbox').fill('3,40');
  await page.getByRole('button', { name: 'Book the sale' }).click();
  await expect(page.getByRole('status')).toContainText('Saved.');
});

test('a browser in Ho Chi Minh City, a workshop in Lisbon: times are the workshop’s', async ({ browser }) => {
  const context = await browser.newContext({ timezoneId: 'Asia/Ho_Chi_Minh' });
  await context.addInitScript(() => localStorage.setItem('wunsch.person', 'ilse'));
  const page = await context.newPage();
  const { settings } = (await (await page.request.get('/api/workshop')).json()) as { settings: { timeZone: string } };
  const goBy = (timeZone: string) => page.request.put('/api/workshop/settings', { data: { ...settings, timeZone } });
  // The demo lies wherever it is a working day.
  expect((await goBy('Europe/Lisbon')).ok()).toBe(true);
  await page.goto('/station/beans?show=traps');
  await page.getByLabel('Moths').fill('2');
  // The night in which Lisbon's clocks fell back: the hour after.
  await page.getByLabel('When (empty: now)').fill('2026-10-25T03:15');
  await page.getByRole('button', { name: /Save|Write/ }).click();
  await expect
    .poll(async () => {
      const exported = await (await page.request.get('/api/workshop/export.json')).text();
      return exported.includes(`"at":${Date.UTC(2026, 9, 25, 3, 15)}`);
    })
    .toBe(true);
  await goBy(settings.timeZone);
  await context.close();
});
