import { expect, test } from './support/fixtures';

const COUNT = 1_200;
/** Forty circles a row that leave no gaps; those of the left half in one paint, those of the right half in another. */
const CIRCLES = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 400 300">${Array.from(
  { length: COUNT },
  (_, i) =>
    `<circle cx="${5 + 10 * (i % 40)}" cy="${5 + 10 * Math.floor(i / 40)}" r="9" fill="${i % 40 < 20 ? '#008080' : '#800080'}"/>`,
).join('')}</svg>`;

test('a drawing of more than a thousand shapes comes in, and its card is one painted picture in their paints', async ({
  piece,
  shelf,
  page,
}) => {
  await shelf.open();
  await shelf.newPiece();
  await piece.drop([{ name: 'circles.svg', text: CIRCLES }]);
  await expect(piece.cards).toHaveCount(1);
  const picture = piece.cards.first().locator('.painted-pose image');
  await expect(picture).toHaveCount(1);
  await expect(piece.cards.first().locator('.painted-pose path')).toHaveCount(0);
  const colours = await picture.evaluate(async (image) => {
    const bitmap = new Image();
    bitmap.src = image.getAttribute('href') ?? '';
    await bitmap.decode();
    const context = new OffscreenCanvas(bitmap.width, bitmap.height).getContext('2d');
    context?.drawImage(bitmap, 0, 0);
    const at = (x: number, y: number): string => [...(context?.getImageData(x, y, 1, 1).data ?? [])].join(' ');
    return { size: [bitmap.width, bitmap.height], left: at(60, 128), right: at(200, 128), above: at(128, 4) };
  });
  expect(colours).toEqual({ size: [256, 256], left: '0 128 128 255', right: '128 0 128 255', above: '0 0 0 0' });
  // Neighbours in the painting order of one paint are one part.
  const parts = Object.values((await piece.stored()).parts);
  expect(parts.flatMap(({ contours }) => contours)).toHaveLength(COUNT);
  // It is one step of the history, both ways.
  await page.keyboard.press('Control+z');
  await expect(piece.cards).toHaveCount(0);
  await page.keyboard.press('Control+Shift+z');
  await expect(piece.cards).toHaveCount(1);
});
