import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { expect, test, type Locator, type Page } from './test';
import { turn } from './turn';

test.use({ workshop: 'demo' });

const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');
const VIEWS = [
  '/',
  '/station/beans',
  '/station/beans?show=receive',
  '/station/beans?show=samples',
  '/station/beans?show=traps',
  '/station/beans?show=import',
  '/station/sort?work=new',
  '/station/sort',
  '/station/roast',
  '/station/roast?work=new',
  '/roasting',
  '/roasting/program/falling-1',
  '/roasting/program/new?from=3',
  '/roasting/loads',
  '/roasting/load/{load}',
  '/roasting/compare?codes={load},{earlier}',
  '/roasting/trials',
  '/roasting/trial/fiji-trial',
  '/roasting/trial/new',
  '/roasting/roasters',
  '/station/winnow',
  '/station/grind',
  '/station/rest',
  '/station/temper',
  '/station/mould',
  '/station/pack',
  '/station/taste',
  '/batches',
  '/batch/B050',
  '/lots',
  '/lot/L002',
  '/lot/L005',
  '/lot/L011',
  '/lot/L010',
  '/lot/L006/inspect?step=1',
  '/lot/L006/inspect?step=4',
  '/lot/L006/inspect?step=5',
  '/store',
  '/products',
  '/orders',
  '/sales',
  '/losses',
  '/recipes',
  '/recipe/dark-fiji',
  '/recipe/new?from=2',
  '/ingredients',
  '/bowl/{bowl}',
  '/weighing/{weighing}',
  '/losses?station=mould&metric=unaccounted',
  '/stock-take',
  '/practise',
  '/trace/B050-1',
  '/tub/B050-1',
  '/complaints',
  '/recall/demo-practice',
  '/tastings',
  '/tasting',
  '/sessions',
  '/session/{session}',
  '/session/new',
  '/guest/{open}',
  '/words',
  '/other-makers',
  '/over-time',
  '/matters',
  '/trials',
  '/trial/{trial}',
  '/trial/new',
  '/workshop',
];

/** A weighing run that is under way; begun where there is none. */
async function weighing(page: Page): Promise<string> {
  const { weighings } = (await (await page.request.get('/api/recipe/weighings')).json()) as {
    weighings: { id: string }[];
  };
  if (weighings[0]) return weighings[0].id;
  const begun = await page.request.post('/api/recipe/weighings', {
    data: {
      personId: 'ilse',
      recipe: { id: 'dark-fiji', version: 2 },
      name: 'Fiji 68 %',
      machineId: 'stone-small',
      routeId: 'whole-bean',
      lines: [
        { ingredient: 'nibs', grams: 4500 },
        { ingredient: 'sugar', grams: 2200 },
      ],
    },
  });
  return ((await begun.json()) as { id: string }).id;
}

/** The views, with the codes of two loads, a bowl and a weighing where one is asked for. */
async function views(page: Page): Promise<string[]> {
  const { loads } = (await (await page.request.get('/api/roast/loads?limit=24')).json()) as {
    loads: { code: string }[];
  };
  const { grinds } = (await (await page.request.get('/api/ledger/floor')).json()) as {
    grinds: { batch: { code: string } }[];
  };
  const { sessions } = (await (await page.request.get('/api/taste/sessions')).json()) as {
    sessions: { id: string; state: string }[];
  };
  const { trials } = (await (await page.request.get('/api/trials')).json()) as {
    trials: { id: string; link: string }[];
  };
  const codes: Record<string, string> = {
    session: sessions.find(({ state }) => state === 'opened')?.id ?? '',
    open: sessions.find(({ state }) => state === 'open')?.id ?? '',
    trial: trials.find(({ link }) => link.startsWith('/trial/'))?.id ?? '',
    load: loads[20]?.code ?? '',
    earlier: loads[21]?.code ?? '',
    bowl: grinds[0]?.batch.code ?? '',
    weighing: await weighing(page),
  };
  return VIEWS.map((view) => view.replace(/\{(\w+)\}/g, (_, name: string) => codes[name] ?? ''));
}

interface Finding {
  id: string;
  impact: string | null;
  nodes: { html: string }[];
}
interface Checker {
  run: (root: Document, options: object) => Promise<{ violations: Finding[] }>;
}

/** What would keep somebody from using what is on the page, as lines. */
async function barriers(page: Page, options: object): Promise<string[]> {
  const found = await page.evaluate(
    async (asked) => (await (window as unknown as { axe: Checker }).axe.run(document, asked)).violations,
    { resultTypes: ['violations'], ...options },
  );
  return found
    .filter(({ impact }) => impact === 'serious' || impact === 'critical')
    .map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html.slice(0, 160)).join(' | ')}`);
}

/** Words that stand one below another, as nothing is left of their column. */
const squeezed = (page: Page): Promise<string[]> =>
  page.evaluate(() =>
    [...document.querySelectorAll('main :is(span, p, strong, td, div)')]
      .filter((element) => {
        const { width, height } = element.getBoundingClientRect();
        const says = [...element.childNodes].some(
          ({ nodeType, textContent }) => nodeType === Node.TEXT_NODE && (textContent ?? '').trim().length > 14,
        );
        return says && width > 1 && width < 60 && height > 120 && element.checkVisibility();
      })
      .map((element) => element.textContent.slice(0, 60)),
  );

/** All looks at a view are taken in one visit: to come to it costs more than to look. */
async function look(page: Page, view: string): Promise<string[]> {
  const said: string[] = [];
  // Narrow first: a page has to fit as it comes, and to grow with its window.
  await page.setViewportSize({ width: 390, height: 844 });
  await turn(page, view);
  for (const [width, height] of [
    [390, 844],
    [768, 1024],
    [1280, 800],
  ] as const) {
    await page.setViewportSize({ width, height });
    // Charts are drawn anew a moment after the window has changed.
    await expect
      .poll(() => page.evaluate(() => document.documentElement.scrollWidth - innerWidth), `${view} at ${width}`)
      .toBeLessThanOrEqual(0);
    if (width === 390) for (const words of await squeezed(page)) said.push(`${view}, squeezed on a phone: ${words}`);
  }
  await page.waitForTimeout(250);
  // What stands behind the save is scrolled free when it gets the focus; the checker sees only where it stands now.
  await page.evaluate(() => {
    for (const bar of document.querySelectorAll<HTMLElement>('.save-bar')) bar.style.position = 'static';
  });
  for (const row of await barriers(page, { runOnly: ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'] }))
    said.push(`${view} by day, ${row}`);
  await page.evaluate(() => (document.documentElement.dataset['theme'] = 'night'));
  for (const row of await barriers(page, { runOnly: ['color-contrast'] })) said.push(`${view} by night, ${row}`);
  await page.evaluate(() => (document.documentElement.dataset['theme'] = 'day'));
  return said;
}

test.describe('every view', () => {
  test.describe.configure({ mode: 'parallel' });
  const PARTS = 4;
  for (let part = 0; part < PARTS; part += 1) {
    test(`part ${part + 1} of ${PARTS}: no serious barrier by day and night, none wider than its window or squeezed in it, nothing fails`, async ({
      page,
    }) => {
      const errors: string[] = [];
      const all = await views(page);
      await page.addInitScript(() => {
        localStorage.setItem('wunsch.theme', 'day');
        localStorage.setItem('wunsch.person', 'ilse');
      });
      page.on('pageerror', (error) => errors.push(error.message));
      page.on('console', (message) => message.type() === 'error' && errors.push(message.text()));
      const found: string[] = [];
      await page.goto('/batches');
      await page.evaluate(axe);
      for (const view of all.filter((_, index) => index % PARTS === part)) found.push(...(await look(page, view)));
      expect(found).toEqual([]);
      expect(errors).toEqual([]);
    });
  }
});

test('at every bench the figure in hand, the pad and the save are in view together', async ({ page }) => {
  const inView = (target: Locator): Promise<boolean> =>
    target.evaluate((element) => {
      const { top, bottom, left, right } = element.getBoundingClientRect();
      const foot = document.querySelector('body footer')?.getBoundingClientRect().top ?? innerHeight;
      return top >= 0 && left >= 0 && right <= innerWidth && bottom <= foot + 1;
    });
  const benches = [
    'beans?show=receive',
    'sort',
    'winnow',
    'grind',
    'rest?show=take',
    'temper',
    'mould',
    'pack',
    'taste',
  ];
  await page.goto('/batches');
  for (const bench of benches) {
    await turn(page, `/station/${bench}`);
    const pad = page.getByRole('region', { name: 'Weigh pad' });
    const hand = page.locator('.readout[data-active=true]').first();
    for (const [width, height] of [
      [1280, 800],
      [768, 1024],
    ] as const) {
      await page.setViewportSize({ width, height });
      await expect(pad, bench).toBeVisible();
      // A tall plan of what is under way may stand before it on a tablet: the first key of the pad brings the figure here.
      if (width < 1024) await pad.getByRole('button', { name: '1', exact: true }).click();
      for (const [what, target] of [
        ['pad', pad],
        ['figure', hand],
        ['save', page.locator('.save-bar')],
      ] as const)
        await expect.poll(() => inView(target), `${what} of ${bench} at ${width}`).toBe(true);
    }
  }
});
