import type { Locator, Page } from '@playwright/test';
import { expect } from './expect';

/**
 * How many presses of Tab lie between the focus and an element, as the page is now; below zero with Shift held, one where it
 * cannot be said.
 */
function tabsTo(wanted: Element): number {
  const active = document.activeElement;
  if (wanted === active) return 0;
  const stops = [
    ...document.querySelectorAll<HTMLElement>('a[href], button, input, select, textarea, [tabindex]'),
  ].filter((element) => element.tabIndex >= 0 && !element.matches(':disabled') && element.checkVisibility());
  const nowhere = active === null || active === document.body;
  const [from, to] = [nowhere ? -1 : stops.indexOf(active as HTMLElement), stops.indexOf(wanted as HTMLElement)];
  return to < 0 || (from < 0 && !nowhere) ? 1 : to - from;
}

/** Hands that never touch a mouse. */
export class Keyboard {
  constructor(readonly page: Page) {}

  press(key: string): Promise<void> {
    return this.page.keyboard.press(key);
  }

  /** Tabs until something has the focus, as a person would: back where it lies behind. */
  async reach(target: Locator): Promise<void> {
    await expect(target).toBeVisible();
    for (let pressed = 0; pressed < 160;) {
      const far = await target.evaluate(tabsTo);
      if (far === 0) return;
      // What is on the way may come and go: where that many presses led is looked at again.
      const key = far > 0 ? 'Tab' : 'Shift+Tab';
      const presses = Array.from({ length: Math.abs(far) }, () => this.page.keyboard.press(key));
      await Promise.all(presses);
      pressed += presses.length;
    }
    throw new Error(`the keyboard does not reach ${String(target)}`);
  }

  async push(target: Locator, key = 'Enter'): Promise<void> {
    await this.reach(target);
    await this.page.keyboard.press(key);
  }

  async fill(label: string | RegExp, text: string, within: Locator | Page = this.page): Promise<void> {
    const field = within.getByLabel(label, typeof label === 'string' ? { exact: true } : {}).first();
    await this.reach(field);
    await this.page.keyboard.press('Control+A');
    await this.page.keyboard.type(text);
  }

  /** One of a list, found by typing. */
  async choose(label: string, text: string): Promise<void> {
    await this.fill(label, text);
    await expect(this.page.getByRole('option', { selected: true })).toContainText(text);
    await this.page.keyboard.press('Enter');
    await expect(this.page.getByLabel(label, { exact: true })).toContainText(text);
  }

  button(name: string | RegExp): Locator {
    return this.page.getByRole('button', { name, ...(typeof name === 'string' ? { exact: true } : {}) }).first();
  }

  /** A station by its digit. */
  async station(digit: string, title: string): Promise<void> {
    await this.page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    await this.page.keyboard.press(digit);
    await expect(this.page.getByRole('heading', { level: 1, name: title })).toBeVisible();
  }
}
