import type { Page } from '@playwright/test';
import { fittedCanvas } from './support/fitted-canvas';
import { expect, test } from './support/fixtures';
import { svg } from './support/match-pieces';

/** Windows that are worked in; the last is 1280 × 800 at 200 %. */
const WINDOWS = [
  [2560, 1440],
  [1920, 1080],
  [1280, 800],
  [1024, 640],
  [640, 400],
] as const;

/** Controls of the page that something else lies on, or that stick out of the window; those that can be scrolled to are brought into sight first. */
const covered = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const faults: string[] = [];
    for (const control of document.querySelectorAll<HTMLElement>('button, input, select, a[href], summary')) {
      if (!control.checkVisibility({ visibilityProperty: true, opacityProperty: true })) continue;
      if (control.closest('[hidden], .visually-hidden, [inert]')) continue;
      control.scrollIntoView({ block: 'nearest', inline: 'nearest' });
      const { left, top, width, height } = control.getBoundingClientRect();
      // What is only there for those who hear it is a px in size; a radio button lies under its label.
      if (width < 4 || height < 4) continue;
      const [x, y] = [left + width / 2, top + height / 2];
      const name = control.getAttribute('aria-label') ?? control.textContent?.trim() ?? control.tagName;
      const at = document.elementFromPoint(x, y);
      if (!at) faults.push(`${name} is outside the window`);
      else if (!control.contains(at) && !at.contains(control) && !control.closest('label')?.contains(at))
        faults.push(`${name} lies under ${at.className || at.tagName}`);
    }
    const { scrollWidth, scrollHeight } = document.documentElement;
    if (scrollWidth > innerWidth || scrollHeight > innerHeight) faults.push('The page itself scrolls');
    return faults;
  });

for (const [width, height] of WINDOWS)
  test(`at ${width} × ${height} nothing covers anything, in every room and with every tool`, async ({
    page,
    piece,
  }) => {
    await page.setViewportSize({ width, height });
    await piece.open('demo-boarding-button');
    // With what is told of a file that came.
    await piece.drop([{ name: 'Look.svg', text: svg('M0 0H90V60H0Z') }]);
    await expect(page.getByTestId('arrival')).toBeVisible();
    const tools = page.getByRole('toolbar', { name: 'Tools' });
    const details = page.getByRole('complementary', { name: 'Details' });
    await piece.cards.first().click();
    for (const tool of ['Select', 'Points', 'Draw', 'Shape', 'Text', 'Split', 'Pick colour']) {
      const button = tools.getByRole('button', { name: tool, exact: true });
      if (await button.isVisible()) await button.click();
      else {
        await tools.getByRole('button', { name: 'More', exact: true }).click();
        await page.getByRole('button', { name: tool, exact: true }).click();
        await page.keyboard.press('Escape');
      }
      expect([tool, await covered(page)]).toEqual([tool, []]);
      const canvas = await piece.canvas.boundingBox();
      expect(canvas?.width).toBeGreaterThanOrEqual(width / 2 - 1);
      // What is drawn on is not under the bar of the tool.
      const bar = page.getByRole('group', { name: 'What is drawn' });
      if ((await bar.count()) === 0) continue;
      if (width >= 1024) expect(await bar.evaluate((row) => row.scrollWidth - row.clientWidth)).toBe(0);
      const options = await bar.boundingBox();
      if (!options || !canvas) throw new Error('The bar or the canvas is not there.');
      const paper = (await piece.stored()).canvas;
      const { zoom, top } = fittedCanvas(canvas, paper);
      const bottom = canvas.y + top + paper.height * zoom;
      expect(options.y >= bottom || options.y + options.height <= canvas.y + 1).toBe(true);
    }
    // Where there is no room for both columns each can be shown in the place of the other.
    const left = page.getByRole('button', { name: /the figures( away)?$/ });
    if ((await left.getAttribute('aria-pressed')) === 'false') {
      await left.click();
      await expect(page.getByRole('complementary', { name: 'Figures and drawer' })).toBeVisible();
      await expect(details).toHaveCount(0);
      expect((await piece.canvas.boundingBox())?.width).toBeGreaterThanOrEqual(width / 2 - 1);
      await page.getByRole('button', { name: 'Show the details' }).click();
    }
    await expect(details).toBeVisible();
    for (const room of ['Match', 'Timing', 'Output']) {
      await page
        .getByRole('link', { name: room })
        .or(page.getByRole('tab', { name: room }))
        .first()
        .click();
      await piece.matched();
      expect([room, await covered(page)]).toEqual([room, []]);
    }
  });

test('tools that find no room are in a menu, and come back when there is room', async ({ page, piece }) => {
  await page.setViewportSize({ width: 470, height: 500 });
  await piece.open('demo-boarding-button');
  const tools = page.getByRole('toolbar', { name: 'Tools' });
  await expect(tools.getByRole('button', { name: 'Pick colour', exact: true })).toHaveCount(0);
  await expect(tools.getByRole('button', { name: 'Select', exact: true })).toBeVisible();
  await tools.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('button', { name: 'Pick colour', exact: true }).click();
  await expect(page.locator('.status-busy')).toContainText(/colour/i);
  await expect(page.getByText('Rulers and guides')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.setViewportSize({ width: 1280, height: 800 });
  await expect(tools.getByRole('button', { name: 'Pick colour', exact: true })).toHaveAttribute('aria-pressed', 'true');
  await expect(tools.getByRole('button', { name: 'More', exact: true })).toHaveCount(0);
});

test('at 300 px no label of the details wraps or is cut off', async ({ page, piece }) => {
  await page.addInitScript(() =>
    localStorage.setItem('arcshift.drawing', JSON.stringify({ widths: { left: 206, right: 300 } })),
  );
  await piece.open('demo-boarding-button');
  const faults = (): Promise<string[]> =>
    page.evaluate(() =>
      [
        ...document.querySelectorAll<HTMLElement>(
          'aside .field > label, aside legend, aside .choice-row label, aside h3, aside .btn',
        ),
      ]
        .filter((label) => label.checkVisibility() && !label.matches('.visually-hidden'))
        .filter((label) => {
          const range = document.createRange();
          range.selectNodeContents(label);
          const middles = [...range.getClientRects()].map(({ top, height }) => top + height / 2);
          const text = range.getBoundingClientRect();
          const column = (label.closest('aside') as HTMLElement).getBoundingClientRect();
          const runsOut = text.right > column.right + 1 || text.left < column.left - 1;
          return Math.max(...middles) - Math.min(...middles) > 10 || runsOut;
        })
        .map((label) => label.textContent ?? ''),
    );
  await piece.cards.first().click();
  const details = page.getByRole('complementary', { name: 'Details' });
  expect((await details.boundingBox())?.width).toBeGreaterThan(290);
  for (const tab of ['Pose', 'Outline', 'Paint', 'Arrange']) {
    await details.getByRole('tab', { name: tab }).click();
    expect([tab, await faults()]).toEqual([tab, []]);
  }
  await piece.selectShift(0);
  expect(await faults()).toEqual([]);
  const room = (name: string): Promise<void> =>
    page.getByRole('link', { name }).or(page.getByRole('tab', { name })).first().click();
  await room('Match');
  await piece.matched();
  for (const tab of ['Decisions', 'Alternatives', 'Charts']) {
    await page.getByRole('tab', { name: tab }).click();
    expect([tab, await faults()]).toEqual([tab, []]);
  }
  await room('Shapes');
  await piece.canvas.waitFor();
  await page.keyboard.press('Escape');
  // An adjustable shape has the longest names.
  await page.keyboard.press('a');
  await page.keyboard.press('Enter');
  await details.getByRole('tab', { name: 'Outline' }).click();
  await expect(details.getByLabel('Radius bottom right')).toBeVisible();
  expect(await faults()).toEqual([]);
});

test('names of lanes lie beside what is written on them, and four strips of other figures are whole', async ({
  page,
  piece,
}) => {
  await piece.open('demo-deck-crew');
  await page.getByRole('link', { name: 'Timing' }).click();
  const lane = page.getByRole('group', { name: 'Drawn part of Wake' });
  await expect(lane.locator('.lane-value')).toHaveCount(9);
  for (const [width, height] of [
    [1280, 800],
    [1024, 640],
  ] as const) {
    await page.setViewportSize({ width, height });
    const name = page.locator('.lane-label').first();
    const left = (await name.boundingBox())?.x ?? 0;
    await expect(async () => {
      const ends = await lane
        .locator('.lane-value')
        .evaluateAll((values) => values.map((value) => value.getBoundingClientRect().right));
      expect(Math.max(...ends)).toBeLessThanOrEqual((await name.boundingBox())?.x ?? 0);
    }).toPass();
    expect(left).toBeGreaterThan(width - 100);
    // All of the strips of the others, without scrolling.
    const pane = await page.locator('.rail-pane').boundingBox();
    for (const strip of await page.locator('.rail-strip').all()) {
      const { y = 0, height: own = 0 } = (await strip.boundingBox()) ?? {};
      expect(y + own).toBeLessThanOrEqual((pane?.y ?? 0) + (pane?.height ?? 0));
    }
    await expect(page.locator('.rail-strip')).toHaveCount(4);
  }
});
