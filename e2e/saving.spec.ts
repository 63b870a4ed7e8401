import fs from 'node:fs';
import type { Page } from '@playwright/test';
import { PiecePage } from './pages/piece-page';
import { expect, test } from './support/fixtures';
import { spoil } from './support/server';

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

/** One of the versions that are offered side by side. */
const version = (page: Page, title: string) =>
  page.getByRole('dialog').getByRole('region', { name: title, exact: true });

test('changes that never reached the server are offered beside what it has, and the other stays until it is thrown away', async ({
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
  await page.goto(`${server.url}/piece/demo-quay-mark/shapes`);
  await expect(version(page, 'In this browser')).toContainText('3 poses');
  await version(page, 'On the server').getByRole('button', { name: 'Use this version' }).click();
  await piece.rail.waitFor();
  await page.goto(server.url);
  await page.getByRole('status').getByRole('link', { name: 'Quay Mark' }).click();
  await version(page, 'In this browser').getByRole('button', { name: 'Use this version' }).click();
  expect(Object.values((await piece.stored()).shifts).map(({ duration }) => duration)).toContain(3.25);
  await piece.open('demo-quay-mark');
  await expect(page.getByRole('dialog')).toHaveCount(0);
});

test('two tabs that were both offline: each version is offered, one is gone on with, the other becomes a piece', async ({
  piece,
  page,
  server,
  context,
  shelf,
}) => {
  const durations = ['1.25', '2.25'];
  const tabs = [page, await context.newPage()].map((tab) => new PiecePage(tab, server));
  for (const tab of tabs) await tab.open('demo-quay-mark');
  await server.stop();
  for (const [i, tab] of tabs.entries()) {
    await tab.selectShift(0);
    await tab.setNumber('Duration', durations[i]);
    await expect(tab.page.getByTestId('save-state')).toHaveText('Offline');
  }
  await tabs[1].page.close();
  await page.goto('about:blank');
  await server.start();
  await page.goto(`${server.url}/piece/demo-quay-mark/shapes`);
  await version(page, 'In this browser, tab 2').getByRole('button', { name: 'Keep as a copy' }).click();
  await version(page, 'In this browser').getByRole('button', { name: 'Use this version' }).click();
  await piece.saved();
  await piece.selectShift(0);
  await expect(piece.number('Duration')).toHaveValue('2.25');
  await shelf.open();
  await shelf.card('Quay Mark (from this browser)').getByRole('heading').getByText('Quay Mark').click();
  await piece.selectShift(0);
  await expect(piece.number('Duration')).toHaveValue('1.25');
});

test('a piece that is deleted elsewhere while it is open is brought back with its changes', async ({
  piece,
  page,
  server,
}) => {
  await piece.open('demo-quay-mark');
  expect((await page.request.delete(`${server.url}/api/pieces/demo-quay-mark`)).status()).toBe(204);
  await piece.selectShift(0);
  await piece.setNumber('Duration', '1.5');
  await expect(page.getByTestId('save-state')).toHaveText('Deleted elsewhere');
  await page.getByRole('button', { name: 'Restore' }).click();
  expect(Object.values((await piece.stored()).shifts).map(({ duration }) => duration)).toContain(1.5);
});

test('changes to a piece that was deleted elsewhere are offered when it is opened again', async ({
  piece,
  page,
  server,
}) => {
  await piece.open('demo-quay-mark');
  await server.stop();
  await piece.selectShift(0);
  await piece.setNumber('Duration', '1.5');
  await expect(page.getByTestId('save-state')).toHaveText('Offline');
  await page.goto('about:blank');
  await server.start();
  await page.request.delete(`${server.url}/api/pieces/demo-quay-mark`);
  await page.goto(`${server.url}/piece/demo-quay-mark/shapes`);
  await expect(page.getByText('never reached the server')).toBeVisible();
  await version(page, 'In this browser').getByRole('button', { name: 'Restore' }).click();
  await piece.rail.waitFor();
  await expect(page.getByLabel('Name of the piece')).toHaveValue('Quay Mark');
  expect(Object.values((await piece.stored()).shifts).map(({ duration }) => duration)).toContain(1.5);
});

test('what the server refuses is said with its reason, and can be undone', async ({ piece, page }) => {
  await page.route('**/api/pieces/demo-quay-mark', (route) =>
    route.request().method() === 'PUT' && route.request().postData()?.includes('1.75')
      ? route.fulfill({
          status: 422,
          contentType: 'application/problem+json',
          body: JSON.stringify({ code: 'piece-invalid', status: 422, title: '', detail: 'The tide is too high.' }),
        })
      : route.continue(),
  );
  await piece.open('demo-quay-mark');
  await piece.selectShift(0);
  await piece.setNumber('Duration', '1.75');
  await expect(page.getByTestId('save-state')).toHaveText('Cannot be saved');
  await expect(page.getByRole('alert')).toContainText('The tide is too high.');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Download the piece' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('Quay Mark.arcshift.json');
  await page.getByRole('button', { name: 'Undo the last step' }).click();
  await piece.saved();
  await expect(page.getByRole('alert')).toHaveCount(0);
});

test('where the browser can keep no copy, leaving asks while the server is away', async ({ piece, page, server }) => {
  await page.addInitScript(() => Object.defineProperty(window, 'indexedDB', { value: undefined }));
  await piece.open('demo-quay-mark');
  await server.stop();
  await piece.selectShift(0);
  await piece.setNumber('Duration', '1.5');
  await expect(page.getByTestId('save-state')).toHaveText('Offline');
  await page.getByRole('link', { name: 'To the shelf' }).click();
  await expect(page.getByRole('dialog')).toContainText('could keep no copy');
  await page.getByRole('button', { name: 'Stay' }).click();
  await expect(piece.number('Duration')).toHaveValue('1.5');
  const asked = new Promise<string>((resolve) => {
    page.on('dialog', (dialog) => {
      resolve(dialog.type());
      void dialog.dismiss();
    });
  });
  await page.close({ runBeforeUnload: true });
  expect(await asked).toBe('beforeunload');
  await server.start();
  await piece.saved();
});

test('a piece left within a moment of a change, and opened again by its name, has it and is saved', async ({
  piece,
  page,
  shelf,
}) => {
  let late = 0;
  await page.route('**/api/pieces/*', async (route) => {
    if (route.request().method() === 'PUT') await new Promise((resolve) => setTimeout(resolve, late));
    await route.continue();
  });
  await piece.open('demo-quay-mark');
  // The save ends before, while and after the shelf's card and the page that opens ask for the piece.
  for (const [delay, duration] of [
    [0, '1.5'],
    [40, '1.4'],
    [60, '1.3'],
    [90, '1.2'],
    [150, '1.1'],
  ] as const) {
    late = delay;
    await piece.selectShift(0);
    await piece.setNumber('Duration', duration);
    await page.getByRole('link', { name: 'To the shelf' }).click();
    await shelf.card('Quay Mark').getByRole('heading').getByText('Quay Mark').click();
    await piece.rail.waitFor();
    await piece.selectShift(0);
    await expect(piece.number('Duration')).toHaveValue(duration);
    await expect(page.getByRole('dialog')).toHaveCount(0);
  }
  late = 0;
  await piece.setNumber('Duration', '1.25');
  expect(Object.values((await piece.stored()).shifts).map(({ duration }) => duration)).toContain(1.25);
});

for (const [choice, expected] of [
  ['Use my version', 1.75],
  ['Use the server’s version', 0.33],
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
  await expect(page.getByRole('article')).toHaveCount(8);
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
  // Its id lies in the bin when it comes back.
  await shelf.more('Quay Mark', 'Delete');
  await expect(shelf.card('Quay Mark')).toHaveCount(0);
  await page.getByTestId('import-chooser').setInputFiles({
    name: 'Quay Mark.arcshift.json',
    mimeType: 'application/json',
    buffer: fs.readFileSync(await download.path()),
  });
  await expect(shelf.card('Quay Mark')).toBeVisible();
});

test('a piece that cannot be read is shown as such, with what is stored of it, and the others beside it', async ({
  shelf,
  page,
  server,
}) => {
  await spoil(server, 'demo-gate', '{"torn');
  await shelf.open();
  await expect(page.getByRole('article')).toHaveCount(8);
  await expect(shelf.card('Gate')).toContainText('cannot be read');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    shelf.more('Gate', 'Download what is stored', 'link'),
  ]);
  expect(fs.readFileSync(await download.path(), 'utf8')).toBe('{"torn');
});

test('drawings beyond what can be stored come in within range, with what was done, and are there after a reload', async ({
  piece,
  page,
}) => {
  const stops = Array.from({ length: 128 }, (_, i) => `<stop offset="${i / 127}" stop-color="rgb(${2 * i},0,90)"/>`);
  const file = (name: string, inside: string) => ({
    name: `${name}.svg`,
    text: `<svg xmlns="http://www.w3.org/2000/svg">${inside}</svg>`,
  });
  await piece.open('demo-quay-mark');
  await piece.drop([
    file('Dawn', `<linearGradient id="g">${stops.join('')}</linearGradient><path fill="url(#g)" d="M0 0H90V90Z"/>`),
    file('House', '<path d="M3500000 5400000h50v30h-50z"/>'),
    file('Rope', '<path d="M0 0H9V9Z" stroke="red" stroke-width="100001"/>'),
    file('Speck', '<path d="M0 0h.0001v.0001z"/>'),
  ]);
  await expect(page.getByText(/more than 100 stops/)).toBeAttached();
  const poses = async (): Promise<string[]> => Object.values((await piece.stored()).poses).map(({ name }) => name);
  await expect.poll(poses).toEqual(expect.arrayContaining(['Dawn', 'House', 'Rope', 'Speck']));
  await piece.saved();
  // Going on working is saved too.
  await page.getByLabel('Name of the piece').fill('After the storm');
  await page.getByLabel('Name of the piece').press('Enter');
  await piece.saved();
  await page.reload();
  await piece.rail.waitFor();
  await expect(page.getByLabel('Name of the piece')).toHaveValue('After the storm');
  expect(await poses()).toEqual(expect.arrayContaining(['Dawn', 'House', 'Rope', 'Speck']));
});

test('steps outlive a reload: undone and redone as before, and the history says where it begins', async ({
  piece,
  page,
}) => {
  await piece.open('demo-quay-mark');
  await piece.selectShift(0);
  for (const seconds of ['1.5', '1.4', '1.3']) await piece.setNumber('Duration', seconds);
  await piece.saved();
  await page.reload();
  await piece.rail.waitFor();
  await piece.selectShift(0);
  await expect(piece.number('Duration')).toHaveValue('1.3');
  await page.keyboard.press('Escape');
  const undo = page.getByRole('button', { name: /^Undo/ });
  await undo.click();
  await undo.click();
  await piece.selectShift(0);
  await expect(piece.number('Duration')).toHaveValue('1.5');
  await piece.saved();
  await page.reload();
  await piece.rail.waitFor();
  await page.getByRole('button', { name: 'History' }).click();
  await expect(page.getByRole('button', { name: 'Before these steps' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^Redo/ }).click();
  await piece.selectShift(0);
  await expect(piece.number('Duration')).toHaveValue('1.4');
  // A piece that was changed by nobody has none.
  await piece.open('demo-gate');
  await page.getByRole('button', { name: 'History' }).click();
  await expect(page.getByRole('button', { name: 'As it was opened' })).toBeVisible();
});

test('of two tabs the other learns at once, the dialog says what differs, and what gave way can be gone back to', async ({
  piece,
  page,
  server,
}) => {
  await piece.open('demo-quay-mark');
  const other = await page.context().newPage();
  await other.goto(`${server.url}/piece/demo-quay-mark`);
  const name = (of: typeof page) => of.getByRole('textbox', { name: 'Name of the piece' });
  await expect(name(other)).toHaveValue('Quay Mark');
  await name(page).fill('North Pier');
  await name(page).press('Enter');
  await piece.saved();
  // Nothing was touched there.
  await expect(other.getByRole('alert')).toContainText('This piece was changed elsewhere');
  await name(other).fill('South Pier');
  await other.getByRole('button', { name: 'Compare' }).click();
  const dialog = other.getByRole('dialog', { name: 'Two versions of this piece' });
  await expect(dialog.getByRole('region', { name: 'Yours' })).toContainText('Its name is “South Pier”.');
  await expect(dialog.getByRole('region', { name: 'The other' })).toContainText('Its name is “North Pier”.');
  await dialog.getByRole('button', { name: 'Use the server’s version' }).click();
  await expect(name(other)).toHaveValue('North Pier');
  // It can be undone, and is there for thirty days.
  await other.getByRole('button', { name: 'History' }).click();
  await other.getByRole('button', { name: 'Replaced versions' }).click();
  const versions = other.getByRole('dialog', { name: 'Replaced versions' });
  await expect(versions.getByRole('region', { name: /^Yours/ })).toContainText('Its name is “South Pier”.');
  await versions.getByRole('button', { name: 'Go back to this' }).click();
  await expect(name(other)).toHaveValue('South Pier');
  await other.getByRole('button', { name: /^Undo/ }).click();
  await expect(name(other)).toHaveValue('North Pier');
  await other.getByRole('button', { name: /^Undo/ }).click();
  await expect(name(other)).toHaveValue('South Pier');
  await expect(other.getByTestId('save-state')).toHaveText('Saved');
  await expect(page.getByRole('alert')).toContainText('This piece was changed elsewhere');
});

test.describe('with a server that is killed', () => {
  test.use({ ownProcess: true });

  test('between two saves nothing is lost: what it had acknowledged is there, what came after is said to be here and saved later', async ({
    piece,
    page,
    server,
  }) => {
    await piece.open('demo-quay-mark');
    await piece.selectShift(0);
    await piece.setNumber('Duration', '2.5');
    await piece.saved();
    await server.kill();
    await piece.setNumber('Duration', '3.5');
    await expect(page.getByTestId('save-state')).toHaveText('Offline');
    await expect(page.getByTestId('save-state')).toHaveAttribute(
      'title',
      'Offline: kept in this browser, trying again',
    );
    await page.goto('about:blank');
    await server.start();
    await page.goto(`${server.url}/piece/demo-quay-mark/shapes`);
    // What it had taken before it was killed is there, and both say in what they differ.
    await expect(version(page, 'On the server')).toContainText('3 poses');
    await expect(page.getByRole('dialog')).toContainText('“Mark”: other times or easing.');
    await expect(version(page, 'On the server')).toContainText('plays 7.3 s');
    await expect(version(page, 'In this browser')).toContainText('plays 8.3 s');
    await version(page, 'In this browser').getByRole('button', { name: 'Use this version' }).click();
    expect(Object.values((await piece.stored()).shifts).map(({ duration }) => duration)).toContain(3.5);
    await page.goto('about:blank');
    await server.kill();
    await server.start();
    await piece.open('demo-quay-mark');
    expect(Object.values((await piece.stored()).shifts).map(({ duration }) => duration)).toContain(3.5);
  });
});
