import { spawn } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { CHROMIUM } from './chromium';

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
  /** Beans counted on the tally. */
  typed?: string;
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
  { name: 'weighing', path: '/weighing/{weighing}' },
  { name: 'rest', path: '/station/rest', press: 'Taste or plan' },
  { name: 'grind', path: '/station/grind' },
  { name: 'temper-night', path: '/station/temper', theme: 'night' },
  { name: 'foretold-night', path: '/grinding/stone-small', theme: 'night' },
  { name: 'trace', path: '/trace/B055-1' },
  { name: 'orders', path: '/orders' },
  { name: 'store', path: '/store' },
  { name: 'practise', path: '/practise' },
  { name: 'tablet-roast', path: '/station/roast', size: [768, 1024] },
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

/** A weighing with its first ingredient on the scale. */
async function begin(base: string): Promise<string> {
  const post = async <T>(path: string, body: object): Promise<T> =>
    (await (
      await fetch(base + path, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(body),
      })
    ).json()) as T;
  const { id, lines } = await post<{ id: string; lines: { ingredient: string; stock: { code: string }[] }[] }>(
    '/api/recipe/weighings',
    {
      personId: 'ilse',
      recipe: { id: 'dark-fiji', version: 2 },
      name: 'Fiji 68 %',
      machineId: 'stone-small',
      routeId: 'whole-bean',
      stepG: 5,
      lines: [
        { ingredient: 'butter', grams: 235 },
        { ingredient: 'nibs', grams: 4250 },
        { ingredient: 'sugar', grams: 2110 },
      ],
    },
  );
  const butter = lines[0]?.stock.at(-1)?.code ?? '';
  await post(`/api/recipe/weighings/${id}/weighed`, {
    personId: 'ilse',
    ingredient: 'butter',
    code: butter,
    massG: 235,
    by: 'scale',
  });
  await post('/api/devices/scale/place', { massG: 3120 });
  return id;
}

async function take(base: string): Promise<void> {
  const codes = await loadCodes(base);
  const weighing = await begin(base);
  const filled = (path: string): string => path.replace('{load}', codes.at(-1) ?? '').replace('{weighing}', weighing);
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
    if (shot.drag !== undefined) {
      await page.getByRole('slider').first().focus();
      for (let i = 0; i < shot.drag; i += 1) await page.keyboard.press('ArrowRight');
    }
    if (scrollTo !== undefined) {
      await page
        .getByRole('heading', { name: scrollTo })
        .evaluate((heading) => window.scrollTo(0, heading.getBoundingClientRect().top - 160));
    }
    await page.waitForTimeout(900);
    await page.screenshot({ path: join(out, `${name}.png`) });
    process.stdout.write(`${name}\n`);
    await context.close();
  }
  await browser.close();
}

mkdirSync(out, { recursive: true });
const server = spawn(process.execPath, ['server/dist/main.js', '--demo'], {
  cwd: root,
  env: { ...process.env, PORT: '0', WUNSCH_LOG: 'off', WUNSCH_DATA: data },
});
const base = await new Promise<string>((resolve, reject) => {
  let output = '';
  server.stdout.on('data', (chunk: Buffer) => {
    output += chunk.toString();
    const address = /ready at (http:\/\/\S+)/.exec(output)?.[1];
    if (address) resolve(address);
  });
  server.on('exit', () => reject(new Error(output)));
});
try {
  await take(base);
} finally {
  server.removeAllListeners('exit');
  await new Promise((resolve) => {
    server.on('exit', resolve);
    server.kill('SIGTERM');
  });
  rmSync(data, { recursive: true, force: true });
}
