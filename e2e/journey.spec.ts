import fs from 'node:fs';
import { realIcons } from '../core/src/testing/icons';
import { PiecePage } from './pages/piece-page';
import { ShelfPage } from './pages/shelf-page';
import { dropFiles } from './support/drop';
import { expect, test } from './support/fixtures';

const icons = realIcons(8, 97).map(({ name, svg }) => ({ name: `${name}.svg`, text: svg }));

test('four pairs of real icons: three actions to a playing, eased morph', async ({ shelf, piece, page }) => {
  expect(icons).toHaveLength(8);
  for (let pair = 0; pair < 4; pair++) {
    await shelf.open();
    let actions = 0;
    await shelf.newPiece();
    actions++;
    await piece.drop(icons.slice(2 * pair, 2 * pair + 2));
    actions++;
    await expect(piece.cards).toHaveCount(2);
    await piece.play();
    actions++;
    expect(actions).toBe(3);
    await expect(page.getByRole('button', { name: 'Pause' })).toBeVisible();

    // It plays: the bead moves and, during the shift, the picture changes.
    await piece.matched();
    const before = await piece.seconds();
    await expect.poll(piece.seconds).not.toBe(before);
    await piece.pause();
    await page.keyboard.press(',');
    await page.keyboard.press('.');
    await page.keyboard.press(',');
    const still = await piece.picture();
    for (let i = 0; i < 6; i++) await page.keyboard.press('Shift+ArrowRight');
    expect(await piece.picture()).not.toBe(still);
    const stored = await piece.saved().then(piece.stored);
    const [shift] = Object.values(stored.shifts);
    expect(shift.easing.kind).toBe('cubic-bezier');
    expect(shift.duration).toBe(0.6);
    expect(
      Object.values(stored.poses).every(({ hold, placement }) => hold === 0.8 && placement.rule?.centre === 'area'),
    ).toBe(true);
  }
});

test.describe('with a server of its own', () => {
  test.use({ ownProcess: true });
  test('scrub, retime, ease, hold, reverse, undo and redo all of it, take it out, restart, and find it as it was', async ({
    shelf,
    piece,
    page,
    server,
    browser,
  }) => {
    await shelf.open();
    await shelf.newPiece();
    await piece.drop(icons.slice(0, 3));
    await expect(piece.cards).toHaveCount(3);
    await piece.matched();
    const arrived = await piece.stored();

    // Drag the bead.
    const rail = await piece.rail.boundingBox();
    if (!rail) throw new Error('There is no rail.');
    await page.mouse.move(rail.x + 34, rail.y + 120);
    await page.mouse.down();
    await page.mouse.move(rail.x + 300, rail.y + 120, { steps: 6 });
    expect(await piece.seconds()).toBeGreaterThan(0.3);
    await page.mouse.up();

    // Duration and easing of a shift, by number, preset and handle.
    await piece.selectShift(0);
    await piece.setNumber('Duration', '1.2');
    await page.getByRole('button', { name: 'Overshoot' }).click();
    const handle = page.getByRole('slider', { name: 'Handle of leaving' });
    const at = await handle.boundingBox();
    if (!at) throw new Error('There is no handle.');
    await page.mouse.move(at.x + 7, at.y + 7);
    await page.mouse.down();
    await page.mouse.move(at.x + 50, at.y - 10, { steps: 5 });
    await page.mouse.up();

    // Direction.
    await page.getByText('Reversed', { exact: true }).click();
    await expect(page.getByText('The second outline is run backwards: your choice.')).toBeVisible();

    // A hold by dragging the end of its bar.
    const edge = await page.locator('[data-key="edge-1"]').boundingBox();
    if (!edge) throw new Error('There is no bar.');
    await page.mouse.move(edge.x + 5, edge.y + 12);
    await page.mouse.down();
    await page.mouse.move(edge.x + 65, edge.y + 12, { steps: 6 });
    await page.mouse.up();

    const changed = await piece.stored();
    const [first] = changed.figures[changed.figureOrder[0]].rail;
    const hold = (p: typeof changed): number => p.poses[p.figures[p.figureOrder[0]].poses[1]].hold;
    expect(changed.shifts[first].duration).toBe(1.2);
    expect(changed.shifts[first].easing).not.toEqual(arrived.shifts[first].easing);
    expect(changed.shifts[first].match.direction).toBe('reversed');
    expect(hold(changed)).toBeGreaterThan(0.8);

    // Five changes since the shapes arrived: undo them all, redo them all.
    for (let i = 0; i < 5; i++) await page.keyboard.press('Control+z');
    expect(await piece.stored()).toEqual(arrived);
    for (let i = 0; i < 5; i++) await page.keyboard.press('Control+Shift+z');
    expect(await piece.stored()).toEqual(changed);

    // Take it out.
    await page.getByRole('link', { name: 'Output' }).click();
    const link = page.getByTestId('download-svg');
    const [download] = await Promise.all([page.waitForEvent('download'), link.click()]);
    const text = fs.readFileSync(await download.path(), 'utf8');
    expect(download.suggestedFilename()).toMatch(/\.svg$/);
    expect(text).toMatch(/^<svg .*<animate attributeName="d"/s);
    const { id } = piece;

    // Close the browser, start the server again, open the piece.
    await page.close();
    expect(await server.stop()).toBe(0);
    await server.start();
    const fresh = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
    const again = new PiecePage(fresh, server);
    await new ShelfPage(fresh, server).open();
    await fresh.getByRole('link', { name: 'Open Untitled piece' }).click();
    await expect(again.cards).toHaveCount(3);
    expect(again.id).toBe(id);
    await again.selectShift(0);
    await expect(again.number('Duration')).toHaveValue('1.2');
    expect(await again.stored()).toEqual(changed);
    await fresh.context().close();
  });
});

test('an SVG dropped between two cards becomes a pose there; cards are dragged, duplicated and removed', async ({
  piece,
  page,
}) => {
  await piece.open('demo-quay-mark');
  await expect(piece.cards).toHaveCount(4);
  await piece.dropOnRail([icons[0]], 300);
  await expect(piece.cards).toHaveCount(5);
  await expect(piece.cards.nth(1)).toHaveAttribute(
    'aria-label',
    new RegExp(icons[0].name.slice(0, 5).replace('-', ' ')),
  );
  await expect(page.getByTestId('arrival')).toContainText('One pose arrived');

  const from = await piece.cards.nth(1).boundingBox();
  const to = await piece.cards.nth(3).boundingBox();
  if (!from || !to) throw new Error('There are no cards.');
  await page.mouse.move(from.x + 20, from.y + 20);
  await page.mouse.down();
  await page.mouse.move(to.x + 40, to.y + 20, { steps: 8 });
  await page.mouse.up();
  await expect(piece.cards.nth(3)).toHaveAttribute(
    'aria-label',
    new RegExp(icons[0].name.slice(0, 5).replace('-', ' ')),
  );

  await page.keyboard.press('Control+d');
  await expect(piece.cards).toHaveCount(6);
  await page.keyboard.press('Delete');
  await expect(piece.cards).toHaveCount(5);
  const { figures, figureOrder, shifts } = await piece.stored();
  const rail = figures[figureOrder[0]].rail;
  rail.slice(1).forEach((id, i) => expect(shifts[id].from).toBe(shifts[rail[i]].to));
});

test('a pose is moved on the canvas, and the gesture can be left by Escape', async ({ piece, page }) => {
  await piece.open('demo-boarding-button');
  await piece.cards.nth(1).click();
  const before = await piece.number('Middle X').inputValue();
  const { poses } = await piece.stored();
  const box = await piece.canvas.boundingBox();
  if (!box) throw new Error('There is no canvas.');
  // Snapping is left off with Alt, so that the distance is exact.
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2 + 60];
  const drag = async (): Promise<void> => {
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.keyboard.down('Alt');
    await page.mouse.move(x + 39, y, { steps: 4 });
    await page.keyboard.up('Alt');
  };
  await drag();
  await page.keyboard.press('Escape');
  await page.mouse.up();
  await expect(piece.number('Middle X')).toHaveValue(before);
  await drag();
  await page.mouse.up();
  await expect(piece.number('Middle X')).not.toHaveValue(before);
  const zoom = Number.parseFloat((await page.locator('.status-view .numbers').textContent()) ?? '') / 100;
  const moved = Number(await piece.number('Middle X').inputValue()) - Number(before);
  expect(Math.abs(moved - 39 / zoom)).toBeLessThan(1);
  // What was moved lies on top: where the pose stands by itself, and so its match, has not changed.
  const after = await piece.storedWith(({ lanes }) => Object.keys(lanes).length === 1);
  expect(after.poses).toEqual(poses);
  const [lane] = Object.values(after.lanes);
  expect(lane.property).toBe('position');
  expect(lane.keys.map(({ value }) => Math.round(value[0] - moved))).toContain(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(piece.number('Middle X')).toHaveValue(before);
});

test('paste: SVG markup and bare path data become poses', async ({ shelf, piece, page }) => {
  await shelf.open();
  await shelf.newPiece();
  const paste = (text: string) =>
    page.evaluate((data) => {
      const transfer = new DataTransfer();
      transfer.setData('text/plain', data);
      window.dispatchEvent(new ClipboardEvent('paste', { clipboardData: transfer, bubbles: true }));
    }, text);
  await paste(icons[2].text);
  await expect(piece.cards).toHaveCount(1);
  await paste('M0 0h10v10H0z');
  await expect(piece.cards).toHaveCount(2);
});

test('SVG files dropped on the shelf begin a piece in which they arrive as if dropped there; one that cannot be read is told', async ({
  shelf,
  piece,
  page,
}) => {
  await shelf.open();
  const drawing = (size: number, d: string): string =>
    `<svg xmlns="http://www.w3.org/2000/svg" width="${size}" height="${size}"><path d="${d}"/></svg>`;
  await dropFiles(page.locator('.shelf'), [
    { name: 'ferry-sign.svg', text: drawing(100, 'M10 10H90V90H10Z') },
    { name: 'torn.svg', text: '<svg xmlns="http://www.w3.org/2000/svg"><path d="M0' },
    { name: 'buoy.svg', text: drawing(24, 'M2 12A10 10 0 0 1 22 12A10 10 0 0 1 2 12Z') },
  ]);
  await expect(piece.cards).toHaveCount(2);
  await expect(page.getByRole('alert')).toContainText('torn.svg: The SVG is not well-formed');
  await expect(page.getByTestId('arrival')).toContainText('2 poses arrived');
  await expect(page.getByLabel('Name of the piece')).toHaveValue('ferry sign');
  const { poses } = await piece.stored();
  expect(Object.values(poses).map(({ name }) => name)).toEqual(['ferry sign', 'buoy']);
  // Where nothing can be read there is no piece.
  await shelf.open();
  await expect(shelf.card('ferry sign')).toBeVisible();
  const before = await page.getByRole('article').count();
  await dropFiles(page.locator('.shelf'), [
    { name: 'torn.svg', text: '<svg' },
    { name: 'vast.svg', text: ' '.repeat(9 * 1024 * 1024) },
  ]);
  const message = page.getByRole('alert');
  await expect(message).toContainText('2 of 2 files could not be taken.');
  await expect(message).toContainText('torn.svg: The SVG is not well-formed');
  await expect(message).toContainText('vast.svg: Expected an SVG of at most 8 MB; this one has 9.0 MB.');
  await expect(page.getByRole('article')).toHaveCount(before);
});

test('reading on the shelf is stopped with all that was to be read after it, and nothing comes in', async ({
  shelf,
  page,
}) => {
  await shelf.open();
  await expect(shelf.card('Quay Mark')).toBeVisible();
  const before = await page.getByRole('article').count();
  const body = '<path d="M0 0c1.25 0.75 3.5 0.25 4.75 2.5s0.25 4.5-1.5 5.75-4.5 0.25-5.25-1.75z"/>'.repeat(45_000);
  // As quick as a designer could be at best.
  await page.evaluate(() =>
    new MutationObserver((_, observer) => {
      const stop = [...document.querySelectorAll('button')].find(({ textContent }) => textContent === 'Stop');
      if (!stop) return;
      observer.disconnect();
      stop.click();
    }).observe(document.body, { childList: true, subtree: true }),
  );
  const svg = (text: string): string => `<svg xmlns="http://www.w3.org/2000/svg">${text}</svg>`;
  await dropFiles(page.locator('.shelf'), [
    { name: 'big.svg', text: svg(body) },
    { name: 'small.svg', text: svg('<path d="M0 0H50V50Z"/>') },
  ]);
  await expect(page.getByText('Reading was stopped. Nothing came in.')).toBeVisible();
  await expect(page.getByRole('article')).toHaveCount(before);
  await expect(page).not.toHaveURL(/piece/);
});
