import { contourArea, contourOfRecord, type Piece, placementMatrix } from '../core/src/index';
import { realIcons } from '../core/src/testing/icons';
import { fittedCanvas } from './support/fitted-canvas';
import { expect, test } from './support/fixtures';

const svg = (body: string, size = 100): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${size} ${size}" width="${size}" height="${size}">${body}</svg>`;
const partsOf = (piece: Piece, figure = 0) => {
  const { poses } = piece.figures[piece.figureOrder[figure]];
  return piece.poses[poses[0]].parts.map((id) => piece.parts[id]);
};
/** Where anchors of a figure's first part stand on the canvas. */
const pointsOf = (piece: Piece, figure = 0): number[][] => {
  const pose = piece.poses[piece.figures[piece.figureOrder[figure]].poses[0]];
  const [a, b, c, d, e, f] = placementMatrix(pose.placement);
  return partsOf(piece, figure)[0].contours.flatMap(({ anchors }) =>
    anchors.map(({ at: [x, y] }) => [a * x + c * y + e, b * x + d * y + f]),
  );
};

test('trace a shape over a reference picture: pen, closed, and it lies on the picture', async ({
  shelf,
  piece,
  page,
}) => {
  await shelf.open();
  await shelf.newPiece();
  await page.getByTestId('reference-chooser').setInputFiles({
    name: 'quay.svg',
    mimeType: 'image/svg+xml',
    buffer: Buffer.from(svg('<path d="M10 10H90V90H10Z" fill="#1c7c8c"/>')),
  });
  const picture = page.getByRole('img', { name: 'Reference: quay.svg' });
  await expect(picture).toBeVisible();
  // Dimmed, locked, over nine tenths of the canvas.
  await expect(picture).toHaveCSS('opacity', '0.35');
  const box = await picture.boundingBox();
  if (!box) throw new Error('There is no picture.');
  await page.keyboard.press('d');
  const corner = (x: number, y: number): [number, number] => [
    box.x + (box.width * x) / 100,
    box.y + (box.height * y) / 100,
  ];
  await page.mouse.click(...corner(10, 10));
  await page.mouse.click(...corner(90, 10));
  await page.mouse.click(...corner(90, 90));
  // The last side is drawn as a curve and pulled back by a press on the first point.
  await page.mouse.click(...corner(10, 90));
  await page.mouse.click(...corner(10, 10));
  await expect(piece.cards).toHaveCount(1);
  const stored = await piece.stored();
  const points = pointsOf(stored);
  const reference = stored.references[0];
  expect(points).toHaveLength(4);
  const expected = [
    [10, 10],
    [90, 10],
    [90, 90],
    [10, 90],
  ].map(([x, y]) => [reference.x + (reference.width * x) / 100, reference.y + (reference.height * y) / 100]);
  points.forEach(([x, y], i) => expect(Math.hypot(x - expected[i][0], y - expected[i][1])).toBeLessThan(2));
  expect(partsOf(stored)[0].contours[0].closed).toBe(true);
  // The picture is hidden, shown and removed from the list.
  await page.getByRole('button', { name: 'Hide quay.svg' }).click();
  await expect(picture).toBeHidden();
  await page.getByRole('button', { name: 'Remove quay.svg' }).click();
  expect((await piece.stored()).references).toEqual([]);
});

test('unite three overlapping figures and fill the hole between them', async ({ shelf, piece, page }) => {
  await shelf.open();
  await shelf.newPiece();
  // Three bars that enclose a triangle: united they have a hole.
  await piece.drop([
    {
      name: 'gate.svg',
      text: svg(
        '<path fill="red" d="M10 80L45 10L55 15L20 85Z"/><path fill="blue" d="M45 15L55 10L90 80L80 85Z"/><path fill="lime" d="M12 75H88V85H12Z"/>',
      ),
    },
  ]);
  await page.getByTestId('arrival').getByRole('button', { name: 'change' }).click();
  await page.getByRole('dialog').getByText('Figures', { exact: true }).click();
  await page.getByRole('button', { name: 'Arrange' }).click();
  await expect(piece.figures).toHaveCount(3);
  const canvas = await piece.canvas.boundingBox();
  if (!canvas) throw new Error('There is no canvas.');
  // A box round all three chooses them.
  await page.mouse.move(canvas.x + 100, canvas.y + 40);
  await page.mouse.down();
  await page.mouse.move(canvas.x + 700, canvas.y + 540, { steps: 6 });
  await page.mouse.up();
  await expect(piece.page.getByRole('button', { name: /^Figure /, pressed: true })).toHaveCount(3);
  await page.getByRole('tab', { name: 'Outline' }).click();
  await page.getByRole('button', { name: 'Unite' }).click();
  await expect(piece.figures).toHaveCount(1);
  const united = partsOf(await piece.stored());
  expect(united).toHaveLength(1);
  expect(united[0].contours).toHaveLength(2);
  await page.getByRole('button', { name: 'Fill holes' }).click();
  const [filled] = partsOf(await piece.storedWith((at) => partsOf(at)[0].contours.length === 1));
  const areas = united[0].contours.map((contour) => contourArea(contourOfRecord(contour)));
  expect(contourArea(contourOfRecord(filled.contours[0]))).toBeCloseTo(Math.max(...areas), 3);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(piece.figures).toHaveCount(3);
});

test('type a word, change its font and size, turn it into points: a part for each letter, the shape unchanged', async ({
  shelf,
  piece,
  page,
}) => {
  await shelf.open();
  await shelf.newPiece();
  await page.getByRole('button', { name: 'Type', exact: true }).click();
  const canvas = await piece.canvas.boundingBox();
  if (!canvas) throw new Error('There is no canvas.');
  await page.mouse.click(canvas.x + 200, canvas.y + 300);
  // What is put down can be typed over at once.
  await expect(page.getByLabel('Letters')).toBeFocused();
  await page.keyboard.type('Quay');
  await expect(page.getByTestId('outline-facts')).toBeVisible();
  await page.getByLabel('Font', { exact: true }).selectOption('barlow-condensed');
  await piece.setNumber('Size', '120');
  await expect
    .poll(
      async () =>
        (await piece.saved().then(piece.stored)).texts && Object.values((await piece.stored()).texts)[0]?.size,
    )
    .toBe(120);
  const before = await piece.stored();
  expect(partsOf(before).map(({ name }) => name)).toEqual(['Q', 'u', 'a', 'y']);
  expect(Object.values(before.texts)[0]).toMatchObject({ content: 'Quay', font: 'barlow-condensed' });
  await page.getByRole('button', { name: 'Make points of it' }).click();
  const after = await piece.stored();
  expect(after.texts).toEqual({});
  expect(partsOf(after).map(({ contours }) => contours)).toEqual(partsOf(before).map(({ contours }) => contours));
  expect(partsOf(after).every(({ source }) => source === undefined)).toBe(true);
});

test('round a corner with the mouse and the keyboard', async ({ shelf, piece, page }) => {
  await shelf.open();
  await shelf.newPiece();
  await page.getByRole('button', { name: 'Start from a shape' }).click();
  await page.getByRole('radio', { name: 'Rectangle' }).click();
  const canvas = await piece.canvas.boundingBox();
  if (!canvas) throw new Error('There is no canvas.');
  await page.mouse.move(canvas.x + 200, canvas.y + 150);
  await page.mouse.down();
  await page.mouse.move(canvas.x + 400, canvas.y + 300, { steps: 5 });
  await page.mouse.up();
  await page.getByRole('button', { name: 'Make points of it' }).click();
  await page.keyboard.press('p');
  await page.mouse.click(canvas.x + 400, canvas.y + 300);
  await expect(page.getByRole('heading', { name: 'Point 3 of 4' })).toBeVisible();
  await piece.setNumber('Corner size', '40');
  await page.getByRole('button', { name: 'Round' }).click();
  const rounded = partsOf(await piece.stored())[0].contours[0];
  expect(rounded.anchors).toHaveLength(5);
  // The next corner by keyboard alone: walk to it, press the button.
  await page.getByRole('button', { name: 'Next point' }).focus();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Chamfer' }).focus();
  await page.keyboard.press('Enter');
  const both = partsOf(await piece.stored())[0].contours[0];
  expect(both.anchors).toHaveLength(6);
  const area = (contour: typeof both): number => contourArea(contourOfRecord(contour));
  expect(area(rounded) - area(both)).toBeCloseTo(800, 0);
});

test('points of a line and of the area under it lie on each other and are moved together', async ({ piece, page }) => {
  await piece.open('demo-tide-gauge');
  const canvas = await piece.canvas.boundingBox();
  if (!canvas) throw new Error('There is no canvas.');
  await page.getByRole('button', { name: 'Figure Level' }).click();
  await page.keyboard.press('p');
  const before = await piece.stored();
  // The view fits 860 × 400 px into the pane.
  const fitted = fittedCanvas(canvas, { width: 860, height: 400 });
  const { zoom } = fitted;
  const [left, top] = [canvas.x + fitted.left, canvas.y + fitted.top];
  const [x, y] = [60 + 4 * 92.5, 330 - 66];
  await page.mouse.move(left + x * zoom, top + y * zoom);
  await page.mouse.down();
  // Alt leaves snapping off, so that the distance is exact.
  await page.keyboard.down('Alt');
  await page.mouse.move(left + x * zoom, top + (y - 60) * zoom, { steps: 6 });
  await page.keyboard.up('Alt');
  await page.mouse.up();
  await expect(page.getByRole('heading', { name: '2 points of 2 figures' })).toBeVisible();
  const after = await piece.stored();
  const moved = [0, 1].map((figure) => pointsOf(after, figure)[4][1] - pointsOf(before, figure)[4][1]);
  expect(moved[0]).toBeCloseTo(-60, 0);
  expect(moved[1]).toBe(moved[0]);
  await page.keyboard.press('Control+z');
  expect(pointsOf(await piece.stored(), 0)).toEqual(pointsOf(before, 0));
});

test('ten icons dropped together are a chain of ten; the rule can be changed, and one of them exchanged', async ({
  shelf,
  piece,
  page,
}) => {
  const icons = realIcons(10, 53).map(({ name, svg: text }) => ({ name: `${name}.svg`, text }));
  await shelf.open();
  await shelf.newPiece();
  await piece.drop(icons);
  await expect(piece.cards).toHaveCount(10);
  await expect(piece.arcs).toHaveCount(9);
  await expect(page.getByTestId('arrival')).toContainText('10 poses arrived, one after another');
  await page.getByTestId('arrival').getByRole('button', { name: 'change' }).click();
  await page.getByLabel('Size').selectOption('eye');
  await page.getByRole('button', { name: 'Arrange' }).click();
  const stored = await piece.storedWith(({ poses }) =>
    Object.values(poses).every(({ placement }) => placement.rule?.fit === 'eye'),
  );
  expect(Object.values(stored.poses)).toHaveLength(10);

  // A new version takes the place of the second: the difference is shown first, then timing and place are kept.
  await piece.cards.nth(1).click();
  await page.getByRole('tab', { name: 'Outline' }).click();
  await page.getByRole('button', { name: 'Exchange …' }).click();
  await page
    .getByTestId('exchange-chooser')
    .setInputFiles({ name: 'new.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(icons[5].text) });
  await expect(page.getByTestId('exchange-summary')).toContainText('carried over');
  await expect(page.getByRole('img', { name: 'Old and new over each other' })).toBeVisible();
  await page.getByRole('button', { name: 'Exchange', exact: true }).click();
  const secondOf = (at: Piece) => at.poses[at.figures[at.figureOrder[0]].poses[1]];
  const contoursOf = (at: Piece): string => JSON.stringify(secondOf(at).parts.map((id) => at.parts[id]?.contours));
  const exchanged = await piece.storedWith((at) => contoursOf(at) !== contoursOf(stored));
  expect(exchanged.shifts).toEqual(stored.shifts);
  expect([secondOf(exchanged).hold, secondOf(exchanged).placement.rule?.fit]).toEqual([0.8, 'eye']);
});

test('a large file shows how far it is, does not freeze the page, and can be stopped', async ({
  shelf,
  piece,
  page,
}) => {
  await shelf.open();
  await shelf.newPiece();
  const path = (i: number): string => {
    const [x, y] = [(i % 60) * 10, Math.floor(i / 60) * 10];
    return `<path fill="#${(i % 4096).toString(16).padStart(3, '0')}" d="M${x} ${y}c1.25 0.75 3.5 0.25 4.75 2.5s0.25 4.5-1.5 5.75-4.5 0.25-5.25-1.75 0.5-5.5 2-6.5z"/>`;
  };
  const big = svg(Array.from({ length: 45_000 }, (_, i) => path(i)).join(''), 6000);
  expect(big.length).toBeGreaterThan(5_000_000);
  await page.evaluate(() => {
    let worst = 0;
    let last = performance.now();
    const tick = (): void => {
      const now = performance.now();
      worst = Math.max(worst, now - last);
      last = now;
      (window as unknown as { worstGap: number }).worstGap = worst;
      requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
  });
  // As quick as a designer could be at best: reading takes hardly longer than a test needs to find the button.
  await page.evaluate(() => {
    const seen = window as unknown as { progressSeen: boolean };
    new MutationObserver((_, observer) => {
      const stop = [...document.querySelectorAll('button')].find(({ textContent }) => textContent?.trim() === 'Stop');
      if (!stop) return;
      seen.progressSeen = document.querySelector('progress, [role="progressbar"]') !== null;
      observer.disconnect();
      stop.click();
    }).observe(document.body, { childList: true, subtree: true });
  });
  await piece.drop([{ name: 'big.svg', text: big }]);
  await expect(page.getByText('Reading was stopped. Nothing came in.')).toBeVisible();
  expect(await page.evaluate(() => (window as unknown as { progressSeen: boolean }).progressSeen)).toBe(true);
  expect(await page.evaluate(() => (window as unknown as { worstGap: number }).worstGap)).toBeLessThan(2_000);
  // The next file is read by a new worker.
  await piece.drop([{ name: 'small.svg', text: svg('<path d="M0 0H50V50Z"/>') }]);
  await expect(piece.cards).toHaveCount(1);
});

test('the drawer: keep a shape, find it, add it to a piece, drag it onto the canvas, take it out', async ({
  shelf,
  piece,
  page,
  server,
}) => {
  await shelf.open();
  await shelf.newPiece();
  await piece.drop([{ name: 'fin.svg', text: svg('<path d="M0 80C20 20 60 0 90 0C80 30 80 60 90 80Z"/>') }]);
  await piece.cards.first().click();
  await page.getByRole('tab', { name: 'Outline' }).click();
  await page.getByRole('button', { name: 'Keep in the drawer' }).click();
  await expect(page.getByText('is in the drawer.')).toBeVisible();
  await page.getByRole('tab', { name: 'Drawer' }).click();
  await page.getByLabel('Search shapes').fill('anchor');
  await page.getByRole('listitem').filter({ hasText: 'Anchor' }).hover();
  await page.getByRole('button', { name: 'Add to this piece: Anchor' }).click();
  await expect(piece.cards).toHaveCount(2);
  await page.getByLabel('Search shapes').fill('heart');
  await page.getByTitle('Heart: drag it onto the canvas or the rail').dragTo(piece.canvas);
  await expect(piece.cards).toHaveCount(3);
  await page.goto(`${server.url}/shapes`);
  await expect(page.getByRole('heading', { name: 'Drawer' })).toBeVisible();
  await page.getByLabel('Name of Shape 1').fill('Fin');
  await page.getByLabel('Name of Shape 1').press('Enter');
  await page.getByRole('button', { name: 'Add to a piece: Fin' }).click();
  await page.getByRole('button', { name: 'Quay Mark' }).click();
  await expect(piece.cards).toHaveCount(5);
  await page.goto(`${server.url}/shapes`);
  await page.getByRole('button', { name: 'Remove Fin from the drawer' }).click();
  await expect(page.getByText('Fin', { exact: true })).toBeHidden();
});

test('copy and paste: a pose goes on as a pose with origins, and as SVG for others', async ({
  piece,
  page,
  context,
}) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await piece.open('demo-quay-mark');
  await page.getByRole('button', { name: /^Pose 2/ }).click();
  await page.keyboard.press('Control+c');
  expect(await page.evaluate(() => navigator.clipboard.readText())).toContain('<svg');
  const before = await piece.cards.count();
  await page.keyboard.press('Control+v');
  await expect(piece.cards).toHaveCount(before + 1);
  const stored = await piece.stored();
  const copy = Object.values(stored.poses).find(({ name }) => name === 'Sail copy');
  expect(copy).toBeDefined();
  expect(stored.parts[copy?.parts[0] ?? ''].contours[0].anchors.every(({ origin }) => origin)).toBe(true);
});

test('an own font: a good one is taken, a picture is refused with a reason', async ({ shelf, piece, page }) => {
  await shelf.open();
  await shelf.newPiece();
  await page.getByRole('button', { name: 'Type', exact: true }).click();
  const canvas = await piece.canvas.boundingBox();
  if (!canvas) throw new Error('There is no canvas.');
  await page.mouse.click(canvas.x + 200, canvas.y + 300);
  await expect(piece.cards).toHaveCount(1);
  await page
    .getByTestId('font-chooser')
    .setInputFiles('node_modules/@fontsource/archivo/files/archivo-latin-800-normal.woff');
  await expect(page.getByLabel('Font', { exact: true })).toHaveValue(/^asset:/);
  await page
    .getByTestId('font-chooser')
    .setInputFiles({ name: 'no.ttf', mimeType: 'font/ttf', buffer: Buffer.from('not a font at all') });
  await expect(page.getByText('Expected a TTF, OTF or WOFF font')).toBeVisible();
});
