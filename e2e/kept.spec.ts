import type { Piece } from '@core';
import { expect, test } from './support/fixtures';

/** What was made is kept, and nothing is made by accident: in the page's own words. */

test('points that are being drawn are kept when the page is reloaded', async ({ piece, page, shelf }) => {
  await shelf.open();
  await page.getByRole('button', { name: 'New piece' }).click();
  await page.getByRole('region', { name: 'Canvas' }).waitFor();
  await page.getByRole('button', { name: /^Draw/ }).first().click();
  const box = await piece.canvas.boundingBox();
  if (!box) throw new Error('There is no canvas.');
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  for (const [dx, dy] of [
    [-80, -60],
    [-40, 40],
    [0, -60],
    [40, 40],
    [80, -60],
  ])
    await page.mouse.click(x + dx, y + dy);
  await piece.saved();
  await page.reload();
  // Either the server has it by now, or this browser offers it.
  const goOn = page.getByRole('button', { name: 'Use this version' }).first();
  await expect(goOn.or(piece.figures.first())).toBeVisible();
  if (await goOn.isVisible()) await goOn.click();
  await expect(piece.figures).toHaveCount(1);
  const stored = await piece.storedWith((each) => Object.keys(each.parts).length === 1);
  const [part] = Object.values(stored.parts);
  expect(part.contours[0].anchors).toHaveLength(5);
});

test('a name is kept as it is typed, as one step; Escape gives back the one before', async ({ piece, page }) => {
  await piece.open('demo-gate');
  const name = page.getByRole('textbox', { name: 'Name of the piece' });
  await name.fill('');
  await name.pressSequentially('North Pier');
  expect(((await piece.stored()) as Piece).name).toBe('North Pier');
  await page.reload();
  await expect(name).toHaveValue('North Pier');
  await name.fill('South');
  await name.press('Escape');
  expect(((await piece.stored()) as Piece).name).toBe('North Pier');
});

test('letters that are typed right after a click with Text arrive all, and run no command', async ({ piece, page }) => {
  await piece.open('demo-gate');
  await page.getByRole('button', { name: /^Text/ }).first().click();
  const box = await piece.canvas.boundingBox();
  if (!box) throw new Error('There is no canvas.');
  await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2);
  await page.keyboard.type('Lantern 3');
  await expect(page.getByRole('textbox', { name: 'Letters' })).toHaveValue('Lantern 3');
  await expect(page).toHaveURL(/\/shapes$/);
  await piece.storedWith((each) => Object.values(each.texts).some(({ content }) => content === 'Lantern 3'));
});

test('a list that has the focus is chosen from by typing: no letter or digit runs a command', async ({
  piece,
  page,
}) => {
  await piece.open('demo-gate');
  await page.keyboard.press('Escape');
  const list = page.getByRole('combobox', { name: 'Still picture' });
  await list.focus();
  await page.keyboard.type('3');
  // The room stays, and the third pose is chosen.
  await expect(list).toHaveValue('2');
  await expect(page).toHaveURL(/\/shapes$/);
  const stored = await piece.storedWith(({ poster }) => poster !== undefined);
  const [figure] = Object.values(stored.figures);
  expect(stored.poster?.at).toMatchObject({ figure: figure.id, stop: { pose: figure.poses[0] } });
});

test('a picture that no encoder takes is told before the file can be asked for', async ({ piece, page }) => {
  await piece.open('demo-gate', 'output');
  await page.getByRole('button', { name: 'MP4', exact: true }).click();
  const make = page.getByRole('button', { name: 'Make and prove' });
  await expect(make).toBeEnabled();
  await piece.setNumber('Width', '8192');
  await piece.setNumber('Height', '8192');
  await expect(
    page.getByRole('alert').filter({ hasText: 'no encoder for MP4 (H.264) of 8192 × 8192 px' }).first(),
  ).toBeVisible();
  await expect(make).toBeDisabled();
  await piece.setNumber('Height', '640');
  await piece.setNumber('Width', '640');
  await expect(make).toBeEnabled();
});
