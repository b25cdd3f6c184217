import type { Browser, BrowserContext, BrowserContextOptions, Page } from '@playwright/test';
import { turn } from './turn';

/** An address of the workshop with next to nothing at it. */
const ASIDE = '/pod.svg';

/**
 * A page that one test after another works on, each on a program loaded anew and with nothing kept in the browser: to open a
 * page takes longer than most do on it.
 */
export class Desk {
  private constructor(
    readonly context: BrowserContext,
    readonly page: Page,
    private readonly options: BrowserContextOptions,
  ) {}

  static async open(browser: Browser, options: BrowserContextOptions): Promise<Desk> {
    const context = await browser.newContext(options);
    return new Desk(context, await context.newPage(), options);
  }

  /** Lets a test work on it, and leaves it as it was. */
  async lend(use: (page: Page) => Promise<void>): Promise<void> {
    const { page } = this;
    const [goto, addInitScript] = [page.goto.bind(page), page.addInitScript.bind(page)];
    const scripts: { dispose: () => Promise<void> }[] = [];
    let isLoaded = false;
    // Loads the program once; from then on addresses within it are gone to as its own links do.
    page.goto = async (address, more) => {
      if (isLoaded && address.startsWith('/')) return turn(page, address).then(() => null);
      isLoaded = true;
      return goto(address, more);
    };
    page.addInitScript = async (...given) => {
      const script = await addInitScript(...given);
      scripts.push(script);
      return script;
    };
    await use(page);
    for (const own of ['goto', 'addInitScript']) Reflect.deleteProperty(page, own);
    for (const script of scripts) await script.dispose();
    for (const other of this.context.pages()) if (other !== page) await other.close();
    await page.removeAllListeners(undefined, { behavior: 'ignoreErrors' });
    await page.unrouteAll({ behavior: 'ignoreErrors' });
    await this.context.setOffline(false);
    if (this.options.viewport) await page.setViewportSize(this.options.viewport);
    await page.goto(ASIDE);
    await page.evaluate(() => {
      localStorage.clear();
      sessionStorage.clear();
    });
  }
}
