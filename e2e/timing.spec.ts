import fs from 'node:fs';
import type { Locator, Page } from '@playwright/test';
import type { PiecePage } from './pages/piece-page';
import { expect, test } from './support/fixtures';

const svg = (body: string): string => `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 24 24">${body}</svg>`;
/** Gives the first figure of a piece a lane, and returns it. */
async function addLane(page: Page, piece: PiecePage, property: 'opacity' | 'turn'): Promise<{ lane: Locator }> {
  await piece.open('demo-boarding-button', 'timing');
  const name = (await page.locator('.lane-name').first().textContent()) ?? '';
  await page.getByLabel(`Add a lane to ${name}`).selectOption(property);
  const label = property === 'turn' ? 'Rotation' : 'Opacity';
  return { lane: page.getByRole('group', { name: `${label} of ${name}` }) };
}

const TWO = [
  { name: 'buoy.svg', text: svg('<path d="M4 4h16v16H4z"/>') },
  { name: 'gull.svg', text: svg('<path d="M2 9c4-4 8-2 10 2c2-4 6-6 10-2c-5 0-7 3-10 8c-3-5-5-8-10-8z"/>') },
];

test('a pose is turned and moved, its lanes are seen, dragged, typed and eased, and the file goes the same way', async ({
  piece,
  shelf,
  page,
}) => {
  await shelf.open();
  await shelf.newPiece();
  await piece.drop(TWO);
  await expect(piece.cards).toHaveCount(2);
  await page.keyboard.press('3');
  await expect(page.getByText('No lanes yet.')).toBeVisible();
  await piece.cards.nth(1).click();
  await piece.setNumber('Rotation', '-300');
  const turn = page.getByRole('group', { name: 'Rotation of Figure 1' });
  await expect(turn.getByRole('button')).toHaveCount(2);
  await expect(page.getByText('No lanes yet.')).toHaveCount(0);

  // A level block is dragged: the canvas goes along while it is.
  const second = turn.getByRole('button', { name: /gull \(pose 2\): −300/ });
  const box = await second.boundingBox();
  if (!box) throw new Error('There is no block.');
  const before = await piece.picture();
  await page.mouse.move(box.x + 20, box.y + 4);
  await page.mouse.down();
  await page.mouse.move(box.x + 20, box.y - 10, { steps: 4 });
  const during = await piece.picture();
  expect(during).not.toBe(before);
  await page.keyboard.press('Escape');
  await page.mouse.up();
  expect(await piece.picture()).toBe(before);
  await page.mouse.move(box.x + 20, box.y + 4);
  await page.mouse.down();
  await page.mouse.move(box.x + 20, box.y - 10, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByRole('heading', { name: 'Key of Rotation' })).toBeVisible();
  await expect.poll(async () => Number(await piece.number('Rotation').inputValue())).toBeGreaterThan(-300);
  await piece.setNumber('Rotation', '-180');

  // The way between two keys gets an easing of its own.
  await turn.getByRole('button', { name: /buoy \(pose 1\): 0/ }).click();
  await page.getByRole('group', { name: 'Easing to the next key' }).getByText('Own', { exact: true }).click();
  await page.getByLabel('Kind').selectOption('spring');
  const stored = await piece.storedWith(({ lanes }) =>
    Object.values(lanes).some(({ keys }) => keys[0].easing?.kind === 'spring'),
  );
  const [lane] = Object.values(stored.lanes).filter(({ property }) => property === 'turn');
  expect(lane.keys.map(({ value }) => value[0])).toEqual([0, -180]);
  await page.getByRole('link', { name: 'Output' }).click();
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByTestId('download-svg').click()]);
  // Transforms go out as transforms.
  const file = fs.readFileSync(await download.path(), 'utf8');
  expect(file).toMatch(/<animateTransform attributeName="transform" [^>]*type="rotate"/);
});

test('lanes by keyboard alone: a lane is added, its key goes up, a free key is put in and nudged, all is undone', async ({
  piece,
  page,
}) => {
  const { lane } = await addLane(page, piece, 'opacity');
  const first = lane.getByRole('button').first();
  await first.focus();
  await page.keyboard.press('Shift+ArrowDown');
  await expect(first).toHaveAttribute('aria-label', /90 %/);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Key of Opacity' })).toBeVisible();
  await piece.setNumber('Opacity', '35');
  await expect(first).toHaveAttribute('aria-label', /35 %/);
  // What is said of keys can be undone step by step.
  await page.keyboard.press('Control+z');
  await expect(first).toHaveAttribute('aria-label', /90 %/);
  await page.keyboard.press('Control+z');
  await expect(first).toHaveAttribute('aria-label', /100 %/);
  await page.keyboard.press('Control+z');
  await expect(lane).toHaveCount(0);
});

test('a free key is put where the lane is pressed twice, dragged along in frames, and travels with its stop', async ({
  piece,
  page,
}) => {
  const { lane } = await addLane(page, piece, 'turn');
  const count = await lane.getByRole('button').count();
  const box = await lane.boundingBox();
  if (!box) throw new Error('There is no lane.');
  await page.mouse.dblclick(box.x + 300, box.y + 40);
  await expect(lane.getByRole('button')).toHaveCount(count + 1);
  const free = lane.locator('.lane-block.free');
  const at = await free.boundingBox();
  if (!at) throw new Error('There is no free key.');
  await page.mouse.move(at.x + 4, at.y + 4);
  await page.mouse.down();
  await page.mouse.move(at.x + 64, at.y - 26, { steps: 5 });
  await page.mouse.up();
  const stored = await piece.storedWith(({ lanes }) =>
    Object.values(lanes).some(({ keys }) => keys.some(({ after, value }) => after !== null && value[0] > 0)),
  );
  const { num, den } = stored.canvas.rate;
  const key = Object.values(stored.lanes)[0].keys.find(({ after }) => after !== null);
  const frames = ((key?.after ?? 0) * num) / den;
  expect(Math.abs(frames - Math.round(frames))).toBeLessThan(1e-3);
  // Bound to a stop that has no key it stands level there; set free it is a moment again.
  await lane.getByRole('button').first().click();
  await page.getByRole('button', { name: 'Detach from the pose' }).click();
  await expect(lane.locator('.lane-block.free')).toHaveCount(2);
  await page.getByRole('button', { name: 'Attach to the pose' }).click();
  await expect(lane.locator('.lane-block.free')).toHaveCount(1);
  await free.focus();
  await page.keyboard.press('Delete');
  await expect(lane.getByRole('button')).toHaveCount(count);
});

test('lanes and rail show the same stretch of time, zoomed and scrolled together; pressing the ground scrubs', async ({
  piece,
  page,
}) => {
  await piece.open('demo-quay-mark');
  await page.keyboard.press('3');
  const bar = page.locator('[data-key="bar-1"]');
  const rows = page.locator('.lane-poses rect').nth(1);
  const alike = async (): Promise<void> => {
    await expect
      .poll(async () => {
        const [p, q] = [await bar.boundingBox(), await rows.boundingBox()];
        return p && q ? Math.abs(p.x - q.x) : 99;
      })
      .toBeLessThan(1.5);
  };
  await alike();
  await page.getByRole('button', { name: 'Show less time' }).click();
  await page.getByRole('button', { name: 'Show less time' }).click();
  await alike();
  const sheet = await page.getByRole('region', { name: 'Lanes' }).boundingBox();
  if (!sheet) throw new Error('There are no lanes.');
  await page.mouse.move(sheet.x + 200, sheet.y + 60);
  await page.keyboard.down('Shift');
  await page.mouse.wheel(0, 160);
  await page.keyboard.up('Shift');
  await alike();
  const before = await piece.seconds();
  await page.mouse.click(sheet.x + 600, sheet.y + sheet.height - 10);
  expect(await piece.seconds()).not.toBe(before);
  const bead = await page.locator('.lane-bead').boundingBox();
  expect(Math.abs((bead?.x ?? 0) - (sheet.x + 600))).toBeLessThan(3);
});

for (const hand of ['mouse', 'keyboard'] as const)
  test(`a figure winds up, flies left while it changes shape, overshoots, and comes back turning by −300°, by ${hand}`, async ({
    piece,
    shelf,
    page,
    context,
  }) => {
    const press = (target: Locator): Promise<void> => (hand === 'mouse' ? target.click() : target.press('Enter'));
    await shelf.open();
    await shelf.newPiece();
    if (hand === 'mouse') await piece.drop(TWO);
    else {
      await context.grantPermissions(['clipboard-read', 'clipboard-write']);
      for (const { text } of TWO) await piece.pasteByKeys(text);
    }
    await expect(piece.cards).toHaveCount(2);
    if (hand === 'mouse') await page.getByText('Return to the first').click();
    else await page.getByRole('radio', { name: 'Return to the first' }).press('Space');
    await expect(piece.cards).toHaveCount(3);
    await press(piece.cards.nth(1));
    const x = Number(await piece.number('Middle X').inputValue());
    await piece.setNumber('Middle X', String(x - 200));
    await press(piece.cards.nth(2));
    await piece.setNumber('Rotation', '-300');
    await page.keyboard.press('3');
    const position = page.getByRole('group', { name: /^Position of / });
    await press(position.getByRole('button', { name: /X of .*\(pose 1\): 0/ }));
    await press(page.getByRole('button', { name: 'Wind up and settle' }));
    await expect(position.locator('.lane-block.free')).toHaveCount(4);
    const stored = await piece.storedWith(({ lanes }) =>
      Object.values(lanes).some(({ keys }) => keys.some(({ after }) => after !== null)),
    );
    const lane = (property: string) => Object.values(stored.lanes).find((each) => each.property === property);
    const xs = lane('position')?.keys.map(({ value }) => Math.round(value[0]));
    expect(xs?.slice().sort((p, q) => p - q)).toEqual([-220, -200, 0, 0, 30]);
    expect(lane('turn')?.keys.map(({ value }) => value[0])).toEqual([0, 0, -300]);
    // The match does not know of any of it.
    expect(Object.values(stored.poses).every(({ placement }) => placement.rotation === 0)).toBe(true);
    // And both go as one.
    await press(position.locator('.lane-block.free').first());
    await press(page.getByRole('button', { name: 'Remove both keys' }));
    await expect(position.locator('.lane-block.free')).toHaveCount(0);
  });

test('the lanes are as high as they need and grow with what is added, until their edge is dragged', async ({
  piece,
  page,
}) => {
  const height = async (): Promise<number> =>
    Math.round((await page.locator('.timing-lanes').boundingBox())?.height ?? 0);
  const ground = async (): Promise<number> => {
    const rows = await page.locator('.lane-rows').boundingBox();
    const last = await page.locator('.lane-figure').last().boundingBox();
    return Math.round((rows?.y ?? 0) + (rows?.height ?? 0) - (last?.y ?? 0) - (last?.height ?? 0));
  };
  await piece.open('demo-quay-mark', 'timing');
  await expect.poll(height).toBeLessThan(180);
  await expect.poll(ground).toBe(28);
  const few = await height();
  for (const property of ['turn', 'position']) await page.getByLabel('Add a lane to Mark').selectOption(property);
  await expect.poll(height).toBeGreaterThan(few + 40);
  expect(await ground()).toBeGreaterThanOrEqual(0);
  // What goes leaves the others where they are.
  const many = await height();
  await page.keyboard.press('Control+z');
  await expect.poll(ground).toBeGreaterThan(60);
  expect(await height()).toBe(many);
  // In a higher window the picture has what is added, not the ground.
  await page.setViewportSize({ width: 1280, height: 1100 });
  await expect.poll(ground).toBe(28);
  await page.setViewportSize({ width: 1280, height: 800 });
  // Of eight figures no more than two fifths, and what was dragged is kept.
  await piece.open('demo-deckhand', 'timing');
  const room = (await page.locator('.timing-room').boundingBox())?.height ?? 0;
  await expect.poll(async () => Math.abs((await height()) - 0.4 * room)).toBeLessThan(4);
  const edge = await page.getByRole('separator', { name: 'Height of the lanes' }).boundingBox();
  if (!edge) throw new Error('The lanes have no edge.');
  await page.mouse.move(edge.x + 300, edge.y + 2);
  await page.mouse.down();
  await page.mouse.move(edge.x + 300, edge.y + 62, { steps: 5 });
  await page.mouse.up();
  await expect.poll(height).toBeLessThan(0.4 * room - 50);
  const dragged = await height();
  await expect.poll(() => page.evaluate(() => localStorage.getItem('arcshift.lanes-share'))).not.toBeNull();
  await page.reload();
  await expect.poll(height).toBeGreaterThan(dragged - 4);
  expect(await height()).toBeLessThan(dragged + 4);
});

test('onion skins show moments before and after, not while it plays; slow motion plays the same frames', async ({
  piece,
  page,
}) => {
  await piece.open('demo-quay-mark', 'timing');
  await piece.matched();
  for (let i = 0; i < 7; i++) await page.keyboard.press('Shift+ArrowRight');
  const plain = await piece.picture();
  await page.getByLabel('Onion skins').selectOption('2');
  await expect.poll(piece.picture).not.toBe(plain);
  await page.getByLabel('Onion skins').selectOption('0');
  await expect.poll(piece.picture).toBe(plain);
  await page.getByRole('button', { name: 'Full screen' }).click();
  await expect.poll(() => page.evaluate(() => document.fullscreenElement?.className)).toContain('canvas-pane');
  await page.evaluate(() => document.exitFullscreen());
  const from = await piece.seconds();
  await page.getByLabel('Speed').selectOption('0.1');
  await piece.play();
  await page.waitForTimeout(800);
  await piece.pause();
  const slow = (await piece.seconds()) - from;
  expect(slow).toBeGreaterThan(0);
  expect(slow).toBeLessThan(0.5);
});

test('a figure starts later by a drag of its strip and by number, hidden until then; several are set off one after another', async ({
  piece,
  page,
}) => {
  await piece.open('demo-quay-mark', 'timing');
  const block = page.locator('.lane-poses rect').first();
  const box = await block.boundingBox();
  if (!box) throw new Error('There is no strip.');
  await page.mouse.move(box.x + 10, box.y + 4);
  await page.mouse.down();
  await page.mouse.move(box.x + 70, box.y + 4, { steps: 4 });
  await page.mouse.up();
  const stored = await piece.storedWith(({ figures }) => Object.values(figures).some(({ start }) => start > 0));
  const [figure] = Object.values(stored.figures);
  expect(Math.abs(figure.start * 60 - Math.round(figure.start * 60))).toBeLessThan(1e-3);
  await piece.cards.first().click();
  await piece.setNumber('Starts at', '0.5');
  const seen = await piece.picture();
  await page.getByLabel('Appears', { exact: true }).selectOption({ label: 'At once' });
  await page.keyboard.press('Escape');
  for (let i = 0; i < 4; i++) await page.keyboard.press('Shift+ArrowLeft');
  await expect.poll(piece.picture).not.toBe(seen);
  const hidden = await piece.storedWith(({ figures }) => Object.values(figures)[0].before === 'hidden');
  expect(Object.values(hidden.figures)[0].start).toBe(0.5);
  // Copies of it, one after the other.
  await page.keyboard.press('1');
  await page.getByRole('button', { name: 'Figure Mark' }).click();
  await page.getByRole('button', { name: 'Duplicate figures' }).click();
  await page.getByRole('button', { name: 'Figure Mark', exact: true }).click({ modifiers: ['Control'] });
  await page.getByRole('tab', { name: 'Arrange' }).click();
  await piece.setNumber('Apart', '9');
  await page.getByRole('button', { name: 'Set off' }).click();
  const apart = await piece.storedWith(
    ({ figures }) => new Set(Object.values(figures).map(({ start }) => start)).size === 2,
  );
  const starts = apart.figureOrder.map((id) => apart.figures[id].start);
  expect(starts).toEqual([0.5, 0.65]);
});

test('ways of points are shown a dot a frame: of some of the figure, of the chosen shift, of the chosen points', async ({
  piece,
  page,
}) => {
  await piece.open('demo-quay-mark', 'timing');
  await piece.matched();
  const ways = page.getByTestId('point-paths');
  await expect(ways).toHaveCount(0);
  await page.getByRole('checkbox', { name: 'Paths of points' }).check();
  const count = (part: string): Promise<number> =>
    ways.locator(part).evaluate((path) => (path.getAttribute('d') ?? '').split('M').length - 1);
  await expect.poll(() => count('.point-line')).toBeGreaterThan(30);
  const all = await count('.point-dots');
  await piece.arcs.first().click();
  await expect.poll(() => count('.point-dots')).toBeLessThan(all / 2);
  // Of one point that is chosen there is one way.
  await page.getByRole('link', { name: 'Shapes' }).click();
  await piece.cards.first().click();
  await page.getByRole('button', { name: 'Points', exact: true }).click();
  await page.getByTestId('canvas').focus();
  await page.keyboard.press('Tab');
  await page.getByRole('link', { name: 'Timing' }).click();
  await expect(ways).toHaveCount(1);
});
