import { chromium, type Browser, type Page } from '@playwright/test';
import { CHROMIUM } from '../e2e/chromium';

export const openBrowser = (): Promise<Browser> => chromium.launch(CHROMIUM);

/** A page that notes every stretch in which it answered nobody. */
export async function openPage(browser: Browser): Promise<Page> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  await context.addInitScript(() => {
    localStorage.setItem('wunsch.person', 'ilse');
    const seen: number[] = [];
    Object.assign(window, { longTasks: seen });
    new PerformanceObserver((list) => seen.push(...list.getEntries().map(({ duration }) => duration))).observe({
      type: 'longtask',
      buffered: true,
    });
  });
  return context.newPage();
}

/** Milliseconds of everything that the page timed under a name, in order. */
export const timings = (page: Page, name: string): Promise<number[]> =>
  page.evaluate((asked) => performance.getEntriesByName(asked).map(({ duration }) => duration), name);

/** The longest task since the last look, ms; 0 where none was over 50. */
export const longestTask = (page: Page): Promise<number> =>
  page.evaluate(() => {
    const seen = (window as unknown as { longTasks: number[] }).longTasks;
    const longest = Math.max(0, ...seen);
    seen.length = 0;
    return longest;
  });

/** Frames that a page draws in a second, watched for so many. As text: what is compiled for here would look for helpers that no page has. */
export const framesASecond = (page: Page, seconds: number): Promise<number> =>
  page.evaluate<number>(`new Promise((resolve) => {
    let count = 0;
    const began = performance.now();
    const turn = () => {
      count += 1;
      const passed = (performance.now() - began) / 1000;
      if (passed >= ${seconds}) resolve(count / passed);
      else requestAnimationFrame(turn);
    };
    requestAnimationFrame(turn);
  })`);
