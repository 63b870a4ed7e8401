import fs from 'node:fs';
import { makeTextFiles, type Piece, planAndCompile, readPieceFile, TEXT_FORMS, type TextForm } from '@core';
import type { Page } from '@playwright/test';
import { expect, test } from './support/fixtures';

/** Three circles that grow one after another, as files of the web have them. */
const SPINNER = `<svg xmlns="http://www.w3.org/2000/svg" width="240" height="120" viewBox="0 0 24 12"><g fill="#c2452d">${[
  4, 12, 20,
]
  .map(
    (x, i) =>
      `<circle cx="${x}" cy="6" r="1"><animate id="d${i}" attributeName="r" begin="${i === 0 ? '0s;d2.end' : `d${i - 1}.end`}" dur="0.5s" values="1;3;1" calcMode="spline" keySplines=".4 0 .6 1;.4 0 .6 1"/></circle>`,
  )
  .join('')}</g></svg>`;
/** A still drawing. */
const BELL =
  '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 24 24"><path d="M6 8a6 6 0 0 1 12 0c0 7 3 9 3 9H3s3-2 3-9Z"/></svg>';
const file = (name: string, text: string, mimeType = 'image/svg+xml') => ({
  name,
  mimeType,
  buffer: Buffer.from(text),
});
function written(piece: Piece, id: string): string {
  const form = TEXT_FORMS.find((each) => each.id === id) as TextForm;
  return makeTextFiles(form, { piece, compiled: planAndCompile(piece) }, {})[0].text;
}

test('an animated SVG dropped on the shelf is a piece that plays, with its poses and lanes', async ({
  shelf,
  page,
}) => {
  await shelf.open();
  const said = SPINNER.replace('</svg>', '<text>Quay</text></svg>');
  await page.getByTestId('import-chooser').setInputFiles(file('three-dots.svg', said));
  await expect(page).toHaveURL(/\/timing$/);
  const message = page.getByRole('status').filter({ hasText: 'three dots came with its movement, but for:' });
  await expect(message).toContainText('Text was left out');
  await expect(page.getByRole('textbox', { name: 'Name of the piece' })).toHaveValue('three dots');
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Pause', exact: true })).toBeVisible();
});

test('an animation that was copied elsewhere is pasted on the shelf', async ({ shelf, page }) => {
  await shelf.open();
  await page.getByRole('button', { name: 'New piece' }).waitFor();
  await page.evaluate((text) => {
    const clipboardData = new DataTransfer();
    clipboardData.setData('text/plain', text);
    window.dispatchEvent(new ClipboardEvent('paste', { clipboardData }));
  }, SPINNER);
  await expect(page).toHaveURL(/\/timing$/);
  await expect(page.getByRole('textbox', { name: 'Name of the piece' })).toHaveValue('Pasted animation');
});

test('a Lottie file and a table of frames of a piece come back as pieces of as many figures', async ({
  piece,
  shelf,
  page,
}) => {
  await piece.open('demo-tide-gauge', 'timing');
  const stored = readPieceFile(JSON.stringify(await piece.stored()));
  for (const [id, name] of [
    ['lottie', 'tide.json'],
    ['path-data', 'tide-frames.json'],
  ] as const) {
    await shelf.open();
    await page.getByTestId('import-chooser').setInputFiles(file(name, written(stored, id), 'application/json'));
    await expect(page).toHaveURL(/\/timing$/, { timeout: 20_000 });
    const back = (await piece.stored()) as Piece;
    expect(Object.keys(back.figures)).toHaveLength(Object.keys(stored.figures).length);
    expect(Object.values(back.shifts).every(({ method }) => method === 'points')).toBe(true);
    expect(back.canvas.width).toBe(stored.canvas.width);
    // What is not matched offers no decisions about a match, until another method is chosen.
    await page.getByRole('link', { name: 'Match' }).click();
    await expect(page.getByText('ties, pairs and touch-ups have no say')).toBeVisible();
    await expect(page.getByRole('button', { name: 'Add a tie' })).toHaveCount(0);
    await page.getByText('Best', { exact: true }).click();
    await expect(page.getByRole('button', { name: 'Add a tie' })).toBeVisible();
  }
});

test('in a piece it comes as figures in one step, or still instead', async ({ piece, page }) => {
  await piece.open('demo-gate', 'shapes');
  const before = (await piece.stored()) as Piece;
  await page.getByTestId('svg-chooser').setInputFiles(file('three-dots.svg', SPINNER));
  const bar = page.getByTestId('moving-arrival');
  await expect(bar).toContainText('came with what moves in the file');
  await expect
    .poll(async () => Object.keys(((await piece.stored()) as Piece).shifts).length)
    .toBeGreaterThan(Object.keys(before.shifts).length);
  // The piece keeps its own canvas.
  expect(((await piece.stored()) as Piece).canvas).toEqual(before.canvas);
  await bar.getByRole('button', { name: 'Take it still instead' }).click();
  await expect(page.getByTestId('arrival')).toContainText('One pose arrived');
  await expect(bar).toHaveCount(0);
  await expect
    .poll(async () => Object.keys(((await piece.stored()) as Piece).figures).length)
    .toBe(Object.keys(before.figures).length);
  await page.keyboard.press('ControlOrMeta+z');
  await expect
    .poll(async () => Object.keys(((await piece.stored()) as Piece).poses).length)
    .toBe(Object.keys(before.poses).length);
});

test('a file that cannot be read changes nothing and says why', async ({ piece, page }) => {
  await piece.open('demo-gate', 'shapes');
  const before = await piece.stored();
  await page
    .getByTestId('svg-chooser')
    .setInputFiles(file('odd.json', '{"fr":30,"layers":[],"w":9,"h":9}', 'application/json'));
  await expect(page.getByRole('alert')).toContainText('odd.json: Expected a file in which some shape is drawn');
  expect(await piece.stored()).toEqual(before);
});

test('of a GIF the picture that is chosen lies under the drawing, to be traced', async ({ piece, page }) => {
  await piece.open('demo-gate', 'output');
  await page.getByRole('button', { name: 'GIF', exact: true }).click();
  await page.getByRole('button', { name: 'Make and prove' }).click();
  await expect(page.getByRole('button', { name: 'Proved' })).toBeVisible({ timeout: 60_000 });
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page
      .getByTestId('output-job')
      .first()
      .getByRole('link', { name: /^Download/ })
      .click(),
  ]);
  const saved = test.info().outputPath('gate.gif');
  await download.saveAs(saved);
  await piece.open('demo-gate', 'shapes');
  await page.getByTestId('reference-chooser').setInputFiles({
    name: 'gate.gif',
    mimeType: 'image/gif',
    buffer: fs.readFileSync(saved),
  });
  const dialog = page.getByRole('dialog', { name: 'Choose the frame to trace' });
  await dialog.getByRole('slider', { name: 'Picture' }).fill('5');
  await expect(dialog.getByRole('img', { name: 'Picture 6 of gate.gif' })).toBeVisible();
  await dialog.getByRole('button', { name: 'Trace this picture' }).click();
  await expect(dialog).toHaveCount(0);
  await expect.poll(async () => ((await piece.stored()) as Piece).references.length).toBe(1);
  const [reference] = ((await piece.stored()) as Piece).references;
  expect(reference.name).toMatch(/^gate at \d+\.\d\d s\.png$/);
});

test('whoever has gone on to another piece is not taken out of it by a reading that ends: a message opens what came', async ({
  shelf,
  page,
}) => {
  await shelf.open();
  // It is stored late: meanwhile another piece is opened.
  await page.route('**/api/pieces', async (route) => {
    if (route.request().method() === 'POST') await new Promise((resolve) => setTimeout(resolve, 4_000));
    await route.continue();
  });
  await page.getByTestId('import-chooser').setInputFiles(file('three-dots.svg', SPINNER));
  await shelf.card('Quay Mark').getByRole('heading').getByText('Quay Mark').click();
  await expect(page.getByRole('region', { name: 'Canvas' })).toBeVisible();
  const message = page.getByRole('status').filter({ hasText: 'came with its movement' });
  await expect(message).toBeVisible();
  await expect(page.getByRole('textbox', { name: 'Name of the piece' })).toHaveValue('Quay Mark');
  await message.getByRole('button', { name: 'Open' }).click();
  await expect(page.getByRole('textbox', { name: 'Name of the piece' })).toHaveValue('three dots');
});

/** The worker that reads starts late: meanwhile something else is done. */
const readsLate = async (page: Page): Promise<void> =>
  void (await page.route('**/engine-worker*.js', async (route) => {
    await new Promise((resolve) => setTimeout(resolve, 5_000));
    // The page may be at another test by now.
    await route.continue().catch(() => {});
  }));

test('drawings whose reading ends when the shelf was left are a piece all the same: a message opens it', async ({
  shelf,
  piece,
  page,
}) => {
  await shelf.open();
  await readsLate(page);
  await page.getByTestId('import-chooser').setInputFiles([file('bell.svg', BELL), file('bowl.svg', BELL)]);
  await shelf.card('Quay Mark').getByRole('heading').getByText('Quay Mark').click();
  const message = page.getByRole('status').filter({ hasText: 'bell was made of what you had dropped.' });
  await expect(message).toBeVisible({ timeout: 60_000 });
  await expect(page).toHaveURL(/demo-quay-mark/);
  await message.getByRole('button', { name: 'Open' }).click();
  await expect(page.getByRole('textbox', { name: 'Name of the piece' })).toHaveValue('bell');
  await expect(piece.cards).toHaveCount(2);
});

test('leaving a piece into which a file is being read asks: one stays and it comes, or leaves and nothing does', async ({
  piece,
  shelf,
  page,
}) => {
  await piece.open('demo-gate');
  const poses = Object.keys(((await piece.stored()) as Piece).poses).length;
  await readsLate(page);
  const chooser = page.getByTestId('svg-chooser');
  await chooser.setInputFiles(file('bell.svg', BELL));
  await page.getByRole('link', { name: 'To the shelf' }).click();
  const dialog = page.getByRole('dialog', { name: 'Leave while files are being read?' });
  await expect(dialog).toContainText('nothing of these files comes in. The piece itself is kept.');
  await dialog.getByRole('button', { name: 'Stay' }).click();
  await piece.storedWith((each) => Object.keys(each.poses).length === poses + 1);
  await page.reload();
  await piece.canvas.waitFor();
  await chooser.setInputFiles(file('bell.svg', BELL));
  await page.getByRole('link', { name: 'To the shelf' }).click();
  await dialog.getByRole('button', { name: 'Stop reading and leave' }).click();
  await expect(shelf.card('Gate')).toBeVisible();
  await expect(page.getByRole('status').filter({ hasText: 'Reading was stopped. Nothing came in.' })).toBeVisible();
  await page.unroute('**/engine-worker*.js');
  await piece.open('demo-gate');
  expect(Object.keys(((await piece.stored()) as Piece).poses)).toHaveLength(poses + 1);
});
