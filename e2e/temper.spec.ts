import { expect, test } from '@playwright/test';
import { ann, bought, charged, enter, madeBy, material, nibs, post, readout, saved, somebody } from './maker';
import { MAKERS } from './playwright.config';

/* Tempering: the sums at the bench, and a place to practise. */

test.use({ baseURL: `http://127.0.0.1:${MAKERS}`, locale: 'en-IE' });
test.beforeEach(async ({ page }) => {
  await somebody(page);
  await page.addInitScript((id) => localStorage.setItem('wunsch.person', id), ann);
});

test('a bowl is practised by the keyboard: cooled, kept moving, brought back, poured; the best is kept', async ({
  page,
}) => {
  await page.goto('/practise');
  await expect(page.getByText(/nothing of it touches the book/)).toBeVisible();
  const press = async (name: string): Promise<void> => {
    await page.getByRole('button', { name, exact: true }).focus();
    await page.keyboard.press('Enter');
  };
  const bowl = page.getByTestId('bowl-temperature');
  const degrees = async (): Promise<number> => Number(((await bowl.textContent()) ?? '').replace(/[^\d.]/g, ''));
  const bath = page.getByRole('slider', { name: 'Water bath, temperature' });
  const to = async (celsius: number): Promise<void> => {
    await bath.focus();
    for (let now = Number(await bath.getAttribute('aria-valuenow')); now !== celsius; now += now < celsius ? 1 : -1)
      await page.keyboard.press(now < celsius ? 'ArrowRight' : 'ArrowLeft');
  };
  await press('60×');
  await to(22);
  await press('Begin');
  await expect.poll(degrees, { timeout: 60_000, intervals: [100] }).toBeLessThan(28);
  await to(27);
  // Some minutes at the low point, until there is seed enough.
  const formV = async (): Promise<number> =>
    Number(
      /[\d.]+/.exec((await page.getByText('Form V', { exact: true }).locator('..').textContent()) ?? '')?.[0] ?? 0,
    );
  await expect.poll(formV, { timeout: 120_000, intervals: [100] }).toBeGreaterThan(0.7);
  await to(33);
  await expect.poll(degrees, { timeout: 60_000, intervals: [100] }).toBeGreaterThan(31);
  await press('Pour it');
  const bar = page.getByRole('region', { name: 'The bar' });
  await expect(bar.getByText(/of 100\. In temper: it shines, snaps and leaves its mould\./)).toBeVisible();
  await expect(bar.getByRole('img', { name: /^The bar: gloss \d+ %/ })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('button', { name: /^A first bowl, best \d+$/ })).toBeVisible();

  // Poured warm it is not in temper, and the first fault is named.
  await page.getByRole('button', { name: /^Marble, 20/ }).press('Enter');
  await press('60×');
  await press('Begin');
  await expect.poll(degrees, { timeout: 60_000, intervals: [100] }).toBeLessThan(40);
  await press('Pour it');
  await expect(bar.getByText(/Not in temper/)).toBeVisible();
  await expect(bar.getByText(/^Its lowest was .* over the 28\s°C at which seed is made/)).toBeVisible();
});

test('the bench says its windows and works out what stays warm; what cannot be is said; the test has its clock', async ({
  page,
}) => {
  const lot = await nibs(page, 'Temper nibs', 3000);
  const bowl = madeBy(await charged(page, 'Temper 100', [{ holdingId: lot, massG: 2900 }]), 'mass');
  const tub = await enter(page, { kind: 'discharge', batchId: bowl, outsG: [2000, 850], holdUpG: 50 });
  expect(tub.lines.length).toBeGreaterThan(1);
  await page.goto('/station/temper');
  const windows = page.getByRole('region', { name: 'Windows' });
  await expect(windows.getByText('melt 45 to 50 °C')).toBeVisible();
  await windows.getByRole('button', { name: 'Work it out' }).click();
  await expect(windows.getByText(/^Keep .* warm \(35 %\), spread /)).toBeVisible();
  await windows.getByLabel('Kept warm (°C)').fill('30');
  await expect(windows.getByText(/warm it more/)).toBeVisible();
  await windows.getByRole('button', { name: 'Silk' }).click();
  await expect(windows.getByText(/of silk \(1 %\) at 33\.5\s°C/)).toBeVisible();
  await windows.getByRole('button', { name: 'Test dipped' }).click();
  await expect(page.getByRole('timer', { name: 'Temper test' })).toContainText(/4:5\d|5:00/);
  await page.reload();
  await expect(page.getByRole('timer', { name: 'Temper test' })).toBeVisible();
});

test('a silk pour is followed live at sixty times the clock, filled in from its curve, and judged', async ({
  page,
}) => {
  const lot = await nibs(page, 'Silk nibs', 4000);
  const bowl = madeBy(await charged(page, 'Silk 100', [{ holdingId: lot, massG: 3900 }]), 'mass');
  const tub = madeBy(await enter(page, { kind: 'discharge', batchId: bowl, outsG: [3800], holdUpG: 100 }));
  const butter = await material(page, 'Silk butter', { cocoa: 'butter' });
  const silk = await bought(page, butter, 400);
  const work = await post<{ id: string }>(page, '/api/ledger/works', {
    station: 'temper',
    personId: ann,
    sources: [
      { holdingId: tub, massG: 3000 },
      { holdingId: silk, massG: 30 },
    ],
    note: '',
  });
  await page.goto(`/station/temper?work=${work.id}`);
  const pour = page.getByRole('region', { name: 'The pour now' });
  await expect(pour.getByText('No temperature yet: put a probe in, or read it by hand.')).toBeVisible();
  // What is no temperature is refused at its field.
  await pour.getByLabel('It is at (°C)').fill('warm');
  await pour.getByRole('button', { name: 'Log it' }).click();
  await expect(pour.getByText('is not a number')).toBeVisible();
  await pour.getByRole('button', { name: 'Simulated, 60×' }).click();
  await expect(pour.getByText(/to go until it is melted out|over the working window/)).toBeVisible();
  // Another screen, and this one again after a reload, see the same pour.
  await page.reload();
  await expect(pour.getByText(/°C over the working window\./)).toBeVisible({ timeout: 90_000 });
  await expect(pour.getByText('In its window.')).toBeVisible({ timeout: 120_000 });
  await pour.getByRole('button', { name: 'Fill in from the curve' }).click();
  await expect(readout(page, 'Worked at')).toHaveValue(/^3[12]/);
  await page.getByRole('button', { name: 'Silk', exact: true }).click();
  await page.getByRole('button', { name: 'Set in 5 min' }).click();
  await page.getByRole('button', { name: 'Save the temper' }).click();
  await saved(page);
  const judged = page.getByRole('listitem').filter({ hasText: 'from its curve' }).first();
  await expect(
    judged.getByText(/^Nothing in it says why it should bloom: melted at 4[\d.]+\s°C, worked at 3[\d.]+\s°C\.$/),
  ).toBeVisible();

  // Read by hand, with its low point too warm: the first fault and what to do about it.
  await enter(page, {
    kind: 'temper',
    sources: [{ holdingId: tub, massG: 700 }],
    method: 'bath',
    meltC: 46,
    coolC: 30.6,
    workC: 31.5,
    test: 'slow',
    note: '',
  });
  await page.goto('/station/temper');
  await expect(
    page.getByText(/^Its lowest was 30\.6\s°C: over the 28\s°C at which seed is made\. Too little seed/),
  ).toBeVisible();
  await expect(page.getByText(/^Next time: Cool to 27\s°C to 28\s°C/)).toBeVisible();
});

test('bars that bloomed are traced to their pour in three presses; sugar bloom is no fault of it', async ({ page }) => {
  const lot = await nibs(page, 'Bloom nibs', 2500);
  const step = await charged(page, 'Bloom 100', [{ holdingId: lot, massG: 2400 }]);
  const bowl = madeBy(step, 'mass');
  const tub = madeBy(await enter(page, { kind: 'discharge', batchId: bowl, outsG: [2300], holdUpG: 100 }));
  await enter(page, {
    kind: 'temper',
    sources: [{ holdingId: tub, massG: 2300 }],
    method: 'bath',
    meltC: 46,
    coolC: 30.8,
    workC: 31.5,
    test: 'slow',
    note: '',
  });
  await page.goto(`/batch/${step.batchCode ?? ''}`);
  const looks = page
    .locator('section')
    .filter({ has: page.getByRole('heading', { name: 'How it looks, and why' }) })
    .last();
  await looks.getByRole('button', { name: 'a grey veil' }).click();
  await looks
    .getByRole('group', { name: /warm finger/ })
    .getByRole('button', { name: 'It does', exact: true })
    .click();
  await expect(looks.getByText('That is fat bloom.')).toBeVisible();
  await looks.getByRole('button', { name: 'Save what is seen' }).click();
  await expect(looks.getByText(/^A grey veil: .* Its lowest was 30\.8\s°C/)).toBeVisible();
  await expect(looks.getByText(/^Next time: Cool to 27\s°C to 28\s°C/).first()).toBeVisible();
  await looks.getByRole('button', { name: 'a grey veil' }).click();
  await looks
    .getByRole('group', { name: /drop of water/ })
    .getByRole('button', { name: 'It does', exact: true })
    .click();
  await looks.getByRole('button', { name: 'Save what is seen' }).click();
  await expect(looks.getByText(/^Sugar bloom \(a grey veil\): damp, not temper/)).toBeVisible();
});
