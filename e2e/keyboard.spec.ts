import { stopsOf } from '../core/src/index';
import { expect, test } from './support/fixtures';

test('circle to square and back by keyboard alone, from the shelf to playing, in at most 30 keys', async ({
  page,
  piece,
  shelf,
}) => {
  await shelf.open();
  await expect(page.getByRole('button', { name: 'New piece' })).toBeVisible();
  let count = 0;
  const press = async (...keys: string[]): Promise<void> => {
    for (const key of keys) {
      await page.keyboard.press(key);
      count++;
    }
  };
  const focused = (): Promise<string> =>
    page.evaluate(() => {
      const { activeElement } = document;
      return activeElement?.matches('button') ? (activeElement.textContent ?? '') : '';
    });
  while (!(await focused()).includes('New piece')) {
    await press('Tab');
    expect(count).toBeLessThan(12);
  }
  await press('Enter');
  await piece.rail.waitFor();
  // The tool by its letter, the next kind by the same letter; the marker stands in the middle of the canvas.
  await press('a', 'a');
  await expect(page.getByTestId('said')).toHaveText(/^Ellipse/);
  await expect(piece.canvas).toBeFocused();
  await press('Enter', 'Shift+A', 'Enter');
  await expect(page.getByTestId('drawn')).toContainText('Rectangle became a new figure');
  await press('n', 'b');
  await expect(piece.cards).toHaveCount(3);
  await piece.matched();
  await press('Space');
  await expect(page.getByRole('button', { name: 'Pause', exact: true })).toBeVisible();
  expect(count).toBeLessThanOrEqual(30);
  test.info().annotations.push({ type: 'keys', description: String(count) });
  const stored = await piece.stored();
  const figure = stored.figures[stored.figureOrder[0]];
  expect(stopsOf(stored, figure).map((id) => stored.parts[stored.poses[id].parts[0]].source?.kind)).toEqual([
    'ellipse',
    'rectangle',
    'ellipse',
  ]);
});

test('Tab reaches the canvas; a shape is put down, moved, sized and edited by keys, and what happened is said', async ({
  page,
  piece,
  shelf,
}) => {
  await shelf.open();
  await shelf.newPiece();
  const said = page.getByTestId('said');
  for (let i = 0; i < 60 && !(await piece.canvas.evaluate((pane) => pane === document.activeElement)); i++)
    await page.keyboard.press('Tab');
  await expect(piece.canvas).toBeFocused();
  await expect(said).toHaveText('320, 320');
  await page.keyboard.press('a');
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('Enter');
  await expect(said).toHaveText('Draw Rectangle.');
  // The selecting tool takes hold of it where the marker stands.
  await page.keyboard.press('s');
  await page.keyboard.press('Shift+Enter');
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('Enter');
  await expect(said).toHaveText(/^Move Rectangle/);
  await page.keyboard.press('PageUp');
  while (!((await said.textContent()) ?? '').startsWith('Corner at the bottom right'))
    await page.keyboard.press('PageUp');
  await page.keyboard.press('Shift+Enter');
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('Enter');
  // An adjustable shape has a handle of its own there.
  await expect(said).toHaveText('Size.');
  await page.keyboard.press('ControlOrMeta+z');
  await page.keyboard.press('ControlOrMeta+z');
  const stored = await piece.stored();
  const [part] = Object.values(stored.parts);
  expect(part.contours[0].anchors.map(({ at }) => at[0]).sort((p, q) => p - q)[0]).toBeCloseTo(310 - 128, 3);

  // A pen stroke, closed at its first point; then one of its points is moved.
  await page.keyboard.press('d');
  for (const key of ['Home', 'Enter', 'Shift+ArrowRight', 'Enter', 'Shift+ArrowDown', 'Enter', 'PageDown', 'Enter'])
    await page.keyboard.press(key);
  await expect(said).toHaveText('Draw Outline.');
  await page.keyboard.press('p');
  await page.keyboard.press('Shift+Enter');
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('Enter');
  const drawn = Object.values((await piece.stored()).parts).find(({ name }) => name === 'Outline');
  expect(drawn?.contours[0].anchors.map(({ at }) => at)).toEqual([
    [320, 310],
    [370, 320],
    [370, 370],
  ]);
  // With the mouse the marker is out of the way, and the arrow keys step frames again.
  await piece.canvas.hover({ position: { x: 40, y: 40 } });
  await piece.canvas.hover({ position: { x: 80, y: 60 } });
  await page.keyboard.press('t');
  await page.keyboard.press('Enter');
  await expect(page.locator('textarea')).toBeFocused();
});
