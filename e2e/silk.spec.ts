import { choose } from './choose';
import { expect, test } from './test';
import { ann, bought, charged, enter, madeBy, material, nibs, post, readout, saved, somebody } from './maker';

/* Silk: held until it is a paste, and poured with; both take their time by the clock. */

test.use({ workshop: 'makers', locale: 'en-IE' });
test.describe.configure({ mode: 'parallel' });
test.beforeEach(async ({ page }) => {
  await somebody(page);
  await page.addInitScript((id) => localStorage.setItem('wunsch.person', id), ann);
});

test('a bar gets windows of its own; silk is held for a day and becomes a lot of the pantry', async ({ page }) => {
  const lot = await nibs(page, 'Own nibs', 1500);
  const bowl = madeBy(await charged(page, 'Own 100', [{ holdingId: lot, massG: 1400 }]), 'mass');
  const poured = await enter(page, { kind: 'discharge', batchId: bowl, outsG: [1000, 300], holdUpG: 100 });
  const tub = poured.lines.find(({ massMg }) => massMg === 1_000_000)?.code ?? '';
  const butter = await material(page, 'Butter for silk', { cocoa: 'butter' });
  const bag = await bought(page, butter, 800);
  const work = await post<{ id: string }>(page, '/api/ledger/works', {
    station: 'temper',
    silk: true,
    personId: ann,
    sources: [{ holdingId: bag, massG: 500 }],
    note: '',
  });
  expect(work.id).not.toBe('');
  await page.goto('/station/temper');
  const windows = page.getByRole('region', { name: 'Windows' });
  await windows.getByRole('button', { name: 'Give it its own' }).click();
  // Tubs of other journeys may stand here too.
  await choose(windows.getByLabel('Which'), { label: new RegExp(`^${tub}`) });
  await windows.getByLabel('Work from (°C)').fill('20');
  await windows.getByRole('button', { name: 'Keep these windows' }).click();
  await expect(windows.getByText(/is not over what it is cooled to/)).toBeVisible();
  await windows.getByLabel('Work from (°C)').fill('32.2');
  await windows.getByLabel('Work to (°C)').fill('33');
  await windows.getByLabel('Why, in a word').fill('its own butter');
  await windows.getByRole('button', { name: 'Keep these windows' }).click();
  await expect(windows.getByText(/Its own, set by .*: its own butter\./)).toBeVisible();
  await expect(windows.getByText('32.2 to 33 °C')).toBeVisible();

  const silk = page.getByRole('region', { name: 'The silk now' });
  await expect(silk.getByText('No temperature yet: put a probe in, or read it by hand.')).toBeVisible();
  await silk.getByRole('button', { name: 'Simulated, a day a minute' }).click();
  await expect(silk.getByText(/h in the hold/)).toBeVisible({ timeout: 60_000 });
  await expect(silk.getByText(/^Held for \d+ h: it should be a soft, cloudy paste\.$/)).toBeVisible({
    timeout: 240_000,
  });
  await silk.getByRole('button', { name: 'Take it off' }).click();
  await expect(readout(page, 'Held at')).toHaveValue(/^33/);
  await silk.getByRole('button', { name: 'Save the silk' }).click();
  await saved(page);
  await expect(page.getByText(/In the pantry: .*500\sg in P\d+/)).toBeVisible();
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
  await expect(readout(page, 'Worked at')).toBeVisible();
  await page.getByRole('group', { name: 'Method' }).getByRole('button', { name: 'Silk', exact: true }).click();
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
