import { expect, test, type Page } from './test';
import { ann, enter, inTemper, madeBy, mouldedBars, nibs, somebody } from './maker';

/* Two complaints, what they share, and taking it back. */

test.use({ workshop: 'makers', locale: 'en-IE' });
test.beforeEach(async ({ page }) => {
  await somebody(page);
  await page.addInitScript((id) => localStorage.setItem('wunsch.person', id), ann);
});

/** A batch of a lot, packed under a code, five bars of it sold. */
async function sold(page: Page, lot: string, name: string, code: string): Promise<string> {
  const { pour, massG } = await inTemper(page, name, lot, 1550);
  const bars = await mouldedBars(page, pour, massG, 20);
  const pack = madeBy(
    await enter(page, {
      kind: 'pack',
      holdingId: bars,
      pieces: 20,
      labelCode: code,
      bestBefore: '2027-06-01',
      packaging: [],
      note: '',
    }),
    'packed',
  );
  await enter(page, {
    kind: 'sell',
    sources: [{ holdingId: pack, pieces: 5 }],
    takings: 30,
    to: 'Lighthouse Shop',
    note: '',
  });
  return pack;
}

test('two complaints, their common cause, a recall that blocks what is here, and its release by name', async ({
  page,
}) => {
  const [one, other] = [await nibs(page, 'Recall nibs', 4000), await nibs(page, 'Other nibs', 2000)];
  const pack = await sold(page, one, 'Recall A', 'RC-A');
  await sold(page, one, 'Recall B', 'RC-B');
  await sold(page, other, 'Recall C', 'RC-C');
  await page.goto('/complaints');
  const fresh = page.locator('section').filter({ has: page.getByRole('heading', { name: 'Write one down' }) });
  // A code that nobody knows is refused at its field, and what was typed stays.
  await fresh.getByLabel('Code on the bar').fill('RC-X');
  await fresh.getByRole('button', { name: 'something in it that should not be' }).click();
  await fresh.getByLabel('In their words').fill('a hard bit of shell');
  await fresh.getByRole('button', { name: 'Keep the complaint' }).click();
  await expect(fresh.getByText('Nothing here carries the code RC-X.')).toBeVisible();
  await expect(fresh.getByLabel('In their words')).toHaveValue('a hard bit of shell');
  for (const code of ['RC-A', 'RC-B']) {
    await fresh.getByLabel('Code on the bar').fill(code);
    await fresh.getByRole('button', { name: 'something in it that should not be' }).click();
    await fresh.getByRole('button', { name: 'Keep the complaint' }).click();
    await expect(page.getByRole('listitem').filter({ hasText: code })).toBeVisible();
  }
  for (const code of ['RC-A', 'RC-B'])
    await page.getByRole('listitem').filter({ hasText: code }).getByRole('checkbox').first().check();
  const shared = page.getByRole('region', { name: 'What they share' });
  await expect(shared.getByText(/^Most likely: .*Recall nibs/)).toBeVisible();
  await expect(shared.getByText(/^All 2 have it; of all bars/).first()).toBeVisible();
  await shared
    .getByRole('button', { name: /^Everything that shares it: 40 bars$/ })
    .first()
    .click();
  await expect(shared.getByText('15 here, 5 sold').first()).toBeVisible();

  const recall = page.getByRole('region', { name: 'Recall' });
  await recall.getByRole('button', { name: 'Practise the recall' }).click();
  await expect(recall.getByText('says why, in a word or two')).toBeVisible();
  await recall.getByLabel('Why').fill('Shell in the nibs');
  await recall.getByLabel('For practice: nothing is blocked').uncheck();
  await recall.getByRole('button', { name: 'Recall them: block what is here' }).click();
  await expect(page.getByRole('heading', { name: /^Recall RC-/ })).toBeVisible();
  await expect(page.getByText('Lighthouse Shop')).toBeVisible();
  await expect(page.getByText('10 bars', { exact: true })).toBeVisible();
  await expect(page.getByText('blocked', { exact: true })).toHaveCount(2);
  const command = { kind: 'sell', sources: [{ holdingId: pack, pieces: 1 }], takings: 6, to: '', note: '' };
  const refused = await page.request.post('/api/ledger/steps', { data: { personId: ann, command } });
  expect(refused.status()).toBe(422);
  // The letter is a PDF.
  const letter = await page.request.get(`${page.url().replace('/recall/', '/api/trace/recalls/')}/letter.pdf`);
  expect(letter.headers()['content-type']).toBe('application/pdf');
  const todo = page.getByRole('complementary', { name: 'What to do' });
  await todo.getByRole('button', { name: 'Release all 2 by name' }).click();
  await expect(todo.getByText('says why, in a word or two')).toBeVisible();
  await todo.getByLabel('Why it may go again').fill('Sieved, nothing found');
  await todo.getByRole('button', { name: 'Release all 2 by name' }).click();
  await expect(page.getByText('0 of 2 blocked')).toBeVisible();
  const taken = await page.request.post('/api/ledger/steps', { data: { personId: ann, command } });
  expect(taken.status()).toBe(201);
  await todo.getByLabel('How it ended').fill('All bars back');
  await todo.getByRole('button', { name: 'End this recall' }).click();
  await expect(page.getByText(/^.*Ended after .*: All bars back$/)).toBeVisible();
});
