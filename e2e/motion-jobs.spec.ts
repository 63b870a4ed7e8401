import { checkPiece, nearestOnContour, type Piece, planAndCompile, prepareFrame, sampleFrame } from '@core';
import type { Locator, Page } from '@playwright/test';
import { realIcons } from '../core/src/testing/icons';
import type { PiecePage } from './pages/piece-page';
import type { ShelfPage } from './pages/shelf-page';
import { expect, test } from './support/fixtures';

const svg = (body: string): string => `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 24 24">${body}</svg>`;
const DISC = { name: 'disc.svg', text: svg('<path fill="#d02040" d="M4 12a8 8 0 1 0 16 0a8 8 0 1 0 -16 0Z"/>') };
const SAIL = { name: 'sail.svg', text: svg('<path fill="#2040d0" d="M12 2C16 6 19 12 20 20H4C7 14 10 8 12 2Z"/>') };

/** Gives an owner a lane in the Timing room; its details are open then. */
async function addLane(page: Page, owner: string, label: string): Promise<void> {
  await page.getByLabel(`Add a lane to ${owner}`).selectOption({ label });
}
/** Begins a piece with the rectangle at hand; the middle of its canvas. */
async function takeRectangle(shelf: ShelfPage, piece: PiecePage, page: Page): Promise<[number, number]> {
  await shelf.open();
  await shelf.newPiece();
  await page.getByRole('button', { name: 'Shape', exact: true }).click();
  await page.getByRole('radio', { name: 'Rectangle' }).click();
  const box = await piece.canvas.boundingBox();
  if (!box) throw new Error('There is no canvas.');
  return [box.x + box.width / 2, box.y + box.height / 2];
}
/** The lanes of an owner. */
const lanesOf = (page: Page, owner: string): Locator =>
  page.getByRole('group', { name: `Lanes of ${owner}`, exact: true });

/** Colours of a point of the canvas as it is shown. */
async function colourAt(page: Page, x: number, y: number): Promise<readonly number[]> {
  return page.evaluate(
    ([px, py]) => {
      const canvas = document.querySelector('.canvas-pane canvas') as HTMLCanvasElement;
      const density = window.devicePixelRatio;
      const context = canvas.getContext('2d');
      return [...(context?.getImageData(px * density, py * density, 1, 1).data ?? [])];
    },
    [x, y],
  );
}

for (const hand of ['mouse', 'keyboard'] as const)
  test(`eight real icons in one chain with holds, eased, brought to 12 frames a second and back, by ${hand}`, async ({
    piece,
    shelf,
    page,
    context,
  }) => {
    await shelf.open();
    await shelf.newPiece();
    const icons = realIcons(8).map(({ name, d }) => ({ name: `${name}.svg`, text: svg(`<path d="${d}"/>`) }));
    if (hand === 'mouse') await piece.drop(icons);
    else {
      await context.grantPermissions(['clipboard-read', 'clipboard-write']);
      for (const [i, { text }] of icons.entries()) {
        await piece.pasteByKeys(text);
        await expect(piece.cards).toHaveCount(i + 1);
      }
    }
    await expect(piece.cards).toHaveCount(8);
    await piece.matched();
    // All shifts are chosen and get one easing.
    await piece.arcs.first().press('Enter');
    await piece.arcs.last().press('Shift+Enter');
    if (hand === 'mouse') await page.getByLabel('Kind').selectOption({ label: 'Spring' });
    else
      for (const kind of ['linear', 'spring']) {
        await page.getByLabel('Kind').press('ArrowDown');
        await expect(page.getByLabel('Kind')).toHaveValue(kind);
      }
    const before = await piece.stored();
    expect(Object.values(before.shifts).map(({ easing }) => easing.kind)).toEqual(Array(7).fill('spring'));
    await page.keyboard.press('Escape');
    await page.keyboard.press('3');
    // Nothing is chosen: the details are those of the piece, in the room of time.
    await expect(page.getByRole('region', { name: 'Lanes' })).toBeVisible();
    const frames = page.getByText('Frame numbers', { exact: true });
    if (hand === 'mouse') await frames.click();
    else await page.getByRole('radio', { name: 'Frame numbers' }).press('Space');
    await expect(page.getByRole('radio', { name: 'Frame numbers' })).toBeChecked();
    await page.getByLabel('Rate', { exact: true }).selectOption('12/1');
    const slow = await piece.storedWith(({ canvas }) => canvas.rate.num === 12);
    const factor = before.canvas.rate.num / 12;
    for (const { id, hold } of Object.values(before.poses)) expect(slow.poses[id].hold).toBeCloseTo(factor * hold, 5);
    await page.getByLabel('Rate', { exact: true }).selectOption('60/1');
    const again = await piece.storedWith(({ canvas }) => canvas.rate.num === 60);
    for (const { id, hold } of Object.values(before.poses)) expect(again.poses[id].hold).toBeCloseTo(hold, 5);
  });

test('the background follows a figure in the complementary colour, in two actions', async ({ piece, shelf, page }) => {
  await shelf.open();
  await shelf.newPiece();
  await piece.drop([DISC, SAIL]);
  await expect(piece.cards).toHaveCount(2);
  await piece.matched();
  await page.keyboard.press('3');
  await addLane(page, 'the canvas', 'Background');
  await page.getByLabel('Follows').selectOption({ label: 'Figure 1: Fill, complementary' });
  const stored = await piece.storedWith(({ lanes }) => Object.values(lanes).some(({ follow }) => follow));
  const [lane] = Object.values(stored.lanes);
  expect([lane.figure, lane.property, lane.follow?.colour]).toEqual([null, 'background', 'complementary']);
  // A corner of the canvas: greenish blue behind red; another one behind blue.
  const box = await page.locator('.canvas-pane').boundingBox();
  const middle = (box?.width ?? 0) / 2;
  const corner = (): Promise<readonly number[]> => colourAt(page, middle - 80, 40);
  const [red, green] = await corner();
  expect(green).toBeGreaterThan(red + 40);
  await page.keyboard.press('.');
  await expect.poll(corner).not.toEqual([red, green]);
  await page.keyboard.press('Control+z');
  await piece.storedWith(({ lanes }) => Object.values(lanes).every(({ follow }) => !follow));
});

test('a saw-tooth pulse every 15 frames from frame 40 on', async ({ piece, page }) => {
  await piece.open('demo-boarding-button', 'timing');
  const owner = (await page.locator('.lane-name').first().textContent()) ?? '';
  await addLane(page, owner, 'Rotation');
  await page.getByRole('group', { name: 'Repeat as a beat' }).getByText('Yes').click();
  await page.getByLabel('Beat').selectOption({ label: 'Out evenly, back at once' });
  await piece.setNumber('By', '30');
  await piece.setNumber('Every', String(15 / 60));
  await piece.setNumber('From', String(40 / 60));
  await expect(page.getByText('40 fr')).toBeVisible();
  const stored = await piece.storedWith(({ lanes }) =>
    Object.values(lanes).some(({ pulse }) => pulse?.shape === 'saw' && pulse.from > 0.6),
  );
  const lane = Object.values(stored.lanes).find(({ pulse }) => pulse);
  expect(lane?.pulse?.amount).toEqual([30]);
  expect([lane?.pulse?.period, lane?.pulse?.from].map((v) => Math.round((v ?? 0) * 60))).toEqual([15, 40]);
  // The lane shows its teeth: up, and down at once.
  const edge = await lanesOf(page, owner).locator('.lane-graph [data-key="edge-0"]').getAttribute('d');
  const heights = (edge ?? '')
    .slice(1)
    .split('L')
    .map((pair) => Number(pair.split(' ')[1]));
  expect(heights.filter((y, i) => i > 0 && y - heights[i - 1] > 15).length).toBeGreaterThanOrEqual(2);
});

test('a glance along a curved path: curved in one press, bent on the canvas, and the figure turns along it', async ({
  piece,
  shelf,
  page,
}) => {
  await shelf.open();
  await shelf.newPiece();
  await piece.drop([DISC, SAIL]);
  await expect(piece.cards).toHaveCount(2);
  await piece.cards.nth(1).click();
  await piece.setNumber('Middle X', '500');
  await page.keyboard.press('3');
  const lane = page.getByRole('group', { name: 'Position of Figure 1' });
  await lane.getByRole('button').first().click();
  await page.getByRole('button', { name: 'Curve the way to the next' }).click();
  const curved = await piece.storedWith(({ lanes }) =>
    Object.values(lanes).some(({ keys }) => keys.some(({ path }) => path?.in)),
  );
  const pathOf = (stored: typeof curved) => Object.values(stored.lanes).find(({ property }) => property === 'position');
  const before = pathOf(curved)?.keys[0].path?.out ?? [0, 0];
  // The first handle is drawn down by 60 px.
  const handle = page.locator('.motion-path circle').first();
  const box = await handle.boundingBox();
  if (!box) throw new Error('Expected a handle on the picture.');
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2, box.y + 30, { steps: 3 });
  await page.mouse.move(box.x + box.width / 2, box.y + 60, { steps: 3 });
  await page.mouse.up();
  const bent = await piece.storedWith((stored) => (pathOf(stored)?.keys[0].path?.out?.[1] ?? 0) > before[1] + 20);
  expect(pathOf(bent)?.keys[0].path?.out?.[0]).toBeCloseTo(before[0], 0);
  await page.getByRole('group', { name: 'The figure' }).getByText('Points along the path').click();
  await piece.storedWith((stored) => pathOf(stored)?.along === true);
  // Keys of the path go by arrow keys.
  await page.getByRole('button', { name: 'Key 2 on the path' }).focus();
  await page.keyboard.press('Shift+ArrowUp');
  await piece.storedWith((stored) => pathOf(stored)?.keys[1].value[1] === (pathOf(bent)?.keys[1].value[1] ?? 0) - 10);
  await page.getByRole('button', { name: 'Straighten' }).click();
  await piece.storedWith((stored) => !pathOf(stored)?.keys[0].path?.out);
});

test('a companion grows from its middle while the shape changes, and goes again', async ({ piece, page }) => {
  await piece.open('demo-gate', 'timing');
  await page.keyboard.press('1');
  await page.keyboard.press('Escape');
  const gate = await piece.stored();
  const figure = Object.keys(gate.figures)[0];
  await page.getByRole('button', { name: 'Shape', exact: true }).click();
  await page.getByRole('radio', { name: 'Ellipse' }).click();
  const box = await piece.canvas.boundingBox();
  if (!box) throw new Error('There is no canvas.');
  await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2);
  const withDisc = await piece.storedWith(({ figures }) => Object.keys(figures).length === 2);
  const disc = Object.keys(withDisc.figures).find((id) => id !== figure) ?? '';
  await page.keyboard.press('3');
  await piece.cards.first().click();
  await page.getByRole('tab', { name: 'Pose' }).click();
  await page.getByLabel('Appears', { exact: true }).selectOption({ label: 'Growing' });
  await page.getByLabel('Disappears').selectOption({ label: 'Shrinking' });
  await piece.setNumber('Starts at', '1');
  const stored = await piece.storedWith(({ figures }) => figures[disc].start === 1);
  const scale = Object.values(stored.lanes).find((lane) => lane.figure === disc && lane.property === 'scale');
  expect(scale?.keys.filter(({ value }) => value.every((v) => v === 0))).toHaveLength(2);
  expect([stored.figures[disc].before, stored.figures[disc].after]).toEqual(['hidden', 'hidden']);
  await expect(page.getByRole('group', { name: /Scale of/ })).toBeVisible();
});

test('three dots start as one, and after an intro pulse one after another for ever', async ({ piece, page }) => {
  await piece.open('demo-fog-loader', 'timing');
  const stored = await piece.stored();
  expect(stored.playback).toBe('stretch');
  // Played, it comes to the stretch and never leaves it.
  await page.getByRole('region', { name: 'Canvas' }).waitFor();
  await piece.play();
  await expect.poll(piece.seconds, { timeout: 12_000 }).toBeGreaterThan(4.2);
  const [from, until] = [stored.stretch?.from.after ?? 0, stored.stretch?.until.after ?? 0];
  const seen: number[] = [];
  for (let i = 0; i < 12; i++) {
    await page.waitForTimeout(150);
    seen.push(await piece.seconds());
  }
  expect(Math.max(...seen)).toBeLessThanOrEqual(until + 0.02);
  expect(seen.some((t, i) => i > 0 && t < seen[i - 1])).toBe(true);
  const later = seen.slice(seen.findIndex((t, i) => i > 0 && t < seen[i - 1]));
  for (const t of later) expect(t).toBeGreaterThanOrEqual(from - 0.02);
  await piece.pause();
  // Another way of playing is one choice, and can be undone.
  await page.getByRole('region', { name: 'Canvas' }).click({ position: { x: 6, y: 6 } });
  await page.getByLabel('At the end the piece').selectOption({ label: 'Goes back and forth' });
  await piece.storedWith(({ playback }) => playback === 'back');
  await page.keyboard.press('Control+z');
  await piece.storedWith(({ playback }) => playback === 'stretch');
});

test('keys are chosen by a box, moved together, copied to another figure, and removed', async ({ piece, page }) => {
  await piece.open('demo-deckhand', 'timing');
  const lanes = lanesOf(page, 'Brows');
  await lanes.scrollIntoViewIfNeeded();
  const graph = lanes.getByRole('group', { name: 'Position of Brows' });
  const box = await graph.boundingBox();
  if (!box) throw new Error('Expected the lane of the brows.');
  await page.keyboard.down('Shift');
  await page.mouse.move(box.x + 4, box.y + 2);
  await page.mouse.down();
  await page.mouse.move(box.x + 900, box.y + 60, { steps: 5 });
  await page.mouse.up();
  await page.keyboard.up('Shift');
  await expect(page.getByRole('heading', { name: '4 keys' })).toBeVisible();
  const before = await piece.stored();
  const keysOf = (stored: typeof before, name: string) => {
    const figure = Object.values(stored.figures).find((each) => each.name === name);
    const lane = Object.values(stored.lanes).find((each) => each.figure === figure?.id && each.property === 'position');
    return lane?.keys.map(({ after, value }) => [after, ...value]) ?? [];
  };
  await graph.getByRole('button').first().focus();
  await page.keyboard.press('Shift+ArrowRight');
  const moved = keysOf(before, 'Brows').map(([after, x, y]) => [+((after ?? 0) + 10 / 60).toFixed(6), x, y]);
  const later = await piece.storedWith((stored) => keysOf(stored, 'Brows')[0][0] === moved[0][0]);
  expect(keysOf(later, 'Brows')).toEqual(moved);
  await page.keyboard.press('Control+c');
  await page.locator('.lane-name', { hasText: 'Mouth' }).click();
  await page.keyboard.press('Control+v');
  const pasted = await piece.storedWith((stored) => keysOf(stored, 'Mouth').length > 4);
  expect(keysOf(pasted, 'Mouth').filter(([, , y]) => y === -16)).toHaveLength(2);
  await page.keyboard.press('Control+z');
  await piece.storedWith((stored) => keysOf(stored, 'Mouth').length === 0);
});

test('corners are rounded from a square to a disc by their numbers, chosen in the Match room', async ({
  piece,
  shelf,
  page,
}) => {
  const [x, y] = await takeRectangle(shelf, piece, page);
  await page.mouse.click(x, y);
  await expect(piece.figures).toHaveCount(1);
  await piece.cards.first().click();
  await page.keyboard.press('Control+d');
  await expect(piece.cards).toHaveCount(2);
  await piece.cards.nth(1).click();
  await page.getByRole('tab', { name: 'Outline' }).click();
  for (const corner of ['top left', 'top right', 'bottom right', 'bottom left'])
    await piece.setNumber(`Radius ${corner}`, '90');
  await piece.matched();
  await page.keyboard.press('2');
  await page.getByText('By its numbers', { exact: true }).click();
  const stored = await piece.storedWith(({ shifts }) =>
    Object.values(shifts).some(({ method }) => method === 'numbers'),
  );
  expect(Object.values(stored.shifts)).toHaveLength(1);
  await expect(page.getByText('An adjustable shape goes by its numbers')).toBeVisible();
  await page.keyboard.press('Control+z');
  await piece.storedWith(({ shifts }) => Object.values(shifts).every(({ method }) => method === 'auto'));
});

test('numbers of a shape over time: a lane of its width is added, dragged by its handle on the canvas, pulses, and goes out', async ({
  piece,
  shelf,
  page,
}) => {
  const [x, y] = await takeRectangle(shelf, piece, page);
  await page.mouse.move(x - 60, y - 40);
  await page.mouse.down();
  await page.mouse.move(x + 60, y + 40, { steps: 4 });
  await page.mouse.up();
  await page.keyboard.press('Escape');
  await expect(piece.figures).toHaveCount(1);
  await piece.cards.first().click();
  await page.keyboard.press('Control+d');
  await expect(piece.cards).toHaveCount(2);
  const width = (stored: Piece): number[] =>
    Object.values(stored.lanes)
      .filter(({ property }) => property === 'rectangle.width')
      .flatMap(({ keys }) => keys.map(({ value }) => value[0]));

  // The lane is offered because there is such a shape, and begins with what the shape has.
  await page.keyboard.press('3');
  await page.getByLabel('Add a lane to Rectangle').selectOption({ label: 'Rectangle: Width' });
  await expect(page.getByRole('heading', { name: 'Rectangle: Width' })).toBeVisible();
  const lane = page.getByRole('group', { name: 'Rectangle: Width of Rectangle' });
  await lane.getByRole('button', { name: /pose 2/ }).click();
  await piece.setNumber('Width', '300');
  await piece.storedWith((stored) => width(stored)[1] === 300);

  // The card on the rail shows the shape as it is seen at its stop.
  const card = (stop: number) => piece.cards.nth(stop).locator('path').first();
  await expect(card(1)).not.toHaveAttribute('d', String(await card(0).getAttribute('d')));

  // In the other room the shape is as the lane has it there, and its fields and handles set the lane.
  await page.keyboard.press('1');
  await piece.cards.nth(1).click();
  await page.getByRole('tab', { name: 'Outline' }).click();
  await expect(piece.number('Width')).toHaveValue('300');
  const [own] = width(await piece.storedWith(() => true));
  await piece.setNumber('Width', '240');
  let stored = await piece.storedWith((now) => width(now)[1] === 240);
  expect(Object.values(stored.parts).map(({ source }) => source && 'width' in source && source.width)).toEqual([
    own,
    own,
  ]);
  // Its lower right corner, as wide as it is here.
  const corner = x + (60 * 240) / own;
  await page.mouse.move(corner, y + 40);
  await page.mouse.down();
  await page.mouse.move(corner + 30, y + 40, { steps: 4 });
  await page.mouse.up();
  stored = await piece.storedWith((now) => width(now)[1] > 241);
  expect(width(stored)[0]).toBe(own);
  await page.keyboard.press('Control+z');
  await piece.storedWith((now) => width(now)[1] === 240);
  await piece.cards.first().click();
  await expect(piece.number('Width')).toHaveValue(String(+own.toFixed(2)));

  // It pulses between its keys, and what goes out shows all of it.
  await page.keyboard.press('3');
  await page.getByRole('button', { name: 'Rectangle: Width px' }).click();
  await page.getByRole('group', { name: 'Repeat as a beat' }).getByText('Yes').click();
  await piece.setNumber('By', '-60');
  await piece.storedWith((now) => Object.values(now.lanes).some(({ pulse }) => pulse?.amount[0] === -60));
  await page.getByRole('link', { name: 'Output' }).click();
  await page.getByRole('button', { name: 'Make and prove' }).click();
  await expect(page.getByRole('button', { name: 'Proved' })).toBeVisible();
});

test('a line and its area return to their start, and their edges stay on each other on the way', async ({
  piece,
  page,
}) => {
  await piece.open('demo-tide-gauge');
  const rails = async () => Object.values((await piece.stored()).figures).map(({ rail }) => rail.length);
  await piece.saved();
  expect(await rails()).toEqual([3, 3]);
  // Its return is opened and closed again: both figures have their ways back, of the same length.
  await page.getByRole('button', { name: 'Figure Water' }).click();
  await page.keyboard.press('Escape');
  const end = page.getByRole('group', { name: 'After the last pose' });
  await end.getByText('Stop there', { exact: true }).click();
  await piece.storedWith(({ figures }) => Object.values(figures).some(({ rail }) => rail.length === 2));
  await page.keyboard.press('Control+z');
  await piece.storedWith(({ figures }) => Object.values(figures).every(({ rail }) => rail.length === 3));
  await piece.matched();
  expect(await rails()).toEqual([3, 3]);
  const stored = await piece.stored();
  for (const figure of Object.values(stored.figures)) {
    const [first, last] = [stored.shifts[figure.rail[0]], stored.shifts[figure.rail[2]]];
    expect(last.to).toBe(first.from);
  }
  // On the way every point of the line lies on the edge of the area, and the last frame before the loop closes is all but the first.
  const compiled = planAndCompile(checkPiece(stored));
  const frame = prepareFrame(compiled);
  const pointsAt = (seconds: number): number[][] =>
    sampleFrame(compiled, seconds, frame).figures.map(({ parts: [part] }) => [...part.points]);
  for (let seconds = 0.1; seconds < compiled.duration; seconds += 0.37) {
    const [area, line] = pointsAt(seconds);
    for (let i = 0; i < line.length; i += 6) {
      const contour = { points: Float64Array.from(area), closed: true };
      expect(nearestOnContour(contour, line[i], line[i + 1])?.distance).toBeLessThan(0.05);
    }
  }
  const [[, y0], [, y1]] = [pointsAt(0)[1], pointsAt(compiled.duration - 1e-4)[1]];
  expect(Math.abs(y0 - y1)).toBeLessThan(0.05);
});
