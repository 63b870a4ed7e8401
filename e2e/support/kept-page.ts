import net from 'node:net';
import type { Browser, BrowserContext, BrowserContextOptions, Page } from '@playwright/test';

/** Where a page waits between two tests: on the address of the application, so that the browser keeps its process and the code it has compiled. */
const WAITING = '/between-tests';
/** What the application says of itself too: with other headers the browser begins a new process. */
const SAME_PROCESS = {
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-embedder-policy': 'require-corp',
  'origin-agent-cluster': '?1',
};

/** Plans by the content that they were made of: what is kept of them changes no answer, and making them again takes longer than most tests. */
const PLANS = 'arcshift-plans';
/** All stores of an origin but its databases, as the browser's protocol names them. */
const OTHER_STORES =
  'cookies,file_systems,local_storage,shader_cache,websql,service_workers,cache_storage,storage_buckets';

/** A port that nobody has. */
export async function freePort(): Promise<number> {
  const probe = net.createServer();
  await new Promise<void>((resolve) => probe.listen(0, '127.0.0.1', resolve));
  const { port } = probe.address() as net.AddressInfo;
  await new Promise((resolve) => probe.close(resolve));
  return port;
}

/** The pages of a worker, one for each set of options that its tests ask for, and the port on which its servers start one after another. */
export class KeptPages {
  private readonly pages = new Map<string, KeptPage>();

  constructor(
    private readonly browser: Browser,
    readonly port: number,
  ) {}

  of(options: BrowserContextOptions): KeptPage {
    const key = JSON.stringify(options);
    let page = this.pages.get(key);
    if (!page) {
      page = new KeptPage(this.browser, this.port, options);
      this.pages.set(key, page);
    }
    return page;
  }

  async close(): Promise<void> {
    for (const page of this.pages.values()) await page.close();
  }
}

/**
 * One page for many tests: to load the application into a new one takes longer than most tests.
 * Nothing of a test is left for the next but plans that were made: neither what is stored nor routes, rights, listeners, sizes or other pages.
 */
class KeptPage {
  private context: BrowserContext | null = null;
  private page: Page | null = null;
  /** Has the test added what only ends with the page? */
  private changedForGood = false;

  constructor(
    private readonly browser: Browser,
    private readonly port: number,
    private readonly options: BrowserContextOptions,
  ) {}

  async take(actionTimeout: number | undefined): Promise<Page> {
    this.context ??= await this.browser.newContext(this.options);
    if (actionTimeout) this.context.setDefaultTimeout(actionTimeout);
    this.page ??= this.watched(await this.context.newPage());
    return this.page;
  }

  /** Empties the page and its store; a page that was changed for good is closed instead. */
  async giveBack(): Promise<void> {
    const { context, page } = this;
    if (!context || !page) return;
    for (const other of context.pages()) if (other !== page) await other.close();
    if (page.isClosed()) {
      this.page = null;
      this.changedForGood = false;
      return;
    }
    for (const event of ['console', 'pageerror', 'dialog', 'request', 'response', 'download'] as const)
      page.removeAllListeners(event);
    await page.unrouteAll({ behavior: 'ignoreErrors' });
    await context.setOffline(false);
    await context.clearPermissions();
    await this.forget(page);
    if (this.changedForGood) {
      await page.close();
      this.page = null;
      this.changedForGood = false;
      return;
    }
    await page.emulateMedia({
      media: null,
      colorScheme: this.options.colorScheme ?? null,
      reducedMotion: this.options.reducedMotion ?? null,
      forcedColors: null,
    });
    if (this.options.viewport) await page.setViewportSize(this.options.viewport);
    await page.mouse.move(0, 0);
  }

  async close(): Promise<void> {
    await this.context?.close();
  }

  /** Scripts and functions that a test adds stay for as long as the page does. */
  private watched(page: Page): Page {
    const { addInitScript, exposeFunction } = page;
    page.addInitScript = (...args: Parameters<Page['addInitScript']>) => {
      this.changedForGood = true;
      return addInitScript.apply(page, args);
    };
    page.exposeFunction = (...args) => {
      this.changedForGood = true;
      return exposeFunction.apply(page, args);
    };
    return page;
  }

  private async forget(page: Page): Promise<void> {
    const origin = `http://127.0.0.1:${this.port}`;
    await page.route(`**${WAITING}`, (route) =>
      route.fulfill({ contentType: 'text/html', headers: SAME_PROCESS, body: '<title>…</title>' }),
    );
    await page.goto(origin + WAITING);
    // A script of a test may have taken the databases away: then all goes at once below.
    const whole = this.changedForGood;
    await page.evaluate(
      async (plans) => {
        sessionStorage.clear();
        window.name = '';
        if (plans === '') return;
        for (const { name } of await indexedDB.databases()) {
          if (!name || name === plans) continue;
          await new Promise((resolve, reject) => {
            const gone = indexedDB.deleteDatabase(name);
            gone.onsuccess = resolve;
            gone.onerror = reject;
          });
        }
      },
      whole ? '' : PLANS,
    );
    const browser = await page.context().newCDPSession(page);
    await browser.send('Storage.clearDataForOrigin', { origin, storageTypes: whole ? 'all' : OTHER_STORES });
    await browser.detach();
    await page.unrouteAll({ behavior: 'ignoreErrors' });
  }
}
