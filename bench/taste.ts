import { judgePanel } from '@wunsch/core/taste/panel';
import type { PanelScore } from '@wunsch/core/taste/palates';
import { normals, seeded } from '@wunsch/core/stats/chance';
import { framesASecond, longestTask, openBrowser, openPage } from './browser';
import type { Note } from './table';

/** Seconds that the clock of a sheet is watched. */
const WATCHED_S = 6;

/** What a large panel costs, and how smoothly the clock of a sheet runs. */
export async function measureTasting(base: string, note: Note): Promise<void> {
  const normal = normals(seeded(3));
  const scores: PanelScore[] = Array.from({ length: 2000 }, (_, i) => ({
    bar: `${i % 8}`,
    taster: `${Math.floor(i / 8) % 25}`,
    session: `${Math.floor(i / 200)}`,
    place: ((i + Math.floor(i / 8)) % 8) + 1,
    score: Math.max(0, Math.min(10, 6 + normal())),
  }));
  const taken = Array.from({ length: 7 }, () => {
    const began = performance.now();
    judgePanel(scores);
    return performance.now() - began;
  }).sort((a, b) => a - b);
  note('panel of 2,000 scores, median', taken[3] ?? NaN, 300, 'ms');
  const browser = await openBrowser();
  try {
    const page = await openPage(browser);
    await page.goto(`${base}/tasting`);
    await page.getByRole('group', { name: 'What is here' }).getByRole('button').first().click();
    await page.getByRole('button', { name: 'Melt', exact: true }).click();
    await page.getByRole('button', { name: 'It is on the tongue' }).click();
    await longestTask(page);
    note('sheet with its clock, a frame', 1000 / (await framesASecond(page, WATCHED_S)), 1000 / 55, 'ms');
    note('  longest task of its page', await longestTask(page), 50, 'ms');
  } finally {
    await browser.close();
  }
}
