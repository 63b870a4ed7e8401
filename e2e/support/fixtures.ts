import { test as base, expect } from '@playwright/test';
import { MatchPage } from '../pages/match-page';
import { PiecePage } from '../pages/piece-page';
import { ShelfPage } from '../pages/shelf-page';
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

/** Tests with a server of their own; a console error or an uncaught exception on the page fails them. */
export const test = base.extend<Options & Fixtures & { calm: undefined }>({
  ownProcess: [false, { option: true }],
  server: async ({ ownProcess }, use) => {
    const server = ownProcess ? new ServerProcess() : new InnerServer();
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
