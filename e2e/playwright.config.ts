import { defineConfig } from '@playwright/test';

/** Drives the built application in Debian's Chromium. Every test starts a server of its own, so they may run side by side. */
export default defineConfig({
  testDir: '.',
  outputDir: '../test-results/e2e',
  /* A loaded machine with two cores takes three times as long as a free one: the longest test needs 30 s on a free one. */
  timeout: 180_000,
  expect: { timeout: 20_000 },
  /* The built server is loaded into the tests as it is. */
  build: { external: ['**/build/server/**'] },
  fullyParallel: true,
  workers: 2,
  retries: 0,
  reporter: [['list'], ['json', { outputFile: '../test-results/e2e.json' }]],
  use: {
    actionTimeout: 40_000,
    viewport: { width: 1280, height: 800 },
    /* Nothing moves for its own sake: tests that are about motion ask for it. */
    contextOptions: { reducedMotion: 'reduce' },
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
      args: [
        '--headless',
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
});
