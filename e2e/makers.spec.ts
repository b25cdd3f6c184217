import { expect, test } from './test';
import { ann, bought, charged, enter, madeBy, material, nibs, post, readout, saved, somebody } from './maker';
import { choose } from './choose';

/* Single makers, each with a way of working of their own, in one workshop that is furnished by the first of them. */

test.use({ workshop: 'makers', locale: 'en-IE' });

test.beforeEach(({ page }) => somebody(page));

test('a home cook: late butter, another machine, silk, hazelnut shells; the packs say what is in them', async ({
  page,
}) => {
  const [sugar, butter] = [
    await material(page, 'Sugar', { sugar: true }),
    await material(page, 'Cocoa butter', { cocoa: 'butter' }),
  ];
  const silk = await bought(page, await material(page, 'Silk', { cocoa: 'butter' }), 300);
  const hazel = await bought(page, await material(page, 'Hazelnut paste', { allergens: ['hazelnut'] }), 400);
  await post(page, '/api/workshop/machines', { name: 'Kitchen stone', station: 'grind', minG: null, maxG: 2000 });
  await post(page, '/api/workshop/machines', { name: 'Warm conche', station: 'grind', minG: null, maxG: 5000 });
  const lot = await nibs(page, 'Cook’s nibs', 1500);
  const bowl = await charged(page, 'Cook 70', [
    { holdingId: lot, massG: 1400 },
    { holdingId: await bought(page, sugar, 800), massG: 600 },
  ]);
  const code = bowl.batchCode ?? '';
  await bought(page, butter, 200);

  await page.goto(`/station/grind?batch=${code}`);
  await page.getByRole('button', { name: 'Add to the bowl' }).click();
  await page.getByRole('button', { name: /Cocoa butter/ }).click();
  await readout(page, /^P\d+, of/).fill('100');
  await page.getByRole('button', { name: 'Add it to the bowl' }).click();
  await expect(page.getByText('71.4 % cocoa', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Move it on' }).click();
  await page.getByRole('button', { name: 'Warm conche' }).click();
  await page.getByRole('button', { name: 'It is in there now' }).click();
  await saved(page);
  // What the forecast rests on names it too, folded.
  await expect(page.getByText('Warm conche').filter({ visible: true }).first()).toBeVisible();
  await page.getByRole('button', { name: 'Pour it out' }).click();
  await readout(page, 'Poured, block by block').fill('2,1 kg');
  await page.getByRole('button', { name: 'Save the pour' }).click();
  await saved(page);

  await page.goto('/station/temper');
  await page.getByRole('button', { name: 'Enter a pour that is done' }).click();
  await page.getByRole('button', { name: /Cook 70/ }).click();
  const more = page.getByRole('button', { name: /more that would fit/ });
  if (await more.isVisible()) await more.click();
  await page.getByRole('button', { name: /Silk/ }).first().click();
  await readout(page, /^P\d+, of/).fill('42');
  for (const [label, value] of [
    ['Melted out at', '46'],
    ['Cooled to', '27.5'],
    ['Worked at', '31.5'],
  ] as const)
    await readout(page, label).fill(value);
  await page.getByRole('button', { name: 'Save the temper' }).click();
  await saved(page);
  expect(silk).not.toBe('');

  await page.goto('/station/mould');
  await page.getByRole('button', { name: 'Enter moulding that is done' }).click();
  await page.getByRole('button', { name: /Cook 70/ }).click();
  if (await more.isVisible()) await more.click();
  await page.getByRole('button', { name: /Hazelnut paste/ }).click();
  await readout(page, /^P\d+, of/).fill('358');
  // A praline of 12.5 g; seventy grams were usual, so nothing is asked.
  await readout(page, 'Weight of a bar').fill('12,5');
  await readout(page, 'Cavities').fill('50');
  await readout(page, 'Good bars').fill('200');
  await page.getByRole('button', { name: 'Save the bars' }).click();
  await saved(page);
  expect(hazel).not.toBe('');

  await page.goto('/station/pack');
  await expect(page.getByText('the label names hazelnut.')).toBeVisible();
  // Nine months are proposed, because of the nuts.
  await expect(page.getByText('9 months: nuts or seeds in it')).toBeVisible();
  const label = await readout(page, 'Code on the label').inputValue();
  await page.getByRole('button', { name: 'Pack them' }).click();
  await saved(page);
  for (const path of [`/tub/${label}`, `/trace/${label}`]) {
    await page.goto(path);
    await expect(page.getByText('Contains hazelnut (Hazelnut paste).')).toBeVisible();
  }
  await page.goto(`/batch/${code}`);
  const main = page.getByRole('main');
  await expect(main).toContainText('71.4 % in the bowl');
  await expect(main).toContainText('Contains hazelnut (Hazelnut paste).');
  await expect(main).toContainText('goes on in Warm conche');
});

test('a farm: a part of the bowl is poured, the rest runs on; couverture is sold by weight', async ({ page }) => {
  const lot = await nibs(page, 'Farm nibs', 6000, 'couverture');
  const bowl = await charged(page, 'Farm 100', [{ holdingId: lot, massG: 6000 }], 'couverture');
  await page.goto(`/station/grind?batch=${bowl.batchCode}`);
  await page.getByRole('button', { name: 'Pour it out' }).click();
  await readout(page, 'Poured, block by block').fill('1950');
  await readout(page, 'Stays in the bowl (empty: nothing)').fill('4000');
  await expect(page.getByText(/2\s000\sg leave the bowl; 4\s000\sg stay and run on\./)).toBeVisible();
  await page.getByRole('button', { name: 'Save the pour' }).click();
  await saved(page);
  await expect(page.getByText(/4\s000\sg/).first()).toBeVisible();
  const { step } = { step: await enter(page, { kind: 'discharge', batchId: madeBy(bowl), outsG: [3950] }) };
  const block = step.lines.find((line) => line.massMg > 0 && line.code !== null)?.code ?? '';
  await page.goto('/store');
  await page.getByRole('button', { name: 'Sell or give' }).click();
  const more = page.getByRole('button', { name: /more that would fit/ });
  if (await more.isVisible()) await more.click();
  await page.getByRole('button', { name: new RegExp(`^${block}`) }).click();
  await readout(page, new RegExp(`^${block}, of`)).fill('1,5 kg');
  await readout(page, 'Takings').fill('30');
  await readout(page, 'To whom').fill('Pastry kitchen');
  await page.getByRole('button', { name: 'Book the sale' }).click();
  await saved(page);
  await page.goto(`/tub/${block}`);
  await expect(page.getByText(/2\s450\sg/).first()).toBeVisible();
});

test('an unroasted batch is stopped over 47 °C, and says so afterwards', async ({ page }) => {
  const lot = await nibs(page, 'Raw nibs', 3000, 'unroasted', false);
  // On a roasting route they do not get into the bowl in silence.
  await page.goto('/station/grind?batch=new');
  await page.getByRole('button', { name: /Raw nibs/ }).click();
  await readout(page, 'Name of the batch').fill('Raw 100');
  await choose(page.getByLabel('Route'), 'straight-through');
  await page.getByRole('button', { name: 'Start the batch' }).click();
  const stop = page.getByRole('alert', { name: 'Stop' });
  await expect(stop).toContainText('has been roasted');
  await expect(page.getByRole('button', { name: /^Go on/ })).toBeDisabled();
  await choose(page.getByLabel('Route'), 'unroasted');
  await page.getByRole('button', { name: 'Start the batch' }).click();
  await saved(page);
  expect(lot).not.toBe('');
  await page.getByRole('button', { name: 'Temperature', exact: true }).click();
  await readout(page, 'Bowl temperature').fill('55');
  await page.getByRole('button', { name: 'Save the reading' }).click();
  await expect(stop).toContainText('over the 47 °C');
  await page.getByLabel(/^To go on all the same/).fill('Probe lay on the stone, read again');
  await page.getByRole('button', { name: 'Go on, Ann answers for it' }).click();
  await saved(page);
  await page.getByRole('link', { name: 'The whole batch' }).click();
  await expect(page.getByText('stop gone past').first()).toBeVisible();
  await expect(page.getByText('“Probe lay on the stone, read again”').first()).toBeVisible();
});

test('a decorator begins with couverture: tempered, moulded and tasted like one’s own', async ({ page }) => {
  await bought(
    page,
    await material(page, 'Milk couverture', { cocoa: 'couverture', cocoaPct: 41, sugarPct: 40, allergens: ['milk'] }),
    5000,
  );
  await page.goto('/station/temper');
  await page.getByRole('button', { name: 'Enter a pour that is done' }).click();
  const others = page.getByRole('button', { name: /more that would fit/ });
  if (await others.isVisible()) await others.click();
  await page
    .getByRole('button', { name: /Milk couverture/ })
    .first()
    .click();
  for (const [label, value] of [
    ['Melted out at', '43'],
    ['Cooled to', '26.5'],
    ['Worked at', '29.5'],
  ] as const)
    await readout(page, label).fill(value);
  await page.getByRole('button', { name: 'Save the temper' }).click();
  await saved(page);
  await page.goto('/station/mould');
  await page.getByRole('button', { name: 'Enter moulding that is done' }).click();
  await page
    .getByRole('button', { name: /Milk couverture/ })
    .first()
    .click();
  await readout(page, 'Weight of a bar').fill('50');
  await readout(page, 'Cavities').fill('20');
  await readout(page, 'Good bars').fill('99');
  await page.getByRole('button', { name: 'Save the bars' }).click();
  await saved(page);
  const made = page.getByRole('status').locator('.code').first();
  const tub = (await made.textContent()) ?? '';
  await page.goto(`/tub/${tub}`);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Milk couverture, 50 g');
  await expect(page.getByText('41.0 %', { exact: true })).toBeVisible();
  await expect(page.getByText(/bought chocolate does not say/)).toBeVisible();
  await expect(page.getByText('Contains milk (Milk couverture).')).toBeVisible();
  await page.goto(`/station/taste?batch=${tub}`);
  await expect(page.getByText('Before anybody eats: it has milk.')).toBeVisible();
  await readout(page, 'Score, 0 to 10').fill('6');
  await page.getByRole('button', { name: 'Save the score' }).click();
  await saved(page);
});

test('a shop with opening stock: a table with a bad row is named, then all comes in', async ({ page }) => {
  await page.goto('/opening');
  const choose = (text: string) =>
    page
      .getByLabel('Table of opening stock')
      .setInputFiles({ name: 'stock.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
  await choose('what,name,weight kg,pieces,worth,allergens\nbars,Old bars,x,50,60,milk\n');
  await expect(page.getByText('Weight “x” is no number')).toBeVisible();
  await choose(
    'what,name,weight kg,pieces,worth,cocoa,allergens,made,code\nbars,Old bars,3.5,50,60,45,milk,2026-10-01,SHELF-1\nnibs,Last nibs,2.2,,25,,,,\n',
  );
  await page.getByRole('button', { name: 'Put all 2 in the book' }).click();
  await page.getByRole('link', { name: 'SHELF-1' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Old bars');
  await expect(page.getByText('Contains milk (Old bars).')).toBeVisible();
  await expect(page.getByText('€1.20').first()).toBeVisible();
});

test('two browsers at one load: who was too late is told, and sends theirs as a correction', async ({
  page,
  browser,
}) => {
  const lot = madeBy(
    await enter(page, {
      kind: 'receive',
      name: 'Shared beans',
      form: 'beans',
      routeId: 'whole-bean',
      netG: 5000,
      currency: 'EUR',
    }),
  );
  await post(page, '/api/ledger/works', {
    station: 'winnow',
    personId: ann,
    sources: [
      {
        holdingId: madeBy(await enter(page, { kind: 'roast', sources: [{ holdingId: lot, massG: 4000 }], outG: 3800 })),
        massG: 3800,
      },
    ],
  });
  const context = await browser.newContext();
  const other = await context.newPage();
  for (const tab of [page, other]) await tab.goto('/station/winnow');
  await readout(other, 'Nibs').fill('3000');
  await readout(other, 'Husk').fill('760');
  await readout(page, 'Nibs').fill('3010');
  await readout(page, 'Husk').fill('755');
  await page.getByRole('button', { name: 'Save nibs and husk' }).click();
  await saved(page);
  const told = other.getByRole('alert').filter({ hasText: 'Ann has saved this' });
  await expect(told).toContainText(/3\s800\sg in/);
  // Reloaded, it is still there to be sent: the address says which work it was.
  await other.reload();
  await expect(told).toBeVisible();
  await told.getByRole('button', { name: 'Send mine as a correction' }).click();
  await expect(readout(other, 'Nibs')).toHaveValue('3000');
  await other.getByLabel('Why is it corrected?').fill('Mine was after the second pass');
  await other.getByRole('button', { name: 'Save the correction' }).click();
  await expect(other.getByText('2 of them')).toBeVisible();
  await context.close();
});

test('figures off by a thousand are asked about; a comma maker and a point maker are both understood', async ({
  page,
}) => {
  const settings = ((await (await page.request.get('/api/workshop')).json()) as { settings: Record<string, unknown> })
    .settings;
  const { demo: _, earlierRates: _r, ...own } = settings;
  const write = (decimalMark: string) => page.request.put('/api/workshop/settings', { data: { ...own, decimalMark } });
  const lot = madeBy(
    await enter(page, {
      kind: 'receive',
      name: 'Counted beans',
      form: 'beans',
      routeId: 'whole-bean',
      netG: 9000,
      currency: 'EUR',
    }),
  );
  expect(lot).not.toBe('');
  await page.goto('/station/sort');
  await page.getByRole('button', { name: 'Enter sorting that is done' }).click();
  await page.getByRole('button', { name: /Counted beans/ }).click();
  await readout(page, /^L\d+, of/).fill('1,149');
  await expect(page.getByText(/= 1\s149\sg/)).toBeVisible();
  await readout(page, 'Good beans').fill('1.1');
  await page.getByRole('button', { name: 'Save the sorting' }).click();
  const asked = page.getByRole('alert', { name: 'What was meant?' });
  await expect(asked).toContainText('Good beans: 1.1');
  await asked.getByRole('button', { name: /1\s100\sg was meant/ }).click();
  await expect(readout(page, 'Good beans')).toHaveValue('1100');
  await page.getByRole('button', { name: 'Save the sorting' }).click();
  await saved(page);
  await expect(page.getByRole('status')).toContainText('95.7 %');

  await write(',');
  await page.reload();
  await page.getByRole('button', { name: 'Enter sorting that is done' }).click();
  await page.getByRole('button', { name: /L\d+ Counted beans/ }).click();
  await readout(page, /^L\d+, of/).fill('2.000');
  await expect(page.getByText(/= 2\s000\sg/)).toBeVisible();
  await readout(page, 'Good beans').fill('1.950,5');
  await page.getByRole('button', { name: 'Save the sorting' }).click();
  await saved(page);
  await expect(page.getByRole('status')).toContainText('97.5 %');
  await write('.');
});

test('while an entry is begun digits are its own; reloaded, its choices are all there', async ({ page }) => {
  await page.goto('/station/beans?show=receive');
  await page.getByRole('button', { name: 'Nibs', exact: true }).click();
  await page.getByRole('button', { name: 'Roasted', exact: true }).click();
  await expect(page.getByLabel('Route')).toContainText('nibs');
  await readout(page, 'Name of the lot').fill('Half typed');
  await readout(page, 'Net weight, all sacks').fill('2');
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await page.keyboard.press('5');
  await expect(page).toHaveURL(/station\/beans/);
  await expect(readout(page, 'Net weight, all sacks')).toHaveValue('25');
  await page.reload();
  await expect(page.getByRole('button', { name: 'Nibs', exact: true })).toHaveAttribute('aria-pressed', 'true');
  await expect(page.getByRole('button', { name: 'Roasted', exact: true })).toHaveAttribute('aria-pressed', 'true');
  await expect(readout(page, 'Name of the lot')).toHaveValue('Half typed');
  await page.getByRole('button', { name: 'Take it in' }).click();
  await expect(page.getByText(/is in the house\./)).toBeVisible();
  const lots = (await (await page.request.get('/api/trace/lots')).json()) as {
    lots: { name: string; facts: { form: string; roasted: boolean } }[];
  };
  expect(lots.lots.find(({ name }) => name === 'Half typed')?.facts).toMatchObject({ form: 'nibs', roasted: true });
  // With nothing begun the digit opens its station again.
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await page.keyboard.press('5');
  await expect(page).toHaveURL(/station\/grind/);
});

test('at twice the size the band yields; on a phone the figure in hand and the save are in one reach', async ({
  browser,
}) => {
  for (const viewport of [
    { width: 640, height: 400 },
    { width: 390, height: 844 },
  ]) {
    const context = await browser.newContext({ viewport });
    const page = await context.newPage();
    await page.goto('/station/grind');
    await expect(page.getByRole('heading', { level: 1, name: 'Grind' })).toBeVisible();
    const wide = await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
    expect(wide).toBeLessThanOrEqual(0);
    const field = page.getByLabel('Fineness', { exact: true });
    await field.scrollIntoViewIfNeeded();
    await field.focus();
    const at = await field.boundingBox();
    const save = await page.getByRole('button', { name: 'Save the reading' }).boundingBox();
    expect(at && save).toBeTruthy();
    expect((save?.y ?? Infinity) + (save?.height ?? 0)).toBeLessThanOrEqual(viewport.height);
    expect(at?.y ?? -1).toBeGreaterThanOrEqual(0);
    if (viewport.width === 390) {
      const from = await page.evaluate(() => window.scrollY);
      expect(from).toBeLessThan(viewport.height);
    }
    // What stays in view leaves most of the height to the work.
    await page.evaluate(() => window.scrollTo(0, 300));
    const taken = await page.evaluate(() =>
      ['header', 'footer'].reduce((sum, tag) => {
        const box = document.querySelector(tag)?.getBoundingClientRect();
        const shown = box ? Math.min(box.bottom, window.innerHeight) - Math.max(box.top, 0) : 0;
        return sum + Math.max(0, shown);
      }, 0),
    );
    if (viewport.height === 400) expect(taken).toBeLessThan(60);
    await context.close();
  }
});
