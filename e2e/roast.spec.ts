import { expect, test, type Page } from './test';
import { choose } from './choose';

test.use({ workshop: 'demo' });

test.beforeEach(async ({ page }) => {
  await page.addInitScript(() => {
    localStorage.setItem('wunsch.person', 'ilse');
    localStorage.setItem('wunsch.roast-probe', 'simulated');
  });
});

const QUIET = { noiseC: 0.4, stuck: false, unplugged: false, speed: 1 };
const mood = (page: Page, part: Partial<typeof QUIET> = {}) =>
  page.request.post('/api/devices/roast/mood', { data: { ...QUIET, ...part } });
test.afterEach(({ page }) => mood(page));

const handle = (page: Page, name: string) => page.getByRole('slider', { name });
const cell = (page: Page, step: number, label: string) =>
  page.locator('ol.rows > li').nth(step).getByLabel(label, { exact: false }).first();

/** Takes hold of a handle and moves it by so many pixels. */
async function drag(page: Page, name: string, dx: number, dy: number): Promise<void> {
  const box = await handle(page, name).boundingBox();
  if (!box) throw new Error(`${name} is not on the page`);
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + dx / 2, y + dy / 2, { steps: 4 });
  await page.mouse.move(x + dx, y + dy, { steps: 4 });
  await page.mouse.up();
}

test('a program of four steps, by dragging and by typing; the line and the numbers are the same', async ({ page }) => {
  await page.goto('/roasting');
  await page.getByRole('link', { name: /^Falling steps/ }).click();
  await page.getByRole('textbox', { name: 'Name of the program' }).fill('Four steps');
  const foreseen = page.getByText(/° to \d+°/).first();
  await expect(foreseen).toBeVisible();
  const before = await foreseen.innerText();

  // Dragged up it is warmer, and the number follows.
  await drag(page, 'Step 1, temperature', 0, -24);
  const warmer = Number(await cell(page, 0, 'Set to').inputValue());
  expect(warmer).toBeGreaterThan(162);
  await expect(handle(page, 'Step 1, temperature')).toHaveAttribute('aria-valuenow', String(warmer));
  await expect(foreseen).not.toHaveText(before);
  await drag(page, 'Step 1, end', 40, 0);
  expect(Number(await cell(page, 0, 'For').inputValue())).toBeGreaterThan(6);

  // Typed, and the line follows; a comma will do.
  await cell(page, 0, 'Set to').fill('165');
  await cell(page, 0, 'For').fill('6,5');
  await expect(handle(page, 'Step 1, temperature')).toHaveAttribute('aria-valuenow', '165');
  await expect(handle(page, 'Step 1, end')).toHaveAttribute('aria-valuenow', '6.5');

  // By the keyboard alone.
  await handle(page, 'Step 2, temperature').focus();
  await page.keyboard.press('ArrowDown');
  await expect(cell(page, 1, 'Set to')).toHaveValue('144');

  await page.getByRole('button', { name: 'Split step 2 in two' }).click();
  await expect(page.locator('ol.rows > li')).toHaveCount(4);
  await cell(page, 2, 'Set to').fill('138');

  // What cannot be read stands as it was typed, and nothing is saved with it.
  await cell(page, 3, 'Set to').fill('hot');
  await expect(page.getByText('is not a number')).toBeVisible();
  await page.getByRole('button', { name: 'Save the program' }).click();
  await expect(page.getByRole('alert')).toContainText('Look again at what is marked');
  await page.reload();
  await expect(cell(page, 3, 'Set to')).toHaveValue('hot');
  await cell(page, 3, 'Set to').fill('128');
  await page.getByRole('button', { name: 'Save the program' }).click();
  await expect(page.getByText('Version 1')).toBeVisible();

  // A second version; the first can be read and taken up again.
  await cell(page, 0, 'Set to').fill('170');
  await page.getByRole('button', { name: 'Save as version 2' }).click();
  await expect(page.getByText(/^Version 2/)).toBeVisible();
  const versions = page.getByRole('region', { name: 'Versions' }).or(page.locator('section', { hasText: 'Versions' }));
  await expect(versions.last()).toContainText('165 °C');

  // Another screen saves meanwhile: what is changed here stays, and is saved as the next version.
  await cell(page, 0, 'Set to').fill('171');
  const id = page.url().split('/').at(-1);
  const kept = (await (await page.request.get(`/api/roast/programs/${id}`)).json()) as {
    versions: { program: object }[];
  };
  await page.request.post(`/api/roast/programs/${id}/versions`, {
    data: { personId: 'tomo', program: kept.versions[0]?.program, after: 2 },
  });
  await expect(page.getByRole('status')).toContainText('Version 3 was saved meanwhile by Tomo');
  await expect(cell(page, 0, 'Set to')).toHaveValue('171');
  await page.getByRole('button', { name: 'Save as version 4' }).click();
  await expect(page.getByText(/^Version 4/)).toBeVisible();
  await expect(cell(page, 0, 'Set to')).toHaveValue('171');
});

test('a live roast at sixty times the clock: reload, unplugged probe, stop, weigh out, judgement, comparison', async ({
  page,
  browser,
}) => {
  await mood(page, { speed: 60 });
  await page.goto('/station/roast?work=new');
  const start = page.getByRole('button', { name: 'Start the roast' });
  await page
    .getByRole('group', { name: 'What goes in' })
    .getByRole('button', { name: /São Tomé|Viet Nam/ })
    .first()
    .click();
  await page.getByRole('group', { name: 'What goes in' }).getByRole('button', { pressed: true }).first().click();
  await expect(page.getByText(/Preheat Convection oven to/)).toBeVisible();
  await expect(page.getByText('Beans come out at')).toBeVisible();
  await start.click();

  // The curve runs over the planned line; the next act stands there with its time.
  const next = page.getByRole('region', { name: 'What is next' });
  await expect(next).toContainText('Lower to');
  await expect(page.locator('.apexcharts-svg').first()).toBeVisible();
  await page.getByRole('button', { name: 'vinegar', exact: true }).click();
  await expect(page.getByRole('button', { name: 'vinegar', exact: true })).toHaveAttribute('aria-pressed', 'true');
  await page.getByLabel('In your own words').fill('warm hay');
  await page.getByRole('button', { name: 'Note it', exact: true }).click();
  await expect(page.getByRole('button', { name: 'warm hay', exact: true })).toHaveAttribute('aria-pressed', 'true');
  await next.getByRole('button', { name: /^Done/ }).first().click();

  // A reload in the middle loses nothing; a second screen sees the same.
  await page.reload();
  await expect(page.getByRole('button', { name: 'warm hay', exact: true })).toHaveAttribute('aria-pressed', 'true');
  const second = await browser.newPage();
  await second.goto(page.url());
  await expect(second.getByRole('button', { name: 'warm hay', exact: true })).toHaveAttribute('aria-pressed', 'true');
  await second.close();

  // The probe is pulled out: it is said, the clock goes on, and the gap stays a gap.
  await mood(page, { speed: 60, unplugged: true });
  await expect(page.getByRole('alert')).toContainText('Nothing is heard from the probe');
  await mood(page, { speed: 60 });
  await expect(page.getByRole('alert')).toHaveCount(0);
  await next.getByRole('button', { name: /^Done/ }).first().click();
  await page.waitForTimeout(4000);
  await page.getByRole('button', { name: 'It is out' }).click();

  const weighed = page.getByText(/^Out after/);
  await expect(weighed).toBeVisible();
  await page.getByLabel('Out of the roaster', { exact: true }).fill('nothing');
  await page.getByRole('button', { name: 'Save the load' }).click();
  await expect(page.getByText('Look at: Out of the roaster.')).toBeVisible();
  await page.getByLabel('Out of the roaster', { exact: true }).fill('4700 g');
  await page.getByRole('button', { name: 'Save the load' }).click();

  // What it means comes at once, with its evidence.
  await expect(page).toHaveURL(/\/roasting\/load\/T\d+/);
  const judgement = page.getByRole('region', { name: 'Judgement' });
  await expect(judgement).toContainText('of its weight');
  await expect(judgement).toContainText('Nothing was read for');
  await expect(judgement).toContainText('vinegar at');
  await expect(page.getByText(/Crack it after/)).toBeVisible();
  await page.getByLabel('You know better, or more').fill('The probe had come loose.');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText('“The probe had come loose.”')).toBeVisible();

  // Laid over two old loads.
  const code = (/T\d+/.exec(page.url()) ?? [''])[0];
  await page.getByRole('link', { name: 'Compare with other loads' }).click();
  for (let i = 0; i < 2; i += 1) {
    await choose(page.getByRole('combobox', { name: 'Add' }), { index: 0 });
    await expect(page.getByRole('heading', { level: 1 })).toContainText(`${i + 2} loads over one another`);
  }
  await expect(page.locator('.apexcharts-line-series > .apexcharts-series')).toHaveCount(3);
  await expect(page.getByRole('row', { name: /^Weight lost/ })).toContainText('%');
  await choose(page.getByRole('combobox', { name: 'Laid over one another by' }), 'bean');
  await page.getByLabel('Beans at (°C)').fill('95');
  await expect(page.getByText('before and after beans at 95')).toBeVisible();
  await choose(page.getByRole('combobox', { name: 'Laid over one another by' }), 'vinegar');
  await expect(page.getByText('before and after “vinegar”')).toBeVisible();
  await page.getByRole('button', { name: `Leave ${code} out` }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('2 loads');
});

test('a roast without a probe, stuck and silent probes aside: times, hand readings, weights', async ({ page }) => {
  await page.goto('/station/roast?work=new');
  await page.getByText(/^Probe, layer, water/).click();
  await page.getByRole('button', { name: 'By hand, or none' }).click();
  await page.getByRole('button', { name: 'No program, by nose' }).click();
  await page.getByLabel('Water in the beans, if measured (%)').fill('wet');
  await page.getByRole('button', { name: 'Start the roast' }).click();
  await expect(page.getByRole('alert')).toContainText('The water in the beans is not a number.');
  await page.getByLabel('Water in the beans, if measured (%)').fill('6,8');
  await page.getByRole('button', { name: 'Start the roast' }).click();
  await expect(page.getByText('No program: it comes out when you say so.')).toBeVisible();
  await page.getByLabel(/^Set otherwise/).fill('150');
  await page.getByRole('button', { name: 'Set', exact: true }).click();
  await expect(page.getByText('set to 150 °C')).toBeVisible();
  await page.getByLabel(/^Beans, by hand/).fill('96');
  await page.getByRole('button', { name: 'Log it' }).click();
  await expect(page.getByText('96 °C', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Put it all back' }).click();
  await page.getByRole('alertdialog').getByRole('button', { name: 'Put it back' }).click();
  await expect(page.getByText('No program: it comes out when you say so.')).toHaveCount(0);
});

test('a load that is entered afterwards takes the table of a logger: °F, with a clock', async ({ page }) => {
  await page.goto('/station/roast?work=new');
  await page.getByRole('button', { name: 'Enter a load that is done' }).click();
  await page.getByRole('group', { name: 'What goes in' }).getByRole('button').nth(1).click();
  await page.getByLabel(/^T\d+, of/).fill('1000 g');
  await page.getByLabel('Out of the roaster', { exact: true }).fill('943 g');
  await page.getByRole('button', { name: 'Save the load' }).click();
  const code = (await page.getByRole('status').locator('.code').innerText()).trim();

  await page.goto(`/roasting/load/${code}`);
  await expect(page.getByRole('region', { name: 'Judgement' })).toContainText('No bean temperature was logged');
  const file = (name: string, text: string) => ({ name, mimeType: 'text/csv', buffer: Buffer.from(text) });
  const input = page.getByLabel('Table of a logger');
  await input.setInputFiles(file('notes.csv', 'dear diary'));
  await expect(page.getByRole('alert')).toContainText('No table of readings was found');

  const two = (value: number): string => String(value).padStart(2, '0');
  const rows = Array.from({ length: 181 }, (_, i) => {
    const second = 23 * 3600 + 50 * 60 + i * 8;
    const fahrenheit = 248 - 178 * Math.exp(-i / 45);
    const clock = `${two(Math.floor(second / 3600) % 24)}:${two(Math.floor(second / 60) % 60)}:${two(second % 60)}`;
    return `${clock},${i === 90 ? 'oops' : fahrenheit.toFixed(1)},${(300 - i / 10).toFixed(1)}`;
  });
  await input.setInputFiles(file('logger.csv', ['Clock,Bean probe,Oven', ...rows].join('\r\n')));
  await expect(page.getByText('Taken for °F')).toBeVisible();
  await expect(page.getByText(/180 readings over 24\.0 min, from 23:50:00/)).toBeVisible();
  await expect(page.getByText('Line 92: “oops” is not a temperature')).toBeVisible();
  await expect(page.getByRole('button', { name: `Take it in for ${code}` })).toBeDisabled();

  // Overruled and put right again.
  await choose(page.getByRole('combobox', { name: 'In', exact: true }), 'C');
  await expect(page.getByText('Taken for °C: as you said.')).toBeVisible();
  await choose(page.getByRole('combobox', { name: 'In', exact: true }), 'F');
  await page.getByRole('button', { name: 'Leave that row out and take the rest in' }).click();
  await expect(page.getByRole('region', { name: 'Judgement' })).toContainText(/The beans came to 11\d\.\d °C/);
  await expect(page.getByRole('link', { name: 'Curve as CSV' })).toBeVisible();
  await page.getByRole('button', { name: 'Take the curve off: it was another file' }).click();
  await page.getByRole('alertdialog').getByRole('button', { name: 'Take it off' }).click();
  await expect(page.getByRole('button', { name: 'Choose a table' })).toBeVisible();
});

test('a kill figure only from the maker’s own validation, whole or not at all', async ({ page }) => {
  const { loads } = (await (await page.request.get('/api/roast/loads?limit=30')).json()) as {
    loads: { code: string; roaster: string; curve: boolean }[];
  };
  const code = loads.find((row) => row.roaster === 'Convection oven' && row.curve)?.code ?? '';
  await page.goto(`/roasting/load/${code}`);
  await expect(page.getByText('None: no validated D and z are entered')).toBeVisible();
  await page.getByRole('link', { name: 'Roasters' }).first().click();
  await page.getByRole('button', { name: 'Change', exact: true }).first().click();
  await page.getByLabel('D (min)').fill('2,5');
  await page.getByRole('button', { name: 'Save the roaster' }).click();
  await expect(page.getByText('is missing')).toHaveCount(2);
  await expect(page.getByText('says who validated it, and when')).toBeVisible();
  await page.getByLabel('at (°C)').fill('110');
  await page.getByLabel('z, in °C').fill('14');
  await page.getByLabel('Reductions asked for').fill('5');
  await page.getByLabel(/^Validated by whom/).fill('own study of May, full trays');
  await page.getByRole('button', { name: 'Save the roaster' }).click();
  await expect(page.getByText(/Validated \(own study of May, full trays\): D 2\.5 min/)).toBeVisible();
  await page.goto(`/roasting/load/${code}`);
  await expect(page.getByText(/decimal reductions$/)).toBeVisible();
  await expect(page.getByRole('region', { name: 'Judgement' })).toContainText('your food-safety plan decides');
  await expect(page.getByText(/\bsafe\b/i)).toHaveCount(0);
  // As it was.
  await page.goto('/roasting/roasters');
  await page.getByRole('button', { name: 'Change', exact: true }).first().click();
  for (const label of ['D (min)', 'at (°C)', 'z, in °C', 'Reductions asked for']) await page.getByLabel(label).fill('');
  await page.getByLabel(/^Validated by whom/).fill('');
  await page.getByRole('button', { name: 'Save the roaster' }).click();
  await expect(page.getByText('No validation is entered').first()).toBeVisible();
});

test('a trial: planned as a grid, its program worked out, its sentence honest', async ({ page }) => {
  await page.goto('/roasting/trials');
  await expect(page.getByText(/4 loads are tasted/)).toBeVisible();
  await page.getByRole('link', { name: 'Plan a trial' }).click();
  await page.getByRole('button', { name: 'Keep the plan' }).click();
  await expect(page.getByRole('alert')).toContainText('Choose the lot');
  await choose(page.getByRole('combobox', { name: 'Lot' }), { index: 2 });
  await page.getByLabel(/^How warm the beans get/).fill('112; 118; 124');
  await page.getByLabel(/^How long it takes/).fill('16; 26');
  await page.getByRole('button', { name: '124°, 26 min' }).click();
  await page.getByLabel('Name').fill('Grid of five');
  await page.reload();
  await expect(page.getByText(/^5 loads, 4\s000\sg of beans/)).toBeVisible();
  await page.getByRole('button', { name: 'Keep the plan' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Grid of five' })).toBeVisible();
  await expect(page.getByText('No score yet: every roast of the plan could be the best.')).toBeVisible();
  await page.getByRole('link', { name: 'Not made yet: write its program' }).first().click();
  await expect(page.getByLabel('Name of the program')).toHaveValue(/^Grid of five, roast \d$/);
  await page.getByRole('button', { name: 'Save the program' }).click();
  await expect(page.getByText('Version 1')).toBeVisible();
});
