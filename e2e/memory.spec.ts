import type { CDPSession } from '@playwright/test';
import { expect, test } from './support/fixtures';

/** What the page holds once the browser has collected what nobody can reach. */
async function heldBy(browser: CDPSession): Promise<{ workers: number; pieces: number; listeners: number }> {
  await browser.send('HeapProfiler.collectGarbage');
  const count = async (prototype: string, counted: string): Promise<number> => {
    const { result } = await browser.send('Runtime.evaluate', { expression: prototype });
    const { objects } = await browser.send('Runtime.queryObjects', { prototypeObjectId: result.objectId ?? '' });
    const { result: counts, exceptionDetails } = await browser.send('Runtime.callFunctionOn', {
      objectId: objects.objectId,
      functionDeclaration: counted,
      returnByValue: true,
    });
    if (exceptionDetails) throw new Error(exceptionDetails.exception?.description);
    await browser.send('Runtime.releaseObject', { objectId: objects.objectId ?? '' });
    return counts.value;
  };
  const { jsEventListeners } = await browser.send('Memory.getDOMCounters');
  return {
    workers: await count('Worker.prototype', 'function () { return this.length }'),
    pieces: await count(
      'Object.prototype',
      "function () { return this.filter((each) => Object.getOwnPropertyDescriptor(each, 'format')?.value === 'arcshift-piece').length }",
    ),
    listeners: jsEventListeners,
  };
}

test('a piece that is opened and closed again and again leaves no piece, no worker and no listener behind', async ({
  page,
  shelf,
}) => {
  const browser = await page.context().newCDPSession(page);
  await browser.send('HeapProfiler.enable');
  await shelf.open();
  const round = async (): Promise<void> => {
    await page.getByRole('link', { name: 'Open Quay Mark' }).click();
    await page.getByRole('region', { name: 'Canvas' }).waitFor();
    await page.goBack();
    await shelf.card('Quay Mark').waitFor();
  };
  for (let i = 0; i < 3; i++) await round();
  const before = await heldBy(browser);
  expect(before.pieces).toBeGreaterThan(0);
  for (let i = 0; i < 6; i++) await round();
  // What moves on a card comes and goes with it.
  await expect
    .poll(async () => {
      const { workers, pieces, listeners } = await heldBy(browser);
      return [workers <= before.workers, pieces <= before.pieces, listeners <= before.listeners];
    })
    .toEqual([true, true, true]);
});
