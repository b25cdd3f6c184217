import { test as base } from '@playwright/test';
import { turn } from './turn';
import { Workshops, type WorkshopName } from './workshops';

export { expect, type Locator, type Page } from '@playwright/test';

/** A test in one of the workshops, `workshop`; addresses without a host are its own. */
export const test = base.extend<{ workshop: WorkshopName }, { workshops: Workshops }>({
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
  /** Loads the program once; from then on addresses within it are gone to as its own links do. */
  page: async ({ page }, use) => {
    const load = page.goto.bind(page);
    page.goto = async (address, options) => {
      if (!address.startsWith('/') || page.url() === 'about:blank') return load(address, options);
      await turn(page, address);
      return null;
    };
    await use(page);
  },
  baseURL: async ({ workshops, workshop }, use) => use(await workshops.at(workshop)),
});
