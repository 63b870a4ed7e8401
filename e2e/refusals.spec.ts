import type { DroppedFile } from './support/drop';
import { expect, test } from './support/fixtures';

const svg = (body: string): string => `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 24 24">${body}</svg>`;
const CASES: readonly (DroppedFile & { readonly says: RegExp })[] = [
  { name: 'note.txt', text: 'hello there', type: 'text/plain', says: /Expected an SVG.*hello there/ },
  { name: 'empty.svg', text: svg(''), says: /at least one drawn shape/ },
  { name: 'broken.svg', text: svg('<path d="M0 0L5 x"/>'), says: /character 8/ },
  {
    name: 'bomb.svg',
    text: `<!DOCTYPE s [<!ENTITY a "aa"><!ENTITY b "&a;&a;">]>${svg('<text>&b;</text>')}`,
    says: /without declared entities/,
  },
  {
    name: 'outside.svg',
    text: `<!DOCTYPE s [<!ENTITY x SYSTEM "file:///etc/passwd">]>${svg('<text>&x;</text>')}`,
    says: /without declared entities/,
  },
  { name: 'huge.svg', text: svg(`<path d="M0 0h9v9z"/>${' '.repeat(20 * 1024 * 1024)}`), says: /at most 8 MB/ },
  { name: 'endless.svg', text: svg(`<path d="M0 0${'h1v1'.repeat(50_000)}"/>`), says: /at most 20,000 path segments/ },
  { name: 'far.svg', text: svg('<path d="M0 0L1e30 5"/>'), says: /between ±10,000,000 px/ },
  { name: 'nan.svg', text: svg('<path d="M0 0L NaN 5"/>'), says: /expected a number/ },
];

test('what cannot be read gets its message, the piece stays as it was, and work goes on', async ({ piece, page }) => {
  await piece.open('demo-quay-mark');
  const before = await piece.stored();
  for (const { says, ...file } of CASES) {
    await piece.drop([file]);
    const message = page.getByRole('alert').filter({ hasText: file.name });
    await expect(message).toContainText(says);
    await message.getByRole('button', { name: 'Close' }).click();
  }
  await expect(piece.cards).toHaveCount(4);
  expect(await piece.stored()).toEqual(before);
  await piece.drop([{ name: 'good.svg', text: svg('<path d="M4 4h16v16z"/>') }]);
  await expect(piece.cards).toHaveCount(5);
});

test('of several files the good ones come in, and the others are listed', async ({ piece, page }) => {
  await piece.open('demo-boarding-button');
  await piece.drop([
    { name: 'good.svg', text: svg('<path d="M4 4h16v16z"/>') },
    { name: 'bad one.svg', text: 'x' },
    { name: 'bad two.svg', text: svg('') },
  ]);
  await expect(page.getByRole('alert')).toContainText('2 of 3 files could not be taken');
  await expect(page.getByRole('alert').getByRole('listitem')).toHaveCount(2);
  await expect(piece.cards).toHaveCount(4);
});

test('scripts and handlers in a file do nothing, and the shapes come in', async ({ piece, page }) => {
  await piece.open('demo-boarding-button');
  await page.evaluate(() => Object.assign(window, { touched: 0 }));
  await piece.drop([
    {
      name: 'sly.svg',
      text: svg(
        '<script>window.touched=1;parent.touched=1</script><image href="http://127.0.0.1:9/x.png"/><path onload="window.touched=2" onclick="window.touched=3" d="M4 4h16v16z"/>',
      ),
    },
  ]);
  await expect(piece.cards).toHaveCount(4);
  await page.getByText(/things were changed on import/).click();
  await expect(page.getByTestId('arrival')).toContainText('<script>');
  expect(await page.evaluate(() => (window as unknown as { touched: number }).touched)).toBe(0);
});

test('an unknown piece says so and leads back to the shelf', async ({ page, server }) => {
  await page.goto(`${server.url}/piece/no-such-piece/shapes`);
  await expect(page.getByRole('alert')).toContainText('no-such-piece');
  await page.getByRole('button', { name: 'To the shelf' }).click();
  await expect(page.getByRole('button', { name: 'New piece' })).toBeVisible();
  await page.goto(`${server.url}/nowhere/at/all`);
  await expect(page.getByRole('alert')).toContainText('nothing at this address');
});

test('piece files: an unknown version and a broken one are refused, a good one is imported beside its original', async ({
  shelf,
  page,
  server,
}) => {
  await shelf.open();
  const { piece } = (await (await page.request.get(`${server.url}/api/pieces/demo-quay-mark`)).json()) as {
    piece: object;
  };
  const choose = (name: string, text: string): Promise<void> =>
    page.getByTestId('import-chooser').setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(text) });
  await choose('future.arcshift.json', JSON.stringify({ ...piece, version: 99 }));
  await expect(page.getByRole('alert')).toContainText('version 99');
  await choose('torn.arcshift.json', '{"format":');
  await expect(page.getByRole('alert').filter({ hasText: 'torn' })).toContainText('JSON');
  await choose('mark.arcshift.json', JSON.stringify(piece));
  await expect(shelf.card('Quay Mark (imported)')).toBeVisible();
  await expect(page.getByRole('article')).toHaveCount(9);
});

test('nonsense typed into a number or a colour is put back', async ({ piece, page }) => {
  await piece.open('demo-quay-mark');
  await piece.selectShift(0);
  await piece.setNumber('Duration', 'soon');
  await expect(piece.number('Duration')).toHaveValue('0.8');
  await piece.setNumber('Duration', '-4');
  await expect(piece.number('Duration')).toHaveValue('0');
  await piece.cards.first().click();
  await page.getByRole('tab', { name: 'Paint' }).click();
  await page.getByLabel('Crest as text').fill('blurple');
  await page.getByLabel('Crest as text').press('Enter');
  await expect(page.getByRole('alert')).toContainText('blurple');
  await expect(page.getByLabel('Crest as text')).toHaveValue('#1c7c8c');
});
