import fs from 'node:fs';
import type { Page } from '@playwright/test';
import { expect, test } from './support/fixtures';

/** Files that were made, and those that are being made, outlive a reload, the tab and the server: in the page's own words. */

const jobs = (page: Page) => page.getByTestId('output-job');
const make = (page: Page): Promise<void> => page.getByRole('button', { name: 'Make and prove' }).click();
const form = (page: Page, name: string): Promise<void> => page.getByRole('button', { name, exact: true }).click();
const proved = (page: Page) => jobs(page).first().getByRole('button', { name: 'Proved' });

async function downloaded(page: Page): Promise<Buffer> {
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    jobs(page)
      .first()
      .getByRole('link', { name: /^Download/ })
      .click(),
  ]);
  return fs.readFileSync(await download.path());
}

test('a file that was made is there after a reload, with its size, its proof and its pictures, until it is thrown away', async ({
  piece,
  page,
}) => {
  await piece.open('demo-quay-mark', 'output');
  await form(page, 'GIF');
  await make(page);
  await expect(proved(page)).toBeVisible({ timeout: 90_000 });
  const before = await downloaded(page);
  await expect(jobs(page).first()).not.toContainText('only in this tab');
  await page.reload();
  await expect(page.getByRole('region', { name: 'Files of Quay Mark' })).toContainText(/1 file, [\d.]+ (bytes|KB|MB)/);
  expect(await downloaded(page)).toEqual(before);
  await proved(page).click();
  const worst = page.getByRole('img', { name: 'The file at that moment' });
  await expect(worst).toBeVisible();
  expect(await worst.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBeGreaterThan(0);
  await piece.open('demo-gate', 'output');
  await expect(page.getByRole('region', { name: 'Files of Quay Mark' })).toContainText('GIF');
  await page.getByRole('button', { name: 'Delete all files of Quay Mark' }).click();
  await expect(page.getByRole('alert')).toContainText('This cannot be undone.');
  await page.getByRole('button', { name: 'Delete it' }).click();
  await expect(jobs(page)).toHaveCount(0);
  await page.reload();
  await expect(page.getByText('What you make is listed here')).toContainText('Files are kept for 30 days.');
});

test('a queue at work is told on the shelf, and goes on in another tab where this one was closed', async ({
  piece,
  page,
  server,
  context,
}) => {
  await piece.open('demo-deckhand', 'output');
  await form(page, 'MP4');
  await make(page);
  await form(page, 'Lottie');
  await make(page);
  await page.getByRole('link', { name: 'To the shelf' }).click();
  const work = page.getByTestId('outputs-at-work');
  await expect(work).toContainText('Making MP4 of Deckhand');
  await expect(work).toContainText('one more waits');
  await expect(jobs(page)).toHaveCount(0);
  const next = await context.newPage();
  await page.close();
  await next.goto(server.url);
  await expect(next.getByTestId('outputs-at-work')).toContainText('Making MP4 of Deckhand');
  await next.getByTestId('outputs-at-work').getByRole('link', { name: 'Deckhand' }).click();
  await jobs(next).last().getByRole('button', { name: 'Cancel MP4' }).click();
  await expect(jobs(next).last()).toContainText('cancelled, nothing was made');
  await expect(jobs(next).first().getByRole('button', { name: 'Proved' })).toBeVisible({ timeout: 90_000 });
});

test.describe('with a server that is killed', () => {
  test.use({ ownProcess: true });

  test('a file that is made meanwhile says that it is in this tab only, and is kept when the server is there again', async ({
    piece,
    page,
    server,
  }) => {
    await piece.open('demo-gate', 'output');
    await form(page, 'Animated SVG');
    await make(page);
    await expect(proved(page)).toBeVisible({ timeout: 90_000 });
    await server.kill();
    await form(page, 'Path data by frame');
    await make(page);
    await expect(jobs(page)).toHaveCount(2);
    await expect(jobs(page).first()).toContainText('only in this tab so far: The server does not answer.');
    await expect(proved(page)).toBeVisible({ timeout: 90_000 });
    let asked = 0;
    page.on('dialog', (dialog) => {
      asked++;
      void dialog.dismiss();
    });
    await page.close({ runBeforeUnload: true });
    await expect.poll(() => asked).toBe(1);
    await server.start();
    await expect(jobs(page).first()).not.toContainText('only in this tab', { timeout: 30_000 });
    await page.reload();
    await expect(proved(page)).toBeVisible();
  });
});
