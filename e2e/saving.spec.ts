import { expect, test } from './support/fixtures';

test('while the server is away nothing is lost, and it is saved when it comes back', async ({
  piece,
  page,
  server,
}) => {
  await piece.open('demo-quay-mark');
  await piece.selectShift(0);
  await server.stop();
  await piece.setNumber('Duration', '2.5');
  await expect(page.getByTestId('save-state')).toHaveText('Offline');
  await server.start();
  await expect(page.getByTestId('save-state')).toHaveText('Saved', { timeout: 20_000 });
  expect(Object.values((await piece.stored()).shifts).map(({ duration }) => duration)).toContain(2.5);
});

test('changes that never reached the server are back when the piece is opened again', async ({
  piece,
  page,
  server,
}) => {
  await piece.open('demo-quay-mark');
  await piece.selectShift(1);
  await server.stop();
  await piece.setNumber('Duration', '3.25');
  await expect(page.getByTestId('save-state')).toHaveText('Offline');
  await page.goto('about:blank');
  await server.start();
  await piece.open('demo-quay-mark');
  await expect(page.getByText('had not reached the server')).toBeVisible();
  await piece.saved();
  expect(Object.values((await piece.stored()).shifts).map(({ duration }) => duration)).toContain(3.25);
});

test('a piece left within a moment of a change, and opened again by its name, has it and is saved', async ({
  piece,
  page,
  shelf,
}) => {
  await piece.open('demo-quay-mark');
  await piece.selectShift(0);
  await piece.setNumber('Duration', '1.5');
  await page.getByRole('link', { name: 'To the shelf' }).click();
  await shelf.card('Quay Mark').getByRole('heading').getByText('Quay Mark').click();
  await piece.matched();
  await piece.selectShift(0);
  await expect(piece.number('Duration')).toHaveValue('1.5');
  await expect(page.getByText('had not reached the server')).toHaveCount(0);
  await piece.setNumber('Duration', '1.25');
  await piece.saved();
  expect(Object.values((await piece.stored()).shifts).map(({ duration }) => duration)).toContain(1.25);
});

for (const [choice, expected] of [
  ['Keep mine', 1.75],
  ['Take the other', 0.33],
] as const) {
  test(`two tabs change one piece: ${choice.toLowerCase()}`, async ({ piece, page, server }) => {
    await piece.open('demo-quay-mark');
    const response = await page.request.get(`${server.url}/api/pieces/demo-quay-mark`);
    const { piece: other, revision } = await response.json();
    const shift = other.figures[other.figureOrder[0]].rail[0];
    other.shifts[shift].duration = 0.33;
    const saved = await page.request.put(`${server.url}/api/pieces/demo-quay-mark`, {
      data: { piece: other, revision },
    });
    expect(saved.status()).toBe(200);
    await piece.selectShift(0);
    await piece.setNumber('Duration', '1.75');
    await expect(page.getByTestId('save-state')).toHaveText('Changed elsewhere');
    await page.getByRole('button', { name: choice }).click();
    await piece.saved();
    expect((await piece.stored()).shifts[shift].duration).toBe(expected);
    await piece.selectShift(0);
    await expect(piece.number('Duration')).toHaveValue(String(expected));
  });
}

test('the history names what was done, and goes back several steps at once', async ({ piece, page }) => {
  await piece.open('demo-quay-mark');
  await piece.selectShift(0);
  await piece.setNumber('Duration', '1');
  await page.getByRole('button', { name: 'Settle' }).click();
  await piece.setNumber('Duration', '2');
  await page.getByRole('button', { name: 'History' }).click();
  await expect(page.getByRole('button', { name: 'Ease: Settle' })).toBeVisible();
  await page.getByRole('button', { name: 'Duration 1 s' }).click();
  await expect(piece.number('Duration')).toHaveValue('1');
  await page.getByRole('button', { name: 'History' }).click();
  await page.getByRole('button', { name: 'Duration 2 s' }).click();
  await expect(piece.number('Duration')).toHaveValue('2');
  await expect(page.getByRole('button', { name: 'Settle' })).toHaveAttribute('aria-pressed', 'true');
});

test('the shelf: search, duplicate, delete with undo, export', async ({ shelf, page }) => {
  await shelf.open();
  await expect(page.getByRole('article')).toHaveCount(5);
  await page.getByLabel('Search pieces').fill('quay');
  await expect(page.getByRole('article')).toHaveCount(1);
  await page.getByLabel('Search pieces').fill('');
  await shelf.more('Quay Mark', 'Duplicate');
  await expect(shelf.card('Quay Mark copy')).toBeVisible();
  await shelf.more('Quay Mark copy', 'Delete');
  await expect(shelf.card('Quay Mark copy')).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(shelf.card('Quay Mark copy')).toBeVisible();
  const [download] = await Promise.all([page.waitForEvent('download'), shelf.more('Quay Mark', 'Export piece file')]);
  expect(download.suggestedFilename()).toBe('Quay Mark.arcshift.json');
});
