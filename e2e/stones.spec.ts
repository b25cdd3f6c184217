import { expect, test, type Page } from './test';
import { ann, enter, madeBy, material, post, saved, somebody } from './maker';
import { choose } from './choose';

/* When the stones will be done: foretold, moved by readings and stops, held up to what came. */

test.use({ workshop: 'makers', locale: 'en-IE' });
test.beforeEach(async ({ page }) => {
  await somebody(page);
  await page.addInitScript((id) => localStorage.setItem('wunsch.person', id), ann);
});

const HOUR = 3_600_000;
const ago = (hours: number): { at: string } => ({ at: new Date(Date.now() - hours * HOUR).toISOString() });
const read = (page: Page, batchId: string, micron: number, hoursAgo: number) =>
  enter(page, { kind: 'reading', batchId, what: 'micron', value: micron, note: '' }, ago(hoursAgo));

/** A bowl of nibs and sugar that began so long ago on a machine. */
async function bowl(
  page: Page,
  name: string,
  machineId: string,
  hoursAgo: number,
): Promise<{ id: string; code: string }> {
  const receive = { kind: 'receive', name: `${name} nibs`, form: 'nibs', roasted: true, routeId: 'straight-through' };
  const lot = madeBy(await enter(page, { ...receive, netG: 3000, currency: 'EUR' }, ago(hoursAgo + 2)));
  const { materials } = (await (await page.request.get('/api/workshop')).json()) as {
    materials: { id: string; name: string }[];
  };
  const sugar =
    materials.find((row) => row.name === 'Grinding sugar')?.id ??
    (await material(page, 'Grinding sugar', { sugar: true }));
  const bag = madeBy(
    await enter(page, { kind: 'buy', materialId: sugar, supplier: 'Shop', massG: 1200, price: 3 }, ago(hoursAgo + 2)),
  );
  const step = await enter(
    page,
    {
      kind: 'charge',
      batch: { name, routeId: 'straight-through', targetMicron: 20 },
      sources: [{ holdingId: lot, massG: 2800 }],
    },
    { ...ago(hoursAgo), machineId },
  );
  const id = madeBy(step, 'mass');
  await enter(page, { kind: 'charge', batchId: id, sources: [{ holdingId: bag, massG: 1200 }] }, ago(hoursAgo - 5));
  return { id, code: step.batchCode ?? '' };
}

test('a grind is foretold: readings narrow it, stones that stand do not grind, and at the target it says so', async ({
  page,
}) => {
  const stone = await post<{ id: string }>(page, '/api/workshop/machines', {
    name: 'Night stone',
    station: 'grind',
    minG: 1000,
    maxG: 5000,
  });
  const { id, code } = await bowl(page, 'Night 70', stone.id, 30);
  await page.goto(`/station/grind?batch=${code}`);
  const forecast = page.getByRole('region', { name: 'Forecast' });
  await forecast.getByText('Why, and how sure').click();
  await expect(forecast.getByText('No finished grind of Night stone to learn from yet')).toBeVisible();
  await read(page, id, 66, 16);
  await read(page, id, 45, 6);
  await page.reload();
  await expect(forecast.getByText(/^(Pull|At target) .*\d\d:\d\d/)).toBeVisible();
  await expect(page.getByText('Fineness in µm by running hours')).toBeVisible();

  // A power cut: what is left is hours, not a time of day.
  await page.getByRole('button', { name: 'Stones stop' }).click();
  await page.getByRole('button', { name: 'Power cut' }).click();
  await expect(page.getByText(/^They stand since/)).toBeVisible();
  await expect(forecast.getByText(/^The stones stand\./)).toBeVisible();
  await page.reload();
  await page.getByRole('button', { name: 'Stones run again' }).click();
  await expect(forecast.getByText(/^(Pull|At target) /)).toBeVisible();

  // Drawn down on the simulated gauge, and by tongue.
  await page.getByRole('button', { name: 'Draw down on the simulated gauge' }).click();
  await expect(page.getByLabel('Fineness', { exact: true }).first()).not.toHaveText(/^0/);
  await page.getByRole('button', { name: 'By tongue' }).click();
  await page.getByRole('button', { name: 'Save the reading' }).click();
  await expect(page.getByText('Say how grainy it feels.')).toBeVisible();
  await page.getByRole('button', { name: 'a little grain' }).click();
  await page.getByRole('button', { name: 'Save the reading' }).click();
  await saved(page);
  await expect(page.getByText('By tongue: a little grain.')).toBeVisible();

  // At the target.
  await enter(page, { kind: 'reading', batchId: id, what: 'micron', value: 19.5, note: '' });
  await expect(forecast.getByText('It is there: 19.5 µm, target 20 µm.')).toBeVisible();
  const sheet = await page.request.get(`/api/grind/batches/${code}/night.pdf`);
  expect(sheet.headers()['content-type']).toContain('application/pdf');
});

test('what was foretold of finished grinds stands beside what came', async ({ page }) => {
  const stone = await post<{ id: string }>(page, '/api/workshop/machines', {
    name: 'Proven stone',
    station: 'grind',
    minG: 1000,
    maxG: 5000,
  });
  await page.goto(`/grinding/${stone.id}`);
  await expect(page.getByText('No finished grind with readings yet.')).toBeVisible();
  for (const [start, sizes] of [
    [200, [70, 44, 28, 19.5]],
    [130, [66, 42, 27, 19]],
  ] as const) {
    const { id } = await bowl(page, `Proven ${start}`, stone.id, start);
    for (const [index, micron] of sizes.entries()) await read(page, id, micron, start - 11 * (index + 1));
    await enter(page, { kind: 'discharge', batchId: id, outsG: [3900], holdUpG: 50 }, ago(start - 45));
  }
  await page.reload();
  await expect(page.getByText(/^\d of 6 forecasts held: \d+\s%, meant are 80\s%\.$/)).toBeVisible();
  const { code } = await bowl(page, 'Proven next', stone.id, 20);
  await page.goto(`/station/grind?batch=${code}`);
  await page.getByText('Why, and how sure').click();
  await expect(page.getByText('Learned from 2 finished grinds of Proven stone.')).toBeVisible();
  await page.getByRole('link', { name: 'How it did before' }).click();
  await expect(page.getByRole('heading', { name: 'What was foretold of Proven stone' })).toBeVisible();
});

test('an unroasted mass that nears its ceiling is warned of before it is there; sourness says how long to conche', async ({
  page,
}) => {
  const receive = {
    kind: 'receive',
    name: 'Raw ridge nibs',
    form: 'nibs',
    roasted: false,
    routeId: 'unroasted',
    netG: 2000,
  };
  const lot = madeBy(await enter(page, { ...receive, currency: 'EUR' }, ago(12)));
  const step = await enter(
    page,
    { kind: 'charge', batch: { name: 'Raw ridge', routeId: 'unroasted' }, sources: [{ holdingId: lot, massG: 1900 }] },
    ago(10),
  );
  const id = madeBy(step, 'mass');
  const temperature = (value: number, hoursAgo: number) =>
    enter(page, { kind: 'reading', batchId: id, what: 'bowl-temperature', value, note: '' }, ago(hoursAgo));
  await temperature(40, 2);
  await page.goto(`/station/grind?batch=${step.batchCode}`);
  const warming = page.getByRole('region', { name: 'Temperature of the mass' });
  await expect(warming.getByText('40 °C, ceiling 47 °C.')).toBeVisible();
  await temperature(42.5, 1);
  await temperature(45, 0.05);
  await expect(warming.getByText(/and rising 2\.\d °C an hour/)).toBeVisible();
  await expect(warming.getByText(/Lid off, fan on/)).toBeVisible();
  for (const [value, hoursAgo] of [
    [7, 8],
    [5.5, 4],
    [5, 1],
  ] as const)
    await enter(page, { kind: 'reading', batchId: id, what: 'sourness', value, note: '' }, ago(hoursAgo));
  const conching = page.getByRole('region', { name: 'Conching' });
  await expect(conching.getByText(/more hours .*at 4\d °C/)).toBeVisible();
  await choose(conching.getByLabel('Sourness that is meant'), '5');
  await expect(conching.getByText(/^\d+ (to|more)/)).toBeVisible();
});
