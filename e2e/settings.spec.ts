import { realIcons } from '../core/src/testing/icons';
import { expect, test } from './support/fixtures';

const icons = realIcons(3, 97).map(({ name, svg }) => ({ name: `${name}.svg`, text: svg }));

test('canvas, rate and end of the piece are set, kept, and undone', async ({ piece, page }) => {
  await piece.open('demo-quay-mark');
  const before = await piece.stored();
  await piece.setNumber('Width', '800');
  await page.getByLabel('Rate', { exact: true }).selectOption('24000/1001');
  await page.getByLabel('At the end the piece').selectOption({ label: 'Stops' });
  await page.getByRole('group', { name: 'Background' }).getByText('Transparent', { exact: true }).click();
  const after = await piece.stored();
  expect(after.canvas).toMatchObject({ width: 800, rate: { num: 24000, den: 1001 }, background: null });
  expect(after.playback).toBe('once');
  // What was placed by hand keeps its distance from the middle.
  for (const [id, pose] of Object.entries(after.poses))
    expect(pose.placement.x).toBe(before.poses[id].placement.x + 80);
  for (let i = 0; i < 4; i++) await page.keyboard.press('Control+z');
  expect(await piece.stored()).toEqual(before);
});

test('the way back to the first pose is taken off and put back', async ({ piece, page }) => {
  await piece.open('demo-quay-mark');
  await expect(piece.arcs).toHaveCount(3);
  await page.getByRole('group', { name: 'After the last pose' }).getByText('Stop there').click();
  await expect(piece.arcs).toHaveCount(2);
  await page.getByText('Return to the first').click();
  await expect(piece.arcs).toHaveCount(3);
  await expect(piece.cards.last()).toHaveAttribute('aria-label', /way back to the beginning/);
});

test('arriving shapes: the bar changes their rule, and the rule is remembered for the next ones', async ({
  shelf,
  piece,
  page,
}) => {
  await shelf.open();
  await shelf.newPiece();
  await piece.drop(icons.slice(0, 2));
  const bar = page.getByTestId('arrival');
  await expect(bar).toContainText(
    '2 poses arrived, one after another: centred by area, longest side as the pose before.',
  );
  await bar.getByRole('button', { name: 'change' }).click();
  const dialog = page.getByRole('dialog', { name: 'What arrived' });
  await dialog.getByLabel('Centred').selectOption('box');
  await dialog.getByRole('button', { name: 'Arrange' }).click();
  await expect(bar).toContainText('centred by box');
  await bar.getByRole('button', { name: 'Close' }).click();
  await piece.drop(icons.slice(2));
  await expect(bar).toContainText('One pose arrived: centred by box');
  const { poses } = await piece.stored();
  expect(Object.values(poses).map(({ placement }) => placement.rule?.centre)).toEqual(['box', 'box', 'box']);
});

test('what is done to a pose by number lies on top of its rule, is told, and is taken back', async ({
  shelf,
  piece,
  page,
}) => {
  await shelf.open();
  await shelf.newPiece();
  await piece.drop(icons.slice(0, 2));
  await piece.cards.nth(1).click();
  const scale = await piece.number('Scale').inputValue();
  await piece.setNumber('Scale', String(Number(scale) / 2));
  await piece.setNumber('Rotation', '-300');
  await expect(page.getByTestId('added-motion')).toContainText('By hand, on top of that: −300°; × 0.5.');
  await expect(page.getByLabel('Centred')).toHaveValue('area');
  await page.getByRole('button', { name: 'Take it back' }).click();
  await expect(piece.number('Scale')).toHaveValue(scale);
  await expect(piece.number('Rotation')).toHaveValue('0');
  await expect(page.getByTestId('added-motion')).toHaveCount(0);
});

test('dragging a hold can be left by Escape, and moves nothing for good', async ({ piece, page }) => {
  await piece.open('demo-quay-mark');
  const before = await page.locator('[data-key="bar-0"]').getAttribute('width');
  const edge = await page.locator('[data-key="edge-0"]').boundingBox();
  if (!edge) throw new Error('There is no bar.');
  await page.mouse.move(edge.x + 5, edge.y + 12);
  await page.mouse.down();
  await page.mouse.move(edge.x + 80, edge.y + 12, { steps: 4 });
  expect(Number(await page.locator('[data-key="bar-0"]').getAttribute('width'))).toBeGreaterThan(Number(before) + 50);
  await page.keyboard.press('Escape');
  await page.mouse.up();
  await expect(page.locator('[data-key="bar-0"]')).toHaveAttribute('width', before ?? '');
  await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled();
});

test('the bead runs while it plays, and React does not render for it', async ({ piece, page }) => {
  await piece.open('demo-quay-mark');
  await piece.matched();
  const changes = await page.evaluate(async () => {
    const touched = new Set<string>();
    const observer = new MutationObserver((records) => {
      for (const { target, type } of records)
        touched.add(
          type === 'childList'
            ? 'tree'
            : ((target as Element).getAttribute('data-key') ?? (target as Element).className.toString()),
        );
    });
    (document.querySelector('.status-button.play') as HTMLButtonElement).click();
    await new Promise((resolve) => setTimeout(resolve, 300));
    observer.observe(document.querySelector('.rail') as Element, { subtree: true, childList: true, attributes: true });
    await new Promise((resolve) => setTimeout(resolve, 600));
    return [...touched];
  });
  expect(changes).toEqual(['bead']);
});

test('theme and decimals: the one is remembered, the other changes the size of the file', async ({ piece, page }) => {
  await piece.open('demo-boarding-button', 'output');
  const size = page.getByTestId('output-size');
  await expect(size).toContainText(/\d/);
  const two = await size.textContent();
  await page.getByRole('group', { name: 'Decimals of coordinates' }).getByText('1', { exact: true }).click();
  await expect(size).not.toHaveText(two ?? '');
  await page.getByRole('button', { name: 'Dark theme' }).click();
  await page.reload();
  await expect(page.locator('html')).toHaveAttribute('data-bs-theme', 'dark');
});

test('arriving outlines that are open by a little are told, and closed by one press; each size of drawing has its offer', async ({
  piece,
  page,
  shelf,
}) => {
  await shelf.open();
  await shelf.newPiece();
  const file = (name: string, size: number, d: string) => ({
    name,
    text: `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${size} ${size}" width="${size}" height="${size}"><path fill="none" stroke="#204060" stroke-width="3" d="${d}"/></svg>`,
  });
  await piece.drop([
    file('a.svg', 100, 'M10 10L90 10L90 90L10 90L10 11'),
    file('b.svg', 50, 'M10 10L40 10L40 40L10 40L10 10.5'),
  ]);
  const bar = page.getByTestId('arrival');
  await bar.getByRole('button', { name: 'change' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByText('Drawing 100 × 100 px, canvas 640 × 640')).toBeVisible();
  await expect(dialog.getByText('Drawing 50 × 50 px, canvas 640 × 640')).toBeVisible();
  await dialog.getByText('Scale drawing').nth(1).click();
  await dialog.getByRole('button', { name: 'Arrange' }).click();
  await bar.getByRole('button', { name: 'Close 2 small gaps' }).click();
  await expect(bar.getByRole('button', { name: /small gap/ })).toHaveCount(0);
  const stored = await piece.stored();
  const poses = stored.figures[stored.figureOrder[0]].poses.map((id) => stored.poses[id]);
  expect(poses.map(({ placement }) => placement.rule === null)).toEqual([false, true]);
  expect(poses[1].placement.scaleX).toBeCloseTo(12.8, 6);
  expect(poses.flatMap(({ parts }) => parts.map((id) => stored.parts[id].contours[0].closed))).toEqual([true, true]);
});
