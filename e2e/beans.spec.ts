import { writeFileSync } from 'node:fs';
import { expect, test, type Locator, type Page } from './test';
import { Keyboard } from './keyboard';
import { choose } from './choose';

test.use({ workshop: 'demo' });

test.beforeEach(async ({ page }) => {
  await page.addInitScript(() => {
    if (localStorage.getItem('wunsch.person') === null) localStorage.setItem('wunsch.person', 'ilse');
  });
});

interface Lot {
  code: string;
  standing: string;
  count: { differenceG: number | null } | null;
  inspections: { value: { cut: { tally: Record<string, number> } | null; smells: string[] } }[];
  sacks: { no: number }[];
  claim: { sentence: string; total: string };
  hold: { clock: { done: boolean } | null; released: { person: string } | null } | null;
}

const lotOf = async (page: Page, code: string): Promise<Lot> =>
  (await (await page.request.get(`/api/beans/lots/${code}`)).json()) as Lot;

/** A lot of 60 kg, received through the interface of programs. */
async function received(page: Page, rest: object = {}): Promise<string> {
  const answer = await page.request.post('/api/beans/lots', {
    data: {
      personId: 'ilse',
      command: {
        kind: 'receive',
        name: 'Test lot',
        producer: 'Ridge Growers',
        country: 'Peru',
        region: 'high valley',
        routeId: 'whole-bean',
        sacks: 1,
        netG: 60_000,
        pricePerKg: 6,
        currency: 'EUR',
        ...rest,
      },
    },
  });
  const { step } = (await answer.json()) as { step: { lines: { code: string | null; kind: string | null }[] } };
  return step.lines.find(({ kind }) => kind === 'lot')?.code ?? '';
}

const record = (page: Page, code: string, value: object) =>
  page.request.post(`/api/beans/lots/${code}/records`, { data: { personId: 'ilse', record: value } });

test('twelve sacks arrive and are inspected by the keyboard alone', async ({ page }) => {
  const hands = new Keyboard(page);
  const code = await received(page, { sacks: 12, netG: 750_000, invoiceSacks: 12, invoiceNetG: 750_000 });
  await page.goto(`/lot/${code}/inspect`);

  await test.step('sacks, one by one, against the invoice', async () => {
    await hands.fill('Empty sack (kg)', '0,6');
    await hands.fill('Where it is put', 'rack C');
    for (let sack = 1; sack <= 12; sack += 1) {
      await hands.fill(`Sack ${sack}, gross (kg)`, '62,6');
      await hands.press('Enter');
    }
    await expect(page.getByText('744.0 kg net, 6.0 kg (0.8 %) short of the invoice').first()).toBeVisible();
    await hands.push(hands.button('On to smell and look'));
  });

  await test.step('smell and look, moisture with a slip, count', async () => {
    await hands.push(hands.button('clean cocoa'), 'Space');
    await hands.push(hands.button('On to moisture'));
    await hands.fill('Moisture (%)', '70');
    await hands.press('Enter');
    await expect(page.getByText('is wetter than any meter reads in dry beans')).toBeVisible();
    for (const reading of ['7,1', '6.9', '7.0']) {
      await hands.fill('Moisture (%)', reading);
      await hands.press('Enter');
    }
    await expect(page.getByText('7.0 % over 3 readings, 6.9 to 7.1: keeps well.').first()).toBeVisible();
    await hands.push(hands.button('On to count'));
    for (const count of ['104', '106']) {
      await hands.fill('Beans in 100 g (beans)', count);
      await hands.press('Enter');
    }
    await expect(page.getByText('105 beans in 100 g (0.95 g each): medium.').first()).toBeVisible();
    await hands.push(hands.button('On to cut test'));
  });

  await test.step('a mixed cut test of 100, with a slip taken back and one key too many', async () => {
    await hands.push(hands.button('100'));
    await hands.reach(page.getByRole('group', { name: /Cut test tally/ }));
    const beans = `${' '.repeat(70)}${'j'.repeat(12)}${'k'.repeat(4)}${'l'.repeat(4)}${'f'.repeat(2)}dsaaaaaa`;
    await page.keyboard.type(`${beans.slice(0, 40)}f`);
    await hands.press('Backspace');
    await page.keyboard.type(beans.slice(40));
    await page.keyboard.type('  ');
    await expect(page.getByTestId('cut-count')).toHaveText('100');
    await expect(page.getByText('all that were planned.')).toBeVisible();
    await page.reload();
    await expect(page.getByTestId('cut-count')).toHaveText('100');
    await hands.push(hands.button('On to verdict'));
  });

  await test.step('the verdict is proposed, decided otherwise with a word, and kept', async () => {
    const panel = page.getByRole('region', { name: 'So far' });
    await expect(panel).toContainText('Take it in, and ask for an allowance.');
    await expect(panel).toContainText('8.0 % against 3 % in the contract');
    await hands.push(hands.button('Take it in'), 'Space');
    await hands.push(page.getByRole('button', { name: 'Take it in' }).last());
    await expect(page.getByRole('alert')).toContainText('say why');
    await hands.fill('Why otherwise than proposed', 'cheap lot, agreed by telephone');
    await hands.push(page.getByRole('button', { name: 'Take it in' }).last());
    await expect(page).toHaveURL(new RegExp(`/lot/${code}$`));
    await expect(page.getByText('agreed by telephone').first()).toBeVisible();
  });

  await test.step('the weighed net goes into the book, the invoice is still what is paid', async () => {
    await hands.push(hands.button(/Book the weighed 744/));
    await expect(page.getByText('100 % of 744.0 kg, 12 sacks')).toBeVisible();
  });

  const lot = await lotOf(page, code);
  expect(lot.standing).toBe('taken in');
  expect(lot.sacks).toHaveLength(12);
  expect(lot.inspections[0]?.value.cut?.tally).toMatchObject({
    brown: 70,
    partly: 12,
    purple: 4,
    slaty: 4,
    mouldy: 2,
    insect: 1,
    germinated: 1,
    flat: 6,
  });
});

test('the tally keeps up with more than five beans a second, and loses none', async ({ page }) => {
  const code = await received(page);
  await page.goto(`/lot/${code}/inspect?step=4`);
  await page.getByRole('group', { name: /Cut test tally/ }).focus();
  const keys = ['Space', 'j', 'k', 'l', 'f', 'd', 's', 'a'];
  const BEANS = 160;
  const began = Date.now();
  for (let bean = 0; bean < BEANS; bean += 1) {
    await page.keyboard.press(keys[bean % 8] ?? 'Space');
    const due = began + (bean + 1) * 60;
    const ahead = due - Date.now();
    if (ahead > 0) await new Promise((resolve) => setTimeout(resolve, ahead));
  }
  const perSecond = BEANS / ((Date.now() - began) / 1000);
  await expect(page.getByTestId('cut-count')).toHaveText(String(BEANS));
  for (const name of [
    'Brown, 20',
    'Partly purple, 20',
    'Purple, 20',
    'Slaty, 20',
    'Mouldy, 20',
    'Insect-damaged, 20',
    'Germinated, 20',
    'Flat, 20',
  ])
    await expect(page.getByRole('button', { name, exact: true })).toBeVisible();
  expect(perSecond).toBeGreaterThan(5);
});

test('a hold, from webbing to release', async ({ page }) => {
  const code = await received(page);
  await page.goto(`/lot/${code}`);
  await page.getByRole('button', { name: 'Put it on hold for pests' }).click();
  await page.getByLabel('For so many hours').fill('0,001');
  await page.getByLabel('What was seen').fill('webbing in the seam');
  await page.getByLabel(/A simulated probe writes/).uncheck();
  await page.getByRole('button', { name: 'Begin the hold' }).click();
  await expect(page.getByText('no core temperature read yet')).toBeVisible();

  await page.goto('/station/sort');
  await expect(
    page.getByRole('button', { name: 'Another session' }).or(page.getByText('Take from')).first(),
  ).toBeVisible();
  await expect(page.getByRole('button', { name: new RegExp(`^${code}`) })).toHaveCount(0);

  await page.goto(`/lot/${code}`);
  const log = async (temp: string): Promise<void> => {
    await page.getByLabel('Core (°C)').fill(temp);
    await page.getByRole('button', { name: 'Log it' }).click();
    await expect(page.getByLabel('Core (°C)')).toHaveValue('');
  };
  await log('-10');
  await expect(page.getByText('the clock stands: the core is at −10 °C')).toBeVisible();
  await page.getByRole('button', { name: `Release ${code}` }).click();
  await expect(page.getByRole('alert')).toContainText('To release it all the same, say why.');
  await log('-20');
  await page.waitForTimeout(4000);
  await log('-21');
  await expect(page.getByText('Release it by name.')).toBeVisible();
  await page.getByRole('button', { name: `Release ${code}` }).click();
  await expect(page.getByText('taken in', { exact: true })).toBeVisible();
  expect((await lotOf(page, code)).hold?.released?.person).toBe('Ilse');
});

test('two people sort one lot at once; its claim sheet says what the screen says', async ({ page, context }) => {
  const code = await received(page, { netG: 40_000, sacks: 2, invoiceNetG: 40_000, invoiceSacks: 2 });
  await record(page, code, {
    kind: 'sacks',
    sacks: [1, 2].map((no) => ({ no, grossG: 20_500, tareG: 500, place: 'rack C' })),
  });
  await record(page, code, {
    kind: 'papers',
    limits: { mouldyPct: 3, slatyPct: 3, defectivePct: 3, moisturePct: 8, flatPct: 4, rejectPct: null, weightPct: 0.5 },
  });

  const other = await context.newPage();
  const begin = async (tab: Page, sack: number): Promise<void> => {
    await tab.goto('/station/sort?work=new');
    await expect(tab.getByText('Take from, the oldest first')).toBeVisible();
    const more = tab.getByRole('button', { name: /more$/ });
    if (await more.isVisible()) await more.click();
    await tab.getByRole('button', { name: new RegExp(`^${code}`) }).click();
    await tab.getByRole('button', { name: new RegExp(`^${sack} · `) }).click();
    await tab.getByRole('button', { name: 'Begin sorting' }).click();
    await expect(tab.getByLabel('Time at the table')).toBeVisible();
  };
  await begin(page, 1);
  await other.goto('/');
  await other.evaluate(() => localStorage.setItem('wunsch.person', 'danso'));
  await begin(other, 2);

  const clock = other.getByLabel('Time at the table');
  await other.getByRole('button', { name: 'Pause' }).click();
  await expect(other.getByRole('button', { name: 'Go on' })).toBeVisible();
  const stood = await clock.textContent();
  await other.waitForTimeout(2500);
  await other.reload();
  await expect(clock).toHaveText(stood ?? '');
  await other.getByRole('button', { name: 'Go on' }).click();

  const finish = async (tab: Page, piles: readonly (readonly [string, string])[]): Promise<void> => {
    for (const [label, grams] of piles) await readout(tab, label).fill(`${grams} g`);
    await expect(tab.getByText(/picked out, most of it flat/)).toBeVisible();
    await tab.getByRole('button', { name: 'Save the sorting' }).click();
    await expect(tab.getByRole('status')).toContainText('Saved.');
  };
  await finish(page, [
    ['Good beans', '18400'],
    ['Flat', '1300'],
    ['Broken', '280'],
  ]);
  await finish(other, [
    ['Good beans', '18500'],
    ['Flat', '1200'],
    ['Foreign', '40'],
  ]);

  await page.goto(`/lot/${code}`);
  // 2.5 kg of 40 kg are flat, 6.25 % against 4 %: 2.25 % of 40 kg at €6.
  const claim = page.locator('section', { has: page.getByRole('heading', { name: 'Against the contract' }) });
  await expect(claim).toContainText('0.9 kg claimed, €5.40 at the invoice price.');
  await expect(claim).toContainText('over, sure');
  await expect(page.getByText('Danso').first()).toBeVisible();
  const sheet = await page.request.get(`/api/beans/lots/${code}/claim.pdf`);
  expect(sheet.headers()['content-type']).toContain('application/pdf');
  expect((await lotOf(page, code)).claim.sentence).toBe('0.9 kg claimed, €5.40 at the invoice price.');
});

const readout = (page: Page, label: string): Locator => page.getByLabel(label, { exact: true });

test('a picture of 30 MB is shrunk, a script with a picture’s name is told apart', async ({ page }, info) => {
  const code = await received(page);
  await page.goto(`/lot/${code}`);
  const chooser = page.getByLabel('Picture or PDF to attach');
  await chooser.setInputFiles({
    name: 'seam.jpg',
    mimeType: 'image/jpeg',
    buffer: Buffer.from('<script>alert(1)</script>'),
  });
  await expect(page.getByRole('alert')).toContainText('neither a picture that this browser can read nor a PDF');

  // A bitmap of 3,200 × 3,200 without compression: 30.7 MB.
  const side = 3200;
  const bitmap = Buffer.alloc(54 + 3 * side * side, 120);
  bitmap.write('BM', 0, 'latin1');
  bitmap.writeUInt32LE(bitmap.length, 2);
  bitmap.writeUInt32LE(0, 6);
  bitmap.writeUInt32LE(54, 10);
  bitmap.writeUInt32LE(40, 14);
  bitmap.writeInt32LE(side, 18);
  bitmap.writeInt32LE(side, 22);
  bitmap.writeUInt16LE(1, 26);
  bitmap.writeUInt16LE(24, 28);
  bitmap.fill(0, 30, 54);
  const large = info.outputPath('large.bmp');
  writeFileSync(large, bitmap);
  await chooser.setInputFiles(large);
  await expect(page.getByRole('status').filter({ hasText: 'large.bmp is attached.' })).toBeVisible();
  const picture = page.getByRole('img', { name: 'large.jpg' });
  await expect(picture).toBeVisible();
  expect(await picture.evaluate((image: HTMLImageElement) => image.decode().then(() => image.naturalWidth))).toBe(1600);
});

test('a table of lots: a broken quote is told, a bad row is named, columns can be chosen, then all come in', async ({
  page,
}) => {
  await page.goto('/station/beans?show=import');
  const give = (text: string): Promise<void> =>
    page
      .getByLabel('Table of lots')
      .setInputFiles({ name: 'lots.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
  await give('name,producer\nRidge,"never closed\n');
  await expect(page.getByRole('alert')).toContainText('a quotation mark is opened and never closed');
  await give('name,producer,country,sacks,net kg,price\nA,Ridge,Peru,two,62,5\n');
  await expect(page.getByText('1 of 1 rows cannot be read yet.')).toBeVisible();
  await expect(page.getByText('Sacks “two” is not a number')).toBeVisible();
  await give('name;grown by;country;sacks;net kg;price\nTable lot;Ridge Growers;Peru;2;124,5;5,1\n');
  await expect(page.getByText('Producer or co-operative is missing')).toBeVisible();
  await choose(page.getByLabel('Producer or co-operative *'), { label: 'grown by' });
  await expect(page.getByText('One lot can come in.')).toBeVisible();
  await page.getByRole('button', { name: 'Take it in', exact: true }).click();
  await expect(page.getByRole('status')).toContainText('One lot came in');
});

test('own pods: the diary, then weighed in as dry, then an ordinary lot', async ({ page }) => {
  const code = await received(page, { form: 'wet', netG: 42_000, pricePerKg: 0 });
  await page.goto(`/lot/${code}`);
  await page.getByLabel('Room around the heap (°C)').fill('17');
  await page.getByRole('button', { name: 'Begin', exact: true }).click();
  await expect(page.getByText('A small or cool heap: it will run slow.')).toBeVisible();
  await page.getByRole('button', { name: 'Save the reading' }).click();
  await expect(page.getByRole('alert')).toContainText('Nothing is filled in yet');
  await page.getByLabel('Middle (°C)').fill('warm');
  await expect(page.getByText('is not a number')).toBeVisible();
  await page.getByLabel('Middle (°C)').fill('26');
  await page.getByLabel('Beans cut').fill('10');
  await page.getByLabel('with a brown ring').fill('7');
  await page.reload();
  await expect(page.getByLabel('with a brown ring')).toHaveValue('7');
  await page.getByRole('button', { name: 'Save the reading' }).click();
  await expect(page.getByText('7 of 10 cut beans show a brown ring: ready to dry.')).toBeVisible();
  await page.getByRole('button', { name: 'Weigh it in as dry' }).first().click();
  await page.getByLabel('Dry beans (kg)').fill('50');
  await page.getByRole('button', { name: 'Weigh it in as dry' }).last().click();
  await expect(page.getByRole('alert')).toContainText('Dry beans weigh less than wet ones.');
  await page.getByLabel('Dry beans (kg)').fill('16');
  await page.getByRole('button', { name: 'Weigh it in as dry' }).last().click();
  await expect(page.getByText('38.1 % of the wet')).toBeVisible();
  await expect(page.getByRole('link', { name: 'Inspect it' })).toBeVisible();
});
