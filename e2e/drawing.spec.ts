import { expect, test } from './support/fixtures';

test('a beginner draws an ellipse and a rectangle, makes the one the next pose of the other on the bar, and it moves', async ({
  page,
  shelf,
  piece,
}) => {
  await shelf.open();
  await shelf.newPiece();
  await page.getByRole('button', { name: 'Shape', exact: true }).click();
  await page.getByRole('radio', { name: 'Ellipse' }).click();
  const box = await piece.canvas.boundingBox();
  if (!box) throw new Error('There is no canvas.');
  const middle = [box.x + box.width / 2, box.y + box.height / 2] as const;
  await page.mouse.click(...middle);
  await expect(piece.figures).toHaveCount(1);
  // The first could become nothing else; the tool stays at hand.
  await expect(page.getByTestId('drawn')).toHaveCount(0);
  await page.getByRole('radio', { name: 'Rectangle' }).click();
  await page.mouse.click(...middle);
  await expect(piece.figures).toHaveCount(2);
  await expect(page.getByTestId('drawn')).toContainText('Rectangle became a new figure.');
  await page.getByRole('button', { name: 'Make it the next pose of Ellipse' }).click();
  await expect(piece.figures).toHaveCount(1);
  await expect(piece.cards).toHaveCount(2);
  await piece.matched();
  await expect(page.getByTestId('drawn')).toContainText('Rectangle became the next pose of Ellipse.');
  // Another change, and it is settled.
  await page.getByRole('tab', { name: 'Pose' }).click();
  await piece.setNumber('Hold', '0.7');
  await expect(page.getByTestId('drawn')).toHaveCount(0);
  await piece.saved();
  const stored = await piece.stored();
  expect(Object.keys(stored.shifts)).toHaveLength(1);
});

test('names: double press and F2 in the list, on the rail and by key', async ({ page, piece }) => {
  await piece.open('demo-boarding-button');
  await piece.figures.first().dblclick();
  await page.keyboard.type('Badge');
  await page.keyboard.press('Enter');
  await expect(piece.figures.first()).toHaveAccessibleName('Figure Badge');
  await piece.figures.first().focus();
  await page.keyboard.press('F2');
  await page.keyboard.type('Something else');
  await page.keyboard.press('Escape');
  await expect(piece.figures.first()).toHaveAccessibleName('Figure Badge');
  await piece.cards.first().dblclick();
  await expect(page.getByLabel('Name', { exact: true })).toBeFocused();
  await page.keyboard.type('Waiting');
  await page.keyboard.press('Enter');
  await expect(piece.cards.first()).toHaveAccessibleName(/Waiting/);
  await page.keyboard.press('F2');
  await expect(page.getByLabel('Name', { exact: true })).toBeFocused();
});

test('keys belong to what is in front, and go back to the piece when a field is left', async ({ page, piece }) => {
  await piece.open('demo-boarding-button');
  const play = page.getByRole('button', { name: 'Play', exact: true });
  const tool = (name: string) =>
    page.getByRole('toolbar', { name: 'Tools' }).getByRole('button', { name, exact: true });
  // Behind a dialog and an open list nothing acts, and Escape closes these alone.
  await piece.cards.first().click();
  await page.keyboard.press('Shift+Slash');
  await expect(page.getByRole('dialog', { name: 'Shortcuts' })).toBeVisible();
  await page.keyboard.press('p');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(tool('Points')).toHaveAttribute('aria-pressed', 'false');
  await page.getByRole('button', { name: 'History' }).click();
  await page.keyboard.press('p');
  await page.keyboard.press('Escape');
  await expect(page.locator('.dropdown-menu.show')).toHaveCount(0);
  await expect(tool('Points')).toHaveAttribute('aria-pressed', 'false');
  await expect(piece.cards.first()).toHaveAttribute('aria-pressed', 'true');
  // Enter and Escape in a field give the keyboard back: Space plays.
  await piece.setNumber('Hold', '0.6');
  await page.keyboard.press('Space');
  await expect(play).toHaveCount(0);
  await page.keyboard.press('Space');
  await expect(play).toBeVisible();
  await page.getByLabel('Hold', { exact: true }).fill('9');
  await page.keyboard.press('Escape');
  await expect(page.getByLabel('Hold', { exact: true })).toHaveValue('0.6');
  await page.keyboard.press('Space');
  await expect(play).toHaveCount(0);
  await page.keyboard.press('Space');
  // What was pressed with the mouse does not swallow Space; what was reached by Tab is pressed.
  await tool('Points').click();
  await page.keyboard.press('Space');
  await expect(play).toHaveCount(0);
  await expect(tool('Points')).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('Space');
  await page.keyboard.press('Tab');
  await page.keyboard.press('Space');
  await expect(tool('Draw')).toHaveAttribute('aria-pressed', 'true');
  await expect(play).toBeVisible();
});
