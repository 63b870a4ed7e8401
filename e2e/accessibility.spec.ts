import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect, test } from './support/fixtures';

/** The column of what is chosen. */
const DETAILS = 'aside[aria-label=Details]';
const TAGS = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];

/**
 * What is wrong with a view by all rules in the theme that it is in, and by the one rule about colours in the other. Where only a part of what was
 * looked at before has changed, `part` names it.
 */
async function faults(page: Page, part = 'html'): Promise<string[]> {
  await expect(page.locator(part)).toHaveCount(1);
  const found = await violations(page, (axe) => axe.include(part).withTags(TAGS));
  const theme = await page.evaluate(() => document.documentElement.dataset.bsTheme);
  const other = theme === 'dark' ? 'light' : 'dark';
  await setTheme(page, other);
  const colours = await violations(page, (axe) => axe.include(part).withRules(['color-contrast']));
  await setTheme(page, theme ?? 'light');
  return [...found, ...colours.map((each) => `in the ${other} theme: ${each}`)];
}

async function violations(page: Page, choose: (axe: AxeBuilder) => AxeBuilder): Promise<string[]> {
  // Otherwise each look would open another page to put together what it found in frames of other origins; there are none.
  const axe = new AxeBuilder({ page }).setLegacyMode().options({ resultTypes: ['violations'] });
  const { violations: found } = await choose(axe).analyze();
  return found.map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html.slice(0, 120)).join(' | ')}`);
}

/** As the button of the theme does; colours that go over into others have arrived. */
async function setTheme(page: Page, theme: string): Promise<void> {
  await page.evaluate(async (next) => {
    document.documentElement.dataset.bsTheme = next;
    const changing = document.getAnimations().filter((each) => each instanceof CSSTransition);
    await Promise.allSettled(changing.map((each) => each.finished));
  }, theme);
}

test('colours that cannot be read are noticed in both themes', async ({ shelf, page }) => {
  await shelf.open();
  const addRule = (rule: string): Promise<void> =>
    page.evaluate((text) => {
      const sheet = new CSSStyleSheet();
      sheet.replaceSync(text);
      document.adoptedStyleSheets.push(sheet);
    }, rule);
  await addRule('[data-bs-theme=dark] article * { color: #333 !important }');
  const found = await faults(page);
  expect(found.join()).toMatch(/^in the dark theme: color-contrast/);
  await addRule('article * { color: #bbb !important }');
  expect((await faults(page))[0]).toMatch(/^color-contrast/);
});

test.describe('WCAG 2.2 AA in both themes', () => {
  test('the shelf, made dark by the button of the theme; what is opened after that is dark too: shapes, a shift, the shortcuts', async ({
    shelf,
    piece,
    page,
  }) => {
    await shelf.open();
    await page.getByRole('button', { name: 'Dark theme' }).click();
    await expect(page.locator('html')).toHaveAttribute('data-bs-theme', 'dark');
    await expect(page.getByRole('article')).toHaveCount(8);
    expect(await faults(page)).toEqual([]);
    await piece.open('demo-quay-mark');
    await expect(page.locator('html')).toHaveAttribute('data-bs-theme', 'dark');
    await piece.matched();
    expect(await faults(page)).toEqual([]);
    await piece.selectShift(0);
    expect(await faults(page, DETAILS)).toEqual([]);
    await page.keyboard.press('Shift+?');
    await expect(page.getByRole('dialog')).toBeVisible();
    expect(await faults(page, '[role=dialog]')).toEqual([]);
  });

  test('shapes: a pose in each tab, a point, the drawer', async ({ piece, page }) => {
    await piece.open('demo-quay-mark');
    await piece.cards.first().click();
    expect(await faults(page)).toEqual([]);
    for (const tab of ['Outline', 'Paint', 'Arrange']) {
      await page.getByRole('tab', { name: tab }).click();
      expect(await faults(page, DETAILS)).toEqual([]);
    }
    await page.getByRole('button', { name: 'Points', exact: true }).click();
    await page.getByRole('button', { name: 'Next point' }).click();
    await page.getByRole('tab', { name: 'Drawer' }).click();
    expect(await faults(page, DETAILS)).toEqual([]);
    expect(await faults(page, 'aside[aria-label^=Figures]')).toEqual([]);
  });

  test('timing: nothing that moves, lanes, a key', async ({ piece, page }) => {
    await piece.open('demo-quay-mark', 'timing');
    await piece.matched();
    expect(await faults(page)).toEqual([]);
    const name = (await page.locator('.lane-name').first().textContent()) ?? '';
    for (const property of ['position', 'opacity'])
      await page.getByLabel(`Add a lane to ${name}`).selectOption(property);
    await page
      .getByRole('group', { name: `Opacity of ${name}` })
      .getByRole('button')
      .first()
      .click();
    await page.getByRole('group', { name: 'Easing to the next key' }).getByText('Own', { exact: true }).click();
    expect(await faults(page)).toEqual([]);
    // A lane that follows, drifts and pulses; a colour; a path on the picture.
    await piece.open('demo-deckhand', 'timing');
    await page.locator('.lane-name', { hasText: 'Pupil left' }).click();
    await page.getByRole('button', { name: 'Key 3 on the path' }).waitFor();
    await page.getByRole('button', { name: /^Position follows/ }).click();
    for (const group of ['Wander at random', 'Repeat as a beat'])
      await page.getByRole('group', { name: group }).getByText('Yes').click();
    await page.getByLabel('Add a lane to Mouth').selectOption('fill');
    expect(await faults(page, '.lane-sheet')).toEqual([]);
    expect(await faults(page, DETAILS)).toEqual([]);
  });

  test('the output', async ({ piece, page }) => {
    await piece.open('demo-quay-mark');
    await page.getByRole('link', { name: 'Output' }).click();
    await expect(page.getByTestId('download-svg')).toBeVisible();
    expect(await faults(page)).toEqual([]);
    // A form with many fields, a file that was made, its proof, and the file on a page.
    await page.getByRole('button', { name: 'Custom element', exact: true }).click();
    await page.getByRole('button', { name: 'Make and prove' }).click();
    await page.getByRole('button', { name: 'GIF', exact: true }).click();
    await page.getByText('What is kept and what changes').click();
    await expect(page.getByRole('button', { name: 'Proved' })).toBeVisible();
    expect(await faults(page)).toEqual([]);
    await page.getByRole('button', { name: 'Proved' }).click();
    expect(await faults(page, '.output-proof')).toEqual([]);
    await page.getByRole('button', { name: /on a page$/ }).click();
    await expect(page.frameLocator('iframe').getByRole('heading', { level: 1 })).toBeVisible();
    expect(await faults(page, '.output-site')).toEqual([]);
  });

  test('the Match room with a cut, in each tab', async ({ piece, match, page }) => {
    await piece.open('demo-gate');
    await match.open();
    expect(await faults(page)).toEqual([]);
    await match.tool('Split the solid');
    const box = await page.getByTestId('match-a').boundingBox();
    if (!box) throw new Error('There is no picture.');
    const x = box.x + box.width / 2;
    await match.drag({ x: x - 10, y: box.y + 20 }, { x: x + 10, y: box.y + box.height - 20 });
    await match.matched();
    expect(await faults(page, DETAILS)).toEqual([]);
    await match.tab('Alternatives');
    await expect(page.getByRole('button', { name: /^Alternative 1/ })).toBeVisible();
    expect(await faults(page, DETAILS)).toEqual([]);
    await match.tab('Charts');
    await expect(page.locator('.line-chart').first()).toBeVisible();
    expect(await faults(page, DETAILS)).toEqual([]);
  });

  test('the Match room with a tie and touch-ups', async ({ piece, match, page }) => {
    await piece.open('demo-quay-mark', 'match');
    await match.matched();
    await page.getByRole('button', { name: 'Add a tie' }).click();
    await match.tool('Touch up');
    await page.getByRole('button', { name: 'Point 2 of the in-between' }).waitFor();
    await match.matched();
    expect(await faults(page)).toEqual([]);
  });
});

test('the whole way by keyboard: select a shift, change its easing with the arrow keys, undo, play', async ({
  piece,
  page,
}) => {
  await piece.open('demo-boarding-button');
  await piece.matched();
  await piece.arcs.first().focus();
  await page.keyboard.press('Enter');
  await page.getByRole('slider', { name: 'Handle of arriving' }).focus();
  const before = await page.getByRole('slider', { name: 'Handle of arriving' }).getAttribute('aria-valuetext');
  await page.keyboard.press('Shift+ArrowLeft');
  await expect(page.getByRole('slider', { name: 'Handle of arriving' })).not.toHaveAttribute(
    'aria-valuetext',
    before ?? '',
  );
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('slider', { name: 'Handle of arriving' })).toHaveAttribute(
    'aria-valuetext',
    before ?? '',
  );
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Pause' })).toBeVisible();
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible();
});
