import { expect, test } from './support/fixtures';
import { anchorsOf, matchOf, onlyShift } from './support/match-pieces';

const DISC = 'M50 5A45 45 0 1 1 50 95A45 45 0 1 1 50 5Z';
const TWO_BARS = 'M5 10H25V90H5ZM75 10H95V90H75Z';
const BOX = 'M10 10H90V90H10Z';
const RING_BOX = 'M10 10H90V90H10ZM35 35V65H65V35Z';
const HILL = '<path fill="none" stroke="#204060" stroke-width="2" d="M5 70C30 10 70 10 95 70"/>';
const LENS = 'M5 70C30 10 70 10 95 70C70 100 30 100 5 70Z';

test('a solid is cut along a drawn line; its ends are dragged, moved by the arrow keys, and the cut removed', async ({
  shelf,
  piece,
  match,
  page,
}) => {
  await matchOf(shelf, piece, match, DISC, TWO_BARS);
  const anchors = anchorsOf(await piece.stored(), 0);
  const xs = anchors.map(({ x }) => x);
  const ys = anchors.map(({ y }) => y);
  const [left, right] = [Math.min(...xs), Math.max(...xs)];
  const [top, bottom] = [Math.min(...ys), Math.max(...ys)];
  const middle = (left + right) / 2;
  await match.tool('Split the solid');
  await match.drag(await match.at('a', middle, top), await match.at('a', middle, bottom));
  await match.matched();
  await expect(page.locator('.details-reasons')).toContainText('cut along the line that you drew');
  const [drawn] = (await onlyShift(piece)).match.cuts;
  const start = page.getByRole('button', { name: 'Start of cut 1 on Look 1' });
  const end = page.getByRole('button', { name: 'End of cut 1 on Look 1' });
  // By mouse: the upper end goes to the right.
  await match.drag(await match.middleOf(start), await match.at('a', middle + (right - left) / 5, top));
  await match.matched();
  const [dragged] = (await onlyShift(piece)).match.cuts;
  expect(dragged.line[0]).toBeGreaterThan(drawn.line[0] + 1);
  expect(dragged.line.slice(2)).toEqual(drawn.line.slice(2));
  // By keyboard: the lower one to the left.
  await end.focus();
  await page.keyboard.press('Shift+ArrowLeft');
  await match.matched();
  const [moved] = (await onlyShift(piece)).match.cuts;
  expect(moved.line[2]).toBeLessThan(dragged.line[2]);
  expect(moved.line.slice(0, 2)).toEqual(dragged.line.slice(0, 2));
  // A line that leaves the solid whole is no cut: that is said.
  await match.drag(await match.middleOf(start), await match.at('a', left - 20, top));
  await match.drag(await match.middleOf(end), await match.at('a', left - 20, bottom));
  await match.matched();
  await expect(page.locator('.details-reasons .lost')).toContainText('cuts nothing');
  await page.keyboard.press('ControlOrMeta+z');
  await end.focus();
  await page.keyboard.press('Delete');
  await match.matched();
  expect((await onlyShift(piece)).match.cuts).toEqual([]);
});

test('an unpaired hole is wiped away instead of opening through a slit, or shrinks', async ({
  shelf,
  piece,
  match,
  page,
}) => {
  await matchOf(shelf, piece, match, RING_BOX, BOX);
  await expect(page.locator('.details-reasons')).toContainText('slit');
  await page.getByLabel('Contour 2 to').selectOption({ label: 'No partner: is wiped away downwards' });
  await match.matched();
  await match.isOwn('Contours');
  await expect(page.locator('.details-reasons')).toContainText('is wiped');
  await expect(page.locator('.details-reasons')).not.toContainText('slit');
  const { match: chosen } = await onlyShift(piece);
  expect(chosen.wipes).toEqual([{ contour: chosen.pairs[0].a, angle: 90 }]);
  await page.getByLabel('Contour 2 to').selectOption({ label: 'No partner: shrinks away' });
  await match.matched();
  expect((await onlyShift(piece)).match.wipes).toEqual([]);
  await expect(page.locator('.details-reasons')).toContainText('shrinks away');
  await page.getByRole('button', { name: 'Contours: reset' }).click();
  await match.matched();
  await match.isOwn('Contours', false);
  await expect(page.locator('.details-reasons')).toContainText('slit');
});

test('a second solid that comes alone grows, or is wiped in', async ({ shelf, piece, match, page }) => {
  await matchOf(shelf, piece, match, BOX, TWO_BARS);
  await page.getByLabel('Contour 1 to').selectOption({ label: 'Contour 1' });
  await match.matched();
  const comes = page.getByLabel('Contour 2 comes');
  // Cut off from the first it has a partner; said to come alone it has none.
  await match.tool('Pair contours');
  const bars = anchorsOf(await piece.stored(), 1);
  await match.drag(await match.at('b', bars[5].x, bars[5].y), await middleOfPicture(page));
  await match.matched();
  await expect(comes).toHaveValue('alone');
  await comes.selectOption({ label: 'Wiped in to the right' });
  await match.matched();
  await expect(page.locator('.details-reasons')).toContainText('is wiped');

  // When it comes is to be decided too.
  await match.isOwn('Appearing and vanishing', false);
  await page.getByText('One after the other', { exact: true }).click();
  await match.matched();
  await match.isOwn('Appearing and vanishing');
  await expect(page.locator('.details-reasons')).toContainText('go and come is your choice');
  // The column scrolls; the page never does.
  expect(await page.locator('.details-body').evaluate(({ scrollTop }) => scrollTop)).toBeGreaterThan(0);
  expect(await page.evaluate(() => document.scrollingElement?.scrollTop)).toBe(0);
  await page.getByRole('button', { name: 'Appearing and vanishing: reset' }).click();
  await match.isOwn('Appearing and vanishing', false);
});

test('one of two contours is run the other way: chosen from its list, by R on its start point, and given back', async ({
  shelf,
  piece,
  match,
  page,
}) => {
  await matchOf(shelf, piece, match, TWO_BARS, TWO_BARS);
  await expect(match.health).toContainText('Healthy');
  const list = match.decision('Direction').getByLabel('Contour 2');
  await expect(list.locator('option:checked')).toHaveText('Automatic: as drawn');
  await list.selectOption('Reversed');
  await match.matched();
  await match.isOwn('Direction');
  await expect(match.health).not.toContainText('Healthy');
  await expect(match.decision('Direction').getByLabel('Contour 1').locator('option:checked')).toHaveText(
    'Automatic: as drawn',
  );
  const { from } = await onlyShift(piece);
  const stored = await piece.stored();
  const [, second] = stored.parts[stored.poses[from].parts[0]].contours;
  expect((await onlyShift(piece)).match.directions).toEqual([{ contour: second.id, direction: 'reversed' }]);

  await match.start('Look 1', 2).focus();
  await page.keyboard.press('r');
  await match.matched();
  await expect(match.health).toContainText('Healthy');
  await expect(list.locator('option:checked')).toHaveText('As drawn');
  await page.getByRole('button', { name: 'Direction: reset' }).click();
  await match.isOwn('Direction', false);
});

test('a line that becomes a closed outline is closed by its chord on request', async ({
  shelf,
  piece,
  match,
  page,
}) => {
  await matchOf(shelf, piece, match, HILL, LENS);
  await expect(page.locator('.details-reasons')).toContainText('cut open at its start point');
  await match.isOwn('Open and closed', false);
  await page.getByText('By chord', { exact: true }).click();
  await match.matched();
  await match.isOwn('Open and closed');
  await expect(page.locator('.details-reasons')).toContainText('closed by its chord');
  expect((await onlyShift(piece)).match.opening).toBe('chord');
  await page.getByRole('button', { name: 'Open and closed: reset' }).click();
  await match.isOwn('Open and closed', false);
});

test('the place under the pointer shows in all three pictures, and goes with it', async ({
  shelf,
  piece,
  match,
  page,
}) => {
  await matchOf(shelf, piece, match, BOX, BOX);
  const [corner] = anchorsOf(await piece.stored(), 0);
  const at = await match.at('a', corner.x, corner.y);
  const rings = page.locator('[data-key="echo"]');
  await page.mouse.move(at.x + 1, at.y + 1);
  for (let i = 0; i < 3; i++) await expect(rings.nth(i)).toHaveAttribute('visibility', 'visible');
  // A box that becomes the same box: the place is the same corner everywhere.
  for (const [i, picture] of (['a', 'middle', 'b'] as const).entries()) {
    const there = await match.at(picture, corner.x, corner.y);
    const box = await rings.nth(i).boundingBox();
    if (!box) throw new Error('There is no ring.');
    expect(Math.hypot(box.x + box.width / 2 - there.x, box.y + box.height / 2 - there.y)).toBeLessThan(4);
  }
  const off = await match.at('a', corner.x + 60, corner.y + 60);
  await page.mouse.move(off.x, off.y);
  await expect(rings.first()).toHaveAttribute('visibility', 'hidden');
});

test('the moment of the in-between is typed as well as dragged; nonsense is put back', async ({
  shelf,
  piece,
  match,
  page,
}) => {
  await matchOf(shelf, piece, match, BOX, RING_BOX);
  const percent = page.getByLabel('In-between at (%)');
  await expect(percent).toHaveValue('50');
  await percent.fill('12,5 %');
  await percent.press('Enter');
  await expect(page.getByTestId('match-marks')).toContainText('13 %');
  await expect(page.getByLabel('Progress of the in-between')).toHaveValue('0.125');
  await percent.press('Shift+ArrowUp');
  await expect(percent).toHaveValue('22.5');
  await percent.fill('soon');
  await percent.press('Enter');
  await expect(percent).toHaveValue('22.5');
  await percent.fill('400');
  await percent.blur();
  await expect(percent).toHaveValue('100');
  await match.setProgress(0.3);
  await expect(percent).toHaveValue('30');
});

test('the space bar plays and stops, also from the slider of the in-between', async ({ shelf, piece, match, page }) => {
  await matchOf(shelf, piece, match, BOX, DISC);
  await match.setProgress(0.3);
  await page.getByLabel('Progress of the in-between').focus();
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Pause' })).toBeVisible();
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible();
});

async function middleOfPicture(page: import('@playwright/test').Page): Promise<{ x: number; y: number }> {
  const box = await page.getByTestId('match-middle').boundingBox();
  if (!box) throw new Error('There is no picture.');
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
}

test('a contour pointed at in the list is shown in the pictures, and the other way round', async ({
  shelf,
  piece,
  match,
  page,
}) => {
  await matchOf(shelf, piece, match, TWO_BARS, 'M5 20H25V80H5ZM75 20H95V80H75Z');
  const xs = anchorsOf(await piece.stored(), 0).map(({ x }) => x);
  const ys = anchorsOf(await piece.stored(), 0).map(({ y }) => y);
  const picture = (id: string) =>
    page.getByTestId(`match-${id}`).evaluate((canvas) => (canvas as HTMLCanvasElement).toDataURL());
  const rows = page.locator('.contour-row');
  await expect(rows).toHaveCount(2);
  const calm = [await picture('a'), await picture('middle'), await picture('b')];
  await rows.nth(0).hover();
  for (const [i, id] of ['a', 'middle', 'b'].entries()) await expect.poll(() => picture(id)).not.toBe(calm[i]);
  const first = await picture('a');
  await rows.nth(1).hover();
  await expect.poll(() => picture('a')).not.toBe(first);
  await page.mouse.move(5, 400);
  await expect.poll(() => picture('a')).toBe(calm[0]);
  // On the picture: the right edge of the right bar.
  const at = await match.at('a', Math.max(...xs), (Math.min(...ys) + Math.max(...ys)) / 2);
  await page.mouse.move(at.x, at.y);
  await expect(rows.nth(1)).toHaveClass(/lit/);
  await expect(rows.nth(0)).not.toHaveClass(/lit/);
});

test('Escape drops a tie that was begun, and nothing else', async ({ shelf, piece, match, page }) => {
  await matchOf(shelf, piece, match, BOX, DISC);
  const [, p, q] = anchorsOf(await piece.stored(), 0);
  const place = { x: (p.x + q.x) / 2, y: (p.y + q.y) / 2 };
  const at = await match.at('a', place.x, place.y);
  const help = page.locator('.match-help');
  await page.mouse.click(at.x, at.y);
  await expect(help).toContainText('Now press its place on the second outline');
  await page.keyboard.press('Escape');
  await expect(help).toContainText('Press a place on either outline');
  // The shift is still what the room is about, and the next press on the other side begins a tie instead of ending one.
  const other = await match.at('b', place.x, place.y);
  await page.mouse.click(other.x, other.y);
  expect((await onlyShift(piece)).match.ties).toEqual([]);
});
