import { gzipSync } from 'node:zlib';
import type { Response } from '@playwright/test';
import { expect, test } from './support/fixtures';

/** JavaScript that the first screen may load, gzipped. */
const MOST_BYTES = 250_000;

test('the shelf loads little: no room, and nothing of the matching engine on the page itself', async ({
  page,
  shelf,
  server,
}) => {
  const scripts: Promise<{ url: string; text: string }>[] = [];
  const collect = (response: Response): void => {
    if (response.url().endsWith('.js') && response.request().resourceType() === 'script')
      scripts.push(response.text().then((text) => ({ url: response.url(), text })));
  };
  page.on('response', collect);
  await shelf.open();
  await expect(page.getByRole('article')).toHaveCount(8);
  // The first screen stands; what is fetched ahead comes after it.
  page.off('response', collect);
  const loaded = (await Promise.all(scripts)).filter(({ url }) => !url.includes('-worker-'));
  expect(loaded.length).toBeGreaterThan(1);
  const bytes = loaded.reduce((sum, { text }) => sum + gzipSync(text).length, 0);
  expect(bytes).toBeGreaterThan(50_000);
  expect(bytes).toBeLessThanOrEqual(MOST_BYTES);
  // A sentence that only the matcher can say; the worker has it.
  const SENTENCE = 'is run backwards: your choice';
  expect(loaded.filter(({ text }) => text.includes(SENTENCE)).map(({ url }) => url)).toEqual([]);
  const html = await (await page.request.get(server.url)).text();
  expect(html).not.toContain('rooms-');
});
