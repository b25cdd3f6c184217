import { expect, test, type Page } from './test';
import { enter, madeBy, material, post, saved } from './maker';
import { choose } from './choose';

/* A grind of three days on a clock that runs ten minutes a second: nights are skipped, everything else is lived through. */

test.use({ workshop: 'fast', locale: 'en-IE' });

const HOUR = 3_600_000;
const clock = async (page: Page, hours?: number): Promise<number> => {
  const answer =
    hours === undefined
      ? await page.request.get('/api/devices/clock')
      : await page.request.post('/api/devices/clock', { data: { hours } });
  return ((await answer.json()) as { now: number }).now;
};

/** The page's clock goes with the workshop's: as fast, from the same moment. */
async function withItsClock(page: Page): Promise<void> {
  const now = await clock(page);
  await page.addInitScript(
    ([from, real]) => {
      const own = Date;
      const moved = JSON.parse(sessionStorage.getItem('fast-clock') ?? 'null') as { from: number; real: number } | null;
      const { from: start, real: since } = moved ?? { from: from ?? 0, real: real ?? 0 };
      const fast = (): number => start + (own.now() - since) * 600;
      const Fast = new Proxy(own, {
        construct: (target, args: [] | [number]) => (args.length === 0 ? new target(fast()) : new target(...args)),
        get: (target, key) => (key === 'now' ? fast : (Reflect.get(target, key) as unknown)),
      });
      window.Date = Fast;
    },
    [now, Date.now()],
  );
}

/** Skips so many hours in the workshop and on the page. */
async function sleep(page: Page, hours: number): Promise<void> {
  const now = await clock(page, hours);
  await page.evaluate((from) => {
    // The page's own clock is the fast one: what is kept is a real moment.
    const real = Number(performance.timeOrigin + performance.now());
    sessionStorage.setItem('fast-clock', JSON.stringify({ from, real }));
  }, now);
  await page.reload();
}

test('a three-day grind: the forecast moves, a stop, lecithin of the night planned anew, pulled at its target', async ({
  page,
}) => {
  const person = await post<{ id: string }>(page, '/api/workshop/people', { name: 'Nessa' });
  await page.addInitScript((id) => localStorage.setItem('wunsch.person', id), person.id);
  const workshop = (await (await page.request.get('/api/workshop')).json()) as { settings: object };
  const put = await page.request.put('/api/workshop/settings', {
    data: {
      ...workshop.settings,
      name: 'Tide',
      timeZone: 'Europe/Lisbon',
      attended: { fromMin: 420, toMin: 1080, days: [1, 2, 3, 4, 5, 6, 7] },
    },
  });
  expect(put.ok()).toBe(true);
  const stone = await post<{ id: string }>(page, '/api/workshop/machines', {
    name: 'Tide stone',
    station: 'grind',
    minG: 1000,
    maxG: 6000,
  });
  // To the next morning at seven, so that nights are where they belong.
  const hourOf = async (): Promise<number> => {
    const now = await clock(page);
    const [hour = 0, minute = 0] = new Intl.DateTimeFormat('en-GB', {
      timeZone: 'Europe/Lisbon',
      hour: '2-digit',
      minute: '2-digit',
    })
      .format(now)
      .split(':')
      .map(Number);
    return hour + minute / 60;
  };
  await clock(page, (31 - (await hourOf())) % 24);
  const by = { personId: person.id };
  const lot = madeBy(
    await enter(
      page,
      {
        kind: 'receive',
        name: 'Tide nibs',
        form: 'nibs',
        roasted: true,
        routeId: 'straight-through',
        netG: 4000,
        currency: 'EUR',
      },
      by,
    ),
  );
  const sugar = await material(page, 'Tide sugar', { sugar: true });
  const bag = madeBy(
    await enter(page, { kind: 'buy', materialId: sugar, supplier: 'Shop', massG: 1500, price: 3 }, by),
  );
  const step = await enter(
    page,
    {
      kind: 'charge',
      batch: { name: 'Tide 70', routeId: 'straight-through', targetMicron: 20 },
      sources: [{ holdingId: lot, massG: 3500 }],
    },
    { ...by, machineId: stone.id },
  );
  const id = madeBy(step, 'mass');
  const code = step.batchCode ?? '';
  await withItsClock(page);
  await page.goto(`/station/grind?batch=${code}`);
  const forecast = page.getByRole('region', { name: 'Forecast' });
  const said = async (): Promise<string> => (await forecast.locator('p').first().textContent()) ?? '';
  await expect(forecast.getByText(/\d\d:\d\d|running hours/).first()).toBeVisible();

  // The acts most bowls see, and the sugar in the afternoon; a probe in the bowl.
  await page.getByRole('button', { name: 'Plan the usual acts' }).click();
  const lecithin = page.getByRole('slider', { name: 'Lecithin in, when' });
  await expect(lecithin).toBeVisible();
  await page.getByRole('button', { name: 'Simulated probe' }).click();
  await expect(page.getByText(/^Logged by a simulated probe, last at \d\d:\d\d\.$/)).toBeVisible();
  await choose(page.getByLabel('Act', { exact: true }), 'sugar');
  await choose(page.getByLabel('When', { exact: true }), 'running');
  await page.getByLabel('Hours (h)').fill('6');
  await page.reload();
  // Half typed, it is still there.
  await expect(page.getByLabel('Hours (h)')).toHaveValue('6');
  await page.getByRole('button', { name: 'Plan it' }).click();
  await expect(page.getByRole('slider', { name: 'Sugar in, when' })).toBeVisible();
  // Its words move while it is foretold anew: opened once it knows of the act.
  const why = forecast.getByText(/“Sugar in” is still to come and starts coarse/);
  await expect(why).toBeAttached();
  await forecast.getByText('Why, and how sure').click();
  await expect(why).toBeVisible();
  const first = await said();

  // Moved by the keyboard, what it does to the end is said.
  await page.getByRole('slider', { name: 'Sugar in, when' }).focus();
  for (let quarter = 0; quarter < 16; quarter += 1) await page.keyboard.press('ArrowRight');
  await expect(page.getByText(/At 20 µm about .* h later\./)).toBeVisible();
  await page.getByRole('button', { name: 'Leave it' }).click();

  await sleep(page, 6);
  await enter(page, { kind: 'charge', batchId: id, sources: [{ holdingId: bag, massG: 1500 }] }, by);
  await expect(page.getByText(/^Done: .*Sugar in/)).toBeVisible();

  // The first evening and the next day: the simulated gauge, drawn.
  const read = async (): Promise<number> => {
    await page.getByRole('button', { name: 'Draw down on the simulated gauge' }).click();
    const field = page.getByLabel('Fineness', { exact: true }).first();
    await expect(field).toHaveValue(/\d/);
    const micron = Number((await field.inputValue()).split(' ')[0]);
    await page.getByRole('button', { name: 'Save the reading' }).click();
    const coarser = page.getByText(/coarser than the/);
    await saved(page).catch(async (error: unknown) => {
      // A gauge read by eye can come out coarser: then it is said why.
      if (!(await coarser.first().isVisible())) throw error as Error;
    });
    return micron;
  };
  await sleep(page, 10);
  await read();
  await expect.poll(said).not.toBe(first);
  await sleep(page, 8);
  await read();

  // A power cut of some hours does not count.
  await page.getByRole('button', { name: 'Stones stop' }).click();
  const cut = page.getByRole('button', { name: 'Power cut' });
  // The forecast of the reading may come between, and move what is below it.
  await expect(async () => {
    if (await cut.isVisible()) await cut.click();
    await expect(forecast.getByText(/^The stones stand\./)).toBeVisible({ timeout: 5000 });
  }).toPass();
  const study = async () =>
    (await (await page.request.get(`/api/grind/batches/${code}/study`)).json()) as {
      nowH: number;
      now: number;
      startedAt: number;
    };
  const stood = (await study()).nowH;
  await sleep(page, 4);
  expect((await study()).nowH).toBeCloseTo(stood, 1);
  await page.getByRole('button', { name: 'Stones run again' }).click();
  await expect(forecast.getByText(/^The stones stand\./)).toHaveCount(0);

  // The lecithin is set for the night by hand: the page offers the evening before and the morning after.
  await post(page, `/api/grind/batches/${id}/acts`, {
    ...by,
    what: 'Second lecithin',
    kind: 'lecithin',
    at: new Date((await clock(page)) + ((26 + 24 - (await hourOf())) % 24) * HOUR).toISOString(),
  });
  await page.reload();
  const night = page.getByRole('group', { name: 'Second lecithin: nobody is here then' });
  await expect(night.getByText(/Nobody is here at 0[12]:\d\d/)).toBeVisible();
  await night.getByRole('button', { name: /^When we come/ }).click();
  await expect(night).toHaveCount(0);

  // On until it is there: one reading under the target may be luck, and the verdict waits for more.
  const there = forecast.getByText(/^It is there|^Finer than meant/);
  let micron = Infinity;
  for (let look = 0; look < 14 && (micron > 20.5 || (await there.count()) === 0); look += 1) {
    await sleep(page, 8);
    micron = await read();
  }
  expect(micron).toBeLessThanOrEqual(20.5);
  await expect(there).toBeVisible();
  const { now, startedAt } = await study();
  expect((now - startedAt) / HOUR).toBeGreaterThan(40);

  await page.getByRole('button', { name: 'Pour it out' }).click();
  const poured = page.getByLabel('Poured, block by block').first();
  await poured.fill('4900');
  await page.getByRole('button', { name: 'Save the pour' }).click();
  await saved(page);
  await page.goto(`/grinding/${stone.id}`);
  await expect(page.getByText(/^\d+ of \d+ forecasts held: \d+\s%, meant are 80\s%\.$/)).toBeVisible();
});

test('a rest shelf: tasted along the way, meant to come off on a day of its own, taken to be melted again', async ({
  page,
}) => {
  const person = await post<{ id: string }>(page, '/api/workshop/people', { name: 'Orla' });
  await page.addInitScript((id) => localStorage.setItem('wunsch.person', id), person.id);
  const by = { personId: person.id };
  const lot = madeBy(
    await enter(
      page,
      {
        kind: 'receive',
        name: 'Shelf nibs',
        form: 'nibs',
        roasted: true,
        routeId: 'from-nibs',
        netG: 3000,
        currency: 'EUR',
      },
      by,
    ),
  );
  const step = await enter(
    page,
    { kind: 'charge', batch: { name: 'Shelf 100', routeId: 'from-nibs' }, sources: [{ holdingId: lot, massG: 2900 }] },
    by,
  );
  const poured = await enter(
    page,
    { kind: 'discharge', batchId: madeBy(step, 'mass'), outsG: [1400, 1400], holdUpG: 100 },
    by,
  );
  expect(poured.lines.filter(({ kind }) => kind === 'block')).toHaveLength(2);
  await clock(page, 24 * 4);
  await withItsClock(page);
  await page.goto('/station/rest');
  const row = page.getByRole('listitem').filter({ hasText: 'Shelf 100' }).first();
  await row.getByRole('button', { name: 'Taste or plan' }).click();
  await row.getByRole('button', { name: 'Save the tasting' }).click();
  await expect(row.getByText('Say how good it is, 0 to 10.')).toBeVisible();
  await row.getByRole('button', { name: '7', exact: true }).first().click();
  await row.getByRole('button', { name: 'Save the tasting' }).click();
  await expect(row.getByText(/^Tasted 7 at \d d/)).toBeVisible();
  await row.getByRole('button', { name: 'one week' }).click();
  await expect(row.getByText(/to go, meant until/)).toBeVisible();
  await sleep(page, 24 * 4);
  await expect(row.getByText(/^has rested, meant until/)).toBeVisible();
  await page.getByRole('button', { name: 'Take blocks off the shelf' }).click();
  await page.getByRole('button', { name: /^K\d+/ }).first().click();
  await page.getByRole('button', { name: 'Take to temper' }).click();
  await saved(page);
  await page.goto('/station/temper');
  await expect(page.getByText(/^K\d+-2/).first()).toBeVisible();
});
