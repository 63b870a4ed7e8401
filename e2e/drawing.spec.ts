import { expect, test } from './support/fixtures';

test('a beginner makes circle, square and back in eight presses: two shapes, and on the bar the next pose and the way back', async ({
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
  // Nothing lies on the picture while it plays.
  await piece.play();
  await expect(page.getByTestId('drawn')).toHaveCount(0);
  await piece.pause();
  // The eighth press closes the loop; with another change what was drawn is settled.
  await page.getByRole('button', { name: 'Then back to the first' }).click();
  await expect(piece.cards).toHaveCount(3);
  await expect(page.getByTestId('drawn')).toHaveCount(0);
  await piece.matched();
  const stored = await piece.stored();
  expect(Object.values(stored.shifts).map(({ from, to }) => [from, to])).toEqual([
    stored.figures[stored.figureOrder[0]].poses,
    [...stored.figures[stored.figureOrder[0]].poses].reverse(),
  ]);
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
  // The keys are the dialog's once the focus is in it.
  await expect(page.locator('[role="dialog"]:focus, [role="dialog"] :focus')).toBeAttached();
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

test('a rail of forty poses: no card covers another, it scrolls and zooms, and the bead stays in sight', async ({
  page,
  shelf,
  piece,
}) => {
  await shelf.open();
  await shelf.newPiece();
  const files = Array.from({ length: 40 }, (_, i) => ({
    name: `Look ${i + 1}.svg`,
    text: `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100"><path d="M${10 + (i % 9)} 10H90V${50 + i}H10Z"/></svg>`,
  }));
  await piece.drop(files);
  await expect(piece.cards).toHaveCount(40);
  const cards = await piece.cards.locator('.rail-card-paper').all();
  const boxes = await Promise.all(cards.map((card) => card.boundingBox()));
  boxes.forEach((box, i) => {
    if (i > 0) expect((box?.x ?? 0) - (boxes[i - 1]?.x ?? 0)).toBeGreaterThan((box?.width ?? 0) + 4);
  });
  const pane = page.locator('.rail-pane');
  const scroll = (): Promise<number> => pane.evaluate((element) => element.scrollLeft);
  const width = (): Promise<number> => pane.evaluate((element) => element.scrollWidth);
  // The wheel goes along; with Ctrl it zooms round the pointer; so do the buttons, and the keys on the rail.
  const before = await width();
  await pane.hover({ position: { x: 400, y: 40 } });
  await page.mouse.wheel(0, 300);
  await expect.poll(scroll).toBeGreaterThan(100);
  await page.keyboard.down('Control');
  await page.mouse.wheel(0, -200);
  await page.keyboard.up('Control');
  await expect.poll(width).toBeGreaterThan(before * 1.5);
  const zoomed = await width();
  await page.getByRole('button', { name: 'Show more time' }).click();
  await expect.poll(width).toBeLessThan(zoomed);
  await piece.cards.first().focus();
  await page.keyboard.press('-');
  await page.keyboard.press('-');
  await page.keyboard.press('-');
  await expect.poll(width).toBe(before);
  // The bead at the end, and while it plays.
  const beadInSight = async (): Promise<boolean> => {
    const [bead, box] = [await page.locator('.rail-bead-body').boundingBox(), await pane.boundingBox()];
    return bead !== null && box !== null && bead.x >= box.x && bead.x + bead.width <= box.x + box.width;
  };
  await piece.cards.last().click();
  await expect.poll(scroll).toBeGreaterThan(300);
  await expect.poll(beadInSight).toBe(true);
  await page.getByRole('button', { name: 'Show less time' }).click();
  await page.getByRole('button', { name: 'Show less time' }).click();
  await piece.cards.first().click();
  await expect.poll(beadInSight).toBe(true);
  await piece.play();
  for (let i = 0; i < 8; i++) {
    expect(await beadInSight()).toBe(true);
    await page.waitForTimeout(150);
  }
});

test('an empty piece offers shapes of the drawer; what can be adjusted stays adjustable, and two presses are a morph', async ({
  page,
  piece,
  shelf,
}) => {
  await shelf.open();
  await shelf.newPiece();
  await page.getByRole('button', { name: 'Begin with Circle' }).click();
  await expect(piece.cards).toHaveCount(1);
  await piece.cards.first().click();
  const details = page.getByRole('complementary', { name: 'Details' });
  await details.getByRole('tab', { name: 'Outline' }).click();
  await expect(details.getByRole('heading', { name: 'Circle, adjustable' })).toBeVisible();
  await expect(page.getByTestId('arrival')).toContainText('longest side as 60 % of the canvas');
  // The drawer that it came from is open: the second shape is one press away.
  await page.getByRole('button', { name: 'Add to this piece: Five-pointed star' }).click();
  await expect(page.getByTestId('arrival')).toContainText('longest side as the pose before');
  await expect(piece.cards).toHaveCount(2);
  // The canvas shows what has come, and the details are about it.
  await expect(details.getByRole('heading', { name: 'Five-pointed star, adjustable' })).toBeVisible();
  const { parts, poses, shifts } = await piece.stored();
  const [first, only] = [Object.values(poses)[0].hold, Object.values(shifts)[0].duration];
  expect(await piece.seconds()).toBeCloseTo(first + only, 2);
  expect(Object.values(parts).map(({ source }) => source?.kind)).toEqual(['ellipse', 'star']);
  // One that was changed is kept with its numbers.
  await piece.cards.nth(1).click();
  await details.getByRole('tab', { name: 'Outline' }).click();
  await piece.setNumber('Points', '9');
  await page.getByRole('button', { name: 'Keep in the drawer' }).click();
  await expect(page.getByText(/is in the drawer\./)).toBeVisible();
  // It keeps the name of what it came from, and lies before that.
  const stars = page.getByRole('button', { name: 'Add to this piece: Five-pointed star', exact: true });
  await expect(stars).toHaveCount(2);
  await stars.first().click();
  await expect(piece.cards).toHaveCount(3);
  const sources = Object.values((await piece.stored()).parts).map(({ source }) => source);
  expect(sources.filter((source) => source?.kind === 'star' && source.points === 9)).toHaveLength(2);
  // With nothing chosen it is shown too, and nothing is chosen by it.
  await page.keyboard.press('Escape');
  await expect(details.getByRole('heading', { name: 'Piece', exact: true })).toBeVisible();
  await stars.first().click();
  await expect(piece.cards).toHaveCount(4);
  await expect.poll(piece.seconds).toBeGreaterThan(3 * (first + only) - 0.02);
  await expect(details.getByRole('heading', { name: 'Piece', exact: true })).toBeVisible();
});

test('a text that was typed becomes the next pose by one press', async ({ page, piece, shelf }) => {
  await shelf.open();
  await shelf.newPiece();
  await page.getByRole('button', { name: 'Begin with Circle' }).click();
  await expect(piece.cards).toHaveCount(1);
  await page.keyboard.press('t');
  await page.keyboard.press('Enter');
  await expect(page.locator('textarea')).toBeFocused();
  await page.keyboard.type('Quay');
  await page.getByTestId('drawn').getByRole('button', { name: 'Make it the next pose of Circle' }).click();
  await expect(piece.cards).toHaveCount(2);
  await page.getByRole('tab', { name: 'Figures' }).click();
  await expect(piece.figures).toHaveCount(1);
  const stored = await piece.stored();
  const [, second] = stored.figures[stored.figureOrder[0]].poses;
  expect(stored.poses[second].parts.map((id) => stored.parts[id].name)).toEqual(['Q', 'u', 'a', 'y']);
});
