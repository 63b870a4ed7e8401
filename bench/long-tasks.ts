import { type Browser, chromium, type Page } from 'playwright-core';
import { chromiumPath } from '../scripts/chromium.mjs';

/** A page that remembers its long tasks: those over 50 ms, as the browser's Long Tasks interface tells them. */
export class WatchedPage {
  private constructor(
    private readonly browser: Browser,
    readonly page: Page,
  ) {}

  static async open(): Promise<WatchedPage> {
    const browser = await chromium.launch({
      executablePath: chromiumPath(),
      args: ['--headless', '--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run'],
    });
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.addInitScript(() => {
      const tasks: number[] = [];
      Object.assign(window, { longTasks: tasks });
      new PerformanceObserver((list) => {
        for (const { duration } of list.getEntries()) tasks.push(Math.round(duration));
      }).observe({ type: 'longtask', buffered: true });
    });
    return new WatchedPage(browser, page);
  }

  /** Forgets what was so far. */
  async forget(): Promise<void> {
    await this.page.evaluate(() => {
      (window as unknown as { longTasks: number[] }).longTasks.length = 0;
    });
  }

  /** Durations of the long tasks since then, ms. */
  longTasks(): Promise<readonly number[]> {
    return this.page.evaluate(() => (window as unknown as { longTasks: number[] }).longTasks);
  }

  close(): Promise<void> {
    return this.browser.close();
  }
}
