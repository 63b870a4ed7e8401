import type { Page } from '@playwright/test';
import { expect, test } from './support/fixtures';
import { svg } from './support/match-pieces';

const steps = async (page: Page): Promise<string[]> => {
  await page.getByRole('button', { name: 'History' }).click();
  const names = await page.locator('.piece-history .dropdown-item').allTextContents();
  // By its button: Escape would also let the selection go.
  await page.getByRole('button', { name: 'History' }).click();
  return names;
};

test('dragging through forty colours is one step; undo brings the first colour back, and opacity can be chosen', async ({
  piece,
  page,
}) => {
  await piece.open('demo-quay-mark');
  await piece.matched();
  await page.getByRole('button', { name: /^Pose 2/ }).click();
  await page.getByRole('tab', { name: 'Paint' }).click();
  const before = (await steps(page)).length;
  await page.getByRole('button', { name: /^Hull, / }).click();
  const field = page.getByRole('slider', { name: 'Color' });
  const box = await field.boundingBox();
  if (!box) throw new Error('There is no field of colours.');
  await page.mouse.move(box.x + 20, box.y + 20);
  await page.mouse.down();
  for (let i = 0; i < 40; i++) await page.mouse.move(box.x + 20 + 3 * i, box.y + 20 + 2 * i);
  await page.mouse.up();
  // Colours are no outlines: nothing is matched anew.
  expect(await page.locator('[aria-label*="being matched"]').count()).toBe(0);
  await page.getByRole('slider', { name: 'Alpha' }).focus();
  // Without waiting for each: a rest of a second between two would be two steps.
  await Promise.all(Array.from({ length: 5 }, () => page.keyboard.press('ArrowLeft')));
  await page.keyboard.press('Escape');
  await expect(page.getByLabel('Hull as text')).toHaveValue(/^rgb\(.* \/ 0\.\d+\)$/);
  expect((await steps(page)).length).toBe(before + 2);
  for (let i = 0; i < 2; i++) await page.keyboard.press('ControlOrMeta+z');
  await expect(page.getByLabel('Hull as text')).toHaveValue('#17324d');
});

test('a number stepped with the arrow keys is one step', async ({ piece, page }) => {
  await piece.open('demo-boarding-button');
  await piece.selectShift(0);
  const before = (await steps(page)).length;
  const duration = page.getByLabel('Duration', { exact: true });
  await duration.focus();
  await Promise.all(Array.from({ length: 8 }, () => page.keyboard.press('ArrowUp')));
  await duration.blur();
  expect((await steps(page)).length).toBe(before + 1);
});

test('figures are put in another order by dragging and by keyboard, and undone', async ({ piece, page }) => {
  await piece.open('demo-pier-letters');
  const names = (): Promise<string[]> =>
    piece.figures.evaluateAll((rows) =>
      rows.map((row) => (row.getAttribute('aria-label') ?? '').replace('Figure ', '')),
    );
  const before = await names();
  expect(before).toHaveLength(3);
  const grip = (name: string) => page.getByRole('button', { name: `Move ${name}`, exact: true });
  const from = await grip(before[0]).boundingBox();
  const to = await grip(before[2]).boundingBox();
  if (!from || !to) throw new Error('The rows are not there.');
  await page.mouse.move(from.x + 8, from.y + 12);
  await page.mouse.down();
  await page.mouse.move(from.x + 10, from.y + 30, { steps: 4 });
  await page.mouse.move(to.x + 10, to.y + 16, { steps: 8 });
  await page.mouse.up();
  await expect.poll(names).toEqual([before[1], before[2], before[0]]);
  await page.keyboard.press('ControlOrMeta+z');
  await expect.poll(names).toEqual(before);
  // The same without a pointer: taken, moved and put down.
  await grip(before[2]).focus();
  const spoken = (text: string) => expect(page.getByText(text, { exact: true })).toBeAttached();
  await page.keyboard.press('Space');
  await spoken(`${before[2]} is over place 3.`);
  await page.keyboard.press('ArrowUp');
  await spoken(`${before[2]} is over place 2.`);
  await page.keyboard.press('Space');
  await spoken(`${before[2]} put at place 2.`);
  await expect.poll(names).toEqual([before[0], before[2], before[1]]);
  const stored = await piece.stored();
  expect([...stored.figureOrder].reverse().map((id) => stored.figures[id].name)).toEqual([
    before[0],
    before[2],
    before[1],
  ]);
});

test('tabs are walked with the arrow keys; the columns keep the width they were given', async ({ piece, page }) => {
  await piece.open('demo-quay-mark');
  await page.getByRole('button', { name: /^Pose 1/ }).click();
  await page.getByRole('tab', { name: 'Pose' }).focus();
  for (const name of ['Outline', 'Paint', 'Arrange', 'Pose']) {
    await page.keyboard.press('ArrowRight');
    await expect(page.getByRole('tab', { name })).toHaveAttribute('aria-selected', 'true');
  }
  const width = async (): Promise<number> => Math.round((await page.locator('.details').boundingBox())?.width ?? 0);
  const before = await width();
  const edge = await page.getByRole('separator', { name: 'Width of the details' }).boundingBox();
  if (!edge) throw new Error('The column has no edge.');
  await page.mouse.move(edge.x, edge.y + 200);
  await page.mouse.down();
  await page.mouse.move(edge.x + 30, edge.y + 200, { steps: 6 });
  await page.mouse.up();
  await expect.poll(width).toBeLessThan(before - 20);
  const after = await width();
  await page.reload();
  await piece.rail.waitFor();
  await expect.poll(width).toBe(after);
});

test('an output can be cancelled and made again; another option makes it without matching anew', async ({
  piece,
  page,
}) => {
  await piece.open('demo-pier-letters', 'output');
  const size = page.getByTestId('output-size');
  await expect(size).toContainText('KB');
  const first = await size.textContent();
  await page.getByText('3', { exact: true }).click();
  await expect(size).not.toHaveText(first ?? '');
  await expect(size).toContainText('KB');
  await page.reload();
  // What was chosen is chosen again.
  await expect(page.getByRole('radio', { name: '3' })).toBeChecked();
  const heavy = Array.from({ length: 8 }, (_, i) => ({
    name: `Ring ${i}.svg`,
    text: svg(
      Array.from({ length: 5 }, (_u, k) => `M${10 + 16 * k} ${10 + 5 * ((i + k) % 7)}h12v${12 + i}h-12z`).join(''),
    ),
  }));
  await piece.open('demo-gate');
  const cards = await piece.cards.count();
  await piece.drop(heavy);
  await expect(piece.cards).toHaveCount(cards + heavy.length);
  await page.getByRole('link', { name: 'Output' }).click();
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByText('Nothing was made.')).toBeVisible();
  await page.getByRole('button', { name: 'Make the file' }).click();
  await expect(size).toContainText('KB', { timeout: 60_000 });
});
