import { expect, test } from './support/fixtures';
import { svg } from './support/match-pieces';

/** Four bars of different lengths, named a to d. */
const BARS = ['a', 'b', 'c', 'd'].map((name, i) => ({
  name: `${name}.svg`,
  text: svg(`M0 0h${60 + 10 * i}v40h-${60 + 10 * i}z`),
}));

test('several poses and shifts are chosen by keys, range and box; hold, duration and easing go to all', async ({
  piece,
  page,
  shelf,
}) => {
  await shelf.open();
  await shelf.newPiece();
  await piece.drop(BARS);
  await expect(piece.cards).toHaveCount(4);
  await piece.matched();
  const details = page.getByRole('complementary', { name: 'Details' });
  const heading = details.getByRole('heading', { level: 2 });

  // A range of poses, and one out of it.
  await piece.cards.nth(0).click();
  await piece.cards.nth(2).click({ modifiers: ['Shift'] });
  await expect(heading).toHaveText('3 poses');
  await piece.cards.nth(1).click({ modifiers: ['ControlOrMeta'] });
  await expect(heading).toHaveText('2 poses');
  await piece.setNumber('Hold', '0.3');
  const holds = async (): Promise<number[]> => {
    const stored = await piece.stored();
    return stored.figures[stored.figureOrder[0]].poses.map((id) => stored.poses[id].hold);
  };
  await piece.saved();
  expect(await holds()).toEqual([0.3, 0.8, 0.3, 0.8]);

  // Shifts by keyboard.
  await piece.arcs.nth(0).focus();
  await page.keyboard.press('Enter');
  await piece.arcs.nth(2).focus();
  await page.keyboard.press('Shift+Enter');
  await expect(heading).toHaveText('3 shifts');
  await piece.setNumber('Duration', '0.25');
  await details.getByRole('button', { name: 'Swing', exact: true }).click();
  await piece.saved();
  const shifts = async () => {
    const stored = await piece.stored();
    return stored.figures[stored.figureOrder[0]].rail.map((id) => stored.shifts[id]);
  };
  expect((await shifts()).map(({ duration }) => duration)).toEqual([0.25, 0.25, 0.25]);
  for (const { easing } of await shifts())
    expect(easing).toEqual({ kind: 'cubic-bezier', x1: 0.65, y1: 0, x2: 0.35, y2: 1 });

  // A box beside the cards takes all that it touches.
  const box = await piece.rail.boundingBox();
  const [first, last] = [await piece.cards.nth(0).boundingBox(), await piece.cards.nth(3).boundingBox()];
  if (!box || !first || !last) throw new Error('The rail is not there.');
  await page.mouse.move(box.x + 2, box.y + 60);
  await page.mouse.down();
  await page.mouse.move(last.x + 10, first.y + 20, { steps: 5 });
  await page.mouse.up();
  await expect(heading).toHaveText(/^4 poses/);
});

test('a stretch of poses is reversed, duplicated, copied into another piece and removed, each undone in one step', async ({
  piece,
  page,
  shelf,
}) => {
  await shelf.open();
  await shelf.newPiece();
  await piece.drop(BARS);
  await expect(piece.cards).toHaveCount(4);
  const names = async (): Promise<string[]> =>
    (await piece.cards.all()).reduce<Promise<string[]>>(
      async (all, card) => [...(await all), ((await card.getAttribute('aria-label')) ?? '').split(', ')[1]],
      Promise.resolve([]),
    );
  await piece.cards.nth(1).click();
  await piece.cards.nth(3).click({ modifiers: ['Shift'] });
  await page.getByRole('button', { name: /^Reverse/ }).click();
  expect(await names()).toEqual(['a', 'd', 'c', 'b']);
  await page.keyboard.press('ControlOrMeta+z');
  expect(await names()).toEqual(['a', 'b', 'c', 'd']);

  await piece.cards.nth(1).click();
  await piece.cards.nth(2).click({ modifiers: ['Shift'] });
  await page.keyboard.press('ControlOrMeta+d');
  expect(await names()).toEqual(['a', 'b', 'c', 'b copy', 'c copy', 'd']);
  await page.keyboard.press('Delete');
  expect(await names()).toEqual(['a', 'b', 'c', 'd']);
  await page.keyboard.press('ControlOrMeta+z');
  await page.keyboard.press('ControlOrMeta+z');
  expect(await names()).toEqual(['a', 'b', 'c', 'd']);

  await piece.cards.nth(0).click();
  await piece.cards.nth(1).click({ modifiers: ['ControlOrMeta'] });
  await page.keyboard.press('ControlOrMeta+c');
  await piece.saved();
  await page.getByRole('link', { name: 'To the shelf' }).click();
  await page.getByRole('button', { name: 'New piece' }).click();
  await piece.rail.waitFor();
  await page.keyboard.press('ControlOrMeta+v');
  await expect(piece.cards).toHaveCount(2);
  expect(await names()).toEqual(['a copy', 'b copy']);
});

test('an easing of every kind: chosen, set by its numbers, pasted as CSS, refused with a reason', async ({
  piece,
  page,
}) => {
  await piece.open('demo-boarding-button');
  await piece.selectShift(0);
  const easing = async () => {
    const { figures, figureOrder, shifts } = await piece.stored();
    return shifts[figures[figureOrder[0]].rail[0]];
  };
  const kind = page.getByLabel('Kind');
  await kind.selectOption('spring');
  await piece.setNumber('Bounce by', '60');
  await expect(page.getByTestId('spring-says')).toContainText('It goes 25.4 % beyond its end.');
  // By a body's own numbers the duration follows.
  await page.getByText('Body', { exact: true }).click();
  await piece.setNumber('Spring, N/m', '100');
  await piece.setNumber('Brake, Ns/m', '8');
  const says = (await page.getByTestId('spring-says').textContent()) ?? '';
  const seconds = Number(/At rest after ([\d.]+) s/.exec(says)?.[1]);
  await expect.poll(async () => Math.abs((await easing()).duration - seconds) < 0.006).toBe(true);
  expect((await easing()).easing).toMatchObject({ kind: 'spring', physics: { mass: 1, stiffness: 100, damping: 8 } });
  for (const each of ['elastic', 'bounce', 'back', 'steps', 'hold', 'linear', 'cubic-bezier']) {
    await kind.selectOption(each);
    await expect.poll(async () => (await easing()).easing.kind).toBe(each);
  }
  const css = page.getByLabel('As CSS');
  await css.fill('linear(0, 0.4 20%, 1)');
  await css.press('Enter');
  await expect(kind).toHaveValue('curve');
  await css.fill('wobbly(3)');
  await css.press('Enter');
  await expect(page.getByRole('alert')).toContainText('found “wobbly(3)”');
  await expect(kind).toHaveValue('curve');
  await page.keyboard.press('Control+z');
  await expect(kind).toHaveValue('cubic-bezier');
});

test('a beginner makes disc, square, disc, looping and eased, with the shapes of the program in seven actions', async ({
  piece,
  shelf,
  page,
}) => {
  await shelf.open();
  let actions = 0;
  const press = async (name: string | RegExp): Promise<void> => {
    await page
      .getByRole('button', { name, exact: typeof name === 'string' })
      .first()
      .click();
    actions++;
  };
  await press('New piece');
  await press('Begin with Circle');
  await expect(piece.cards).toHaveCount(1);
  await press('Add a pose');
  await press('Square');
  await expect(piece.cards).toHaveCount(2);
  await press('Add a pose');
  await press(/^Back to the first: it closes the loop/);
  await expect(piece.arcs).toHaveCount(2);
  await press('Play');
  expect(actions).toBeLessThanOrEqual(8);
  await expect(page.getByRole('button', { name: 'Pause', exact: true })).toBeVisible();
  const stored = await piece.stored();
  expect(stored.playback).toBe('loop');
  const shifts = Object.values(stored.shifts);
  expect(shifts.map(({ from, to }) => [from, to])).toEqual([
    [shifts[0].from, shifts[0].to],
    [shifts[0].to, shifts[0].from],
  ]);
  expect(shifts.map(({ easing }) => easing.kind)).toEqual(['cubic-bezier', 'cubic-bezier']);
});

test('the next pose comes from a copy, bigger, from the pen and from a text, without another choice', async ({
  piece,
  page,
}) => {
  await piece.open('demo-boarding-button');
  await page.getByRole('group', { name: 'After the last pose' }).getByText('Stop there').click();
  const count = await piece.cards.count();
  const add = async (name: string | RegExp): Promise<void> => {
    await page.getByRole('button', { name: 'Add a pose' }).focus();
    await page.keyboard.press('Enter');
    await page.getByRole('dialog', { name: 'Add a pose' }).getByRole('button', { name }).click();
  };
  await add('Back to the first, bigger');
  await expect(piece.cards).toHaveCount(count + 1);
  const bigger = await piece.storedWith(({ lanes }) => Object.keys(lanes).length === 1);
  const [lane] = Object.values(bigger.lanes);
  expect([lane.property, lane.keys.at(-1)?.value]).toEqual(['scale', [1.25, 1.25]]);
  expect(lane.keys.slice(0, -1).every(({ value }) => value[0] === 1)).toBe(true);
  await add(/^A copy of/);
  await expect(piece.cards).toHaveCount(count + 2);
  const figures = bigger.figureOrder.length;
  await add('With the pen');
  const box = await piece.canvas.boundingBox();
  if (!box) throw new Error('There is no canvas.');
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  for (const [dx, dy] of [
    [-40, -40],
    [40, -40],
    [0, 50],
    [-40, -40],
  ])
    await page.mouse.click(x + dx, y + dy);
  await expect(piece.cards).toHaveCount(count + 3);
  await add('A text');
  await page.mouse.click(x - 40, y);
  await expect(piece.cards).toHaveCount(count + 4);
  expect((await piece.stored()).figureOrder).toHaveLength(figures);
  // Escape closes the menu and gives the keyboard back to the card.
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Add a pose' }).focus();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog', { name: 'Add a pose' })).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Add a pose' })).toBeFocused();
});

test('the piece is brought to 12 frames a second and back, by its seconds and by its frames, and to another length', async ({
  piece,
  page,
}) => {
  await piece.open('demo-quay-mark');
  const before = await piece.stored();
  const length = Number(await piece.number('Length').inputValue());
  await page.getByLabel('Rate', { exact: true }).selectOption('12/1');
  await expect(piece.number('Length')).toHaveValue(String(length));
  await page.getByLabel('Rate', { exact: true }).selectOption('60/1');
  expect(await piece.storedWith(({ canvas }) => canvas.rate.num === 60)).toEqual(before);
  await page.getByText('Frame numbers', { exact: true }).click();
  await page.getByLabel('Rate', { exact: true }).selectOption('30/1');
  await expect(piece.number('Length')).toHaveValue(String(+(2 * length).toFixed(3)));
  await piece.setNumber('Other rate (fps)', '29.97');
  await expect(page.getByLabel('Rate', { exact: true })).toHaveValue('30000/1001');
  await piece.setNumber('Other rate (fps)', 'fast');
  await expect(page.getByRole('alert')).toContainText('found “fast”. The rate stays as it was.');
  await piece.setNumber('Length', '3');
  const stored = await piece.storedWith(({ canvas }) => canvas.rate.den === 1001);
  expect(stored.canvas.rate).toEqual({ num: 30_000, den: 1_001 });
  await page.getByRole('button', { name: 'Round all times to frames' }).click();
  const snapped = await piece.storedWith(({ poses }) =>
    Object.values(poses).every(
      ({ hold }) => Math.abs((hold * 30_000) / 1_001 - Math.round((hold * 30_000) / 1_001)) < 1e-3,
    ),
  );
  expect(Object.keys(snapped.poses)).toHaveLength(Object.keys(before.poses).length);
  for (let i = 0; i < 6; i++) await page.keyboard.press('Control+z');
  expect(await piece.storedWith(({ canvas }) => canvas.rate.num === 60)).toEqual(before);
});

test('some holds and shifts are made to last so long together; the others stay', async ({ piece }) => {
  await piece.open('demo-quay-mark');
  const before = await piece.stored();
  await piece.cards.first().click();
  await piece.cards.nth(1).click({ modifiers: ['Shift'] });
  await piece.setNumber('Total time', '5');
  const after = await piece.storedWith(({ poses }) => JSON.stringify(poses) !== JSON.stringify(before.poses));
  await expect(piece.number('Total time')).toHaveValue('5');
  const figure = after.figures[after.figureOrder[0]];
  const last = figure.poses[2];
  expect(after.poses[last].hold).toBe(before.poses[last].hold);
  expect(after.poses[figure.poses[0]].hold).toBeGreaterThan(before.poses[figure.poses[0]].hold);
});

test('a pose that is held too short to be read is marked, and held longer by one press', async ({ piece, page }) => {
  await piece.open('demo-boarding-button');
  await piece.cards.first().click();
  await expect(page.locator('.rail-short')).toHaveCount(0);
  await piece.setNumber('Hold', '0.2');
  await expect(page.locator('.rail-short')).toHaveCount(1);
  await expect(page.getByTestId('too-short')).toContainText('A sign needs about 0.36 s to be read.');
  await page.getByRole('button', { name: 'Hold it so long' }).click();
  await expect(page.locator('.rail-short')).toHaveCount(0);
  await expect(piece.number('Hold')).toHaveValue('0.36');
  await piece.storedWith(({ poses }) => Object.values(poses).some(({ hold }) => hold === 0.36));
});

test('an easing is copied to another shift, set aside and compared, kept by name and taken out in another piece', async ({
  piece,
  page,
}) => {
  await piece.open('demo-quay-mark');
  const easings = async () => {
    const stored = await piece.stored();
    return stored.figures[stored.figureOrder[0]].rail.map((id) => stored.shifts[id].easing.kind);
  };
  await piece.selectShift(0);
  await page.getByLabel('Kind').selectOption({ label: 'Bounce' });
  await page.getByRole('button', { name: 'Copy easing' }).click();
  await piece.selectShift(1);
  await page.getByRole('button', { name: 'Paste easing' }).click();
  expect(await easings()).toEqual(['bounce', 'bounce', 'cubic-bezier']);
  // Two candidates run side by side, and change places.
  await page.getByRole('button', { name: 'Compare with …' }).click();
  await page.getByLabel('Kind').selectOption({ label: 'Spring' });
  await expect(page.locator('.easing-run')).toHaveCount(2);
  await page.getByRole('button', { name: 'Swap' }).click();
  expect(await easings()).toEqual(['bounce', 'bounce', 'cubic-bezier']);
  await page.getByRole('button', { name: 'Swap' }).click();
  expect(await easings()).toEqual(['bounce', 'spring', 'cubic-bezier']);
  await page.getByRole('button', { name: 'Discard' }).click();
  await expect(page.locator('.easing-run')).toHaveCount(1);
  await piece.setNumber('Keep as', 'Harbour swell');
  await expect(page.getByRole('group', { name: 'Kept easings' })).toBeVisible();
  await piece.open('demo-gate');
  await piece.selectShift(0);
  await page.getByRole('button', { name: 'Harbour swell', exact: true }).click();
  expect(await easings()).toEqual(['spring', 'cubic-bezier']);
  // It lies in the drawer too, and is thrown away there.
  await page.goto(`${new URL(page.url()).origin}/shapes`);
  const kept = page.getByRole('region', { name: 'Easings' });
  await expect(kept.getByText('Harbour swell')).toBeVisible();
  await kept.getByRole('button', { name: 'Delete the easing Harbour swell' }).click();
  await expect(kept.getByText('None yet.')).toBeVisible();
});

test('strips under the rail: pressed to choose, dragged to begin at another time, their bars for holds, by keys too', async ({
  piece,
  page,
}) => {
  await piece.open('demo-fog-loader', 'shapes');
  const before = await piece.stored();
  const [dot] = Object.values(before.figures).filter(({ name }) => name === 'Dot 1');
  const strip = page.getByRole('button', { name: 'Choose Dot 1' });
  const drag = async (part: string, by: number, keys?: string): Promise<void> => {
    const box = await strip.locator(part).first().boundingBox();
    if (!box) throw new Error(`There is no ${part}.`);
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.mouse.move(x + by / 2, y, { steps: 3 });
    await page.mouse.move(x + by, y, { steps: 3 });
    if (keys) await page.keyboard.press(keys);
    await page.mouse.up();
  };
  await drag('.rail-strip-bar', -60);
  const moved = await piece.storedWith(({ figures }) => figures[dot.id].start < dot.start - 0.05);
  // A whole frame, or where a bar of the chosen figure ends; and it was not chosen.
  await expect(page.getByRole('button', { name: 'Choose Dot 1' })).toBeVisible();
  expect(moved.poses).toEqual(before.poses);
  await page.keyboard.press('ControlOrMeta+z');
  await piece.storedWith(({ figures }) => figures[dot.id].start === dot.start);
  // Given up, nothing has changed.
  await drag('.rail-strip-bar', -60, 'Escape');
  await strip.focus();
  await page.keyboard.press('ArrowLeft');
  const frame = before.canvas.rate.den / before.canvas.rate.num;
  await piece.storedWith(({ figures }) => Math.abs(figures[dot.id].start - (dot.start - frame)) < 1e-4);
  await drag('.rail-strip-edge', -40);
  const held = await piece.storedWith(({ poses }) => poses[dot.poses[0]].hold < before.poses[dot.poses[0]].hold - 0.03);
  expect(held.figures[dot.id].start).toBeCloseTo(dot.start - frame, 4);
  await strip.locator('text').click();
  await expect(page.getByRole('button', { name: 'Choose Dot 1' })).toHaveCount(0);
});
