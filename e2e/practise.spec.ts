import { expect, test } from './test';
import { ann, somebody } from './maker';

/* The place to practise tempering: a bowl of the model, on a clock of its own. */

test.use({ workshop: 'makers', locale: 'en-IE' });
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
  await expect(bar.getByRole('img', { name: /^The bar: gloss \d+\s%/ })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('button', { name: /^A first bowl, best \d+$/ })).toBeVisible();

  // One's own bowl: more than can be practised with is refused; a larger one is not held against the best.
  await page.getByText('Take your own').click();
  await page.getByLabel('Chocolate (kg)').fill('300');
  await page.getByRole('button', { name: 'Begin with this bowl' }).press('Enter');
  await expect(page.getByText('A bowl of 0.2 to 30 kg can be practised with.')).toBeVisible();
  await page.getByLabel('Chocolate (kg)').fill('4');
  await page.getByRole('button', { name: 'Begin with this bowl' }).press('Enter');
  // Silk by its slider: two in a hundred of four kilograms.
  const share = page.getByRole('slider', { name: 'Silk, share of the bowl' });
  await share.focus();
  for (let i = 0; i < 5; i += 1) await page.keyboard.press('ArrowRight');
  await expect(share).toHaveAttribute('aria-valuetext', /^2\s%, 80\s?g$|^2\s%, 0\.08\skg$/);
  await press('Silk in');
  await expect.poll(formV).toBeGreaterThan(1);
  await page.getByRole('button', { name: 'The lesson’s bowl again' }).press('Enter');

  // Poured warm it is not in temper, and the first fault is named.
  await page.getByRole('button', { name: /^Marble, 20/ }).press('Enter');
  await press('60×');
  await press('Begin');
  await expect.poll(degrees, { timeout: 60_000, intervals: [100] }).toBeLessThan(40);
  await press('Pour it');
  await expect(bar.getByText(/Not in temper/)).toBeVisible();
  await expect(bar.getByText(/^Its lowest was .* over the 28\s°C at which seed is made/)).toBeVisible();
});
