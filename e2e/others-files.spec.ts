import fs from 'node:fs';
import { fileURLToPath } from 'node:url';
import { expect, test } from '@playwright/test';
import { builtScript } from './support/built-script';
import { shareOfDifferentPixels } from './support/pixels';

/** A Lottie file by another program, out of the tests of lottie-web 5, is read and held against that player's own frames. */
const PACKAGE = fileURLToPath(new URL('../node_modules/lottie-web/', import.meta.url));

interface Page {
  loadFile(text: string): { readonly length: number; readonly refused?: string };
  showAt(seconds: number): void;
}

test('a Lottie file by another program looks as in its usual player, at six moments, within 2 % of the inked pixels', async ({
  page,
}) => {
  const text = fs.readFileSync(`${PACKAGE}test/animations/adrock.json`, 'utf8');
  const { w, h } = JSON.parse(text);
  await page.setViewportSize({ width: 2 * w, height: h });
  await page.setContent(
    '<style>body{margin:0;display:flex;background:#fff}svg,canvas{display:block;flex:none}</style><body></body>',
  );
  await page.addScriptTag({ content: await builtScript('./picture-page.ts') });
  await page.addScriptTag({ path: `${PACKAGE}build/player/lottie.js` });
  const { length, refused } = await page.evaluate((file) => (window as unknown as Page).loadFile(file), text);
  expect(refused).toBeUndefined();
  for (const share of [0.1, 0.26, 0.42, 0.58, 0.74, 0.9]) {
    await page.evaluate((seconds) => (window as unknown as Page).showAt(seconds), share * length);
    // Edges are drawn otherwise by each: four pixels are looked at as one.
    const { share: different, inked } = await shareOfDifferentPixels(page, await page.screenshot(), null, 6, 2);
    expect(inked).toBeGreaterThan(500);
    expect([share, different < 0.02]).toEqual([share, true]);
  }
});
