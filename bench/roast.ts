import { simulateProgram } from '@wunsch/core/roast/simulate';
import { longestTask, openBrowser, openPage, timings } from './browser';
import type { Note } from './table';

const steps = [
  { setC: 160, minutes: 8, until: null, note: '' },
  { setC: 140, minutes: 22, until: null, note: '' },
];

/** A logger's table of so many rows over half an hour. */
function table(rows: number, warming: number): string {
  const curve = simulateProgram(
    { steps, preheatC: 160 },
    { air: { lagMin: 3, dipC: 25, underC: 4 }, beans: { warmingPerMin: warming, dryingPerMin: 0.1 } },
    { beanC: 20, moisture: 0.07 },
    1800 / (rows - 1),
  );
  return [
    'seconds,bean,air',
    ...Array.from(
      curve.minutes,
      (minute, i) => `${(minute * 60).toFixed(2)},${curve.beanC[i]?.toFixed(2)},${curve.airC[i]?.toFixed(2)}`,
    ),
  ].join('\n');
}

/** What roasting costs: tables taken in, loads fitted and foretold in the worker, six curves drawn. */
export async function measureRoasting(base: string, note: Note): Promise<void> {
  const json = async <T>(path: string): Promise<T> => (await (await fetch(base + path)).json()) as T;
  const post = async <T>(path: string, body: object): Promise<T> => {
    const answer = await fetch(base + path, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
    if (!answer.ok) throw new Error(await answer.text());
    return (await answer.json()) as T;
  };
  const { people } = await json<{ people: { id: string }[] }>('/api/workshop');
  const personId = people[0]?.id ?? '';
  const { waiting, elsewhere } =
    await json<Record<'waiting' | 'elsewhere', { id: string; freeMg: number }[]>>('/api/roast/bench');
  const beans = [...waiting, ...elsewhere].sort((a, b) => b.freeMg - a.freeMg)[0];
  const roaster = async (name: string): Promise<string> =>
    (
      await post<{ id: string }>('/api/workshop/machines', {
        name,
        station: 'roast',
        minG: null,
        maxG: 9000,
        kw: 1,
        roaster: { kind: 'oven' },
      })
    ).id;
  const load = async (machineId: string, text: string, leave = 0.94): Promise<string> => {
    const { step } = await post<{ step: { lines: { code: string | null; massMg: number }[] } }>('/api/ledger/steps', {
      personId,
      machineId,
      command: {
        kind: 'roast',
        sources: [{ holdingId: beans?.id, massG: 100 }],
        program: [],
        endBeanC: null,
        outG: 100 * leave,
        note: '',
      },
    });
    const code = step.lines.find((line) => line.code !== null && line.massMg > 0)?.code ?? '';
    if (text !== '') await post(`/api/roast/loads/${code}/curve`, { text, personId });
    return code;
  };

  // Each look has roasters of its own: the one before, or another run, has left some.
  const { roasters } = await json<{ roasters: unknown[] }>('/api/roast/roasters');
  const [oven, another] = [`Bench oven ${roasters.length}`, `Bench, other ${roasters.length}`];
  const other = await roaster(another);
  const long = table(100_000, 0.17);
  const bare = await load(other, '');
  const began = performance.now();
  await post('/api/roast/curves/preview', { text: long });
  await post(`/api/roast/loads/${bare}/curve`, { text: long, personId });
  note('a table of 100,000 readings, shown and taken in', (performance.now() - began) / 1000, 2, 's');

  const machine = await roaster(oven);
  // The server hands a fit at most 200 readings a load: nine loads make 1,800.
  for (let i = 0; i < 9; i += 1) await load(machine, table(1800, 0.15 + 0.005 * i));
  const codes: string[] = [];
  for (let i = 0; i < 6; i += 1) codes.push(await load(other, table(3600, 0.14 + 0.01 * i)));

  const browser = await openBrowser();
  try {
    const page = await openPage(browser);
    await page.goto(`${base}/roasting/program/new?from=2`);
    await page.getByText('Beans come out at').waitFor();
    await longestTask(page);
    await page.evaluate(() => performance.clearMeasures());
    await page.getByRole('button', { name: oven }).last().click();
    await page.getByText('From 9 logged loads').waitFor();
    await page.waitForTimeout(500);
    const [fit = NaN] = await timings(page, 'roast-fit');
    const [band = NaN] = (await timings(page, 'roast-band')).slice(-1);
    note('fit of 1,800 readings and the band of a program, in the worker', fit + band, 200, 'ms');
    note('  longest task of the page meanwhile', await longestTask(page), 100, 'ms');

    await page.evaluate(() => performance.clearMeasures());
    await page.evaluate(() => scrollTo(0, 0));
    const grip = await page.getByRole('slider', { name: 'Step 1, temperature' }).boundingBox();
    if (grip) {
      const [x, y] = [grip.x + grip.width / 2, grip.y + grip.height / 2];
      await page.mouse.move(x, y);
      await page.mouse.down();
      for (let i = 1; i <= 40; i += 1) {
        await page.mouse.move(x, y - i);
        await page.waitForTimeout(16);
      }
      await page.mouse.up();
    }
    await page.waitForTimeout(400);
    const follows = (await timings(page, 'roast-band')).sort((a, b) => a - b);
    note('a dragged line and its band again, p95', follows[Math.floor(follows.length * 0.95)] ?? NaN, 100, 'ms');
    note('  longest task of the page while dragging', await longestTask(page), 100, 'ms');

    await page.goto(`${base}/roasting/compare?codes=${codes.join(',')}`);
    await page.locator('.apexcharts-svg').waitFor();
    await page.waitForTimeout(800);
    const [drawn = NaN] = await timings(page, 'roast-compare');
    note('six curves of 3,600 readings drawn', drawn, 300, 'ms');

    await page.goto(`${base}/roasting/load/${codes[0]}`);
    await page.getByRole('region', { name: 'Judgement' }).waitFor();
    await page.getByText('In figures').waitFor();
    const [studied = NaN] = await timings(page, 'roast-study');
    note('a load judged, its roaster fitted for it', studied, 600, 'ms');
  } finally {
    await browser.close();
  }
}
