import { test as base } from '@playwright/test';
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
  baseURL: async ({ workshops, workshop }, use) => use(await workshops.at(workshop)),
});
