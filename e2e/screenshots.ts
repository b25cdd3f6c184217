import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { CHROMIUM } from './chromium';
import { startServer } from './server';

/** Takes the pictures of the README from a fresh demo workshop. */
const root = join(import.meta.dirname, '..');
const out = join(root, 'docs/screenshots');
const data = mkdtempSync(join(tmpdir(), 'wunsch-pictures-'));

interface Shot {
  name: string;
  path: string;
  theme?: 'day' | 'night';
  size?: readonly [number, number];
  /** A heading to bring to the top. */
  scrollTo?: string;
  /** Steps that the first slider is moved by. */
  drag?: number;
  /** A button to press first. */
  press?: string;
  /** What is done before the picture. */
  act?: (page: Page) => Promise<void>;
  /** Beans counted on the tally. */
  typed?: string;
}

/** A melt of some seconds with a word now and then. */
async function melt(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Melt', exact: true }).click();
  await page.getByRole('button', { name: 'It is on the tongue' }).click();
  for (const word of ['cocoa', 'lemon', 'berries', 'honey']) {
    await page.waitForTimeout(5000);
    await page.getByRole('button', { name: word, exact: true }).first().click();
  }
}

/** A guest in the middle of a sheet. */
async function sitDown(page: Page): Promise<void> {
  await page.getByLabel(/Your name/).fill('Nel');
  await page.getByRole('button', { name: 'Sit down' }).click();
  await page.getByRole('button', { name: 'Taste it' }).first().click();
  await page.getByRole('button', { name: 'Sum up' }).click();
  await page.getByRole('button', { name: 'Overall 7', exact: true }).click();
  await page.getByRole('button', { name: 'Sour 4', exact: true }).click();
}

/** A triangle test that is half answered. */
async function same(page: Page): Promise<void> {
  const panel = page
    .locator('section')
    .filter({ has: page.getByRole('heading', { name: 'Are they the same?' }) })
    .last();
  await panel.getByLabel('One bar').fill('Last year');
  await panel.getByLabel('The other').fill('This year');
  await panel.getByLabel('Tasters').fill('6');
  await panel.getByRole('button', { name: 'Make the sheet' }).click();
  const codes = panel.getByRole('row').nth(1).locator('.code');
  await panel.getByLabel('Odd one of taster 1').fill((await codes.first().textContent()) ?? '');
}

const SHOTS: Shot[] = [
  { name: 'floor', path: '/' },
  { name: 'bean-store', path: '/station/beans' },
  { name: 'cut-test', path: '/lot/L006/inspect?step=4', typed: `${' '.repeat(96)}jjjjjjjjkkklsfa${' '.repeat(21)}` },
  { name: 'roast-program', path: '/roasting/program/falling-2' },
  { name: 'roast-live-night', path: '/station/roast', theme: 'night' },
  { name: 'roast-load', path: '/roasting/load/{load}' },
  { name: 'losses', path: '/losses' },
  { name: 'recipe', path: '/recipe/harbour-milk', drag: 6 },
  { name: 'tasting-night', path: '/tasting?code={bars}', theme: 'night', act: melt },
  { name: 'same', path: '/station/taste', act: same, scrollTo: 'Are they the same?' },
  { name: 'grind', path: '/station/grind' },
  { name: 'temper-night', path: '/station/temper', theme: 'night' },
  { name: 'panel', path: '/session/{session}' },
  { name: 'trace', path: '/trace/B055-1' },
  { name: 'orders', path: '/orders' },
  { name: 'matters', path: '/matters' },
  { name: 'practise', path: '/practise' },
  { name: 'phone-guest', path: '/guest/{guest}', size: [390, 844], act: sitDown },
  { name: 'phone-floor', path: '/', theme: 'night', size: [390, 844] },
];

/** Four loads of one fill, the last of them to be judged. */
async function loadCodes(base: string): Promise<string[]> {
  const { loads } = (await (await fetch(`${base}/api/roast/loads?limit=60`)).json()) as { loads: { code: string }[] };
  for (const { code } of loads.slice(12)) {
    const { fill } = (await (await fetch(`${base}/api/roast/loads/${code}`)).json()) as { fill: string[] };
    if (fill.length >= 4) return fill.slice(0, 4);
  }
  return loads.slice(0, 4).map(({ code }) => code);
}

/** Codes and ids that the demo gives: bars on the shelf, a session that was opened and one that runs. */
async function tasted(base: string): Promise<Record<string, string>> {
  const get = async <T>(path: string): Promise<T> => (await (await fetch(base + path)).json()) as T;
  const { sessions } = await get<{ sessions: { id: string; state: string }[] }>('/api/taste/sessions');
  const { subjects } = await get<{ subjects: { code: string | null; what: string }[] }>(
    '/api/taste/subjects?find=70%20g',
  );
  const of = (state: string): string => sessions.find((row) => row.state === state)?.id ?? '';
  return {
    session: of('opened'),
    guest: of('open'),
    bars: subjects.find(({ what }) => what === 'packed bars')?.code ?? '',
  };
}

async function take(base: string): Promise<void> {
  const codes = await loadCodes(base);
  const known: Record<string, string> = { load: codes.at(-1) ?? '', ...(await tasted(base)) };
  const filled = (path: string): string => path.replace(/\{(\w+)\}/g, (_, name: string) => known[name] ?? '');
  const browser = await chromium.launch(CHROMIUM);
  for (const shot of SHOTS) {
    const { name, path, theme = 'day', size = [1280, 800] as const, typed = '', scrollTo } = shot;
    const context = await browser.newContext({ viewport: { width: size[0], height: size[1] } });
    await context.addInitScript((chosen) => {
      localStorage.setItem('wunsch.theme', chosen);
      localStorage.setItem('wunsch.person', 'ilse');
    }, theme);
    const page = await context.newPage();
    await page.goto(base + filled(path));
    await page.getByRole('main').getByRole('heading', { level: 1 }).waitFor();
    if (typed !== '') {
      await page.getByRole('group', { name: /Cut test tally/ }).focus();
      await page.keyboard.type(typed);
    }
    if (shot.press !== undefined) await page.getByRole('button', { name: shot.press }).first().click();
    await shot.act?.(page);
    if (shot.drag !== undefined) {
      await page.getByRole('slider').first().focus();
      for (let i = 0; i < shot.drag; i += 1) await page.keyboard.press('ArrowRight');
    }
    if (scrollTo !== undefined) {
      await page
        .getByRole('heading', { name: scrollTo })
        .evaluate((heading) => window.scrollTo(0, window.scrollY + heading.getBoundingClientRect().top - 160));
    }
    await page.waitForTimeout(900);
    await page.screenshot({ path: join(out, `${name}.png`) });
    process.stdout.write(`${name}\n`);
    await context.close();
  }
  await browser.close();
}

mkdirSync(out, { recursive: true });
const server = await startServer(data, ['--demo']);
try {
  await take(server.base);
} finally {
  await server.stop();
  rmSync(data, { recursive: true, force: true });
}
