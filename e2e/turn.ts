import type { Page } from '@playwright/test';
import { expect } from './expect';

const NOTHING = 'There is nothing at this address.';

/**
 * Goes to a view as a link within the program does: that is loaded once. By way of an address at which nothing is, as the
 * view before stays until the next one is there, and is begun anew where it is the same.
 */
export async function turn(page: Page, view: string): Promise<void> {
  const to = (path: string): Promise<void> =>
    page.evaluate((address) => {
      history.pushState(null, '', address);
      dispatchEvent(new PopStateEvent('popstate'));
    }, path);
  const here = page.getByRole('main');
  await to('/nothing/here');
  await expect(here).toContainText(NOTHING);
  await to(view);
  await expect(here, view).not.toContainText(NOTHING);
  await expect(here, view).not.toContainText('Reading the book');
}
