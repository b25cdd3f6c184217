import { test as base, type BrowserContextOptions } from '@playwright/test';
import { Desk } from './desk';
import { Workshops, type WorkshopName } from './workshops';

export type { Locator, Page } from '@playwright/test';
export { expect } from './expect';

interface OfWorker {
  workshops: Workshops;
  /** By how they were opened. */
  desks: Map<string, Desk>;
}

/** A test in one of the workshops, `workshop`; addresses without a host are its own. */
export const test = base.extend<{ workshop: WorkshopName; desk: Desk }, OfWorker>({
  workshop: ['makers', { option: true }],
  workshops: [
    // oxlint-disable-next-line no-empty-pattern -- asked for in this form
    async ({}, use) => {
      const workshops = new Workshops();
      await use(workshops);
      workshops.close();
    },
    { scope: 'worker' },
  ],
  desks: [
    // oxlint-disable-next-line no-empty-pattern -- asked for in this form
    async ({}, use) => use(new Map()),
    { scope: 'worker' },
  ],
  desk: async ({ browser, desks, baseURL, locale, viewport }, use, info) => {
    const options = { baseURL, locale, viewport } as BrowserContextOptions;
    const key = JSON.stringify(options);
    const desk = desks.get(key) ?? (await Desk.open(browser, options));
    desks.delete(key);
    await use(desk);
    // One on which something went wrong is not used again.
    if (info.status === info.expectedStatus) desks.set(key, desk);
    else await desk.context.close();
  },
  context: ({ desk }, use) => use(desk.context),
  page: ({ desk }, use) => desk.lend(use),
  baseURL: async ({ workshops, workshop }, use) => use(await workshops.at(workshop)),
});
