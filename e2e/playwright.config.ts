import { defineConfig } from '@playwright/test';
import { chromiumOptions } from '../scripts/chromium.mjs';

/** Drives the built application in Chromium. Every test starts a server of its own, so they may run side by side. */
export default defineConfig({
  testDir: '.',
  outputDir: '../test-results/e2e',
  /* A loaded machine with two cores takes three times as long as a free one: the longest test needs 30 s on a free one. */
  timeout: 180_000,
  expect: { timeout: 20_000 },
  /* The built server is loaded into the tests as it is. */
  build: { external: ['**/build/server/**'] },
  fullyParallel: true,
  /* One more than cores: a test waits for its page now and then. */
  workers: 3,
  retries: 0,
  reporter: [['list'], ['json', { outputFile: '../test-results/e2e.json' }]],
  use: {
    actionTimeout: 40_000,
    viewport: { width: 1280, height: 800 },
    /* Nothing moves for its own sake: tests that are about motion ask for it. */
    contextOptions: { reducedMotion: 'reduce' },
    launchOptions: chromiumOptions(),
  },
});
