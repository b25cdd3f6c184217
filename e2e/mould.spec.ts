import { expect, test } from './test';
import { ann, inTemper, nibs, post, readout, saved, somebody } from './maker';
import { choose } from './choose';

/* From a bowl in temper to bars: moulds, clocks, weights. */

test.use({ workshop: 'makers', locale: 'en-IE' });
test.beforeEach(async ({ page }) => {
  await somebody(page);
  await page.addInitScript((id) => localStorage.setItem('wunsch.person', id), ann);
});

test('nine kilograms become bars of seventy grams: planned, filled by one press, weighed on the scale, seconds by fault', async ({
  page,
}) => {
  const lot = await nibs(page, 'Mould nibs', 9500);
  const { pour } = await inTemper(page, 'Mould 100', lot, 9100);
  const work = await post<{ id: string }>(page, '/api/ledger/works', {
    station: 'mould',
    personId: ann,
    sources: [{ holdingId: pour, massG: 9000 }],
    note: '',
  });
  await page.goto(`/station/mould?work=${work.id}`);
  // A mould is described first; what is no number is refused at its field.
  await page.getByRole('button', { name: 'Add a mould' }).click();
  const fresh = page.getByRole('group', { name: 'A new mould' });
  await fresh.getByLabel('Name').fill('Tablet');
  await fresh.getByLabel('Cavities').fill('three');
  await fresh.getByLabel('Each holds (g)').fill('70');
  await fresh.getByLabel('Owned').fill('20');
  await fresh.getByRole('button', { name: 'Keep the mould' }).click();
  await expect(fresh.getByText('is not a number')).toBeVisible();
  await fresh.getByLabel('Cavities').fill('3');
  await fresh.getByRole('button', { name: 'Keep the mould' }).click();
  await expect(page.getByText('3 × 70 g, 20 owned')).toBeVisible();

  const now = page.getByRole('region', { name: 'Moulding now' });
  await choose(now.getByLabel('Into which mould'), { label: 'Tablet, 3 × 70 g' });
  await expect(now.getByText(/^128 bars of 70\sg, 43 moulds/)).toBeVisible();
  await expect(now.getByText(', in 3 fills')).toBeVisible();
  await now.getByLabel('Moulds', { exact: true }).fill('20');
  await now.getByRole('button', { name: '20 moulds filled' }).click();
  const groups = now.getByRole('list', { name: 'Groups of moulds' });
  await expect(groups.getByText(/2[45]\smin more/)).toBeVisible();
  await expect(now.getByText('20 filled, 23 to go')).toBeVisible();
  await groups.getByRole('button', { name: 'Turned out' }).click();
  await expect(groups.getByText(/^out after /)).toBeVisible();

  await now.getByRole('button', { name: 'Weigh single bars' }).click();
  const weights = now.getByRole('group', { name: 'Weights of bars' });
  await expect(now.getByText('Nothing weighed yet.')).toBeVisible();
  await page.request.post('/api/devices/scale/place', { data: { massG: 71 } });
  await weights
    .or(now)
    .getByRole('button', { name: /^Take 7[01](\.\d)? g from the scale$/ })
    .first()
    .click();
  await expect(now.getByText(/^1 weighed, 7[01]\.\d g on the mean\.$/)).toBeVisible();
  for (const grams of ['70.4', '71.2', '69.8', '70.6']) {
    await now.getByLabel('A bar weighs (g)').fill(grams);
    await now.getByRole('button', { name: 'Keep it', exact: true }).click();
    await expect(now.getByLabel('A bar weighs (g)')).toHaveValue('');
  }
  await expect(now.getByText(/^7[01]\.\d g on the mean: as it should be\.$|^Heavy enough: /)).toBeVisible();
  await expect(
    now.getByText(/One bar may be short by 4\.5 g\. A reference: the local authority decides\./),
  ).toBeVisible();
  // A reload keeps what was filled and weighed.
  await page.reload();
  await expect(now.getByText('20 filled, 23 to go')).toBeVisible();
  await expect(now.getByRole('button', { name: 'Weigh single bars: 5' })).toBeVisible();
  await readout(page, 'Good bars').fill('125');
  await readout(page, 'Of them: air holes').fill('2');
  await readout(page, 'Left in the machine').fill('90');
  await page.getByRole('button', { name: 'By themselves' }).click();
  await page.getByRole('button', { name: 'Save the bars' }).click();
  await saved(page);
});
