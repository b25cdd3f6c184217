import { chromium, type Browser, type Page } from '@playwright/test';

/** A browser that measures: longest stretch in which the page answered nobody, and what the page timed itself. */
export async function openBrowser(): Promise<Browser> {
  return chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
    ],
  });
}

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
