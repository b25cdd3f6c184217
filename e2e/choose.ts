import type { Locator } from '@playwright/test';

/** Which of a list: by its value, by what it says, or by its place. */
export type Wanted = string | { label: string | RegExp } | { index: number };

/** Opens a list and takes one of it, as a finger does. */
export async function choose(list: Locator, wanted: Wanted): Promise<void> {
  await list.click();
  const options = list.page().getByRole('listbox').getByRole('option');
  if (typeof wanted === 'string') await list.page().locator(`[data-choice="${wanted}"]`).click();
  else if ('index' in wanted) await options.nth(wanted.index).click();
  else if (typeof wanted.label === 'string')
    await options.filter({ has: list.page().getByText(wanted.label, { exact: true }) }).click();
  else await options.filter({ hasText: wanted.label }).first().click();
}
