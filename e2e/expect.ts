import { expect as plain, type ExpectMatcherState, type Locator } from '@playwright/test';

/**
 * Expectations as they come, but for what is to be seen: the usual one describes the whole page at each look that is in
 * vain, this one only when it has waited in vain.
 */
export const expect = plain.extend({
  async toBeVisible(this: ExpectMatcherState, target: Locator, { timeout }: { timeout?: number } = {}) {
    const kept = { pass: !this.isNot, message: () => '' };
    try {
      await target.waitFor({ state: this.isNot ? 'hidden' : 'visible', timeout: timeout ?? this.timeout });
      return kept;
    } catch {
      const looked = plain(target);
      try {
        await (this.isNot ? looked.not : looked).toBeVisible({ timeout: 1 });
        return kept;
      } catch (error) {
        return { pass: this.isNot, message: () => (error as Error).message };
      }
    }
  },
});
