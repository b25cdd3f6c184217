import { expect, test } from './test';
import { Keyboard } from './keyboard';

// A browser in Ireland: euros, grams and a point are proposed.
test.use({ workshop: 'empty', locale: 'en-IE' });

/**
 * A new workshop, from its first person to a tasted bar, with the keyboard alone. The figures are worked
 * out by hand: 10 kg of beans at 5.50 landed and half an hour at 12.00 give 9.5 kg sorted, 8.93 kg roasted,
 * 7.2 kg of nibs; 7 kg of them, 2.6 kg sugar and 0.4 kg butter make 74 % (70 % without the butter); 136 bars.
 */
test('a sack of beans becomes tasted bars, by the keyboard alone', async ({ page }) => {
  const hands = new Keyboard(page);
  await page.goto('/');

  await test.step('team, wage, ingredients', async () => {
    await hands.fill('Your name', 'Ann');
    await expect(page.getByLabel('Currency')).toHaveText('EUR');
    await expect(page.getByLabel('Weights')).toHaveText('g and kg');
    await hands.push(hands.button('Begin'));
    await expect(page.getByRole('heading', { name: 'What is there to begin with?' })).toBeVisible();
    // One person is at the bench without being chosen.
    await expect(page.getByRole('button', { name: 'Ann is at the bench. Change' })).toBeVisible();
    await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    await hands.press('w');
    await hands.fill('An hour of work costs', '12');
    await hands.push(page.getByRole('button', { name: 'Save', exact: true }));
    await expect(page.getByRole('status')).toHaveText('Saved.');
    await hands.push(hands.button('+ Sugar'));
    await hands.push(hands.button('+ Cocoa butter'));
    await hands.push(hands.button(/^\d+ more$/));
    await hands.push(hands.button('+ Wrapper'));
    await expect(page.getByText('Packaging, by the piece')).toBeVisible();
  });

  await test.step('the pantry', async () => {
    for (const [name, amountLabel, amount, price] of [
      ['Sugar', 'Weight', '10', '20'],
      ['Cocoa butter', 'Weight', '2', '40'],
      ['Wrapper', 'Pieces', '200', '20'],
    ] as const) {
      await page.goto('/store');
      await hands.push(hands.button('Buy for the pantry'));
      await hands.push(hands.button(name));
      await hands.fill('Supplier', 'Dry Goods');
      await hands.fill(amountLabel, amount);
      await hands.fill('Price, all of it (EUR)', price);
      await hands.push(hands.button('Put it in the pantry'));
      await expect(page.getByRole('status')).toContainText('Saved.');
    }
  });

  await test.step('Beans: the lot', async () => {
    await hands.station('1', 'Beans');
    await hands.fill('Name of the lot', 'Ridge, Uganda');
    await hands.fill('Producer or co-operative', 'Ridge Growers');
    await hands.choose('Country', 'Uganda');
    await hands.fill('Sacks', '1');
    await hands.fill('Net weight, all sacks', '60');
    await hands.fill('Moisture', '7,1');
    await hands.fill('Price', '5');
    await hands.fill('Freight, all of it', '30');
    await hands.press('Control+Enter');
    await expect(page.getByText('L001 is in the house.')).toBeVisible();
    await hands.push(hands.button('In the store'));
    await expect(page.getByText('€5.50 a kg')).toBeVisible();
  });

  await test.step('Sort: in one go, half an hour', async () => {
    await hands.station('2', 'Sort');
    await hands.push(hands.button('Enter sorting that is done'));
    await hands.push(hands.button(/L001/));
    // The screen is in kilograms, as its sack is; a unit that is typed counts.
    await hands.fill(/^L001, of/, '10');
    await hands.fill('Good beans', '9,5');
    await hands.fill('Flat', '300 g');
    await hands.fill('Broken', '0.15');
    await expect(page.getByText(/missing/).first()).toContainText('0.050');
    await hands.push(page.getByText(/ime and minutes/).first());
    await hands.fill(/Hands-on minutes/, '30');
    await hands.push(hands.button('Save the sorting'));
    await expect(page.getByRole('status')).toContainText('Saved.');
    await expect(page.getByRole('status')).toContainText('95.0 %');
  });

  await test.step('Roast: two loads, begun and weighed out', async () => {
    for (const [inG, outG] of [
      ['5000', '4700'],
      ['4500', '4230'],
    ] as const) {
      await hands.station('3', 'Roast');
      await hands.reach(hands.button(/^T\d+/));
      if ((await hands.button(/^T\d+/).getAttribute('aria-pressed')) === 'false') await hands.press('Enter');
      await hands.fill(/, of/, inG);
      await hands.push(hands.button('Start the roast'));
      await expect(page.getByText('No program: it comes out when you say so.')).toBeVisible();
      await hands.push(hands.button('bread'));
      await hands.push(hands.button('It is out'));
      await hands.fill('Out of the roaster', outG);
      await hands.push(hands.button('Save the load'));
      await expect(page.getByRole('region', { name: 'Judgement' })).toContainText('bread at');
    }
  });

  await test.step('Winnow: both loads together', async () => {
    await hands.station('4', 'Winnow');
    await hands.push(hands.button('Enter winnowing that is done'));
    for (const weight of [/4\s700/, /4\s230/]) await hands.push(page.getByRole('button', { name: weight }).first());
    await hands.fill('Nibs', '7200');
    await hands.fill('Husk', '1500');
    await hands.fill('Dust and spill', '100');
    await expect(page.getByText(/missing/).first()).toContainText('130');
    await hands.push(hands.button('Save nibs and husk'));
    await expect(page.getByRole('status')).toContainText('Saved.');
  });

  await test.step('Grind: nibs and sugar, butter later, a reading, poured out', async () => {
    await hands.station('5', 'Grind');
    await hands.push(hands.button(/nibs/));
    await hands.push(hands.button(/Sugar/));
    await hands.fill(/^T\d+, of/, '7000');
    await hands.fill(/^P\d+, of/, '2600');
    await hands.fill('Name of the batch', 'Ridge 72 %');
    await hands.fill('Cocoa meant', '72');
    await hands.push(hands.button('Start the batch'));
    await expect(page.getByText('72.9 % cocoa', { exact: true })).toBeVisible(); // 7.0 of 9.6
    await hands.push(hands.button('Add to the bowl'));
    await hands.push(hands.button(/Cocoa butter/));
    await hands.fill(/^P\d+, of/, '400');
    await hands.push(hands.button('Add it to the bowl'));
    await expect(page.getByText('74.0 % cocoa', { exact: true })).toBeVisible();
    await expect(page.getByText('70.0 % without added butter')).toBeVisible();
    await hands.push(hands.button('Take a reading'));
    await hands.fill('Fineness', '18 20 19');
    await hands.push(hands.button('Save the reading'));
    await expect(page.getByText('19 µm').first()).toBeVisible();
    await hands.push(hands.button('Pour it out'));
    await hands.fill('Poured, block by block', '9.8');
    await hands.fill('Scraped off, not used', '0.15');
    await hands.push(hands.button('Save the pour'));
    await expect(page.getByRole('heading', { name: 'A new batch' })).toBeVisible();
  });

  await test.step('Rest', async () => {
    await hands.station('6', 'Rest');
    await hands.push(hands.button('Take blocks off the shelf'));
    await hands.push(hands.button(/^K\d+/));
    await hands.push(hands.button('Take to temper'));
    // It was poured today: the shelf keeps it, unless somebody answers for it.
    const stop = page.getByRole('alert', { name: 'Stop' });
    await expect(stop).toContainText('has rested 0 of 14 days');
    await hands.fill(/^To go on all the same/, 'First bowl, to see the whole way');
    await hands.push(hands.button('Go on, Ann answers for it'));
    await expect(page.getByText('The shelf is empty.').first()).toBeVisible();
  });

  await test.step('Temper: three temperatures', async () => {
    await hands.station('7', 'Temper');
    await hands.push(hands.button('Enter a pour that is done'));
    await hands.push(hands.button(/^K\d+/));
    await hands.push(hands.button('Slab'));
    await hands.fill('Melted out at', '47');
    await hands.fill('Cooled to', '27,5');
    await hands.fill('Worked at', '31.5');
    await hands.push(hands.button('Set in 5 min'));
    await hands.push(hands.button('Save the temper'));
    await expect(page.getByRole('status')).toContainText('Saved.');
  });

  await test.step('Mould: count the bars', async () => {
    await hands.station('8', 'Mould');
    await hands.push(hands.button('Enter moulding that is done'));
    await hands.push(hands.button(/^T\d+/));
    await hands.fill('Weight of a bar', '70');
    await hands.fill('Cavities', '24');
    await hands.fill('Good bars', '136');
    await hands.fill('All good bars on the scale', '9520');
    await hands.fill('Seconds', '2');
    await hands.fill('Trimmings', '60');
    await hands.fill('Left in the machine', '80');
    await hands.push(hands.button('Save the bars'));
    await expect(page.getByRole('status')).toContainText('Saved.');
  });

  await test.step('Pack: code, date, wrappers', async () => {
    await hands.station('9', 'Pack');
    await expect(page.getByText('136 bars wait to be packed.')).toBeVisible();
    await hands.fill(/^Wrapper, of/, '136');
    await hands.push(hands.button('Pack them'));
    await expect(page.getByText('Nothing waits to be packed.').first()).toBeVisible();
  });

  await test.step('Taste', async () => {
    await hands.station('0', 'Taste');
    await hands.fill('Score, 0 to 10', '7,5');
    await hands.fill('What was it like', 'Plum, long.');
    await hands.push(hands.button('Save the score'));
    await expect(page.getByRole('status')).toContainText('Saved.');
  });

  await test.step('the batch: grams, percent, cost against the sums made by hand', async () => {
    await hands.press('Control+k');
    await page.keyboard.type('B001');
    await expect(page.getByRole('option').first()).toContainText('B001');
    await hands.press('Enter');
    await expect(page.getByRole('heading', { level: 1 })).toContainText('Ridge 72 %');
    const main = page.getByRole('main');
    await expect(main).toContainText('Single-origin: all cacao from lot L001, Ridge Growers.');
    await expect(main).toContainText('74.0 %');
    await expect(main).toContainText('“First bowl, to see the whole way”');
    await expect(main).toContainText('2.0 points over the 72 % meant');
    await expect(main).toContainText('135 here, 0 sold');
    // (61 × 7/7.2 + 5.20 + 8.00) × 9.52/9.66 / 136 + 0.10 = 0.6254
    await expect(main).toContainText('€0.63');
    // 7.2 of 8.93, 9.8 of 10: what each station let through
    await expect(main).toContainText('80.6 %');
    await expect(main).toContainText('98.0 %');
    // cacao in 9.52 kg of bars is 70 % of it: 6.664 of 9.722 kg green
    await expect(main).toContainText('68.5 %');
  });

  await test.step('a bar traced back to its sack', async () => {
    await page.goto('/trace/B001-1');
    await expect(page.getByRole('main')).toContainText('Ridge Growers, Uganda');
    // 10 kg × 7/7.2 × 9.52/9.66
    await expect(page.getByRole('main')).toContainText(/9\s581\sg of green beans went into it/);
    // In the drawing it leads to its own trace; in the list to its page.
    await hands.push(page.getByRole('link', { name: 'L001', exact: true }).last());
    await expect(page.getByRole('heading', { level: 1 })).toContainText('Ridge, Uganda');
  });
});
