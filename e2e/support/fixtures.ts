import { test as base, expect } from '@playwright/test';
import { MatchPage } from '../pages/match-page';
import { PiecePage } from '../pages/piece-page';
import { ShelfPage } from '../pages/shelf-page';
import { freePort, KeptPages } from './kept-page';
import { InnerServer, ServerProcess, type TestServer } from './server';

interface Options {
  /** Is the server a process of its own, as one that is started from a terminal? */
  ownProcess: boolean;
}
interface Fixtures {
  server: TestServer;
  shelf: ShelfPage;
  piece: PiecePage;
  match: MatchPage;
}

interface WorkerFixtures {
  kept: KeptPages;
}

/** Tests with a server of their own; a console error or an uncaught exception on the page fails them. */
export const test = base.extend<Options & Fixtures & { calm: undefined }, WorkerFixtures>({
  ownProcess: [false, { option: true }],
  kept: [
    async ({ browser }, use) => {
      const kept = new KeptPages(browser, await freePort());
      await use(kept);
      await kept.close();
    },
    { scope: 'worker' },
  ],
  page: async ({ kept, viewport, contextOptions, bypassCSP, actionTimeout }, use) => {
    const mine = kept.of({ viewport, bypassCSP, colorScheme: 'light', ...contextOptions });
    await use(await mine.take(actionTimeout));
    await mine.giveBack();
  },
  context: async ({ page }, use) => use(page.context()),
  server: async ({ ownProcess, kept }, use) => {
    const server = ownProcess ? new ServerProcess(kept.port) : new InnerServer(kept.port);
    await server.start({ demo: true });
    await use(server);
    await server.dispose();
  },
  calm: [
    async ({ page }, use) => {
      const noise: string[] = [];
      page.on('pageerror', (error) => noise.push(error.message));
      page.on('console', (message) => {
        // The browser itself reports refused requests; the tests cause those on purpose.
        if (message.type() === 'error' && !/Failed to load resource|ERR_CONNECTION/.test(message.text()))
          noise.push(message.text());
      });
      await use(undefined);
      expect(noise).toEqual([]);
    },
    { auto: true },
  ],
  shelf: async ({ page, server }, use) => use(new ShelfPage(page, server)),
  piece: async ({ page, server }, use) => use(new PiecePage(page, server)),
  match: async ({ page }, use) => use(new MatchPage(page)),
});
export { expect };
