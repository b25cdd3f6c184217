import { judgePour } from '@wunsch/core/temper/judge';
import { simulatedPourC } from '@wunsch/core/temper/simulated-pour';
import { USUAL_WINDOWS } from '@wunsch/core/temper/windows';
import { framesASecond, longestTask, openBrowser, openPage } from './browser';
import type { Note } from './table';

/** Seconds that the trainer is watched. */
const WATCHED_S = 8;

/** What judging a curve of two hours costs, and how smoothly a bowl is practised with. */
export async function measureTempering(base: string, note: Note): Promise<void> {
  const windows = USUAL_WINDOWS.dark;
  const readings = Array.from({ length: 7200 }, (_, second) => ({
    second,
    tempC: simulatedPourC(second, windows, false, 3),
  }));
  const taken = Array.from({ length: 15 }, () => {
    const began = performance.now();
    judgePour(readings, { windows, seeded: false });
    return performance.now() - began;
  }).sort((a, b) => a - b);
  note('judge of a pour of 7,200 readings, median', taken[7] ?? NaN, 50, 'ms');
  const browser = await openBrowser();
  try {
    const page = await openPage(browser);
    await page.goto(`${base}/practise`);
    await page.getByRole('button', { name: '60×', exact: true }).click();
    await page.getByRole('button', { name: 'Begin', exact: true }).click();
    await page.locator('.apexcharts-svg').waitFor();
    await page.waitForTimeout(1500);
    await longestTask(page);
    const frames = await framesASecond(page, WATCHED_S);
    // Fewer milliseconds a frame are more frames a second: thirty take 33.3.
    note('trainer at sixty times the clock, a frame', 1000 / frames, 1000 / 30, 'ms');
    note('  longest task of its page', await longestTask(page), 50, 'ms');
  } finally {
    await browser.close();
  }
}
